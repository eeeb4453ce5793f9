import { smoothstep } from '../geometry/curve.js';
import { directionToParent, type Frame, toLocal, toParent } from '../geometry/frame.js';
import type { Mesh } from '../geometry/mesh.js';
import { rayCaster } from '../geometry/tree/ray.js';
import type { SignedField } from '../geometry/tree/signed.js';
import type { Vec3 } from '../geometry/vec.js';
import { type Crown, ringVertex } from './crown.js';

/** From how far behind a tooth it is looked at from its palatal side, mm. */
const BEHIND_MM = 16;
/** Over the edge that is there the scan's surface takes over from the planned edge between these, mm. House values. */
const FROM_EDGE_MM = { begins: 0.3, whole: 1.6 } as const;
/** Towards the contacts the form stays: from so far out, as a share of the half width. House values. */
const TO_SIDES = { whole: 0.78, none: 0.97 } as const;
/** Facial and palatal surface stay apart by at least this, mm. */
const THINNEST_MM = 0.5;
/** Further than this no surface is moved: it would not be the same one, mm. */
const FURTHEST_MM = 3;
/** Less than this of a surface's normal points back where it is the palatal side no more. House value. */
const FACING = 0.2;
/** Half the middle of the edge by which the tooth's own edge is found, as a share of the half width. */
const EDGE_MIDDLE = 0.5;

/**
 * A planned crown with the palatal surface of the tooth that is there. A veneer covers the face and the edge: behind
 * the edge's palatal corner the tooth stays as it is, so nothing is added there and the bite does not meet it. Between
 * the edge that is there and one that is planned longer the form leads from the one to the other; at the contacts the
 * form stays.
 * @param mesh the crown in its place
 * @param there the tooth's own surface
 */
export function withOwnPalatal(mesh: Mesh, crown: Crown, frame: Frame, there: SignedField): Mesh {
  const by = palatalShift(crown, frame, there);
  const positions = mesh.positions.slice();
  const back = directionToParent(frame, [0, 1, 0]);
  for (const [v, mm] of by) for (let i = 0; i < 3; i++) positions[3 * v + i] = positions[3 * v + i] + mm * back[i as 0];
  return { positions, triangles: mesh.triangles };
}

/** How far back (+) each palatal vertex has to go along the crown's own y, mm, by its number. */
function palatalShift(crown: Crown, frame: Frame, there: SignedField): Map<number, number> {
  const { positions: p } = crown.mesh;
  const { ringSize, rings } = crown;
  const half = ringSize / 2;
  const edgeUp = Math.max(0, ownEdge(crown, frame, there));
  const own = smoothed(ownShift(crown, frame, there), rings, half - 1);
  const out = new Map<number, number>();
  for (let k = half + 1; k < ringSize; k++) {
    const across = Math.abs(Math.cos((2 * Math.PI * k) / ringSize));
    const side = 1 - smoothstep(TO_SIDES.whole, TO_SIDES.none, across);
    if (side === 0) continue;
    for (let r = 0; r < rings; r++) {
      const v = ringVertex(crown, r, k);
      const share = side * smoothstep(FROM_EDGE_MM.begins, FROM_EDGE_MM.whole, p[3 * v + 2] - edgeUp);
      if (share === 0) continue;
      const front = p[3 * ringVertex(crown, r, ringSize - k) + 1];
      const most = Math.min(0, front + THINNEST_MM - p[3 * v + 1]);
      out.set(v, Math.max(most, share * own[r * (half - 1) + k - half - 1]));
    }
  }
  return out;
}

/**
 * From each palatal vertex along the crown's y to the tooth's own surface, mm back (+), ring by ring; where the tooth
 * ends, over its neck or below its edge, the last one below or above.
 */
function ownShift(crown: Crown, frame: Frame, there: SignedField): Float64Array {
  const { positions: p } = crown.mesh;
  const { ringSize, rings } = crown;
  const half = ringSize / 2;
  const row = half - 1;
  const cast = rayCaster(there.tree);
  const back = directionToParent(frame, [0, 1, 0]);
  const forward: Vec3 = [-back[0], -back[1], -back[2]];
  const out = new Float64Array(rings * row).fill(Number.NaN);
  for (let k = 0; k < row; k++) {
    for (let r = 0; r < rings; r++) {
      const v = 3 * ringVertex(crown, r, half + 1 + k);
      const hit = cast.first(toParent(frame, [p[v], BEHIND_MM, p[v + 2]]), forward, BEHIND_MM + 6);
      if (!hit) continue;
      const n = 3 * hit.face;
      const facing =
        there.faceNormals[n] * back[0] + there.faceNormals[n + 1] * back[1] + there.faceNormals[n + 2] * back[2];
      const own = BEHIND_MM - hit.distance - p[v + 1];
      // What has turned away is the neck's end or the edge, not the palatal surface.
      if (facing > FACING && Math.abs(own) <= FURTHEST_MM) out[r * row + k] = own;
    }
    carried(out, k, row, rings);
  }
  return out;
}

/** Fills what is not known in a column from the nearest that is; nothing where none is. */
function carried(values: Float64Array, k: number, row: number, rings: number): void {
  const pass = (from: number, to: number, step: number) => {
    let last = Number.NaN;
    for (let r = from; r !== to; r += step) {
      const at = r * row + k;
      if (Number.isNaN(values[at])) values[at] = last;
      else last = values[at];
    }
  };
  // From the edge to the neck, then what lies below the first one met.
  pass(rings - 1, -1, -1);
  pass(0, rings, 1);
  for (let r = 0; r < rings; r++) if (Number.isNaN(values[r * row + k])) values[r * row + k] = 0;
}

/** Each value with its neighbours, so that triangles of the scan do not show in the planned surface. */
function smoothed(values: Float64Array, rings: number, row: number): Float64Array {
  const out = new Float64Array(values.length);
  for (let r = 0; r < rings; r++)
    for (let k = 0; k < row; k++) {
      let [sum, weight] = [0, 0];
      for (let i = -1; i <= 1; i++)
        for (let j = -1; j <= 1; j++) {
          const [q, c] = [r + i, k + j];
          if (q < 0 || q >= rings || c < 0 || c >= row) continue;
          const w = (2 - Math.abs(i)) * (2 - Math.abs(j));
          sum += w * values[q * row + c];
          weight += w;
        }
      out[r * row + k] = sum / weight;
    }
  return out;
}

/** Where the tooth's own edge lies over the planned one, in its middle, mm. */
function ownEdge(crown: Crown, frame: Frame, there: SignedField): number {
  const { positions: q } = there.mesh;
  const reach = (EDGE_MIDDLE * crown.size.widthMm) / 2;
  let low = Infinity;
  for (let i = 0; i < q.length; i += 3) {
    const at: Vec3 = toLocal(frame, [q[i], q[i + 1], q[i + 2]]);
    if (Math.abs(at[0]) <= reach) low = Math.min(low, at[2]);
  }
  return Number.isFinite(low) ? low : 0;
}
