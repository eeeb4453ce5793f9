import { type Calendar, isOpen } from './calendar.js';
import type { Course } from './course.js';
import type { Day } from './day.js';
import type { VisitPlan } from './plan-visits.js';
import { VISITS, type VisitKind } from './visit-words.js';

/** Something that has to be sent, ordered or made by a day. */
export interface Reminder {
  readonly by: Day;
  readonly what: string;
  readonly for: VisitKind;
}

interface Rule {
  readonly for: VisitKind;
  /** Working days of the clinic before the visit, the day itself at 0; below 0 days of the year after it. Common practice. */
  readonly before: number;
  readonly what: (c: Course) => string | undefined;
}

const RULES: readonly Rule[] = [
  { for: 'mock-up in', before: 2, what: () => 'mock-up index printed or poured, material in the shade' },
  { for: 'tissue', before: 1, what: (c) => (c.tissue === 'bone' ? 'gum guide made, surgical tray' : 'gum guide made') },
  { for: 'preparation', before: 2, what: () => 'indexes, leaf guide and provisional shells made' },
  {
    for: 'preparation',
    before: 0,
    what: (c) =>
      c.impression === 'same' && c.maker === 'laboratory'
        ? 'scan or impression, prescription and photographs go to the laboratory'
        : undefined,
  },
  {
    for: 'impression',
    before: 0,
    what: (c) =>
      c.maker === 'laboratory' ? 'scan or impression, prescription and photographs go to the laboratory' : undefined,
  },
  {
    for: 'try-in',
    before: 1,
    what: (c) => (c.maker === 'laboratory' ? 'work back from the laboratory, looked at on the model' : undefined),
  },
  {
    for: 'seating',
    before: 3,
    what: (c) => (c.maker === 'laboratory' ? 'ask the laboratory whether the day holds' : undefined),
  },
  {
    for: 'seating',
    before: 1,
    what: (c) =>
      c.maker === 'laboratory' ? 'work back from the laboratory, looked at on the model' : 'milled, stained and glazed',
  },
  { for: 'composite', before: 1, what: () => 'palatal index made' },
  {
    for: 'composite',
    before: -365,
    what: () => 'yearly check: edges, joins and polish of the composite, the guard worn or not',
  },
  { for: 'guard', before: 3, what: () => 'guard made over a scan of the finished teeth' },
];

/** So many working days before a day; a count below 0 is so many days after it, on the next open one. */
function back(calendar: Calendar, day: Day, count: number): Day {
  let at = day;
  if (count < 0) for (at = day - count; !isOpen(calendar, at) && at < day - count + 60; ) at++;
  for (let left = count, tries = 0; left > 0 && tries < 60; tries++) {
    at--;
    if (isOpen(calendar, at)) left--;
  }
  return at;
}

/**
 * What has to be sent, ordered or made for the visits, each where it is booked or else at its earliest day; for what was
 * held before today only what comes after it is.
 */
export function remindersOf(plan: VisitPlan, course: Course, clinic: Calendar, today: Day): Reminder[] {
  return plan.visits
    .flatMap((v) => {
      const on = v.booked ?? v.earliest;
      const open = (r: Rule) => r.for === v.kind && on + Math.max(0, -r.before) >= today;
      return RULES.filter(open).flatMap((r): Reminder[] => {
        const what = r.what(course);
        if (!what) return [];
        return [
          {
            by: back(clinic, on, r.before),
            what: r.before < 0 ? what : `${what}, for ${VISITS[v.kind]}`,
            for: v.kind,
          },
        ];
      });
    })
    .sort((a, b) => a.by - b.by);
}
