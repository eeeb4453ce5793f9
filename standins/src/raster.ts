import type { Mesh } from '@radiant/core';
import { type CameraSetting, projector } from './pose.js';

/**
 * What each sample of the picture shows: the number of the nearest triangle, or −1. `SIDE` × `SIDE` samples a pixel.
 */
export interface Samples {
  readonly width: number;
  readonly height: number;
  readonly face: Int32Array;
  /** Of each vertex: px across and down, and depth in mm. */
  readonly projected: Float64Array;
}

export const SIDE = 3;

/**
 * Draws the mesh into a depth buffer. Triangles are small, so that a lens that bends lines is followed by moving
 * vertices.
 */
export function rasterize(mesh: Mesh, s: CameraSetting): Samples {
  const width = s.widthPx * SIDE;
  const height = s.heightPx * SIDE;
  const { positions, triangles } = mesh;
  const put = projector(s);
  const out = new Float64Array(3);
  const projected = new Float64Array(positions.length);
  for (let i = 0; i < positions.length; i += 3) {
    put(positions[i], positions[i + 1], positions[i + 2], out);
    projected.set(out, i);
  }
  const nearest = new Float32Array(width * height).fill(Infinity);
  const face = new Int32Array(width * height).fill(-1);
  for (let t = 0; t < triangles.length; t += 3) {
    const a = 3 * triangles[t];
    const b = 3 * triangles[t + 1];
    const c = 3 * triangles[t + 2];
    const ax = projected[a] * SIDE;
    const ay = projected[a + 1] * SIDE;
    const bx = projected[b] * SIDE;
    const by = projected[b + 1] * SIDE;
    const cx = projected[c] * SIDE;
    const cy = projected[c + 1] * SIDE;
    const x0 = Math.max(0, Math.ceil(Math.min(ax, bx, cx) - 0.5));
    const x1 = Math.min(width - 1, Math.floor(Math.max(ax, bx, cx) - 0.5));
    const y0 = Math.max(0, Math.ceil(Math.min(ay, by, cy) - 0.5));
    const y1 = Math.min(height - 1, Math.floor(Math.max(ay, by, cy) - 0.5));
    if (x0 > x1 || y0 > y1) continue;
    const area = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
    if (area === 0) continue;
    const da = projected[a + 2];
    const db = projected[b + 2];
    const dc = projected[c + 2];
    if (da <= 1 || db <= 1 || dc <= 1) continue;
    for (let y = y0; y <= y1; y++) {
      const py = y + 0.5;
      for (let x = x0; x <= x1; x++) {
        const px = x + 0.5;
        const wa = ((bx - px) * (cy - py) - (by - py) * (cx - px)) / area;
        if (wa < 0) continue;
        const wb = ((cx - px) * (ay - py) - (cy - py) * (ax - px)) / area;
        if (wb < 0 || wa + wb > 1) continue;
        const depth = 1 / (wa / da + wb / db + (1 - wa - wb) / dc);
        const at = y * width + x;
        if (depth < nearest[at]) {
          nearest[at] = depth;
          face[at] = t / 3;
        }
      }
    }
  }
  return { width, height, face, projected };
}
