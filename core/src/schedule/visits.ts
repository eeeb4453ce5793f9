import { COMMON_PRACTICE, type Source } from '../working/working.js';
import type { Course, CourseWork } from './course.js';
import { VISIT_KINDS, type VisitKind } from './visit-words.js';

/** Who is needed. */
export type VisitPerson = 'dentist' | 'assistant';

/** A step of a visit: so many minutes in all, and so many more for each tooth. */
export interface VisitStep {
  readonly does: string;
  readonly minutes: number;
  readonly perTooth?: number;
}

/** A visit that a case needs. */
export interface Visit {
  readonly kind: VisitKind;
  readonly steps: readonly VisitStep[];
  /** Of the chair, in fives. */
  readonly minutes: number;
  readonly who: VisitPerson;
}

/** Time that lies between two visits, in days of the calendar or working days of the laboratory. */
export interface Interval {
  readonly from: VisitKind;
  readonly to: VisitKind;
  readonly least: number;
  readonly usual: number;
  readonly most?: number;
  readonly working?: 'laboratory' | 'clinic';
  readonly reason: string;
  readonly source: Source;
}

interface Kind {
  readonly who: VisitPerson;
  readonly steps: (c: Course) => readonly VisitStep[];
}

/** Minutes of every step. Common practice, no source: a house sets its own. */
const KINDS: Readonly<Record<VisitKind, Kind>> = {
  records: {
    who: 'assistant',
    steps: () => [
      { does: 'shade while the teeth are wet', minutes: 5 },
      { does: 'photographs', minutes: 15 },
      { does: 'scan of both jaws and the bite', minutes: 15 },
    ],
  },
  bleached: {
    who: 'assistant',
    steps: () => [{ does: 'shade read, trays back', minutes: 15 }],
  },
  'mock-up in': {
    who: 'dentist',
    steps: () => [
      { does: 'index tried, spot etch', minutes: 10 },
      { does: 'material in the index, seated, cured', minutes: 10 },
      { does: 'flash off, contour checked', minutes: 0, perTooth: 3 },
      { does: 'photographs, speech, bite', minutes: 10 },
    ],
  },
  'mock-up out': {
    who: 'dentist',
    steps: () => [
      { does: 'patient’s word on the shape, written down', minutes: 10 },
      { does: 'changes scanned or photographed', minutes: 10 },
      { does: 'mock-up off', minutes: 0, perTooth: 2 },
    ],
  },
  tissue: {
    who: 'dentist',
    steps: ({ tissue }) => [
      { does: 'anaesthesia', minutes: 10 },
      { does: 'new line marked by the index', minutes: 5 },
      {
        does: tissue === 'bone' ? 'flap, bone, sutures' : 'gum contoured',
        minutes: 5,
        perTooth: tissue === 'bone' ? 12 : 5,
      },
    ],
  },
  preparation: {
    who: 'dentist',
    steps: (c) => [
      { does: 'anaesthesia, shade while wet', minutes: 15 },
      { does: 'preparation by the cut list', minutes: 0, perTooth: most(c, 'crown') ? 20 : 15 },
      { does: 'checked with the index or a scan', minutes: 10 },
      ...(c.impression === 'same' ? [{ does: 'cords, impression or scan, bite', minutes: 25, perTooth: 2 }] : []),
      { does: 'provisional', minutes: 15, perTooth: 4 },
    ],
  },
  impression: {
    who: 'dentist',
    steps: () => [
      { does: 'provisional off, gum looked at', minutes: 10 },
      { does: 'cords, impression or scan, bite', minutes: 25, perTooth: 2 },
      { does: 'provisional back', minutes: 10 },
    ],
  },
  composite: {
    who: 'dentist',
    steps: () => [
      { does: 'shade while wet, isolation', minutes: 15 },
      { does: 'layers by the index', minutes: 0, perTooth: 25 },
      { does: 'shape and polish', minutes: 5, perTooth: 8 },
    ],
  },
  'try-in': {
    who: 'dentist',
    steps: () => [
      { does: 'provisional off, cement cleaned', minutes: 15 },
      { does: 'margins one by one, contacts, bite', minutes: 5, perTooth: 4 },
      { does: 'shape and colour looked at with the patient', minutes: 10 },
      { does: 'provisional back', minutes: 10 },
    ],
  },
  seating: {
    who: 'dentist',
    steps: () => [
      { does: 'provisional off, cement cleaned', minutes: 15 },
      { does: 'try-in, margins, contacts, colour wet', minutes: 10, perTooth: 4 },
      { does: 'seated in order', minutes: 10, perTooth: 8 },
      { does: 'cleaned, bite, photographs', minutes: 15 },
    ],
  },
  review: {
    who: 'dentist',
    steps: () => [
      { does: 'colour, gum, bite, floss', minutes: 10 },
      { does: 'photographs', minutes: 10 },
    ],
  },
  guard: {
    who: 'assistant',
    steps: () => [{ does: 'guard fitted, bite marked', minutes: 20 }],
  },
};

const of = (c: Course, ...works: readonly CourseWork[]) => c.teeth.filter((t) => works.includes(t.work));
const most = (c: Course, work: CourseWork) => 2 * of(c, work).length > c.teeth.length;
const LABORATORY: readonly CourseWork[] = ['veneer', 'no-prep veneer', 'crown'];

/** On which teeth a visit works. */
function teethAt(c: Course, kind: VisitKind): number {
  if (kind === 'composite') return of(c, 'composite').length;
  if (kind === 'preparation' || kind === 'impression')
    return of(c, 'veneer', 'crown').length || of(c, ...LABORATORY).length;
  if (kind === 'try-in' || kind === 'seating') return of(c, ...LABORATORY).length;
  return c.teeth.length;
}

/** Chairs are given in steps of so many minutes. */
const MINUTES = 5;

/** Which visits a case needs, in their order. */
export function visitsOf(c: Course): Visit[] {
  const made = of(c, ...LABORATORY).length > 0;
  const cut = of(c, 'veneer', 'crown').length > 0;
  const needs: Readonly<Record<VisitKind, boolean>> = {
    records: !c.hasRecords,
    bleached: c.bleaching,
    'mock-up in': c.mockUpDays !== undefined,
    'mock-up out': c.mockUpDays !== undefined,
    tissue: c.tissue !== 'none',
    preparation: cut,
    // What is not cut is scanned in a visit of its own.
    impression: made && (!cut || c.impression === 'healed'),
    composite: of(c, 'composite').length > 0,
    'try-in': made && c.tryIn,
    seating: made,
    review: c.teeth.length > 0,
    guard: c.guard,
  };
  return VISIT_KINDS.filter((k) => needs[k]).map((kind) => visitOf(kind, c));
}

/** How long a visit takes: by its steps, or as the house has it. */
export function usualMinutes(kind: VisitKind, c: Course): { readonly minutes: number; readonly perTooth: number } {
  const own = c.times?.find((t) => t.visit === kind);
  if (own) return own;
  const all = KINDS[kind].steps(c);
  return {
    minutes: all.reduce((a, s) => a + s.minutes, 0),
    perTooth: all.reduce((a, s) => a + (s.perTooth ?? 0), 0),
  };
}

/** A visit of a kind as a case has it, whether it needs it or not: one that is booked may be needed no longer. */
export function visitOf(kind: VisitKind, c: Course): Visit {
  const { who, steps } = KINDS[kind];
  const own = steps(c);
  const { minutes, perTooth } = usualMinutes(kind, c);
  const sum = minutes + perTooth * teethAt(c, kind);
  return { kind, steps: own, minutes: Math.ceil(sum / MINUTES) * MINUTES, who };
}

const between = (
  from: VisitKind,
  to: VisitKind,
  days: readonly [least: number, usual: number, most?: number],
  reason: string,
  working?: Interval['working'],
): Interval => ({
  from,
  to,
  least: days[0],
  usual: days[1],
  ...(days[2] !== undefined && { most: days[2] }),
  ...(working && { working }),
  reason,
  source: COMMON_PRACTICE,
});

/** Finishing after a try-in takes the laboratory so many working days. Common practice, no source. */
const FINISHING_DAYS = 3;

/** How long lies between the visits of a case, each with its reason. */
export function intervalsOf(c: Course): Interval[] {
  const there = new Set(visitsOf(c).map((v) => v.kind));
  const impression: VisitKind = there.has('impression') ? 'impression' : 'preparation';
  const start: VisitKind = there.has('preparation')
    ? 'preparation'
    : there.has('impression')
      ? 'impression'
      : 'composite';
  const end: VisitKind = there.has('seating') ? 'seating' : 'composite';
  const approved: VisitKind = there.has('mock-up out') ? 'mock-up out' : 'records';
  const wear = c.mockUpDays ?? 1;
  const lab = c.laboratoryDays;
  const made = (from: VisitKind, to: VisitKind) =>
    c.maker === 'mill'
      ? between(from, to, [1, 1, 42], 'milled and glazed in the house, seated the next day', 'clinic')
      : between(
          from,
          to,
          [lab, lab, 42],
          `${lab} working days of the laboratory; a provisional is worn six weeks at most`,
          'laboratory',
        );
  const all: Interval[] = [
    between('records', 'mock-up in', [5, 7], 'wax-up and index are made'),
    between(
      'mock-up in',
      'mock-up out',
      [wear, Math.max(wear, 3), 14],
      'a mock-up is worn a day to a week before it is approved',
    ),
    between('bleached', start, [7, 14, 60], 'the shade settles one to two weeks after bleaching'),
    between('bleached', 'composite', [7, 14], 'the shade settles, and bonding is weaker until then'),
    between(approved, 'tissue', [0, 7], 'the approved contour says where the gum line is to be'),
    between(approved, start, [approved === 'records' ? 5 : 0, 7], 'the approved contour says how deep is cut'),
    ...(c.tissue === 'bone'
      ? [between('tissue', start, [60, 90], 'bone and gum heal for months before a margin is set')]
      : [between('tissue', start, [0, 0, 60], 'gum may be contoured in the same visit, under the provisional')]),
    ...(c.tissue === 'gum'
      ? [between('tissue', impression, [14, 14], 'contoured gum heals about two weeks under the provisional')]
      : []),
    ...(c.impression === 'healed' && there.has('preparation')
      ? [
          between(
            'preparation',
            'impression',
            [14, 14, 42],
            'margins under the gum are taken when it has healed, about two weeks',
          ),
        ]
      : []),
    ...(there.has('try-in')
      ? [
          made(impression, 'try-in'),
          c.maker === 'mill'
            ? between('try-in', 'seating', [1, 1, 21], 'glazed in the house', 'clinic')
            : between(
                'try-in',
                'seating',
                [FINISHING_DAYS, FINISHING_DAYS, 21],
                'the laboratory finishes after the try-in',
                'laboratory',
              ),
        ]
      : [made(impression, 'seating')]),
    between(end, 'review', [5, 7, 21], 'teeth dry out: colour and gum are judged about a week after'),
    ...(there.has('composite') && there.has('seating')
      ? [between('composite', 'review', [5, 7], 'teeth dry out: colour is judged about a week after')]
      : []),
    between(end, 'guard', [5, 14, 60], 'a guard is made over the finished teeth'),
  ];
  return all.filter((i) => i.from !== i.to && there.has(i.from) && there.has(i.to));
}
