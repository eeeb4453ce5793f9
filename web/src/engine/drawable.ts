import { type Mesh, type SegmentedScan, vertexNormals } from '@radiant/core';
import type { JawView } from './views.js';

/** A surface ready for drawing: 32-bit, in the mouth's coordinates, mm. */
export interface DrawableMesh {
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  readonly triangles: Uint32Array;
}

export function drawable(m: Mesh): DrawableMesh {
  return {
    positions: new Float32Array(m.positions),
    normals: new Float32Array(vertexNormals(m)),
    triangles: m.triangles.slice(),
  };
}

/** What of a surface can be handed over between threads without a copy. */
export const buffers = (m: DrawableMesh) => [m.positions.buffer, m.normals.buffer, m.triangles.buffer] as ArrayBuffer[];

/** A scan's teeth and gum for drawing, and what of them can be handed over. */
export function drawableJaw(scan: SegmentedScan): { readonly view: JawView; readonly buffers: ArrayBuffer[] } {
  const teeth = [...scan.teeth].map(([tooth, mesh]) => ({ tooth, mesh: drawable(mesh) }));
  const gum = drawable(scan.rest);
  return { view: { teeth, gum }, buffers: [...teeth.flatMap((t) => buffers(t.mesh)), ...buffers(gum)] };
}
