import { plannedField } from '../contour/plan.js';
import { closestPoints } from '../geometry/tree/closest.js';
import { ZONE_ORDER } from '../reduction/target-zones.js';
import type { PrepMap, PrepTooth } from './prep-tooth.js';
import { type SeenField, seenDistances } from './seen.js';

/** What a scan of the provisional in place tells of each vertex of the prepared tooth's scan, mm. */
export interface ProvisionalOver {
  /** From the planned contour over the vertex out to the provisional's surface; below 0 where it lies under the plan. */
  readonly overMm: Float64Array;
  /** How thick the provisional is over the vertex; below 0 where the tooth stands out of it. Both NaN where unseen. */
  readonly thickMm: Float64Array;
}

/**
 * Lays a provisional's scan over a prepared tooth: its surface is looked for at the planned contour's place over each
 * vertex, so that the base on which a scanned tooth ends is not taken for a thin place beside it.
 * @param provisional the tooth in the provisional's scan, closed, in the arch's own frame
 */
export function provisionalOver(
  { scan, planned }: Pick<PrepTooth, 'scan' | 'planned'>,
  map: PrepMap,
  provisional: SeenField,
): ProvisionalOver {
  const { positions } = scan.mesh;
  const places = closestPoints(plannedField(planned).tree, positions).points.slice();
  const edge = ZONE_ORDER.indexOf('edge');
  const { z } = planned.frame;
  for (let v = 0; v < map.zone.length; v++) {
    if (map.zone[v] !== edge) continue;
    // On a cut edge the contour is looked for along the axis, as its room is.
    for (let k = 0; k < 3; k++)
      places[3 * v + k] = (positions[3 * v + k] as number) - (map.roomMm[v] as number) * (z[k] as number);
  }
  const overMm = seenDistances(provisional, places).map((mm) => -mm);
  return { overMm, thickMm: overMm.map((mm, v) => (map.roomMm[v] as number) + mm) };
}
