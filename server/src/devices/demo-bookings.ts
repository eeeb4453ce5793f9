import { type BookedVisit, type BookSection, clinicCalendar, FIRST_CLINIC } from '@radiant/contract';
import { afterWorking, beforeWorking, type Day, isoOf, type VisitKind } from '@radiant/core';
import type { RecipeName } from '@radiant/standins';

/** What stands in the sample practice's calendar: working days from today, held before it, and when. Avocet has nothing booked yet. */
const BOOKED: Readonly<
  Partial<Record<RecipeName, readonly (readonly [VisitKind, days: number, from: number, minutes: number])[]>>
> = {
  Turnstone: [
    ['mock-up out', -4, 9 * 60, 35],
    ['composite', 1, 9 * 60, 135],
    ['review', 7, 8 * 60, 20],
  ],
  Sandpiper: [
    ['preparation', -9, 9 * 60, 130],
    ['seating', 3, 13 * 60, 125],
  ],
  Plover: [
    ['tissue', -13, 9 * 60, 50],
    ['preparation', -12, 9 * 60, 185],
    ['impression', 2, 10 * 60, 55],
    ['seating', 13, 8 * 60 + 30, 160],
  ],
  Curlew: [
    ['preparation', -8, 13 * 60, 90],
    ['seating', 4, 11 * 60, 55],
    ['review', 9, 9 * 60, 20],
  ],
};

const clinic = clinicCalendar(FIRST_CLINIC);

/** The visits of a sample case. */
export const demoVisits = (name: RecipeName, today: Day): BookedVisit[] =>
  (BOOKED[name] ?? []).map(([kind, days, from, minutes]) => ({
    kind,
    day: isoOf(days < 0 ? beforeWorking(clinic, today, -days) : afterWorking(clinic, today, days)),
    from,
    minutes,
    chair: FIRST_CLINIC.chairs[0] as string,
  }));

/** How a sample case is booked. Plover's gum was contoured. */
export const demoBook = (name: RecipeName, visits: BookedVisit[]): BookSection => ({
  away: [],
  visits,
  ...(name === 'Plover' && { tissue: 'gum' }),
});
