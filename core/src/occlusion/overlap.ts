import { bounds, type Mesh } from '../geometry/mesh.js';
import { section } from '../geometry/section.js';

/** How a pair of centrals stands to one another, mm. */
export interface Overlap {
  /** The upper edge below the lower one (+). */
  readonly overbiteMm: number;
  /**
   * From the facial side of the upper edge back to the facial side of the lower tooth at its level; none where the
   * lower tooth does not reach it.
   */
  readonly overjetMm: number | undefined;
}

/** The edge's facial side is read this far from its end, mm. */
const EDGE_READ_MM = 0.25;

/** Overbite and overjet of an upper central over the lower one below it, in the mouth's coordinates. */
export function overlapOf(upper: Mesh, lower: Mesh): Overlap {
  const upperEdge = bounds(upper).min[2];
  const lowerEdge = bounds(lower).max[2];
  const level = Math.min(upperEdge + EDGE_READ_MM, lowerEdge - EDGE_READ_MM);
  const [upperFront, lowerFront] = [foremost(upper, upperEdge + EDGE_READ_MM), foremost(lower, level)];
  return {
    overbiteMm: lowerEdge - upperEdge,
    overjetMm: upperFront === undefined || lowerFront === undefined ? undefined : lowerFront - upperFront,
  };
}

/** The most forward place of a mesh at a height, y in mm. */
function foremost(m: Mesh, z: number): number | undefined {
  let y = Infinity;
  for (const line of section(m, { origin: [0, 0, z], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] }))
    for (let i = 1; i < line.points.length; i += 2) y = Math.min(y, line.points[i]);
  return Number.isFinite(y) ? y : undefined;
}
