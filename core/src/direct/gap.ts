import { TARNOW_PAPILLA } from '../teeth/norms.js';
import { COMMON_PRACTICE, type Source } from '../working/working.js';
import type { Missing } from './missing.js';

/** How often a papilla fills the space under a contact, by how far that lies from the bone. */
export const PAPILLA_FILLS: {
  readonly upTo: readonly (readonly [mm: number, percent: number])[];
  readonly source: Source;
} = {
  upTo: [
    [5, 98],
    [6, 56],
    [7, 27],
  ],
  source: TARNOW_PAPILLA,
};
/** Beyond the last of them, percent at most. */
const SELDOM = 10;

/** How often the space under a contact fills, %. @param mm from the contact to the bone */
export const papillaFills = (mm: number): number =>
  PAPILLA_FILLS.upTo.find(([upTo]) => Math.round(mm) <= upTo)?.[1] ?? SELDOM;

/** Bone lies so far over the tip of a healthy papilla where nobody has sounded it, mm. Common practice, no source. */
export const USUAL_SOUNDING_MM = 4.5;
export const SOUNDING_LIMITS = { min: 2, max: 12 } as const;

/** An addition that steps out of the tooth further than this at the gum can't be kept clean, degrees. */
export const EMERGES = { mostDeg: 40, source: COMMON_PRACTICE } as const;

/** Wider than this share of its length a front tooth looks square: its length has to follow, %. Common practice, no source. */
export const SQUARE_PERCENT = 85;

/** How an addition leaves the tooth at the gum on one side. */
export interface Emergence {
  /** Against the tooth's own side there, degrees. */
  readonly deg: number;
  /** From where it begins, over so much of the height, mm. */
  readonly overMm: number;
}

/** It is told over so much from where the addition begins, mm: a curved strip is stiff there. House value. */
const OVER_MM = 1.5;
/** Less of it is a corner, and no side, mm. House value. */
const LEAST_MM = 1;
/** What begins in this share of the height from the gum leaves the gum; the rest is a matter of the edge. */
const AT_GUM = 0.5;
/** An addition begins where so much is added to a side, mm. House value. */
const BEGINS_MM = 0.05;

/**
 * How the plan steps out of the tooth at the gum on one side: the lean of the added side against the tooth's own.
 * @param side 1 where x grows
 * @returns undefined where nothing is added on that side
 */
export function emergenceOf({ grid, wants, stands }: Missing, side: 1 | -1): Emergence | undefined {
  const { na, step, a0 } = grid;
  const reach = (of: ReadonlyMap<number, unknown>): Map<number, number> => {
    const out = new Map<number, number>();
    for (const c of of.keys()) {
      const [row, x] = [Math.floor(c / na), side * (a0 + (c % na) * step)];
      if (x > (out.get(row) ?? -Infinity)) out.set(row, x);
    }
    return out;
  };
  const [plan, tooth] = [reach(wants), reach(stands)];
  const rows = [...plan.keys()].filter((r) => tooth.has(r)).sort((p, q) => q - p);
  const added = (r: number) => (plan.get(r) as number) - (tooth.get(r) as number);
  // From the gum towards the edge, the first row from which on something is added.
  const at = rows.findIndex((_, i) => rows.slice(i, i + 3).every((q) => added(q) > BEGINS_MM));
  if (at < 0 || at > AT_GUM * rows.length) return undefined;
  const from = rows[at] as number;
  const to = rows.find((r) => (from - r) * step >= OVER_MM) ?? (rows.at(-1) as number);
  const overMm = (from - to) * step;
  if (overMm < LEAST_MM) return undefined;
  const lean = (of: ReadonlyMap<number, number>) =>
    (Math.atan2((of.get(to) as number) - (of.get(from) as number), overMm) * 180) / Math.PI;
  return { deg: lean(plan) - lean(tooth), overMm };
}

/** What a strip between two teeth is like, by how much is added and how it leaves the gum. Generic forms. */
export function matrixFor(addMm: number, deg: number): { readonly words: string; readonly why: string } {
  if (deg > 25)
    return {
      words: 'strongly curved clear matrix, set into the sulcus',
      why: 'its curve makes the emergence; a straight strip would leave an overhang or a new triangle',
    };
  if (addMm > 0.7)
    return {
      words: 'curved clear matrix, wedge only to hold it',
      why: 'a wedge that is pressed in flattens the curve',
    };
  return { words: 'straight clear strip, pulled through to the palate', why: 'little is added: pulling shapes it' };
}
