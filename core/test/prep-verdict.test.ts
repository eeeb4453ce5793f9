import {
  ask,
  bounds,
  CaseEngine,
  designOf,
  type Fdi,
  FIRST_TRAY,
  type HandReading,
  handFindings,
  handPlaces,
  type Mesh,
  type PrepFinding,
  readScan,
  type SegmentedScan,
  vertexNormals,
} from '@radiant/core';
import { cutByHand, INTRAORAL_SCANNER, makePatient, random, scan, scatteredRecipe } from '@radiant/standins';
import { recuts } from '../src/prep/recut.js';

const read = (place: HandReading['place'], mm: number, way: HandReading['way'] = 'index'): HandReading => ({
  tooth: 11,
  way,
  place,
  mm,
});
const states = (all: readonly PrepFinding[]) => all.map((f) => `${f.place} ${f.state} ${f.cutMm ?? ''}`.trim());

describe('readings by hand', () => {
  const veneer = designOf('graduated');
  const crown = designOf('ceramic-crown');

  it('the usual find: an edge of 1.2 to 1.3 where 1.5 was wanted is 0.2 to 0.3 more to cut (common practice)', () => {
    for (const [mm, more] of [
      [1.2, 0.3],
      [1.3, 0.2],
    ] as const)
      expect(states(handFindings(11, veneer, [read('edge', mm)], 'index'))).toContain(`edge cut ${more}`);
    // Within what a probe is sure of nothing is asked for.
    expect(states(handFindings(11, veneer, [read('edge', 1.4)], 'index'))).toContain('edge right');
  });

  it('a crown has a palatal place, a veneer none, and what is only added has no place at all', () => {
    expect(handPlaces(crown)).toEqual(['cervical', 'middle', 'incisal', 'edge', 'palatal']);
    expect(handPlaces(veneer)).toEqual(['cervical', 'middle', 'incisal', 'edge']);
    expect(handPlaces(designOf('no-prep'))).toEqual([]);
    expect(states(handFindings(11, crown, [read('palatal', 0.5)], 'index'))).toContain('palatal cut 0.5');
  });

  it('what was not read is said and never guessed', () => {
    const own = handFindings(11, veneer, [read('middle', 0.5)], 'index');
    expect(states(own)).toEqual(['cervical unknown', 'middle right', 'incisal unknown', 'edge unknown']);
    // A reading of another tooth or of another way is none of these.
    expect(states(handFindings(21, veneer, [read('middle', 0.5)], 'index'))).toContain('middle unknown');
    expect(states(handFindings(11, veneer, [read('middle', 0.5)], 'provisional'))).toContain('middle unknown');
  });

  it('a face whose ends are right and whose middle is not is called flat', () => {
    const own = (middle: number) =>
      handFindings(11, veneer, [read('cervical', 0.3), read('middle', middle), read('incisal', 0.7)], 'index');
    expect(own(0.2).some((f) => f.check === 'face' && f.state === 'cut')).toBe(true);
    expect(own(0.5).some((f) => f.check === 'face')).toBe(false);
  });

  it('a hole in the provisional asks for all that the material needs', () => {
    const [hole] = handFindings(11, veneer, [read('cervical', 0, 'provisional')], 'provisional');
    expect([hole?.state, hole?.cutMm]).toEqual(['cut', 0.3]);
    expect(hole?.says).toContain('a hole in the provisional');
  });
});

describe('the cut list', () => {
  const finding = (
    tooth: Fdi,
    zone: PrepFinding['zone'],
    cutMm: number,
    over: Partial<PrepFinding> = {},
  ): PrepFinding => ({
    check: 'room',
    tooth,
    state: 'cut',
    place: zone ?? 'somewhere',
    ...(zone && { zone }),
    value: 0,
    pm: 0,
    unit: 'mm',
    limit: 0,
    source: { mark: 'house', text: 'house value' },
    says: '',
    cutMm,
    ...over,
  });
  const tray = { burs: FIRST_TRAY.burs, toleranceMm: 0.05 };

  it('takes the zones of a third in one go, as deep as the deepest, and takes up each bur once', () => {
    const own = recuts(
      [
        finding(21, 'middle mesial', 0.3),
        finding(21, 'middle middle', 0.4),
        finding(11, 'middle distal', 0.3),
        finding(11, 'edge', 0.5, { check: 'edge' }),
        finding(11, undefined, 0.9, {
          check: 'finish',
          place: 'facial finish line',
          along: true,
          todo: 'nearer to the gum',
        }),
        finding(12, 'middle middle', 0.3, { state: 'right' }),
      ],
      tray,
    );
    expect(own.filter((r) => r.tooth === 21).map((r) => [r.place, r.cutMm, r.findings.length])).toEqual([
      ['middle third of the face', 0.4, 2],
    ]);
    expect(own.some((r) => r.tooth === 12)).toBe(false);
    // What is cut along the surface is no groove.
    expect(own.find((r) => r.findings[0].check === 'finish')?.groove).toBeUndefined();
    const burs = own.map((r) => (r.bur ? tray.burs.indexOf(r.bur) : 99));
    expect(burs).toEqual([...burs].sort((a, b) => a - b));
    for (const r of own)
      if (r.groove?.kind === 'cut') expect(Math.abs(r.groove.engagement.depthMm - r.cutMm)).toBeLessThanOrEqual(0.05);
  });
});

describe('a scan that can’t be judged by says so', () => {
  const before = readScan(scan(makePatient({ ...scatteredRecipe(411), seed: 411 }), INTRAORAL_SCANNER));
  const engine = new CaseEngine();
  engine.take(before);
  const choice = { design: 'graduated', from: 'mock-up' } as const;
  const { 11: own, 21: other } = ask(engine, 'existingPlan');
  engine.setPlan({ 11: own, 21: other } as never);
  const moved = (m: Mesh, by: number): Mesh => ({
    positions: m.positions.map((v, i) => (i % 3 === 1 ? v + by : v)),
    triangles: m.triangles,
  });
  const later = (change: (tooth: Fdi, m: Mesh) => Mesh | undefined): SegmentedScan => ({
    jaw: 'upper',
    rest: before.rest,
    teeth: new Map(
      [...before.teeth].flatMap(([t, m]): [Fdi, Mesh][] => {
        const next = change(t, m);
        return next ? [[t, next]] : [];
      }),
    ),
  });

  it('none at all', () => {
    expect(() => ask(engine, 'prepVerdict', 'upper', choice)).toThrow('There is no scan of the prepared upper teeth.');
  });

  it('teeth on which nothing was cut', () => {
    engine.takeLater(later((_, m) => m));
    const v = ask(engine, 'prepVerdict', 'upper', choice);
    expect([v.uncut, v.teeth.length, v.laid.doubtful]).toEqual([[11, 21], 0, false]);
  });

  it('a tooth that is not in it', () => {
    engine.takeLater(later((t, m) => (t === 21 ? undefined : m)));
    expect(ask(engine, 'prepVerdict', 'upper', choice).missing).toEqual([21]);
    expect(() => ask(engine, 'preparedView', 21, choice)).toThrow('The scan of the prepared teeth has no {21}.');
  });

  it('one that lies a third of a millimetre off, or is of another mouth, is doubted and not used', () => {
    engine.takeLater(later((_, m) => moved(m, 0.35)));
    const v = ask(engine, 'prepVerdict', 'upper', choice);
    expect([v.laid.doubtful, v.teeth, v.recuts]).toEqual([true, [], []]);
    const stranger = readScan(scan(makePatient({ ...scatteredRecipe(412), seed: 412 }), INTRAORAL_SCANNER));
    engine.takeLater(stranger);
    expect(ask(engine, 'prepVerdict', 'upper', choice).laid.doubtful).toBe(true);
  });
});

describe('on a tooth that was cut', () => {
  const before = readScan(scan(makePatient({ ...scatteredRecipe(413), seed: 413 }), INTRAORAL_SCANNER));
  const engine = new CaseEngine();
  engine.take(before);
  const choice = { design: 'graduated', from: 'mock-up' } as const;
  engine.setPlan({ 11: ask(engine, 'existingPlan')[11] } as never);
  const { finishLine } = ask(engine, 'target', 11, choice).surface;
  const cut = cutByHand(before.teeth.get(11) as Mesh, {
    design: designOf('graduated'),
    planned: engine.crown(11),
    finishLine,
  });
  const after = (mesh: Mesh) =>
    engine.takeLater({ jaw: 'upper', rest: before.rest, teeth: new Map([...before.teeth, [11, mesh]]) });

  it('a shell goes home as long as its wall is thinner than the room, and binds at the gum first, where there is least', () => {
    after(cut);
    expect(ask(engine, 'shellTried', 11, choice, 0.2).binds).toEqual([]);
    const own = ask(engine, 'shellTried', 11, choice, 0.5);
    expect(own.binds.length).toBeGreaterThan(0);
    // 0.3 mm were asked at the gum, 0.7 at the edge: there it has room.
    expect(own.binds.some((b) => b.zone.startsWith('cervical'))).toBe(true);
    expect(own.binds.some((b) => b.zone.startsWith('incisal'))).toBe(false);
    const gum = own.binds.find((b) => b.zone === 'cervical middle');
    expect(Math.abs((gum?.deepMm ?? 0) - 0.25)).toBeLessThan(0.1);
    // As much is cut as the plan asks: the shell is ground and not the tooth.
    expect(gum?.cut).toBe('shell');
    expect(own.offMm).toBeGreaterThanOrEqual(gum?.deepMm ?? Infinity);
    expect(() => ask(engine, 'shellTried', 11, choice, 3)).toThrow('A shell’s wall is 0.2 to 1.5 mm thick.');
  });

  describe('the provisional in place proves what was cut', () => {
    const planned = engine.crown(11).mesh;
    /** The planned crown with its face sunk around its middle, as one that was ground or filled badly. */
    const sunk = (mm: number): Mesh => {
      const normals = vertexNormals(planned);
      const { min, max } = bounds(planned);
      const middle = [(min[0] + max[0]) / 2, min[1], min[2] + 0.4 * (crownTop(planned) - min[2])];
      return {
        triangles: planned.triangles,
        positions: planned.positions.map((at, i) => {
          const v = 3 * Math.floor(i / 3);
          const away = Math.hypot(...[0, 2].map((k) => (planned.positions[v + k] as number) - (middle[k] as number)));
          const faces = (normals[v + 1] as number) < -0.3;
          return faces && away < 2.2 ? at - mm * (normals[i] as number) : at;
        }),
      };
    };
    const crownTop = (m: Mesh) => bounds(m).min[2] + 9;
    const worn = (mesh: Mesh) =>
      engine.takeLater(
        { jaw: 'upper', rest: before.rest, teeth: new Map([...before.teeth, [11, mesh]]) },
        'provisional',
      );
    const proof = () => {
      const own = ask(engine, 'prepVerdict', 'upper', choice);
      return { laid: own.provisional, found: own.teeth[0]?.findings.filter((f) => f.check === 'provisional') ?? [] };
    };
    afterAll(() => engine.dropLater('upper', 'provisional'));

    it('is told only where there is one', () => {
      after(cut);
      expect(proof()).toEqual({ laid: undefined, found: [] });
    });

    it('is as thick as the plan asks where it is the planned crown and the cut is right', () => {
      after(cut);
      worn(planned);
      const { laid, found } = proof();
      expect(laid?.doubtful).toBe(false);
      expect(found.length).toBeGreaterThanOrEqual(6);
      expect(found.filter((f) => f.state !== 'right')).toEqual([]);
      // The graduated veneer asks 0.5 in the middle of the face, and the edge 1.5 mm.
      const thick = (zone: string) => found.find((f) => f.zone === zone)?.value as number;
      expect(Math.abs(thick('middle middle') - 0.5)).toBeLessThan(0.1);
      expect(Math.abs(thick('edge') - 1.5)).toBeLessThan(0.25);
    });

    it('is thin at an edge that was cut too little, and asks for the cut', () => {
      const short = cutByHand(before.teeth.get(11) as Mesh, {
        design: designOf('graduated'),
        planned: engine.crown(11),
        finishLine,
        faults: { 'edge short': 0.5 },
      });
      after(short);
      worn(planned);
      // What the edge's own check asks for is not asked for twice: the provisional is its proof.
      expect(proof().found.some((f) => f.zone === 'edge' && f.state === 'cut')).toBe(false);
      const edge = ask(engine, 'prepVerdict', 'upper', choice).teeth[0]?.findings.find(
        (f) => f.zone === 'edge' && f.state === 'cut',
      );
      expect(Math.abs((edge?.cutMm ?? 0) - 0.5)).toBeLessThan(0.15);
      const thick = Number(/the provisional is ([\d.]+) mm thick there/.exec(edge?.says ?? '')?.[1]);
      expect(Math.abs(thick - 1)).toBeLessThan(0.25);
    });

    it('is not taken for a shallow cut where the provisional itself lies under the plan', () => {
      after(cut);
      worn(sunk(0.3));
      const middle = proof().found.find((f) => f.zone === 'middle middle');
      expect(middle?.state).toBe('look');
      expect(Math.abs((middle?.value ?? 0) - 0.2)).toBeLessThan(0.1);
      expect(middle?.says).toMatch(/lies 0\.[23]\d mm under the planned contour/);
      expect(middle?.cutMm).toBeUndefined();
    });

    it('has a hole where it lies under the cut tooth', () => {
      after(cut);
      worn(sunk(0.8));
      expect(proof().found.find((f) => f.zone === 'middle middle')?.says).toContain('a hole in the provisional');
    });

    it('is not judged where its scan lies doubtfully', () => {
      after(cut);
      engine.takeLater(
        {
          jaw: 'upper',
          rest: before.rest,
          teeth: new Map([...before.teeth].map(([t, m]): [Fdi, Mesh] => [t, t === 11 ? planned : movedBack(m)])),
        },
        'provisional',
      );
      const { laid, found } = proof();
      expect([laid?.doubtful, found]).toEqual([true, []]);
    });
    const movedBack = (m: Mesh): Mesh => ({
      positions: m.positions.map((v, i) => (i % 3 === 1 ? v + 0.35 : v)),
      triangles: m.triangles,
    });
  });

  it('a finish line that is drawn by hand is judged as it is drawn', () => {
    after(cut);
    const { finish } = ask(engine, 'preparedView', 11, choice);
    // A millimetre nearer to the edge than planned, all around.
    const lines = finish.map(({ at }) => ({ tooth: 11, at, mm: 1 }));
    const line = (given: typeof lines) =>
      ask(engine, 'prepTooth', 11, choice, {}, given).findings.find((f) => f.place === 'facial finish line');
    expect(line([])?.state).toBe('right');
    expect(line(lines)?.state).toBe('cut');
    expect(line(lines)?.says).toMatch(/lies (0\.9\d|1\.0\d) mm too far to the edge, drawn by hand/);
    const view = ask(engine, 'preparedView', 11, choice, {}, lines);
    for (const f of view.finish) expect(Math.abs((f.highMm ?? 0) - 1)).toBeLessThan(0.06);
    // Another tooth's line is none of this one's.
    expect(line(lines.map((l) => ({ ...l, tooth: 21 })))?.state).toBe('right');
  });

  it('a rough cut is told, a smooth one not', () => {
    const surface = () =>
      ask(engine, 'prepVerdict', 'upper', choice).teeth[0]?.findings.find((f) => f.check === 'surface');
    after(cut);
    expect(surface()?.state).toBe('right');
    const r = random(17);
    const rough = cut.positions.map((v) => v + r.normal(0.09));
    after({ positions: rough, triangles: cut.triangles });
    expect(surface()?.state).toBe('look');
  });
});
