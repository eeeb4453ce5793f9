import { bounds, crownZenith, designOf, repaired, signedDistances, signedField, toParent } from '@radiant/core';
import {
  AVOCET,
  inState,
  makePatient,
  type PatientTooth,
  prepared,
  SANDPIPER,
  WHOLE_SCANNER,
  wholeJaw,
} from '../src/index.js';

const of = (list: readonly PatientTooth[], tooth: number) => list.find((t) => t.tooth === tooth) as PatientTooth;

describe.each([
  ['Avocet', AVOCET, [13, 12, 11, 21, 22, 23]],
  ['Sandpiper', SANDPIPER, [12, 11, 21, 22]],
] as const)('%s prepared for veneers', (_, recipe, restored) => {
  const patient = makePatient(recipe);
  const later = makePatient(inState(recipe, 'final'));
  const teeth = prepared(patient, later);
  it('touches no other tooth', () => {
    for (const t of patient.teeth) if (!restored.some((r) => r === t.tooth)) expect(of(teeth, t.tooth)).toBe(t);
    expect(teeth.filter((t) => t.cut).map((t) => t.tooth)).toEqual([...restored]);
  });

  it('leaves the graduated design’s room under the final contour: 0.3, 0.5 and 0.7 mm on the face, 1.5 mm at the edge', () => {
    const { needs } = designOf('graduated');
    for (const tooth of restored) {
      const final = of(later.teeth, tooth);
      const field = signedField(final.mesh);
      const cut = of(teeth, tooth).cut as NonNullable<PatientTooth['cut']>;
      const zenith = crownZenith(final.crown)[2];
      for (const [third, share] of [
        ['cervical', 5 / 6],
        ['middle', 1 / 2],
        ['incisal', 1 / 4],
      ] as const) {
        // Straight inward in the middle of the face: where what stays begins, so far lies it under the final contour.
        const line = Array.from({ length: 400 }, (__, i) => toParent(final.frame, [0, -6 + 0.02 * i, share * zenith]));
        const places = Float64Array.from(line.flat());
        const [gone, off] = [cut(places), signedDistances(field, places)];
        const first = gone.findIndex((g, i) => g <= 0 && (off[i] as number) < 0);
        const room = -(off[first] as number);
        expect(room).toBeGreaterThan((third === 'incisal' ? needs.middle : needs[third]) - 0.001);
        expect(room).toBeLessThan((third === 'incisal' ? needs.incisal : needs[third]) + 0.03);
      }
      const at = (z: number) => cut(Float64Array.from(toParent(final.frame, [0, 0.5, z])))[0] as number;
      expect(at(1.4)).toBeGreaterThan(0.09);
      expect(at(1.6)).toBeLessThan(0);
    }
  });
});

it('takes nothing from the palatal side of teeth that stay where they stand', () => {
  // Where gaps are closed teeth move along the arch, and a crown may be cut through: not in this case.
  const patient = makePatient(SANDPIPER);
  const later = makePatient(inState(SANDPIPER, 'final'));
  const teeth = prepared(patient, later);
  for (const tooth of [12, 11, 21, 22]) {
    const final = of(later.teeth, tooth);
    const cut = of(teeth, tooth).cut as NonNullable<PatientTooth['cut']>;
    const n = signedField(of(patient.teeth, tooth).mesh).vertexNormals;
    const p = of(patient.teeth, tooth).mesh.positions;
    const gone = cut(p);
    for (let v = 0; v < gone.length; v++) {
      const palatal =
        (n[3 * v] as number) * final.frame.y[0] +
        (n[3 * v + 1] as number) * final.frame.y[1] +
        (n[3 * v + 2] as number) * final.frame.y[2];
      const z = [0, 1, 2].reduce(
        (s, k) => s + ((p[3 * v + k] as number) - (final.frame.origin[k] as number)) * (final.frame.z[k] as number),
        0,
      );
      if (palatal > 0.6 && z > 2.5) expect(gone[v]).toBeLessThan(0);
    }
  }
});

test('scanned as a whole jaw, the prepared edges stand higher, the gum is where it was, and the surface about as sound as before', () => {
  const patient = makePatient(SANDPIPER);
  const s = { ...WHOLE_SCANNER, stepMm: 0.4, drops: 0, holes: 0 };
  const before = wholeJaw(patient, 'upper', s);
  const after = wholeJaw(
    { ...patient, teeth: prepared(patient, makePatient(inState(SANDPIPER, 'final'))) },
    'upper',
    s,
  );
  const lowest = (w: typeof before, tooth: number) =>
    Math.min(
      ...[...w.truth.keys()]
        .filter((t) => w.truth[t] === tooth)
        .map((t) => w.mesh.positions[3 * (w.mesh.triangles[3 * t] as number) + 2] as number),
    );
  for (const tooth of [11, 21]) expect(lowest(after, tooth) - lowest(before, tooth)).toBeGreaterThan(1);
  for (const tooth of [14, 24]) expect(Math.abs(lowest(after, tooth) - lowest(before, tooth))).toBeLessThan(0.2);
  expect(bounds(after.mesh).max[2]).toBeCloseTo(bounds(before.mesh).max[2], 0);
  const mended = (w: typeof before) => repaired(w.mesh).repairs.find((r) => r.kind === 'crowded')?.count ?? 0;
  // The new edges fold sharply, as cut ones do.
  expect(mended(after)).toBeLessThan(1.6 * mended(before));
});
