import {
  area,
  bounds,
  box,
  cylinder,
  describeDefects,
  inspectMesh,
  mergeMeshes,
  meshInFrame,
  pieces,
  placeMesh,
  Refusal,
  requireSound,
  sphere,
  turn,
  volume,
  WORLD,
  weld,
} from '@radiant/core';

describe('solids in closed form', () => {
  it('a box holds length × width × height', () => {
    const m = box(2, 3, 4);
    expect(volume(m)).toBeCloseTo(24, 12);
    expect(area(m)).toBeCloseTo(52, 12);
    expect(bounds(m).max).toEqual([1, 1.5, 2]);
  });

  it('a fine sphere nears 4/3 π r³ from below', () => {
    const exact = (4 / 3) * Math.PI * 125;
    expect(volume(sphere(5, 96))).toBeLessThan(exact);
    expect(volume(sphere(5, 96)) / exact).toBeCloseTo(1, 2);
  });

  it('a prism of n sides holds n/2 · r² · sin(2π/n) · h', () => {
    expect(volume(cylinder(3, 7, 20))).toBeCloseTo(10 * 9 * Math.sin(Math.PI / 10) * 7, 10);
  });
});

describe('the validator', () => {
  it.each([
    ['a box', box(1, 2, 3)],
    ['a sphere', sphere(4)],
    ['a cylinder', cylinder(2, 5)],
  ])('finds %s closed and oriented', (_, m) => {
    expect(inspectMesh(m)).toEqual({ ok: true, defects: new Map() });
  });

  it('counts the three edges that a missing triangle opens', () => {
    const m = box(1, 1, 1);
    const open = { ...m, triangles: m.triangles.slice(3) };
    expect(inspectMesh(open).defects.get('open')).toBe(3);
    expect(inspectMesh(open, { closed: false }).ok).toBe(true);
  });

  it('sees a triangle that faces the wrong way', () => {
    const m = box(1, 1, 1);
    const t = m.triangles.slice();
    [t[0], t[1]] = [t[1] as number, t[0] as number];
    expect(inspectMesh({ ...m, triangles: t }).defects.has('not-oriented')).toBe(true);
  });

  it('sees NaN, indices out of range and triangles without area', () => {
    const m = box(1, 1, 1);
    const p = m.positions.slice();
    p[4] = Number.NaN;
    expect(inspectMesh({ ...m, positions: p }).defects.get('not-finite')).toBe(1);
    expect(
      inspectMesh({ positions: m.positions, triangles: Uint32Array.from([0, 1, 99]) }).defects.get(
        'index-out-of-range',
      ),
    ).toBe(1);
    expect(
      inspectMesh({ positions: m.positions, triangles: Uint32Array.from([0, 1, 1]) }, { closed: false }).defects.get(
        'degenerate',
      ),
    ).toBe(1);
  });

  it('refuses an unsound mesh in one sentence', () => {
    const empty = { positions: new Float64Array(), triangles: new Uint32Array() };
    expect(() => requireSound(empty)).toThrow(Refusal);
    expect(describeDefects(inspectMesh(empty))).toBe("The surface can't be used: it has no triangles.");
  });
});

it('welding joins repeated corners and leaves the surface as it was', () => {
  const m = sphere(3, 12);
  const loose = {
    positions: Float64Array.from(m.triangles, (_, i) => i).fill(0),
    triangles: Uint32Array.from(m.triangles, (_, i) => i),
  };
  const positions = new Float64Array(3 * m.triangles.length);
  m.triangles.forEach((v, i) => {
    positions.set(m.positions.subarray(3 * v, 3 * v + 3), 3 * i);
  });
  const welded = weld({ ...loose, positions });
  expect(welded.positions.length).toBe(m.positions.length);
  expect(inspectMesh(welded).ok).toBe(true);
  expect(volume(mergeMeshes([welded]))).toBeCloseTo(volume(m), 12);
});

it('a mesh falls into its connected pieces, the largest first, and they merge back to the same volume', () => {
  const a = sphere(2, 16);
  const b = box(1, 1, 1);
  const both = mergeMeshes([
    b,
    { positions: a.positions.map((v, i) => (i % 3 === 0 ? v + 10 : v)), triangles: a.triangles },
  ]);
  const parts = pieces(both);
  expect(parts.map((p) => p.triangles.length)).toEqual([a.triangles.length, b.triangles.length]);
  expect(parts.reduce((n, p) => n + volume(p), 0)).toBeCloseTo(volume(a) + volume(b), 9);
});

it('a mesh placed in a frame and taken back into it is itself', () => {
  const f = { ...turn(turn(WORLD, 'x', 30), 'z', -50), origin: [3, -2, 7] as const };
  const m = sphere(2, 12);
  const back = meshInFrame(placeMesh(m, f), f);
  back.positions.forEach((v, i) => {
    expect(v).toBeCloseTo(m.positions[i] as number, 9);
  });
  expect(volume(placeMesh(m, f))).toBeCloseTo(volume(m), 9);
});
