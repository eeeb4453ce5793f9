import type { Vec3 } from '../vec.js';
import { TRI_STRIDE, type Tree } from './build.js';
import { mortonOrder } from './morton.js';
import { type PackedSearch, packedSearch } from './packed.js';

/** The nearest points of a surface to many queries, one row a query. */
export interface ClosestPoints {
  /** x, y, z of the nearest point, mm. */
  readonly points: Float64Array;
  /** Distance, mm, never negative. */
  readonly distances: Float64Array;
  /** The mesh triangle that holds the nearest point. */
  readonly faces: Uint32Array;
}

/** What one search leaves behind: x, y, z, squared distance, slot. */
const OUT = 5;

/**
 * Searches the tree for the point nearest to p that lies closer than √best2.
 * Writes [x, y, z, d², slot] to `out` when it finds one, and leaves `out` as it was when not.
 * Exactly one place here tests a triangle: with a second one the optimiser makes the whole kernel up to twice slower.
 */
function search(
  tree: Tree,
  px: number,
  py: number,
  pz: number,
  best2: number,
  stack: Int32Array,
  stackD: Float64Array,
  out: Float64Array,
): void {
  const { box, link, tri } = tree;
  let best = best2;
  let top = 0;
  let node = 0;
  for (;;) {
    const count = link[2 * node + 1];
    if (count > 0) {
      const first = link[2 * node];
      for (let s = first; s < first + count; s++) {
        const o = TRI_STRIDE * s;
        const apx = px - tri[o];
        const apy = py - tri[o + 1];
        const apz = pz - tri[o + 2];
        const bx = tri[o + 3];
        const by = tri[o + 4];
        const bz = tri[o + 5];
        const cx = tri[o + 6];
        const cy = tri[o + 7];
        const cz = tri[o + 8];
        const bb = tri[o + 9];
        const bc = tri[o + 10];
        const cc = tri[o + 11];
        const d1 = bx * apx + by * apy + bz * apz;
        const d2 = cx * apx + cy * apy + cz * apz;
        const d3 = d1 - bb;
        const d4 = d2 - bc;
        const d5 = d1 - bc;
        const d6 = d2 - cc;
        // The regions of a triangle (Ericson 2005, Real-Time Collision Detection, from memory): a + v·ab + w·ac.
        let v = 0;
        let w = 0;
        if (d1 > 0 || d2 > 0) {
          if (d3 >= 0 && d4 <= d3) v = 1;
          else if (d6 >= 0 && d5 <= d6) w = 1;
          else {
            const vc = d1 * d4 - d3 * d2;
            const vb = d5 * d2 - d1 * d6;
            const va = d3 * d6 - d5 * d4;
            if (vc <= 0 && d1 >= 0 && d3 <= 0) v = d1 / (d1 - d3);
            else if (vb <= 0 && d2 >= 0 && d6 <= 0) w = d2 / (d2 - d6);
            else if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
              w = (d4 - d3) / (d4 - d3 + (d5 - d6));
              v = 1 - w;
            } else {
              const k = 1 / (va + vb + vc);
              v = vb * k;
              w = vc * k;
            }
          }
        }
        const ex = apx - v * bx - w * cx;
        const ey = apy - v * by - w * cy;
        const ez = apz - v * bz - w * cz;
        const d = ex * ex + ey * ey + ez * ez;
        if (d < best) {
          best = d;
          out[0] = px - ex;
          out[1] = py - ey;
          out[2] = pz - ez;
          out[3] = d;
          out[4] = s;
        }
      }
    } else {
      // |low − p| + |p − high| − (high − low) is twice the way out of the box along one axis: no branch, unlike max.
      const l = link[2 * node];
      const r = l + 1;
      let o = 6 * l;
      let dx = Math.abs(box[o] - px) + Math.abs(px - box[o + 3]) - (box[o + 3] - box[o]);
      let dy = Math.abs(box[o + 1] - py) + Math.abs(py - box[o + 4]) - (box[o + 4] - box[o + 1]);
      let dz = Math.abs(box[o + 2] - pz) + Math.abs(pz - box[o + 5]) - (box[o + 5] - box[o + 2]);
      const dl = 0.25 * (dx * dx + dy * dy + dz * dz);
      o = 6 * r;
      dx = Math.abs(box[o] - px) + Math.abs(px - box[o + 3]) - (box[o + 3] - box[o]);
      dy = Math.abs(box[o + 1] - py) + Math.abs(py - box[o + 4]) - (box[o + 4] - box[o + 1]);
      dz = Math.abs(box[o + 2] - pz) + Math.abs(pz - box[o + 5]) - (box[o + 5] - box[o + 2]);
      const dr = 0.25 * (dx * dx + dy * dy + dz * dz);
      if (dl <= dr) {
        if (dr < best) {
          stack[top] = r;
          stackD[top++] = dr;
        }
        if (dl < best) {
          node = l;
          continue;
        }
      } else {
        if (dl < best) {
          stack[top] = l;
          stackD[top++] = dl;
        }
        if (dr < best) {
          node = r;
          continue;
        }
      }
    }
    do {
      if (top === 0) return;
      top--;
    } while (stackD[top] >= best);
    node = stack[top];
  }
}

/**
 * The nearest surface point to each query. Queries run in Morton order and each starts from the last answer: the
 * distance to that point bounds the search without testing a triangle, which saves about a seventh. A large tree that
 * is asked much is searched two triangles at a time.
 * @param points x, y, z of each query, mm
 */
export function closestPoints(tree: Tree, points: Float64Array): ClosestPoints {
  const n = points.length / 3;
  const result: ClosestPoints = {
    points: new Float64Array(3 * n),
    distances: new Float64Array(n),
    faces: new Uint32Array(n),
  };
  const run: PackedSearch = packedSearch(tree, n) ?? ((...of) => searchEach(tree, ...of));
  run(points, mortonOrder(points), result);
  return result;
}

/** The same without the packed form, one triangle at a time: for trees that are small or seldom asked. */
export function searchEach(tree: Tree, points: Float64Array, order: Uint32Array, result: ClosestPoints): void {
  const stack = new Int32Array(tree.depth + 2);
  const stackD = new Float64Array(tree.depth + 2);
  const out = new Float64Array(OUT);
  for (let k = 0; k < order.length; k++) {
    const q = order[k];
    const x = points[3 * q];
    const y = points[3 * q + 1];
    const z = points[3 * q + 2];
    let bound = Infinity;
    if (k > 0) {
      const dx = x - out[0];
      const dy = y - out[1];
      const dz = z - out[2];
      bound = dx * dx + dy * dy + dz * dz;
      out[3] = bound;
    }
    search(tree, x, y, z, bound, stack, stackD, out);
    result.points[3 * q] = out[0];
    result.points[3 * q + 1] = out[1];
    result.points[3 * q + 2] = out[2];
    result.distances[q] = Math.sqrt(out[3]);
    result.faces[q] = tree.face[out[4]];
  }
}

/** The nearest surface point to one query, mm. */
export function closestPoint(tree: Tree, p: Vec3): { point: Vec3; distance: number; face: number } {
  const r = closestPoints(tree, Float64Array.from(p));
  return {
    point: [r.points[0], r.points[1], r.points[2]],
    distance: r.distances[0],
    face: r.faces[0],
  };
}
