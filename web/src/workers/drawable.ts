import { type Mesh, vertexNormals } from '@radiant/core';

/** A surface ready for drawing: 32-bit, in the mouth's coordinates, mm. */
export interface DrawableMesh {
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  readonly triangles: Uint32Array;
}

export function drawable(m: Mesh): DrawableMesh {
  return { positions: Float32Array.from(m.positions), normals: Float32Array.from(vertexNormals(m)), triangles: m.triangles.slice() };
}

/** What of a surface can be handed over between threads without a copy. */
export const buffers = (m: DrawableMesh) => [m.positions.buffer, m.normals.buffer, m.triangles.buffer] as ArrayBuffer[];
