import {
  DESIGNS,
  type Design,
  designOf,
  type ExistingTooth,
  existingArch,
  facialPlaces,
  neededAt,
  type PlannedTooth,
  preparedEdge,
  reachAtLevel,
  readScan,
  signedDistances,
  signedField,
  THIRDS,
  targetBetween,
  toLocal,
  toothSection,
  type Vec3,
} from '@radiant/core';
import { AVOCET, INTRAORAL_SCANNER, inState, makePatient, type PatientTooth, prepared, scan } from '@radiant/standins';

const by = (list: readonly PatientTooth[], tooth: number) => list.find((t) => t.tooth === tooth) as PatientTooth;
/** Printed beside depths as the scan's ±; two answers to one question may not differ by more. */
const PM_MM = 0.05;

describe('one thickness for map, section and simulated preparation', () => {
  const patient = makePatient(AVOCET);
  const later = makePatient(inState(AVOCET, 'final'));
  const arch = existingArch(readScan(scan(patient, { ...INTRAORAL_SCANNER, noiseMm: 0 })));
  const plannedAs = (t: PatientTooth): PlannedTooth => ({
    tooth: t.tooth,
    crown: t.crown,
    frame: t.frame,
    mesh: t.mesh,
  });

  it.each(DESIGNS.filter((d) => d.kind === 'veneer').map((d) => [d.id, d as Design] as const))(
    '%s: the map’s depth is where the simulated dentist stops',
    (id, design) => {
      const cutTeeth = prepared(patient, later, { design: id as 'even' });
      for (const tooth of [12, 11, 21]) {
        const planned = plannedAs(by(later.teeth, tooth));
        const { field } = arch.teeth.get(tooth) as ExistingTooth;
        const cut = by(cutTeeth, tooth).cut as NonNullable<PatientTooth['cut']>;
        const plan = signedField(planned.mesh);
        // In the middle of the face, away from the chamfer, the edge and the line angles.
        const places = facialPlaces(field, planned, design).filter((p) => {
          const local = toLocal(planned.frame, p.at);
          return Math.abs(local[0]) < 1 && local[2] > 2.5 && p.share < 0.72;
        });
        expect(places.length).toBeGreaterThan(20);
        const stops = places.map(({ at, neededMm, gapMm }) => {
          // Straight inward until what stays begins.
          const y = planned.frame.y;
          const line = Array.from(
            { length: 300 },
            (_, i): Vec3 => [at[0] + y[0] * 0.01 * i, at[1] + y[1] * 0.01 * i, at[2] + y[2] * 0.01 * i],
          );
          const flat = Float64Array.from(line.flat());
          const first = cut(flat).findIndex((gone) => gone <= 0);
          const under = -(signedDistances(plan, flat)[first] as number);
          return { needed: neededMm, due: Math.max(gapMm, neededMm), under };
        });
        for (const s of stops) expect(Math.abs(s.under - s.due)).toBeLessThan(PM_MM);
      }
    },
  );

  it.each([11, 12, 22])('%d: the section’s target lies as deep under the plan as the map says', (tooth) => {
    // A crown's thickness is more than half of the tooth near the edge: there the nearest surface is the palatal one.
    for (const design of DESIGNS.filter((d) => d.kind !== 'crown')) {
      const planned = plannedAs(by(later.teeth, tooth));
      const { field } = arch.teeth.get(tooth) as ExistingTooth;
      const own = targetBetween(field, planned, design);
      const section = toothSection(field.mesh, planned, own);
      const plan = signedField(planned.mesh);
      const places = facialPlaces(field, planned, design).filter(
        (p) => Math.abs(toLocal(planned.frame, p.at)[0]) < 0.25 && p.share > 0.25 && p.share < 0.8,
      );
      expect(places.length).toBeGreaterThan(5);
      for (const p of places) {
        const z = toLocal(planned.frame, p.at)[2];
        if (z <= section.edge.target + 0.4) continue;
        // Where nothing goes the tooth stays as it is.
        const cut = p.neededMm - p.gapMm > 0.03;
        const at = reachAtLevel(cut ? section.target : section.existing, z, 'least');
        const target = [at as number, z] as const;
        const { origin, y, z: up } = planned.frame;
        const under3: Vec3 = [0, 1, 2].map(
          (k) => (origin[k] as number) + target[0] * (y[k] as number) + target[1] * (up[k] as number),
        ) as never;
        const under = -(signedDistances(plan, Float64Array.from(under3))[0] as number);
        expect(Math.abs(under - Math.max(p.gapMm, p.neededMm))).toBeLessThan(2 * PM_MM);
      }
    }
  });

  it('is each third’s own in its middle, straight between the middles, and never outside the two beside it', () => {
    for (const design of DESIGNS) {
      for (const third of ['cervical', 'middle', 'incisal'] as const)
        expect(neededAt(design, THIRDS[third].middle)).toBeCloseTo(design.needs[third], 12);
      for (let h = 0; h <= 1; h += 0.01) {
        const values = Object.values(design.needs);
        expect(neededAt(design, h)).toBeGreaterThanOrEqual(Math.min(...values) - 1e-12);
        expect(neededAt(design, h)).toBeLessThanOrEqual(Math.max(...values) + 1e-12);
        // No step anywhere: a hundredth of the height changes it by a hundredth of what the whole height could.
        expect(Math.abs(neededAt(design, h + 0.01) - neededAt(design, h))).toBeLessThan(
          0.03 * (Math.max(...values) - Math.min(...values)) + 1e-9,
        );
      }
    }
  });

  it('the prepared edge: a thickness under the plan, flattened where the plan lengthens, or left', () => {
    const [graduated, even, direct] = (['graduated', 'even', 'direct'] as const).map(designOf) as [
      Design,
      Design,
      Design,
    ];
    expect([preparedEdge(graduated, 0.4), preparedEdge(graduated, 2.2)]).toEqual([1.5, 2.2]);
    expect([preparedEdge(even, -0.2), preparedEdge(even, 0), preparedEdge(even, 1.2)]).toEqual([
      expect.closeTo(0.1, 12),
      0.3,
      1.2,
    ]);
    expect([preparedEdge(direct, -0.2), preparedEdge(direct, 1.2)]).toEqual([0, 1.2]);
  });
});
