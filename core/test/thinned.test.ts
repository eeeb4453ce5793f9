import { adjacencyOf, type Mesh, neighbourhoodOf } from '@radiant/core';
import { meanEdge } from '../src/geometry/adjacency.js';
import { FINE_MM, onFine, thinned } from '../src/scan/thinned.js';

const hangs = (m: Mesh) => neighbourhoodOf(m, adjacencyOf(m));

/** Level sheets over one another, 6 mm wide, of squares with a diagonal. */
function sheets(stepMm: number, heights: readonly number[]): Mesh {
  const side = Math.round(6 / stepMm) + 1;
  const positions: number[] = [];
  const triangles: number[] = [];
  heights.forEach((z, n) => {
    for (let j = 0; j < side; j++)
      for (let i = 0; i < side; i++) {
        positions.push(i * stepMm, j * stepMm, z);
        if (i === 0 || j === 0) continue;
        const at = n * side * side;
        const [a, b, c, d] = [(j - 1) * side + i - 1, (j - 1) * side + i, j * side + i, j * side + i - 1];
        triangles.push(at + a, at + b, at + c, at + a, at + c, at + d);
      }
  });
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}

it('leaves alone what is no finer than most scanners give it', () => {
  const m = sheets(0.15, [0]);
  expect(meanEdge(m, hangs(m))).toBeGreaterThan(FINE_MM);
  expect(thinned(m, hangs(m))).toBeUndefined();
});

describe('a fine sheet', () => {
  // Two sheets so near to each other that each vertex is nearer to one of the other sheet than to those beside it.
  const fine = sheets(0.1, [0, 0.05]);
  const n = hangs(fine);
  const few = thinned(fine, n)!;

  it('has edges about twice as long, and every vertex in one that is near', () => {
    const long = meanEdge(few.mesh, hangs(few.mesh)) / meanEdge(fine, n);
    expect(long).toBeGreaterThan(1.6);
    expect(long).toBeLessThan(2.8);
    few.of.forEach((own, v) => {
      const far = [0, 1, 2].map((k) => few.mesh.positions[3 * own + k]! - fine.positions[3 * v + k]!);
      expect(Math.hypot(...far)).toBeLessThan(0.3);
    });
    few.middle.forEach((v, own) => {
      expect(few.of[v]).toBe(own);
    });
  });

  it('keeps its area, and its faces look as they did', () => {
    let sum = 0;
    const { positions: p, triangles: t } = few.mesh;
    for (let k = 0; k < t.length; k += 3) {
      const at = (c: number, i: number) => p[3 * t[k + c]! + i]!;
      const z = (at(1, 0) - at(0, 0)) * (at(2, 1) - at(0, 1)) - (at(1, 1) - at(0, 1)) * (at(2, 0) - at(0, 0));
      expect(z).toBeGreaterThan(-1e-9);
      sum += z / 2;
    }
    // The rim is drawn in by half a step.
    expect(sum).toBeGreaterThan(2 * 5.7 ** 2);
    expect(sum).toBeLessThan(2 * 6 ** 2);
  });

  it('never gathers across a gap, however narrow', () => {
    few.of.forEach((own, v) => {
      expect(few.mesh.positions[3 * own + 2]).toBeCloseTo(fine.positions[3 * v + 2]!, 9);
    });
  });

  it('gets the labels of the thinned one, and keeps what is fixed', () => {
    const own = Uint8Array.from(few.middle, (_, i) => (few.mesh.positions[3 * i]! < 3 ? 11 : 0));
    const labels = onFine(own, few);
    labels.forEach((label, v) => {
      const x = fine.positions[3 * v]!;
      if (Math.abs(x - 3) > 0.2) expect(label).toBe(x < 3 ? 11 : 0);
    });
    const far = Array.from(few.of, (_, v) => v).find((v) => fine.positions[3 * v]! > 5)!;
    expect([labels[far], onFine(own, few, new Map([[far, 21]]))[far]]).toEqual([0, 21]);
  });
});
