/**
 * Solves the square system A·x = b by elimination with row pivoting. A is given by rows and is not changed.
 * A column without a pivot gives 0 for its unknown.
 */
export function solve(a: readonly (readonly number[])[], b: readonly number[]): number[] {
  const n = b.length;
  const m = a.map((row, i) => [...row, b[i] as number]);
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let r = c + 1; r < n; r++)
      if (Math.abs((m[r] as number[])[c] as number) > Math.abs((m[pivot] as number[])[c] as number)) pivot = r;
    [m[c], m[pivot]] = [m[pivot] as number[], m[c] as number[]];
    const p = (m[c] as number[])[c] as number;
    if (Math.abs(p) < 1e-14) continue;
    for (let r = 0; r < n; r++) {
      if (r === c) continue;
      const k = ((m[r] as number[])[c] as number) / p;
      for (let j = c; j <= n; j++)
        (m[r] as number[])[j] = ((m[r] as number[])[j] as number) - k * ((m[c] as number[])[j] as number);
    }
  }
  return m.map((row, i) => (Math.abs(row[i] as number) < 1e-14 ? 0 : (row[n] as number) / (row[i] as number)));
}

/** Least squares: the x that makes Σ(row·x − b)² least, by the normal equations. */
export function leastSquares(rows: readonly (readonly number[])[], b: readonly number[]): number[] {
  const n = rows[0]?.length ?? 0;
  const ata = Array.from({ length: n }, () => new Array<number>(n).fill(0));
  const atb = new Array<number>(n).fill(0);
  rows.forEach((row, k) => {
    for (let i = 0; i < n; i++) {
      atb[i] = (atb[i] as number) + (row[i] as number) * (b[k] as number);
      for (let j = 0; j < n; j++)
        (ata[i] as number[])[j] = ((ata[i] as number[])[j] as number) + (row[i] as number) * (row[j] as number);
    }
  });
  return solve(ata, atb);
}
