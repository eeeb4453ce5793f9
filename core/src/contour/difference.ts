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
