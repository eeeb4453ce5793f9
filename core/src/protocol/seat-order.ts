import { type Fdi, isUpper } from '../teeth/notation.js';

/** How far a tooth is from the midline, 1 for a central. */
const place = (t: Fdi): number => t % 10;

/** Teeth side by side along their jaw, from the patient's right to the left, seen from in front. */
const along = (t: Fdi): number => (Math.floor(t / 10) === 1 || Math.floor(t / 10) === 4 ? -place(t) : place(t) - 1);

/** Teeth as one sees them from in front: the upper row before the lower, from the patient's right to the left. */
export const inRow = (teeth: readonly Fdi[]): Fdi[] =>
  [...teeth].sort((a, b) => Number(isUpper(b)) - Number(isUpper(a)) || along(a) - along(b));

/** Teeth that are seated together, and what is looked at before. */
export interface SeatGroup {
  readonly teeth: readonly Fdi[];
  /** Contacts with what was seated before, which are looked at again. */
  readonly recheck: readonly (readonly [Fdi, Fdi])[];
}

/** Whether two teeth touch: side by side in one jaw. */
export const touch = (a: Fdi, b: Fdi): boolean => isUpper(a) === isUpper(b) && Math.abs(along(a) - along(b)) === 1;

/**
 * The order in which pieces are seated: the upper jaw first, as its edge is what shows; in each jaw the centrals first
 * and together, then outward by pairs, the contacts with what is seated looked at again. Common practice, no source.
 */
export function seatOrder(teeth: readonly Fdi[]): SeatGroup[] {
  const out: SeatGroup[] = [];
  for (const upper of [true, false]) {
    const jaw = teeth.filter((t) => isUpper(t) === upper);
    const seated: Fdi[] = [];
    for (let p = 1; p <= 8; p++) {
      const now = jaw.filter((t) => place(t) === p).sort((a, b) => along(a) - along(b));
      if (now.length === 0) continue;
      const recheck = now.flatMap((t) => seated.filter((s) => touch(s, t)).map((s) => [s, t] as const));
      out.push({ teeth: now, recheck });
      seated.push(...now);
    }
  }
  return out;
}

/** What a row of pieces touches that is not made anew: these contacts are tried first. @param present teeth there */
export function untouchedContacts(teeth: readonly Fdi[], present: readonly Fdi[]): readonly (readonly [Fdi, Fdi])[] {
  const sorted = inRow(teeth);
  return sorted.flatMap((t) => present.filter((p) => !teeth.includes(p) && touch(p, t)).map((p) => [p, t] as const));
}

/** Pieces side by side, the pairs that are tried together after each alone. */
export const pairsOf = (teeth: readonly Fdi[]): readonly (readonly [Fdi, Fdi])[] => {
  const sorted = inRow(teeth);
  return sorted.flatMap((t, i) => {
    const next = sorted[i + 1];
    return next !== undefined && touch(t, next) ? [[t, next] as const] : [];
  });
};
