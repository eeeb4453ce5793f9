import {
  type ArchCurve,
  alignFrame,
  alongArch,
  crown,
  leastSquares,
  MEDIUM_ARCH,
  placeMesh,
  placesAlong,
  signedField,
  solve,
  turn,
  WORLD,
} from '@radiant/core';

describe('the arch curve', () => {
  it('on a straight line the way along is the way across', () => {
    const line: ArchCurve = { a: 0, b: 0 };
    expect(alongArch(line, -7.3)).toMatchObject({ x: expect.closeTo(-7.3, 9), y: 0, turnDeg: expect.closeTo(0, 12) });
  });

  it('on a parabola the length is that of the closed form', () => {
    // s = ½·x·√(1 + 4a²x²) + asinh(2ax) / 4a
    const a = 0.03;
    const exact = (x: number) => 0.5 * x * Math.sqrt(1 + 4 * a * a * x * x) + Math.asinh(2 * a * x) / (4 * a);
    for (const x of [3, 9, 18, 25]) expect(alongArch({ a, b: 0 }, exact(x)).x).toBeCloseTo(x, 5);
  });

  it('is the same on both sides', () => {
    const l = alongArch(MEDIUM_ARCH, 15);
    const r = alongArch(MEDIUM_ARCH, -15);
    expect([r.x, r.y, r.turnDeg]).toEqual([-l.x, l.y, -l.turnDeg]);
  });

  it('the near ends of neighbours meet within two tenths round the bend, and a gap parts them further', () => {
    const ends = (gap: number) => {
      const [p, q] = placesAlong(MEDIUM_ARCH, 'left', [{ widthMm: 8.5 }, { widthMm: 6.5, gapBeforeMm: gap }]);
      const end = (place: NonNullable<typeof p>, half: number) => {
        const t = (place.turnDeg * Math.PI) / 180;
        return [place.x + half * Math.cos(t), place.y + half * Math.sin(t)] as const;
      };
      const a = end(p as NonNullable<typeof p>, 4.25);
      const b = end(q as NonNullable<typeof q>, -3.25);
      return Math.hypot(a[0] - b[0], a[1] - b[1]);
    };
    expect(ends(0)).toBeLessThan(0.2);
    expect(ends(0.5)).toBeGreaterThan(0.42);
    expect(ends(0.5)).toBeLessThan(0.7);
  });
});

describe('linear algebra', () => {
  it('solves a system by hand', () => {
    const x = solve(
      [
        [2, 1],
        [1, 3],
      ],
      [5, 10],
    );
    expect(x[0]).toBeCloseTo(1, 12);
    expect(x[1]).toBeCloseTo(3, 12);
  });

  it('fits a line through points with the textbook slope', () => {
    // Points (0, 1), (1, 3), (2, 4): slope 1.5, intercept 7/6.
    const [b, m] = leastSquares(
      [0, 1, 2].map((x) => [1, x]),
      [1, 3, 4],
    );
    expect(b).toBeCloseTo(7 / 6, 12);
    expect(m).toBeCloseTo(1.5, 12);
  });
});

it('registration finds a known small motion of a crown again', () => {
  const c = crown(11, { lengthMm: 10, widthMm: 8.5, facialVolumeMm: 0 });
  const truth = turn(turn({ ...WORLD, origin: [0.3, -0.2, 0.1] }, 'z', 3), 'x', -2);
  const field = signedField(placeMesh(c.mesh, truth));
  const points = c.mesh.positions.filter((_, i) => Math.floor(i / 3) % 7 === 0);
  const { frame, rmsMm } = alignFrame(points, WORLD, field, { iterations: 25, reachMm: 2, hold: 0.001 });
  expect(rmsMm).toBeLessThan(0.01);
  for (let k = 0; k < 3; k++) {
    expect(frame.origin[k]).toBeCloseTo(truth.origin[k] as number, 1);
    expect(frame.x[k]).toBeCloseTo(truth.x[k] as number, 2);
    expect(frame.z[k]).toBeCloseTo(truth.z[k] as number, 2);
  }
});
