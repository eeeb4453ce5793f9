import { Refusal } from '../../errors.js';
import type { Mesh } from '../mesh.js';

/**
 * A bounding-volume tree over a mesh's triangles, all in flat arrays.
 *
 *   box   6 numbers a node   minX minY minZ maxX maxY maxZ
 *   link  2 numbers a node   inner: [right child, 0]; the left child is the next node
 *                            leaf:  [first slot, number of slots]
 *   tri  12 numbers a slot   a, ab, ac (three vectors), ab·ab, ab·ac, ac·ac
 *   face  1 number a slot    the triangle's number in the mesh
 *
 * One-axis binned surface-area heuristic with leaves of eight. Three axes doubled the build for queries no faster;
 * 32-bit boxes, 8 or 32 bins and plane prefilters made no difference that could be measured.
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
const BINS = 16;

/**
 * Builds the tree. Coordinates in mm; the mesh may be open.
 * @throws Refusal `mesh-empty` for a mesh without triangles
 */
export function buildTree(mesh: Mesh): Tree {
  const n = mesh.triangles.length / 3;
  if (n === 0) throw new Refusal('mesh-empty', 'A surface without triangles has no nearest point.');
  const own = triangleBoxes(mesh, n);
  const order = new Uint32Array(n);
  for (let i = 0; i < n; i++) order[i] = i;

  const maxNodes = 2 * n;
  const box = new Float64Array(6 * maxNodes);
  const link = new Int32Array(2 * maxNodes);
  const bin = new Uint8Array(n);
  const binCount = new Int32Array(BINS);
  const binBox = new Float64Array(6 * BINS);
  const rightArea = new Float64Array(BINS);
  let nodes = 0;
  let deepest = 0;

  const node = (start: number, end: number, level: number): number => {
    const at = nodes++;
    if (level > deepest) deepest = level;
    let x0 = Infinity;
    let y0 = Infinity;
    let z0 = Infinity;
    let x1 = -Infinity;
    let y1 = -Infinity;
    let z1 = -Infinity;
    let cx0 = Infinity;
    let cy0 = Infinity;
    let cz0 = Infinity;
    let cx1 = -Infinity;
    let cy1 = -Infinity;
    let cz1 = -Infinity;
    for (let i = start; i < end; i++) {
      const b = 6 * (order[i] as number);
      const ax = own[b] as number;
      const ay = own[b + 1] as number;
      const az = own[b + 2] as number;
      const bx = own[b + 3] as number;
      const by = own[b + 4] as number;
      const bz = own[b + 5] as number;
      if (ax < x0) x0 = ax;
      if (ay < y0) y0 = ay;
      if (az < z0) z0 = az;
      if (bx > x1) x1 = bx;
      if (by > y1) y1 = by;
      if (bz > z1) z1 = bz;
      const cx = ax + bx;
      const cy = ay + by;
      const cz = az + bz;
      if (cx < cx0) cx0 = cx;
      if (cy < cy0) cy0 = cy;
      if (cz < cz0) cz0 = cz;
      if (cx > cx1) cx1 = cx;
      if (cy > cy1) cy1 = cy;
      if (cz > cz1) cz1 = cz;
    }
    const o = 6 * at;
    box[o] = x0;
    box[o + 1] = y0;
    box[o + 2] = z0;
    box[o + 3] = x1;
    box[o + 4] = y1;
    box[o + 5] = z1;
    const count = end - start;
    const ex = cx1 - cx0;
    const ey = cy1 - cy0;
    const ez = cz1 - cz0;
    const axis = ex >= ey && ex >= ez ? 0 : ey >= ez ? 1 : 2;
    const extent = axis === 0 ? ex : axis === 1 ? ey : ez;
    if (count <= LEAF || extent <= 0) {
      link[2 * at] = start;
      link[2 * at + 1] = count;
      return at;
    }
    const low = axis === 0 ? cx0 : axis === 1 ? cy0 : cz0;
    const mid = partition(start, end, axis, low, extent);
    node(start, mid, level + 1);
    link[2 * at] = node(mid, end, level + 1);
    return at;
  };

  /** Sorts order[start..end) into two parts at the cheapest bin border and returns where the second begins. */
  const partition = (start: number, end: number, axis: number, low: number, extent: number): number => {
    const k = (BINS * 0.999999) / extent;
    binCount.fill(0);
    for (let b = 0; b < 6 * BINS; b += 6) {
      binBox[b] = binBox[b + 1] = binBox[b + 2] = Infinity;
      binBox[b + 3] = binBox[b + 4] = binBox[b + 5] = -Infinity;
    }
    for (let i = start; i < end; i++) {
      const t = order[i] as number;
      const o = 6 * t;
      const w = (((own[o + axis] as number) + (own[o + axis + 3] as number) - low) * k) | 0;
      bin[t] = w;
      binCount[w] = (binCount[w] as number) + 1;
      const b = 6 * w;
      if ((own[o] as number) < (binBox[b] as number)) binBox[b] = own[o] as number;
      if ((own[o + 1] as number) < (binBox[b + 1] as number)) binBox[b + 1] = own[o + 1] as number;
      if ((own[o + 2] as number) < (binBox[b + 2] as number)) binBox[b + 2] = own[o + 2] as number;
      if ((own[o + 3] as number) > (binBox[b + 3] as number)) binBox[b + 3] = own[o + 3] as number;
      if ((own[o + 4] as number) > (binBox[b + 4] as number)) binBox[b + 4] = own[o + 4] as number;
      if ((own[o + 5] as number) > (binBox[b + 5] as number)) binBox[b + 5] = own[o + 5] as number;
    }
    const sweep = new Float64Array(6);
    const grow = (b: number): number => {
      for (let c = 0; c < 3; c++) {
        if ((binBox[6 * b + c] as number) < (sweep[c] as number)) sweep[c] = binBox[6 * b + c] as number;
        if ((binBox[6 * b + c + 3] as number) > (sweep[c + 3] as number)) sweep[c + 3] = binBox[6 * b + c + 3] as number;
      }
      const dx = (sweep[3] as number) - (sweep[0] as number);
      const dy = (sweep[4] as number) - (sweep[1] as number);
      const dz = (sweep[5] as number) - (sweep[2] as number);
      return dx < 0 ? 0 : dx * dy + dy * dz + dz * dx;
    };
    const clear = () => sweep.fill(Infinity, 0, 3).fill(-Infinity, 3, 6);
    clear();
    for (let b = BINS - 1; b > 0; b--) rightArea[b] = grow(b);
    clear();
    let best = Infinity;
    let split = BINS >> 1;
    let left = 0;
    const total = end - start;
    for (let b = 0; b < BINS - 1; b++) {
      const a = grow(b);
      left += binCount[b] as number;
      if (left === 0 || left === total) continue;
      const cost = a * left + (rightArea[b + 1] as number) * (total - left);
      if (cost < best) {
        best = cost;
        split = b + 1;
      }
    }
    let i = start;
    let j = end - 1;
    while (i <= j) {
      const t = order[i] as number;
      if ((bin[t] as number) < split) i++;
      else {
        order[i] = order[j] as number;
        order[j] = t;
        j--;
      }
    }
    return i;
  };

  node(0, n, 1);
  return { box: box.slice(0, 6 * nodes), link: link.slice(0, 2 * nodes), tri: packTriangles(mesh, order), face: order, depth: deepest };
}

function triangleBoxes(mesh: Mesh, n: number): Float64Array {
  const p = mesh.positions;
  const t = mesh.triangles;
  const own = new Float64Array(6 * n);
  for (let i = 0; i < n; i++) {
    const a = 3 * (t[3 * i] as number);
    const b = 3 * (t[3 * i + 1] as number);
    const c = 3 * (t[3 * i + 2] as number);
    for (let k = 0; k < 3; k++) {
      const va = p[a + k] as number;
      const vb = p[b + k] as number;
      const vc = p[c + k] as number;
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
    const f = 3 * (order[s] as number);
    const a = 3 * (t[f] as number);
    const b = 3 * (t[f + 1] as number);
    const c = 3 * (t[f + 2] as number);
    const o = TRI_STRIDE * s;
    let bb = 0;
    let bc = 0;
    let cc = 0;
    for (let k = 0; k < 3; k++) {
      const av = p[a + k] as number;
      const u = (p[b + k] as number) - av;
      const v = (p[c + k] as number) - av;
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
