import { TRI_STRIDE, type Tree } from './build.js';
import type { ClosestPoints } from './closest.js';
import { NEAREST_WASM } from './nearest-wasm.js';

/*
 * A tree as the kernel (core/kernel/nearest.ts) reads it, two and two side by side, all in one WebAssembly memory:
 *
 *   boxes     12 doubles a pair of siblings: minX of both, minY of both, … maxZ of both
 *   links      4 integers a pair: for each sibling [its children's pair, 0], or for a leaf [first pair of triangles, number of pairs]
 *   triangles 24 doubles a pair: the twelve numbers of Tree.tri, each of both; a leaf's odd last one stands twice
 *   stack      a link and a squared distance for each level
 *   queries, points, squares, slots: what is asked and answered, a block at a time
 */

const BOX_NUMBERS = 6;
/** The root has no sibling; its link stands in the first of these. */
const ROOT_LINKS = 4;
const BLOCK = 4096;
const PAGE_BYTES = 65_536;
/** A smaller tree lies in the processor's cache and gains too little for a memory of its own. */
const LEAST_TRIANGLES = 20_000;
/** Packing ten triangles takes about as long as being packed saves a query. */
const TRIANGLES_A_QUERY = 10;

type Kernel = (
  boxes: number,
  links: number,
  triangles: number,
  stack: number,
  n: number,
  queries: number,
  points: number,
  squares: number,
  slots: number,
) => void;

/** Answers queries as closest.ts does, the rows of `result` in the order of the queries. */
export type PackedSearch = (points: Float64Array, order: Uint32Array, result: ClosestPoints) => void;

/** The compiled kernel; null where the engine cannot or may not run it. */
let kernel: WebAssembly.Module | null | undefined;
/** What a tree was asked so far, and from when it pays its packed form. Both go when the tree goes. */
const asked = new WeakMap<Tree, number>();
const packed = new WeakMap<Tree, PackedSearch>();

/**
 * The packed search of a tree that is asked often enough to be worth it; undefined for others and where the engine has
 * no SIMD.
 */
export function packedSearch(tree: Tree, queries: number): PackedSearch | undefined {
  const triangles = tree.face.length;
  if (triangles < LEAST_TRIANGLES) return undefined;
  const known = packed.get(tree);
  if (known) return known;
  const sum = (asked.get(tree) ?? 0) + queries;
  asked.set(tree, sum);
  if (sum * TRIANGLES_A_QUERY < triangles) return undefined;
  const search = pack(tree);
  if (search) packed.set(tree, search);
  return search;
}

/** Lays a tree out for the kernel; undefined where the engine cannot run it. */
export function pack(tree: Tree): PackedSearch | undefined {
  if (kernel === undefined) kernel = compiled();
  if (!kernel) return undefined;
  const { link, box, tri } = tree;
  const nodes = link.length / 2;
  const pairs = (nodes - 1) / 2;
  let leafPairs = 0;
  for (let i = 0; i < nodes; i++) leafPairs += (link[2 * i + 1] + 1) >> 1;

  let end = 0;
  const place = (bytes: number) => {
    const at = end;
    end += (bytes + 15) & ~15;
    return at;
  };
  const boxes = place(8 * 2 * BOX_NUMBERS * pairs);
  const links = place(4 * (ROOT_LINKS + 4 * pairs)) + 4 * ROOT_LINKS;
  const triangles = place(8 * 2 * TRI_STRIDE * leafPairs);
  const stack = place(16 * (tree.depth + 2));
  const queries = place(24 * BLOCK);
  const points = place(24 * BLOCK);
  const squares = place(8 * BLOCK);
  const slots = place(4 * BLOCK);
  const memory = new WebAssembly.Memory({ initial: Math.ceil(end / PAGE_BYTES) });
  const nearest = new WebAssembly.Instance(kernel, { env: { memory } }).exports.nearest as Kernel;
  const doubles = new Float64Array(memory.buffer);
  const integers = new Int32Array(memory.buffer);
  const faces = new Uint32Array(2 * leafPairs);

  let pair = 0;
  for (let node = 0; node < nodes; node++) {
    const first = link[2 * node];
    const count = link[2 * node + 1];
    // Node 0 is the root; sibling pair p holds the nodes 2p + 1 and 2p + 2.
    const side = node === 0 ? 0 : (node - 1) & 1;
    const own = node === 0 ? -1 : (node - 1) >> 1;
    const l = links / 4 + 4 * own + 2 * side;
    integers[l] = count > 0 ? pair : (first - 1) / 2;
    integers[l + 1] = (count + 1) >> 1;
    if (node > 0) {
      const to = boxes / 8 + 2 * BOX_NUMBERS * own + side;
      for (let k = 0; k < BOX_NUMBERS; k++) doubles[to + 2 * k] = box[BOX_NUMBERS * node + k];
    }
    for (let s = 0; s < count; s += 2, pair++) {
      for (let lane = 0; lane < 2; lane++) {
        const slot = first + Math.min(s + lane, count - 1);
        const to = triangles / 8 + 2 * TRI_STRIDE * pair + lane;
        for (let k = 0; k < TRI_STRIDE; k++) doubles[to + 2 * k] = tri[TRI_STRIDE * slot + k];
        faces[2 * pair + lane] = tree.face[slot];
      }
    }
  }

  const asking = doubles.subarray(queries / 8, queries / 8 + 3 * BLOCK);
  const near = doubles.subarray(points / 8, points / 8 + 3 * BLOCK);
  const far = doubles.subarray(squares / 8, squares / 8 + BLOCK);
  const where = integers.subarray(slots / 4, slots / 4 + BLOCK);
  return (from, order, result) => {
    for (let start = 0; start < order.length; start += BLOCK) {
      const n = Math.min(BLOCK, order.length - start);
      for (let i = 0; i < n; i++) {
        const q = 3 * order[start + i];
        for (let k = 0; k < 3; k++) asking[3 * i + k] = from[q + k];
      }
      nearest(boxes, links, triangles, stack, n, queries, points, squares, slots);
      for (let i = 0; i < n; i++) {
        const q = order[start + i];
        for (let k = 0; k < 3; k++) result.points[3 * q + k] = near[3 * i + k];
        result.distances[q] = Math.sqrt(far[i]);
        result.faces[q] = faces[where[i]];
      }
    }
  };
}

function compiled(): WebAssembly.Module | null {
  try {
    return new WebAssembly.Module(Uint8Array.from(atob(NEAREST_WASM), (c) => c.charCodeAt(0)));
  } catch {
    return null;
  }
}
