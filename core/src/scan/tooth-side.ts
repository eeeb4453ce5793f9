import type { Neighbourhood } from '../geometry/adjacency.js';
import { type Mesh, triangleArea, vertexDistance } from '../geometry/mesh.js';
import { cutInTwo } from '../geometry/min-cut.js';

/** What a vertex is known to be before the cut: surely of a tooth, surely gum, or neither. */
export const SURELY = { tooth: 1, gum: 2 } as const;

/**
 * Where the surface does not fold a millimetre of border costs 1; where it folds by so much, 1/mm, a quarter, and by
 * more ever less, so that the line goes where the fold is deepest. House value.
 */
const FOLD_UNIT = 0.5;

/**
 * Which vertices are of a tooth: the cheapest border between what is surely crown and what is surely gum, paid for by
 * its length and by how little the surface folds inward there. A flood finds the one weak spot of a fold; a border has
 * to pay for all of its way.
 * @param sure of each vertex, as `SURELY` has it; 0 where it is not known
 * @param concavity of each vertex, 1/mm
 * @param towardsGum how much speaks for gum at each vertex: mm of border on a smooth face for each mm² of it
 * @returns 1 for the vertices of teeth
 */
export function toothSide(
  m: Mesh,
  n: Neighbourhood,
  concavity: Float32Array,
  sure: Uint8Array,
  towardsGum: Float32Array,
): Uint8Array {
  const count = sure.length;
  const node = new Int32Array(count).fill(-1);
  let nodes = 0;
  let arcs = 0;
  for (let v = 0; v < count; v++)
    if (sure[v] === 0) {
      node[v] = nodes++;
      arcs += n.from[v + 1] - n.from[v];
    }
  const open = (t: number) =>
    node[m.triangles[t]] >= 0 || node[m.triangles[t + 1]] >= 0 || node[m.triangles[t + 2]] >= 0;
  const lengths = borderLengths(m, n, open);
  const from = new Uint32Array(nodes + 1);
  const head = new Uint32Array(arcs);
  const cost = new Float32Array(arcs);
  const pull = new Float32Array(nodes);
  for (let t = 0; t < m.triangles.length; t += 3) {
    if (!open(t)) continue;
    const third = triangleArea(m, t) / 3;
    for (let c = 0; c < 3; c++) {
      const v = m.triangles[t + c];
      if (node[v] >= 0) pull[node[v]] = pull[node[v]] - third * towardsGum[v];
    }
  }
  let at = 0;
  for (let v = 0; v < count; v++) {
    const own = node[v];
    if (own < 0) continue;
    for (let i = n.from[v]; i < n.from[v + 1]; i++) {
      const w = n.beside[i];
      const k = Math.max(concavity[v], concavity[w]) / FOLD_UNIT;
      const mm = lengths[i] / (1 + k * k) ** 2;
      if (node[w] >= 0) {
        head[at] = node[w];
        cost[at] = mm;
        at++;
      } else pull[own] = pull[own] + (sure[w] === SURELY.gum ? -mm : mm);
    }
    from[own + 1] = at;
  }
  const back = new Uint32Array(at);
  for (let v = 0; v < nodes; v++)
    for (let a = from[v]; a < from[v + 1]; a++) {
      let b = from[head[a]];
      while (head[b] !== v) b++;
      back[a] = b;
    }
  const side = cutInTwo({ from, head: head.subarray(0, at), back, cost: cost.subarray(0, at), pull });
  return Uint8Array.from(sure, (s, v) => (s === 0 ? (side[node[v]] ?? 0) : s === SURELY.tooth ? 1 : 0));
}

/**
 * Of each pair of vertices beside each other: how long a border between them is, mm.
 * @param wanted whether a triangle, by the place of its first corner, is looked at
 */
function borderLengths(m: Mesh, n: Neighbourhood, wanted: (corner: number) => boolean): Float32Array {
  const p = m.positions;
  const out = new Float32Array(n.beside.length);
  const one = (v: number, w: number, mm: number) => {
    let i = n.from[v];
    while (n.beside[i] !== w) i++;
    out[i] = out[i] + mm;
  };
  for (let t = 0; t < m.triangles.length; t += 3) {
    if (!wanted(t)) continue;
    const area = triangleArea(m, t);
    for (let c = 0; c < 3; c++) {
      const v = m.triangles[t + c];
      const w = m.triangles[t + ((c + 1) % 3)];
      const long = vertexDistance(p, v, w);
      if (long === 0) continue;
      const mm = ((2 / 3) * area) / long;
      one(v, w, mm);
      one(w, v, mm);
    }
  }
  return out;
}
