import { type Mesh, vertexDistance, vertexNormals } from '../geometry/mesh.js';
import { cross, dot, length, type Vec3 } from '../geometry/vec.js';
import { hoodOf } from './hood.js';

/** A stretch of a prepared surface that is rounded too tightly. */
export interface TightCorner {
  /** Of the turn's tightest part, over its middle places, mm. */
  readonly radiusMm: number;
  /** Bulging, so that a mill's tool has to go round it inside the restoration; else a hollow. */
  readonly bulges: boolean;
  /** The vertex in its middle, and how long it is, mm. */
  readonly at: number;
  readonly lengthMm: number;
}

/** The least turn of an edge of the surface that says something about its radius, degrees. House value. */
const TURN_DEG = 4;
/** A stretch shorter than this is a scan's own slip, mm. House value. */
const LEAST_MM = 0.8;

/**
 * Radius at every vertex, mm, of its tightest turn: + where it bulges, − where it is hollow, Infinity where it is flat.
 * By how much the normals turn from a vertex to those beside it; exact on a fillet that the mesh resolves, and no less
 * than about half of the mesh's own edges where it does not.
 */
export function turnRadii(m: Mesh): Float64Array {
  const normals = vertexNormals(m);
  const hood = hoodOf(m);
  const of = (a: Float64Array, v: number): Vec3 => [a[3 * v]!, a[3 * v + 1]!, a[3 * v + 2]!];
  const out = new Float64Array(m.positions.length / 3).fill(Infinity);
  for (let v = 0; v < out.length; v++) {
    const [p, n] = [of(m.positions as Float64Array, v), of(normals, v)];
    let most = 0;
    for (let i = hood.from[v]!; i < hood.from[v + 1]!; i++) {
      const w = hood.beside[i]!;
      const [q, u] = [of(m.positions as Float64Array, w), of(normals, w)];
      const way: Vec3 = [q[0] - p[0], q[1] - p[1], q[2] - p[2]];
      const far = length(way);
      const turn = Math.atan2(length(cross(n, u)), dot(n, u));
      if (far === 0 || turn * (180 / Math.PI) < TURN_DEG) continue;
      // Only the turn along this way counts: what turns across it is told by another neighbour.
      const along = (dot(u, way) - dot(n, way)) / far;
      const bent = Math.sign(along) * Math.min(turn, 2 * Math.asin(Math.min(1, Math.abs(along) / 2)));
      if (Math.abs(bent / far) > Math.abs(most)) most = bent / far;
    }
    if (most !== 0) out[v] = 1 / most;
  }
  return out;
}

/**
 * Stretches of a surface that are rounded tighter than a radius, tightest first. A stretch is told by the middle of its
 * ridge, the vertices that turn most of those beside them: the tightest of all is a scan's own noise.
 * @param on which vertices count
 */
export function tightCorners(m: Mesh, on: (v: number) => boolean, wantedMm: number): TightCorner[] {
  const leastRadiusMm = Math.max(wantedMm, BLURRED * edgeMm(m, on));
  const radii = turnRadii(m);
  const hood = hoodOf(m);
  const beside = (v: number) => hood.beside.subarray(hood.from[v]!, hood.from[v + 1]!);
  const turns = (v: number) => on(v) && Math.abs(radii[v]!) < LOOSER * leastRadiusMm;
  const seen = new Uint8Array(radii.length);
  const found: TightCorner[] = [];
  for (let v = 0; v < radii.length; v++) {
    if (seen[v] || !turns(v)) continue;
    const own: number[] = [v];
    seen[v] = 1;
    for (let k = 0; k < own.length; k++)
      for (const w of beside(own[k]!)) {
        if (seen[w] || !turns(w) || radii[w]! > 0 !== radii[v]! > 0) continue;
        seen[w] = 1;
        own.push(w);
      }
    const ridge = own.filter((w) => beside(w).every((u) => Math.abs(radii[u]!) >= Math.abs(radii[w]!) * NEARLY));
    const sorted = ridge.map((w) => Math.abs(radii[w]!)).sort((a, b) => a - b);
    const radiusMm = sorted[sorted.length >> 1] ?? Infinity;
    const lengthMm = ridge.length > 0 ? longest(m, ridge) : 0;
    if (radiusMm < leastRadiusMm && lengthMm >= LEAST_MM)
      found.push({ radiusMm, bulges: radii[v]! > 0, at: middleOf(m, ridge), lengthMm });
  }
  return found.sort((a, b) => a.radiusMm - b.radiusMm);
}

/**
 * On a mesh a sharp corner looks rounded by so many of its edges: what looks no rounder counts as sharp. House value.
 */
const BLURRED = 1.7;

/** The mean edge of the triangles whose corners all count, mm. */
function edgeMm({ positions, triangles }: Mesh, on: (v: number) => boolean): number {
  let [sum, n] = [0, 0];
  for (let t = 0; t < triangles.length; t += 3) {
    if (!on(triangles[t]!) || !on(triangles[t + 1]!) || !on(triangles[t + 2]!)) continue;
    sum += vertexDistance(positions, triangles[t]!, triangles[t + 1]!);
    n++;
  }
  return n > 0 ? sum / n : 0;
}

/** What turns up to so many times as gently belongs to the same stretch. House value. */
const LOOSER = 1.8;
/** Of a ridge is what turns nearly as much as all beside it. House value. */
const NEARLY = 0.8;

function longest(m: Mesh, own: readonly number[]): number {
  const farFrom = (v: number): [number, number] =>
    own.reduce<[number, number]>(
      (best, w) => {
        const d = Math.hypot(...[0, 1, 2].map((k) => m.positions[3 * w + k]! - m.positions[3 * v + k]!));
        return d > best[1] ? [w, d] : best;
      },
      [v, 0],
    );
  return farFrom(farFrom(own[0]!)[0])[1];
}

function middleOf(m: Mesh, own: readonly number[]): number {
  const mean = [0, 1, 2].map((k) => own.reduce((s, v) => s + m.positions[3 * v + k]!, 0) / own.length);
  const off = (v: number) => Math.hypot(...[0, 1, 2].map((k) => m.positions[3 * v + k]! - mean[k]!));
  return own.reduce((a, b) => (off(b) < off(a) ? b : a));
}
