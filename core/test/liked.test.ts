import { GOLDEN, likedSeries, type Px, Refusal } from '@radiant/core';

/**
 * Borders of a row with the given front widths, canine to canine, drawn along a line through (x, y) at an angle, times
 * a scale.
 */
function row(widths: readonly number[], deg = 0, scale = 1): Px[] {
  const t = (deg * Math.PI) / 180;
  let along = 0;
  return [0, ...widths].map((w): Px => {
    along += w * scale;
    return [100 + along * Math.cos(t), 200 + along * Math.sin(t)];
  });
}

it('a golden smile gives the golden ratio (Levin 1978), at any scale and turn, also mirrored', () => {
  const golden = [GOLDEN ** 2, GOLDEN, 1, 1, GOLDEN, GOLDEN ** 2];
  for (const borders of [row(golden), row(golden, 13, 80), row(golden, -7, 300).map(([x, y]): Px => [900 - x, y])]) {
    const s = likedSeries(borders);
    expect(s.lateral).toBeCloseTo(GOLDEN, 9);
    expect(s.canine).toBeCloseTo(GOLDEN, 9);
  }
});

it('takes the two sides together', () => {
  // Laterals of 6 and 5 over centrals of 9 and 8; canines of 4 and 5.
  const s = likedSeries(row([4, 6, 9, 8, 5, 5]));
  expect(s.lateral).toBeCloseTo(11 / 17, 12);
  expect(s.canine).toBeCloseTo(9 / 11, 12);
});

it('refuses too few borders, and borders that go back', () => {
  expect(() => likedSeries(row([4, 6, 9]))).toThrow(/Seven borders are needed/);
  expect(() => likedSeries(row([4, 6, -1, 8, 5, 5]))).toThrow(Refusal);
});
