import {
  alignedFirst,
  ask,
  CaseEngine,
  existingArch,
  firstContour,
  frontRow,
  planOfExisting,
  readScan,
  type ToothPlan,
  WORTH_MOVING_MM3,
} from '@radiant/core';
import { INTRAORAL_SCANNER, makePatient, scan } from '@radiant/standins';

const archOf = (traits: Parameters<typeof makePatient>[0]['traits']) =>
  existingArch(readScan(scan(makePatient({ seed: 12, traits }), INTRAORAL_SCANNER)));
const of = (list: ReturnType<typeof alignedFirst>, tooth: number) =>
  list.find((t) => t.tooth === tooth) as ReturnType<typeof alignedFirst>[number];

const saved = (list: ReturnType<typeof alignedFirst>) =>
  list.reduce((n, t) => n + t.removedMm3 - t.removedAlignedMm3, 0);

describe('moving teeth first, before an additive contour', () => {
  const turned = archOf({ 12: { rotationDeg: 18 }, 21: { forwardMm: 1.3 } });
  const straight = archOf({});

  it('saves what a turned lateral and a central before the arch would lose', () => {
    const found = alignedFirst(turned, firstContour(turned, new Map()));
    expect(found).toHaveLength(frontRow().length);
    for (const t of [12, 21]) {
      expect(of(found, t).removedMm3).toBeGreaterThan(5);
      // In its planned place a tooth that the plan copies has next to nothing to lose: the form's fit and the scan's
      // error.
      expect(of(found, t).removedAlignedMm3).toBeLessThan(0.35 * of(found, t).removedMm3);
    }
    expect(saved(found)).toBeGreaterThan(2 * WORTH_MOVING_MM3);
  });

  it('is told before there is a contour, for targets, and in enamel too', () => {
    const engine = new CaseEngine();
    engine.take(readScan(scan(makePatient({ seed: 12, traits: { 21: { forwardMm: 1.8 } } }), INTRAORAL_SCANNER)));
    expect(ask(engine, 'alignedFirst')).toEqual([]);
    const targets = frontRow().map((t) => {
      const own = ask(engine, 'existing', 'upper').find((e) => e.tooth === t);
      return [t, { lengthMm: own?.lengthMm ?? 9, widthMm: own?.widthMm ?? 7 }] as const;
    });
    const told = ask(engine, 'alignedFirst', targets);
    const central = told.find((t) => t.tooth === 21);
    expect(central?.proudMm).toBeGreaterThan(0.5);
    expect(central?.enamel).toBe('gone');
    expect(central?.alignedProudMm).toBeLessThan(0.3);
    expect(central?.alignedEnamel).toBe('kept');
    // Its fellow stands in line: moving it would save nothing of its enamel.
    expect(told.find((t) => t.tooth === 11)?.enamel).toBe('kept');
  });

  it('is not worth a word in a row that stands in its arch', () => {
    expect(saved(alignedFirst(straight, firstContour(straight, new Map())))).toBeLessThan(WORTH_MOVING_MM3);
  });

  it('a fuller plan takes less', () => {
    const plan = planOfExisting(turned);
    const fuller = { ...plan, 12: { ...(plan[12] as ToothPlan), facialVolumeMm: 0.6 } };
    expect(of(alignedFirst(turned, fuller), 12).removedMm3).toBeLessThan(of(alignedFirst(turned, plan), 12).removedMm3);
  });
});
