import { Refusal } from '../../errors.js';
import { type Mesh, mergeMeshes } from '../../geometry/mesh.js';
import { buildTree } from '../../geometry/tree/build.js';
import { rayCaster } from '../../geometry/tree/ray.js';

/** How a facial index is made, mm. Thickness: common practice, no source; the rest are house values. */
export const INDEX = {
  /** Of its wall, straight to the front. */
  thicknessMm: 5,
  /** Between it and the planned surface, so that it seats. */
  reliefMm: 0.1,
  /** How far it goes up over the gum line, where nothing is cut. */
  overGumMm: 2,
  /** Between its lower border and the edges. */
  shortOfEdgeMm: 0.2,
  stepMm: 0.35,
} as const;
/** Where the row turns more than so much from the front the index ends: the tangent of 62°. */
const STEEPEST = 1.9;
/** Slit between two leaves, mm, and how wide the spine is that holds them at the patient's left end. House values. */
export const LEAVES = { slitMm: 0.6, spineMm: 6 } as const;
const FAR_MM = 80;

/** A tooth of the row as the index needs it; heights and places in the arch's own frame, mm. */
export interface IndexTooth {
  readonly mesh: Mesh;
  readonly middleX: number;
  readonly widthMm: number;
  readonly edgeZ: number;
  /** Where its edge stands from front to back. */
  readonly edgeY: number;
  readonly zenithZ: number;
  /** It is planned; what stays is what the index seats on. */
  readonly planned: boolean;
}

/** Which part of the height is covered: all, or one third of each planned tooth. */
export type IndexPart = 'whole' | 'incisal' | 'middle' | 'cervical';

/** What an index is cut from: every surface in front, as columns seen from the front. */
export interface IndexGround {
  readonly xs: readonly number[];
  /** Which teeth it seats on, right and left of the planned ones. */
  readonly seats: number;
  readonly surface: (x: number, z: number) => number | undefined;
  /** The lowest place over a point, seen from below the edges. */
  readonly below: (x: number, y: number) => number | undefined;
  readonly edge: (x: number) => number;
  readonly edgeY: (x: number) => number;
  readonly zenith: (x: number) => number;
}

/**
 * Looks at a row from the front.
 * @param row side by side, from the arch's right to its left
 * @param gum what stays above the teeth
 * @throws Refusal `tooth-missing` where no planned tooth faces the front
 */
export function indexGround(row: readonly IndexTooth[], gum: Mesh): IndexGround {
  const cast = rayCaster(buildTree(mergeMeshes([...row.map((t) => t.mesh), gum])));
  const surface = (x: number, z: number): number | undefined => {
    const hit = cast.first([x, -FAR_MM, z], [0, 1, 0], 2 * FAR_MM);
    return hit && hit.distance - FAR_MM;
  };
  const below = (x: number, y: number): number | undefined => {
    const hit = cast.first([x, y, -FAR_MM], [0, 0, 1], 2 * FAR_MM);
    return hit && hit.distance - FAR_MM;
  };
  const over = (of: (t: IndexTooth) => number) => (x: number) => {
    // Straight between the middles of the teeth: no step at a contact.
    const at = row.findIndex((t) => t.middleX >= x);
    if (at < 0) return of(row.at(-1) as IndexTooth);
    if (at === 0) return of(row[0] as IndexTooth);
    const [p, q] = [row[at - 1], row[at]] as [IndexTooth, IndexTooth];
    return of(p) + ((of(q) - of(p)) * (x - p.middleX)) / (q.middleX - p.middleX || 1);
  };
  const [edge, zenith, edgeY] = [over((t) => t.edgeZ), over((t) => t.zenithZ), over((t) => t.edgeY)];
  const planned = row.filter((t) => t.planned);
  if (planned.length === 0) throw new Refusal('tooth-missing', 'No tooth is planned, so there is no index.', 0);
  const reach = (t: IndexTooth, side: 1 | -1) => t.middleX + (side * t.widthMm) / 2;
  const [least, most] = [
    Math.min(...row.map((t) => reach(t, -1))) + 0.5,
    Math.max(...row.map((t) => reach(t, 1))) - 0.5,
  ];
  const slope = (x: number) => {
    const z = (edge(x) + zenith(x)) / 2;
    const [a, b] = [surface(x - 1, z), surface(x + 1, z)];
    return a === undefined || b === undefined ? Infinity : Math.abs(b - a) / 2;
  };
  const middle = (Math.min(...planned.map((t) => t.middleX)) + Math.max(...planned.map((t) => t.middleX))) / 2;
  const until = (step: 1 | -1, end: number) => {
    let x = middle;
    let steep = 0;
    while (step * (end - x) > 0) {
      x += step * INDEX.stepMm;
      // Embrasures are steep for a moment; the row itself for longer.
      steep = slope(x) > STEEPEST ? steep + 1 : 0;
      if (steep * INDEX.stepMm > 2) return x - step * 2;
    }
    return end;
  };
  const [from, to] = [until(-1, least), until(1, most)];
  const count = Math.max(2, Math.round((to - from) / INDEX.stepMm));
  return {
    xs: Array.from({ length: count + 1 }, (_, i) => from + ((to - from) * i) / count),
    seats: row.filter((t) => !t.planned && t.middleX > from && t.middleX < to).length,
    surface,
    below,
    edge,
    edgeY,
    zenith,
  };
}

/**
 * A wall in front of the row, closed, in the arch's own frame: its back follows the planned contour and the teeth that
 * stay, its front is smooth. It is put on straight from the front, so that nothing can hang over.
 * @param part of the height; `xs` of the ground, or a stretch of them
 */
export function indexWall(ground: IndexGround, part: IndexPart = 'whole', xs: readonly number[] = ground.xs): Mesh {
  const { thicknessMm, reliefMm, stepMm } = INDEX;
  const heights = xs.map((x) => span(ground, part, x));
  const rows = Math.max(3, Math.round(Math.max(...heights.map(([a, b]) => b - a)) / stepMm));
  const at = (i: number, j: number) => i * (rows + 1) + j;
  const z = (i: number, j: number) => {
    const [low, high] = heights[i] as readonly [number, number];
    return low + ((high - low) * j) / rows;
  };
  const seen = Float64Array.from({ length: xs.length * (rows + 1) }, (_, v) => {
    const [i, j] = [Math.floor(v / (rows + 1)), v % (rows + 1)];
    return ground.surface(xs[i] as number, z(i, j)) ?? Number.NaN;
  });
  const met = filled(seen, xs.length, rows + 1).map((y) => y - reliefMm);
  const back = rolled(met, xs.length, rows + 1);
  const front = smoothed(back, xs.length, rows + 1).map((y, v) => Math.min(y, back[v] as number) - thicknessMm);
  const positions = new Float64Array(6 * back.length);
  for (let i = 0; i < xs.length; i++)
    for (let j = 0; j <= rows; j++) {
      const v = at(i, j);
      positions.set([xs[i] as number, back[v] as number, z(i, j)], 3 * v);
      positions.set([xs[i] as number, front[v] as number, z(i, j)], 3 * (back.length + v));
    }
  return { positions, triangles: closedGrid(xs.length, rows + 1) };
}

/** How an edge strip is made, mm: how far it reaches to the front and the back of the edges, and up beside them. */
export const STRIP = { frontMm: 1.5, backMm: 3, besideMm: 1.5 } as const;

/**
 * A strip under the edges, closed, in the arch's own frame: its top follows the planned edges and those that stay, put on
 * straight from below. What lies between it and a preparation is what the edge was cut by.
 */
export function edgeStrip(ground: IndexGround): Mesh {
  const { thicknessMm, reliefMm, stepMm } = INDEX;
  const { xs } = ground;
  const rows = Math.round((STRIP.frontMm + STRIP.backMm) / stepMm);
  // From back to front, so that the sheet below is wound outward.
  const y = (i: number, j: number) =>
    ground.edgeY(xs[i] as number) + STRIP.backMm - ((STRIP.frontMm + STRIP.backMm) * j) / rows;
  const seen = Float64Array.from({ length: xs.length * (rows + 1) }, (_, v) => {
    const [i, j] = [Math.floor(v / (rows + 1)), v % (rows + 1)];
    const z = ground.below(xs[i] as number, y(i, j));
    const edge = ground.edge(xs[i] as number);
    // Beside the edges it goes up a little and no further: it is no wall.
    return z === undefined ? Number.NaN : Math.min(z, edge + STRIP.besideMm);
  });
  const top = rolled(
    filled(seen, xs.length, rows + 1).map((z) => z - reliefMm),
    xs.length,
    rows + 1,
  );
  const bottom = smoothed(top, xs.length, rows + 1).map((z, v) => Math.min(z, top[v] as number) - thicknessMm);
  const positions = new Float64Array(6 * top.length);
  for (let v = 0; v < top.length; v++) {
    const [i, j] = [Math.floor(v / (rows + 1)), v % (rows + 1)];
    positions.set([xs[i] as number, y(i, j), top[v] as number], 3 * v);
    positions.set([xs[i] as number, y(i, j), bottom[v] as number], 3 * (top.length + v));
  }
  return { positions, triangles: closedGrid(xs.length, rows + 1) };
}

/** How wide a sagittal slice is, mm. House value. */
export const SLICE_MM = 2;

/** A slice of an index through the middle of a tooth, to be held against its face by itself. */
export function sagittalSlice(ground: IndexGround, middleX: number): Mesh {
  const { stepMm } = INDEX;
  const count = Math.round(SLICE_MM / stepMm);
  const xs = Array.from({ length: count + 1 }, (_, i) => middleX - SLICE_MM / 2 + (SLICE_MM * i) / count);
  return indexWall(ground, 'whole', xs);
}

function span({ edge, zenith }: IndexGround, part: IndexPart, x: number): readonly [number, number] {
  const [e, z] = [edge(x), zenith(x)];
  const low = e + INDEX.shortOfEdgeMm;
  const high = z + INDEX.overGumMm;
  const third = (z - e) / 3;
  const slit = LEAVES.slitMm / 2;
  if (part === 'incisal') return [low, e + third - slit];
  if (part === 'middle') return [e + third + slit, e + 2 * third - slit];
  return part === 'cervical' ? [e + 2 * third + slit, high] : [low, high];
}

/** Places at which nothing was met take the middle of those around that have something. */
function filled(seen: Float64Array, columns: number, rows: number): Float64Array {
  const out = Float64Array.from(seen);
  for (let round = 0; out.some(Number.isNaN); round++) {
    if (round > columns + rows) throw new Refusal('tooth-missing', 'Nothing stands where the index would be.', 0);
    const before = Float64Array.from(out);
    for (let v = 0; v < out.length; v++) {
      if (!Number.isNaN(before[v] as number)) continue;
      const [i, j] = [Math.floor(v / rows), v % rows];
      const near = [
        i > 0 ? before[v - rows] : Number.NaN,
        i + 1 < columns ? before[v + rows] : Number.NaN,
        j > 0 ? before[v - 1] : Number.NaN,
        j + 1 < rows ? before[v + 1] : Number.NaN,
      ].filter((y): y is number => y !== undefined && !Number.isNaN(y));
      if (near.length > 0) out[v] = near.reduce((a, b) => a + b, 0) / near.length;
    }
  }
  return out;
}

/** No part of a guide is narrower than twice this where it goes in between two teeth, mm: it would break. House value. */
const FIN_MM = 1.4;

/**
 * A sheet as far as a ball of FIN_MM reaches that is rolled over it from outside: what goes into narrow embrasures is left
 * out, everything else stays.
 */
function rolled(sheet: Float64Array, columns: number, rows: number): Float64Array {
  const reach = Math.ceil(FIN_MM / INDEX.stepMm);
  const round = Array.from({ length: 2 * reach + 1 }, (_, i) =>
    Math.sqrt(Math.max(0, FIN_MM ** 2 - ((i - reach) * INDEX.stepMm) ** 2)),
  );
  const along = (y: Float64Array, step: number, at: (v: number) => number, count: number) => {
    const pass = (of: Float64Array, pick: (a: number, b: number) => number, sign: 1 | -1) =>
      Float64Array.from(of, (_, v) => {
        let best = sign * -Infinity;
        for (let d = -reach; d <= reach; d++) {
          const to = at(v) + d;
          if (to < 0 || to >= count || Math.abs(d * INDEX.stepMm) > FIN_MM) continue;
          best = pick(best, (of[v + d * step] as number) + sign * (round[d + reach] as number));
        }
        return best;
      });
    // Where the ball's middle may be, and from there how far it reaches.
    const middle = pass(y, Math.min, -1);
    return pass(middle, Math.max, 1);
  };
  const across = along(sheet, rows, (v) => Math.floor(v / rows), columns);
  return along(across, 1, (v) => v % rows, rows);
}

/** So often each place takes the mean of those about it. */
const SMOOTH_ROUNDS = 24;

function smoothed(y: Float64Array, columns: number, rows: number): Float64Array {
  let out = Float64Array.from(y);
  for (let round = 0; round < SMOOTH_ROUNDS; round++) {
    const before = out;
    out = Float64Array.from(before, (own, v) => {
      const [i, j] = [Math.floor(v / rows), v % rows];
      const near = [
        v - (i > 0 ? rows : 0),
        v + (i + 1 < columns ? rows : 0),
        v - (j > 0 ? 1 : 0),
        v + (j + 1 < rows ? 1 : 0),
      ];
      return (own + near.reduce((sum, n) => sum + (before[n] as number), 0)) / 5;
    });
  }
  return out;
}

/** Two sheets of the same grid and the rim between them, wound outward: the first sheet is the back. */
function closedGrid(columns: number, rows: number): Uint32Array {
  const count = columns * rows;
  const out: number[] = [];
  const v = (i: number, j: number) => i * rows + j;
  for (let i = 0; i + 1 < columns; i++)
    for (let j = 0; j + 1 < rows; j++) {
      const [a, b, c, d] = [v(i, j), v(i + 1, j), v(i + 1, j + 1), v(i, j + 1)];
      out.push(a, d, c, a, c, b);
      out.push(count + a, count + c, count + d, count + a, count + b, count + c);
    }
  const rim = [
    ...Array.from({ length: columns - 1 }, (_, i) => [v(i, 0), v(i + 1, 0)]),
    ...Array.from({ length: rows - 1 }, (_, j) => [v(columns - 1, j), v(columns - 1, j + 1)]),
    ...Array.from({ length: columns - 1 }, (_, i) => [v(columns - 1 - i, rows - 1), v(columns - 2 - i, rows - 1)]),
    ...Array.from({ length: rows - 1 }, (_, j) => [v(0, rows - 1 - j), v(0, rows - 2 - j)]),
  ] as [number, number][];
  for (const [p, q] of rim) out.push(p, q, count + q, p, count + q, count + p);
  return Uint32Array.from(out);
}
