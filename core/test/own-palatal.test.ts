import {
  type ContourPlan,
  type ExistingArch,
  type ExistingTooth,
  existingArch,
  firstContour,
  frontRow,
  type PlannedTooth,
  plannedTooth,
  readScan,
  ringVertex,
  signedDistances,
  smoothstep,
  solidChange,
  type ToothPlan,
  toLocal,
  toParent,
  type Vec3,
} from '@radiant/core';
import { AVOCET, INTRAORAL_SCANNER, makePatient, scan } from '@radiant/standins';

/**
 * A mouth whose palatal surfaces the library can't make: each hollowed by up to half a millimetre here and standing out
 * there, over what its form says.
 */
function oddlyPalatal(): ExistingArch {
  const patient = makePatient(AVOCET);
  for (const t of patient.teeth) {
    const p = t.mesh.positions;
    for (let v = 0; v < p.length; v += 3) {
      const [x, y, z] = toLocal(t.frame, [p[v], p[v + 1], p[v + 2]]);
      const by = smoothstep(0.4, 1.6, y) * (0.35 * Math.sin(0.9 * z) + 0.25 * Math.cos(1.1 * x) - 0.3);
      const moved = toParent(t.frame, [x, y + by, z]);
      for (const i of [0, 1, 2] as const) p[v + i] = moved[i];
    }
  }
  return existingArch(readScan(scan(patient, INTRAORAL_SCANNER)));
}

const arch = oddlyPalatal();
const toothOf = (of: ExistingArch, tooth: number) => of.teeth.get(tooth) as ExistingTooth;
const plan = firstContour(arch, new Map());
const byForm: ContourPlan = Object.fromEntries(
  Object.entries(plan).map(([t, own]) => [t, { ...(own as ToothPlan), palatal: undefined }]),
);

/** Places of the planned palatal surface, well inside its borders and well above the edge that is there. */
function palatalPlaces(p: PlannedTooth): Float64Array {
  const { crown, frame, mesh } = p;
  const own = toothOf(arch, p.tooth);
  const edge = Math.max(0, toLocal(frame, toParent(own.frame, [0, 0, 0]))[2]);
  const out: number[] = [];
  for (let r = 4; r < crown.rings; r += 2)
    for (let k = (5 * crown.ringSize) / 8; k <= (7 * crown.ringSize) / 8; k += 3) {
      const v = 3 * ringVertex(crown, r, k);
      const at: Vec3 = [mesh.positions[v], mesh.positions[v + 1], mesh.positions[v + 2]];
      const z = toLocal(frame, at)[2];
      if (z > edge + 2 && z < 0.62 * crown.size.lengthMm) out.push(...at);
    }
  return Float64Array.from(out);
}

const worst = (p: PlannedTooth) => {
  const off = [...signedDistances(toothOf(arch, p.tooth).field, palatalPlaces(p))].map(Math.abs).sort((a, b) => a - b);
  expect(off.length).toBeGreaterThan(20);
  return off[Math.floor(0.95 * off.length)];
};

describe('behind the edge a veneered tooth keeps its own palatal surface', () => {
  it.each(frontRow().map((t) => [t] as const))(
    '%i: the plan lies on the scan there, by the form it did not',
    (tooth) => {
      expect(worst(plannedTooth(arch, plan, tooth))).toBeLessThan(0.08);
      expect(worst(plannedTooth(arch, byForm, tooth))).toBeGreaterThan(0.2);
    },
  );

  it('nothing is added there: what is added is facial and edge', () => {
    const added = (of: ContourPlan) =>
      frontRow().reduce((n, t) => {
        const own = toothOf(arch, t);
        return n + solidChange(own.field.mesh, plannedTooth(arch, of, t).mesh, own.frame.origin[2] + 6).addedMm3;
      }, 0);
    expect(added(plan)).toBeLessThan(0.8 * added(byForm));
  });

  it('face, edge and contacts stay where the form has them', () => {
    for (const tooth of [11, 13]) {
      const [a, b] = [plannedTooth(arch, plan, tooth), plannedTooth(arch, byForm, tooth)];
      const { ringSize, rings } = a.crown;
      for (let r = 0; r < rings; r++)
        for (let k = 0; k <= ringSize / 2; k++) {
          const v = 3 * ringVertex(a.crown, r, k);
          for (const i of [0, 1, 2]) expect(a.mesh.positions[v + i]).toBe(b.mesh.positions[v + i]);
        }
      const top = 3 * ringVertex(a.crown, rings - 1, (3 * ringSize) / 4);
      expect(a.mesh.positions[top + 1]).toBeCloseTo(b.mesh.positions[top + 1], 6);
    }
  });

  it('face and palatal surface come no nearer than half a millimetre, or than the form has them', () => {
    for (const tooth of frontRow()) {
      const thin = { ...(plan[tooth] as ToothPlan), facialVolumeMm: -1.5 };
      const [own, form] = [thin, { ...thin, palatal: undefined }].map((t) =>
        plannedTooth(arch, { ...plan, [tooth]: t }, tooth),
      ) as [PlannedTooth, PlannedTooth];
      const { ringSize, rings } = own.crown;
      const apart = (p: PlannedTooth, r: number, k: number) => {
        const [front, back] = [ringSize - k, k].map((q) => {
          const v = 3 * ringVertex(p.crown, r, q);
          return toLocal(p.frame, [p.mesh.positions[v], p.mesh.positions[v + 1], p.mesh.positions[v + 2]])[1];
        });
        return (back as number) - (front as number);
      };
      for (let r = 0; r < rings - 4; r++)
        for (let k = (9 * ringSize) / 16; k <= (15 * ringSize) / 16; k += 2)
          expect(apart(own, r, k)).toBeGreaterThan(Math.min(0.5, apart(form, r, k)) - 1e-9);
    }
  });
});
