import { Refusal } from '../errors.js';
import type { Lab } from './lab.js';
import { labOfLight, lightOf } from './screen.js';

/** sRGB of a patch of a picture, 0 to 255: the mean of its pixels. */
export type PatchRgb = readonly [number, number, number];

/** What a grey card turns back of the light: the usual card. Standard photographic practice. */
export const CARD_REFLECTS = 0.18;
/** A card has a value of its own within these. House limits. */
export const CARD_LIMITS = { min: 0.05, max: 0.9 } as const;
/** A patch outside these has lost what it was: burnt out, or drowned in the sensor's noise. House values. */
const HOLDS = { dark: 12, burnt: 250 } as const;
/** A card that leans further to one side than this is no grey card, or no light to read by. House value. */
const LEANS = 3;

const linear = (v: number): number => lightOf(v / 255);

/**
 * The rough colour of a spot in a photograph in which a grey card lies in the same light: white and exposure are set by
 * the card, and nothing else of the camera is known. Good for talking about light and dark, never for choosing a shade.
 * @param reflects what the card turns back, 0 to 1
 * @returns CIELAB D65
 * @throws Refusal `reading-missing` where card or spot are burnt out or too dark, or the card is not grey
 */
export function roughColour(card: PatchRgb, spot: PatchRgb, reflects: number = CARD_REFLECTS): Lab {
  for (const [what, patch] of [
    ['grey card', card],
    ['tooth', spot],
  ] as const) {
    if (patch.some((v) => v > HOLDS.burnt))
      throw new Refusal('reading-missing', `The ${what} is burnt out there: a place without shine, or less light.`);
    if (Math.max(...patch) < HOLDS.dark)
      throw new Refusal('reading-missing', `The ${what} is too dark there to be read.`);
  }
  const grey = card.map(linear);
  if (Math.max(...grey) > LEANS * Math.min(...grey))
    throw new Refusal('reading-missing', 'This is no grey card: one colour is three times as strong as another.');
  const [r, g, b] = spot.map((v, i) => (linear(v) / (grey[i] as number)) * reflects) as [number, number, number];
  return labOfLight([r, g, b]);
}
