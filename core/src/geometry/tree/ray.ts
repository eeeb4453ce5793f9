import type { Vec3 } from '../vec.js';
import { TRI_STRIDE, type Tree } from './build.js';

export interface RayHit {
  /** Distance along the unit direction, mm. */
  readonly distance: number;
  readonly face: number;
}

/** A reusable ray caster over one tree: holds the stack, so keep one per thread of work. */
export interface RayCaster {
  /** The first hit from `origin` along the unit `direction` nearer than `far` mm, or undefined. Both sides count. */
  first(origin: Vec3, direction: Vec3, far?: number): RayHit | undefined;
}

/** Prepares ray queries against a tree. */
export function rayCaster(tree: Tree): RayCaster {
  const stack = new Int32Array(tree.depth + 2);
  const stackT = new Float64Array(tree.depth + 2);
  return { first: (o, d, far = Infinity) => cast(tree, stack, stackT, o[0], o[1], o[2], d[0], d[1], d[2], far) };
}

function cast(
  tree: Tree,
  stack: Int32Array,
  stackT: Float64Array,
  ox: number,
  oy: number,
  oz: number,
  dx: number,
  dy: number,
  dz: number,
  far: number,
): RayHit | undefined {
  const { box, link, tri } = tree;
  // A direction along an axis would divide by zero; this stays finite and gives the same answer.
  const ix = 1 / (dx || 1e-30);
  const iy = 1 / (dy || 1e-30);
  const iz = 1 / (dz || 1e-30);
  let best = far;
  let hit = -1;
  let top = 0;
  let node = 0;
  for (;;) {
    const count = link[2 * node + 1];
    if (count === 0) {
      const l = link[2 * node];
      const r = l + 1;
      const tl = entry(box, 6 * l, ox, oy, oz, ix, iy, iz, best);
      const tr = entry(box, 6 * r, ox, oy, oz, ix, iy, iz, best);
      if (tl <= tr && tl < Infinity) {
        if (tr < Infinity) {
          stackT[top] = tr;
          stack[top++] = r;
        }
        node = l;
        continue;
      }
      if (tr < Infinity) {
        if (tl < Infinity) {
          stackT[top] = tl;
          stack[top++] = l;
        }
        node = r;
        continue;
      }
    }
    const first = link[2 * node];
    for (let s = first; s < first + count; s++) {
      const o = TRI_STRIDE * s;
      const e1x = tri[o + 3];
      const e1y = tri[o + 4];
      const e1z = tri[o + 5];
      const e2x = tri[o + 6];
      const e2y = tri[o + 7];
      const e2z = tri[o + 8];
      const px = dy * e2z - dz * e2y;
      const py = dz * e2x - dx * e2z;
      const pz = dx * e2y - dy * e2x;
      const det = e1x * px + e1y * py + e1z * pz;
      if (det === 0) continue;
      const inv = 1 / det;
      const sx = ox - tri[o];
      const sy = oy - tri[o + 1];
      const sz = oz - tri[o + 2];
      const u = (sx * px + sy * py + sz * pz) * inv;
      if (u < 0 || u > 1) continue;
      const qx = sy * e1z - sz * e1y;
      const qy = sz * e1x - sx * e1z;
      const qz = sx * e1y - sy * e1x;
      const v = (dx * qx + dy * qy + dz * qz) * inv;
      if (v < 0 || u + v > 1) continue;
      const t = (e2x * qx + e2y * qy + e2z * qz) * inv;
      if (t >= 0 && t < best) {
        best = t;
        hit = s;
      }
    }
    do {
      if (top === 0) return hit < 0 ? undefined : { distance: best, face: tree.face[hit] };
      top--;
    } while (stackT[top] >= best);
    node = stack[top];
  }
}

/** Where the ray enters the box that begins at b, or Infinity where it misses it or enters beyond the best hit. */
export function entry(
  box: Float64Array,
  b: number,
  ox: number,
  oy: number,
  oz: number,
  ix: number,
  iy: number,
  iz: number,
  best: number,
): number {
  const x0 = (box[b] - ox) * ix;
  const x1 = (box[b + 3] - ox) * ix;
  const y0 = (box[b + 1] - oy) * iy;
  const y1 = (box[b + 4] - oy) * iy;
  const z0 = (box[b + 2] - oz) * iz;
  const z1 = (box[b + 5] - oz) * iz;
  const near = Math.max(Math.min(x0, x1), Math.min(y0, y1), Math.min(z0, z1), 0);
  const exit = Math.min(Math.max(x0, x1), Math.max(y0, y1), Math.max(z0, z1));
  return near <= exit && near < best ? near : Infinity;
}

/** Directions of the question whether a point lies inside; none runs along a regular mesh's edges. */
const PROBES: readonly Vec3[] = [
  [0.5345, 0.2673, 0.8018],
  [-0.7428, 0.5571, -0.3714],
  [0.1961, -0.7845, 0.5883],
];

/**
 * Whether a point lies inside a closed surface, by the parity of the walls that rays from it meet, the majority of
 * three. Slower than a signed distance, and right also beside slivers that noise has turned inside out.
 */
export function liesInside(cast: RayCaster, p: Vec3): boolean {
  let votes = 0;
  for (const way of PROBES) {
    let walls = 0;
    let from = p;
    for (let hit = cast.first(from, way); hit && walls < 64; hit = cast.first(from, way)) {
      walls++;
      const on = hit.distance + 1e-6;
      from = [from[0] + way[0] * on, from[1] + way[1] * on, from[2] + way[2] * on];
    }
    votes += walls % 2;
  }
  return votes >= 2;
}
