import { bounds, type Mesh } from '../geometry/mesh.js';
import type { Vec3 } from '../geometry/vec.js';

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
