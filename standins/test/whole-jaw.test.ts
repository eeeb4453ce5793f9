import { adjacencyOf, bounds, LOWER_TEN, openLoops, UPPER_TEN, vectorArea } from '@radiant/core';
import { AVOCET, makePatient, WHOLE_SCANNER, wholeJaw } from '../src/index.js';

const patient = makePatient(AVOCET);
const coarse = { ...WHOLE_SCANNER, stepMm: 0.55 };
const upper = wholeJaw(patient, 'upper', coarse);
const lower = wholeJaw(patient, 'lower', coarse);

describe('a whole jaw as a scanner gives it', () => {
  it('holds all ten teeth and gum, each triangle’s truth beside it', () => {
    for (const [w, row] of [
      [upper, UPPER_TEN],
      [lower, LOWER_TEN],
    ] as const) {
      expect(w.truth.length).toBe(w.mesh.triangles.length / 3);
      expect([...new Set(w.truth)].sort((p, q) => p - q)).toEqual([0, ...row].sort((p, q) => p - q));
    }
  });

  it('faces where it bites: down the upper one, up the lower', () => {
    expect(vectorArea(upper.mesh)[2]).toBeLessThan(-200);
    expect(vectorArea(lower.mesh)[2]).toBeGreaterThan(200);
  });

  it('lies where the patient’s teeth are', () => {
    for (const [w, teeth] of [
      [upper, patient.teeth],
      [lower, patient.lower],
    ] as const) {
      const b = bounds(w.mesh);
      for (const t of teeth) {
        const own = bounds(t.mesh);
        for (const k of [0, 1] as const) expect(own.min[k] > b.min[k] - 0.6 && own.max[k] < b.max[k] + 0.6).toBe(true);
      }
    }
  });

  it('has holes where it was not seen, and none where all was', () => {
    const holes = (n: number) => {
      const { mesh } = wholeJaw(patient, 'lower', { ...coarse, holes: n, drops: 0 });
      return openLoops(mesh, adjacencyOf(mesh)).length;
    };
    expect(holes(6)).toBeGreaterThan(holes(0));
  });

  it('is the same for the same seed and another for another', () => {
    expect([...wholeJaw(patient, 'lower', coarse).mesh.positions.subarray(0, 90)]).toEqual([
      ...lower.mesh.positions.subarray(0, 90),
    ]);
    expect([...wholeJaw(patient, 'lower', { ...coarse, seed: 5 }).mesh.positions.subarray(0, 90)]).not.toEqual([
      ...lower.mesh.positions.subarray(0, 90),
    ]);
  });
});
