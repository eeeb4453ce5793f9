import { Refusal } from '../errors.js';
import { published } from '../working/working.js';
import type { Spectrum } from './spectrum.js';
import { NM } from './wavelengths.js';

/** How a material takes and turns back light at each wavelength, for each mm: absorption K and scattering S. */
export interface Optics {
  readonly K: Float64Array;
  readonly S: Float64Array;
}

/** What lets through and turns back by itself: reflectance with black behind, transmittance. */
export interface Sheet {
  readonly R: Float64Array;
  readonly T: Float64Array;
}

/** Less scattering than this turns nothing back, 1/mm: what goes through is told by absorption alone. */
const CLEAR = 1e-9;

/**
 * A layer by two-flux theory (Kubelka 1948, J Opt Soc Am 38:448): light goes straight in and straight back, what is
 * scattered is diffuse, and both are the same everywhere in it.
 * @param mm its thickness
 */
export function sheetOf({ K, S }: Optics, mm: number): Sheet {
  const [R, T] = [new Float64Array(NM.count), new Float64Array(NM.count)];
  for (let i = 0; i < NM.count; i++) {
    const [k, s] = [K[i] as number, S[i] as number];
    if (s < CLEAR) {
      T[i] = Math.exp(-k * mm);
      continue;
    }
    const a = (s + k) / s;
    const b = Math.sqrt(Math.max(0, a * a - 1));
    // Without absorption the hyperbolic functions run into a straight line.
    if (b * s * mm < 1e-6) {
      R[i] = (s * mm) / (1 + s * mm);
      T[i] = 1 / (1 + s * mm);
      continue;
    }
    const [sinh, cosh] = [Math.sinh(b * s * mm), Math.cosh(b * s * mm)];
    R[i] = sinh / (a * sinh + b * cosh);
    T[i] = b / (a * sinh + b * cosh);
  }
  return { R, T };
}

/** A sheet over what lies behind it: the reflectance of both. */
export function over(sheet: Sheet, behind: Spectrum): Spectrum {
  return sheet.R.map((r, i) => {
    const t = sheet.T[i] as number;
    const g = behind[i] as number;
    return r + (t * t * g) / (1 - r * g);
  });
}

/**
 * Absorption and scattering from reflectances over a black and a white ground at a known thickness, as a laboratory
 * measures them.
 * @param ground reflectances of the two grounds themselves
 * @throws Refusal `spectrum-wrong` where black reads brighter than white, or a layer is so thick that both read alike
 */
export function opticsFrom(
  black: Spectrum,
  white: Spectrum,
  mm: number,
  ground: { readonly black: Spectrum; readonly white: Spectrum },
): Optics {
  const [K, S] = [new Float64Array(NM.count), new Float64Array(NM.count)];
  for (let i = 0; i < NM.count; i++) {
    const [rb, rw] = [black[i] as number, white[i] as number];
    const [gb, gw] = [ground.black[i] as number, ground.white[i] as number];
    const nm = NM.from + i * NM.step;
    if (!(rw > rb) || !(gw > gb))
      throw new Refusal(
        'spectrum-wrong',
        `At ${nm} nm it reads no brighter over white than over black: the readings are changed round, or it is too thick to tell.`,
      );
    // With c = b·coth(bSX) a layer over a ground g reads r where c·(r − g) = 1 + r·g − a·(r + g): two grounds give a.
    const of = (r: number, g: number) => ({ p: 1 + r * g, q: r + g, d: r - g });
    const [one, two] = [of(rb, gb), of(rw, gw)];
    const a = Math.max(1, (two.p * one.d - one.p * two.d) / (two.q * one.d - one.q * two.d));
    const b = Math.sqrt(a * a - 1);
    const told = Math.abs(one.d) > Math.abs(two.d) ? one : two;
    const c = (told.p - a * told.q) / told.d;
    // Without absorption c runs into 1 / (S·X).
    const s = b < 1e-6 ? 1 / (c * mm) : Math.log((c + b) / (c - b)) / (2 * b * mm);
    S[i] = s;
    K[i] = s * (a - 1);
  }
  return { K, S };
}

/** What of the light is turned back at the surface itself, outside and inside, for a refractive index of about 1.5. */
export const SURFACE = {
  /** Of a straight beam that comes in. */
  outside: 0.04,
  /** Of the diffuse light that goes out. */
  inside: 0.6,
  source: published('Saunderson 1942, J Opt Soc Am 32:727'),
} as const;

/**
 * What is seen of a body through its polished surface, the mirror of the surface left out: some of the light that comes
 * out is turned back in. @param inner reflectance under the surface
 */
export const throughSurface = (inner: Spectrum): Spectrum =>
  inner.map((r) => ((1 - SURFACE.outside) * (1 - SURFACE.inside) * r) / (1 - SURFACE.inside * r));

/** The reflectance under the surface of what is seen through it. */
export const underSurface = (seen: Spectrum): Spectrum =>
  seen.map((r) => r / ((1 - SURFACE.outside) * (1 - SURFACE.inside) + SURFACE.inside * r));
