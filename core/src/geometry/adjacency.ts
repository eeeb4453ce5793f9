import { type Mesh, vertexDistance } from './mesh.js';

/** Across an edge lies nothing, or more than one triangle. */
export const OPEN = -1;
export const CROWDED = -2;

/** Which triangle lies across each edge, and the triangles around each vertex. */
export interface Adjacency {
  /**
   * At 3·t + c the triangle across the edge from corner c to the next one; OPEN or CROWDED where there is not just one.
   */
  readonly across: Int32Array;
  /** Triangles around vertex v: `around[first[v]]` to before `around[first[v + 1]]`. */
  readonly first: Uint32Array;
  readonly around: Uint32Array;
}

/**
 * Finds what lies beside what. Works on any triangles, sound or not; neighbours may face opposite ways.
 * @param across each edge of the same triangles, where it is known
 */
export function adjacencyOf(m: Mesh, across: Int32Array = acrossOf(m)): Adjacency {
  return { across, ...trianglesAround(m) };
}

/** The triangles around each vertex, as in `Adjacency`. */
export function trianglesAround(m: Mesh): Pick<Adjacency, 'first' | 'around'> {
  const { triangles } = m;
  const vertices = m.positions.length / 3;
  const first = new Uint32Array(vertices + 1);
  for (let k = 0; k < triangles.length; k++) first[triangles[k] + 1] = first[triangles[k] + 1] + 1;
  for (let v = 0; v < vertices; v++) first[v + 1] = first[v + 1] + first[v];
  const at = first.slice(0, vertices);
  const around = new Uint32Array(triangles.length);
  for (let k = 0; k < triangles.length; k++) {
    const v = triangles[k];
    around[at[v]] = (k / 3) | 0;
    at[v] = at[v] + 1;
  }
  return { first, around };
}

/**
 * Which triangle lies across each edge, as in `Adjacency`. Half edges are sorted into boxes by their lower corner; a
 * box holds about six, of which those with the same other corner are one edge. A map of edges took ten times as long.
 */
export function acrossOf(m: Mesh): Int32Array {
  const { triangles } = m;
  const count = triangles.length;
  const from = new Uint32Array(m.positions.length / 3 + 1);
  for (let k = 0; k < count; k += 3) {
    const a = triangles[k];
    const b = triangles[k + 1];
    const c = triangles[k + 2];
    const ab = Math.min(a, b);
    const bc = Math.min(b, c);
    const ca = Math.min(c, a);
    from[ab] = from[ab] + 1;
    from[bc] = from[bc] + 1;
    from[ca] = from[ca] + 1;
  }
  let sum = 0;
  for (let v = 0; v < from.length; v++) {
    sum += from[v];
    from[v] = sum;
  }
  // Filled from behind, `from` comes to hold where each box begins.
  const boxed = new Uint32Array(count);
  const high = new Uint32Array(count);
  for (let k = count - 1; k >= 0; k--) {
    const a = triangles[k];
    const b = triangles[k % 3 === 2 ? k - 2 : k + 1];
    const v = Math.min(a, b);
    const at = from[v] - 1;
    from[v] = at;
    boxed[at] = k;
    high[at] = Math.max(a, b);
  }
  const across = new Int32Array(count).fill(OPEN);
  for (let v = 0; v + 1 < from.length; v++) {
    const end = from[v + 1];
    for (let i = from[v]; i < end; i++) {
      const k = boxed[i];
      const w = high[i];
      const t = (k / 3) | 0;
      for (let j = i + 1; j < end; j++) {
        if (high[j] !== w) continue;
        const other = boxed[j];
        const u = (other / 3) | 0;
        if (u === t) continue;
        across[k] = across[k] === OPEN ? u : CROWDED;
        across[other] = across[other] === OPEN ? t : CROWDED;
      }
    }
  }
  return across;
}

/** The vertices beside each vertex: `beside[from[v]]` to before `beside[from[v + 1]]`, each once. */
export interface Neighbourhood {
  readonly from: Uint32Array;
  readonly beside: Uint32Array;
}

/** Which vertices an edge joins. */
export function neighbourhoodOf(m: Mesh, { first, around }: Pick<Adjacency, 'first' | 'around'>): Neighbourhood {
  const { triangles } = m;
  const vertices = m.positions.length / 3;
  const from = new Uint32Array(vertices + 1);
  const beside = new Uint32Array(2 * triangles.length);
  const seen = new Int32Array(vertices).fill(-1);
  let n = 0;
  for (let v = 0; v < vertices; v++) {
    from[v] = n;
    const end = first[v + 1];
    for (let k = first[v]; k < end; k++) {
      const t = 3 * around[k];
      for (let c = t; c < t + 3; c++) {
        const w = triangles[c];
        if (w === v || seen[w] === v) continue;
        seen[w] = v;
        beside[n++] = w;
      }
    }
  }
  from[vertices] = n;
  return { from, beside: beside.subarray(0, n) };
}

/** Mean length of the edges, mm, by every seventh vertex; 0 without any. */
export function meanEdge({ positions: p }: Mesh, n: Neighbourhood): number {
  let [sum, count] = [0, 0];
  for (let v = 0; v + 1 < n.from.length; v += 7)
    for (let i = n.from[v]; i < n.from[v + 1]; i++) {
      sum += vertexDistance(p, v, n.beside[i]);
      count++;
    }
  return sum / Math.max(1, count);
}

/**
 * The loops of the open border as vertex numbers, longest first; a loop runs so that the surface lies at its left seen
 * from outside.
 */
export function openLoops(m: Mesh, a: Pick<Adjacency, 'across'>): number[][] {
  const next = new Map<number, number[]>();
  for (let k = 0; k < a.across.length; k++) {
    if (a.across[k] !== OPEN) continue;
    const from = m.triangles[k];
    const to = m.triangles[k - (k % 3) + ((k + 1) % 3)];
    const own = next.get(from);
    if (own) own.push(to);
    else next.set(from, [to]);
  }
  const loops: number[][] = [];
  for (const start of next.keys()) {
    while ((next.get(start)?.length ?? 0) > 0) {
      const loop = [start];
      for (let v = next.get(start)?.pop(); v !== undefined && v !== start; v = next.get(v)?.pop()) loop.push(v);
      loops.push(loop);
    }
  }
  return loops.sort((p, q) => q.length - p.length);
}
