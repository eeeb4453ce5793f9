import { type ColumnGrid, gridOver, spans } from '../geometry/columns.js';
import { bounds, type Mesh } from '../geometry/mesh.js';
import { hypot, type Vec3 } from '../geometry/vec.js';
import { columnBody } from './layers.js';
import { COLUMN_MM, type Stretch } from './missing.js';
import type { DirectSettings } from './words.js';

/** What lies so near under the highest place of an edge belongs to its worn face, mm. House value. */
const FACET_MM = 0.5;
/** A smaller island is left as it is, mm². House value. */
const LEAST_ISLAND_MM2 = 0.5;
/** Any wall is at least so thick, or it breaks, mm. Common practice, no source. */
export const TROUGH_WALL_MM = 0.5;

/** One line across a worn edge, mm in the crown's own frame. */
export interface EdgeRow {
  readonly y: number;
  readonly facet: Stretch;
  readonly island?: Stretch;
}

/** The worn edge of a tooth, and the trough that is cut into it. In the crown's own frame, columns along z. */
export interface WornEdge {
  readonly grid: ColumnGrid;
  /** The worn face, mm². */
  readonly facetMm2: number;
  /** Where dentin is taken to lie open: the worn face within its enamel walls, mm². */
  readonly islandMm2: number;
  /** The edge seen from above: at each place from front to back where the worn face goes from and to, and the island in it. */
  readonly rows: readonly EdgeRow[];
  /** The worn face, column by column: how high it lies. */
  readonly facet: ReadonlyMap<number, number>;
  /** Dentin that is cut, column by column, and its volume, mm³. */
  readonly trough: ReadonlyMap<number, Stretch>;
  readonly troughMm3: number;
  /** The thinnest wall at the floor of the trough, mm; nothing where there is none. */
  readonly wallMm?: number;
  /** How thick the edge is there from front to back, mm. */
  readonly edgeMm: number;
  /** Whether somebody has marked the dentin; else it is taken to lie within the walls. */
  readonly marked: boolean;
}

/** Places round an island seen from above, mm in the crown's own frame. */
export type Outline = readonly (readonly [x: number, y: number])[];

/**
 * A worn edge: the face that is worn flat, the dentin within its enamel walls, and a trough into it that keeps these. A
 * scan has no colour that tells dentin from enamel: the island is where the walls leave it.
 * @param tooth closed, in the crown's own frame: z to the root
 * @param marked the dentin where somebody has marked it: all of it is troughed then, whatever walls are left
 */
export function wornEdge(
  tooth: Mesh,
  s: Pick<DirectSettings, 'troughMm' | 'wallMm'>,
  marked?: Outline,
  stepMm = COLUMN_MM,
): WornEdge {
  const box = bounds(tooth);
  const grid = gridOver([box.min[0], box.min[1]], [box.max[0], box.max[1]], stepMm);
  const columns = spans(tooth, [0, 1, 2], grid);
  const top = new Map([...columns].map(([c, own]) => [c, own[0] as number]));
  const edge = [...top.values()].reduce((a, b) => Math.min(a, b), Infinity);
  const floor = edge + s.troughMm;
  const isMarked = (c: number) =>
    marked !== undefined &&
    isInside(grid.a0 + (c % grid.na) * stepMm, grid.b0 + Math.floor(c / grid.na) * stepMm, marked);
  // Dentin is hollowed out, deeper than the worn face around it.
  const facet = [...top].filter(([c, z]) => z < edge + FACET_MM || (isMarked(c) && z < floor)).map(([c]) => c);
  // What of the tooth lies around at the floor of the trough: a wall is what stays of it.
  const around = new Set([...top].filter(([c, z]) => z < floor || isMarked(c)).map(([c]) => c));
  const within = insideOf(around, grid);
  const island = facet.filter((c) =>
    marked ? isMarked(c) && (top.get(c) as number) < floor : (within.get(c) ?? 0) >= s.wallMm,
  );
  const cell = stepMm * stepMm;
  const cuts = island.length * cell >= LEAST_ISLAND_MM2;
  const trough = new Map(
    cuts ? island.map((c): [number, Stretch] => [c, { from: top.get(c) as number, to: floor }]) : [],
  );
  const rim = [...trough.keys()].reduce((a, c) => Math.min(a, within.get(c) as number), Infinity);
  const thick = [
    ...reaches(
      facet,
      (c) => c % grid.na,
      (c) => Math.floor(c / grid.na),
    ).values(),
  ]
    .map(([a, b]) => (b - a + 1) * stepMm)
    .sort((a, b) => a - b);
  const across = (cells: readonly number[]) =>
    reaches(
      cells,
      (c) => Math.floor(c / grid.na),
      (c) => c % grid.na,
    );
  const inner = across([...trough.keys()]);
  const long = ([a, b]: readonly [number, number]): Stretch => ({
    from: grid.a0 + (a - 0.5) * stepMm,
    to: grid.a0 + (b + 0.5) * stepMm,
  });
  const rows = [...across(facet)]
    .sort(([a], [b]) => a - b)
    .map(([j, reach]): EdgeRow => {
      const island = inner.get(j);
      return { y: grid.b0 + j * stepMm, facet: long(reach), ...(island && { island: long(island) }) };
    });
  return {
    grid,
    facetMm2: facet.length * cell,
    facet: new Map(facet.map((c) => [c, top.get(c) as number])),
    islandMm2: island.length * cell,
    rows,
    trough,
    troughMm3: cell * [...trough.values()].reduce((sum, t) => sum + t.to - t.from, 0),
    ...(trough.size > 0 && { wallMm: rim }),
    edgeMm: thick[thick.length >> 1] ?? 0,
    marked: marked !== undefined,
  };
}

/** Whether a place lies within an outline: by how often a line to the side crosses it. */
function isInside(x: number, y: number, outline: Outline): boolean {
  let inside = false;
  outline.forEach(([ax, ay], i) => {
    const [bx, by] = outline[(i + 1) % outline.length] as readonly [number, number];
    if (ay > y !== by > y && x < ax + ((y - ay) * (bx - ax)) / (by - ay)) inside = !inside;
  });
  return inside;
}

/** How far cells reach in one direction at each place of the other. */
function reaches(
  cells: readonly number[],
  at: (c: number) => number,
  along: (c: number) => number,
): Map<number, readonly [number, number]> {
  const out = new Map<number, readonly [number, number]>();
  for (const c of cells) {
    const [k, v] = [at(c), along(c)];
    const own = out.get(k);
    out.set(k, own ? [Math.min(own[0], v), Math.max(own[1], v)] : [v, v]);
  }
  return out;
}

/** What of a set lies between each of its cells and what is outside, mm: the wall that stays where the cell is cut. */
function insideOf(set: ReadonlySet<number>, { na, step }: ColumnGrid): Map<number, number> {
  const rim = [...set].filter((c) => [c - 1, c + 1, c - na, c + na].some((n) => !set.has(n)));
  return new Map(
    [...set].map((c) => {
      const [i, j] = [c % na, Math.floor(c / na)];
      let least = Infinity;
      for (const r of rim) {
        const mm = hypot(i - (r % na), j - Math.floor(r / na));
        if (mm < least) least = mm;
      }
      return [c, least * step];
    }),
  );
}

/** The border of the trough on the worn face: two places a stretch, in the crown's own frame. */
export function troughRim({ trough, grid }: Pick<WornEdge, 'trough' | 'grid'>): Vec3[] {
  const { a0, b0, step, na } = grid;
  const out: Vec3[] = [];
  for (const [c, { from }] of trough) {
    const [x, y] = [a0 + (c % na) * step, b0 + Math.floor(c / na) * step];
    const side = (beside: number, [ax, ay]: readonly [number, number], [bx, by]: readonly [number, number]) => {
      if (trough.has(beside)) return;
      out.push([x + (ax * step) / 2, y + (ay * step) / 2, from], [x + (bx * step) / 2, y + (by * step) / 2, from]);
    };
    side(c - 1, [-1, -1], [-1, 1]);
    side(c + 1, [1, -1], [1, 1]);
    side(c - na, [-1, -1], [1, -1]);
    side(c + na, [-1, 1], [1, 1]);
  }
  return out;
}

/** What fills the trough as a closed body, in the crown's own frame. */
export function troughBody({ trough, grid }: Pick<WornEdge, 'trough' | 'grid'>): Mesh {
  const { positions, triangles } = columnBody(trough, grid, (x, y, z) => [x, y, z]);
  // Columns along z instead of y mirror the body: its triangles are turned back.
  return {
    positions,
    triangles: triangles.map((_, i) => triangles[i - (i % 3) + ([0, 2, 1][i % 3] as number)] as number),
  };
}
