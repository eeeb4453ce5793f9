import { bounds, designOf, signedDistances, signedField, toLocal, toParent, type Vec3 } from '@radiant/core';
import { AVOCET, inState, makePatient, prepared, SANDPIPER, WHOLE_SCANNER, wholeJaw } from '../src/index.js';

describe.each([
  ['Avocet', AVOCET, [13, 12, 11, 21, 22, 23]],
  ['Sandpiper', SANDPIPER, [12, 11, 21, 22]],
] as const)('%s prepared for veneers', (_, recipe, restored) => {
  const patient = makePatient(recipe);
  const later = makePatient(inState(recipe, 'final'));
  const teeth = prepared(patient, later);
  const of = (list: typeof teeth, tooth: number) => list.find((t) => t.tooth === tooth) as (typeof teeth)[number];

  it('touches no other tooth', () => {
    for (const t of patient.teeth) if (!restored.some((r) => r === t.tooth)) expect(of(teeth, t.tooth).mesh).toBe(t.mesh);
  });

  it('takes away and adds nothing', () => {
    for (const tooth of restored) {
      const off = signedDistances(signedField(of(patient.teeth as typeof teeth, tooth).mesh), of(teeth, tooth).mesh.positions);
      expect(off.reduce((m, d) => Math.max(m, d), -Infinity)).toBeLessThan(0.02);
      expect(off.reduce((m, d) => Math.min(m, d), 0)).toBeLessThan(-0.2);
    }
  });

  it('leaves the graduated design’s room under the final contour: 0.3, 0.5 and 0.7 mm on the face, 1.5 mm at the edge', () => {
    const { needs } = designOf('graduated');
    for (const tooth of restored) {
      const final = of(later.teeth as typeof teeth, tooth);
      const stump = signedField(of(teeth, tooth).mesh);
      const size = final.crown.size;
      for (const [third, share] of [
        ['cervical', 5 / 6],
        ['middle', 1 / 2],
        ['incisal', 1 / 5],
      ] as const) {
        // From the final face in the middle of the third, straight inward.
        let face: Vec3 | undefined;
        for (let y = -6; y < 0 && !face; y += 0.02) {
          const p = toParent(final.frame, [0, y, share * size.lengthMm]);
          if ((signedDistances(signedFinal(final), Float64Array.from(p))[0] as number) < 0) face = p;
        }
        const room = signedDistances(stump, Float64Array.from(face as Vec3))[0] as number;
        // Where a worn edge was rounded, a corner of it is left in the incisal third.
        expect(room).toBeGreaterThan(needs[third] - (third === 'incisal' ? 0.22 : 0.05));
      }
      const lowest = Math.min(...points(of(teeth, tooth).mesh.positions).map((p) => toLocal(final.frame, p)[2]));
      expect(lowest).toBeGreaterThan(1.45);
    }
  });
});

const fields = new Map<object, ReturnType<typeof signedField>>();
function signedFinal(t: { mesh: Parameters<typeof signedField>[0] }) {
  const own = fields.get(t.mesh) ?? signedField(t.mesh);
  fields.set(t.mesh, own);
  return own;
}
const points = (p: Float64Array): Vec3[] =>
  Array.from({ length: p.length / 3 }, (_, i) => [p[3 * i] as number, p[3 * i + 1] as number, p[3 * i + 2] as number]);

test('scanned as a whole jaw, the prepared edges stand higher and the gum is where it was', () => {
  const patient = makePatient(SANDPIPER);
  const s = { ...WHOLE_SCANNER, stepMm: 0.5, drops: 0, holes: 0 };
  const before = wholeJaw(patient, 'upper', s);
  const after = wholeJaw({ ...patient, teeth: prepared(patient, makePatient(inState(SANDPIPER, 'final'))) }, 'upper', s);
  const lowest = (w: typeof before, tooth: number) =>
    Math.min(...[...w.truth.keys()].filter((t) => w.truth[t] === tooth).map((t) => w.mesh.positions[3 * (w.mesh.triangles[3 * t] as number) + 2] as number));
  for (const tooth of [11, 21]) expect(lowest(after, tooth) - lowest(before, tooth)).toBeGreaterThan(1);
  for (const tooth of [14, 24]) expect(Math.abs(lowest(after, tooth) - lowest(before, tooth))).toBeLessThan(0.2);
  expect(bounds(after.mesh).max[2]).toBeCloseTo(bounds(before.mesh).max[2], 0);
});
