import { MADE } from '../contour/scan.js';
import { bounds, type Mesh } from '../geometry/mesh.js';
import { closestPoints } from '../geometry/tree/closest.js';
import { type SignedField, signedDistances, signedField } from '../geometry/tree/signed.js';
import type { Vec3 } from '../geometry/vec.js';

/** A scanned tooth, and which of its surface was made up to close it. */
export interface SeenField extends SignedField {
  /** Of each triangle, as in `MADE`; nothing where all was seen. */
  readonly made?: Uint8Array;
}

export const seenField = (mesh: Mesh, made: Uint8Array | undefined): SeenField => ({
  ...signedField(mesh),
  ...(made && { made }),
});

const unseen = new WeakMap<Uint8Array, Uint8Array>();

/**
 * Of each vertex how what it stands on was made, as in `MADE`: the rim of what was seen counts with what closes it,
 * since what lies beyond is nearest to the rim.
 */
export function madeAround({ mesh, made }: SeenField): Uint8Array {
  if (!made) return new Uint8Array(mesh.positions.length / 3);
  const known = unseen.get(made);
  if (known) return known;
  const own = new Uint8Array(mesh.positions.length / 3);
  made.forEach((m, t) => {
    if (m !== MADE.seen)
      for (let c = 0; c < 3; c++) {
        const v = mesh.triangles[3 * t + c] as number;
        own[v] = Math.max(own[v] as number, m);
      }
  });
  unseen.set(made, own);
  return own;
}

/** Whether a triangle was seen, and lies not on the rim of what was. */
export function isSeen(field: SeenField): (triangle: number) => boolean {
  if (!field.made) return () => true;
  const around = madeAround(field);
  const { triangles } = field.mesh;
  return (t) => [0, 1, 2].every((c) => around[triangles[3 * t + c] as number] === MADE.seen);
}

/** Signed distances as `signedDistances` has them; NaN where what lies nearest was not seen. */
export function seenDistances(field: SeenField, points: Float64Array): Float64Array {
  const out = signedDistances(field, points);
  if (!field.made) return out;
  const seen = isSeen(field);
  closestPoints(field.tree, points).faces.forEach((t, i) => {
    if (!seen(t)) out[i] = Number.NaN;
  });
  return out;
}

/**
 * What of a closed tooth a scan has surely seen, its share of the height from the edge: the rest may lie under the gum.
 */
const SEEN_SHARE = 0.6;

/**
 * Whether a place of a closed tooth in its arch's frame lies on the crown that a scan has seen: edges lie at the foot
 * of z.
 */
export function crownOnly(m: Mesh): (at: Vec3) => boolean {
  const { min, max } = bounds(m);
  const top = min[2] + SEEN_SHARE * (max[2] - min[2]);
  return (at) => at[2] <= top;
}
