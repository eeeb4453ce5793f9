import type { VisitKind } from '../schedule/visit-words.js';
import type { Fdi } from '../teeth/notation.js';
import { COMMON_PRACTICE } from '../working/working.js';
import type { AtVisit } from './at-visit.js';
import { FIXING, type Seating } from './fixing.js';
import { gate } from './gates.js';
import { type Batch, INSIDE } from './inside.js';
import { ON_TOOTH } from './on-tooth.js';
import type { Piece } from './piece.js';
import { type MustNot, mustNot } from './refuse.js';
import { seatOrder } from './seat-order.js';
import { compose, named, type Rule, type Step } from './step.js';
import { FINISHING, GUARD, REVIEW } from './visits/after.js';
import { COMPOSITE } from './visits/composite.js';
import { IMPRESSION, PROVISIONAL_OFF } from './visits/impression.js';
import { MILL } from './visits/mill.js';
import { MOCK_UP_IN, MOCK_UP_OUT } from './visits/mock-up.js';
import { PREPARATION } from './visits/preparation.js';
import { PROVISIONAL } from './visits/provisional.js';
import { BLEACHED, RECORDS } from './visits/records.js';
import { TISSUE } from './visits/tissue.js';
import { PROVISIONAL_BACK, TRY_IN } from './visits/try-in.js';

/** What is done at a visit, in its order, and what must not be done. */
export interface Protocol {
  readonly steps: readonly Step[];
  readonly mustNot: readonly MustNot[];
}

/** What of a piece says how it is treated: pieces that agree in it are treated together. */
const recipe = ({ material, cement, bases, etched, ceramic, kind }: Piece): string =>
  JSON.stringify([material, cement, [...bases].sort(), !!etched, ceramic ?? null, kind === 'no-prep veneer']);

/** Pieces in their order, those that are treated alike together. */
function batches(pieces: readonly Piece[]): (readonly Piece[])[] {
  const by = new Map<string, Piece[]>();
  for (const p of pieces) by.set(recipe(p), [...(by.get(recipe(p)) ?? []), p]);
  return [...by.values()];
}

const teethOf = (pieces: readonly Piece[]) => pieces.map((p) => p.tooth);
const batchOf = (pieces: readonly Piece[], f: AtVisit): Batch => ({
  piece: pieces[0] as Piece,
  mouth: f.mouth,
  who: named(teethOf(pieces)),
});

const TISSUE_GATE = gate('tissue');

const RECHECK: Rule<{ readonly pairs: string }> = {
  id: 'contacts-rechecked',
  does: ({ pairs }) => `Try the next ones again: contacts ${pairs}.`,
  hand: ['floss', 'thin paper', 'polisher'],
  why: 'A film of cement has moved what is seated: a contact that was right may be tight now.',
  source: COMMON_PRACTICE,
};

/** How pieces are got ready and fixed; in the order in which they are seated. */
export function fixing(f: AtVisit): Step[] {
  const out: Step[] = [];
  for (const own of batches(f.pieces))
    out.push(...compose('inside of the pieces', INSIDE, batchOf(own, f), teethOf(own)));
  for (const { teeth, recheck } of seatOrder(teethOf(f.pieces))) {
    const phase = `seating ${named(teeth)}`;
    if (recheck.length > 0)
      out.push(...compose(phase, [RECHECK], { pairs: recheck.map(([a, b]) => `{${a}}–{${b}}`).join(', ') }, teeth));
    // A pair is got ready together and seated together, as far as it is treated alike.
    for (const own of batches(f.pieces.filter((p) => teeth.includes(p.tooth)))) {
      const b = batchOf(own, f);
      const seating: Seating = { ...b, noStop: own.filter((p) => p.kind === 'no-prep veneer').map((p) => p.tooth) };
      out.push(...compose(phase, ON_TOOTH, b, teethOf(own)), ...compose(phase, FIXING, seating, teethOf(own)));
    }
  }
  return out;
}

const phases =
  (...list: readonly (readonly [phase: string, rules: readonly Rule<AtVisit>[]])[]) =>
  (f: AtVisit): Step[] =>
    list.flatMap(([phase, rules]) => compose(phase, rules, f));

const own = (f: AtVisit): Step[] => (f.maker === 'mill' ? compose('the house’s own mill', MILL, f) : []);
const provisional = (f: AtVisit): Step[] => (f.cuts.length > 0 ? compose('provisional', PROVISIONAL, f) : []);
const taken = (f: AtVisit): Step[] => compose('impression or scan', IMPRESSION, f);

const VISIT_STEPS: Readonly<Record<VisitKind, (f: AtVisit) => Step[]>> = {
  records: phases(['records', RECORDS]),
  bleached: phases(['colour', BLEACHED]),
  'mock-up in': phases(['mock-up', MOCK_UP_IN]),
  'mock-up out': phases(['approval', MOCK_UP_OUT]),
  tissue: phases(['gum', TISSUE]),
  preparation: (f) => [
    ...compose('preparation', PREPARATION, f),
    ...(f.impression === 'same' ? taken(f).filter((s) => s.rule !== 'gate-tissue') : []),
    ...provisional(f),
    ...(f.impression === 'same' ? own(f) : []),
  ],
  impression: (f) => [
    ...compose('provisional off', PROVISIONAL_OFF, f),
    ...taken(f),
    ...compose('provisional back', PROVISIONAL_BACK, f),
    ...own(f),
  ],
  composite: phases(['composite', COMPOSITE], ['finishing', FINISHING.slice(1)]),
  'try-in': phases(['provisional off', PROVISIONAL_OFF], ['try-in', TRY_IN], ['provisional back', PROVISIONAL_BACK]),
  seating: (f) => [
    ...compose('provisional off', PROVISIONAL_OFF, f),
    ...compose('try-in', [TISSUE_GATE, ...TRY_IN], f),
    ...fixing(f),
    ...compose('finishing', FINISHING, f),
  ],
  review: phases(['review', REVIEW]),
  guard: phases(['guard', GUARD]),
};

/** The steps of a visit. What must not be is told beside them; nothing is left out for it. */
export function protocolOf(visit: VisitKind, f: AtVisit): Protocol {
  return {
    steps: VISIT_STEPS[visit](f),
    mustNot: visit === 'seating' || visit === 'try-in' ? f.pieces.flatMap((p) => mustNot(p, f.mouth)) : [],
  };
}

/** Everything that is in hand at a visit, once each, in the order in which it is wanted: what is laid out before. */
export const laidOut = ({ steps }: Pick<Protocol, 'steps'>): readonly string[] => [
  ...new Set(steps.flatMap((s) => s.hand)),
];

/** Teeth on which a visit of a kind works, for what it took tooth by tooth. */
export const teethOfVisit = (visit: VisitKind, f: AtVisit): readonly Fdi[] =>
  visit === 'composite'
    ? f.works.filter((w) => w.work === 'composite').map((w) => w.tooth)
    : visit === 'preparation' || visit === 'impression'
      ? f.cuts.map((c) => c.tooth)
      : visit === 'seating' || visit === 'try-in'
        ? f.pieces.map((p) => p.tooth)
        : f.teeth;
