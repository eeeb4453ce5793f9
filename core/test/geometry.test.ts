import {
  add,
  cross,
  directionToParent,
  distance,
  dot,
  type Frame,
  frameFrom,
  length,
  lerp,
  monotoneCurve,
  normalize,
  rotateAbout,
  scale,
  shift,
  smoothstep,
  sub,
  toLocal,
  toParent,
  turn,
  type Vec3,
  WORLD,
} from '@radiant/core';
import { random } from '@radiant/standins';

const SEED = 31;
const close = (a: Vec3, b: Vec3, digits = 10) => {
  for (let k = 0; k < 3; k++) expect(a[k]).toBeCloseTo(b[k] as number, digits);
};

describe('vectors', () => {
  it('x, y, z are right-handed: left, backward, up', () => {
    expect(cross([1, 0, 0], [0, 1, 0])).toEqual([0, 0, 1]);
    expect(cross([0, 1, 0], [0, 0, 1])).toEqual([1, 0, 0]);
    expect(cross([0, 0, 1], [1, 0, 0])).toEqual([0, 1, 0]);
  });

  it('a 3-4-12 box has a diagonal of 13', () => {
    expect(length([3, 4, 12])).toBe(13);
    expect(distance([1, 1, 1], [4, 5, 13])).toBe(13);
    close(normalize([3, 4, 12]), [3 / 13, 4 / 13, 12 / 13]);
  });

  it('sums, differences, multiples and places between', () => {
    expect(add([1, 2, 3], [4, 5, 6])).toEqual([5, 7, 9]);
    expect(sub([4, 5, 6], [1, 2, 3])).toEqual([3, 3, 3]);
    expect(scale([1, -2, 3], 2)).toEqual([2, -4, 6]);
    expect(lerp([0, 0, 0], [2, 4, 8], 0.25)).toEqual([0.5, 1, 2]);
  });

  it('the zero vector has no direction and stays as it is', () => {
    expect(normalize([0, 0, 0])).toEqual([0, 0, 0]);
  });

  it(`a cross product stands square on both and is as long as the parallelogram is large (seed ${SEED})`, () => {
    const r = random(SEED);
    for (let i = 0; i < 50; i++) {
      const a: Vec3 = [r.normal(3), r.normal(3), r.normal(3)];
      const b: Vec3 = [r.normal(3), r.normal(3), r.normal(3)];
      const c = cross(a, b);
      expect(dot(a, c)).toBeCloseTo(0, 9);
      expect(dot(b, c)).toBeCloseTo(0, 9);
      expect(dot(c, c)).toBeCloseTo(dot(a, a) * dot(b, b) - dot(a, b) ** 2, 6);
    }
  });

  it('turning follows the right hand', () => {
    close(rotateAbout([1, 0, 0], [0, 0, 1], 90), [0, 1, 0]);
    close(rotateAbout([0, 0, 1], [1, 0, 0], 90), [0, -1, 0]);
    close(rotateAbout([1, 2, 3], normalize([1, 1, 1]), 120), [3, 1, 2]);
  });
});

describe('frames', () => {
  const r = random(SEED);
  const someFrame = (): Frame => {
    let f: Frame = { ...WORLD, origin: [r.normal(10), r.normal(10), r.normal(10)] };
    for (const axis of ['x', 'y', 'z'] as const) f = turn(f, axis, r.normal(60));
    return f;
  };

  it('a point goes out to the parent and comes back the same', () => {
    for (let i = 0; i < 30; i++) {
      const f = someFrame();
      const p: Vec3 = [r.normal(5), r.normal(5), r.normal(5)];
      close(toLocal(f, toParent(f, p)), p);
      close(toParent(f, toLocal(f, p)), p);
    }
  });

  it('turning keeps the axes square, of unit length and right-handed', () => {
    for (let i = 0; i < 30; i++) {
      const f = someFrame();
      close(cross(f.x, f.y), f.z);
      for (const axis of [f.x, f.y, f.z]) expect(length(axis)).toBeCloseTo(1, 12);
    }
  });

  it('distances are the same in either', () => {
    const f = someFrame();
    expect(distance(toParent(f, [1, 2, 3]), toParent(f, [4, 6, 15]))).toBeCloseTo(13, 10);
  });

  it('a direction is not moved by the origin', () => {
    close(directionToParent({ ...WORLD, origin: [7, 8, 9] }, [1, 2, 3]), [1, 2, 3]);
  });

  it('shifting goes along the frame’s own axes', () => {
    const f = turn({ ...WORLD, origin: [1, 1, 1] }, 'z', 90);
    close(shift(f, [2, 0, 0]).origin, [1, 3, 1]);
    close(shift(f, [0, 0, -4]).origin, [1, 1, -3]);
  });

  it('two turns about one axis are one turn by their sum', () => {
    const f = someFrame();
    const two = turn(turn(f, 'y', 25), 'y', 17);
    const one = turn(f, 'y', 42);
    close(two.x, one.x);
    close(two.z, one.z);
  });

  it('is built from an upward direction and a hint for x that need not be square', () => {
    const f = frameFrom([1, 2, 3], [0, 0, 5], [1, 0, 0.7]);
    close(f.z, [0, 0, 1]);
    close(f.x, [1, 0, 0]);
    close(f.y, [0, 1, 0]);
    expect(f.origin).toEqual([1, 2, 3]);
  });
});

describe('curves through knots (Fritsch & Carlson 1980, from memory)', () => {
  const knots = [
    [0, 0],
    [1, 2],
    [2, 2.1],
    [4, 5],
    [5, 3],
  ] as const;
  const curve = monotoneCurve(knots);

  it('goes through every knot', () => {
    for (const [x, y] of knots) expect(curve(x)).toBeCloseTo(y, 12);
  });

  it('never overshoots: between two knots it stays between their heights', () => {
    for (let i = 0; i + 1 < knots.length; i++) {
      const [x0, y0] = knots[i] as readonly [number, number];
      const [x1, y1] = knots[i + 1] as readonly [number, number];
      for (let k = 0; k <= 20; k++) {
        const y = curve(x0 + ((x1 - x0) * k) / 20);
        expect(y).toBeGreaterThanOrEqual(Math.min(y0, y1) - 1e-12);
        expect(y).toBeLessThanOrEqual(Math.max(y0, y1) + 1e-12);
      }
    }
  });

  it('keeps its end heights beyond its ends', () => {
    expect(curve(-3)).toBe(0);
    expect(curve(9)).toBe(3);
  });

  it('has no kink at a knot', () => {
    for (const x of [1, 2, 4]) {
      const h = 1e-5;
      expect((curve(x) - curve(x - h)) / h).toBeCloseTo((curve(x + h) - curve(x)) / h, 3);
    }
  });

  it('is straight through knots on a line', () => {
    const line = monotoneCurve([
      [0, 1],
      [1, 3],
      [3, 7],
    ]);
    for (const x of [0.2, 0.9, 1.7, 2.9]) expect(line(x)).toBeCloseTo(1 + 2 * x, 12);
  });
});

describe('the smooth step', () => {
  it('is 0 below, 1 above, one half in the middle, and mirrors itself', () => {
    expect([-1, 2, 2.5, 3, 8].map((x) => smoothstep(2, 3, x))).toEqual([0, 0, 0.5, 1, 1]);
    for (const t of [0.1, 0.3, 0.45]) expect(smoothstep(0, 1, t) + smoothstep(0, 1, 1 - t)).toBeCloseTo(1, 12);
  });

  it('leaves and arrives level', () => {
    expect(smoothstep(0, 1, 1e-4)).toBeLessThan(1e-7);
    expect(1 - smoothstep(0, 1, 1 - 1e-4)).toBeLessThan(1e-7);
  });
});
