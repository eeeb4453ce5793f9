import { Refusal } from '../../errors.js';
import { type Bur, burId } from './bur.js';
import { type Engagement, engagements, type How } from './engagement.js';
import { DEPTH_TOLERANCE_MM, FIRST_TRAY, finishes } from './tray.js';

/** Where a groove is cut. Near the gum enamel is thinnest: there no groove is deeper than what is wanted. */
export type GrooveSite = 'cervical' | 'facial' | 'edge';

/** What a strategy asks of a place: a groove of a depth, mm, or none and why. */
export type GrooveWish =
  | {
      readonly kind: 'cut';
      readonly depthMm: number;
      readonly where: GrooveSite;
      /** What is to be known before it is cut. */
      readonly first?: string;
    }
  | { readonly kind: 'none'; readonly why: string };

/** A groove's recipe: the engagement that gives the depth, or a sentence why none does. */
export type Groove =
  | {
      readonly kind: 'cut';
      readonly engagement: Engagement;
      readonly depthMm: number;
      readonly grooves: string;
      readonly first?: string;
      /** Chosen by hand, and what that does. */
      readonly byHand?: string;
    }
  | {
      readonly kind: 'none';
      readonly why: string;
      readonly depthMm: number;
      /** The nearest that the tray cuts below it, and the grooves to cut it by. */
      readonly nearest?: Engagement;
      readonly grooves?: string;
      readonly first?: string;
    };

/** A bur and how it is sunk, chosen by hand for a place. */
export interface HandChoice {
  readonly bur: string;
  readonly how: How;
}

/** Three grooves on the face and one on each line angle; three across the edge. Common practice. */
const GROOVES: Readonly<Record<GrooveSite, string>> = {
  cervical: '3 facial, 1 on each line angle',
  facial: '3 facial, 1 on each line angle',
  edge: '3 across the edge',
};

/** What is chosen from. */
export interface TrayChoice {
  readonly burs: readonly Bur[];
  readonly toleranceMm: number;
}
const FIRST: TrayChoice = { burs: FIRST_TRAY.burs, toleranceMm: DEPTH_TOLERANCE_MM };

/** Above so many burs a tray is not tried in every combination, but bur by bur. */
const TRIED_WHOLE = 14;

/**
 * The grooves of a whole case from one tray: as many depths as it gives within the tolerance, near the gum only to the
 * short side; of all ways to do so the one with the fewest burs, then the one that is off by least. Between equals a
 * ball on the face (it stops by itself) and a taper on the edge.
 * @param byHand for each wish what somebody chose, if it is in the tray
 * @throws Refusal `number-invalid` for a depth that is no number
 */
export function chooseGrooves(
  wishes: readonly GrooveWish[],
  { burs, toleranceMm }: TrayChoice = FIRST,
  byHand: readonly (HandChoice | undefined)[] = [],
): Groove[] {
  const cutting = burs.filter((b) => !finishes(b));
  const options = wishes.map((w) => (w.kind === 'cut' ? fitting(w, cutting, toleranceMm) : []));
  const free = options.filter((own, i) => own.length > 0 && !handOf(byHand[i], cutting));
  const fixed = wishes.flatMap((w, i) => (w.kind === 'cut' ? (handOf(byHand[i], cutting)?.bur ?? []) : []));
  const chosen = new Set([...fewest(free, fixed), ...fixed].map(burId));
  return wishes.map((wish, i) => {
    if (wish.kind === 'none') return { kind: 'none', why: wish.why, depthMm: 0 };
    const hand = handOf(byHand[i], cutting);
    if (hand) return handGroove(wish, hand, toleranceMm);
    const best = (options[i] ?? []).find((e) => chosen.has(burId(e.bur)));
    return best ? cutGroove(wish, best) : noneGroove(wish, cutting);
  });
}

/** The groove of one place alone. */
export const groove = (depthMm: number, where: GrooveSite, burs: readonly Bur[] = FIRST_TRAY.burs): Groove =>
  chooseGrooves([{ kind: 'cut', depthMm, where }], { burs, toleranceMm: DEPTH_TOLERANCE_MM })[0] as Groove;

const usableAt = (burs: readonly Bur[], where: GrooveSite): Engagement[] =>
  burs
    .filter((b) => where !== 'edge' || (b.shape !== 'ball' && b.shape !== 'rings'))
    .flatMap(engagements)
    .filter((e) => where === 'edge' || e.how !== 'sunk to its working length');

/** The engagements that give a depth, best first. */
function fitting(w: GrooveWish & { kind: 'cut' }, burs: readonly Bur[], toleranceMm: number): Engagement[] {
  if (!Number.isFinite(w.depthMm)) throw new Refusal('number-invalid', 'The groove depth is not a number.', w.depthMm);
  if (w.depthMm <= 0) return [];
  const longest = w.depthMm + (w.where === 'cervical' ? 0 : toleranceMm) + 1e-9;
  const off = (e: Engagement) => Math.abs(e.depthMm - w.depthMm);
  const ownStop = (e: Engagement) => Number(e.bur.shape !== 'ball' && e.bur.shape !== 'rings');
  return usableAt(burs, w.where)
    .filter((e) => e.depthMm <= longest && off(e) <= toleranceMm + 1e-9)
    .sort((a, b) => off(a) - off(b) || ownStop(a) - ownStop(b));
}

/** The fewest burs by which each wish has an engagement; of as many, those that are off by least. */
function fewest(wishes: readonly (readonly Engagement[])[], already: readonly Bur[]): Bur[] {
  const all = [...new Map(wishes.flat().map((e) => [burId(e.bur), e.bur])).values()];
  const has = new Set(already.map(burId));
  const distinct = [
    ...new Map(wishes.map((own) => [own.map((e) => `${burId(e.bur)} ${e.depthMm}`).join(), own])).values(),
  ];
  const cost = (on: (b: Bur) => boolean): number =>
    distinct.reduce((sum, own) => {
      const first = own.findIndex((e) => on(e.bur));
      // What is off, and by how many better ones it was passed over: a tie goes to the one that stops by itself.
      const passed = Math.abs((own[first]?.depthMm ?? 0) - (own[0]?.depthMm ?? 0));
      return first < 0 ? Infinity : sum + 1e-6 * first + passed;
    }, 0);
  const free = all.filter((b) => !has.has(burId(b)));
  const kept = all.filter((b) => has.has(burId(b)));
  return [...kept, ...(free.length <= TRIED_WHOLE ? smallest(free, kept, cost) : sparing(free, kept, cost))];
}

type Cost = (on: (b: Bur) => boolean) => number;

/** Every combination, small ones first. */
function smallest(free: readonly Bur[], kept: readonly Bur[], cost: Cost): Bur[] {
  const bySize: number[][] = free.map(() => []);
  for (let mask = 1; mask < 2 ** free.length; mask++)
    (bySize[mask.toString(2).replaceAll('0', '').length - 1] as number[]).push(mask);
  for (const masks of [[0], ...bySize]) {
    let best: { own: Bur[]; cost: number } | undefined;
    for (const mask of masks) {
      const own = free.filter((_, b) => Math.floor(mask / 2 ** b) % 2 === 1);
      const c = cost((b) => own.includes(b) || kept.includes(b));
      if (c < (best?.cost ?? Infinity)) best = { own, cost: c };
    }
    if (best) return best.own;
  }
  return [...free];
}

/** Bur by bur: the one that can be spared with the least to be lost goes first. */
function sparing(free: readonly Bur[], kept: readonly Bur[], cost: Cost): Bur[] {
  let own = [...free];
  for (;;) {
    const next = own
      .map((spared) => own.filter((b) => b !== spared))
      .map((left) => ({ left, cost: cost((b) => left.includes(b) || kept.includes(b)) }))
      .filter((n) => n.cost < Infinity)
      .sort((p, q) => p.cost - q.cost)[0];
    if (!next) return own;
    own = next.left;
  }
}

const withFirst = (first: string | undefined) => (first ? { first } : {});

function cutGroove(w: GrooveWish & { kind: 'cut' }, engagement: Engagement): Groove {
  return { kind: 'cut', engagement, depthMm: w.depthMm, grooves: GROOVES[w.where], ...withFirst(w.first) };
}

function handOf(choice: HandChoice | undefined, burs: readonly Bur[]): Engagement | undefined {
  if (!choice) return undefined;
  return burs.flatMap(engagements).find((e) => burId(e.bur) === choice.bur && e.how === choice.how);
}

/** What a bur chosen by hand does: deeper or shallower than what is wanted, and by how much. */
function handGroove(w: GrooveWish & { kind: 'cut' }, engagement: Engagement, toleranceMm: number): Groove {
  const off = engagement.depthMm - w.depthMm;
  const mm = Math.abs(off).toFixed(2);
  const near = Math.abs(off) <= toleranceMm + 1e-9;
  const byHand = near
    ? 'Chosen by hand; within the tolerance.'
    : off < 0
      ? `Chosen by hand: ${mm} mm shallower than wanted; that much more goes by the index.`
      : w.where === 'cervical'
        ? `Chosen by hand: ${mm} mm deeper than wanted, near the gum, where enamel is thinnest.`
        : `Chosen by hand: ${mm} mm deeper than wanted; so much more of the tooth goes.`;
  return { ...cutGroove(w, engagement), byHand } as Groove;
}

function noneGroove(w: GrooveWish & { kind: 'cut' }, burs: readonly Bur[]): Groove {
  const { depthMm, where, first } = w;
  if (depthMm <= 0) return { kind: 'none', depthMm: 0, why: 'Nothing to cut.' };
  const usable = usableAt(burs, where);
  if (usable.length === 0)
    return {
      kind: 'none',
      depthMm,
      why: `No groove: nothing in the tray cuts one there. Put a bur in, or smooth by ${depthMm.toFixed(2)} mm by the index.`,
      ...withFirst(first),
    };
  const nearest = usable.filter((e) => e.depthMm <= depthMm).sort((a, b) => b.depthMm - a.depthMm)[0];
  if (!nearest) {
    const least = Math.min(...usable.map((e) => e.depthMm));
    return {
      kind: 'none',
      depthMm,
      why: `No groove: the shallowest that this tray cuts is ${least.toFixed(1)} mm. Smooth by ${depthMm.toFixed(2)} mm with a fine diamond and check with the index.`,
      ...withFirst(first),
    };
  }
  return {
    kind: 'none',
    depthMm,
    nearest,
    grooves: GROOVES[where],
    why: `No bur gives ${depthMm.toFixed(2)} mm. The nearest below is ${nearest.depthMm.toFixed(1)} mm (${nearest.how}); cut that, then ${(depthMm - nearest.depthMm).toFixed(2)} mm more by the index.`,
    ...withFirst(first),
  };
}
