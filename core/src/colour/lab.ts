import { hypot } from '../geometry/vec.js';
import { published, type Source } from '../working/working.js';

/** A colour in CIELAB for D65 and the 2° observer: lightness 0 to 100, red to green, yellow to blue. */
export interface Lab {
  readonly L: number;
  readonly a: number;
  readonly b: number;
}

/** From when on a difference is seen by half of those who look, and from when on half of them would not take it, ΔE00. */
export const VISIBLE: { readonly seen: number; readonly notTaken: number; readonly source: Source } = {
  seen: 0.8,
  notTaken: 1.8,
  source: published('Paravina et al. 2015, J Esthet Restor Dent 27:S1'),
};

const DEG = Math.PI / 180;
const hueOf = (a: number, b: number): number => (a === 0 && b === 0 ? 0 : (Math.atan2(b, a) / DEG + 360) % 360);

/**
 * The difference of two colours as it is seen, ΔE00 (ISO/CIE 11664-6), its three weights 1.
 */
export function deltaE00(p: Lab, q: Lab): number {
  const mean = (hypot(p.a, p.b) + hypot(q.a, q.b)) / 2;
  const seven = mean ** 7;
  const g = 0.5 * (1 - Math.sqrt(seven / (seven + 25 ** 7)));
  const [a1, a2] = [(1 + g) * p.a, (1 + g) * q.a];
  const [c1, c2] = [hypot(a1, p.b), hypot(a2, q.b)];
  const [h1, h2] = [hueOf(a1, p.b), hueOf(a2, q.b)];
  const [dL, dC] = [q.L - p.L, c2 - c1];
  const grey = c1 * c2 === 0;
  const turn = grey ? 0 : ((h2 - h1 + 540) % 360) - 180;
  const dH = 2 * Math.sqrt(c1 * c2) * Math.sin((turn / 2) * DEG);
  const [L, C] = [(p.L + q.L) / 2, (c1 + c2) / 2];
  const far = Math.abs(h1 - h2) > 180;
  const h = grey ? h1 + h2 : far ? (h1 + h2 + (h1 + h2 < 360 ? 360 : -360)) / 2 : (h1 + h2) / 2;
  const t =
    1 -
    0.17 * Math.cos((h - 30) * DEG) +
    0.24 * Math.cos(2 * h * DEG) +
    0.32 * Math.cos((3 * h + 6) * DEG) -
    0.2 * Math.cos((4 * h - 63) * DEG);
  const sL = 1 + (0.015 * (L - 50) ** 2) / Math.sqrt(20 + (L - 50) ** 2);
  const sC = 1 + 0.045 * C;
  const sH = 1 + 0.015 * C * t;
  const cSeven = C ** 7;
  const rC = 2 * Math.sqrt(cSeven / (cSeven + 25 ** 7));
  const rT = -Math.sin(60 * Math.exp(-(((h - 275) / 25) ** 2)) * DEG) * rC;
  return Math.sqrt((dL / sL) ** 2 + (dC / sC) ** 2 + (dH / sH) ** 2 + rT * (dC / sC) * (dH / sH));
}

/** What a difference means to those who look. */
export const differenceWords = (dE: number): string =>
  dE <= VISIBLE.seen ? 'hardly anyone sees it' : dE <= VISIBLE.notTaken ? 'half see it, most take it' : 'it is seen';
