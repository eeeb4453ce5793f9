import { type BookedVisit, type Booking, type Clinic, clinicCalendar } from '@radiant/contract';
import { takenBy } from '@radiant/contract/course';
import { dayOf, freeOn, openOn, type VisitKind } from '@radiant/core';

/** A stretch of a chair's day that has room, minutes from midnight. */
export interface Slot {
  readonly chair: string;
  readonly from: number;
  readonly to: number;
}

/** Where a day has room for so many minutes, chair by chair. */
export function slotsOn(clinic: Clinic, others: readonly Booking[], day: string, minutes: number): Slot[] {
  const open = openOn(clinicCalendar(clinic), dayOf(day));
  const taken = takenBy(others, clinic)(dayOf(day));
  return clinic.chairs.flatMap((chair, i) => freeOn(open, taken[i] ?? [], minutes).map((s) => ({ chair, ...s })));
}

/** A visit on a day, in the first chair and at the first time that have room; undefined where none has. */
export function visitOn(
  clinic: Clinic,
  others: readonly Booking[],
  kind: VisitKind,
  day: string,
  minutes: number,
): BookedVisit | undefined {
  const first = slotsOn(clinic, others, day, minutes).sort((a, b) => a.from - b.from)[0];
  return first && { kind, day, from: first.from, minutes, chair: first.chair };
}
