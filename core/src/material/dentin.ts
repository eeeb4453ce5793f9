import type { Lab } from '../colour/lab.js';
import { type Optics, over, sheetOf, throughSurface } from '../colour/layer.js';
import { labOf, type Spectrum } from '../colour/spectrum.js';
import { NM } from '../colour/wavelengths.js';
import { ceramicIn, TISSUES } from './ceramics.js';

/** Sound dentin by itself and enamel by itself: the shades of thick pieces. Illustrative. */
const SOUND_DENTIN: Lab = { L: 74, a: 2, b: 22 };
const ENAMEL: Lab = { L: 80, a: -1, b: 9 };

/** A stain takes most of the violet and less and less towards red: it falls to a third in so many nm. House value. */
const STAIN_NM = 140;
/** A tooth or stump that was read darker than the darkest shades of the scale is called dark, L*. House value. */
export const DARK_L = 62;

/** No dentin is darker than this, L*. House value. */
const DARKEST = 42;
/** So much stain, 1/mm at 400 nm, makes any dentin darker than that. */
const MOST_STAIN = 400;
const HALVINGS = 40;

/**
 * How strongly enamel may scatter in the mouth, by how much of what was measured on slices: wet enamel lets more
 * through. The middle is taken and both ends are shown. House values, no source.
 */
export const ENAMEL_IN_THE_MOUTH = { least: 0.35, middle: 0.6, most: 0.85 } as const;
export type EnamelGuess = keyof typeof ENAMEL_IN_THE_MOUTH;

const enamelThat = (part: number): Optics =>
  ceramicIn({ ...TISSUES.enamel, scatter: TISSUES.enamel.scatter * part }, ENAMEL);

const sound = ceramicIn(TISSUES.dentin, SOUND_DENTIN);

/** Dentin with so much stain, as a thick body under its surface. */
function stained(stain: number): Spectrum {
  return sound.K.map((k, i) => {
    const own = k + stain * Math.exp(-(i * NM.step) / STAIN_NM);
    const a = 1 + own / (sound.S[i] as number);
    return a - Math.sqrt(a * a - 1);
  });
}

const lightness = (inner: Spectrum): number => labOf(throughSurface(inner)).L;

/** What a tooth is taken for under its surface. */
export interface TakenFor {
  readonly dentin: Spectrum;
  readonly enamel: Optics;
}

/**
 * The dentin that makes a tooth as light as it was read, enamel of a usual kind before it: sound dentin with more or less
 * of a brown stain. A single reading can't tell enamel from dentin, so nothing is solved for colour by colour: at each
 * wavelength by itself that gives dentins that are no dentin. Where even the darkest dentin is too light, the enamel is
 * taken for clearer; where sound dentin is too dark, for sound.
 * @param seen how the tooth looks, wet
 */
export function dentinUnder(seen: Lab, enamelMm: number, guess: EnamelGuess): TakenFor {
  let part: number = ENAMEL_IN_THE_MOUTH[guess];
  const as = (dentin: Spectrum, enamel: Optics) => lightness(over(sheetOf(enamel, enamelMm), dentin));
  // Darker than the darkest dentin no dentin is: the least stain that makes one so dark.
  const darkest = stained(halved((stain) => lightness(stained(stain)) > DARKEST, 0, MOST_STAIN));
  if (as(darkest, enamelThat(part)) > seen.L) part = halved((p) => as(darkest, enamelThat(p)) < seen.L, 0.02, part);
  const enamel = enamelThat(part);
  const stain = as(stained(0), enamel) <= seen.L ? 0 : halved((s) => as(stained(s), enamel) > seen.L, 0, MOST_STAIN);
  const dentin = stained(stain);
  return { dentin: lightness(dentin) < DARKEST ? darkest : dentin, enamel };
}

/** Where something that holds below ceases to. */
function halved(holds: (x: number) => boolean, from: number, to: number): number {
  let [low, high] = [from, to];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    if (holds(middle)) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
