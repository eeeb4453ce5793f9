import { meshToArch } from '../contour/arch.js';
import type { SegmentedScan } from '../contour/scan.js';
import { bounds, type Mesh } from '../geometry/mesh.js';
import { hypot, type Vec3 } from '../geometry/vec.js';
import type { Fdi, Jaw } from '../teeth/notation.js';
import type { Told } from './own-scan.js';
import { PICKED } from './row-path.js';

/** Round the middle of a tooth that was there something stands as high as a stump, or the tooth is gone, mm. */
const ABOUT_MM = 1.5;
/** Of a crown's length from its edge, where the lowest stump ends. House value. */
const STUMP_SHARE = 0.75;

/**
 * What an earlier scan of the same jaw tells of a later one that was laid on it: where each tooth stands, also where it
 * was cut for a crown and its own form says little. A tooth of which nothing stands any more is not told.
 * @param inMouth the later scan, in the same mouth
 */
export function toldByFirst(first: SegmentedScan, inMouth: Mesh, jaw: Jaw): Told {
  const { positions: p } = meshToArch(jaw, inMouth);
  const teeth = new Map<Fdi, Vec3>();
  for (const [tooth, mesh] of first.teeth) {
    if (tooth % 10 > PICKED) continue;
    const { min, max } = bounds(meshToArch(jaw, mesh));
    const [x, y] = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2];
    let low = Infinity;
    for (let v = 0; v < p.length; v += 3) if (hypot(p[v] - x, p[v + 1] - y) < ABOUT_MM) low = Math.min(low, p[v + 2]);
    if (low < min[2] + STUMP_SHARE * (max[2] - min[2])) teeth.set(tooth, [x, y, low]);
  }
  return { teeth };
}
