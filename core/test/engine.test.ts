import {
  ask,
  bounds,
  CaseEngine,
  type ContourPlan,
  type DesignId,
  designOf,
  existingArch,
  type Fdi,
  frontRow,
  inMouth,
  type Mesh,
  plannedTooth,
  planOfExisting,
  Refusal,
  readScan,
  TARGET_PLACES,
  type ToothPlan,
  toothReduction,
} from '@radiant/core';
import { AVOCET, INTRAORAL_SCANNER, makePatient, random, scan } from '@radiant/standins';
import { BufferAttribute, BufferGeometry, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';

const patient = makePatient(AVOCET);
const upper = readScan(scan(patient, INTRAORAL_SCANNER), []);
const lower = readScan(scan(patient, INTRAORAL_SCANNER, 'stl', 'lower'), []);
const arch = existingArch(upper);

function engineWith(plan: ContourPlan, ...jaws: (typeof upper)[]): CaseEngine {
  const engine = new CaseEngine();
  for (const j of jaws.length > 0 ? jaws : [upper]) engine.take(j);
  engine.setPlan(plan);
  return engine;
}
const refusal = (work: () => unknown): Refusal => {
  try {
    work();
  } catch (error) {
    if (error instanceof Refusal) return error;
  }
  throw new Error('nothing was refused');
};

describe('a case’s engine', () => {
  const SEED = 4242;
  it(`after any changes says the same as one that begins from scratch (seed ${SEED})`, () => {
    const r = random(SEED);
    let plan: ContourPlan = planOfExisting(arch);
    const living = engineWith(plan, upper, lower);
    for (let step = 0; step < 6; step++) {
      const tooth = frontRow()[Math.floor(r.next() * 6)] as Fdi;
      const own = plan[tooth];
      const drop = r.next() < 0.2 && Object.keys(plan).length > 3;
      const next: Partial<Record<Fdi, ToothPlan>> = { ...plan };
      if (drop) delete next[tooth];
      else
        next[tooth] = {
          ...(own ?? ask(living, 'asItStands', tooth)),
          widthMm: 6 + 3 * r.next(),
          lengthMm: 8 + 3 * r.next(),
          facialVolumeMm: r.next(),
        };
      plan = next;
      living.setPlan(plan);
      const fresh = engineWith(JSON.parse(JSON.stringify(plan)), upper, lower);
      expect(living.teeth()).toEqual(fresh.teeth());
      for (const t of living.teeth()) expect(living.crown(t).mesh.positions).toEqual(fresh.crown(t).mesh.positions);
      if (step % 5 === 0) expect(ask(living, 'closedBite')).toEqual(ask(fresh, 'closedBite'));
    }
  });

  it('makes again only the crowns that a change moves: those behind it on its side', () => {
    const plan = planOfExisting(arch);
    const engine = engineWith(plan);
    const before = new Map(frontRow().map((t) => [t, engine.crown(t)]));
    engine.setPlan({ ...plan, 12: { ...(plan[12] as ToothPlan), widthMm: 7.3 } });
    expect(frontRow().filter((t) => engine.crown(t) !== before.get(t))).toEqual([13, 12]);
    const now = engine.crowns();
    engine.setPlan({ ...plan, 12: { ...(plan[12] as ToothPlan), widthMm: 7.3 } });
    expect(engine.crowns()).toBe(now);
  });

  it('answers a question about a crown once, and anew when the crown has changed', () => {
    const plan = planOfExisting(arch);
    const engine = engineWith(plan);
    const choice = { design: 'graduated', from: 'margin' } as const;
    const of = (design: DesignId = 'graduated') =>
      ask(engine, 'reductions', { ...choice, design }).find((r) => r.tooth === 21);
    const first = of();
    expect(of()?.zones[0]?.removal).toBe(first?.zones[0]?.removal);
    const alone = toothReduction(arch, plan, 21, designOf('graduated'), 'margin');
    expect(first?.zones.map((z) => z.removal)).toEqual(alone.zones.map((z) => z.removal));
    expect(of('even')?.zones[1]?.removal).not.toEqual(first?.zones[1]?.removal);
    engine.setPlan({ ...plan, 21: { ...(plan[21] as ToothPlan), facialVolumeMm: 0.5 } });
    expect(of()?.zones[1]?.removal).not.toEqual(first?.zones[1]?.removal);
    // Its neighbour's crown is the same.
    expect(ask(engine, 'difference', 11, false).mesh).toEqual(inMouth(plannedTooth(arch, plan, 11)).mesh);
  });

  it('a tooth may have a design of its own; the others have the case’s', () => {
    const engine = engineWith(planOfExisting(arch));
    const own = ask(engine, 'reductions', {
      design: 'graduated',
      from: 'margin',
      own: [{ tooth: 21, design: 'ceramic-crown' }],
    });
    const needed = (t: Fdi) => own.find((r) => r.tooth === t)?.zones.find((z) => z.zone === 'middle')?.removal?.needed;
    expect([needed(11), needed(21)]).toEqual([0.5, 1.2]);
  });

  it('targets are told of any planned tooth of either jaw, and of one tooth alone', () => {
    const engine = engineWith({}, upper, lower);
    engine.setPlan({ 14: ask(engine, 'asItStands', 14), 41: ask(engine, 'asItStands', 41) });
    expect(ask(engine, 'reductions', { design: 'minimal', from: 'margin' }).map((r) => r.tooth)).toEqual([14, 41]);
    engine.setPlan({ 11: ask(engine, 'asItStands', 11) });
    const [only] = ask(engine, 'reductions', { design: 'ceramic-crown', from: 'margin' });
    expect(only?.zones.map((z) => z.removal?.needed)).toEqual([1.1, 1.2, 1.4, 2]);
  });

  it('the room in the bite is what three-mesh-bvh measures from the preparation to the lower teeth, and less when sliding', () => {
    const choice = { design: 'ceramic-crown' } as const;
    const alone = engineWith({}, upper);
    alone.setPlan({ 11: ask(alone, 'asItStands', 11) });
    expect(ask(alone, 'roomInBite', 11, choice)).toBeUndefined();
    const engine = engineWith({}, upper, lower);
    const stands = ask(engine, 'asItStands', 11);
    engine.setPlan({ 11: stands });
    const rooms = ask(engine, 'roomInBite', 11, choice) ?? [];
    const palatal = rooms.find((r) => r.place === 'palatal');
    const { mesh, surface } = ask(engine, 'target', 11, choice);
    const trees = [...lower.teeth.values()].map((m) => {
      const geometry = new BufferGeometry();
      geometry.setAttribute('position', new BufferAttribute(Float32Array.from(m.positions), 3));
      geometry.setIndex(new BufferAttribute(Uint32Array.from(m.triangles), 1));
      return new MeshBVH(geometry);
    });
    const own = Array.from(surface.covered.keys())
      .filter((v) => surface.covered[v] === TARGET_PLACES.indexOf('palatal'))
      .map((v) => {
        const [x, y, z] = mesh.positions.subarray(3 * v, 3 * v + 3);
        return Math.min(...trees.map((t) => t.closestPointToPoint(new Vector3(x, y, z))?.distance ?? 99));
      })
      .sort((a, b) => a - b);
    expect(palatal?.closedMm).toBeCloseTo(own[Math.floor(0.01 * own.length)] as number, 3);
    expect(palatal?.wantedMm).toBe(1);
    // Cut a millimetre from a tooth that stands in its bite, a millimetre and no more is free at its tightest.
    expect(palatal?.closedMm).toBeGreaterThan(0.6);
    expect(palatal?.closedMm).toBeLessThan(1.8);
    for (const r of rooms) expect(r.movedMm).toBeLessThanOrEqual(r.closedMm);
    // What is cut for the bite stands beside what the material needs, and makes the room that it says.
    const more = { ...choice, room: [{ tooth: 11 as const, place: 'palatal' as const, moreMm: 0.4 }] };
    const deeper = (ask(engine, 'roomInBite', 11, more) ?? []).find((r) => r.place === 'palatal');
    expect(deeper?.wantedMm).toBeCloseTo(1, 12);
    expect([deeper?.forBiteMm, palatal?.forBiteMm]).toEqual([0.4, 0]);
    // The tightest place lies where the palatal surface runs into the sides, whose thickness stays.
    expect((deeper?.closedMm ?? 0) - (palatal?.closedMm ?? 0)).toBeGreaterThan(0.15);
    expect((deeper?.closedMm ?? 0) - (palatal?.closedMm ?? 0)).toBeLessThan(0.5);
    expect(ask(engine, 'target', 11, more).told.removedMm3).toBeGreaterThan(
      ask(engine, 'target', 11, choice).told.removedMm3,
    );
    // A veneer covers nothing behind; a crown made fuller to the front leaves as much.
    expect(ask(engine, 'roomInBite', 11, { design: 'facial' })?.some((r) => r.place === 'palatal')).toBe(false);
  });

  it('a target preparation lies in the tooth that it is of, in the mouth, in either jaw, on the right side', () => {
    const engine = engineWith({}, upper, lower);
    engine.setPlan({
      13: ask(engine, 'asItStands', 13),
      43: ask(engine, 'asItStands', 43),
      31: ask(engine, 'asItStands', 31),
    });
    for (const [tooth, jaw] of [
      [13, upper],
      [43, lower],
      [31, lower],
    ] as const) {
      const { mesh, before, told } = ask(engine, 'target', tooth, { design: 'minimal' });
      const [there, own, cut] = [jaw.teeth.get(tooth) as Mesh, before, mesh].map(bounds);
      for (const c of [0, 1, 2] as const) {
        // The neck ends where the gum does, a little before the scan's own end.
        expect(Math.abs((own?.min[c] as number) - (there?.min[c] as number))).toBeLessThan(0.45);
        expect(Math.abs((own?.max[c] as number) - (there?.max[c] as number))).toBeLessThan(0.45);
        expect(cut?.min[c]).toBeGreaterThan((own?.min[c] as number) - 1e-6);
        expect(cut?.max[c]).toBeLessThan((own?.max[c] as number) + 1e-6);
      }
      // In the mouth y goes backward: from the foremost place of the tooth the half millimetre goes backward.
      const y = (m: Mesh, v: number) => m.positions[3 * v + 1] as number;
      const foremost = Array.from({ length: before.positions.length / 3 }, (_, v) => v).reduce((a, v) =>
        y(before, v) < y(before, a) ? v : a,
      );
      expect(y(mesh, foremost) - y(before, foremost)).toBeGreaterThan(0.35);
      expect(told.zones.map((z) => z.zone)).toContain('middle middle');
      expect(told.removedMm3).toBeGreaterThan(3);
    }
  });

  it('a planned tooth that the scan lacks is named and passed over; asked for by itself it is refused with its number', () => {
    const without = { ...upper, teeth: new Map([...upper.teeth].filter(([t]) => t !== 12)) };
    const engine = engineWith(planOfExisting(arch), without);
    expect(engine.without()).toEqual([12]);
    expect(engine.teeth()).toEqual([13, 11, 21, 22, 23]);
    expect(engine.crowns().has(12)).toBe(false);
    expect(refusal(() => engine.crown(12))).toMatchObject({
      code: 'tooth-missing',
      received: 12,
      message: 'The scan has no tooth {12}.',
    });
    expect(refusal(() => ask(engine, 'sectionOf', 12, { design: 'graduated' }))).toMatchObject({
      code: 'tooth-missing',
    });
    expect(ask(engine, 'reductions', { design: 'graduated', from: 'margin' })).toHaveLength(5);
  });

  it('without a scan, and with one whose teeth can’t be measured, each question is refused with its reason', () => {
    const empty = new CaseEngine();
    expect(refusal(() => empty.arch('upper')).code).toBe('scan-missing');
    expect(ask(empty, 'closedBite')).toBeUndefined();
    const canines = { ...upper, teeth: new Map([...upper.teeth].filter(([t]) => t === 13 || t === 23)) };
    const engine = engineWith({}, canines);
    expect(engine.isMeasured('upper')).toBe(false);
    expect(refusal(() => ask(engine, 'existing', 'upper')).code).toBe('scan-without-teeth');
    // Asked again it says the same, and does not measure again.
    expect(refusal(() => engine.arch('upper'))).toBe(refusal(() => engine.arch('upper')));
  });

  it('a stroke that can’t be taken is refused by type', () => {
    const engine = engineWith(planOfExisting(arch));
    expect(
      refusal(() =>
        ask(engine, 'strokeFits', 12, {
          tool: 'remove',
          radiusMm: 2,
          amount: 1,
          // Near the edge, which is a millimetre thick.
          at: Array.from({ length: 300 }, () => 3864),
        }),
      ).code,
    ).toBe('stroke-not-possible');
    expect(ask(engine, 'strokeFits', 12, { tool: 'add', radiusMm: 1, amount: 0.1, at: [700] })).toBe(true);
  });
});
