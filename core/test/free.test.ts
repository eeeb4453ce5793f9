import { type Figure, freeAngle, freeLength, LANDMARK_SD_MM, type Px, Refusal, scaleOf } from '@radiant/core';
import { random } from '@radiant/standins';

const SCALE: Figure = { ...scaleOf({ from: [0, 0], to: [400, 0], mm: 20 }), pm: 0 };
const MM = 20;
const SEED = 404;

describe('a length that is drawn', () => {
  it('3 by 4 mm across is 5 mm (Pythagoras)', () => {
    expect(freeLength([100, 100], [100 + 3 * MM, 100 + 4 * MM], SCALE).value).toBeCloseTo(5, 12);
  });

  it('is the same from either end', () => {
    expect(freeLength([5, 9], [80, 200], SCALE).value).toBe(freeLength([80, 200], [5, 9], SCALE).value);
  });

  it('is as uncertain as its two points, and more with an uncertain scale', () => {
    expect(freeLength([0, 0], [200, 0], SCALE).pm).toBeCloseTo(1.96 * Math.SQRT2 * LANDMARK_SD_MM, 12);
    expect(freeLength([0, 0], [200, 0], { ...SCALE, pm: 0.001 }).pm).toBeGreaterThan(0.2);
  });
});

describe('an angle that is drawn', () => {
  it.each<[string, Px, Px, number]>([
    ['square', [10, 0], [0, 10], 90],
    ['equilateral', [10, 0], [5, 5 * Math.sqrt(3)], 60],
    ['straight', [10, 0], [-10, 0], 180],
    ['over the branch cut', [-10, 1], [-10, -1], 11.4212],
    ['none', [10, 0], [20, 0], 0],
  ])('%s', (_, a, b, deg) => {
    const at = (p: Px): Px => [300 + p[0] * MM, 300 + p[1] * MM];
    expect(freeAngle(at(a), [300, 300], at(b), SCALE).value).toBeCloseTo(deg, 3);
  });

  it('does not change when the picture is turned, moved or mirrored', () => {
    const points: Px[] = [
      [400, 120],
      [200, 180],
      [330, 400],
    ];
    const angle = (f: (p: Px) => Px) =>
      freeAngle(f(points[0] as Px), f(points[1] as Px), f(points[2] as Px), SCALE).value;
    const own = angle((p) => p);
    expect(angle(([x, y]) => [x + 99, y - 40])).toBeCloseTo(own, 9);
    expect(angle(([x, y]) => [-y, x])).toBeCloseTo(own, 9);
    expect(angle(([x, y]) => [-x, y])).toBeCloseTo(own, 9);
  });

  it('is less certain the shorter its arms', () => {
    const pm = (mm: number) => freeAngle([mm * MM, 0], [0, 0], [0, mm * MM], SCALE).pm;
    expect(pm(2)).toBeCloseTo(5 * pm(10), 9);
  });
});

describe(`its ± covers what a hand that errs by ${LANDMARK_SD_MM} mm draws, about 95 times in 100 (seed ${SEED})`, () => {
  const r = random(SEED);
  const shaken = (p: Px): Px => [p[0] + r.normal(LANDMARK_SD_MM) * MM, p[1] + r.normal(LANDMARK_SD_MM) * MM];
  const share = (draw: () => boolean) => {
    let inside = 0;
    for (let i = 0; i < 4000; i++) if (draw()) inside++;
    return inside / 4000;
  };

  it('of a length', () => {
    const [a, b]: Px[] = [
      [100, 100],
      [260, 180],
    ] as never;
    const truth = freeLength(a as Px, b as Px, SCALE).value;
    const covered = share(() => {
      const f = freeLength(shaken(a as Px), shaken(b as Px), SCALE);
      return Math.abs(f.value - truth) <= f.pm;
    });
    expect(Math.abs(covered - 0.95)).toBeLessThan(0.015);
  });

  it.each([35, 90, 150])('of an angle of %i°', (deg) => {
    const at: Px = [300, 300];
    const a: Px = [300 + 6 * MM, 300];
    const b: Px = [300 + 9 * MM * Math.cos((deg * Math.PI) / 180), 300 + 9 * MM * Math.sin((deg * Math.PI) / 180)];
    const covered = share(() => {
      const f = freeAngle(shaken(a), shaken(at), shaken(b), SCALE);
      return Math.abs(f.value - deg) <= f.pm;
    });
    expect(Math.abs(covered - 0.95)).toBeLessThan(0.015);
  });
});

it.each<[string, () => unknown]>([
  ['a length', () => freeLength([5, 5], [6, 6], SCALE)],
  ['a length of nothing', () => freeLength([Number.NaN, 5], [60, 60], SCALE)],
  ['an arm', () => freeAngle([100, 100], [100, 101], [300, 5], SCALE)],
])('%s between points at one place is refused', (_, act) => {
  expect(act).toThrow(Refusal);
});
