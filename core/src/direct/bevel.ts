import { columnPlace, type Missing, type MissingColumn, type Stretch } from './missing.js';
import type { DirectSettings, DrawnBreak } from './words.js';

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
  /** The surface at which the tooth is broken, mm², and how high it goes from the planned edge, mm. */
  readonly breakMm2: number;
  readonly breakHighMm: number;
}

/**
 * A corner taken off a tooth as somebody has drawn it: from the edge up and from the side in, straight between.
 * @param mesialX 1 where the crown's x goes to the mesial side
 */
export function brokenOff(m: Missing, drawn: DrawnBreak, mesialX: 1 | -1): Missing {
  const all = [...m.wants.keys()].map((c) => columnPlace(m, c));
  const side = drawn.corner === 'mesial' ? mesialX : -mesialX;
  const outer = all.reduce((a, [x]) => Math.max(a, side * x), -Infinity);
  const edge = all.reduce((a, [, z]) => Math.min(a, z), Infinity);
  const isOff = (column: number) => {
    const [x, z] = columnPlace(m, column);
    return (outer - side * x) / drawn.widthMm + (z - edge) / drawn.heightMm < 1;
  };
  const cell = m.grid.step ** 2;
  const before = new Map(m.columns.map((c) => [c.column, c]));
  const stands = new Map([...m.stands].filter(([column]) => !isOff(column)));
  let missingMm3 = m.missingMm3;
  for (const [column, planned] of m.wants) {
    if (!isOff(column)) continue;
    const own = before.get(column);
    for (const s of [own?.front, own?.behind, own?.whole]) if (s) missingMm3 -= cell * (s.to - s.from);
    missingMm3 += cell * (planned.to - planned.from);
    before.set(column, { column, planned, whole: planned });
  }
  return { ...m, stands, missingMm3, columns: [...before.values()] };
}

/**
 * What is missing with a bevel where the tooth is broken: in front a long wedge of enamel, behind a short one or none.
 * Form and length by the size of the break.
 */
export function bevelled(m: Missing, s: Pick<DirectSettings, 'bevelMm' | 'bevelBehindMm'>): Bevelled {
  const { na, step } = m.grid;
  const own = new Map(m.columns.map((c) => [c.column, c]));
  const toothAt = (column: number): Stretch | undefined => {
    const plan = m.wants.get(column);
    const is = m.stands.get(column);
    return plan && is && is.from < plan.to && is.to > plan.from ? is : undefined;
  };
  const beside = (c: number) => [c - 1, c + 1, c - na, c + na];
  // Where the whole of the plan is missing over more than a rim, and tooth stands beside it, the tooth is broken.
  const broken = bulk(m);
  const border = m.columns.filter((c) => broken.has(c.column) && beside(c.column).some((n) => toothAt(n)));
  const edge = [...m.wants.keys()].reduce((z, c) => Math.min(z, columnPlace(m, c)[1]), Infinity);
  const breakHighMm = border.reduce((z, c) => Math.max(z, columnPlace(m, c.column)[1] - edge), 0);
  const breakMm2 = border.reduce((sum, c) => {
    const faces = beside(c.column).flatMap((n) => toothAt(n) ?? []);
    return sum + step * faces.reduce((a, t) => a + t.to - t.from, 0);
  }, 0);
  const frontMm = breakHighMm < SMALL_MM ? s.bevelMm / 2 : s.bevelMm;
  const behindMm = s.bevelBehindMm;
  const reach = Math.max(frontMm, behindMm);
  if (border.length === 0 || reach === 0)
    return { missing: m, cutMm3: 0, frontMm: 0, behindMm: 0, breakMm2, breakHighMm };
  const away = distances(m, border, reach);
  const cell = step * step;
  let [cutMm3, missingMm3] = [0, m.missingMm3];
  const stands = new Map(m.stands);
  for (const [column, mm] of away) {
    const tooth = toothAt(column);
    const planned = m.wants.get(column);
    if (!tooth || !planned) continue;
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
  return {
    missing: { ...m, stands, missingMm3, columns: [...own.values()] },
    cutMm3,
    frontMm,
    behindMm,
    breakMm2,
    breakHighMm,
  };
}

/** A plan is a little wider than its tooth all around: only what holds a disc of this radius is broken off, mm. House value. */
const BULK_MM = 0.35;

/** The columns in which all of the plan is missing, without rims. */
function bulk(m: Missing): ReadonlySet<number> {
  const { na, step } = m.grid;
  const whole = new Set(m.columns.filter((c) => c.whole).map((c) => c.column));
  const disc = (mm: number): number[] => {
    const far = Math.round(mm / step);
    const at: number[] = [];
    for (let j = -far; j <= far; j++)
      for (let i = -far; i <= far; i++) if (Math.hypot(i, j) <= far + 1e-9) at.push(j * na + i);
    return at;
  };
  const [held, around] = [disc(BULK_MM), disc(2 * BULK_MM)];
  const out = new Set<number>();
  // What lies about a place that holds the disc belongs to it: corners too, in which no disc lies.
  for (const c of whole)
    if (held.every((d) => whole.has(c + d))) for (const d of around) if (whole.has(c + d)) out.add(c + d);
  return out;
}

/** How far columns lie from the nearest of some, across, mm, as far as a reach. */
function distances(m: Missing, from: readonly MissingColumn[], reach: number): Map<number, number> {
  const { na, step } = m.grid;
  const out = new Map<number, number>();
  // From the border of a column, not from its middle.
  const far = Math.ceil(reach / step + 0.5);
  for (const { column } of from)
    for (let j = -far; j <= far; j++)
      for (let i = -far; i <= far; i++) {
        const mm = step * Math.max(0, Math.hypot(i, j) - 0.5);
        const x = (column % na) + i;
        const at = column + j * na + i;
        if (mm > reach || x < 0 || x >= na || !m.stands.has(at)) continue;
        if (mm < (out.get(at) ?? Infinity)) out.set(at, mm);
      }
  return out;
}
