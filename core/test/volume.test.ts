import { box, crown, type Mesh, placeMesh, solidChange, sphere, volume, WORLD } from '@radiant/core';
import Manifold from 'manifold-3d';

const shifted = (m: Mesh, x: number, y: number, z: number): Mesh => placeMesh(m, { ...WORLD, origin: [x, y, z] });

describe('volume added and removed', () => {
  it('of a box moved aside is its overhang on both sides', () => {
    const a = box(4, 3, 5);
    const c = solidChange(a, shifted(a, 0.5, 0, 0));
    // A grid can miss a flat side by half a column.
    for (const v of [c.addedMm3, c.removedMm3]) expect(Math.abs(v - 0.5 * 3 * 5)).toBeLessThan(0.06 * 3 * 5 + 1e-9);
  });

  it('of a sphere grown by half a millimetre is the shell', () => {
    const c = solidChange(sphere(3, 64), sphere(3.5, 64));
    expect(c.addedMm3 / ((4 / 3) * Math.PI * (3.5 ** 3 - 27))).toBeCloseTo(1, 1);
    expect(c.removedMm3).toBeLessThan(0.1);
  });

  it('counts nothing above the level that is given', () => {
    const c = solidChange(box(2, 2, 10), box(3, 2, 10), 0);
    expect(c.addedMm3).toBeGreaterThan(1 * 2 * 5 * 0.95);
    expect(c.addedMm3).toBeLessThan(1 * 2 * 5 * 1.05);
  });

  it('of crowns equals manifold-3d’s difference of the solids within 1 % or 0.1 mm³', async () => {
    const wasm = await Manifold();
    wasm.setup();
    const solid = (m: Mesh) =>
      new wasm.Manifold(
        new wasm.Mesh({ numProp: 3, vertProperties: Float32Array.from(m.positions), triVerts: m.triangles }),
      );
    const cases = [
      [
        crown(11, { lengthMm: 9.9, widthMm: 8.4, facialVolumeMm: 0 }),
        crown(11, { lengthMm: 11, widthMm: 8.7, facialVolumeMm: 0.4 }),
      ],
      [
        crown(13, { lengthMm: 10, widthMm: 7.6, facialVolumeMm: 0 }),
        crown(13, { lengthMm: 10, widthMm: 7.4, facialVolumeMm: -0.3, character: 'soft' }),
      ],
      [
        crown(24, { lengthMm: 8.5, widthMm: 7, facialVolumeMm: 0 }),
        crown(24, { lengthMm: 8.5, widthMm: 7.1, facialVolumeMm: 0.3, character: 'square' }),
      ],
    ] as const;
    for (const [now, then] of cases) {
      const c = solidChange(now.mesh, then.mesh);
      const [a, b] = [solid(now.mesh), solid(then.mesh)];
      const added = b.subtract(a).volume();
      const removed = a.subtract(b).volume();
      expect(Math.abs(c.addedMm3 - added)).toBeLessThan(Math.max(0.1, added * 0.01));
      expect(Math.abs(c.removedMm3 - removed)).toBeLessThan(Math.max(0.1, removed * 0.01));
      // What was added less what was removed is the difference of the volumes.
      expect(c.addedMm3 - c.removedMm3).toBeCloseTo(volume(then.mesh) - volume(now.mesh), 0);
    }
  });
});
