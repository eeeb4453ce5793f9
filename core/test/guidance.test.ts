import { ask, CaseEngine, leadSaid, readScan, type SideLead } from '@radiant/core';
import { INTRAORAL_SCANNER, makePatient, type PatientRecipe, scan } from '@radiant/standins';

const leads = (recipe: PatientRecipe): readonly SideLead[] => {
  const patient = makePatient(recipe);
  const engine = new CaseEngine();
  engine.take(readScan(scan(patient, INTRAORAL_SCANNER), []));
  engine.take(readScan(scan(patient, INTRAORAL_SCANNER, 'stl', 'lower'), []));
  return ask(engine, 'sideLeads') ?? [];
};
const to = (all: readonly SideLead[], side: 'right' | 'left') => all.find((l) => l.to === side) as SideLead;

describe('what leads in side movement', () => {
  it('is nothing that can be told without a lower jaw', () => {
    const engine = new CaseEngine();
    engine.take(readScan(scan(makePatient({ seed: 9, traits: {} }), INTRAORAL_SCANNER), []));
    expect(ask(engine, 'sideLeads')).toBeUndefined();
  });

  it('long canines lead on both sides, each its own; one that is worn away leads no longer, and its wear is said', () => {
    const long = { edgeUpMm: -1.4 };
    const even = leads({ seed: 9, traits: { 13: long, 23: long } });
    const [right, left] = [to(even, 'right'), to(even, 'left')];
    expect([right.canine, left.canine]).toEqual([13, 23]);
    for (const { leading, canine, balancing } of [right, left]) {
      expect(leading[0]).toBe(canine);
      expect(balancing).toEqual([]);
    }
    const worn = leads({ seed: 9, traits: { 13: long, 23: { wearMm: 2, lengthMm: 8.2, edgeUpMm: 2.05 } } });
    expect(to(worn, 'right').leading[0]).toBe(13);
    expect(to(worn, 'left').leading).not.toContain(23);
    expect(to(worn, 'left').canineWearMm).toBeGreaterThan(1);
    expect(leadSaid(to(worn, 'left'))).toMatchObject({ weight: 'watch' });
    expect(leadSaid(to(worn, 'left')).words).toMatch(/The canine does not touch\. \{23\} is worn by about \d\.\d mm\./);
  });
});

describe('in words', () => {
  const lead: SideLead = {
    to: 'right',
    leading: [13],
    balancing: [],
    othersMm: 0.42,
    canine: 13,
    canineWearMm: 0,
  };
  it.each<[string, Partial<SideLead>, 'good' | 'watch', string]>([
    ['a canine alone', {}, 'good', 'To the right: {13} leads, all others are 0.4 mm clear.'],
    ['a group', { leading: [13, 14] }, 'good', 'To the right: {13}, {14} lead together.'],
    [
      'a group without it',
      { leading: [14, 15] },
      'watch',
      'To the right: {14}, {15} lead together. The canine does not touch; ask whether its tip was longer once.',
    ],
    [
      'a worn canine that still leads',
      { canineWearMm: 0.8 },
      'watch',
      'To the right: {13} leads, all others are 0.4 mm clear. {13} is worn by about 0.8 mm.',
    ],
    [
      'the other side',
      { balancing: [25] },
      'watch',
      'To the right: {13} leads, all others are 0.4 mm clear. On the other side {25} touches: what is planned there would be rubbed.',
    ],
    ['nothing', { leading: [] }, 'watch', 'To the right: no tooth of that side touches.'],
  ])('%s', (_, change, weight, words) => {
    expect(leadSaid({ ...lead, ...change })).toEqual({ weight, words });
  });
});
