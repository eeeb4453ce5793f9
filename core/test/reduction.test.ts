import {
  box,
  buildTree,
  type CrownSize,
  cross,
  crown,
  crownZenith,
  designOf,
  type ExistingArch,
  type ExistingTooth,
  enamelLeft,
  enamelNormAt,
  enamelWords,
  existingArch,
  FACIAL_ENAMEL,
  firstContour,
  frontRow,
  type Mesh,
  type Mouth,
  neededAt,
  type PlannedTooth,
  placeMesh,
  plannedTooth,
  planOfExisting,
  type Removal,
  rayCaster,
  reachAtLevel,
  readScan,
  reductionBetween,
  removal,
  type SectionLine,
  sculpted,
  section,
  signedDistances,
  signedField,
  sphere,
  sub,
  targetSurface,
  thirdAt,
  toothReduction,
  toothSection,
  turn,
  type Vec3,
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
    const left = enamelLeft(FACIAL_ENAMEL.cervical, cut);
    expect(left.state).toBe(state);
    expect(enamelWords(left) === 'gone').toBe(state === 'gone');
  });

  it('a depth whose error could reach the thin end of the norm is not called kept', () => {
    expect(enamelLeft(FACIAL_ENAMEL.cervical, 0.26, 0.05).state).toBe('doubtful');
    expect(enamelLeft(FACIAL_ENAMEL.cervical, 0.24, 0.05).state).toBe('kept');
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
      // The edge third's middle lies in the cut edge: it is read above it, where a little less is needed.
      expect(Math.abs((z.get(zone)?.removal?.remove.value ?? 9) - mm)).toBeLessThan(zone === 'incisal' ? 0.06 : 0.01);
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
    // A fuller face is fuller in its middle: about the line angles there is something to cut.
    expect(z?.sentence).toMatchObject({
      weight: 'good',
      text: expect.stringMatching(
        /nothing to cut in the middle, where the plan adds 0\.[789]\d mm; up to 0\.\d\d mm beside it/,
      ),
    });
    expect(z?.groove.kind).toBe('none');
  });

  it('a flatter plan meets a proud tooth: enamel runs out, and it says how much more volume keeps it', () => {
    const z = zones({ facialVolumeMm: -0.5 }).get('cervical');
    expect(z?.removal?.alignFirst).toBeGreaterThan(0.1);
    expect(z?.enamel?.state).not.toBe('kept');
    expect(z?.sentence?.text).toMatch(
      /\{11\}, cervical: up to 0\.\d\d mm, (which may reach dentin|which goes through the enamel).* more volume there keeps/,
    );
  });

  /** The face by its triangles, an answer of its own: their middles, areas and thirds, line angles among them. */
  const faceOf = (mesh: Mesh, zenith: number) => {
    const p = mesh.positions;
    const sees = rayCaster(buildTree(mesh));
    const at = (v: number): Vec3 => [p[3 * v], p[3 * v + 1], p[3 * v + 2]];
    const out: { at: Vec3; areaMm2: number; share: number }[] = [];
    for (let t = 0; t < mesh.triangles.length; t += 3) {
      const [a, b, c] = [0, 1, 2].map((k) => at(mesh.triangles[t + k])) as [Vec3, Vec3, Vec3];
      const n = cross(sub(b, a), sub(c, a));
      const twice = Math.hypot(...n);
      const middle = [0, 1, 2].map((k) => (a[k as 0] + b[k as 0] + c[k as 0]) / 3) as unknown as Vec3;
      if (-n[1] / twice < 0.25 || middle[2] > zenith - 0.3 || middle[2] < 0) continue;
      // What closes the neck looks forward too, from behind the face.
      if (sees.first([middle[0], middle[1] - 0.01, middle[2]], [0, -1, 0], 14)) continue;
      out.push({ at: middle, areaMm2: twice / 2, share: middle[2] / zenith });
    }
    return out;
  };
  const turned = (deg: number): PlannedTooth => {
    const c = crown(11, size);
    const frame = turn(WORLD, 'z', deg);
    return { tooth: 11, crown: c, frame, mesh: placeMesh(c.mesh, frame) };
  };

  it('where the plan is turned one side of the face is deep: enamel is judged there, not in the middle', () => {
    const straight = zones({}).get('middle');
    const z = new Map(
      reductionBetween(there, turned(9), designOf('graduated'), 'mock-up').zones.map((q) => [q.zone, q]),
    ).get('middle');
    expect(Math.abs((z?.removal?.remove.value ?? 9) - (straight?.removal?.remove.value ?? 0))).toBeLessThan(0.1);
    expect(z?.deepest?.value).toBeGreaterThan((z?.removal?.remove.value ?? 9) + 0.25);
    expect(straight?.enamel?.state).toBe('kept');
    expect(z?.enamel?.state).not.toBe('kept');
    expect(z?.sentence?.text).toMatch(/^\{11\}, middle: up to 0\.\d\d mm, which (may reach dentin|goes through)/);
    expect(z?.deepest?.working.formula).toContain('95 %');
  });

  it.each([0, 9, -14])('the deepest is what the triangles of the face say, turned by %d°', (deg) => {
    const plan = turned(deg);
    const zenith = crownZenith(plan.crown)[2];
    const face = faceOf(there.mesh, zenith);
    const gaps = signedDistances(signedField(plan.mesh), Float64Array.from(face.flatMap((f) => f.at))).map((d) => -d);
    const design = designOf('graduated');
    for (const target of reductionBetween(there, plan, design, 'mock-up').zones) {
      if (!target.deepest) continue;
      const own = face
        .map((f, i) => ({ ...f, removeMm: Math.max(0, neededAt(design, f.share) - gaps[i]) }))
        // Below the cut edge and its rounded corner there is no face left.
        .filter((f) => thirdAt(f.share) === target.zone && f.share * zenith > 1.7)
        .sort((a, b) => a.removeMm - b.removeMm);
      const whole = own.reduce((n, f) => n + f.areaMm2, 0);
      let under = 0;
      const deep = own.find((f) => {
        under += f.areaMm2;
        return under >= 0.95 * whole;
      });
      expect(Math.abs(target.deepest.value - (deep?.removeMm ?? 9))).toBeLessThan(0.06);
    }
  });

  it('enamel is judged by the thirds of the tooth, also where the plan’s gum lies higher; on the root there is none', () => {
    const span = crownZenith(planned({}).crown)[2];
    const judged = (zenith: number) =>
      new Map(
        reductionBetween(there, planned({}), designOf('graduated'), 'mock-up', { edge: 0, zenith }).zones.map((z) => [
          z.zone,
          z,
        ]),
      );
    // A fifth of the crown is uncovered: what is the plan's middle is the tooth's cervical third by then.
    expect(judged(span).get('middle')?.enamel?.state).toBe('kept');
    expect(judged(0.75 * span).get('middle')?.enamel?.from).toBeLessThan(judged(span).get('middle')?.enamel?.from ?? 0);
    expect(judged(0.6 * span).get('cervical')).toMatchObject({
      enamel: { state: 'gone' },
      sentence: { weight: 'stop', text: expect.stringContaining('lies over the root, which has no enamel') },
    });
    expect(enamelNormAt(1.01)).toMatchObject({ from: 0, to: 0 });
    expect(enamelNormAt(5 / 6)).toMatchObject({ from: 0.3, to: 0.5 });
    expect(enamelNormAt(1 / 3).from).toBeCloseTo(0.8, 9);
  });

  it('acid halves the thin end of the enamel, and a grinder’s edge is told to be thin', () => {
    const of = (mouth: Mouth) =>
      new Map(
        reductionBetween(
          there,
          planned({ facialVolumeMm: 0.2 }),
          designOf('graduated'),
          'mock-up',
          undefined,
          mouth,
        ).zones.map((z) => [z.zone, z]),
      );
    const [sound, acid, grinds] = [of({}), of({ acid: true }), of({ grinding: true })];
    expect(sound.get('middle')?.enamel?.state).toBe('kept');
    expect(acid.get('middle')?.enamel?.from).toBeLessThan((sound.get('middle')?.enamel?.from ?? 0) - 0.25);
    expect(enamelNormAt(1 / 2, { acid: true })).toMatchObject({ from: 0.3, to: 1 });
    expect(sound.get('edge')?.sentence).toBeUndefined();
    expect(grinds.get('edge')?.sentence).toMatchObject({
      weight: 'watch',
      text: '{11}, edge: clenches or grinds; 1.5 mm is thin for that, 2.0 mm and a guard at night are usual.',
    });
  });

  it('the brush reaches the edge: what is brushed on there is not cut', () => {
    const base = planned({});
    const edge = (mesh: Mesh) =>
      reductionBetween(there, { ...base, mesh }, designOf('graduated'), 'mock-up').zones.find((z) => z.zone === 'edge')
        ?.removal as Removal;
    const low: number[] = [];
    const { positions: p } = base.mesh;
    for (let v = 0; v < p.length; v += 3) if (p[v + 2] < 0.6 && Math.abs(p[v]) < 3.4) low.push(v / 3);
    const brushed = sculpted(base.crown, [{ tool: 'add', radiusMm: 2, amount: 0.1, at: low }]).mesh;
    expect(Math.abs(edge(base.mesh).remove.value - 1.5)).toBeLessThan(0.02);
    expect(edge(brushed).gap).toBeGreaterThan(0.05);
    expect(edge(brushed).remove.value).toBeCloseTo(1.5 - edge(brushed).gap, 1);
  });

  it('how far the tooth stands proud of the plan is a figure of its own, also where the middle does not', () => {
    const thinner = new Map(
      reductionBetween(there, planned({ facialVolumeMm: -0.3 }), designOf('graduated'), 'mock-up').zones.map((z) => [
        z.zone,
        z,
      ]),
    );
    expect(thinner.get('middle')?.proud?.value).toBeGreaterThan(0.2);
    expect(thinner.get('middle')?.proud?.value).toBeLessThan(0.35);
    expect(thinner.get('middle')?.proud?.working.note).toMatch(/mock-up of the plan does not cover it/);
    expect(zones({ facialVolumeMm: 0.3 }).get('middle')?.proud?.value).toBe(0);
    // Turned, one side comes forward and the other goes back; the middle of the face stays.
    const side = new Map(
      reductionBetween(there, turned(9), designOf('graduated'), 'mock-up').zones.map((z) => [z.zone, z]),
    ).get('middle');
    expect(side?.removal?.alignFirst).toBeLessThan(0.1);
    expect(side?.proud?.value).toBeGreaterThan(0.25);
  });

  it('what is removed is counted over the whole face, line angles among it', () => {
    const half = { ...designOf('graduated'), needs: { cervical: 0.5, middle: 0.5, incisal: 0.5 } };
    const r = reductionBetween(there, planned({}), half, 'mock-up');
    const zenith = crownZenith(planned({}).crown)[2];
    const area = faceOf(there.mesh, zenith).reduce((n, f) => n + (f.share * zenith > 1.5 ? f.areaMm2 : 0), 0);
    const edge = volumeUnder(there.mesh, 1.5);
    // Under a curved face less lies than under a flat one, and at the finish line and the contacts it runs out.
    expect((r.unplannedMm3 - edge) / (0.5 * area)).toBeGreaterThan(0.8);
    expect((r.unplannedMm3 - edge) / (0.5 * area)).toBeLessThan(1);
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
    const r = toothReduction(arch, plan, 12, designOf('graduated'), 'margin');
    expect(Math.abs(r.zones.find((z) => z.zone === 'middle')?.removal?.gap ?? 9)).toBeLessThan(0.35);
  });

  it('the section’s target keeps the needed thickness under the plan and never leaves the tooth', () => {
    const plan = planOfExisting(arch);
    const s = toothSection(
      (arch.teeth.get(11) as ExistingTooth).field.mesh,
      plannedTooth(arch, plan, 11),
      targetSurface(arch, plan, 11, designOf('graduated')),
    );
    // Open at the neck: the two ends lie above the gum line and nowhere else, and nothing closes them.
    expect(s.existing.map((l) => l.closed)).toEqual([false]);
    const { points } = s.existing[0] as SectionLine;
    for (const end of [points[1], points.at(-1)]) expect(end).toBeGreaterThan(8);
    expect(s.dimensions.map((d) => d.third)).toEqual(['cervical', 'middle', 'incisal']);
    for (let z = 1.6; z < 8; z += 0.2) {
      const [existing, planned, a] = [s.existing, s.planned, s.target].map((l) => reachAtLevel(l, z, 'least'));
      // The scan's own triangles are finer than the grid of the target.
      expect(a).toBeGreaterThan((existing as number) - 0.03);
      expect((a as number) - (planned as number)).toBeGreaterThan(0.25);
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

/** What of a closed mesh lies under a height, mm³. */
function volumeUnder(mesh: Mesh, z: number): number {
  // Levels of a tenth of a millimetre, each by its outlines.
  let sum = 0;
  for (let at = 0.05; at < z; at += 0.1) {
    const level = section(mesh, { ...WORLD, origin: [0, 0, at] });
    for (const { points: p } of level) {
      let twice = 0;
      for (let i = 0; i < p.length; i += 2) {
        const j = (i + 2) % p.length;
        twice += (p[i] as number) * (p[j + 1] as number) - (p[j] as number) * (p[i + 1] as number);
      }
      sum += (Math.abs(twice) / 2) * 0.1;
    }
  }
  return sum;
}
