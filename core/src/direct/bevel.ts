import { hypot } from '../geometry/vec.js';
import { bulk } from './bulk.js';
import { columnPlace, type Missing, type MissingColumn, type Stretch } from './missing.js';
import type { DirectSettings } from './words.js';

/** A bevel goes so deep where the break begins and runs out to nothing, mm: within enamel. Common practice, no source. */
const DEEP_MM = { front: 0.5, behind: 0.3 } as const;
/** A break lower than this is small: it gets half of a bevel, mm. House value. */
const SMALL_MM = 3;
/** A tooth is never cut through: so much of it stays between two bevels, mm. House value. */
const KEPT_MM = 0.5;

/** A broken tooth with its bevel. */
export interface Bevelled {
  readonly missing: Missing;
  /** What the bevel takes of the tooth, mm³. */
  readonly cutMm3: number;
  /** How long it is in front and behind, mm. */
  readonly frontMm: number;
  readonly behindMm: number;
  /** How high the break goes from the planned edge, mm. */
  readonly breakHighMm: number;
}

/**
 * What is missing with a bevel where the tooth is broken: in front a long wedge of enamel, behind a short one or none.
 * Form and length by the size of the break.
 */
export function bevelled(m: Missing, s: Pick<DirectSettings, 'bevelMm' | 'bevelBehindMm'>): Bevelled {
  const { na } = m.grid;
  const toothAt = toothIn(m);
  // Where the whole of the plan is missing over more than a rim, and tooth stands beside it, the tooth is broken.
  const broken = bulk(m);
  const border = m.columns
    .filter((c) => broken.has(c.column) && [-1, 1, -na, na].some((by) => toothAt(c.column + by)))
    .map((c) => c.column);
  const edge = [...m.wants.keys()].reduce((z, c) => Math.min(z, columnPlace(m, c)[1]), Infinity);
  const breakHighMm = border.reduce((z, c) => Math.max(z, columnPlace(m, c)[1] - edge), 0);
  const frontMm = breakHighMm < SMALL_MM ? s.bevelMm / 2 : s.bevelMm;
  const behindMm = s.bevelBehindMm;
  if (border.length === 0 || Math.max(frontMm, behindMm) === 0)
    return { missing: m, cutMm3: 0, frontMm: 0, behindMm: 0, breakHighMm };
  return { ...wedged(m, border, { frontMm, behindMm }), frontMm, behindMm, breakHighMm };
}

/** What of a plan's columns the tooth fills. */
const toothIn =
  (m: Missing) =>
  (column: number): Stretch | undefined => {
    const plan = m.wants.get(column);
    const is = m.stands.get(column);
    return plan && is && is.from < plan.to && is.to > plan.from ? is : undefined;
  };

/**
 * A wedge of tooth taken off along a border, in front and behind: deepest at the border, running out to nothing.
 * @param border columns from which it runs
 * @param where which columns it may take from
 */
export function wedged(
  m: Missing,
  border: readonly number[],
  { frontMm, behindMm }: Pick<Bevelled, 'frontMm' | 'behindMm'>,
  where: (column: number) => boolean = () => true,
): Pick<Bevelled, 'missing' | 'cutMm3'> {
  const own = new Map(m.columns.map((c) => [c.column, c]));
  const toothAt = toothIn(m);
  const cell = m.grid.step ** 2;
  let [cutMm3, missingMm3] = [0, m.missingMm3];
  const stands = new Map(m.stands);
  for (const [column, mm] of distances(m, border, Math.max(frontMm, behindMm))) {
    const tooth = toothAt(column);
    const planned = m.wants.get(column);
    if (!tooth || !planned || !where(column)) continue;
    const spare = Math.max(0, tooth.to - tooth.from - KEPT_MM) / 2;
    const front = Math.min(spare, DEEP_MM.front * Math.max(0, 1 - mm / (frontMm || 1e-9)));
    const behind = Math.min(spare, DEEP_MM.behind * Math.max(0, 1 - mm / (behindMm || 1e-9)));
    if (front + behind < 0.01) continue;
    const left = { from: tooth.from + front, to: tooth.to - behind };
    const was = own.get(column);
    for (const t of [was?.front, was?.behind]) if (t) missingMm3 -= cell * (t.to - t.from);
    const next: MissingColumn = {
      column,
      planned,
      tooth: left,
      ...((front > 0 || was?.front) && left.from > planned.from && { front: { from: planned.from, to: left.from } }),
      ...((behind > 0 || was?.behind) && planned.to > left.to && { behind: { from: left.to, to: planned.to } }),
    };
    for (const t of [next.front, next.behind]) if (t) missingMm3 += cell * (t.to - t.from);
    cutMm3 += cell * (front + behind);
    own.set(column, next);
    stands.set(column, left);
  }
  return { missing: { ...m, stands, missingMm3, columns: [...own.values()] }, cutMm3 };
}

/** How far columns lie from the nearest of some, across, mm, as far as a reach. */
function distances(m: Missing, from: readonly number[], reach: number): Map<number, number> {
  const { na, step } = m.grid;
  const out = new Map<number, number>();
  // From the border of a column, not from its middle.
  const far = Math.ceil(reach / step + 0.5);
  for (const column of from)
    for (let j = -far; j <= far; j++)
      for (let i = -far; i <= far; i++) {
        const mm = step * Math.max(0, hypot(i, j) - 0.5);
        const x = (column % na) + i;
        const at = column + j * na + i;
        if (mm > reach || x < 0 || x >= na || !m.stands.has(at)) continue;
        if (mm < (out.get(at) ?? Infinity)) out.set(at, mm);
      }
  return out;
}
