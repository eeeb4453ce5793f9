import { wedged } from './bevel.js';
import { slants } from './layers.js';
import { columnPlace, type Missing } from './missing.js';
import type { DirectSettings } from './words.js';

/** A dent of the face beside the gum, brushed, ground or etched into a tooth. */
export interface NeckDefect {
  /** At its deepest, below the face around it, mm. */
  readonly deepMm: number;
  /** From its side at the edge to that at the gum, and from side to side, mm. */
  readonly highMm: number;
  readonly wideMm: number;
  /** As it is seen from the front, mm². */
  readonly mm2: number;
  /** How far its side at the gum stays from where the planned crown ends, mm. */
  readonly toNeckMm: number;
  /** Of the bevel on its side at the edge, mm; the side at the gum gets none. */
  readonly bevelMm: number;
  /** What that takes of the tooth, mm³. */
  readonly cutMm3: number;
}

/** A dent is deeper than its surroundings by this at least, mm. House value: two scans are off by less. */
const COUNTS_MM = 0.2;
/** A smaller one is none, mm². House value. */
const LEAST_MM2 = 1;
/** And begins within the half of the crown that lies at the gum. */
const GUM_SHARE = 0.5;
/** A column that is longer than the layer is thick by this much goes through a side. House value. */
const FACES = 1.8;
/** Its bevel is this share of that of a large break: the enamel is thin there. Common practice, no source. */
const BEVEL_SHARE = 0.5;

/**
 * The dent beside the gum, and what is missing with its bevel. The largest one counts.
 * @returns undefined where none is found
 */
export function neckDefect(
  m: Missing,
  s: Pick<DirectSettings, 'bevelMm'>,
): { readonly defect: NeckDefect; readonly missing: Missing; readonly columns: ReadonlySet<number> } | undefined {
  const { na, step } = m.grid;
  const heights = [...m.wants.keys()].map((c) => columnPlace(m, c)[1]);
  const [edge, neck] = [
    heights.reduce((a, z) => Math.min(a, z), Infinity),
    heights.reduce((a, z) => Math.max(a, z), -Infinity),
  ];
  const slant = slants(m);
  // How far the tooth lies behind the planned face, square to it; before it where it stands out of the plan. Where the
  // face turns away to a side it is no dent of the face.
  const behind = new Map(
    [...m.wants].flatMap(([column, planned]): [number, number][] => {
      const tooth = m.stands.get(column);
      const by = slant({ column }).front;
      return tooth && tooth.from < planned.to && by < FACES ? [[column, (tooth.from - planned.from) / by]] : [];
    }),
  );
  // What the plan lays on the whole face, or leaves of it, is no dent.
  const around = [...behind.values()].sort((a, b) => a - b)[behind.size >> 1] ?? 0;
  const atGum = (c: number) => columnPlace(m, c)[1] > neck - GUM_SHARE * (neck - edge);
  const isDent = (c: number) => atGum(c) && (behind.get(c) as number) >= around + COUNTS_MM;
  const own = largest([...behind.keys()].filter(isDent), (c) => [c - 1, c + 1, c - na, c + na]);
  if (own.size * step * step < LEAST_MM2) return undefined;
  const at = [...own].map((c) => columnPlace(m, c));
  const reach = (k: 0 | 1) =>
    at.reduce((a, p) => [Math.min(a[0], p[k]), Math.max(a[1], p[k])] as const, [Infinity, -Infinity] as const);
  const [wide, high] = [reach(0), reach(1)];
  // Where the crown ends differs from side to side: the nearest place counts.
  const ends = new Map<number, number>();
  for (const c of m.wants.keys()) ends.set(c % na, Math.max(ends.get(c % na) ?? -Infinity, columnPlace(m, c)[1]));
  const toNeckMm = [...own].reduce(
    (a, c) => Math.min(a, (ends.get(c % na) as number) - columnPlace(m, c)[1]),
    Infinity,
  );
  const bevelMm = BEVEL_SHARE * s.bevelMm;
  const border = [...own].filter((c) => !own.has(c - na));
  const top = new Map(border.map((c) => [c % na, columnPlace(m, c)[1]]));
  const { missing, cutMm3 } = wedged(m, border, { frontMm: bevelMm, behindMm: 0 }, (c) => {
    const from = top.get(c % na);
    return !own.has(c) && from !== undefined && columnPlace(m, c)[1] < from;
  });
  return {
    defect: {
      deepMm: [...own].reduce((a, c) => Math.max(a, (behind.get(c) as number) - around), 0),
      highMm: high[1] - high[0] + step,
      wideMm: wide[1] - wide[0] + step,
      mm2: own.size * step * step,
      toNeckMm,
      bevelMm,
      cutMm3,
    },
    missing,
    columns: own,
  };
}

/** The largest of the connected groups of some. */
function largest(all: readonly number[], beside: (c: number) => readonly number[]): ReadonlySet<number> {
  const left = new Set(all);
  let best = new Set<number>();
  for (const first of all) {
    if (!left.delete(first)) continue;
    const group = new Set([first]);
    for (const c of group) for (const next of beside(c)) if (left.delete(next)) group.add(next);
    if (group.size > best.size) best = group;
  }
  return best;
}
