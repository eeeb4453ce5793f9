import {
  alongAngle,
  biteGrid,
  box,
  clearances,
  closing,
  type Direction,
  heightField,
  type JawTooth,
  leadOf,
  type Mesh,
  onTheTeeth,
  overlapOf,
  placeMesh,
  sphere,
  WORLD,
} from '@radiant/core';

const placed = (m: Mesh, x: number, y: number, z: number): Mesh => placeMesh(m, { ...WORLD, origin: [x, y, z] });

/**
 * A wedge 4 mm wide whose underside falls forward by `deg`: its underside is z = −(y0 − y)·tan(deg) from y0 = 3 to −5.
 */
function ramp(deg: number): Mesh {
  const t = Math.tan((deg * Math.PI) / 180);
  const z = (y: number) => -(3 - y) * t;
  const p = [-2, 3, z(3), 2, 3, z(3), 2, -5, z(-5), -2, -5, z(-5), -2, 3, 9, 2, 3, 9, 2, -5, 9, -2, -5, 9];
  // Underside first, then the lid and the four walls; only the surface matters here.
  const quads = [
    [0, 1, 2, 3],
    [4, 7, 6, 5],
    [0, 4, 5, 1],
    [1, 5, 6, 2],
    [2, 6, 7, 3],
    [3, 7, 4, 0],
  ] as const;
  return {
    positions: Float64Array.from(p),
    triangles: Uint32Array.from(quads.flatMap(([a, b, c, d]) => [a, b, c, a, c, d])),
  };
}

function fields(upper: JawTooth[], lower: JawTooth[]) {
  const grid = biteGrid([...upper, ...lower]);
  return [heightField(upper, 'upper', grid), heightField(lower, 'lower', grid)] as const;
}

describe.each([20, 35, 50])('a lower edge that glides on a ramp of %i°', (deg) => {
  const radius = 0.6;
  // A ball that touches the ramp at the start: its centre lies radius/cos(deg) below the ramp.
  const centre = -(3 - 1) * Math.tan((deg * Math.PI) / 180) - radius / Math.cos((deg * Math.PI) / 180);
  const [upper, lower] = fields(
    [{ tooth: 11, mesh: ramp(deg) }],
    [{ tooth: 31, mesh: placed(sphere(radius, 96), 0, 1, centre) }],
  );

  it('touches at the start', () => {
    expect(closing(upper, lower)).toBeCloseTo(0, 1);
  });

  it('opens by the way times the tangent, and the way has the ramp’s angle', () => {
    const m = onTheTeeth(upper, lower, 'forward', 3);
    expect(m.steps).toHaveLength(7);
    for (const s of m.steps) expect(s.dropMm).toBeCloseTo(s.alongMm * Math.tan((deg * Math.PI) / 180), 1);
    expect(m.angleDeg).toBeGreaterThan(deg - 0.5);
    expect(m.angleDeg).toBeLessThan(deg + 0.5);
  });

  it('a flatter way would pass into it and a steeper one leaves it, by the closed form', () => {
    for (const way of [deg - 10, deg + 10]) {
      const m = alongAngle(upper, lower, 'forward', way, 2);
      for (const s of m.steps) {
        const space = s.alongMm * (Math.tan((way * Math.PI) / 180) - Math.tan((deg * Math.PI) / 180));
        expect(Math.abs((s.teeth[0]?.spaceMm ?? 99) - space)).toBeLessThan(0.04);
      }
    }
  });
});

describe('what leads a movement to the side', () => {
  // Flat premolars in light contact, and a canine whose inside falls to the side by 40°.
  const canine = (x: number, way: 1 | -1): Mesh => {
    const m = ramp(40);
    // The ramp turned so that it falls towards way·x.
    const positions = new Float64Array(m.positions.length);
    for (let i = 0; i < positions.length; i += 3)
      positions.set(
        [
          x - way * ((m.positions[i + 1] as number) - 1),
          m.positions[i] as number,
          (m.positions[i + 2] as number) + 2 * Math.tan((40 * Math.PI) / 180),
        ],
        i,
      );
    return { positions, triangles: m.triangles };
  };
  const upper: JawTooth[] = [
    { tooth: 13, mesh: canine(-14, -1) },
    { tooth: 14, mesh: placed(box(6, 7, 2), -18, 10, 1) },
    { tooth: 24, mesh: placed(box(6, 7, 2), 18, 10, 1) },
  ];
  const lower: JawTooth[] = [
    { tooth: 43, mesh: placed(sphere(0.5, 96), -14, 0, -0.5 / Math.cos((40 * Math.PI) / 180)) },
    { tooth: 44, mesh: placed(box(6, 7, 2), -18, 10, -1.02) },
    { tooth: 34, mesh: placed(box(6, 7, 2), 18, 10, -1.02) },
  ];
  const [u, l] = fields(upper, lower);

  it('to the right the right canine lifts everything off by the way times its slope', () => {
    const m = onTheTeeth(u, l, 'right', 2);
    const end = leadOf('right', m.steps.at(-1) as (typeof m.steps)[number]);
    expect(end.touching).toEqual([13]);
    expect(end.lifts).toBe(true);
    expect(end.othersMm).toBeCloseTo(2 * Math.tan((40 * Math.PI) / 180), 1);
    expect(leadOf('right', m.steps[0] as (typeof m.steps)[number]).touching).toEqual(
      expect.arrayContaining([13, 14, 24]),
    );
  });

  it('to the left no canine stands: the premolars stay in touch and nothing lifts', () => {
    const m = onTheTeeth(u, l, 'left', 2);
    const end = leadOf('left', m.steps.at(-1) as (typeof m.steps)[number]);
    expect(end.touching).toEqual(expect.arrayContaining([14, 24]));
    expect(end.lifts).toBe(false);
  });

  it('says against which lower tooth, and leaves out teeth that stand over none', () => {
    const c = clearances(u, l, [0, 0, 0]);
    expect(c.find((t) => t.tooth === 24)).toMatchObject({ against: 34 });
    const alone = fields([{ tooth: 11, mesh: box(2, 2, 2) }], [{ tooth: 31, mesh: placed(box(2, 2, 2), 9, 0, -3) }]);
    expect(clearances(...alone, [0, 0, 0])).toEqual([]);
    expect(closing(...alone)).toBe(Infinity);
  });
});

it.each<Direction>(['forward', 'right', 'left'])(
  'two planes keep their distance however the jaw goes %s',
  (direction) => {
    const [u, l] = fields(
      [{ tooth: 11, mesh: placed(box(20, 20, 2), 0, 0, 1.3) }],
      [{ tooth: 31, mesh: placed(box(20, 20, 2), 0, 0, -1) }],
    );
    expect(closing(u, l)).toBeCloseTo(0.3, 5);
    for (const s of alongAngle(u, l, direction, 0, 3).steps) expect(s.teeth[0]?.spaceMm).toBeCloseTo(0, 5);
  },
);

it.each([
  [2.5, 3.2],
  [0.8, 1],
  [-1, 4],
])('overbite %f and overjet %f of two blocks are what they were set to', (bite, jet) => {
  const upper = placed(box(8, 2, 10), 0, 0, 5);
  const lower = placed(box(5, 2, 8), 0, jet, -4 + bite);
  const o = overlapOf(upper, lower);
  expect(o.overbiteMm).toBeCloseTo(bite, 6);
  expect(o.overjetMm).toBeCloseTo(jet, 6);
});
