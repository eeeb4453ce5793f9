import { Refusal } from '../errors.js';
import type { Lab } from './lab.js';
import { LIGHTS, type LightId, OBSERVER } from './observer.js';
import { NM } from './wavelengths.js';

/** Reflectance or transmittance at the wavelengths of NM, 0 to 1. */
export type Spectrum = Float64Array;

/** A measured white may read a little over it. House value. */
const MOST = 1.05;

/**
 * A spectrum from numbers at its wavelengths.
 * @throws Refusal `spectrum-wrong` where numbers are missing, no numbers, below 0 or above 1.05
 */
export function spectrumOf(values: readonly number[]): Spectrum {
  if (values.length !== NM.count)
    throw new Refusal(
      'spectrum-wrong',
      `A spectrum has ${NM.count} values, from ${NM.from} to ${NM.to} nm by ${NM.step}; these are ${values.length}.`,
    );
  const at = values.findIndex((v) => !(v >= 0 && v <= MOST));
  if (at >= 0)
    throw new Refusal(
      'spectrum-wrong',
      `At ${NM.from + at * NM.step} nm the spectrum reads ${values[at]}; it lies between 0 and ${MOST}.`,
    );
  return Float64Array.from(values);
}

/** The same value at every wavelength. */
export const evenSpectrum = (value: number): Spectrum => new Float64Array(NM.count).fill(value);

type Three = readonly [number, number, number];
const known = new Map<LightId, { readonly weights: readonly Three[]; readonly white: Three }>();

/** What each wavelength adds to X, Y and Z under a light, white being Y = 100; and that white. */
function weightsUnder(light: LightId) {
  const before = known.get(light);
  if (before) return before;
  const { power } = LIGHTS[light];
  const whole = power.reduce((n, p, i) => n + p * (OBSERVER.y[i] as number), 0);
  const weights = power.map(
    (p, i): Three => [
      ((100 * p) / whole) * (OBSERVER.x[i] as number),
      ((100 * p) / whole) * (OBSERVER.y[i] as number),
      ((100 * p) / whole) * (OBSERVER.z[i] as number),
    ],
  );
  const sum = (c: 0 | 1 | 2) => weights.reduce((n, w) => n + w[c], 0);
  const own = { weights, white: [sum(0), sum(1), sum(2)] as Three };
  known.set(light, own);
  return own;
}

/** CIE XYZ of a reflectance under a light, white Y = 100. */
export function xyzOf(r: Spectrum, light: LightId = 'D65'): Three {
  const { weights } = weightsUnder(light);
  let [x, y, z] = [0, 0, 0];
  for (let i = 0; i < NM.count; i++) {
    const w = weights[i] as Three;
    x += w[0] * (r[i] as number);
    y += w[1] * (r[i] as number);
    z += w[2] * (r[i] as number);
  }
  return [x, y, z];
}

const CUT = (6 / 29) ** 3;
const cubed = (t: number): number => (t > CUT ? Math.cbrt(t) : t / (3 * (6 / 29) ** 2) + 4 / 29);

/** CIELAB of a reflectance under a light, against that light's own white (ISO/CIE 11664-4). */
export function labOf(r: Spectrum, light: LightId = 'D65'): Lab {
  const { white } = weightsUnder(light);
  const [x, y, z] = xyzOf(r, light).map((v, c) => cubed(v / (white[c as 0] as number))) as unknown as Three;
  return { L: 116 * y - 16, a: 500 * (x - y), b: 200 * (y - z) };
}
