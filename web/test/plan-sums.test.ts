import type { OptionId, OptionsTold, ToothLook } from '@radiant/core';
import { shadeOf } from '@radiant/core';
import { BANDS, type Rgb, tinted, tintOf } from '../src/bench/smile-colour.js';
import { sumsOf } from '../src/stages/decide/plan-sums.js';

const told = (removedMm3: number, removedShare: number, dE?: number): OptionsTold => ({
  figures: (['none', 'direct', 'veneer', 'glass-crown'] as OptionId[]).map((id) => [
    id,
    id === 'veneer' ? { removedMm3, removedShare, dE } : { removedMm3: 0, removedShare: 0 },
  ]),
});
const FEES = [
  { option: 'veneer' as const, fee: 900 },
  { option: 'direct' as const, fee: 250 },
];

describe('what a whole plan comes to', () => {
  const all = new Map([
    [11, told(40, 0.2, 1.2)],
    [21, told(60, 0.25, 3.4)],
  ]);

  it('adds tooth taken, and share of the crowns, the worst colour, and the price', () => {
    const sums = sumsOf(
      [11, 21],
      [
        { tooth: 11, option: 'veneer' },
        { tooth: 21, option: 'veneer' },
      ],
      all,
      FEES,
    );
    expect(sums).toMatchObject({ removedMm3: 100, worst: { tooth: 21, dE: 3.4 }, price: 1800, decided: 2 });
    // 40 of 200 and 60 of 240 mm³.
    expect(sums.removedShare).toBeCloseTo(100 / 440, 9);
  });

  it('has no price where the house has no fee for one of them, and leaving a tooth costs nothing', () => {
    const crown = sumsOf([11], [{ tooth: 11, option: 'glass-crown' }], all, FEES);
    expect(crown.price).toBeUndefined();
    expect(
      sumsOf(
        [11, 21],
        [
          { tooth: 11, option: 'direct' },
          { tooth: 21, option: 'none' },
        ],
        all,
        FEES,
      ).price,
    ).toBe(250);
    expect(sumsOf([11], [{ tooth: 11, option: 'direct' }], all, []).price).toBeUndefined();
  });

  it('says of how many teeth the figures are still to come', () => {
    const sums = sumsOf([12], [{ tooth: 12, option: 'veneer' }], all, FEES);
    expect(sums).toMatchObject({ waiting: 1, removedMm3: 0 });
  });
});

describe('a predicted colour in a photograph', () => {
  const look = (before: string, after: string): ToothLook => ({
    tooth: 11,
    rgb: new Float32Array(),
    showsDE: new Float32Array(),
    thirds: (['incisal', 'middle', 'cervical'] as const).map((third) => ({
      third,
      lab: shadeOf(after).lab,
      before: shadeOf(before).lab,
      shows: 0,
    })),
  });
  const bands = Array.from({ length: BANDS }, (): Rgb => [180, 165, 140]);

  it('that is the same as what was read changes nothing, a lighter one lightens every band', () => {
    const same = tintOf(look('A2', 'A2')) ?? [];
    tinted(bands, same).forEach((b, i) => {
      b.forEach((v, c) => {
        expect(v).toBeCloseTo((bands[i] as Rgb)[c as 0], 6);
      });
    });
    const lighter = tinted(bands, tintOf(look('C4', 'A1')) ?? []);
    for (const b of lighter) expect(b[1]).toBeGreaterThan(180);
  });

  it('of a tooth that was never read before it was cut is none', () => {
    const own = look('A2', 'A1');
    expect(tintOf({ ...own, thirds: own.thirds.map(({ before: _, ...t }) => t) })).toBeUndefined();
  });
});
