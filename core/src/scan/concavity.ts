import { meanEdge, type Neighbourhood } from '../geometry/adjacency.js';
import { type Mesh, vertexNormals } from '../geometry/mesh.js';

/** A surface smoothed for looking at its folds, with its normals; same vertices. */
export interface Smooth {
  readonly mesh: Mesh;
  readonly normals: Float64Array;
}

/**
 * A scanner's noise goes and a fold between tooth and gum stays where smoothing reaches so far, mm: the same on a fine
 * scan as on a coarse one. House value.
 */
const REACH_MM = 0.31;
/** Rounds of smoothing, at least and at most. */
const ROUNDS = { least: 1, most: 8 } as const;

/** How many rounds reach so far: each spreads by half an edge's square. */
export function roundsFor(m: Mesh, n: Neighbourhood): number {
  const edgeMm = meanEdge(m, n) || REACH_MM;
  return Math.max(ROUNDS.least, Math.min(ROUNDS.most, Math.round(2 * (REACH_MM / edgeMm) ** 2)));
}

/** Every vertex drawn towards the middle of its neighbours, some rounds. */
export function smoothed(m: Mesh, n: Neighbourhood, rounds = roundsFor(m, n)): Smooth {
  let p = m.positions;
  const [one, other] = [new Float64Array(p.length), new Float64Array(p.length)];
  for (let r = 0; r < rounds; r++) {
    const out = r % 2 === 0 ? one : other;
    for (let v = 0; v < p.length / 3; v++) {
      const i0 = n.from[v];
      const i1 = n.from[v + 1];
      let [x, y, z] = [0, 0, 0];
      for (let i = i0; i < i1; i++) {
        const w = 3 * n.beside[i];
        x += p[w];
        y += p[w + 1];
        z += p[w + 2];
      }
      const k = Math.max(1, i1 - i0);
      const share = i1 > i0 ? 0.5 : 0;
      out[3 * v] = p[3 * v] * (1 - share) + (share * x) / k;
      out[3 * v + 1] = p[3 * v + 1] * (1 - share) + (share * y) / k;
      out[3 * v + 2] = p[3 * v + 2] * (1 - share) + (share * z) / k;
    }
    p = out;
  }
  const mesh = { positions: p, triangles: m.triangles };
  return { mesh, normals: vertexNormals(mesh) };
}

/**
 * How strongly the surface folds inward at each vertex, 1/mm: the deepest of its curvatures along the edges, meant over
 * the vertices beside it; 0 where it bulges.
 */
export function concavityOf({ mesh, normals }: Smooth, n: Neighbourhood): Float32Array {
  const p = mesh.positions;
  const own = new Float32Array(p.length / 3);
  for (let v = 0; v < own.length; v++) {
    let deepest = 0;
    for (let i = n.from[v]; i < n.from[v + 1]; i++) {
      const w = n.beside[i];
      let [along, square] = [0, 0];
      for (let k = 0; k < 3; k++) {
        const d = p[3 * w + k] - p[3 * v + k];
        along += d * (normals[3 * w + k] - normals[3 * v + k]);
        square += d * d;
      }
      if (square > 0 && -along / square > deepest) deepest = -along / square;
    }
    own[v] = deepest;
  }
  const out = new Float32Array(own.length);
  for (let v = 0; v < own.length; v++) {
    let sum = own[v];
    const i0 = n.from[v];
    const i1 = n.from[v + 1];
    for (let i = i0; i < i1; i++) sum += own[n.beside[i]];
    out[v] = sum / (1 + i1 - i0);
  }
  return out;
}
