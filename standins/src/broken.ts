import { bounds, type Fdi, hypot, type Mesh, sideOf } from '@radiant/core';

/** A corner that has broken off: so far up from the edge and in from the side, mm. */
export interface Broken {
  readonly corner: 'mesial' | 'distal';
  readonly upMm: number;
  readonly inMm: number;
}

/**
 * A crown without a corner: what lies beyond the plane of the break comes to lie on it, so that the crown stays closed and
 * keeps its vertices. In the crown's own frame, where the edge lies at the lowest z and x grows to the patient's left.
 */
export function brokenCrown(mesh: Mesh, tooth: Fdi, { corner, upMm, inMm }: Broken): Mesh {
  const { min, max } = bounds(mesh);
  const toMesial = sideOf(tooth) === 'right' ? 1 : -1;
  const side = corner === 'mesial' ? toMesial : -toMesial;
  const outer = side > 0 ? max[0] : -min[0];
  // Through the place so far up the side, and the one so far in along the edge.
  const long = hypot(upMm, inMm);
  const [nx, nz] = [(side * upMm) / long, -inMm / long];
  const at = (upMm * outer - inMm * (min[2] + upMm)) / long;
  const positions = Float64Array.from(mesh.positions);
  for (let v = 0; v < positions.length; v += 3) {
    const beyond = (positions[v] as number) * nx + (positions[v + 2] as number) * nz - at;
    if (beyond <= 0) continue;
    positions[v] = (positions[v] as number) - beyond * nx;
    positions[v + 2] = (positions[v + 2] as number) - beyond * nz;
  }
  return { positions, triangles: mesh.triangles };
}
