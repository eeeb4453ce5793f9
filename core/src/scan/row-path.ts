import { quadrantOf } from '../contour/arch.js';
import type { Fdi, Jaw } from '../teeth/notation.js';
import { usualSize } from '../teeth/usual-sizes.js';
import { BIN_MM, HALF_ROW_MM, type RowSight, type ToothRoom } from './row.js';

/** The teeth of a row with their rooms, and how sure their numbers are. */
export interface NumberedRow {
  readonly teeth: ReadonlyMap<Fdi, ToothRoom>;
  /** How unlikely the whole row is. */
  readonly cost: number;
  /** By how much the likeliest other numbering is less likely; 0 where it is as likely. Infinite where there is none. */
  readonly sure: number;
  /** How large its teeth are beside the usual ones. */
  readonly scale: number;
  /** Stretches in which something stands that is of no tooth, between teeth that are numbered. */
  readonly unnumbered: readonly Stretch[];
}

/** A stretch along the row from the midline, mm. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

/** A place along the row where the sides of teeth may turn over. */
interface Border {
  readonly bin: number;
  readonly alongMm: number;
  readonly groove: number;
}

// All of these are house values: how much less likely a row is, in squares of a standard deviation.
/** Widths of one kind of tooth differ by so much of themselves. */
const DIFFER = 0.085;
/** Whole rows are larger or smaller by so much. */
const SCALES = [0.82, 0.88, 0.94, 1, 1.06, 1.12, 1.2];
const SCALE_DIFFERS = 0.075;
/** A border is looked for where the flanks turn by so much at least, and is plain from so much on. */
const LEAST_GROOVE = 0.12;
const PLAIN_GROOVE = 0.5;
/** A border that is hardly seen, at most; one that is plain and within a tooth, of a front tooth and of one behind. */
const FAINT = 4;
const WITHIN = { front: 9, premolar: 6, molar: 2.5 } as const;
/** A tooth that is not there, though nobody said so; one that is there though it was said to be missing. */
const LACKING = 7;
const SAID_MISSING = 25;
/** A canine's cusp is so high at least, an incisor's edge is so even, mm; and what it costs where they are not. */
export const CUSP_MM = { canine: 0.35, incisor: 0.55 } as const;
const OTHER_EDGE = 2;
/** Room with no tooth in it, and for each mm of it where teeth stand. */
const GAP = 1.2;
const GAP_A_MM = 2.2;
/** What lies so far over the edges of the row is gum between teeth or stumps, mm, and costs so much for each mm. */
const DEEP_MM = 4;
const DEEP_A_MM = 0.25;
/** A tooth that is cut for a crown: of its usual width, how much that differs, and how unlikely it is. */
const STUMP_SHARE = 0.55;
const STUMP_DIFFERS = 0.16;
const STUMP = 4;
/** The border between the centrals lies at the middle: so far off, mm, and where teeth are missing. */
const ASIDE_MM = { usual: 2.2, missing: 4.5, clicked: 0.8 } as const;
/** Widths of molars, which are told apart only so that those before them are numbered right (Wheeler, from memory). */
const MOLARS = { upper: [10, 9, 8.5], lower: [11, 10.5, 10] } as const;

/** Between two places of the row nothing stands so high that it is a tooth, mm over the edges' plane. */
const NO_TOOTH_MM = 6.5;
const MOST_WIDTH = 1.5;
/** No tooth takes more room than this, mm. */
const MOST_ROOM_MM = 17;
/** An edge may lie so far over the row's plane, and seldom so much further. */
const SHORT_MM = 2.2;
const SHORT_DIFFERS_MM = 0.9;
const NO_STUMP = 14;

function widthOf(jaw: Jaw, tooth: Fdi): number {
  const position = tooth % 10;
  return position <= 5 ? usualSize(tooth).widthMm : (MOLARS[jaw][position - 6] as number);
}

/** A tooth reaches so far into a stretch that holds none, at most, mm. House value. */
const OVERLAP_MM = 1;
/** What is less likely than this is no row of teeth: palate or gum alone. House value. */
const NO_ROW_COST = 130;

/** What a hand has told of the row, along it, mm: a place on each of some teeth, and where the middle is. */
export interface KnownPlaces {
  readonly teeth: ReadonlyMap<Fdi, number>;
  readonly middleMm?: number;
  /** Stretches in which no tooth stands. */
  readonly none?: readonly Stretch[];
}
export const NOTHING_KNOWN: KnownPlaces = { teeth: new Map() };
/** About a tooth that was told borders are thought of at every step, however faint, mm. */
const ABOUT_TOLD_MM = 8;
const TOLD_STEP = Math.round(0.5 / BIN_MM);

const NO_ROW: NumberedRow = { teeth: new Map(), cost: Infinity, sure: 0, scale: 1, unnumbered: [] };

/** Where sides turn over, faintly or plainly, and both ends of what stands. */
function bordersOf({ groove, near, edge }: RowSight, known: KnownPlaces): Border[] {
  const n = groove.length;
  const standing = (i: number) => (near[i] as number) < NO_TOOTH_MM && (edge[i] as number) < 8;
  let [first, last] = [0, n - 1];
  while (first < n && !standing(first)) first++;
  while (last > first && !standing(last)) last--;
  if (last - first < 8) return [];
  const span = Math.round(0.9 / BIN_MM);
  const own: Border[] = [];
  const add = (bin: number, g: number) => own.push({ bin, alongMm: bin * BIN_MM - HALF_ROW_MM, groove: g });
  add(first, PLAIN_GROOVE);
  for (let i = first + 6; i < last - 6; i++) {
    const g = groove[i] as number;
    const alongMm = i * BIN_MM - HALF_ROW_MM;
    if (i % TOLD_STEP === 0 && [...known.teeth.values()].some((a) => Math.abs(a - alongMm) < ABOUT_TOLD_MM)) {
      add(i, g);
      continue;
    }
    if (g < LEAST_GROOVE) continue;
    let most = true;
    for (let k = Math.max(0, i - span); k <= Math.min(n - 1, i + span) && most; k++)
      if ((groove[k] as number) > g || (groove[k] === g && k < i)) most = false;
    if (most) add(i, g);
  }
  add(last, PLAIN_GROOVE);
  return own;
}

const plain = (g: number): number => Math.min(1, g / PLAIN_GROOVE);

/** One way through the row: what each of its rooms is. */
interface Step {
  readonly cost: number;
  readonly scale: number;
  readonly tooth?: Fdi;
  /** The room that it takes, along the row, mm. */
  readonly from: number;
  readonly to: number;
  readonly before?: Step | undefined;
}

/**
 * The likeliest teeth of a row: one path from its one end to the other over all places where sides may turn over and
 * through the teeth in their order, by widths on a common scale, how plain each border is, gaps, what is known to be
 * missing, and where the middle lies.
 */
export function likeliestRow(
  sight: RowSight,
  jaw: Jaw,
  missing: ReadonlySet<Fdi> = new Set(),
  known: KnownPlaces = NOTHING_KNOWN,
): NumberedRow {
  const borders = bordersOf(sight, known);
  if (borders.length < 2) return NO_ROW;
  const order: Fdi[] = [
    ...[8, 7, 6, 5, 4, 3, 2, 1].map((p) => quadrantOf(jaw, 'right') + p),
    ...[1, 2, 3, 4, 5, 6, 7, 8].map((p) => quadrantOf(jaw, 'left') + p),
  ];
  const between = betweenAll(sight, borders, known);
  const ways = SCALES.flatMap((scale) => waysThrough(borders, between, order, jaw, missing, known, scale)).sort(
    (a, b) => a.cost - b.cost,
  );
  const best = ways[0];
  if (!best || best.cost > NO_ROW_COST) return NO_ROW;
  const teeth = teethOf(best, sight);
  const said = (m: ReadonlyMap<Fdi, ToothRoom>) =>
    [...m].map(([t, r]) => `${t} ${Math.round((r.from + r.to) / 4)}`).join(' ');
  const own = said(teeth);
  const other = ways.find((w) => said(teethOf(w, sight)) !== own);
  return {
    teeth,
    cost: best.cost,
    sure: other ? other.cost - best.cost : Infinity,
    scale: best.scale,
    unnumbered: unnumberedOf(best, sight, borders),
  };
}

/** The best way that ends at each tooth, for one scale of the row. */
function waysThrough(
  borders: readonly Border[],
  between: readonly (readonly Between[])[],
  order: readonly Fdi[],
  jaw: Jaw,
  missing: ReadonlySet<Fdi>,
  known: KnownPlaces,
  scale: number,
): Step[] {
  const middle = {
    at: known.middleMm ?? 0,
    aside: known.middleMm !== undefined ? ASIDE_MM.clicked : missing.size > 0 ? ASIDE_MM.missing : ASIDE_MM.usual,
  };
  const told = order.map((t) => known.teeth.get(t));
  const firstTold = told.findIndex((a) => a !== undefined);
  const lastTold = told.findLastIndex((a) => a !== undefined);
  const holds = (from: Border, to: Border, but: number) =>
    told.some((a, n) => a !== undefined && n !== but && a > from.alongMm && a < to.alongMm);
  const scaleCost = ((scale - 1) / SCALE_DIFFERS) ** 2;
  const last = borders.length - 1;
  const half = order.length / 2;
  // best[i][k]: the cheapest way to border i after which tooth k of the order is next.
  const best: (Step | undefined)[][] = borders.map(() => new Array(order.length + 1).fill(undefined));
  for (let k = 0; k <= (firstTold < 0 ? half : Math.min(half, firstTold)); k++)
    (best[0] as (Step | undefined)[])[k] = { cost: scaleCost, scale, from: 0, to: 0 };
  const offer = (i: number, k: number, s: Step) => {
    const row = best[i] as (Step | undefined)[];
    const known = row[k];
    if (!known || s.cost < known.cost) row[k] = s;
  };
  for (let i = 0; i < last; i++)
    for (let k = 0; k <= order.length; k++) {
      const here = best[i]?.[k];
      if (!here) continue;
      const from = borders[i] as Border;
      for (let j = i + 1; j <= last; j++) {
        const to = borders[j] as Border;
        const own = between[i]?.[j] as Between;
        const gap = holds(from, to, -1) ? Infinity : own.gap;
        offer(j, k, { cost: here.cost + gap, scale, from: from.alongMm, to: to.alongMm, before: here });
        if (own.wide > MOST_ROOM_MM) continue;
        let skipped = 0;
        for (let n = k; n < order.length && n <= k + 3; n++) {
          const tooth = order[n] as Fdi;
          const place = told[n];
          const against =
            holds(from, to, n) ||
            own.emptyMm > OVERLAP_MM ||
            (place !== undefined && (place <= from.alongMm || place >= to.alongMm));
          const cost =
            (against ? Infinity : 0) +
            toothCost(own, { either: i === 0 || j === last, last: j === last }, to, tooth, jaw, scale, missing) +
            // The teeth that are passed over; at the ends of the order nobody misses them.
            (here.before || k > 0 ? skipped : 0) +
            middleCost(order, n, from, middle, half);
          if (cost < 60)
            offer(j, n + 1, {
              cost: here.cost + cost,
              scale,
              tooth,
              ...roomOf(borders, i, j, widthOf(jaw, tooth) * scale),
              before: here,
            });
          skipped += told[n] !== undefined ? Infinity : missing.has(tooth) ? 0 : LACKING;
        }
      }
    }
  return (best[last] as (Step | undefined)[]).filter(
    (s, k): s is Step => s !== undefined && s.cost < Infinity && k >= half && k > lastTold,
  );
}

/** What stands between two borders, whatever it is taken for. */
interface Between {
  readonly wide: number;
  readonly edgeMm: number;
  /** How far its edge stands out over its own sides, mm; only of what is no wider than a tooth. */
  readonly cuspMm: number;
  /** How much of it is known to hold no tooth. */
  readonly emptyMm: number;
  /** How plain the borders within it are, in squares. */
  readonly within: number;
  /** How unlikely it is that no tooth stands there. */
  readonly gap: number;
}

/** What stands between each two borders, the first first: looked at once, however many ways lead over it. */
function betweenAll(sight: RowSight, borders: readonly Border[], known: KnownPlaces): Between[][] {
  const baseMm = edgesOf(sight, borders);
  return borders.map((from, i) => {
    const own: Between[] = [];
    let within = 0;
    for (let j = i + 1; j < borders.length; j++) {
      const to = borders[j] as Border;
      const wide = to.alongMm - from.alongMm;
      const edgeMm = edgeOf(sight, from, to);
      const emptyMm = (known.none ?? []).reduce(
        (sum, e) => sum + Math.max(0, Math.min(e.to, to.alongMm) - Math.max(e.from, from.alongMm)),
        0,
      );
      own[j] = {
        wide,
        edgeMm,
        cuspMm: wide > MOST_ROOM_MM ? 0 : cuspOf(sight, from, to),
        emptyMm,
        within,
        gap: gapCost(edgeMm, wide - emptyMm, baseMm),
      };
      within += plain(to.groove) ** 2;
    }
    return own;
  });
}

/** How unlikely one tooth is between two borders. @param end whether one of them, and whether the second, is an end of the row */
function toothCost(
  { wide, edgeMm, cuspMm, within }: Between,
  end: { readonly either: boolean; readonly last: boolean },
  to: Border,
  tooth: Fdi,
  jaw: Jaw,
  scale: number,
  missing: ReadonlySet<Fdi>,
): number {
  const usual = widthOf(jaw, tooth) * scale;
  // Behind the last tooth of a scan its gum runs on, or the scan ends within it.
  if (end.either ? wide < 0.35 * usual : wide > MOST_WIDTH * usual) return Infinity;
  const off = wide / usual - 1;
  const stump = off < -0.15 ? STUMP + ((wide / (STUMP_SHARE * usual) - 1) / STUMP_DIFFERS) ** 2 : Infinity;
  const width = Math.min((off / DIFFER) ** 2, stump);
  let cost = end.either ? Math.min(width, off > 0 ? 2 + 3 * Math.max(0, off - 0.5) : 5) : width;
  if (missing.has(tooth)) cost += SAID_MISSING;
  // What ends far over the edges of the row is a stump at most, and between two teeth mostly gum.
  cost += Math.min(NO_STUMP, (Math.max(0, edgeMm - SHORT_MM) / SHORT_DIFFERS_MM) ** 2);
  const position = tooth % 10;
  if (position <= 3 && !end.either && (position === 3 ? cuspMm < CUSP_MM.canine : cuspMm > CUSP_MM.incisor))
    cost += OTHER_EDGE;
  cost += WITHIN[position <= 3 ? 'front' : position <= 5 ? 'premolar' : 'molar'] * within;
  // Each border is paid for by the tooth before it; the last end is none.
  return end.last ? cost : cost + FAINT * (1 - plain(to.groove)) ** 2;
}

/** How far the edge between two borders stands out over its own sides, mm: a canine's cusp does, an incisor's edge not. */
function cuspOf({ edge }: RowSight, from: Border, to: Border): number {
  const at = (share: number) => Math.round(from.bin + share * (to.bin - from.bin));
  const low = (a: number, b: number) => Math.min(...edge.subarray(at(a), at(b) + 1));
  return (low(0.15, 0.25) + low(0.75, 0.85)) / 2 - low(0.25, 0.75);
}

/**
 * How unlikely it is that no tooth stands between two borders.
 * @param edgeMm where the edge of what stands there lies, and `baseMm` the row's edges
 * @param wide of it, without what is known to hold none, mm
 */
function gapCost(edgeMm: number, wide: number, baseMm: number): number {
  if (edgeMm >= NO_TOOTH_MM) return GAP * 0.4;
  return GAP + (edgeMm - baseMm > DEEP_MM ? DEEP_A_MM : GAP_A_MM) * wide;
}

/** Where the edges of the row lie: their median, mm. */
function edgesOf({ near }: RowSight, borders: readonly Border[]): number {
  const [first, last] = [borders[0] as Border, borders.at(-1) as Border];
  const all = [...near.subarray(first.bin, last.bin + 1)].filter(Number.isFinite).sort((a, b) => a - b);
  return all[all.length >> 1] ?? 0;
}

/** Where the edge of what stands between two borders lies: of its middle half, mm. */
function edgeOf({ edge }: RowSight, from: Border, to: Border): number {
  const quarter = Math.round((to.bin - from.bin) / 4);
  let low = Infinity;
  for (let i = from.bin + quarter; i <= to.bin - quarter; i++) low = Math.min(low, edge[i] as number);
  return low;
}

/** The first tooth of the second half begins at the middle. */
function middleCost(
  order: readonly Fdi[],
  n: number,
  from: Border,
  middle: { readonly at: number; readonly aside: number },
  half: number,
): number {
  return n === half && order.length > half ? ((from.alongMm - middle.at) / middle.aside) ** 2 : 0;
}

/** At both ends of the row the gum runs on behind the tooth: it takes a little more than its usual width there. */
const AT_END = 1.1;

function roomOf(borders: readonly Border[], i: number, j: number, usualMm: number): { from: number; to: number } {
  const [from, to] = [(borders[i] as Border).alongMm, (borders[j] as Border).alongMm];
  const most = AT_END * usualMm;
  if (i === 0 && j < borders.length - 1) return { from: Math.max(from, to - most), to };
  return { from, to: j === borders.length - 1 ? Math.min(to, from + most) : to };
}

/** Positions that are picked out: the molars are numbered only so that those before them are numbered right. */
export const PICKED = 5;

function teethOf(way: Step, { edge }: RowSight): Map<Fdi, ToothRoom> {
  const teeth = new Map<Fdi, ToothRoom>();
  for (let s: Step | undefined = way; s; s = s.before) {
    if (s.tooth === undefined || s.tooth % 10 > PICKED) continue;
    const [a, b] = [s.from, s.to].map((v) => Math.round((v + HALF_ROW_MM) / BIN_MM)) as [number, number];
    const quarter = Math.round((b - a) / 4);
    let edgeMm = Infinity;
    for (let k = a + quarter; k <= b - quarter; k++) edgeMm = Math.min(edgeMm, edge[k] as number);
    teeth.set(s.tooth, { from: s.from, to: s.to, edgeMm });
  }
  return new Map([...teeth].reverse());
}

/** A stretch without a number is told from so much on, mm: less than the narrowest tooth. */
const TOLD_MM = 3.5;

function unnumberedOf(way: Step, sight: RowSight, borders: readonly Border[]): Stretch[] {
  const steps: Step[] = [];
  for (let s: Step | undefined = way; s?.before; s = s.before) steps.unshift(s);
  const numbered = steps.flatMap((s, i) => (s.tooth !== undefined && s.tooth % 10 <= PICKED ? [i] : []));
  const [first, last] = [numbered[0] ?? 0, numbered.at(-1) ?? -1];
  const baseMm = edgesOf(sight, borders);
  const at = (mm: number) => borders.find((b) => b.alongMm === mm);
  return steps.slice(first, last + 1).flatMap((s) => {
    const [from, to] = [at(s.from), at(s.to)];
    if (s.tooth !== undefined || !from || !to || s.to - s.from < TOLD_MM) return [];
    return edgeOf(sight, from, to) - baseMm > DEEP_MM ? [] : [{ from: s.from, to: s.to }];
  });
}
