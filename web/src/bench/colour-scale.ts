import { MAP_COLOURS, type Rgb } from '@radiant/contract';
import { VISIBLE } from '@radiant/core';
import { PALETTE } from '../ui/palette.js';

/** Ends of the added/removed scale, mm. */
export const DIFFERENCE_RANGE_MM = 1;

const { removed: REMOVED, none: NONE, added: ADDED } = MAP_COLOURS;

/** Colour of a distance, sRGB 0–1: amber where tooth is removed, porcelain at none, blue where volume is added. */
export function differenceColour(mm: number): Rgb {
  const t = Math.min(1, Math.abs(mm) / DIFFERENCE_RANGE_MM);
  // The first hundredths are scanner noise and stay pale.
  const k = t < 0.04 ? 0 : 0.12 + 0.88 * ((t - 0.04) / 0.96) ** 0.8;
  const end = mm > 0 ? ADDED : REMOVED;
  return [0, 1, 2].map((i) => (NONE[i as 0] as number) * (1 - k) + (end[i as 0] as number) * k) as unknown as Rgb;
}

export const css = ([r, g, b]: Rgb): string =>
  `rgb(${Math.round(255 * r)} ${Math.round(255 * g)} ${Math.round(255 * b)})`;

/** Amber for a removal depth, from the palest that still shows to full at 0.7 mm. */
export function removalColour(mm: number): string {
  if (mm <= 0) return PALETTE.white;
  const k = 0.14 + 0.76 * Math.min(1, mm / 0.7);
  const pale: Rgb = [1, 0.973, 0.933];
  return css(
    [0, 1, 2].map((i) => (pale[i as 0] as number) * (1 - k) + (REMOVED[i as 0] as number) * k) as unknown as Rgb,
  );
}

const TOUCH: Rgb = [0.365, 0.165, 0.353];
const THROUGH: Rgb = [0.16, 0.05, 0.2];
/** From here on a tooth counts as clear of the other jaw in the picture, mm. */
export const CLEAR_MM = 1.5;

/**
 * Colour of the space between the jaws: darkest where teeth pass into each other, plum where they touch, paling to none
 * at 1.5 mm.
 */
export function biteColour(mm: number): Rgb {
  if (Number.isNaN(mm) || mm >= CLEAR_MM) return NONE;
  if (mm < -0.05) return THROUGH;
  if (mm <= 0.05) return TOUCH;
  const k = 0.8 * (1 - (mm - 0.05) / (CLEAR_MM - 0.05));
  return [0, 1, 2].map((i) => (NONE[i as 0] as number) * (1 - k) + (TOUCH[i as 0] as number) * k) as unknown as Rgb;
}

/** Full amber of what goes on the teeth in three dimensions, mm: crowns take so much. */
export const REMOVAL_RANGE_MM = 1.5;
/** Added to a removal where the enamel may be through, and twice where it is; no tooth is cut so deep. */
export const DENTIN_CODE = 100;
const PERHAPS: Rgb = [0.66, 0.5, 0.64];
const DENTIN: Rgb = [0.42, 0.21, 0.4];

/** Colour of what goes from a tooth, mm, with the code of what is met. */
export function targetColour(coded: number): Rgb {
  if (coded >= 2 * DENTIN_CODE) return DENTIN;
  if (coded >= DENTIN_CODE) return PERHAPS;
  const k = coded < 0.02 ? 0 : 0.15 + 0.85 * Math.min(1, coded / REMOVAL_RANGE_MM) ** 0.7;
  return [0, 1, 2].map((i) => (NONE[i as 0] as number) * (1 - k) + (REMOVED[i as 0] as number) * k) as unknown as Rgb;
}

/** Where the stump shows fully, ΔE00. */
export const SHOWS_RANGE = 6;
const SHOWS: Rgb = [0.36, 0.27, 0.2];

/**
 * Colour of how much of a stump is seen through its ceramic, ΔE00: none below what half of those who look would take,
 * darker with all beyond; grey where no ceramic lies.
 */
export function showsColour(dE: number): Rgb {
  if (Number.isNaN(dE)) return [0.78, 0.77, 0.75];
  if (dE <= VISIBLE.seen) return NONE;
  const k = Math.min(1, 0.15 + (0.85 * (dE - VISIBLE.seen)) / (SHOWS_RANGE - VISIBLE.seen));
  return [0, 1, 2].map((i) => (NONE[i as 0] as number) * (1 - k) + (SHOWS[i as 0] as number) * k) as unknown as Rgb;
}
