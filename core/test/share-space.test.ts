import {
  type FrontKind,
  frontRow,
  GOLDEN,
  NATURAL_SERIES,
  propose,
  Refusal,
  recurringWidths,
  SCHOOLS,
  SEEN_FROM_FRONT,
  shareSpace,
  type ToothMeasure,
  type WidthWish,
  widthRule,
} from '@radiant/core';
import { random } from '@radiant/standins';
import quadprog from 'quadprog';
import { notesOnSpace } from '../src/proportion/notes.js';

const wish = (
  tooth: number,
  wishMm: number,
  minMm = wishMm * 0.85,
  maxMm = wishMm * 1.15,
  lockedMm?: number,
): WidthWish => ({
  tooth,
  wishMm,
  minMm,
  maxMm,
  ...(lockedMm !== undefined && { lockedMm }),
});
const sum = (v: Iterable<number>) => [...v].reduce((a, b) => a + b, 0);

describe('hand-solved spaces', () => {
  it('with room for the wishes everybody gets theirs', () => {
    const s = shareSpace([wish(12, 6), wish(11, 8), wish(21, 8), wish(22, 6)], 28, true);
    expect([12, 11, 21, 22].map((t) => s.widths.get(t))).toEqual([6, 8, 8, 6]);
    expect(s).toMatchObject({ leftMm: 0 });
    expect(s.atEnd.size).toBe(0);
  });

  it('2.8 mm too little of 28 are taken from all by a tenth', () => {
    const s = shareSpace([wish(12, 6), wish(11, 8), wish(21, 8), wish(22, 6)], 25.2, true);
    for (const [t, w] of s.widths) expect(w).toBeCloseTo((t % 10 === 1 ? 8 : 6) * 0.9, 12);
  });

  it('one that may not give way leaves it to the others: 8 and 8 with the first at least 7.8 share 14 as 7.8 and 6.2', () => {
    const s = shareSpace([wish(11, 8, 7.8, 9), wish(12, 8, 5, 9)], 14, false);
    expect(s.widths.get(11)).toBeCloseTo(7.8, 12);
    expect(s.widths.get(12)).toBeCloseTo(6.2, 12);
    expect([...s.atEnd]).toEqual([[11, 'min']]);
  });

  it('a locked width stays, and its fellow follows it while they are kept alike', () => {
    const wishes = [wish(12, 6), wish(11, 8, 6, 10, 9), wish(21, 8), wish(22, 6)];
    const alike = shareSpace(wishes, 28, true);
    expect([alike.widths.get(11), alike.widths.get(21)]).toEqual([9, 9]);
    expect(alike.widths.get(12)).toBeCloseTo(5.1, 12);
    // Both laterals are as narrow as they may be, and that is still 0.2 mm too much.
    expect(alike.leftMm).toBeCloseTo(-0.2, 9);
    const free = shareSpace(wishes, 28, false);
    expect(free.widths.get(11)).toBe(9);
    expect(free.widths.get(21)).toBeCloseTo(8 * (19 / 20), 12);
    expect(sum(free.widths.values())).toBeCloseTo(28, 12);
  });

  it('what nobody can take is left over, with its amount', () => {
    const s = shareSpace([wish(11, 8), wish(21, 8)], 20, true);
    expect(s.leftMm).toBeCloseTo(20 - 2 * 9.2, 9);
    expect([...s.atEnd.values()]).toEqual([]);
    expect(shareSpace([wish(11, 8, 7, 9, 8.4)], 10, true).leftMm).toBeCloseTo(1.6, 9);
  });

  it.each([
    ['no length', [wish(11, 0)]],
    ['not a number', [wish(11, Number.NaN)]],
    ['a band turned round', [wish(11, 8, 9, 7)]],
  ])('%s is refused', (_, wishes) => expect(() => shareSpace(wishes, 10, true)).toThrow(Refusal));
});

/**
 * quadprog (Goldfarb & Idnani's dual method) minimises ½ xᵀDx − dᵀx with Aᵀx ≥ b, the first rows equalities; it counts
 * from 1.
 */
function general(wishes: readonly WidthWish[], space: number): number[] {
  const n = wishes.length;
  const rows: number[][] = [];
  const b: number[] = [];
  rows.push(wishes.map(() => 1));
  b.push(space);
  wishes.forEach((w, i) => {
    const unit = wishes.map((_, j) => (i === j ? 1 : 0));
    rows.push(
      unit,
      unit.map((v) => -v),
    );
    b.push(w.minMm, -w.maxMm);
  });
  const one = <T>(values: T[]) => [undefined as unknown as T, ...values];
  const D = one(wishes.map((w, i) => one(wishes.map((_, j) => (i === j ? 2 / w.wishMm : 0)))));
  const d = one(wishes.map(() => 2));
  const A = one(Array.from({ length: n }, (_, i) => one(rows.map((r) => r[i] as number))));
  const { solution, message } = quadprog.solveQP(D, d, A, one(b), 1);
  if (message) throw new Error(message);
  return solution.slice(1);
}

it('agrees with a general quadratic program solver on 200 random mouths (seed 15)', () => {
  const r = random(15);
  let bound = 0;
  for (let k = 0; k < 200; k++) {
    const wishes = frontRow().map((t) => {
      const w = [8.5, 6.5, 7.5][(t % 10) - 1] as number;
      const wishMm = w * (1 + r.normal(0.05));
      return wish(t, wishMm, wishMm * (1 - 0.02 - 0.15 * r.next()), wishMm * (1 + 0.02 + 0.15 * r.next()));
    });
    const [least, most] = [sum(wishes.map((w) => w.minMm)), sum(wishes.map((w) => w.maxMm))];
    const space = least + (most - least) * (0.02 + 0.96 * r.next());
    const own = shareSpace(wishes, space, false);
    bound += own.atEnd.size;
    for (const [i, width] of general(wishes, space).entries())
      expect(own.widths.get(frontRow()[i] as number)).toBeCloseTo(width, 6);
    expect(sum(own.widths.values())).toBeCloseTo(space, 9);
  }
  // The bands were met often enough for the comparison to mean something.
  expect(bound).toBeGreaterThan(150);
});

it('left and right alike is the best of all that are alike: the general solver with both as one says the same', () => {
  const wishes = [
    wish(13, 7.2, 6.8, 7.9),
    wish(12, 6.1),
    wish(11, 8.9),
    wish(21, 8.3),
    wish(22, 6.9),
    wish(23, 7.8, 7.1, 8.2),
  ];
  const own = shareSpace(wishes, 42, true);
  for (const t of [11, 12, 13]) expect(own.widths.get(t)).toBe(own.widths.get(t + 10));
  const pairs = [11, 12, 13].map((t) => {
    const [a, b] = [t, t + 10].map((q) => wishes.find((w) => w.tooth === q) as WidthWish) as [WidthWish, WidthWish];
    return wish(t, (a.wishMm + b.wishMm) / 2, Math.max(a.minMm, b.minMm), Math.min(a.maxMm, b.maxMm));
  });
  for (const [i, width] of general(pairs, 21).entries()) expect(own.widths.get(11 + i)).toBeCloseTo(width, 6);
});

describe('the schools', () => {
  const seen = (k: FrontKind) => SEEN_FROM_FRONT[k].width;
  const front = (shares: Readonly<Record<FrontKind, number>>) => ({
    lateral: (shares.lateral * seen('lateral')) / seen('central'),
    canine: (shares.canine * seen('canine')) / (shares.lateral * seen('lateral')),
  });
  it('recurring: from the front each tooth is k times the one before, as Ward’s formula has it', () => {
    for (const k of [0.62, 0.7, 0.8]) {
      const { shares } = widthRule({ school: 'recurring', ratio: k });
      expect(front(shares as Record<FrontKind, number>)).toEqual({
        lateral: expect.closeTo(k, 12),
        canine: expect.closeTo(k, 12),
      });
      const w = recurringWidths(36, k);
      expect(w.lateral / w.central).toBeCloseTo(k, 12);
    }
  });

  /** Levin 1978: 0.618. Preston 1993: 0.66 and 0.84. From memory. */
  it('golden and natural means', () => {
    expect(GOLDEN).toBeCloseTo(0.618, 3);
    expect(front(widthRule({ school: 'golden' }).shares as Record<FrontKind, number>).lateral).toBeCloseTo(0.618, 3);
    expect(front(widthRule({ school: 'natural' }).shares as Record<FrontKind, number>)).toEqual({
      lateral: expect.closeTo(0.66, 9),
      canine: expect.closeTo(0.84, 9),
    });
    expect(widthRule({ school: 'liked', liked: { lateral: 0.72, canine: 0.9 } }).source.mark).toBe('measured');
    expect(NATURAL_SERIES.lateral).toBe(0.66);
  });

  const mm = (value: number, pm = 0.1) => ({ value, pm, unit: 'mm' as const, working: { formula: '', inputs: [] } });
  const measures = frontRow().map((tooth): ToothMeasure => {
    const [width, length] = [
      [8.5, 10.4],
      [6.5, 9],
      [7.5, 10],
    ][(tooth % 10) - 1] as [number, number];
    return {
      tooth,
      width: mm(width),
      frontWidth: mm(width),
      length: mm(length),
      edgeLevel: mm(0),
      zenithLevel: mm(length),
      ratio: mm(80),
    };
  });
  const base = { school: 'ratio', referenceTooth: 11, edgeMm: 0 } as const;

  it.each(SCHOOLS.map((s) => s.id))(
    '%s fills the space with left and right alike and tells each width’s working',
    (school) => {
      const p = propose(measures, { ...base, school }, mm(0.4));
      expect(sum(p?.targets.map((t) => t.width.value) ?? [])).toBeCloseTo(45.4, 6);
      for (const t of [11, 12, 13])
        expect(p?.targets.find((q) => q.tooth === t)?.width.value).toBeCloseTo(
          p?.targets.find((q) => q.tooth === t + 10)?.width.value ?? 0,
          9,
        );
      for (const t of p?.targets ?? []) expect(t.width.working.inputs.map((i) => i.name)).toContain('gives way by');
    },
  );

  it('population widths are met where they fit: 8.5, 6.5, 7.5 mm (Chu 2007, from memory)', () => {
    const p = propose(measures, { ...base, school: 'population' }, mm(0));
    expect(p?.targets.map((t) => Math.round(t.width.value * 10) / 10)).toEqual([7.5, 6.5, 8.5, 8.5, 6.5, 7.5]);
  });

  it('the end of a band is told with the width there and the wish it lies about, of the tooth whose band it is', () => {
    // A broad central and a narrow one, kept alike: the broad one can't come below 85 % of its wish.
    const wishes = [
      { tooth: 11, wishMm: 10, minMm: 8.5, maxMm: 11.5 },
      { tooth: 21, wishMm: 8.4, minMm: 7.14, maxMm: 9.66 },
      { tooth: 12, wishMm: 7, minMm: 5.95, maxMm: 8.05 },
    ];
    const shared = shareSpace(wishes, 23.2, true);
    expect([...shared.atEnd.keys()]).toEqual([11, 21]);
    const notes = notesOnSpace(wishes, shared, mm(23.2)).join(' ');
    expect(notes).toMatch('{11} comes to 8.5 mm, the least that ±15 % about the wish of 10.0 mm allows.');
    expect(notes).not.toMatch(/\{21\}/);
  });

  it('gaps that are kept are not shared out', () => {
    const p = propose(measures, { ...base, school: 'population', gaps: 'keep' }, mm(2));
    expect(p?.space.value).toBeCloseTo(45, 9);
    expect(propose(measures, { ...base, school: 'population' }, mm(2))?.space.value).toBeCloseTo(47, 9);
  });

  it('a width held by hand stays and the rest share what is left; too much is told with its amount', () => {
    const p = propose(measures, { ...base, school: 'population', locked: { 11: 9 } }, mm(0));
    const of = (t: number) => p?.targets.find((q) => q.tooth === t)?.width;
    expect([of(11)?.value, of(21)?.value]).toEqual([9, 9]);
    expect(of(11)?.pm).toBe(0);
    const tight = propose(measures, { ...base, school: 'population', locked: { 11: 13, 21: 13 } }, mm(0));
    expect(tight?.notes.join(' ')).toMatch(
      /The teeth need \d\.\d mm more than there is, even at their narrowest: move teeth first/,
    );
    const wide = propose(measures, { ...base, school: 'population' }, mm(9));
    expect(wide?.notes.join(' ')).toMatch(/mm of the space can’t be filled within the bands/);
  });

  it('length comes at the edge, at the gum, or at both, and a gum moved further than the sulcus is warned of (Gargiulo 1961, from memory)', () => {
    const at = (edgeMm: number, gumMm: number) => propose(measures, { ...base, edgeMm, gumMm }, mm(0));
    const length = (p: ReturnType<typeof at>) => p?.targets.find((t) => t.tooth === 11)?.length.value ?? 0;
    expect(length(at(1, 0)) - length(at(0, 0))).toBeCloseTo(1, 9);
    expect(length(at(0, 1)) - length(at(0, 0))).toBeCloseTo(1, 9);
    expect(length(at(0.5, 1.5)) - length(at(0, 0))).toBeCloseTo(2, 9);
    expect(at(0, 0)?.notes.join(' ')).not.toMatch(/gum/);
    expect(at(0, 0.6)?.notes.join(' ')).toMatch(/within a usual sulcus of 0\.69 mm\. Probe each tooth first/);
    expect(at(0, 1)?.notes.join(' ')).toMatch(
      /keep about 2\.7 mm to the bone.*Gargiulo.*from memory.*treating clinician decides/,
    );
  });
});
