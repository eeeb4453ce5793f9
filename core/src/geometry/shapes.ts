import type { Mesh } from './mesh.js';

/** A sphere about the origin: `rings` from pole to pole, twice as many around. */
export function sphere(radiusMm: number, rings = 32): Mesh {
  const around = 2 * rings;
  const positions: number[] = [0, 0, radiusMm];
  for (let r = 1; r < rings; r++) {
    const t = (Math.PI * r) / rings;
    for (let k = 0; k < around; k++) {
      const f = (2 * Math.PI * k) / around;
      positions.push(
        radiusMm * Math.sin(t) * Math.cos(f),
        radiusMm * Math.sin(t) * Math.sin(f),
        radiusMm * Math.cos(t),
      );
    }
  }
  positions.push(0, 0, -radiusMm);
  const south = positions.length / 3 - 1;
  const triangles: number[] = [];
  const at = (r: number, k: number) => 1 + (r - 1) * around + (k % around);
  for (let k = 0; k < around; k++) {
    triangles.push(0, at(1, k), at(1, k + 1));
    for (let r = 1; r < rings - 1; r++) {
      triangles.push(at(r, k), at(r + 1, k), at(r + 1, k + 1), at(r, k), at(r + 1, k + 1), at(r, k + 1));
    }
    triangles.push(south, at(rings - 1, k + 1), at(rings - 1, k));
  }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}

/** A box about the origin with the given edge lengths. */
export function box(xMm: number, yMm: number, zMm: number): Mesh {
  const positions: number[] = [];
  for (let i = 0; i < 8; i++)
    positions.push(i & 1 ? xMm / 2 : -xMm / 2, i & 2 ? yMm / 2 : -yMm / 2, i & 4 ? zMm / 2 : -zMm / 2);
  const quads = [
    [0, 2, 3, 1],
    [4, 5, 7, 6],
    [0, 1, 5, 4],
    [2, 6, 7, 3],
    [0, 4, 6, 2],
    [1, 3, 7, 5],
  ];
  const triangles = quads.flatMap(([a, b, c, d]) => [a, b, c, a, c, d]) as number[];
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}

/** A cylinder along z about the origin. */
export function cylinder(radiusMm: number, heightMm: number, around = 64): Mesh {
  const positions: number[] = [];
  for (const z of [-heightMm / 2, heightMm / 2]) {
    for (let k = 0; k < around; k++) {
      const f = (2 * Math.PI * k) / around;
      positions.push(radiusMm * Math.cos(f), radiusMm * Math.sin(f), z);
    }
  }
  positions.push(0, 0, -heightMm / 2, 0, 0, heightMm / 2);
  const triangles: number[] = [];
  for (let k = 0; k < around; k++) {
    const l = (k + 1) % around;
    triangles.push(
      k,
      l,
      around + l,
      k,
      around + l,
      around + k,
      2 * around,
      l,
      k,
      2 * around + 1,
      around + k,
      around + l,
    );
  }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}
