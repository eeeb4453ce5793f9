import {
  Bite,
  type BiteWish,
  existingArch,
  frontRow,
  plannedTooth,
  planOfExisting,
  readScan,
  type ToothPlan,
} from '@radiant/core';
import { AVOCET, INTRAORAL_SCANNER, makePatient, scan } from '@radiant/standins';
import { verdict } from '../src/stages/shape/bite-verdict.js';

const patient = makePatient(AVOCET);
const arch = existingArch(readScan(scan(patient, INTRAORAL_SCANNER)));
const lower = readScan(scan(patient, INTRAORAL_SCANNER, 'stl', 'lower'), []);
const bite = new Bite(arch, lower);
const plan = planOfExisting(arch);
const crowns = (p: typeof plan) => new Map(frontRow().map((t) => [t, plannedTooth(arch, p, t)] as const));
const wish = (w: Partial<BiteWish>): BiteWish => ({
  which: 'existing',
  direction: 'forward',
  alongMm: 0,
  guidance: 'teeth',
  ...w,
});
const say = (view: ReturnType<Bite['at']>, w: BiteWish) => verdict(view, w).words(String);

describe('the sample patient’s bite', () => {
  it('is closed by the side teeth, within the scans’ error', () => {
    const view = bite.at(wish({}), undefined);
    expect(view.touching.length).toBeGreaterThan(0);
    for (const t of view.touching) expect(t % 10).toBeGreaterThanOrEqual(3);
    expect(Math.min(...view.teeth.map((t) => t.spaceMm))).toBeGreaterThan(-0.15);
  });

  it('forward is led by incisors, to a side by its canine, and says so', () => {
    const forward = wish({ alongMm: 3 });
    const view = bite.at(forward, undefined);
    expect(view.lifts).toBe(true);
    expect(view.touching.every((t) => t % 10 <= 2)).toBe(true);
    expect(say(view, forward)).toMatch(/^(11|12|21|22).* leads?; all others are \d\.\d mm clear$/);
    for (const [direction, canine] of [
      ['right', 13],
      ['left', 23],
    ] as const) {
      const side = wish({ direction, alongMm: 2.5 });
      const there = bite.at(side, undefined);
      expect(there.touching).toEqual([canine]);
      expect(there.dropMm).toBeGreaterThan(1);
      expect(verdict(there, side).weight).toBe('good');
    }
  });

  it('along a flat way teeth are in the way, along a steep one nothing touches', () => {
    const flat = wish({ direction: 'right', alongMm: 2, guidance: 0 });
    expect(say(bite.at(flat, undefined), flat)).toMatch(/^13 is in the way of 4\d by \d\.\d\d mm$/);
    const steep = wish({ direction: 'right', alongMm: 2, guidance: 75 });
    const view = bite.at(steep, undefined);
    expect(view.angleDeg).toBeCloseTo(75, 1);
    expect(say(view, steep)).toMatch(/^Nothing touches; the nearest tooth is \d\.\d\d mm away$/);
  });

  it('longer planned centrals deepen the overbite by as much and leave the scanned one as it was', () => {
    const longer = { ...plan, 11: { ...(plan[11] as ToothPlan), lengthMm: (plan[11]?.lengthMm ?? 0) + 1 } };
    const of = (p: typeof plan) => bite.at(wish({ which: 'planned' }), crowns(p)).overlap;
    const [before, after] = [of(plan), of(longer)];
    const over = (list: (typeof before)['planned'], tooth: number) =>
      list.find((o) => o.tooth === tooth)?.overbiteMm ?? Number.NaN;
    expect(over(after.planned, 11) - over(before.planned, 11)).toBeGreaterThan(0.85);
    expect(over(after.planned, 11) - over(before.planned, 11)).toBeLessThan(1.1);
    expect(over(after.before, 11)).toBeCloseTo(over(before.before, 11), 9);
    expect(over(after.planned, 21)).toBeCloseTo(over(before.planned, 21), 9);
  });

  it('maps the space under every vertex: nothing nearer than the nearest tooth, and as near somewhere', () => {
    const view = bite.at(wish({}), undefined);
    for (const t of view.teeth) {
      const map = view.maps.find(([tooth]) => tooth === t.tooth)?.[1] as Float32Array;
      const least = Math.min(...[...map].filter((v) => !Number.isNaN(v)));
      expect(Math.abs(least - t.spaceMm)).toBeLessThan(0.3);
    }
  });
});

it.each([
  [
    { teeth: [], touching: [], othersMm: 0.42, lifts: false },
    { alongMm: 0 },
    'watch',
    'Nothing touches; the nearest tooth is 0.42 mm away',
  ],
  [{ teeth: [], touching: [14, 24], othersMm: 1, lifts: false }, { alongMm: 0 }, 'good', 'Closed, 14, 24 touch'],
  [{ teeth: [], touching: [14], othersMm: 1, lifts: false }, { alongMm: 0 }, 'good', 'Closed, 14 touches'],
  [
    { teeth: [], touching: [14, 13], othersMm: 1, lifts: false },
    { alongMm: 2, direction: 'right' },
    'watch',
    '14, 13 touch: the canine does not lift the rest',
  ],
  [
    { teeth: [], touching: [13], othersMm: 1, lifts: false },
    { alongMm: 2, direction: 'forward' },
    'watch',
    '13 touches: the incisors do not lead alone',
  ],
  [
    { teeth: [], touching: [11, 21], othersMm: undefined, lifts: true },
    { alongMm: 2, direction: 'forward' },
    'good',
    '11, 21 lead',
  ],
] as const)('a bite of %p at %p is told as %s: %s', (view, w, weight, words) => {
  const told = verdict(view as never, { direction: 'forward', ...w } as never);
  expect(told.weight).toBe(weight);
  expect(told.words(String)).toBe(words);
});
