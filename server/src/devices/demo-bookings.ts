import { type BookedVisit, clinicCalendar, FIRST_CLINIC } from '@radiant/contract';
import { afterWorking, type Day, isoOf, type VisitKind } from '@radiant/core';
import type { RecipeName } from '@radiant/standins';

/** What stands in the sample practice's calendar: working days from today, and when. Avocet has nothing booked yet. */
const BOOKED: Readonly<
  Partial<Record<RecipeName, readonly (readonly [VisitKind, days: number, from: number, minutes: number])[]>>
> = {
  Turnstone: [
    ['composite', 1, 9 * 60, 135],
    ['review', 7, 8 * 60, 20],
  ],
  Sandpiper: [['seating', 3, 13 * 60, 125]],
  Plover: [
    ['impression', 2, 10 * 60, 55],
    ['seating', 13, 8 * 60 + 30, 160],
  ],
  Curlew: [
    ['seating', 4, 11 * 60, 55],
    ['review', 9, 9 * 60, 20],
  ],
};

/** The visits of a sample case. */
export const demoVisits = (name: RecipeName, today: Day): BookedVisit[] =>
  (BOOKED[name] ?? []).map(([kind, days, from, minutes]) => ({
    kind,
    day: isoOf(afterWorking(clinicCalendar(FIRST_CLINIC), today, days)),
    from,
    minutes,
    chair: FIRST_CLINIC.chairs[0] as string,
  }));
