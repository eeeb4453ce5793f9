import { box, crown, enclosedArea, type Frame, reachAtLevel, section, sphere, WORLD } from '@radiant/core';

const at = (z: number): Frame => ({ ...WORLD, origin: [0, 0, z] });

describe('plane sections', () => {
  it('a box cut square gives its rectangle', () => {
    const lines = section(box(2, 3, 4), at(0.5));
    expect(lines).toHaveLength(1);
    expect(lines[0]?.closed).toBe(true);
    expect(enclosedArea(lines[0] as (typeof lines)[0])).toBeCloseTo(6, 10);
  });

  it('a sphere of radius 5 cut at 3 gives a circle of radius 4', () => {
    const [line] = section(sphere(5, 128), at(3.0001));
    expect(enclosedArea(line as NonNullable<typeof line>)).toBeCloseTo(Math.PI * 16, 1);
  });

  it('misses what it does not meet', () => {
    expect(section(box(1, 1, 1), at(2))).toEqual([]);
  });

  it('a plane through vertices still gives one closed line', () => {
    const lines = section(sphere(2, 16), WORLD);
    expect(lines).toHaveLength(1);
    expect(lines[0]?.closed).toBe(true);
  });

  it('a crown cut along its axis reaches further forward in the cervical third than at the edge', () => {
    const c = crown(11, { lengthMm: 10.5, widthMm: 8.5, facialVolumeMm: 0 });
    const lines = section(c.mesh, { origin: [0, 0, 0], x: [0, 1, 0], y: [0, 0, 1], z: [1, 0, 0] });
    const neck = reachAtLevel(lines, 8, 'least') as number;
    const edge = reachAtLevel(lines, 0.5, 'least') as number;
    expect(neck).toBeLessThan(edge - 1.5);
    expect(reachAtLevel(lines, 40, 'least')).toBeUndefined();
  });
});
