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
  const cast = rayCaster(there.tree);
  const forward = directionToParent(frame, [0, -1, 0]);
  const edgeUp = Math.max(0, ownEdge(crown, frame, there));
  const out = new Map<number, number>();
  for (let k = half + 1; k < ringSize; k++) {
    const across = Math.abs(Math.cos((2 * Math.PI * k) / ringSize));
    const side = 1 - smoothstep(TO_SIDES.whole, TO_SIDES.none, across);
    if (side === 0) continue;
    // Above the palatal neck there is no tooth to be met: the last shift below is kept.
    let last = 0;
    for (let r = rings - 1; r >= 0; r--) {
      const v = ringVertex(crown, r, k);
      const [x, y, z] = [p[3 * v], p[3 * v + 1], p[3 * v + 2]];
      const share = side * smoothstep(FROM_EDGE_MM.begins, FROM_EDGE_MM.whole, z - edgeUp);
      if (share === 0) continue;
      const hit = cast.first(toParent(frame, [x, BEHIND_MM, z]), forward, BEHIND_MM + 6);
      const front = p[3 * ringVertex(crown, r, ringSize - k) + 1];
      if (hit) {
        const own = Math.max(BEHIND_MM - hit.distance, front + THINNEST_MM) - y;
        if (Math.abs(own) <= FURTHEST_MM) last = own;
      }
      out.set(v, share * last);
    }
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
