import {
  archSide,
  bounds,
  contactBetween,
  contacts,
  contourDifference,
  type ExistingTooth,
  existingArch,
  frameToArch,
  inMouth,
  kindOf,
  LOWER_TEN,
  meshToArch,
  mirroredStroke,
  plannedTooth,
  readScan,
  rowOf,
  sculpted,
  setContacts,
  sideOf,
  signedField,
  type ToothPlan,
  takenIn,
  toParent,
  UPPER_TEN,
  volume,
  volumeChange,
} from '@radiant/core';
import { AVOCET, INTRAORAL_SCANNER, makePatient, type PatientRecipe, scan } from '@radiant/standins';

const CROWDED: PatientRecipe = {
  seed: 318,
  traits: {
    41: { rotationDeg: 14 },
    32: { rotationDeg: -11, widthMm: 5.6 },
    31: { lengthMm: 8.1, wearMm: 0.8, edgeUpMm: 0.4 },
    34: { widthMm: 7.4 },
  },
};
const seen = (recipe: PatientRecipe) => {
  const patient = makePatient(recipe);
  return { patient, scan: readScan(scan(patient, INTRAORAL_SCANNER, 'stl', 'lower'), []) };
};
const avocet = seen(AVOCET);
const arch = existingArch(avocet.scan);
const found = (t: number) => arch.teeth.get(t) as ExistingTooth;

describe('an arch’s own frame', () => {
  it('turned over twice is where it was, and no surface is turned inside out', () => {
    const mesh = avocet.scan.teeth.get(41);
    if (!mesh) throw new Error('41 is there');
    const over = meshToArch('lower', mesh);
    expect([...meshToArch('lower', over).positions]).toEqual([...mesh.positions]);
    expect(volume(over)).toBeCloseTo(volume(mesh), 9);
    expect(meshToArch('upper', mesh)).toBe(mesh);
    const f = found(43).frame;
    expect(frameToArch('lower', frameToArch('lower', f))).toEqual(f);
  });

  it('has the teeth in the order in which x grows, in both jaws', () => {
    expect(rowOf('upper')).toEqual(UPPER_TEN);
    const xs = rowOf('lower').map((t) => found(t).frame.origin[0]);
    expect([...xs].sort((p, q) => p - q)).toEqual(xs);
    for (const t of UPPER_TEN) expect(archSide(t)).toBe(sideOf(t));
    for (const t of LOWER_TEN) expect(archSide(t)).not.toBe(sideOf(t));
  });
});

describe('lower teeth, measured', () => {
  it.each([
    ['Avocet', avocet],
    ['a crowded lower front', seen(CROWDED)],
  ] as const)('of %s: width within 0.15 mm, length within 0.2 mm of what was modelled', (_, { patient, scan: s }) => {
    const own = existingArch(s);
    for (const { tooth, crown } of patient.lower) {
      expect(Math.abs((own.teeth.get(tooth)?.widthMm ?? 0) - crown.size.widthMm)).toBeLessThan(0.15);
      expect(Math.abs((own.teeth.get(tooth)?.lengthMm ?? 0) - crown.size.lengthMm)).toBeLessThan(0.2);
      expect(own.teeth.get(tooth)?.fitMm).toBeLessThan(0.12);
    }
  });

  it('turned teeth are seen turned, each to its own side', () => {
    const own = existingArch(seen(CROWDED).scan);
    const turn = (t: number) => own.teeth.get(t)?.rotationDeg ?? Number.NaN;
    expect(Math.abs(turn(41) - turn(31) - 14)).toBeLessThan(3);
    expect(Math.abs(turn(32) - turn(42) + 11)).toBeLessThan(3);
    expect(Math.abs(turn(33) - turn(43))).toBeLessThan(3);
  });

  it('without both centrals says which jaw it speaks of', () => {
    const teeth = new Map([...avocet.scan.teeth].filter(([t]) => t !== 31));
    expect(() => existingArch({ ...avocet.scan, teeth })).toThrow(/too few lower front teeth/);
  });
});

describe('lower crowns in the plan', () => {
  const plan = Object.fromEntries(LOWER_TEN.map((t) => [t, takenIn(arch, {}, t)] as const));

  it('taken in as they stand lie on the teeth that are there', () => {
    for (const t of LOWER_TEN) {
      const d = contourDifference(arch, plannedTooth(arch, plan, t));
      const off = [...d].map(Math.abs).sort((p, q) => p - q);
      expect(off[off.length >> 1]).toBeLessThan(0.05);
      const { addedMm3, removedMm3 } = volumeChange(arch, plannedTooth(arch, plan, t));
      expect(addedMm3 + removedMm3).toBeLessThan(0.06 * volume(found(t).field.mesh));
    }
  });

  it('stand in the mouth as lower teeth do: the edge is up, the zenith down, the face in front', () => {
    for (const t of LOWER_TEN) {
      const p = inMouth(plannedTooth(arch, plan, t));
      expect(p.frame.z[2]).toBeLessThan(-0.8);
      const b = bounds(p.mesh);
      expect(toParent(p.frame, [0, 0, 0])[2]).toBeGreaterThan(b.max[2] - 0.6);
      // Front is where y is small: a place before the tooth in its own frame lies farther forward or outward in the
      // mouth.
      const out = toParent(p.frame, [0, -3, 4]);
      const middle = toParent(p.frame, [0, 3, 4]);
      expect(Math.hypot(out[0], 40 - out[1])).toBeGreaterThan(Math.hypot(middle[0], 40 - middle[1]));
      expect(Math.sign(b.min[0] + b.max[0])).toBe(sideOf(t) === 'left' ? 1 : -1);
    }
  });

  it('a longer one stands up by as much, a fuller one forward', () => {
    const [own, t] = [plan[41] as ToothPlan, 41];
    const edge = (p: ToothPlan) => bounds(inMouth(plannedTooth(arch, { ...plan, [t]: p }, t)).mesh).max[2];
    expect(edge({ ...own, lengthMm: own.lengthMm + 1 }) - edge(own)).toBeGreaterThan(0.85);
    expect(edge({ ...own, lengthMm: own.lengthMm + 1 }) - edge(own)).toBeLessThan(1.1);
    const front = (p: ToothPlan) => bounds(inMouth(plannedTooth(arch, { ...plan, [t]: p }, t)).mesh).min[1];
    expect(front(own) - front({ ...own, facialVolumeMm: own.facialVolumeMm + 0.5 })).toBeGreaterThan(0.35);
  });

  it('away from the midline is to the patient’s left on the left side and to the right on the right', () => {
    for (const t of [32, 42]) {
      const x = (mm: number) =>
        inMouth(plannedTooth(arch, { ...plan, [t]: { ...(plan[t] as ToothPlan), distalMm: mm } }, t)).frame.origin[0];
      expect((x(0.5) - x(0)) * (sideOf(t) === 'left' ? 1 : -1)).toBeGreaterThan(0.4);
    }
  });

  it('contacts are set between neighbours of the lower row, and of it alone', () => {
    const both = { ...plan, 11: { lengthMm: 10, widthMm: 8, facialVolumeMm: 0, rotationDeg: 0 } };
    const done = setContacts(arch, both, 0.02);
    expect(done.left).toEqual([]);
    expect(done.plan[11]).toEqual(both[11]);
    const made = new Map(LOWER_TEN.map((t) => [t, plannedTooth(arch, done.plan, t)] as const));
    for (const c of contacts(arch, made)) expect(c.gapMm).toBeCloseTo(-0.02, 1);
    const [p, q] = [made.get(41), made.get(31)];
    if (p && q) expect(contactBetween(p.mesh.positions, signedField(q.mesh)).gapMm).toBeLessThan(0.01);
  });

  it('a stroke mirrored to the other side stands in the same place of the fellow crown', () => {
    const own = plannedTooth(arch, plan, 43);
    const at = 20 * own.crown.ringSize + 30;
    const stroke = { tool: 'add' as const, radiusMm: 1.5, amount: 0.2, at: [at] };
    const fellow = plannedTooth(arch, plan, 33);
    const added = (c: typeof own.crown, s: typeof stroke) => {
      const m = sculpted(c, [s]).mesh.positions;
      const by = [0, 0, 0];
      let most = 0;
      for (let v = 0; v < m.length; v += 3) {
        const d = Math.hypot(...[0, 1, 2].map((k) => (m[v + k] as number) - (c.mesh.positions[v + k] as number)));
        if (d > most) {
          most = d;
          for (let k = 0; k < 3; k++) by[k] = m[v + k] as number;
        }
      }
      return by as [number, number, number];
    };
    const here = added(own.crown, stroke);
    const there = added(fellow.crown, mirroredStroke(fellow.crown, stroke) as typeof stroke);
    expect(kindOf(43)).toBe(kindOf(33));
    expect(Math.abs(here[0] + there[0])).toBeLessThan(0.4);
    expect(Math.abs(here[2] - there[2])).toBeLessThan(0.4);
  });
});
