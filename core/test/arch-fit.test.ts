import { fitArchCurve, type Place, Refusal } from '@radiant/core';
import { random } from '@radiant/standins';

/** Nearest place of a curve to p by a fine search: slow, certain, and written apart from the fit. */
function nearest(curve: (t: number) => Place, from: number, to: number, p: Place): { distance: number; t: number } {
  let best = { distance: Infinity, t: from };
  let [a, b] = [from, to];
  for (let round = 0; round < 6; round++) {
    const step = (b - a) / 400;
    for (let t = a; t <= b; t += step) {
      const q = curve(t);
      const distance = Math.hypot(q[0] - p[0], q[1] - p[1]);
      if (distance < best.distance) best = { distance, t };
    }
    [a, b] = [Math.max(from, best.t - step), Math.min(to, best.t + step)];
  }
  return best;
}

const SHAPES: readonly {
  name: string;
  curve: (t: number) => Place;
  slopeDeg: (t: number) => number;
  from: number;
  to: number;
}[] = [
  {
    name: 'a parabola y = 0.03 x²',
    curve: (x) => [x, 0.03 * x * x],
    slopeDeg: (x) => (Math.atan(0.06 * x) * 180) / Math.PI,
    from: -26,
    to: 26,
  },
  {
    name: 'an ellipse with half axes 24 and 38 mm',
    curve: (t) => [24 * Math.sin(t), 38 - 38 * Math.cos(t)],
    slopeDeg: (t) => (Math.atan2(38 * Math.sin(t), 24 * Math.cos(t)) * 180) / Math.PI,
    from: -1.2,
    to: 1.2,
  },
];

describe.each(SHAPES)('an arch on $name', ({ curve, slopeDeg, from, to }) => {
  const at = (n: number, k: number) => from + ((to - from) * (k + 0.5)) / n;
  const points = Array.from({ length: 10 }, (_, k) => curve(at(10, k)));

  it('is found exactly: no distance of its own points, and the closed form’s direction', () => {
    const fit = fitArchCurve(points);
    expect(fit.rms).toBeLessThan(1e-6);
    for (let k = 0; k < 10; k++) {
      const { offset, tangentDeg } = fit.at(curve(at(10, k)));
      expect(Math.abs(offset)).toBeLessThan(1e-6);
      expect(tangentDeg).toBeCloseTo(slopeDeg(at(10, k)), 4);
    }
  });

  it('a place off the curve has its true distance, positive in front', () => {
    const fit = fitArchCurve(points);
    for (const [k, mm] of [
      [2, 1.4],
      [5, -0.8],
      [8, 0.5],
    ] as const) {
      const on = curve(at(10, k));
      const turn = (slopeDeg(at(10, k)) * Math.PI) / 180;
      const p: Place = [on[0] + mm * Math.sin(turn), on[1] - mm * Math.cos(turn)];
      expect(Math.abs(fit.at(p).offset - mm)).toBeLessThan(1e-5);
      expect(Math.abs(fit.at(p).offset)).toBeCloseTo(nearest(curve, from, to, p).distance, 3);
    }
  });

  it('one tooth that stands 2 mm out is told as standing out and hardly bends the arch (seed 11)', () => {
    const r = random(11);
    const moved = points.map((p, k): Place => {
      const turn = (slopeDeg(at(10, k)) * Math.PI) / 180;
      const mm = (k === 3 ? 2 : 0) + r.normal(0.05);
      return [p[0] + mm * Math.sin(turn), p[1] - mm * Math.cos(turn)];
    });
    const fit = fitArchCurve(moved);
    expect(Math.abs(fit.at(moved[3] as Place).offset - 2)).toBeLessThan(0.35);
    for (const k of [0, 1, 6, 7, 8, 9]) expect(Math.abs(fit.at(moved[k] as Place).offset)).toBeLessThan(0.3);
  });

  it('is the same arch wherever and however large it is drawn', () => {
    const fit = fitArchCurve(points);
    const drawn = fitArchCurve(points.map(([x, y]): Place => [800 + 17 * x, 300 + 17 * y]));
    const p: Place = [4, 3];
    expect(drawn.at([800 + 17 * p[0], 300 + 17 * p[1]]).offset / 17).toBeCloseTo(fit.at(p).offset, 6);
  });
});

it.each([
  ['five points', [0, 1, 2, 3, 4].map((x): Place => [x, x * x])],
  ['points all in one place', Array.from({ length: 8 }, (): Place => [3, 3])],
])('%s make no arch', (_, points) => {
  expect(() => fitArchCurve(points)).toThrow(Refusal);
});
