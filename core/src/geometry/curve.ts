/** A smooth function of one variable through given knots. */
export type Curve = (x: number) => number;

/**
 * Monotone cubic through (x, y) knots with rising x (Fritsch & Carlson 1980, SIAM J Numer Anal 17:238, from memory):
 * it never overshoots its knots. Beyond the ends it keeps the end value.
 */
export function monotoneCurve(knots: readonly (readonly [number, number])[]): Curve {
  const n = knots.length;
  const xs = Float64Array.from(knots, (k) => k[0]);
  const ys = Float64Array.from(knots, (k) => k[1]);
  const slope = new Float64Array(n - 1);
  for (let i = 0; i < n - 1; i++) slope[i] = (ys[i + 1] - ys[i]) / (xs[i + 1] - xs[i]);
  const m = new Float64Array(n);
  m[0] = slope[0];
  m[n - 1] = slope[n - 2];
  for (let i = 1; i < n - 1; i++) {
    const a = slope[i - 1];
    const b = slope[i];
    m[i] = a * b <= 0 ? 0 : (2 * a * b) / (a + b);
  }
  return (x) => {
    if (x <= xs[0]) return ys[0];
    if (x >= xs[n - 1]) return ys[n - 1];
    let i = 0;
    while (x > xs[i + 1]) i++;
    const h = xs[i + 1] - xs[i];
    const t = (x - xs[i]) / h;
    const t2 = t * t;
    const t3 = t2 * t;
    return (
      (2 * t3 - 3 * t2 + 1) * ys[i] +
      (t3 - 2 * t2 + t) * h * m[i] +
      (3 * t2 - 2 * t3) * ys[i + 1] +
      (t3 - t2) * h * m[i + 1]
    );
  };
}

/**
 * The same curve from a table of n equal steps, straight between them: for inner loops. Beyond the ends the end value.
 */
export function tabulated(curve: Curve, from: number, to: number, n = 512): Curve {
  const table = Float64Array.from({ length: n + 2 }, (_, i) => curve(from + ((to - from) * Math.min(i, n)) / n));
  const k = n / (to - from);
  return (x) => {
    const t = Math.min(n, Math.max(0, (x - from) * k));
    const i = t | 0;
    const a = table[i];
    return a + (table[i + 1] - a) * (t - i);
  };
}

/** 0 below a, 1 above b, smooth between. */
export function smoothstep(a: number, b: number, x: number): number {
  const t = Math.min(1, Math.max(0, (x - a) / (b - a)));
  return t * t * (3 - 2 * t);
}
