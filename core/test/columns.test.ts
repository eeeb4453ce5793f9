import {
  box,
  cylinder,
  eachMeeting,
  gridOver,
  heightField,
  lengthOutside,
  type Mesh,
  placeMesh,
  spaceOver,
  spans,
  sphere,
  WORLD,
} from '@radiant/core';

const moved = (m: Mesh, x: number, y: number, z: number): Mesh => placeMesh(m, { ...WORLD, origin: [x, y, z] });

describe('columns through a solid', () => {
  it('a sphere is met in and out at ±√(r² − d²)', () => {
    const grid = gridOver([-3, -3], [3, 3], 0.1);
    const found = spans(sphere(3, 128), [0, 2, 1], grid);
    expect(found.size).toBeGreaterThan(2600);
    for (const [column, s] of found) {
      const a = grid.a0 + (column % grid.na) * grid.step;
      const b = grid.b0 + Math.floor(column / grid.na) * grid.step;
      const d2 = a * a + b * b;
      if (d2 > 8) continue;
      expect(s).toHaveLength(2);
      expect(Math.abs((s[1] as number) - Math.sqrt(9 - d2))).toBeLessThan(0.01);
      expect(Math.abs((s[0] as number) + Math.sqrt(9 - d2))).toBeLessThan(0.01);
    }
  });

  it('two solids one behind the other are four meetings in rising order', () => {
    const both = [box(2, 2, 2), moved(box(2, 2, 2), 0, 5, 0)];
    const grid = gridOver([-1, -1], [1, 1], 0.25);
    const lists = both.map((m) => spans(m, [0, 2, 1], grid));
    for (const [column, s] of lists[0] as Map<number, number[]>) {
      expect(s).toEqual([-1, 1]);
      expect(lists[1]?.get(column)).toEqual([4, 6]);
    }
  });

  it.each([
    [[0, 10], [], 10],
    [[0, 10], [2, 4], 8],
    [[0, 10], [-5, 3, 8, 20], 5],
    [[0, 4, 6, 9], [3, 7], 5],
    [[0, 4], [0, 4], 0],
  ])('of the spans %p outside %p lie %i mm', (inside, other, mm) => {
    expect(lengthOutside(inside, other)).toBe(mm);
  });

  it('every meeting lies on the surface', () => {
    const m = cylinder(2, 6);
    let n = 0;
    eachMeeting(m, [0, 1, 2], gridOver([-2, -2], [2, 2], 0.2), (_, z) => {
      expect(Math.abs(Math.abs(z) - 3) < 1e-9 || Math.abs(z) < 1e-9 || Math.abs(z - 6) < 1e-9).toBe(true);
      n++;
    });
    expect(n).toBeGreaterThan(500);
  });
});

describe('a row of teeth as heights', () => {
  const grid = gridOver([-6, -6], [6, 6], 0.1);

  it('takes the lowest of the upper surfaces, the highest of the lower ones, and knows whose it is', () => {
    const upper = heightField(
      [
        { tooth: 11, mesh: moved(box(4, 4, 4), 0, 0, 3) },
        { tooth: 12, mesh: moved(box(4, 4, 4), 3, 0, 2.5) },
      ],
      'upper',
      grid,
    );
    const at = (x: number, y: number) =>
      Math.round((y - grid.b0) / grid.step) * grid.na + Math.round((x - grid.a0) / grid.step);
    expect(upper.z[at(-1, 0)]).toBeCloseTo(1, 5);
    expect(upper.tooth[at(-1, 0)]).toBe(11);
    // Where both stand the lower one counts.
    expect(upper.z[at(1.5, 0)]).toBeCloseTo(0.5, 5);
    expect(upper.tooth[at(1.5, 0)]).toBe(12);
    expect(upper.z[at(-5, -5)]).toBeNaN();
    expect(upper.tooth[at(-5, -5)]).toBe(0);
  });

  it('the space under a surface follows the jaw as it is carried', () => {
    const lower = heightField([{ tooth: 31, mesh: moved(box(4, 4, 4), 0, 0, -3) }], 'lower', grid);
    const upper: Mesh = { positions: Float64Array.from([0, 0, 0.4, 1, 1, 2, 5, 5, 1]), triangles: new Uint32Array() };
    expect([...spaceOver(lower, upper, [0, 0, 0])].map((v) => Math.round(v * 1000) / 1000)).toEqual([
      1.4,
      3,
      Number.NaN,
    ]);
    const carried = [...spaceOver(lower, upper, [3.5, 3.5, -1])];
    expect(carried[2]).toBeCloseTo(3, 5);
    expect(carried[0]).toBeNaN();
  });
});
