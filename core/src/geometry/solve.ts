/**
 * Solves the square system A·x = b by elimination with row pivoting. A is given by rows and is not changed.
 * A column without a pivot gives 0 for its unknown.
 */
export function solve(a: readonly (readonly number[])[], b: readonly number[]): number[] {
  const n = b.length;
  const m = a.map((row, i) => [...row, b[i]]);
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let r = c + 1; r < n; r++)
      if (Math.abs((m[r] as number[])[c]) > Math.abs((m[pivot] as number[])[c])) pivot = r;
    [m[c], m[pivot]] = [m[pivot] as number[], m[c] as number[]];
    const p = (m[c] as number[])[c];
    if (Math.abs(p) < 1e-14) continue;
    for (let r = 0; r < n; r++) {
      if (r === c) continue;
      const k = (m[r] as number[])[c] / p;
      for (let j = c; j <= n; j++) (m[r] as number[])[j] = (m[r] as number[])[j] - k * (m[c] as number[])[j];
    }
  }
  return m.map((row, i) => (Math.abs(row[i]) < 1e-14 ? 0 : row[n] / row[i]));
}

/** Least squares: the x that makes Σ(row·x − b)² least, by the normal equations. */
export function leastSquares(rows: readonly (readonly number[])[], b: readonly number[]): number[] {
  const n = rows[0]?.length ?? 0;
  const ata = Array.from({ length: n }, () => new Array<number>(n).fill(0));
  const atb = new Array<number>(n).fill(0);
  rows.forEach((row, k) => {
    for (let i = 0; i < n; i++) {
      atb[i] = atb[i] + row[i] * b[k];
      for (let j = 0; j < n; j++) (ata[i] as number[])[j] = (ata[i] as number[])[j] + row[i] * row[j];
    }
  });
  return solve(ata, atb);
}
