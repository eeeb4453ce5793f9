import type { Fdi } from '../teeth/notation.js';
import { pairsOf } from './seat-order.js';

/** Pieces that were tried in together, and whether all of them went home. */
export interface Trial {
  readonly teeth: readonly Fdi[];
  readonly home: boolean;
}

/** What may hold a piece up. */
export const HOLD_UPS = {
  cement: 'cement of the provisional left on the tooth',
  contact: 'a contact that is too tight',
  inside: 'a point inside that binds',
  past: 'it is pressed past its place, and its margin stands open on the other side',
  scan: 'the die or the scan is not this tooth',
} as const;
export type HoldUp = keyof typeof HOLD_UPS;

/** What was looked at so far for a piece that does not go home alone. */
export interface Looked {
  /** All cement is off the tooth. */
  readonly clean?: boolean;
  /** Floss or a strip passes the contacts to teeth that are not made anew. */
  readonly contactsPass?: boolean;
  /** It has slid past its place, towards the gum. */
  readonly past?: boolean;
  /** A fitting paste shows a spot inside. */
  readonly spotInside?: boolean;
  /** It goes home on its die or printed model. */
  readonly onDie?: boolean;
}

/** The next thing to look at, or what it is. */
export type Answer =
  | { readonly kind: 'try'; readonly teeth: readonly Fdi[]; readonly why: string }
  | { readonly kind: 'look'; readonly at: keyof Looked; readonly tooth: Fdi; readonly ask: string }
  | {
      readonly kind: 'found';
      readonly cause: HoldUp;
      readonly teeth: readonly Fdi[];
      readonly why: string;
      readonly does: string;
    }
  | { readonly kind: 'home' };

const key = (a: Fdi, b: Fdi) => [a, b].sort((x, y) => x - y).join('-');

/**
 * The contacts between pieces that may be too tight: of each set that stood open though every piece of it goes home
 * alone, those that no set that went home has shown to be right. What is in every such set is likeliest and comes first.
 */
export function tightContacts(trials: readonly Trial[]): (readonly [Fdi, Fdi])[] {
  const alone = new Map(trials.filter((t) => t.teeth.length === 1).map((t) => [t.teeth[0] as Fdi, t.home]));
  const right = new Set(trials.filter((t) => t.home).flatMap((t) => pairsOf(t.teeth).map(([a, b]) => key(a, b))));
  const counted = new Map<string, { pair: readonly [Fdi, Fdi]; n: number }>();
  for (const t of trials) {
    if (t.home || t.teeth.length < 2 || t.teeth.some((p) => alone.get(p) !== true)) continue;
    for (const pair of pairsOf(t.teeth)) {
      const k = key(...pair);
      if (!right.has(k)) counted.set(k, { pair, n: (counted.get(k)?.n ?? 0) + 1 });
    }
  }
  return [...counted.values()].sort((a, b) => b.n - a.n).map((c) => c.pair);
}

const LOOKS: readonly {
  readonly at: keyof Looked;
  readonly ask: string;
  /** The answer that says what it is. */
  readonly is: boolean;
  readonly cause: HoldUp;
  readonly does: string;
}[] = [
  {
    at: 'clean',
    ask: 'Is every trace of the provisional’s cement off the tooth?',
    is: false,
    cause: 'cement',
    does: 'Clean it, also in the finish line, and try again.',
  },
  {
    at: 'contactsPass',
    ask: 'Does floss pass the contacts to the teeth that stay?',
    is: false,
    cause: 'contact',
    does: 'Mark the contact with thin paper, polish where it marks on the piece, try again.',
  },
  {
    at: 'past',
    ask: 'Has it slid past its place, towards the gum?',
    is: true,
    cause: 'past',
    does: 'Back to where its edge stands as planned, and held there: a stop of composite at the edge, taken off after.',
  },
  {
    at: 'spotInside',
    ask: 'Does a fitting paste show a spot inside that binds?',
    is: true,
    cause: 'inside',
    does: 'Take the spot off the tooth where the plan leaves room, else off the piece with a fine diamond and water. Don’t press harder.',
  },
  {
    at: 'onDie',
    ask: 'Does it go home on its die or printed model?',
    is: true,
    cause: 'scan',
    does: 'The tooth is not what was scanned: scan or take an impression again, and let it be made anew.',
  },
];

/** What to try or look at next, from what was noted so far; the commonest and cheapest first. */
export function nextLook(
  teeth: readonly Fdi[],
  trials: readonly Trial[],
  looked: Readonly<Record<number, Looked>>,
): Answer {
  const last = (set: readonly Fdi[]) =>
    [...trials].reverse().find((t) => t.teeth.length === set.length && set.every((s) => t.teeth.includes(s)));
  for (const tooth of teeth) {
    const alone = last([tooth]);
    if (!alone) return { kind: 'try', teeth: [tooth], why: 'Each piece alone first: its margin says whether it fits.' };
    if (alone.home) continue;
    const own = looked[tooth] ?? {};
    for (const l of LOOKS) {
      const said = own[l.at];
      if (said === undefined) return { kind: 'look', at: l.at, tooth, ask: l.ask };
      if (said === l.is) return { kind: 'found', cause: l.cause, teeth: [tooth], why: HOLD_UPS[l.cause], does: l.does };
    }
    return {
      kind: 'found',
      cause: 'inside',
      teeth: [tooth],
      why: 'It goes home neither on the tooth nor on its die',
      does: 'The piece itself is wrong: back to whoever made it, with this note.',
    };
  }
  // Each goes home alone: what is held up together is held by a contact between two of them.
  const open = trials.some((t) => t.teeth.length > 1 && !t.home && last(t.teeth) === t);
  const tight = open ? tightContacts(trials.filter((t) => last(t.teeth) === t)) : [];
  const untried = (pairs: readonly (readonly [Fdi, Fdi])[]) => pairs.find((p) => !last(p));
  const next = untried(open ? tight : pairsOf(teeth));
  if (tight.length === 1 || (tight.length > 0 && !next)) {
    const [a, b] = tight[0] as readonly [Fdi, Fdi];
    return {
      kind: 'found',
      cause: 'contact',
      teeth: [a, b],
      why: 'Both go home alone and stand open together: the contact between them is too tight',
      does: 'Mark it with thin paper between the two, polish where it marks, try the pair again.',
    };
  }
  if (next) return { kind: 'try', teeth: next, why: 'Each goes home alone: now the two together.' };
  if (teeth.length > 2 && !last(teeth)) return { kind: 'try', teeth, why: 'Pairs are home: now all together.' };
  return { kind: 'home' };
}
