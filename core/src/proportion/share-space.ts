import { Refusal } from '../errors.js';
import { type Fdi, opposite } from '../teeth/notation.js';

/** What is wished of one tooth's width, mm. */
export interface WidthWish {
  readonly tooth: Fdi;
  readonly wishMm: number;
  /** How far it may go. */
  readonly minMm: number;
  readonly maxMm: number;
  /** Set by hand and not to be touched. */
  readonly lockedMm?: number;
  /** The tooth that is kept like it; the one of the same number on the other side where nothing is said. */
  readonly fellow?: Fdi;
}

export interface SharedSpace {
  readonly widths: ReadonlyMap<Fdi, number>;
  /** Teeth that stand at the end of their band, and which end. */
  readonly atEnd: ReadonlyMap<Fdi, 'min' | 'max'>;
  /** Space that nobody could take (+) or that is missing (−), mm; 0 where the widths fill it. */
  readonly leftMm: number;
}

/** One unknown: a tooth, or a tooth and its fellow that are kept alike. */
interface Unknown {
  readonly teeth: readonly Fdi[];
  readonly wish: number;
  readonly min: number;
  readonly max: number;
}

const TINY = 1e-9;

/**
 * Shares a space out over teeth: the widths that fill it, stay in their bands, keep what is locked and, if asked, left
 * and right alike, and among all such are nearest to the wishes. Nearness is Σ (width − wish)² ÷ wish: as long as no
 * band is met every tooth gives way by the same percentage.
 *
 * The objective is separable and there is one equality, so the solution is exact: width = wish · (1 + λ), held to its
 * band, with the one λ at which the sum is the space (Karush–Kuhn–Tucker conditions; the sum grows with λ).
 * @throws Refusal `parameter-out-of-range` for a wish or band that is no positive length or is turned round
 */
export function shareSpace(wishes: readonly WidthWish[], spaceMm: number, alike: boolean): SharedSpace {
  for (const w of wishes) {
    const fine =
      [w.wishMm, w.minMm, w.maxMm, w.lockedMm ?? 1].every((v) => Number.isFinite(v) && v > 0) && w.minMm <= w.maxMm;
    if (!fine)
      throw new Refusal('parameter-out-of-range', `The wished width of ${w.tooth} or its band is no length.`, w);
  }
  const unknowns = unknownsOf(wishes, alike);
  const locked = wishes.filter((w) => w.lockedMm !== undefined);
  const free = spaceMm - locked.reduce((n, w) => n + (w.lockedMm as number), 0);
  const at = (lambda: number, u: Unknown) => Math.min(u.max, Math.max(u.min, u.wish * (1 + lambda)));
  const total = (lambda: number) => unknowns.reduce((n, u) => n + u.teeth.length * at(lambda, u), 0);
  const lambda = solveFor(unknowns, free, total);
  const widths = new Map<Fdi, number>(locked.map((w) => [w.tooth, w.lockedMm as number]));
  const atEnd = new Map<Fdi, 'min' | 'max'>();
  for (const u of unknowns) {
    const width = at(lambda, u);
    for (const t of u.teeth) {
      widths.set(t, width);
      const wanted = u.wish * (1 + lambda);
      if (wanted < u.min - TINY) atEnd.set(t, 'min');
      else if (wanted > u.max + TINY) atEnd.set(t, 'max');
    }
  }
  const left = free - total(lambda);
  return { widths, atEnd, leftMm: Math.abs(left) < 1e-6 ? 0 : left };
}

function unknownsOf(wishes: readonly WidthWish[], alike: boolean): Unknown[] {
  const by = new Map(wishes.map((w) => [w.tooth, w]));
  const done = new Set<Fdi>();
  return wishes.flatMap((w): Unknown[] => {
    if (w.lockedMm !== undefined || done.has(w.tooth)) return [];
    const fellow = by.get(w.fellow ?? opposite(w.tooth));
    if (!alike || !fellow || fellow.tooth === w.tooth)
      return [{ teeth: [w.tooth], wish: w.wishMm, min: w.minMm, max: w.maxMm }];
    // A locked fellow is the wish of the one that follows it.
    if (fellow.lockedMm !== undefined)
      return [{ teeth: [w.tooth], wish: fellow.lockedMm, min: fellow.lockedMm, max: fellow.lockedMm }];
    done.add(fellow.tooth);
    const min = Math.max(w.minMm, fellow.minMm);
    // Bands that do not meet leave the middle between them.
    const max = Math.max(min, Math.min(w.maxMm, fellow.maxMm));
    return [{ teeth: [w.tooth, fellow.tooth], wish: (w.wishMm + fellow.wishMm) / 2, min, max }];
  });
}

/** The λ at which the sum is the space: the sum is straight between the places where a band begins or ends. */
function solveFor(unknowns: readonly Unknown[], free: number, total: (lambda: number) => number): number {
  const breaks = unknowns.flatMap((u) => [u.min / u.wish - 1, u.max / u.wish - 1]).sort((a, b) => a - b);
  if (breaks.length === 0) return 0;
  const first = breaks[0] as number;
  const last = breaks.at(-1) as number;
  if (free <= total(first)) return first;
  if (free >= total(last)) return last;
  for (let i = 1; i < breaks.length; i++) {
    const [a, b] = [breaks[i - 1] as number, breaks[i] as number];
    const [from, to] = [total(a), total(b)];
    if (free > to || to === from) continue;
    return a + ((free - from) / (to - from)) * (b - a);
  }
  return last;
}
