import { type Fdi, jawOf } from '../teeth/notation.js';
import type { Course } from './course.js';
import type { Day } from './day.js';
import { type Ask, planVisits } from './plan-visits.js';

/** One way in which a promised date could be kept, or come nearer, and what it costs. */
export interface Alternative {
  readonly id: string;
  readonly words: string;
  readonly price: string;
  /** The last treatment then, at the earliest. */
  readonly end: Day;
  readonly holds: boolean;
  readonly course: Course;
}

interface Change {
  readonly id: string;
  readonly words: string;
  readonly price: string;
  readonly of: (c: Course) => Course | undefined;
}

/** Teeth of each jaw without those that stand furthest from its middle; centrals always stay. */
function withoutOutermost(teeth: Course['teeth']): Course['teeth'] {
  const place = (t: Fdi) => t % 10;
  return teeth.filter(({ tooth }) => {
    const last = Math.max(...teeth.filter((t) => jawOf(t.tooth) === jawOf(tooth)).map((t) => place(t.tooth)));
    return place(tooth) < last || last === 1;
  });
}

/** In the order of their price, the cheapest first. House order. */
const CHANGES: readonly Change[] = [
  {
    id: 'mock-up-day',
    words: 'wear the mock-up for one day',
    price: 'less time to get used to it: speech and lip are judged on one day',
    of: (c) => (c.mockUpDays !== undefined && c.mockUpDays > 1 ? { ...c, mockUpDays: 1 } : undefined),
  },
  {
    id: 'no-try-in',
    words: 'try in and seat in one visit',
    price: 'what does not please goes back to the laboratory, and the visit is lost',
    of: (c) => (c.tryIn ? { ...c, tryIn: false } : undefined),
  },
  {
    id: 'same-day',
    words: 'make the impression on the day of preparation',
    price: 'only while the gum is untouched and does not bleed, and the margins stay at it or above',
    of: (c) =>
      c.impression === 'healed' && c.tissue === 'none' && !c.inflamed ? { ...c, impression: 'same' } : undefined,
  },
  {
    id: 'mill',
    words: 'make it on the house’s own mill and seat it the next day',
    price: 'monolithic, stained and glazed in the house: less depth than layered work',
    of: (c) => (c.maker === 'laboratory' ? { ...c, maker: 'mill', tryIn: false } : undefined),
  },
  {
    id: 'later-bleaching',
    words: 'leave bleaching out, or bleach after',
    price: 'the shade is chosen as the teeth are, and can’t follow bleaching later',
    of: (c) => (c.bleaching ? { ...c, bleaching: false } : undefined),
  },
  {
    id: 'fewer-teeth',
    words: 'fewer teeth: leave the outermost ones as they are',
    price: 'the change ends nearer the middle of the smile, where it shows more; decided in shape and decide',
    of: (c) => {
      const inner = withoutOutermost(c.teeth);
      return inner.length > 0 && inner.length < c.teeth.length ? { ...c, teeth: inner } : undefined;
    },
  },
  {
    id: 'composite-now',
    words: 'composite now, ceramic later',
    price: 'it stains and chips sooner, and is done again in ceramic',
    of: (c) =>
      c.tissue === 'none' && c.teeth.some((t) => t.work === 'veneer' || t.work === 'no-prep veneer')
        ? {
            ...c,
            teeth: c.teeth.map((t) => (t.work === 'crown' ? t : { ...t, work: 'composite' })),
            ...(c.teeth.some((t) => t.work === 'crown') ? {} : { tryIn: false, impression: 'same' }),
          }
        : undefined,
  },
  {
    id: 'gum-later',
    words: 'leave the gum as it is',
    price: 'the gum line stays uneven, and margins set now show if it is moved later',
    of: (c) => (c.tissue !== 'none' ? { ...c, tissue: 'none' } : undefined),
  },
];

const both = (a: Change, b: Change): Change => ({
  id: `${a.id} ${b.id}`,
  words: `${a.words}, and ${b.words}`,
  price: `${a.price}; ${b.price}`,
  of: (c) => {
    const first = a.of(c);
    return first && b.of(first);
  },
});

/**
 * What would make a promised date hold: single changes first, then pairs of which neither does alone, each with its
 * price; those that hold first, in the order of their price.
 */
export function whatWouldHold(ask: Ask): Alternative[] {
  const { by } = ask;
  if (by === undefined) return [];
  const now = endOf(ask, ask.course);
  const tried = (changes: readonly Change[]) =>
    changes.flatMap((c): Alternative[] => {
      const course = c.of(ask.course);
      const end = course && endOf(ask, course);
      if (!course || end === undefined || (now !== undefined && end >= now)) return [];
      return [{ id: c.id, words: c.words, price: c.price, end, holds: end <= by, course }];
    });
  const single = tried(CHANGES);
  const holding = new Set(single.filter((a) => a.holds).map((a) => a.id));
  const left = CHANGES.filter((c) => single.some((s) => s.id === c.id) && !holding.has(c.id));
  const pairs = tried(left.flatMap((a, i) => left.slice(i + 1).map((b) => both(a, b)))).filter((p) => p.holds);
  return [...single.filter((a) => a.holds), ...pairs, ...single.filter((a) => !a.holds)];
}

function endOf(ask: Ask, course: Course): Day | undefined {
  try {
    return planVisits({ ...ask, course }).end;
  } catch {
    return undefined;
  }
}
