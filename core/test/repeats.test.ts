import { FRONT_SD_MM, LANDMARK_KINDS, measureTeeth, type Repeat, scaleOf, spreadLearned } from '@radiant/core';
import { random } from '@radiant/standins';

const MM = 0.04;
const byHand = (kind: Repeat['kind'], sdMm: number, n: number, seed: number): Repeat[] => {
  const r = random(seed);
  const px = sdMm / MM;
  return Array.from({ length: n }, () => ({
    kind,
    first: [500 + r.normal(px), 400 + r.normal(px)],
    second: [500 + r.normal(px), 400 + r.normal(px)],
  }));
};

describe('how well a hand sets points, learned from points that it set twice', () => {
  it('is what is usual while nothing was', () => {
    expect(spreadLearned([], MM)).toEqual(FRONT_SD_MM);
  });

  // Dahlberg 1940, from memory: s² = Σd² ÷ 2n of differences; here across and down together.
  it('comes to the root of the sum of squared differences over four times their number, and the usual as eight more', () => {
    const one: Repeat = { kind: 'edge', first: [0, 0], second: [3, 4] };
    const squares = 25 * MM ** 2;
    expect(spreadLearned([one], MM).edge).toBeCloseTo(Math.sqrt((8 * FRONT_SD_MM.edge ** 2 + squares / 4) / 9), 12);
    expect(spreadLearned([one], MM).zenith).toBe(FRONT_SD_MM.zenith);
  });

  it.each([0.05, 0.1, 0.25])('nears the hand’s own %f mm with many repeats (seed 5)', (sd) => {
    for (const kind of LANDMARK_KINDS) expect(spreadLearned(byHand(kind, sd, 400, 5), MM)[kind] / sd).toBeCloseTo(1, 1);
  });

  it('a shakier hand has a larger ±, a steadier one a smaller', () => {
    const set = { 11: { zenith: [400, 100], edge: [400, 360], mesial: [505, 250], distal: [295, 250] } } as const;
    const scale = scaleOf({ from: [0, 0], to: [1000, 0], mm: 40 });
    const length = (sd: number) =>
      measureTeeth(set, scale, undefined, {
        spread: spreadLearned(
          LANDMARK_KINDS.flatMap((k) => byHand(k, sd, 60, 9)),
          MM,
        ),
      }).find((m) => m.tooth === 11)?.length?.pm ?? 0;
    const usual = measureTeeth(set, scale).find((m) => m.tooth === 11)?.length?.pm ?? 0;
    expect(length(0.3)).toBeGreaterThan(1.6 * usual);
    expect(length(0.03)).toBeLessThan(0.85 * usual);
  });
});
