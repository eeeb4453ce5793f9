import { hypot } from '../geometry/vec.js';
import type { Px } from './calibration.js';

/**
 * Where a point most likely lies, from its fellow on the other side: mirrored in the line that the pairs already set
 * stand square to, through their middles. With no pair yet, in the upright through `middleX`.
 * @param pairs points already set on both sides, right and left
 */
export function mirrored(fellow: Px, pairs: readonly (readonly [Px, Px])[], middleX: number): Px {
  let dx = 0;
  let dy = 0;
  for (const [r, l] of pairs) {
    dx += l[0] - r[0];
    dy += l[1] - r[1];
  }
  const length = hypot(dx, dy);
  const across: Px = length > 0 ? [dx / length, dy / length] : [1, 0];
  const at =
    pairs.length > 0
      ? pairs.reduce((n, [r, l]) => n + (((r[0] + l[0]) / 2) * across[0] + ((r[1] + l[1]) / 2) * across[1]), 0) /
        pairs.length
      : middleX;
  const off = fellow[0] * across[0] + fellow[1] * across[1] - at;
  return [fellow[0] - 2 * off * across[0], fellow[1] - 2 * off * across[1]];
}
