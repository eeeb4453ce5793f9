import { bounds, type Mesh } from '../geometry/mesh.js';
import { solve } from '../geometry/solve.js';
import { hypot } from '../geometry/vec.js';

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

/** Of every how manyth direction between two, the one in which the row comes nearest to a place. */
function nearestDirection(
  radiusMm: Float64Array,
  px: number,
  py: number,
  from: number,
  to: number,
  step: number,
): number {
  const end = Math.min(DIRECTIONS - 1, to);
  let best = Infinity;
  let near = 0;
  for (let i = Math.max(0, from); i <= end; i += step) {
    const across = radiusMm[i] * SINES[i] - px;
    const along = radiusMm[i] * COSINES[i] - py;
    const d = across * across + along * along;
    if (d >= best) continue;
    best = d;
    near = i;
  }
  return near;
}

/** Where a place lies on the row: along it from the midline at the nearest place of it, and outside (+) of it. */
export function onRow(row: RowCurve, x: number, y: number): { along: number; out: number } {
  const { radiusMm, alongMm, middleY } = row;
  const at = Math.round(directionOf(x, y, middleY) + SPAN_DEG);
  const px = x;
  const py = middleY - y;
  // The row is smooth: what is nearest at every fourth direction is nearest about there.
  const about = nearestDirection(radiusMm, px, py, at - SEEK, at + SEEK, 4);
  const near = nearestDirection(radiusMm, px, py, about - 3, about + 3, 1);
  const best = (radiusMm[near] * SINES[near] - px) ** 2 + (radiusMm[near] * COSINES[near] - py) ** 2;
  // The foot on the chord about the nearest place.
  const a = Math.max(0, near - 1);
  const b = Math.min(DIRECTIONS - 1, near + 1);
  const ax = radiusMm[a] * SINES[a];
  const ay = radiusMm[a] * COSINES[a];
  const ux = radiusMm[b] * SINES[b] - ax;
  const uy = radiusMm[b] * COSINES[b] - ay;
  const t = Math.max(0, Math.min(1, ((px - ax) * ux + (py - ay) * uy) / (ux * ux + uy * uy || 1)));
  const out = Math.sqrt(best) * (hypot(px, py) >= radiusMm[Math.max(0, Math.min(DIRECTIONS - 1, at))] ? 1 : -1);
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

/** So many vertices tell the row; of a finer scan every second or third of them tells no less. House value. */
const ENOUGH = 120_000;
const stride = (m: Mesh): number => 3 * Math.max(1, Math.floor(m.positions.length / 3 / ENOUGH));

/** Above the plane of the edges up to here everything is tooth, mm: shorter crowns than this are worn stumps. */
const EDGE_BAND_MM = 2.6;

/** Draws the row through the edges: of the scan what lies near their plane. In the arch's own frame. */
export function rowCurve(m: Mesh): RowCurve {
  const p = m.positions;
  const step = stride(m);
  const box = bounds(m);
  // Behind the front teeth and between the premolars: two thirds of the depth of the row.
  let back = 0;
  for (let v = 0; v < p.length; v += step) if (p[v + 2] < EDGE_BAND_MM) back = Math.max(back, p[v + 1]);
  const middleY = Math.min(back, box.max[1]) * 0.72;
  const sums = new Float64Array(DIRECTIONS);
  const counts = new Float64Array(DIRECTIONS);
  const least = new Float64Array(DIRECTIONS).fill(Infinity);
  const bin = (v: number) => Math.round(directionOf(p[v], p[v + 1], middleY) + SPAN_DEG);
  for (let v = 0; v < p.length; v += step) {
    const b = bin(v);
    if (b >= 0 && b < DIRECTIONS) least[b] = Math.min(least[b], p[v + 2]);
  }
  // The edge of a tooth is the lowest within a few degrees.
  const edge = least.map((_, i) => Math.min(...least.subarray(Math.max(0, i - 4), i + 5)));
  const seen: [number, number][] = [];
  for (let v = 0; v < p.length; v += step) {
    const b = bin(v);
    if (b < 0 || b >= DIRECTIONS || p[v + 2] > edge[b] + EDGE_BAND_MM || edge[b] > 5) continue;
    seen.push([b, hypot(p[v], middleY - p[v + 1])]);
  }
  // A tongue within the row and a cheek beside it stand as high as teeth, but in no arch with them.
  const arch = archOf(seen);
  for (const [b, r] of seen) {
    if (Math.abs(r - arch[b]) > IN_ROW_MM) continue;
    sums[b] = sums[b] + r;
    counts[b] = counts[b] + 1;
  }
  const radiusMm = smoothFilled(sums, counts, 9);
  const alongMm = new Float64Array(DIRECTIONS);
  const middle = SPAN_DEG;
  for (const way of [1, -1]) {
    for (let i = middle + way; i >= 0 && i < DIRECTIONS; i += way) {
      const [r0, r1] = [radiusMm[i - way], radiusMm[i]];
      alongMm[i] = alongMm[i - way] + way * hypot(r1 - r0, ((r0 + r1) / 2) * RAD);
    }
  }
  return { middleY, alongMm, radiusMm };
}

/** Teeth stand so near to the arch that most of them make, mm. House value. */
const IN_ROW_MM = 6.5;
/** Rounds in which what lies further off weighs less. */
const ARCH_ROUNDS = 6;
/** Samples that the arch is laid through. */
const ARCH_SAMPLES = 6000;

/** A smooth arch through most of what stands: a radius for each direction, by a few waves and Tukey's weights. */
function archOf(seen: readonly (readonly [number, number])[]): Float64Array {
  const waves = (b: number): number[] => {
    const t = (b - SPAN_DEG) * RAD;
    return [1, Math.cos(t), Math.cos(2 * t), Math.cos(3 * t), Math.sin(t), Math.sin(2 * t)];
  };
  const own = Array.from({ length: DIRECTIONS }, (_, b) => waves(b));
  const every = Math.max(1, Math.floor(seen.length / ARCH_SAMPLES));
  const some = seen.filter((_, i) => i % every === 0);
  let radius = new Float64Array(DIRECTIONS).fill(Infinity);
  for (let round = 0; round < ARCH_ROUNDS; round++) {
    const ata = Array.from({ length: 6 }, (_, i) => Array.from({ length: 6 }, (_, j) => (i === j ? 1e-3 : 0)));
    const atb = new Array<number>(6).fill(0);
    // The first round takes all alike; the reach is drawn in after it.
    const reach = Math.max(IN_ROW_MM, 16 - 3 * round);
    for (const [b, r] of some) {
      const off = round === 0 ? 0 : (r - radius[b]) / reach;
      if (Math.abs(off) >= 1) continue;
      const w = (1 - off * off) ** 2;
      const row = own[b] as number[];
      for (let i = 0; i < 6; i++) {
        atb[i] = (atb[i] as number) + w * (row[i] as number) * r;
        for (let j = 0; j < 6; j++)
          (ata[i] as number[])[j] = ((ata[i] as number[])[j] as number) + w * (row[i] as number) * (row[j] as number);
      }
    }
    const x = solve(ata, atb);
    radius = Float64Array.from(own, (row) => row.reduce((n, v, i) => n + v * (x[i] as number), 0));
  }
  return radius;
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
export const BIN_MM = 0.25;
export const HALF_ROW_MM = 70;
/** How far to the sides of a groove its flanks are looked at, mm. */
const FLANK_MM = 0.9;
/** The row as it is seen from along it, in bins from −HALF_ROW_MM on. */
export interface RowSight {
  /** How much the flanks turn over about each place: sum of the sines, a facial groove counting more. */
  readonly groove: Float64Array;
  /** z of the lowest place of each bin, and of all within 3 mm. */
  readonly edge: Float64Array;
  readonly near: Float64Array;
}

/**
 * The sides of a tooth look away from it along the row, so between two teeth that look turns over: how much it does at
 * each place.
 */
export function rowSight(m: Mesh, normals: Float64Array, row: RowCurve): RowSight {
  const n = Math.ceil((2 * HALF_ROW_MM) / BIN_MM);
  const p = m.positions;
  const step = stride(m);
  const looks = [new Float64Array(n), new Float64Array(n)] as const;
  const counts = [new Float64Array(n), new Float64Array(n)] as const;
  const edge = new Float64Array(n).fill(Infinity);
  const bin = (along: number) => Math.round((along + HALF_ROW_MM) / BIN_MM);
  /** Of each vertex: its bin, and which side of the row it lies on; below 0 what is no part of the row. */
  const bins = new Int32Array(p.length / 3).fill(-1);
  const inside = new Uint8Array(bins.length);
  for (let v = 0; v < p.length; v += step) {
    const place = onRow(row, p[v], p[v + 1]);
    if (Math.abs(place.out) > 7) continue;
    const b = bin(place.along);
    if (b < 0 || b >= n) continue;
    edge[b] = Math.min(edge[b], p[v + 2]);
    bins[v / 3] = b;
    inside[v / 3] = place.out > 0 ? 0 : 1;
  }
  const reach = Math.round(3 / BIN_MM);
  const near = edge.map((_, i) => Math.min(...edge.subarray(Math.max(0, i - reach), i + reach + 1)));
  for (let v = 0; v < p.length; v += step) {
    const x = p[v];
    const y = p[v + 1];
    const b = bins[v / 3];
    if (b < 0) continue;
    const up = p[v + 2] - near[b];
    if (up < 0.8 || up > 5.5) continue;
    // The direction along the row, to greater x in front.
    const r = hypot(x, row.middleY - y) || 1;
    const look = (normals[v] * (row.middleY - y) + normals[v + 1] * x) / r;
    const side = inside[v / 3] as 0 | 1;
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
  return { groove, edge, near };
}
