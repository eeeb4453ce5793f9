import { adjacencyOf, type Neighbourhood, neighbourhoodOf } from '../geometry/adjacency.js';
import type { Mesh } from '../geometry/mesh.js';

const known = new WeakMap<Mesh, Neighbourhood>();

/** Which vertices of a scan lie beside each other, worked out once for all that look at it. */
export function hoodOf(m: Mesh): Neighbourhood {
  const own = known.get(m) ?? neighbourhoodOf(m, adjacencyOf(m));
  known.set(m, own);
  return own;
}
