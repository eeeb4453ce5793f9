import { FINISH_LIMITS, type Vec3 } from '@radiant/core';
import { pulled } from '../src/stages/verify/use-line.js';

// A ring of forty directions around an upright axis: the edge at the foot, as with an upper tooth.
const frame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] } as const;
const ring = Array.from({ length: 40 }, (_, i) => {
  const turn = (2 * Math.PI * i) / 40;
  const wished: Vec3 = [4 * Math.cos(turn), 4 * Math.sin(turn), 2];
  return { at: 3 * i, wished, found: wished, highMm: 0.1 };
});
const view = { finish: ring, frame };

describe('a finish line that is drawn', () => {
  it('goes to the pointer in its direction, and beside it less and less', () => {
    // Half a millimetre towards the edge, in direction 10.
    const [x, y] = (ring[10] as (typeof ring)[number]).wished;
    const own = pulled(view, 11, [x, y, 1.5], []);
    const mm = (i: number) => own.find((l) => l.at === 3 * i)?.mm as number;
    expect(mm(10)).toBe(0.5);
    expect(mm(9)).toBe(mm(11));
    for (const [near, far] of [
      [10, 11],
      [11, 12],
      [12, 13],
    ] as const)
      expect(mm(near)).toBeGreaterThan(mm(far));
    // What lies further is left as it was found.
    expect(own).toHaveLength(11);
    expect(mm(15)).toBeCloseTo(0.1 + 0.4 * 0.067, 1);
  });

  it('goes on from what was drawn, around the whole tooth, and no other tooth is touched', () => {
    const other = { tooth: 21, at: 0, mm: 0.3 };
    const [x, y] = (ring[0] as (typeof ring)[number]).wished;
    const first = pulled(view, 11, [x, y, 1.8], [other]);
    const second = pulled(view, 11, [x, y, 2.4], first);
    expect(second.find((l) => l.tooth === 11 && l.at === 0)?.mm).toBe(-0.4);
    // Beside the first direction lie the last ones.
    expect(second.some((l) => l.tooth === 11 && l.at === 117)).toBe(true);
    expect(second).toContainEqual(other);
  });

  it('stays within its limits', () => {
    const [x, y] = (ring[5] as (typeof ring)[number]).wished;
    expect(Math.max(...pulled(view, 11, [x, y, -20], []).map((l) => l.mm))).toBe(FINISH_LIMITS.max);
    expect(Math.min(...pulled(view, 11, [x, y, 20], []).map((l) => l.mm))).toBe(FINISH_LIMITS.min);
  });
});
