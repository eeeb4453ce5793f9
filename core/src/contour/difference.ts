import { type SignedField, signedDistances } from '../geometry/tree/signed.js';
import { ringVertex } from './crown.js';
import { type ExistingArch, toothOf } from './fit.js';
import type { PlannedTooth } from './plan.js';

const fieldOf = (arch: ExistingArch, planned: PlannedTooth): SignedField => toothOf(arch, planned.tooth).field;

/** Signed distance of every vertex of the planned surface from the existing one, mm: + added, − removed. */
export function contourDifference(arch: ExistingArch, planned: PlannedTooth): Float64Array {
  return signedDistances(fieldOf(arch, planned), planned.mesh.positions);
}

/**
 * The same for drawing while a slider moves: every second vertex of every second ring is measured, those between take
 * the mean of their neighbours. Nineteen in twenty vertices are within a scanner's noise (0.02 mm) of the full answer,
 * which takes three times as long and is for all that is read as a figure.
 */
export function contourDifferenceQuick(arch: ExistingArch, planned: PlannedTooth): Float64Array {
  const { crown, mesh } = planned;
  const { rings, ringSize } = crown;
  const last = rings - 1;
  const measured: number[] = [];
  for (let r = 0; r < rings; r++)
    if (r % 2 === 0 || r === last) for (let k = 0; k < ringSize; k += 2) measured.push(ringVertex(crown, r, k));
  for (let v = rings * ringSize; v < mesh.positions.length / 3; v++) measured.push(v);
  const points = new Float64Array(3 * measured.length);
  measured.forEach((v, i) => {
    points.set(mesh.positions.subarray(3 * v, 3 * v + 3), 3 * i);
  });
  const near = signedDistances(fieldOf(arch, planned), points);
  const out = new Float64Array(mesh.positions.length / 3);
  measured.forEach((v, i) => {
    out[v] = near[i];
  });
  const between = (v: number, a: number, b: number) => {
    out[v] = (out[a] + out[b]) / 2;
  };
  for (let r = 0; r < rings; r++)
    if (r % 2 === 0 || r === last)
      for (let k = 1; k < ringSize; k += 2)
        between(ringVertex(crown, r, k), ringVertex(crown, r, k - 1), ringVertex(crown, r, k + 1));
  for (let r = 1; r < last; r += 2)
    for (let k = 0; k < ringSize; k++)
      between(ringVertex(crown, r, k), ringVertex(crown, r - 1, k), ringVertex(crown, r + 1, k));
  return out;
}

/** Neck and edge, where planned and existing surface part anyway, have no say, in rings. */
const FACE_RINGS = { fromNeck: 4, fromEdge: 4 } as const;
/** And the borders, in vertices. */
const FACE_BORDER = 5;

/**
 * How far a tooth's face stands in front of its planned crown, on all but a twentieth of it, mm; 0 where it does not.
 * @param differenceMm of each vertex of the planned crown, + added, − removed
 */
export function proudFace({ crown }: PlannedTooth, differenceMm: Float64Array): number {
  const proud: number[] = [];
  for (let r = FACE_RINGS.fromNeck; r < crown.rings - FACE_RINGS.fromEdge; r++)
    for (let k = FACE_BORDER; k <= crown.ringSize / 2 - FACE_BORDER; k++)
      proud.push(-differenceMm[ringVertex(crown, r, k)]);
  proud.sort((p, q) => p - q);
  return Math.max(0, proud[Math.floor(0.95 * proud.length)] ?? 0);
}
