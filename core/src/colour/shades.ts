import { Refusal } from '../errors.js';
import { published } from '../working/working.js';
import { deltaE00, type Lab } from './lab.js';

/** A shade of a scale and where it lies. */
export interface Shade {
  readonly name: string;
  readonly lab: Lab;
}

/** A scale of shades. */
export interface ShadeScale {
  readonly name: string;
  readonly shades: readonly Shade[];
}

const of = (name: string, L: number, a: number, b: number): Shade => ({ name, lab: { L, a, b } });

/** The scale of sixteen letters and numbers that the trade speaks in, as measured once; single tabs differ by 1 to 3 ΔE. */
export const LETTER_SCALE: ShadeScale & { readonly source: ReturnType<typeof published> } = {
  name: 'letters',
  source: published('O’Brien, Groh, Boenke 1990, J Dent Res 69:1762'),
  shades: [
    of('A1', 79.57, -1.61, 13.05),
    of('A2', 76.04, -0.08, 16.73),
    of('A3', 75.36, 1.36, 19.61),
    of('A3.5', 72.31, 1.5, 21.81),
    of('A4', 68.56, 1.58, 21.0),
    of('B1', 78.9, -1.76, 12.33),
    of('B2', 76.66, -1.62, 16.62),
    of('B3', 74.13, 0.47, 22.34),
    of('B4', 71.81, 0.5, 22.15),
    of('C1', 74.29, -1.27, 12.56),
    of('C2', 70.95, -0.22, 16.72),
    of('C3', 68.83, -0.01, 16.68),
    of('C4', 64.75, 1.59, 18.66),
    of('D2', 75.27, -0.54, 13.47),
    of('D3', 72.55, 0.62, 16.14),
    of('D4', 71.77, -1.03, 17.77),
  ],
};

/** The shades of a scale from the nearest on, with their differences, ΔE00. */
export const nearestShades = (lab: Lab, scale: ShadeScale = LETTER_SCALE): { shade: Shade; dE: number }[] =>
  scale.shades.map((shade) => ({ shade, dE: deltaE00(lab, shade.lab) })).sort((p, q) => p.dE - q.dE);

/** @throws Refusal `shade-unknown` */
export function shadeOf(name: string, scale: ShadeScale = LETTER_SCALE): Shade {
  const own = scale.shades.find((s) => s.name.toLowerCase() === name.trim().toLowerCase());
  if (!own) throw new Refusal('shade-unknown', `The scale “${scale.name}” has no shade ${name}.`);
  return own;
}
