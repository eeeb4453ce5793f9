import type { VisitKind } from '../schedule/visit-words.js';
import { median } from '../working/middle.js';

/** A visit as long as it truly took. */
export interface Taken {
  readonly visit: VisitKind;
  readonly teeth: number;
  readonly minutes: number;
}

/** What the visits of a kind have truly taken. */
export interface OwnTimes {
  readonly visit: VisitKind;
  /** On how many visits it rests. */
  readonly visits: number;
  readonly minutes: number;
  readonly perTooth: number;
}

/** From so many visits of a kind on a house has times of its own. House value. */
export const OWN_TIMES_FROM = 3;

/**
 * A line through what visits of a kind took, teeth against minutes: the middle of the slopes of every two of them, and
 * then the middle of what is left, so that one that went wrong does not bend it. P Theil 1950, Sen 1968 (J Am Stat
 * Assoc 63:1379), from memory. Where all had the same number of teeth the minutes are one number.
 */
export function ownTimes(taken: readonly Taken[]): OwnTimes[] {
  const kinds = [...new Set(taken.map((t) => t.visit))];
  return kinds.flatMap((visit) => {
    const all = taken.filter((t) => t.visit === visit);
    if (all.length < OWN_TIMES_FROM) return [];
    const slopes = all.flatMap((a, i) =>
      all.slice(i + 1).flatMap((b) => (a.teeth === b.teeth ? [] : [(b.minutes - a.minutes) / (b.teeth - a.teeth)])),
    );
    const perTooth = slopes.length > 0 ? Math.max(0, median(slopes)) : 0;
    const minutes = Math.max(0, median(all.map((t) => t.minutes - perTooth * t.teeth)));
    return [{ visit, visits: all.length, minutes: Math.round(minutes), perTooth: Math.round(perTooth) }];
  });
}
