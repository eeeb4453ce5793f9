import { meanEdge, type Neighbourhood } from '../geometry/adjacency.js';
import { type Mesh, vertexDistance } from '../geometry/mesh.js';

/** A surface of fewer vertices, and which of them each vertex of the fine one went into. */
export interface Thinned {
  readonly mesh: Mesh;
  readonly of: Uint32Array;
  /** Of each vertex, the one of the fine surface about which it was gathered. */
  readonly middle: Uint32Array;
}

/**
 * What has shorter edges than this tells folds no better, mm: it is looked at thinned, to about twice as long ones, as
 * most scanners give them. House value.
 */
export const FINE_MM = 0.15;

/**
 * The surface with every vertex gathered into one about which it lies, at the middle of those that were; nothing where
 * the edges are long enough. Neighbours along the surface are gathered, never what lies near across a gap.
 * @param n which vertices lie beside each other
 */
export function thinned(m: Mesh, n: Neighbourhood): Thinned | undefined {
  if (meanEdge(m, n) >= FINE_MM) return undefined;
  const gathered = gather(m, n);
  const { of, middle } = gathered;
  const positions = new Float64Array(3 * middle.length);
  const counts = new Uint32Array(middle.length);
  for (let v = 0; v < of.length; v++) {
    const own = of[v];
    counts[own] = counts[own] + 1;
    for (let k = 0; k < 3; k++) positions[3 * own + k] = positions[3 * own + k] + m.positions[3 * v + k];
  }
  for (let i = 0; i < positions.length; i++) positions[i] = positions[i] / counts[(i / 3) | 0];
  const triangles = new Uint32Array(m.triangles.length);
  let at = 0;
  for (let t = 0; t < m.triangles.length; t += 3) {
    const a = of[m.triangles[t]];
    const b = of[m.triangles[t + 1]];
    const c = of[m.triangles[t + 2]];
    if (a === b || b === c || c === a) continue;
    triangles[at] = a;
    triangles[at + 1] = b;
    triangles[at + 2] = c;
    at += 3;
  }
  return { mesh: { positions, triangles: triangles.slice(0, at) }, of, middle };
}

/** Fewer free vertices beside it than this make no middle of their own: they go into those beside them. House value. */
const LEAST_FREE = 3;

function gather(m: Mesh, n: Neighbourhood): Omit<Thinned, 'mesh'> {
  const count = m.positions.length / 3;
  const FREE = 0xffffffff;
  const of = new Uint32Array(count).fill(FREE);
  const middle = new Uint32Array(count);
  let made = 0;
  const begin = (v: number) => {
    middle[made] = v;
    of[v] = made;
    for (let i = n.from[v]; i < n.from[v + 1]; i++) {
      const w = n.beside[i];
      if (of[w] === FREE) of[w] = made;
    }
    made++;
  };
  for (let v = 0; v < count; v++) {
    if (of[v] !== FREE) continue;
    let free = 0;
    for (let i = n.from[v]; i < n.from[v + 1]; i++) if (of[n.beside[i]] === FREE) free++;
    if (free >= LEAST_FREE) begin(v);
  }
  for (let v = 0; v < count; v++) {
    if (of[v] !== FREE) continue;
    let [nearest, least] = [FREE, Infinity];
    for (let i = n.from[v]; i < n.from[v + 1]; i++) {
      const own = of[n.beside[i]];
      if (own === FREE) continue;
      const far = vertexDistance(m.positions, v, middle[own]);
      if (far < least) [nearest, least] = [own, far];
    }
    if (nearest === FREE) begin(v);
    else of[v] = nearest;
  }
  return { of, middle: middle.slice(0, made) };
}

/** The labels of a thinned surface's vertices on the fine one's. @param fixed labels of the fine surface that stay */
export function onFine(
  labels: Uint8Array,
  { of }: Pick<Thinned, 'of'>,
  fixed: ReadonlyMap<number, number> = new Map(),
): Uint8Array {
  const fine = new Uint8Array(of.length);
  for (let v = 0; v < of.length; v++) fine[v] = labels[of[v]];
  for (const [v, label] of fixed) fine[v] = label;
  return fine;
}
