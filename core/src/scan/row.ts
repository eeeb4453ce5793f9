import { quadrantOf } from '../contour/arch.js';
import { bounds, type Mesh } from '../geometry/mesh.js';
import type { Fdi, Jaw } from '../teeth/notation.js';
import { usualSize } from '../teeth/usual-sizes.js';

/** The course of a row of teeth in the plane, in the arch's own frame: a radius about a middle for each direction. */
export interface RowCurve {
  /** The middle lies at x = 0 and this far back, mm. */
  readonly middleY: number;
  /** Along the row from the midline to each direction, mm, and the radius there. */
  readonly alongMm: Float64Array;
  readonly radiusMm: Float64Array;
}

/** A tooth's room in the row, mm along it from the midline, and where its edge stands. */
export interface ToothRoom {
  readonly from: number;
  readonly to: number;
  /** z of its edge or highest cusp. */
  readonly edgeMm: number;
}

/** Directions of the row: from −150° to 150° about the middle, 0 in front. */
const DIRECTIONS = 301;
const SPAN_DEG = 150;

const directionOf = (x: number, y: number, middleY: number): number => (Math.atan2(x, middleY - y) * 180) / Math.PI;

/** Directions about a place's own in which the nearest place of the row is sought. */
const SEEK = 34;
const RAD = Math.PI / 180;
const SINES = Float64Array.from({ length: DIRECTIONS }, (_, i) => Math.sin((i - SPAN_DEG) * RAD));
const COSINES = Float64Array.from({ length: DIRECTIONS }, (_, i) => Math.cos((i - SPAN_DEG) * RAD));

/** Where a place lies on the row: along it from the midline at the nearest place of it, and outside (+) of it. */
export function onRow(row: RowCurve, x: number, y: number): { along: number; out: number } {
  const { radiusMm, alongMm, middleY } = row;
  const at = Math.round(directionOf(x, y, middleY) + SPAN_DEG);
  const [px, py] = [x, middleY - y];
  let best = Infinity;
  let near = 0;
  for (let i = Math.max(0, at - SEEK); i <= Math.min(DIRECTIONS - 1, at + SEEK); i++) {
    const r = radiusMm[i];
    const d = (r * SINES[i] - px) ** 2 + (r * COSINES[i] - py) ** 2;
    if (d >= best) continue;
    best = d;
    near = i;
  }
  // The foot on the chord about the nearest place.
  const [a, b] = [Math.max(0, near - 1), Math.min(DIRECTIONS - 1, near + 1)];
  const [ax, ay] = [radiusMm[a] * SINES[a], radiusMm[a] * COSINES[a]];
  const [ux, uy] = [radiusMm[b] * SINES[b] - ax, radiusMm[b] * COSINES[b] - ay];
  const t = Math.max(0, Math.min(1, ((px - ax) * ux + (py - ay) * uy) / (ux * ux + uy * uy || 1)));
  const out = Math.sqrt(best) * (Math.hypot(px, py) >= radiusMm[Math.max(0, Math.min(DIRECTIONS - 1, at))] ? 1 : -1);
  return { along: alongMm[a] + t * (alongMm[b] - alongMm[a]), out };
}

/** The place in the plane at so much along the row from the midline, mm. */
export function placeOnRow({ alongMm, radiusMm, middleY }: RowCurve, along: number): readonly [number, number] {
  let i = 1;
  while (i < DIRECTIONS - 1 && alongMm[i] < along) i++;
  const [s0, s1] = [alongMm[i - 1], alongMm[i]];
  const t = Math.max(0, Math.min(1, (along - s0) / (s1 - s0 || 1)));
  const at = (k: number): readonly [number, number] => [radiusMm[k] * SINES[k], middleY - radiusMm[k] * COSINES[k]];
  const [a, b] = [at(i - 1), at(i)];
  return [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])];
}

/** Above the plane of the edges up to here everything is tooth, mm: shorter crowns than this are worn stumps. */
const EDGE_BAND_MM = 2.6;

/** Draws the row through the edges: of the scan what lies near their plane. In the arch's own frame. */
export function rowCurve(m: Mesh): RowCurve {
  const p = m.positions;
  const box = bounds(m);
  // Behind the front teeth and between the premolars: two thirds of the depth of the row.
  let back = 0;
  for (let v = 0; v < p.length; v += 3) if (p[v + 2] < EDGE_BAND_MM) back = Math.max(back, p[v + 1]);
  const middleY = Math.min(back, box.max[1]) * 0.72;
  const sums = new Float64Array(DIRECTIONS);
  const counts = new Float64Array(DIRECTIONS);
  const least = new Float64Array(DIRECTIONS).fill(Infinity);
  const bin = (v: number) => Math.round(directionOf(p[v], p[v + 1], middleY) + SPAN_DEG);
  for (let v = 0; v < p.length; v += 3) {
    const b = bin(v);
    if (b >= 0 && b < DIRECTIONS) least[b] = Math.min(least[b], p[v + 2]);
  }
  // The edge of a tooth is the lowest within a few degrees.
  const edge = least.map((_, i) => Math.min(...least.subarray(Math.max(0, i - 4), i + 5)));
  for (let v = 0; v < p.length; v += 3) {
    const b = bin(v);
    if (b < 0 || b >= DIRECTIONS || p[v + 2] > edge[b] + EDGE_BAND_MM || edge[b] > 5) continue;
    sums[b] = sums[b] + Math.hypot(p[v], middleY - p[v + 1]);
    counts[b] = counts[b] + 1;
  }
  const radiusMm = smoothFilled(sums, counts, 9);
  const alongMm = new Float64Array(DIRECTIONS);
  const middle = SPAN_DEG;
  for (const way of [1, -1]) {
    for (let i = middle + way; i >= 0 && i < DIRECTIONS; i += way) {
      const [r0, r1] = [radiusMm[i - way], radiusMm[i]];
      alongMm[i] = alongMm[i - way] + way * Math.hypot(r1 - r0, ((r0 + r1) / 2) * RAD);
    }
  }
  return { middleY, alongMm, radiusMm };
}

/** Means of bins, gaps filled from beside, smoothed over some bins to both sides. */
function smoothFilled(sums: Float64Array, counts: Float64Array, reach: number): Float64Array {
  const n = sums.length;
  const out = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    for (let wide = reach; wide <= n; wide *= 2) {
      let [s, w] = [0, 0];
      for (let k = Math.max(0, i - wide); k <= Math.min(n - 1, i + wide); k++) {
        const share = Math.exp(-(((k - i) / (0.5 * wide)) ** 2));
        s += share * sums[k];
        w += share * counts[k];
      }
      if (w > 1) {
        out[i] = s / w;
        break;
      }
    }
  }
  return out;
}

/** Bins along the row, mm. */
const BIN_MM = 0.25;
const HALF_ROW_MM = 70;
/**
 * A tooth is at least and at most so wide, mm: beyond published extremes of front teeth and premolars with a margin.
 * House limits.
 */
const WIDTH_MM = { least: 3.2, most: 12.5 };
/** How far to the sides of a groove its flanks are looked at, mm. */
const FLANK_MM = 0.9;
/** Flanks turn by at least this much about a groove between two teeth: sum of the sines. House limit. */
const GROOVE = 0.5;
/** Neighbours' edges differ by less than this, mm. House limit. */
const STEP_MM = 3.2;

/**
 * The teeth's rooms in the row: the sides of a tooth look away from it along the row, so between two teeth that look
 * turns over.
 * @returns from the least x on
 */
export function toothRooms(m: Mesh, normals: Float64Array, row: RowCurve): ToothRoom[] {
  const n = Math.ceil((2 * HALF_ROW_MM) / BIN_MM);
  const p = m.positions;
  const looks = [new Float64Array(n), new Float64Array(n)] as const;
  const counts = [new Float64Array(n), new Float64Array(n)] as const;
  const edge = new Float64Array(n).fill(Infinity);
  const bin = (along: number) => Math.round((along + HALF_ROW_MM) / BIN_MM);
  for (let v = 0; v < p.length; v += 3) {
    const place = onRow(row, p[v], p[v + 1]);
    if (Math.abs(place.out) > 7) continue;
    const b = bin(place.along);
    if (b >= 0 && b < n) edge[b] = Math.min(edge[b], p[v + 2]);
  }
  const reach = Math.round(3 / BIN_MM);
  const near = edge.map((_, i) => Math.min(...edge.subarray(Math.max(0, i - reach), i + reach + 1)));
  for (let v = 0; v < p.length; v += 3) {
    const [x, y] = [p[v], p[v + 1]];
    const place = onRow(row, x, y);
    const b = bin(place.along);
    if (Math.abs(place.out) > 7 || b < 0 || b >= n) continue;
    const up = p[v + 2] - near[b];
    if (up < 0.8 || up > 5.5) continue;
    // The direction along the row, to greater x in front.
    const r = Math.hypot(x, row.middleY - y) || 1;
    const look = (normals[v] * (row.middleY - y) + normals[v + 1] * x) / r;
    const side = place.out > 0 ? 0 : 1;
    looks[side][b] = looks[side][b] + look;
    counts[side][b] = counts[side][b] + 1;
  }
  const groove = new Float64Array(n);
  const flank = Math.round(FLANK_MM / BIN_MM);
  for (const side of [0, 1] as const) {
    for (let i = flank; i < n - flank; i++) {
      const mean = (from: number, to: number) => {
        let [s, w] = [0, 0];
        for (let k = from; k <= to; k++) {
          s += looks[side][k];
          w += counts[side][k];
        }
        return w > 3 ? s / w : 0;
      };
      // A facial groove is plainer than a palatal one.
      groove[i] = groove[i] + (side === 0 ? 0.65 : 0.35) * Math.max(0, mean(i - flank, i - 1) - mean(i + 1, i + flank));
    }
  }
  const standing = (i: number) => near[i] < 6.5;
  const grooves: number[] = [];
  const span = Math.round(1.6 / BIN_MM);
  for (let i = 0; i < n; i++) {
    const g = groove[i];
    if (g < GROOVE || !standing(i)) continue;
    if (
      [...groove.subarray(Math.max(0, i - span), i + span + 1)].some(
        (other, k) => other > g || (other === g && k < span && i - span + k < i),
      )
    )
      continue;
    grooves.push(i);
  }
  const first = near.findIndex((_, i) => standing(i) && edge[i] < 8);
  let last = n - 1;
  while (last > 0 && !(standing(last) && edge[last] < 8)) last--;
  const borders = [first, ...grooves.filter((g) => g > first + 8 && g < last - 8), last];
  const places: ToothRoom[] = [];
  for (let k = 1; k < borders.length; k++) {
    const [from, to] = [borders[k - 1], borders[k]];
    const [a, b] = [from * BIN_MM - HALF_ROW_MM, to * BIN_MM - HALF_ROW_MM];
    if (b - a < WIDTH_MM.least || b - a > WIDTH_MM.most) continue;
    const third = Math.round((to - from) / 4);
    const own = [...edge.subarray(from + third, to - third + 1)].filter(Number.isFinite);
    if (own.length > 0 && Math.min(...own) < 6.5) places.push({ from: a, to: b, edgeMm: Math.min(...own) });
  }
  // A swelling of the gum behind the last tooth is no tooth: it stands far from the plane of the others.
  for (const beside of [1, -2] as const) {
    const [end, inner] = beside === 1 ? [places[0], places[1]] : [places.at(-1), places.at(-2)];
    if (end && inner && end.edgeMm > inner.edgeMm + STEP_MM) places.splice(beside === 1 ? 0 : places.length - 1, 1);
  }
  // Behind the last tooth of a scan its gum runs on: it takes as much room as its fellow beside it.
  const [one, two] = [places[0], places[1]];
  if (one && two) places[0] = { ...one, from: Math.max(one.from, one.to - 1.1 * (two.to - two.from)) };
  const [last1, last2] = [places.at(-1), places.at(-2)];
  if (last1 && last2)
    places[places.length - 1] = { ...last1, to: Math.min(last1.to, last1.from + 1.1 * (last2.to - last2.from)) };
  return places;
}

/** How far the widths of one kind of tooth differ, mm. House value after the published means of core's norms. */
const DIFFER_MM = 0.65;
/**
 * How much less likely a row is for each tooth that it lacks: the square of so many times the difference. House value.
 */
const LACKING = 6;

/**
 * Teeth are numbered from the midline outward. Those known to be missing are passed over; where the widths speak for it
 * another is taken to be missing too, and whoever knows the mouth looks at it.
 */
export function numbered(
  places: readonly ToothRoom[],
  jaw: Jaw,
  missing: ReadonlySet<Fdi> = new Set(),
): Map<Fdi, ToothRoom> {
  // The border nearest to the midline is that between the centrals. Where teeth are known to be missing, the others may
  // have moved over it: then the border is taken from which the widths fit best.
  const borders = places.flatMap((p) => [p.from, p.to]).sort((p, q) => Math.abs(p) - Math.abs(q));
  const gone = [...missing].some(
    (t) => t > quadrantOf(jaw, 'right') && t <= quadrantOf(jaw, 'left') + 5 && t % 10 <= 5,
  );
  const middles = gone ? borders.filter((s) => Math.abs(s) < MOVED_MM) : borders.slice(0, 1);
  let best: { cost: number; teeth: Map<Fdi, ToothRoom> } = { cost: Infinity, teeth: new Map() };
  for (const middle of middles) {
    const own = numberedFrom(places, middle, jaw, missing);
    const cost = own.cost + (middle / ASIDE_MM) ** 2;
    if (cost < best.cost) best = { cost, teeth: own.teeth };
  }
  return best.teeth;
}

/**
 * Teeth that lack a neighbour move over the midline by less than this, and seldom by more than that, mm. House values.
 */
const MOVED_MM = 7;
const ASIDE_MM = 2;
/** A room that gets no number costs so much. House value. */
const LEFT_OUT = 8;

/** Numbers outward from a border between two centrals, and how unlikely they are. */
function numberedFrom(
  places: readonly ToothRoom[],
  middle: number,
  jaw: Jaw,
  missing: ReadonlySet<Fdi>,
): { cost: number; teeth: Map<Fdi, ToothRoom> } {
  const teeth = new Map<Fdi, ToothRoom>();
  let sum = 0;
  for (const side of ['right', 'left'] as const) {
    const onSide = places.filter((p) => (p.from + p.to) / 2 < middle === (side === 'right'));
    const row = side === 'right' ? onSide.reverse() : onSide;
    const there = [1, 2, 3, 4, 5].filter((position) => !missing.has(quadrantOf(jaw, side) + position));
    const { cost, of } = positionsOf(
      row,
      there.map((position) => usualSize(quadrantOf(jaw, side) + position).widthMm),
    );
    sum += cost;
    row.forEach((p, i) => {
      const position = there[(of[i] ?? 0) - 1];
      if (position !== undefined) teeth.set(quadrantOf(jaw, side) + position, p);
      else sum += LEFT_OUT;
    });
  }
  return { cost: sum, teeth };
}

/**
 * The likeliest places, from 1 rising, of the teeth of a side among those that are usual; those behind the last get
 * none.
 */
function positionsOf(
  row: readonly ToothRoom[],
  usual: readonly number[],
): { cost: number; of: readonly (number | undefined)[] } {
  let best: { cost: number; of: (number | undefined)[] } = { cost: Infinity, of: [] };
  const walk = (i: number, next: number, cost: number, of: (number | undefined)[]) => {
    if (cost >= best.cost) return;
    if (i === row.length) {
      best = { cost, of };
      return;
    }
    if (next > usual.length) return walk(i + 1, next, cost, [...of, undefined]);
    const p = row[i] as ToothRoom;
    for (let position = next; position <= Math.min(usual.length, next + 1); position++) {
      // The last room's end is only guessed.
      const off = i === row.length - 1 ? 0 : (p.to - p.from - usual[position - 1]) / DIFFER_MM;
      walk(i + 1, position + 1, cost + off * off + LACKING * (position - next), [...of, position]);
    }
  };
  walk(0, 1, 0, []);
  return best;
}
