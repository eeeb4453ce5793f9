import type { PlannedTooth } from '../contour/plan.js';
import { type Frame, toLocal } from '../geometry/frame.js';
import type { Mesh } from '../geometry/mesh.js';
import type { Vec3 } from '../geometry/vec.js';

/** The sheet goes on beyond the neck by so much, mm, so that a row at the gum line still meets it. */
const BEYOND_MM = 4;

/** What looks towards the edge more than this is the edge and no side: the sine of 40°. House value. */
const EDGEWARD = 0.64;
/** From where the side ends the sheet goes straight on beyond the edge, a little each ring, mm. */
const DOWN_MM = 0.05;

/** The rings of a planned crown in a frame, and where they look: what every sheet of it is made of. */
export interface Rings {
  readonly at: Float64Array;
  readonly normals: Float64Array;
}

/** @param frame the crown's own or a parallel one */
export function ringsIn({ crown, mesh }: PlannedTooth, frame: Frame): Rings {
  const { ringSize, rings } = crown;
  const count = ringSize * rings;
  const at = new Float64Array(3 * count);
  for (let v = 0; v < count; v++)
    at.set(toLocal(frame, mesh.positions.subarray(3 * v, 3 * v + 3) as unknown as Vec3), 3 * v);
  return { at, normals: sheetNormals(at, ringSize, rings) };
}

/**
 * The side of a planned crown from neck to edge, without what closes it, moved inward: an open sheet in the frame of its
 * rings, with one more ring beyond the neck. Where the side turns into the edge the sheet goes straight on, or what is
 * cut of a face would stop short of it. As brushed, not as the form was.
 * @param by how far, mm, at a place of the surface in that frame
 */
export function offsetSheet(planned: PlannedTooth, { at, normals }: Rings, by: (at: Vec3) => number): Mesh {
  const { ringSize, rings } = planned.crown;
  const count = ringSize * rings;
  const positions = new Float64Array(3 * (count + ringSize));
  for (let k = 0; k < ringSize; k++) {
    let around = true;
    for (let r = 0; r < rings; r++) {
      const v = r * ringSize + k;
      const [p, n] = [at, normals].map((own) => own.subarray(3 * v, 3 * v + 3) as unknown as Vec3) as [Vec3, Vec3];
      around &&= r < rings / 2 || n[2] > -EDGEWARD;
      const mm = by([p[0], p[1], p[2]]);
      const before = positions.subarray(3 * (ringSize + v - ringSize), 3 * (ringSize + v - ringSize) + 3);
      const to = around
        ? [p[0] - mm * n[0], p[1] - mm * n[1], p[2] - mm * n[2]]
        : [before[0] as number, before[1] as number, Math.min(before[2] as number, p[2]) - DOWN_MM];
      positions.set(to, 3 * (ringSize + v));
    }
  }
  // Beyond the neck the surface goes on along the axis.
  for (let k = 0; k < ringSize; k++)
    for (let c = 0; c < 3; c++)
      positions[3 * k + c] = (positions[3 * (ringSize + k) + c] as number) + (c === 2 ? BEYOND_MM : 0);
  const triangles = new Uint32Array(6 * ringSize * rings);
  let t = 0;
  for (let r = 0; r < rings; r++)
    for (let k = 0; k < ringSize; k++) {
      const next = (k + 1) % ringSize;
      const [a, b, c, d] = [r * ringSize + k, r * ringSize + next, (r + 1) * ringSize + k, (r + 1) * ringSize + next];
      triangles.set([a, c, d, a, d, b], t);
      t += 6;
    }
  return { positions, triangles };
}

/**
 * Outward normals of the rings alone, which go from the left over the face to the right: at the neck nothing of what
 * closes the crown is in them.
 */
function sheetNormals(at: Float64Array, ringSize: number, rings: number): Float64Array {
  const out = new Float64Array(at.length);
  const p = (r: number, k: number) => 3 * (r * ringSize + ((k + ringSize) % ringSize));
  for (let r = 0; r < rings; r++)
    for (let k = 0; k < ringSize; k++) {
      const [up, down] = [p(Math.max(0, r - 1), k), p(Math.min(rings - 1, r + 1), k)];
      const [before, after] = [p(r, k - 1), p(r, k + 1)];
      const a = [0, 1, 2].map((c) => (at[after + c] as number) - (at[before + c] as number)) as unknown as Vec3;
      const b = [0, 1, 2].map((c) => (at[down + c] as number) - (at[up + c] as number)) as unknown as Vec3;
      const n = [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
      const length = Math.hypot(...n) || 1;
      const i = p(r, k);
      for (let c = 0; c < 3; c++) out[i + c] = (n[c] as number) / length;
    }
  return out;
}
