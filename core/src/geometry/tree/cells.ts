import { vertex } from '../mesh.js';
import { cross, dot, sub, type Vec3 } from '../vec.js';
import { entry, type RayHit } from './ray.js';

/**
 * A surface's triangles sorted into cells of space, for the one ray under a pointer: four bytes a triangle, and built
 * in a fraction of the time of a search tree (build.ts), which pays where a surface is asked thousands of times.
 *
 *   box    6 numbers a cell   minX minY minZ maxX maxY maxZ of its triangles
 *   first  1 number a cell    where its triangles begin in `faces`; one more at the end
 *   faces  1 number a triangle
 */
export interface Cells {
  readonly box: Float64Array;
  readonly first: Uint32Array;
  readonly faces: Uint32Array;
}

/** Corners x, y, z in mm, and three corners' numbers a triangle. */
export interface Surface {
  readonly positions: ArrayLike<number>;
  readonly triangles: Uint32Array;
}

/** About as many triangles share a cell: a ray tests the boxes of all cells and the triangles of some. */
const TRIANGLES_A_CELL = 200;
/** A curved sheet fills about so many cells of a cube of n³: this often n². */
const SHEETS = 4;
const MOST_A_SIDE = 64;

export function cellsOf({ positions, triangles }: Surface): Cells {
  const n = triangles.length / 3;
  const a = Math.max(1, Math.min(MOST_A_SIDE, Math.floor(Math.sqrt(n / TRIANGLES_A_CELL / SHEETS))));
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let k = 0; k < 3; k++)
    for (let i = k; i < positions.length; i += 3) {
      const v = positions[i];
      if (v < low[k]) low[k] = v;
      if (v > high[k]) high[k] = v;
    }
  const step = a / (Math.max(high[0] - low[0], high[1] - low[1], high[2] - low[2]) || 1);
  const along = (sum: number, k: number) => Math.max(0, Math.min(a - 1, Math.floor((sum / 3 - low[k]) * step)));
  const cellOf = new Uint32Array(n);
  const counts = new Uint32Array(a * a * a);
  for (let t = 0; t < n; t++) {
    const p = 3 * triangles[3 * t];
    const q = 3 * triangles[3 * t + 1];
    const r = 3 * triangles[3 * t + 2];
    let cell = 0;
    for (let k = 0; k < 3; k++) cell = a * cell + along(positions[p + k] + positions[q + k] + positions[r + k], k);
    cellOf[t] = cell;
    counts[cell] = counts[cell] + 1;
  }
  // Empty cells are left out.
  const number = new Int32Array(counts.length).fill(-1);
  const starts: number[] = [];
  let at = 0;
  for (let c = 0; c < counts.length; c++) {
    if (counts[c] === 0) continue;
    number[c] = starts.length;
    starts.push(at);
    at += counts[c];
  }
  const first = Uint32Array.from([...starts, n]);
  const next = first.slice();
  const faces = new Uint32Array(n);
  const box = new Float64Array(6 * starts.length).map((_, i) => (i % 6 < 3 ? Infinity : -Infinity));
  for (let t = 0; t < n; t++) {
    const c = number[cellOf[t]];
    faces[next[c]] = t;
    next[c] = next[c] + 1;
    for (let v = 0; v < 3; v++) {
      const p = 3 * triangles[3 * t + v];
      for (let k = 0; k < 3; k++) {
        const x = positions[p + k];
        if (x < box[6 * c + k]) box[6 * c + k] = x;
        if (x > box[6 * c + 3 + k]) box[6 * c + 3 + k] = x;
      }
    }
  }
  return { box, first, faces };
}

/**
 * The first triangle that a ray meets, from either side (Möller & Trumbore 1997, J Graphics Tools 2:21, from memory).
 * @param direction of unit length
 */
export function firstThrough(cells: Cells, surface: Surface, origin: Vec3, direction: Vec3): RayHit | undefined {
  // A direction along an axis would divide by zero; this stays finite and gives the same answer.
  const [ix, iy, iz] = [1 / (direction[0] || 1e-30), 1 / (direction[1] || 1e-30), 1 / (direction[2] || 1e-30)];
  let best: RayHit | undefined;
  for (let c = 0; c + 1 < cells.first.length; c++) {
    const near = entry(cells.box, 6 * c, origin[0], origin[1], origin[2], ix, iy, iz, best?.distance ?? Infinity);
    if (near === Infinity) continue;
    for (let i = cells.first[c]; i < cells.first[c + 1]; i++) {
      const face = cells.faces[i];
      const distance = meets(surface, face, origin, direction);
      if (distance < (best?.distance ?? Infinity)) best = { distance, face };
    }
  }
  return best;
}

function meets(surface: Surface, face: number, o: Vec3, d: Vec3): number {
  const [a, b, c] = [0, 1, 2].map((k) => vertex(surface, surface.triangles[3 * face + k])) as [Vec3, Vec3, Vec3];
  const [u, v] = [sub(b, a), sub(c, a)];
  const p = cross(d, v);
  const det = dot(u, p);
  if (det === 0) return Infinity;
  const s = sub(o, a);
  const q = cross(s, u);
  const [alongU, alongV, t] = [dot(s, p) / det, dot(d, q) / det, dot(v, q) / det];
  return alongU >= 0 && alongV >= 0 && alongU + alongV <= 1 && t >= 0 ? t : Infinity;
}
