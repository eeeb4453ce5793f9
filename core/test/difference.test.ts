import { AVOCET, INTRAORAL_SCANNER, makePatient, scan } from '@radiant/standins';
import {
  ask,
  CaseEngine,
  contourDifference,
  contourDifferenceQuick,
  existingArch,
  firstContour,
  plannedTooth,
  planOfExisting,
  readScan,
} from '../src/index.js';

describe('the difference between planned and existing surface', () => {
  const arch = existingArch(readScan(scan(makePatient(AVOCET), INTRAORAL_SCANNER)));
  const plan = planOfExisting(arch);

  it.each([11, 13, 22])(
    'drawn quickly, tooth %i differs from the full answer by less than a scan can tell',
    (tooth) => {
      const planned = plannedTooth(
        arch,
        { ...plan, [tooth]: { ...plan[tooth], facialVolumeMm: 0.3 } } as typeof plan,
        tooth,
      );
      const full = contourDifference(arch, planned);
      const quick = contourDifferenceQuick(arch, planned);
      expect(quick).toHaveLength(full.length);
      const off = [...full].map((mm, i) => Math.abs(mm - (quick[i] as number))).sort((a, b) => a - b);
      expect(off[Math.floor(off.length * 0.95)]).toBeLessThan(0.025);
      expect(off.at(-1)).toBeLessThan(0.25);
      // A quarter of the net is measured outright.
      expect(off.filter((d) => d === 0).length).toBeGreaterThan(off.length / 4);
    },
  );

  it('a facial fuller by 0.6 mm lies up to 0.6 mm further from the tooth, over a third of the crown', () => {
    const of = (facialVolumeMm: number) =>
      contourDifference(arch, plannedTooth(arch, { ...plan, 11: { ...plan[11], facialVolumeMm } } as typeof plan, 11));
    const flat = of(0);
    const change = [...of(0.6)].map((mm, i) => mm - (flat[i] as number));
    expect(Math.max(...change)).toBeGreaterThan(0.45);
    expect(Math.max(...change)).toBeLessThan(0.7);
    expect(change.filter((mm) => mm > 0.1).length).toBeGreaterThan(change.length / 3);
  });
});

describe('teeth on which an index of the plan would not seat', () => {
  const engineOf = (traits: Parameters<typeof makePatient>[0]['traits']) => {
    const engine = new CaseEngine();
    engine.take(readScan(scan(makePatient({ seed: 12, traits }), INTRAORAL_SCANNER), []));
    return engine;
  };
  const proudOf = (engine: CaseEngine, more = 0) => {
    const plan = firstContour(engine.arch('upper'), new Map());
    engine.setPlan(
      Object.fromEntries(Object.entries(plan).map(([t, own]) => [t, { ...own, forwardMm: more }])) as typeof plan,
    );
    return ask(engine, 'proudTeeth');
  };

  it('none in a row that stands straight; a central before the arch by as much as the plan leaves of it', () => {
    expect(proudOf(engineOf({}))).toEqual([]);
    const engine = engineOf({ 21: { forwardMm: 1.8 } });
    const [first, ...others] = proudOf(engine);
    expect(first?.tooth).toBe(21);
    expect(first?.mm).toBeGreaterThan(0.35);
    expect(first?.mm).toBeLessThan(1.8);
    for (const o of others) expect(o.mm).toBeLessThan(first?.mm ?? 0);
    // A plan that is carried in front of it leaves nothing proud, and one that comes some way the rest of it.
    expect(proudOf(engine, 2)).toEqual([]);
    const half = proudOf(engine, 0.2)[0];
    expect((first?.mm ?? 0) - (half?.mm ?? 0)).toBeCloseTo(0.2, 1);
  });
});
