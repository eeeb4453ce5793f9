import { Refusal } from '../../errors.js';
import type { Mesh } from '../mesh.js';
import { divide, sorting } from './divide.js';

/**
 * A bounding-volume tree over a mesh's triangles, all in flat arrays.
 *
 *   box   6 numbers a node   minX minY minZ maxX maxY maxZ
 *   link  2 numbers a node   inner: [first child, 0]; the second child is the node after it, so that both boxes that
 *                            a query compares lie side by side
 *                            leaf:  [first slot, number of slots]
 *                            node 0 is the root; the pairs 1 2, 3 4, … are siblings
 *   tri  12 numbers a slot   a, ab, ac (three vectors), ab·ab, ab·ac, ac·ac
 *   face  1 number a slot    the triangle's number in the mesh
 *
 * Leaves of eight; 4 or 6, 32-bit node boxes, bounding spheres round the triangles and plane prefilters made queries no
 * faster, nor did climbing from the last query's leaf instead of descending from the root.
 */
export interface Tree {
  readonly box: Float64Array;
  readonly link: Int32Array;
  readonly tri: Float64Array;
  readonly face: Uint32Array;
  /** Deepest level, so that a query knows how large a stack it needs. */
  readonly depth: number;
}

export const TRI_STRIDE = 12;
const LEAF = 8;

/**
 * Builds the tree. Coordinates in mm; the mesh may be open.
 * @throws Refusal `mesh-empty` for a mesh without triangles
 */
export function buildTree(mesh: Mesh): Tree {
  const n = mesh.triangles.length / 3;
  if (n === 0) throw new Refusal('mesh-empty', 'A surface without triangles has no nearest point.');
  const s = sorting(triangleBoxes(mesh, n));
  const link = new Int32Array(4 * n);
  let nodes = 1;
  let deepest = 1;
  // Ranges still to be divided: node, start, end, level.
  const due = [0, 0, n, 1];
  while (due.length > 0) {
    const level = due.pop() as number;
    const end = due.pop() as number;
    const start = due.pop() as number;
    const at = due.pop() as number;
    const middle = end - start <= LEAF ? start : divide(s, start, end);
    if (middle === start) {
      link[2 * at] = start;
      link[2 * at + 1] = end - start;
      if (level > deepest) deepest = level;
    } else {
      link[2 * at] = nodes;
      due.push(nodes + 1, middle, end, level + 1, nodes, start, middle, level + 1);
      nodes += 2;
    }
  }
  const links = link.slice(0, 2 * nodes);
  const tri = packTriangles(mesh, s.order);
  return { box: nodeBoxes(links, tri), link: links, tri, face: s.order, depth: deepest };
}

/**
 * The tree of a mesh whose triangles are those of another, moved a little: divided as that one was, its boxes new. Right
 * whatever has moved; slower to ask the further it has.
 */
export function refitTree(before: Tree, mesh: Mesh): Tree {
  const tri = packTriangles(mesh, before.face);
  return { ...before, tri, box: nodeBoxes(before.link, tri) };
}

/** Boxes of all nodes from their triangles upwards; a child has a higher number than its parent. */
function nodeBoxes(link: Int32Array, tri: Float64Array): Float64Array {
  const nodes = link.length / 2;
  const box = new Float64Array(6 * nodes);
  for (let at = nodes - 1; at >= 0; at--) {
    const count = link[2 * at + 1];
    const first = link[2 * at];
    const o = 6 * at;
    let x0 = Infinity;
    let y0 = Infinity;
    let z0 = Infinity;
    let x1 = -Infinity;
    let y1 = -Infinity;
    let z1 = -Infinity;
    if (count === 0) {
      const l = 6 * first;
      x0 = Math.min(box[l], box[l + 6]);
      y0 = Math.min(box[l + 1], box[l + 7]);
      z0 = Math.min(box[l + 2], box[l + 8]);
      x1 = Math.max(box[l + 3], box[l + 9]);
      y1 = Math.max(box[l + 4], box[l + 10]);
      z1 = Math.max(box[l + 5], box[l + 11]);
    } else {
      for (let t = TRI_STRIDE * first; t < TRI_STRIDE * (first + count); t += TRI_STRIDE) {
        const ax = tri[t];
        const ay = tri[t + 1];
        const az = tri[t + 2];
        const ux = tri[t + 3];
        const uy = tri[t + 4];
        const uz = tri[t + 5];
        const vx = tri[t + 6];
        const vy = tri[t + 7];
        const vz = tri[t + 8];
        x0 = Math.min(x0, ax + Math.min(0, ux, vx));
        y0 = Math.min(y0, ay + Math.min(0, uy, vy));
        z0 = Math.min(z0, az + Math.min(0, uz, vz));
        x1 = Math.max(x1, ax + Math.max(0, ux, vx));
        y1 = Math.max(y1, ay + Math.max(0, uy, vy));
        z1 = Math.max(z1, az + Math.max(0, uz, vz));
      }
    }
    box[o] = x0;
    box[o + 1] = y0;
    box[o + 2] = z0;
    box[o + 3] = x1;
    box[o + 4] = y1;
    box[o + 5] = z1;
  }
  return box;
}

function triangleBoxes(mesh: Mesh, n: number): Float32Array {
  const p = mesh.positions;
  const t = mesh.triangles;
  const own = new Float32Array(6 * n);
  for (let i = 0; i < n; i++) {
    const a = 3 * t[3 * i];
    const b = 3 * t[3 * i + 1];
    const c = 3 * t[3 * i + 2];
    for (let k = 0; k < 3; k++) {
      const va = p[a + k];
      const vb = p[b + k];
      const vc = p[c + k];
      own[6 * i + k] = Math.min(va, vb, vc);
      own[6 * i + 3 + k] = Math.max(va, vb, vc);
    }
  }
  return own;
}

function packTriangles(mesh: Mesh, order: Uint32Array): Float64Array {
  const p = mesh.positions;
  const t = mesh.triangles;
  const tri = new Float64Array(TRI_STRIDE * order.length);
  for (let s = 0; s < order.length; s++) {
    const f = 3 * order[s];
    const a = 3 * t[f];
    const b = 3 * t[f + 1];
    const c = 3 * t[f + 2];
    const o = TRI_STRIDE * s;
    let bb = 0;
    let bc = 0;
    let cc = 0;
    for (let k = 0; k < 3; k++) {
      const av = p[a + k];
      const u = p[b + k] - av;
      const v = p[c + k] - av;
      tri[o + k] = av;
      tri[o + 3 + k] = u;
      tri[o + 6 + k] = v;
      bb += u * u;
      bc += u * v;
      cc += v * v;
    }
    tri[o + 9] = bb;
    tri[o + 10] = bc;
    tri[o + 11] = cc;
  }
  return tri;
}
