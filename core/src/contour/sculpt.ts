import { Refusal } from '../errors.js';
import { type Mesh, triangleNormal, vertexNormals } from '../geometry/mesh.js';
import { buildTree } from '../geometry/tree/build.js';
import { rayCaster } from '../geometry/tree/ray.js';
import { add, dot, normalize, scale, type Vec3 } from '../geometry/vec.js';
import type { Crown } from './crown.js';

/**
 * One stroke of the brush over a crown. It is kept as the numbers of the vertices that it passed over, so that it stays
 * on its place when the crown is made longer or wider afterwards, and a hundred strokes are some kilobytes.
 */
export interface Stroke {
  readonly tool: 'add' | 'remove' | 'smooth';
  /** Where the brush's effect has faded to nothing. */
  readonly radiusMm: number;
  /** Height or depth under the middle of the brush; of `smooth` the share of the unevenness taken away. */
  readonly amount: number;
  /** Vertices of the crown's mesh under the brush's middle, in the order of the stroke. */
  readonly at: readonly number[];
}

export const BRUSH_LIMITS = {
  radiusMm: { min: 0.3, max: 4 },
  /** mm for add and remove. */
  amount: { min: 0.01, max: 1 },
  /** Places of one stroke, and strokes on one tooth. */
  places: 400,
  strokes: 200,
} as const;

/** The crown with strokes on it. */
export function sculpted(base: Crown, strokes: readonly Stroke[] | undefined): Crown {
  if (!strokes?.length) return base;
  return { ...base, mesh: moved(base.mesh, displacement(base.mesh, vertexNormals(base.mesh), strokes)) };
}

/**
 * Sculpts one crown again and again while a stroke is drawn on it: what all strokes but the last come to is kept, so
 * that each move of the brush costs that one stroke.
 */
export class Sculptor {
  private key = '';
  private normals: Float64Array = new Float64Array();
  private before: Float64Array = new Float64Array();

  /** The same as `sculpted`. */
  readonly sculpt = (base: Crown, strokes: readonly Stroke[] | undefined): Crown => {
    const last = strokes?.at(-1);
    if (!strokes || !last) return base;
    const key = JSON.stringify([base.tooth, base.size, strokes.slice(0, -1)]);
    if (key !== this.key) {
      this.key = key;
      this.normals = vertexNormals(base.mesh);
      this.before = displacement(base.mesh, this.normals, strokes.slice(0, -1));
    }
    const by = this.before.slice();
    addStroke(base.mesh, this.normals, by, last);
    return { ...base, mesh: moved(base.mesh, by) };
  };
}

function moved(mesh: Mesh, by: Float64Array): Mesh {
  return { positions: mesh.positions.map((x, i) => x + by[i]), triangles: mesh.triangles };
}

/** How far the strokes move each vertex from the unsculpted surface, [x, y, z, …] mm. */
function displacement(mesh: Mesh, normals: Float64Array, strokes: readonly Stroke[]): Float64Array {
  const by = new Float64Array(mesh.positions.length);
  for (const s of strokes) addStroke(mesh, normals, by, s);
  return by;
}

function addStroke(mesh: Mesh, normals: Float64Array, by: Float64Array, s: Stroke): void {
  const under = underBrush(mesh, normals, s);
  if (s.tool === 'smooth') {
    smooth(mesh, normals, by, under, s.amount);
    return;
  }
  const amount = s.tool === 'add' ? s.amount : -s.amount;
  for (const [v, { weight, way }] of under)
    for (let i = 0; i < 3; i++) by[3 * v + i] = by[3 * v + i] + amount * weight * way[i as 0];
}

/** A vertex under the brush: its weight, 1 in the middle, and the direction in which the brush works there. */
interface Under {
  readonly weight: number;
  readonly way: Vec3;
}

/**
 * Vertices under a stroke. Along the stroke the greatest weight counts, so that a slow hand does not dig. The brush
 * works along the mean normal of what lies under it, so that a sharp edge is carried and not folded; a vertex that
 * faces away from it (the other side of a thin edge) is left alone.
 */
function underBrush(mesh: Mesh, normals: Float64Array, s: Stroke): Map<number, Under> {
  const p = mesh.positions;
  const r2 = s.radiusMm * s.radiusMm;
  const places = [...new Set(s.at)];
  const near = nearStroke(p, places, s.radiusMm);
  const ways = places.map((c) => meanNormal(p, normals, near, c, r2));
  const out = new Map<number, Under>();
  for (const v of near) {
    let most = 0;
    let [x, y, z] = [0, 0, 0];
    for (let i = 0; i < places.length; i++) {
      const d2 = apart2(p, v, places[i]);
      if (d2 >= r2) continue;
      const way = ways[i] as Vec3;
      if (normals[3 * v] * way[0] + normals[3 * v + 1] * way[1] + normals[3 * v + 2] * way[2] <= FACING) continue;
      const w = (1 - d2 / r2) ** 2;
      if (w > most) most = w;
      x += way[0] * w * w;
      y += way[1] * w * w;
      z += way[2] * w * w;
    }
    if (most > 0) out.set(v, { weight: most, way: normalize([x, y, z]) });
  }
  return out;
}

/** Cosine between two normals from which on one side of the tooth counts as the other's. */
const FACING = 0.1;

/** Vertices within the box around the stroke. */
function nearStroke(p: Float64Array, places: readonly number[], r: number): number[] {
  const least = (i: number) => Math.min(...places.map((c) => p[3 * c + i])) - r;
  const most = (i: number) => Math.max(...places.map((c) => p[3 * c + i])) + r;
  const [x0, x1, y0, y1, z0, z1] = [least(0), most(0), least(1), most(1), least(2), most(2)];
  const out: number[] = [];
  for (let at = 0; at < p.length; at += 3) {
    const x = p[at];
    if (x < x0 || x > x1) continue;
    const y = p[at + 1];
    if (y < y0 || y > y1) continue;
    const z = p[at + 2];
    if (z >= z0 && z <= z1) out.push(at / 3);
  }
  return out;
}

/** Mean normal of what lies within the brush at a place and faces as the place does. */
function meanNormal(p: Float64Array, normals: Float64Array, near: readonly number[], c: number, r2: number): Vec3 {
  const [nx, ny, nz] = normalOf(normals, c);
  let [x, y, z] = [0, 0, 0];
  for (const v of near) {
    const d2 = apart2(p, v, c);
    if (d2 >= r2) continue;
    const a = normals[3 * v];
    const b = normals[3 * v + 1];
    const e = normals[3 * v + 2];
    if (a * nx + b * ny + e * nz <= FACING) continue;
    const w = 1 - d2 / r2;
    x += a * w;
    y += b * w;
    z += e * w;
  }
  return normalize([x, y, z]);
}

const normalOf = (n: Float64Array, v: number): Vec3 => [n[3 * v], n[3 * v + 1], n[3 * v + 2]];
const apart2 = (p: Float64Array, a: number, b: number): number =>
  (p[3 * a] - p[3 * b]) ** 2 + (p[3 * a + 1] - p[3 * b + 1]) ** 2 + (p[3 * a + 2] - p[3 * b + 2]) ** 2;

const SMOOTH_ROUNDS = 4;

/** Draws vertices towards the middle of their neighbours, along their normals. */
function smooth(
  mesh: Mesh,
  normals: Float64Array,
  by: Float64Array,
  under: ReadonlyMap<number, Under>,
  share: number,
): void {
  const around = neighbours(mesh);
  const p = mesh.positions;
  const at = (v: number, i: number) => p[3 * v + i] + by[3 * v + i];
  for (let round = 0; round < SMOOTH_ROUNDS; round++) {
    const heights = new Map<number, number>();
    for (const [v, { weight }] of under) {
      const ring = around[v] as readonly number[];
      let d = 0;
      for (let i = 0; i < 3; i++) {
        let mean = 0;
        for (const o of ring) mean += at(o, i);
        d += (mean / ring.length - at(v, i)) * normals[3 * v + i];
      }
      heights.set(v, d * weight * share);
    }
    for (const [v, d] of heights) for (let i = 0; i < 3; i++) by[3 * v + i] = by[3 * v + i] + d * normals[3 * v + i];
  }
}

const rings = new WeakMap<Uint32Array, readonly (readonly number[])[]>();

/** Neighbours of each vertex; kept by the list of triangles, which crowns of a kind share. */
function neighbours(mesh: Mesh): readonly (readonly number[])[] {
  let own = rings.get(mesh.triangles);
  if (!own) {
    const sets = Array.from({ length: mesh.positions.length / 3 }, () => new Set<number>());
    for (let t = 0; t < mesh.triangles.length; t += 3) {
      const a = mesh.triangles[t];
      const b = mesh.triangles[t + 1];
      const c = mesh.triangles[t + 2];
      sets[a]?.add(b).add(c);
      sets[b]?.add(a).add(c);
      sets[c]?.add(a).add(b);
    }
    own = sets.map((s) => [...s]);
    rings.set(mesh.triangles, own);
  }
  return own;
}

/** Thinner than this a crown must not be left by the brush, mm. House limit. */
export const LEAST_WALL_MM = 0.3;

/**
 * Whether a further stroke can be taken.
 * @throws Refusal `stroke-not-possible` when a place is not on the crown, when the surface would fold over itself, or
 *   when what is taken away would come through the other side or leave less than 0.3 mm
 */
export function requireStroke(base: Crown, before: readonly Stroke[], stroke: Stroke): void {
  const count = base.mesh.positions.length / 3;
  const outside = stroke.at.find((v) => !Number.isInteger(v) || v < 0 || v >= count);
  if (outside !== undefined || stroke.at.length === 0)
    throw new Refusal('stroke-not-possible', 'The stroke does not lie on the crown.', outside);
  if (before.length >= BRUSH_LIMITS.strokes)
    throw new Refusal(
      'stroke-not-possible',
      `A crown takes ${BRUSH_LIMITS.strokes} strokes; keep the contour as a version and undo some.`,
      before.length,
    );
  const normals = vertexNormals(base.mesh);
  const by = displacement(base.mesh, normals, [...before, stroke]);
  const under = underBrush(base.mesh, normals, stroke);
  const wall = leastWall(base.mesh, by, under);
  if (wall < LEAST_WALL_MM)
    throw new Refusal(
      'stroke-not-possible',
      wall <= 0
        ? 'The brush would come through the other side of the crown; the stroke is not taken.'
        : `The brush would leave ${wall.toFixed(2)} mm of the crown; at least ${LEAST_WALL_MM} mm must stay. The stroke is not taken.`,
      wall,
    );
  if (folds(base.mesh, moved(base.mesh, by), under))
    throw new Refusal(
      'stroke-not-possible',
      'The surface would fold over itself; the stroke is not taken. A larger brush or less of it goes.',
      undefined,
    );
}

/** Least wall that is left in the direction in which vertices under the brush have gone into the crown, mm. */
function leastWall(mesh: Mesh, by: Float64Array, under: ReadonlyMap<number, Under>): number {
  const cast = rayCaster(buildTree(mesh));
  let least = Infinity;
  for (const [v, { way }] of under) {
    const gone = normalOf(by, v);
    const depth = -dot(gone, way);
    if (depth < 0.02) continue;
    const inward = scale(way, -1);
    // Begin just under the surface, so that the vertex's own triangles are not met.
    const hit = cast.first(add(normalOf(mesh.positions, v), scale(inward, 1e-3)), inward);
    if (hit) least = Math.min(least, hit.distance + 1e-3 - depth);
  }
  return least;
}

/** Whether a triangle that the stroke touched has turned over. */
function folds(base: Mesh, now: Mesh, under: ReadonlyMap<number, Under>): boolean {
  for (let t = 0; t < base.triangles.length; t += 3) {
    if (!under.has(base.triangles[t]) && !under.has(base.triangles[t + 1]) && !under.has(base.triangles[t + 2]))
      continue;
    const a = triangleNormal(base, t);
    const b = triangleNormal(now, t);
    if (dot(a, b) <= 0) return true;
  }
  return false;
}

/** The same stroke on the tooth of the other side. */
export function mirroredStroke(crown: Pick<Crown, 'ringSize' | 'rings'>, stroke: Stroke): Stroke {
  const { ringSize, rings } = crown;
  const half = ringSize / 2;
  const cap = rings * ringSize;
  return {
    ...stroke,
    at: stroke.at.map((v) => {
      if (v < cap) return v - (v % ringSize) + ((half - (v % ringSize) + ringSize) % ringSize);
      const k = ((v - cap) % (half - 1)) + 1;
      return v - k + (half - k);
    }),
  };
}
