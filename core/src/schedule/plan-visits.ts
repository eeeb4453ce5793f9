import { Refusal } from '../errors.js';
import { type Calendar, clock, FAR_DAYS, freeOn, nextOpen, openOn, type Span } from './calendar.js';
import type { Course } from './course.js';
import { type Day, isoOf } from './day.js';
import { type Because, chainTo, type Event, type Link, type Solved, solveDays } from './network.js';
import { VISIT_KINDS, VISITS, type VisitKind } from './visit-words.js';
import { type Interval, intervalsOf, type Visit, visitOf, visitsOf } from './visits.js';

/** Who works when, and what is taken already. */
export interface House {
  readonly clinic: Calendar;
  readonly laboratory: Calendar;
  /** What other cases have of every chair on a day; a visit needs a stretch that is free of one chair. */
  readonly taken: (day: Day) => readonly (readonly Span[])[];
  readonly chairs: number;
  /** Until when on a day the laboratory fetches, minutes from midnight; what is ready later goes the next time. */
  readonly pickUp?: number;
}

/** A visit that is booked already, or was held. */
export interface Booked {
  readonly kind: VisitKind;
  readonly day: Day;
  /** When it ends, minutes from midnight, where it is known. */
  readonly until?: number;
}

/** What is asked of the calendar. */
export interface Ask {
  readonly course: Course;
  readonly house: House;
  readonly patientAway: Calendar['away'];
  readonly today: Day;
  /** The last treatment is done by then; nothing where no date was promised. */
  readonly by?: Day;
  readonly booked: readonly Booked[];
}

/** A visit with the days on which it can be. */
export interface PlannedVisit extends Visit {
  readonly earliest: Day;
  /** Nothing where no date is promised, or none can be kept. */
  readonly latest?: Day;
  /** Days it may wait without the promised date being missed. */
  readonly slackDays?: number;
  readonly booked?: Day;
  /** Whether it decides when the last treatment can be. */
  readonly decides: boolean;
  /** Whether what is decided asks for it: one that is booked may be asked for no longer. */
  readonly needed: boolean;
}

/** The visits of a case over the calendars. */
export interface VisitPlan {
  readonly visits: readonly PlannedVisit[];
  readonly intervals: readonly Interval[];
  /** The day of the last treatment at the earliest; review and guard come after it. */
  readonly end: Day;
  readonly by?: Day;
  readonly holds?: boolean;
  /** What is broken by visits that are booked, a sentence each. */
  readonly broken: readonly string[];
}

/** What the promised date is about: with it the patient has the finished teeth. */
const FINISHED: readonly VisitKind[] = ['seating', 'composite'];

const linkOf = (i: Interval, house: House): Link => ({
  from: i.from,
  to: i.to,
  least: i.least,
  ...(i.most !== undefined && { most: i.most }),
  ...(i.working === 'laboratory' && { working: { calendar: house.laboratory, who: 'The laboratory' } }),
  ...(i.working === 'clinic' && { working: { calendar: house.clinic, who: 'The clinic' } }),
});

/** Whether a day has room for a visit: open, the patient there, and a chair free for as long. */
export function hasRoom(
  { house, patientAway }: Pick<Ask, 'house' | 'patientAway'>,
  day: Day,
  minutes: number,
): boolean {
  if (patientAway.some((a) => a.from <= day && day <= a.to)) return false;
  const open = openOn(house.clinic, day);
  if (open.length === 0) return false;
  const taken = house.taken(day);
  if (taken.length < house.chairs) return freeOn(open, [], minutes).length > 0;
  return taken.some((busy) => freeOn(open, busy, minutes).length > 0);
}

/**
 * The visits of a case with their earliest and latest days.
 * @throws Refusal `no-working-day`, `interval-cycle`; `day-invalid` where no days are left for a visit
 */
export function planVisits(ask: Ask): VisitPlan {
  const { course, house, today, by } = ask;
  const asked = visitsOf(course);
  const intervals = intervalsOf(course).map((i) => afterPickUp(i, ask));
  const at = new Map(ask.booked.map((b) => [b.kind, b.day]));
  // What a visit rests on that was held already was done, written down or not.
  const held = ask.booked.filter((b) => b.day < today).map((b) => b.kind);
  const done = leadingTo(held, intervals);
  const needed = asked.filter((v) => !done.has(v.kind) || at.has(v.kind));
  const extra = ask.booked.filter((b) => !asked.some((v) => v.kind === b.kind)).map((b) => visitOf(b.kind, course));
  const visits = [...needed, ...extra].sort((a, b) => VISIT_KINDS.indexOf(a.kind) - VISIT_KINDS.indexOf(b.kind));
  const there = new Set(visits.map((v) => v.kind));
  const links = intervals.filter((i) => there.has(i.from) && there.has(i.to)).map((i) => linkOf(i, house));
  nextOpen(house.clinic, today, 'The clinic');
  const far = today + FAR_DAYS;
  const event = (v: Visit, last: Day): Event => {
    const booked = at.get(v.kind);
    return booked === undefined
      ? { id: v.kind, from: today, to: last, can: (d) => hasRoom(ask, d, v.minutes) }
      : { id: v.kind, from: booked, to: booked, can: () => true };
  };
  // Booked visits that break an interval are told, and count as they stand: their links are let go.
  const { open, kept, loosened } = solveLoosely(
    visits.map((v) => event(v, far)),
    links.filter((l) => !isBroken(l, at)),
    at,
  );
  const some = needed.filter((v) => FINISHED.includes(v.kind));
  const ends = some.length > 0 ? some : needed;
  const end = Math.max(today, ...ends.map((v) => open.earliest.get(v.kind) as Day));
  const finished = ends.find((v) => open.earliest.get(v.kind) === end);
  const chain = new Set(finished ? chainTo(finished.kind, open.earliestBy) : []);
  const closed =
    by === undefined
      ? undefined
      : solveDays(
          visits.map((v) => event(v, ends.includes(v) ? by : far)),
          kept,
        );
  const before = leadingTo(
    ends.map((v) => v.kind),
    intervals,
  );
  const latest = closed && !('stuck' in closed) ? closed.latest : undefined;
  return {
    visits: visits.map((v): PlannedVisit => {
      const [earliest, late, booked] = [open.earliest.get(v.kind) as Day, latest?.get(v.kind), at.get(v.kind)];
      // What only follows the promised date has no latest day of its own.
      const bound = before.has(v.kind) ? late : undefined;
      return {
        ...v,
        earliest,
        ...(bound !== undefined && { latest: bound, slackDays: bound - earliest }),
        ...(booked !== undefined && { booked }),
        decides: chain.has(v.kind),
        needed: needed.includes(v),
      };
    }),
    intervals,
    end,
    ...(by !== undefined && { by, holds: end <= by }),
    broken: [
      ...brokenBy(ask, visits, intervals, at),
      ...loosened,
      ...extra
        .filter((v) => (at.get(v.kind) as Day) >= today)
        .map(
          (v) =>
            `${VISITS[v.kind]} on ${isoOf(at.get(v.kind) as Day)} is booked, though nothing that is decided asks for it.`,
        ),
    ],
  };
}

/** An interval of the laboratory that begins a working day later, as the visit before it ends when all was fetched. */
function afterPickUp(i: Interval, { house, booked }: Pick<Ask, 'house' | 'booked'>): Interval {
  const until = booked.find((b) => b.kind === i.from)?.until;
  if (i.working !== 'laboratory' || house.pickUp === undefined || until === undefined || until <= house.pickUp)
    return i;
  return {
    ...i,
    least: i.least + 1,
    usual: i.usual + 1,
    reason: `${i.reason}; ${VISITS[i.from]} ends at ${clock(until)}, and the laboratory fetches until ${clock(house.pickUp)}`,
  };
}

/**
 * Days of visits of which some are booked where the others can't be: link after link of what is booked is let go until
 * days are found, and each is told. @throws Refusal `day-invalid` where there are none all the same
 */
function solveLoosely(
  events: readonly Event[],
  links: readonly Link[],
  at: ReadonlyMap<string, Day>,
): { open: Solved; kept: readonly Link[]; loosened: string[] } {
  let kept = links;
  const loosened: string[] = [];
  const words = (id: string) => {
    const day = at.get(id);
    return `${VISITS[id as VisitKind]}${day === undefined ? '' : ` on ${isoOf(day)}`}`;
  };
  for (;;) {
    const open = solveDays(events, kept);
    if (!('stuck' in open)) return { open, kept, loosened };
    const loose = [
      ...kept.filter((l) => l.most !== undefined && at.has(l.from)).map((link) => ({ link, end: 'most' as const })),
      ...kept.filter((l) => at.has(l.to) && !at.has(l.from)).map((link) => ({ link, end: 'least' as const })),
    ];
    // One that is enough alone is the one in the way.
    const way = loose.find((l) => !('stuck' in solveDays(events, without(kept, l)))) ?? loose[0];
    if (!way) throw stuck(open.stuck as VisitKind, open.by);
    kept = without(kept, way);
    const { from, to, most } = way.link;
    loosened.push(
      way.end === 'most'
        ? `${words(to)} can’t come within ${most} days of ${words(from)}.`
        : `${words(to)} is too early: ${words(from)} is not booked, and can’t be done before it in time.`,
    );
  }
}

/** Links with one of them let go, or its upper end. */
function without(
  links: readonly Link[],
  { link, end }: { readonly link: Link; readonly end: 'least' | 'most' },
): readonly Link[] {
  if (end === 'least') return links.filter((l) => l !== link);
  const { most: _, ...open } = link;
  return links.map((l) => (l === link ? open : l));
}

/** Visits on which some others rest, and these themselves. */
function leadingTo(kinds: readonly VisitKind[], intervals: readonly Interval[]): ReadonlySet<VisitKind> {
  const own = new Set(kinds);
  for (let grown = true; grown; ) {
    grown = false;
    for (const i of intervals)
      if (own.has(i.to) && !own.has(i.from)) {
        own.add(i.from);
        grown = true;
      }
  }
  return own;
}

function isBroken(l: Link, at: ReadonlyMap<string, Day>): boolean {
  const [a, b] = [at.get(l.from), at.get(l.to)];
  if (a === undefined || b === undefined) return false;
  try {
    return (
      'stuck' in
      solveDays(
        [a, b].map((d, i) => ({ id: i ? l.to : l.from, from: d, to: d, can: () => true })),
        [l],
      )
    );
  } catch {
    return true;
  }
}

const days = (n: number, i: Interval) =>
  `${n} ${i.working ? `working ${n === 1 ? 'day' : 'days'}` : n === 1 ? 'day' : 'days'}`;

/** What visits break that are booked where they can't be. */
function brokenBy(
  ask: Ask,
  visits: readonly Visit[],
  intervals: readonly Interval[],
  at: ReadonlyMap<string, Day>,
): string[] {
  const own = intervals.flatMap((i) => {
    if (!isBroken(linkOf(i, ask.house), at)) return [];
    const [a, b] = [at.get(i.from) as Day, at.get(i.to) as Day];
    const what = `${VISITS[i.to]} on ${isoOf(b)}`;
    if (b < a) return [`${what} lies before ${VISITS[i.from]} on ${isoOf(a)}, on which it rests.`];
    const soon = i.most === undefined || b - a <= i.most;
    return [
      `${what} comes ${soon ? 'too soon' : 'too late'} after ${VISITS[i.from]}: ${soon ? `at least ${days(i.least, i)}` : `at most ${i.most} days`}, since ${i.reason}.`,
    ];
  });
  const closed = visits.flatMap((v) => {
    const day = at.get(v.kind);
    if (day === undefined || day < ask.today) return [];
    if (openOn(ask.house.clinic, day).length === 0)
      return [`The clinic is closed on ${isoOf(day)}, the day of ${VISITS[v.kind]}.`];
    const away = ask.patientAway.find((a) => a.from <= day && day <= a.to);
    return away
      ? [`The patient is away on ${isoOf(day)}, the day of ${VISITS[v.kind]}${away.why ? `: ${away.why}` : ''}.`]
      : [];
  });
  return [...own, ...closed];
}

function stuck(kind: VisitKind, by: ReadonlyMap<string, Because>): Refusal {
  const chain = chainTo(kind, by).map((k) => VISITS[k as VisitKind]);
  return new Refusal(
    'day-invalid',
    `There is no day left for ${VISITS[kind]}${chain.length > 1 ? ` after ${chain.slice(0, -1).join(', ')}` : ''}.`,
    kind,
  );
}
