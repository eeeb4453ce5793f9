import {
  box,
  type CrownSize,
  crown,
  designOf,
  type ExistingArch,
  type ExistingTooth,
  enamelLeft,
  existingArch,
  FACIAL_ENAMEL,
  firstContour,
  frontRow,
  placeMesh,
  plannedTooth,
  planOfExisting,
  reachAtLevel,
  readScan,
  reductionBetween,
  removal,
  signedDistances,
  signedField,
  sphere,
  toothReduction,
  toothSection,
  WORLD,
} from '@radiant/core';
import { AVOCET, INTRAORAL_SCANNER, makePatient, type Patient, scan } from '@radiant/standins';

describe('removal = needed thickness − gap', () => {
  it('on two concentric spheres it is thickness less the difference of the radii, exactly', () => {
    // The plan is a sphere of 10.4 mm about a tooth of 10 mm, with its points on the same rays: at each of them the gap
    // is 0.4.
    const tooth = sphere(10, 24);
    const plan = sphere(10.4, 24);
    const outward = signedDistances(signedField(tooth), plan.positions);
    for (const gap of outward) {
      expect(gap).toBeCloseTo(0.4, 9);
      expect(removal(0.7, gap).remove.value).toBeCloseTo(0.3, 9);
      expect(removal(0.3, gap).remove.value).toBe(0);
    }
  });

  it('between two boxes it is exact on every face', () => {
    const inward = signedDistances(
      signedField(box(11, 11, 11)),
      box(10, 10, 10).positions.map((v) => v * 0.9 + (Math.abs(v) === 5 ? 0 : 0)),
    );
    // Corners of the inner box drawn in by 10 %: 4.5 from the middle, 1 mm under each face of the outer one.
    for (const d of inward) expect(-d).toBeCloseTo(1, 12);
    const faces = Float64Array.from([5, 0, 0, 0, 5, 0, 0, 0, -5]);
    for (const d of signedDistances(signedField(box(11, 11, 11)), faces))
      expect(removal(0.7, -d).remove.value).toBeCloseTo(0.2, 12);
  });

  it('is never below zero, and a proud tooth is first brought into line', () => {
    expect(removal(0.5, 0.8).remove.value).toBe(0);
    const proud = removal(0.5, -0.3);
    expect(proud.remove.value).toBeCloseTo(0.8, 12);
    expect(proud.alignFirst).toBeCloseTo(0.3, 12);
    expect(proud.remove.working.note).toBe('The tooth stands 0.30 mm proud of the plan: bring it into line first.');
  });

  it('tells its working: formula, inputs with units, source and mark, and a ±', () => {
    const { remove } = removal(0.5, 0.2);
    expect(remove.pm).toBe(0.05);
    expect(remove.working.formula).toContain('needed thickness − gap');
    expect(remove.working.inputs.map((i) => [i.value, i.unit, i.source.mark])).toEqual([
      [0.5, 'mm', 'common practice'],
      [0.2, 'mm', 'measured'],
      ['±0.05', 'mm', 'common practice'],
    ]);
  });
});

describe('enamel left (Ferrari, Patroni, Balleri 1992: gingival 0.3–0.5, middle 0.6–1.0, incisal 1.0–2.1 mm, from memory)', () => {
  it('the norm stands as published', () => {
    expect(Object.values(FACIAL_ENAMEL).map((n) => [n.from, n.to])).toEqual([
      [0.3, 0.5],
      [0.6, 1.0],
      [1.0, 2.1],
    ]);
  });

  it.each([
    [0.2, 'kept'],
    [0.3, 'doubtful'],
    [0.49, 'doubtful'],
    [0.5, 'gone'],
    [0.8, 'gone'],
  ] as const)('in the cervical third %f mm leaves it %s', (cut, state) => {
    expect(enamelLeft('cervical', cut).state).toBe(state);
  });

  it('a depth whose error could reach the thin end of the norm is not called kept', () => {
    expect(enamelLeft('cervical', 0.26, 0.05).state).toBe('doubtful');
    expect(enamelLeft('cervical', 0.24, 0.05).state).toBe('kept');
  });
});

describe('usual thicknesses (common practice)', () => {
  it('graduated 0.3 / 0.5 / 0.7 with 1.5 at the edge, even 0.5 / 0.8 / 0.8 with a flattened one', () => {
    expect(designOf('graduated')).toMatchObject({
      needs: { cervical: 0.3, middle: 0.5, incisal: 0.7 },
      edge: { kind: 'thickness', mm: 1.5 },
    });
    expect(designOf('even')).toMatchObject({
      needs: { cervical: 0.5, middle: 0.8, incisal: 0.8 },
      edge: { kind: 'flatten' },
    });
  });
});

describe('between a tooth and a contour that is the same tooth, fuller and longer', () => {
  const size: CrownSize = { lengthMm: 10, widthMm: 8.5, facialVolumeMm: 0 };
  const there = signedField(crown(11, size).mesh);
  const planned = (change: Partial<CrownSize>) => {
    const c = crown(11, { ...size, ...change });
    return { tooth: 11, crown: c, frame: WORLD, mesh: c.mesh };
  };
  const zones = (change: Partial<CrownSize>, design: 'graduated' | 'even' = 'graduated') =>
    new Map(reductionBetween(there, planned(change), designOf(design), 'mock-up').zones.map((z) => [z.zone, z]));

  it('no change at all asks for the full thickness in each zone', () => {
    const z = zones({});
    for (const [zone, mm] of [
      ['cervical', 0.3],
      ['middle', 0.5],
      ['incisal', 0.7],
      ['edge', 1.5],
    ] as const) {
      expect(z.get(zone)?.removal?.gap).toBeCloseTo(0, 3);
      expect(z.get(zone)?.removal?.remove.value).toBeCloseTo(mm, 3);
    }
  });

  it('volume on the face lessens removal there and not at the edge', () => {
    const z = zones({ facialVolumeMm: 0.4 });
    expect(z.get('middle')?.removal?.gap).toBeGreaterThan(0.3);
    expect(z.get('middle')?.removal?.gap).toBeLessThan(0.41);
    expect(z.get('edge')?.removal?.remove.value).toBeCloseTo(1.5, 1);
  });

  it('where the plan adds more than the ceramic needs nothing is cut, and it says so', () => {
    const z = zones({ facialVolumeMm: 0.9 }).get('middle');
    expect(z?.removal?.remove.value).toBe(0);
    expect(z?.sentence).toMatchObject({
      weight: 'good',
      text: expect.stringMatching(/nothing to cut; the plan adds 0\.[789]\d mm/),
    });
    expect(z?.groove.kind).toBe('none');
  });

  it('a flatter plan meets a proud tooth: enamel runs out, and it says how much more volume keeps it', () => {
    const z = zones({ facialVolumeMm: -0.5 }).get('cervical');
    expect(z?.removal?.alignFirst).toBeGreaterThan(0.1);
    expect(z?.enamel?.state).not.toBe('kept');
    expect(z?.sentence?.text).toMatch(
      /\{11\}, cervical: 0\.\d\d mm (may reach dentin|goes through the enamel).* more volume on the plan keeps/,
    );
  });

  it('an even veneer only flattens the edge', () => {
    expect(zones({}, 'even').get('edge')).toMatchObject({
      groove: { kind: 'none' },
      sentence: { text: expect.stringContaining('left as it is') },
    });
  });

  it('volumes: the plan saves tissue against cutting the bare tooth', () => {
    const r = reductionBetween(there, planned({ facialVolumeMm: 0.3 }), designOf('graduated'), 'mock-up');
    expect(r.volumeMm3).toBeLessThan(r.unplannedMm3);
    const bare = reductionBetween(there, planned({}), designOf('graduated'), 'mock-up');
    expect(bare.volumeMm3 / bare.unplannedMm3).toBeCloseTo(1, 1);
  });
});

describe('on the scan of the virtual patient', () => {
  let patient: Patient;
  let arch: ExistingArch;
  beforeAll(() => {
    patient = makePatient(AVOCET);
    arch = existingArch(readScan(scan(patient, INTRAORAL_SCANNER)));
  });

  it('each tooth is found again where it stands, with its size and its turn', () => {
    for (const t of patient.teeth.filter((q) => frontRow().includes(q.tooth))) {
      const e = arch.teeth.get(t.tooth) as ExistingTooth;
      expect(Math.abs(e.widthMm - t.crown.size.widthMm)).toBeLessThan(0.1);
      expect(Math.abs(e.lengthMm - t.crown.size.lengthMm)).toBeLessThan(0.2);
      expect(e.fitMm).toBeLessThan(0.05);
      const turn = (f: { x: readonly number[] }) => (Math.atan2(f.x[1] as number, f.x[0] as number) * 180) / Math.PI;
      expect(Math.abs(turn(e.frame) - turn(t.frame))).toBeLessThan(1.5);
      expect(Math.abs(e.wearMm - (t.crown.size.wearMm ?? 0))).toBeLessThan(0.45);
    }
    expect((arch.teeth.get(22) as ExistingTooth).rotationDeg).toBeGreaterThan(5);
  });

  it('the plan keeps each gum line and the first contour lies at or in front of the tooth', () => {
    const plan = firstContour(arch, new Map(frontRow().map((t) => [t, { lengthMm: 10, widthMm: 7.5 }])));
    for (const tooth of frontRow()) {
      const r = toothReduction(arch, plan, tooth, designOf('graduated'), 'mock-up');
      expect(r.zones.find((z) => z.zone === 'middle')?.removal?.gap).toBeGreaterThan(-0.1);
      const top = Math.max(...plannedTooth(arch, plan, tooth).mesh.positions.filter((_, i) => i % 3 === 2));
      const was = Math.max(
        ...(patient.teeth.find((t) => t.tooth === tooth)?.mesh.positions ?? []).filter((_, i) => i % 3 === 2),
      );
      expect(Math.abs(top - was)).toBeLessThan(0.35);
    }
  });

  it('the teeth as they are, as a plan, lie on the scan but for alignment and wear', () => {
    const plan = planOfExisting(arch);
    const r = toothReduction(arch, plan, 12, designOf('graduated'), 'tooth');
    expect(Math.abs(r.zones.find((z) => z.zone === 'middle')?.removal?.gap ?? 9)).toBeLessThan(0.35);
  });

  it('the section’s target keeps the needed thickness under the plan and never leaves the tooth', () => {
    const plan = planOfExisting(arch);
    const s = toothSection(
      (arch.teeth.get(11) as ExistingTooth).field.mesh,
      plannedTooth(arch, plan, 11),
      designOf('graduated'),
    );
    expect(s.existing.every((l) => l.closed)).toBe(true);
    expect(s.dimensions.map((d) => d.third)).toEqual(['cervical', 'middle', 'incisal']);
    for (const [a, z] of s.target) {
      const existing = reachAtLevel(s.existing, z, 'least');
      const planned = reachAtLevel(s.planned, z, 'least');
      if (existing !== undefined) expect(a).toBeGreaterThanOrEqual(existing - 1e-9);
      if (planned !== undefined && z < 8 && z > s.edge.target) expect(a - planned).toBeGreaterThan(0.25);
    }
    expect(s.edge.target).toBeCloseTo(1.5, 9);
  });

  it('a scan without one of the six is refused by name', () => {
    const whole = scan(patient, INTRAORAL_SCANNER);
    const view = new DataView(whole.buffer);
    for (let t = 0; t < view.getUint32(80, true); t++)
      if (view.getUint16(84 + 50 * t + 48, true) === 12) view.setUint16(84 + 50 * t + 48, 0, true);
    expect(() => readScan(whole, frontRow())).toThrow('The scan lacks 12 of the teeth that are needed.');
  });
});

it('a closed crown placed in the mouth keeps its shape', () => {
  const c = crown(11, { lengthMm: 10, widthMm: 8.5, facialVolumeMm: 0 });
  expect(placeMesh(c.mesh, WORLD).positions).toEqual(c.mesh.positions);
});
