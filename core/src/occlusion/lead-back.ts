import type { Fdi } from '../teeth/notation.js';
import { SIDE_STEP_MM } from './guidance.js';
import type { HeightField } from './heights.js';
import { clearances, stepTo } from './movement.js';

/** What a canine needs to lead again, so that the back teeth part by a wanted amount when the jaw goes to its side. */
export interface LeadBack {
  readonly to: 'right' | 'left';
  readonly upper: Fdi;
  readonly lower: Fdi;
  /** How far the back teeth of both sides part now, led by whatever leads, mm. */
  readonly partNowMm: number;
  /** Added along the vertical on the canines together, mm; 0 where they lead and part them already. */
  readonly addMm: number;
}

/** A back tooth is any behind the canine. */
const isBack = (tooth: Fdi): boolean => tooth % 10 > 3;

/**
 * How much is added on the canines of a side so that they lead and the back teeth part by `partMm` at `SIDE_STEP_MM` to
 * the side. The jaw is carried without turning.
 * @returns undefined where one of the canines, or every back tooth, is missing
 */
export function leadBack(
  upper: HeightField,
  lower: HeightField,
  to: 'right' | 'left',
  partMm: number,
): LeadBack | undefined {
  const [canine, below] = to === 'right' ? ([13, 43] as const) : ([23, 33] as const);
  const [x, y] = stepTo(to);
  const all = clearances(upper, lower, [x * SIDE_STEP_MM, y * SIDE_STEP_MM, 0]);
  const least = (which: (t: Fdi) => boolean) =>
    all.filter((c) => which(c.tooth)).reduce((n, c) => Math.min(n, c.spaceMm), Infinity);
  const [back, own, front] = [least(isBack), least((t) => t === canine), least((t) => !isBack(t) && t !== canine)];
  if (!Number.isFinite(back) || !Number.isFinite(own)) return undefined;
  return {
    to,
    upper: canine,
    lower: below,
    // The jaw opens until the first tooth lets it by.
    partNowMm: back - Math.min(back, own, front),
    addMm: Math.max(0, own - Math.min(back - partMm, front)),
  };
}
