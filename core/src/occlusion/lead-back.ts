import type { Fdi } from '../teeth/notation.js';
import { SIDE_STEP_MM } from './guidance.js';
import type { HeightField } from './heights.js';
import { clearances, stepTo, TOUCH_MM } from './movement.js';

/** One place of the jaw on its way to a side. */
export interface LeadStep {
  /** Way to the side, mm. */
  readonly alongMm: number;
  /** How far the back teeth of both sides part there, led by whatever leads, mm. */
  readonly partMm: number;
  /** How far they are to part there: evenly more up to the wished amount. */
  readonly wantedMm: number;
  /** Added along the vertical on the canines together so that they lead and part them so far, mm. */
  readonly addMm: number;
  /** Whether the canine of that side touches there, alone or with others. */
  readonly leads: boolean;
}

/** What a canine needs to lead again, so that the back teeth part by a wanted amount when the jaw goes to its side. */
export interface LeadBack {
  readonly to: 'right' | 'left';
  readonly upper: Fdi;
  readonly lower: Fdi;
  /** The way to the side, as far as the two canines stay across from each other. */
  readonly way: readonly LeadStep[];
  /** How far the back teeth of both sides part now at `SIDE_STEP_MM`, mm. */
  readonly partNowMm: number;
  /** The most that is to be added anywhere on the way, mm; 0 where the canines lead and part them already. */
  readonly addMm: number;
  /** Where on the way that is, mm to the side. */
  readonly mostAtMm: number;
}

/** A back tooth is any behind the canine. */
const isBack = (tooth: Fdi): boolean => tooth % 10 > 3;

/** So far to the side the lead is followed, and in such steps, mm. House values: beyond, the tips pass each other. */
const WAY_MM = 3;
const STEP_MM = 0.3;

/**
 * How much is added on the canines of a side so that they lead and the back teeth part: evenly more along the way, by
 * `partMm` from `SIDE_STEP_MM` on. The jaw is carried without turning.
 * @returns undefined where one of the canines, or every back tooth, is missing
 */
export function leadBack(
  upper: HeightField,
  lower: HeightField,
  to: 'right' | 'left',
  partMm: number,
): LeadBack | undefined {
  const [canine, below] = to === 'right' ? ([13, 43] as const) : ([23, 33] as const);
  const way: LeadStep[] = [];
  for (let k = 1; k * STEP_MM <= WAY_MM + 1e-9; k++) {
    const step = stepOf(upper, lower, to, canine, k * STEP_MM, partMm);
    // The tips have passed each other: what comes after is no lead of theirs.
    if (!step) break;
    way.push(step);
  }
  const here = way.find((s) => Math.abs(s.alongMm - SIDE_STEP_MM) < STEP_MM / 2);
  if (!here) return undefined;
  const most = way.reduce((a, s) => (s.addMm > a.addMm + 1e-6 ? s : a), here);
  return { to, upper: canine, lower: below, way, partNowMm: here.partMm, addMm: most.addMm, mostAtMm: most.alongMm };
}

function stepOf(
  upper: HeightField,
  lower: HeightField,
  to: 'right' | 'left',
  canine: Fdi,
  alongMm: number,
  partMm: number,
): LeadStep | undefined {
  const [x, y] = stepTo(to);
  const all = clearances(upper, lower, [x * alongMm, y * alongMm, 0]);
  const least = (which: (t: Fdi) => boolean) =>
    all.filter((c) => which(c.tooth)).reduce((n, c) => Math.min(n, c.spaceMm), Infinity);
  const [back, own, front] = [least(isBack), least((t) => t === canine), least((t) => !isBack(t) && t !== canine)];
  if (!Number.isFinite(back) || !Number.isFinite(own)) return undefined;
  const wantedMm = partMm * Math.min(1, alongMm / SIDE_STEP_MM);
  // The jaw opens until the first tooth lets it by.
  const first = Math.min(back, own, front);
  return {
    alongMm,
    partMm: back - first,
    wantedMm,
    addMm: Math.max(0, own - Math.min(back - wantedMm, front)),
    leads: own - first <= TOUCH_MM,
  };
}
