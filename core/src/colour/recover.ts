import { solve } from '../geometry/solve.js';
import { hypot } from '../geometry/vec.js';
import type { Lab } from './lab.js';
import { labOf, type Spectrum, xyzOf } from './spectrum.js';
import { NM } from './wavelengths.js';

/** CIE XYZ under D65 of a colour in CIELAB, white Y = 100. */
function xyzFromLab({ L, a, b }: Lab): readonly [number, number, number] {
  const y = (L + 16) / 116;
  const white = xyzOf(new Float64Array(NM.count).fill(1));
  return [y + a / 500, y, y - b / 200].map((t, c) => {
    const v = t > 6 / 29 ? t ** 3 : 3 * (6 / 29) ** 2 * (t - 4 / 29);
    return v * (white[c as 0] as number);
  }) as unknown as readonly [number, number, number];
}

const ROUNDS = 40;
/** As near as this in CIELAB it is found. */
const NEAR = 1e-6;

/**
 * A reflectance that has a colour, for readings that are known as CIELAB alone: of all that have it under D65 the
 * smoothest, kept between 0 and 1 (least slope of log-odds, after Burns 2020, Color Res Appl 45:8; from memory). Under
 * another light the true body may look otherwise: it says nothing of that.
 * @returns nothing where no reflectance has the colour
 */
export function smoothestSpectrum(lab: Lab): Spectrum | undefined {
  const key = `${lab.L} ${lab.a} ${lab.b}`;
  if (found.has(key)) return found.get(key);
  if (found.size >= KEPT) found.clear();
  const own = searched(lab);
  found.set(key, own);
  return own;
}

/** What was found: the same few colours are asked for again and again. */
const found = new Map<string, Spectrum | undefined>();
const KEPT = 500;

function searched(lab: Lab): Spectrum | undefined {
  const n = NM.count;
  const target = xyzFromLab(lab);
  // r = (tanh z + 1) / 2; the sum of squared steps of z is least under three conditions: Newton on its stationary point.
  const z = new Float64Array(n);
  const lambda = new Float64Array(3);
  const unit = Array.from({ length: n }, (_, i) => {
    const one = new Float64Array(n);
    one[i] = 1;
    return xyzOf(one);
  });
  const slope = (i: number, v: Float64Array) =>
    (i > 0 ? 2 * ((v[i] as number) - (v[i - 1] as number)) : 0) +
    (i + 1 < n ? 2 * ((v[i] as number) - (v[i + 1] as number)) : 0);
  for (let round = 0; round < ROUNDS; round++) {
    const r = z.map((v) => (Math.tanh(v) + 1) / 2);
    const own = xyzOf(r);
    const size = n + 3;
    const m = Array.from({ length: size }, () => new Array<number>(size).fill(0));
    const right = new Array<number>(size).fill(0);
    for (let i = 0; i < n; i++) {
      const t = Math.tanh(z[i] as number);
      const d1 = (1 - t * t) / 2;
      const d2 = -t * (1 - t * t);
      const w = unit[i] as readonly [number, number, number];
      const pull = w.reduce((sum, v, c) => sum + v * (lambda[c] as number), 0);
      const row = m[i] as number[];
      row[i] = (i > 0 ? 2 : 0) + (i + 1 < n ? 2 : 0) + pull * d2;
      if (i > 0) row[i - 1] = -2;
      if (i + 1 < n) row[i + 1] = -2;
      for (let c = 0; c < 3; c++) {
        row[n + c] = (w[c] as number) * d1;
        (m[n + c] as number[])[i] = (w[c] as number) * d1;
      }
      right[i] = -(slope(i, z) + pull * d1);
    }
    for (let c = 0; c < 3; c++) right[n + c] = (target[c] as number) - (own[c] as number);
    const step = solve(m, right);
    if (step.some((v) => !Number.isFinite(v))) return undefined;
    for (let i = 0; i < n; i++) z[i] = (z[i] as number) + (step[i] as number);
    for (let c = 0; c < 3; c++) lambda[c] = (lambda[c] as number) + (step[n + c] as number);
    const now = z.map((v) => (Math.tanh(v) + 1) / 2);
    const told = labOf(now);
    if (hypot(told.L - lab.L, told.a - lab.a, told.b - lab.b) < NEAR) return now;
  }
  return undefined;
}
