import { type Mesh, placeMesh, WORLD } from '@radiant/core';
import Manifold from 'manifold-3d';

/** A body moved by so much, mm. */
export const shifted = (m: Mesh, x: number, y: number, z: number): Mesh =>
  placeMesh(m, { ...WORLD, origin: [x, y, z] });

/** Makes bodies of manifold-3d. */
export async function solids() {
  const wasm = await Manifold();
  wasm.setup();
  return (m: Mesh) =>
    new wasm.Manifold(
      new wasm.Mesh({ numProp: 3, vertProperties: Float32Array.from(m.positions), triVerts: m.triangles }),
    );
}

/** A convex or concave outline over x and z, turned with the clock, drawn out from front to back: closed where joined. */
export const prism = (outline: readonly (readonly [x: number, z: number])[], deepMm: number) => ({ outline, deepMm });

/** An outline drawn out, with its ends closed by a fan about the first place: the outline is star-shaped about it. */
export function joined({ outline, deepMm }: ReturnType<typeof prism>): Mesh {
  const n = outline.length;
  const positions = Float64Array.from(
    outline.flatMap(([x, z]) => [x, -deepMm / 2, z]).concat(outline.flatMap(([x, z]) => [x, deepMm / 2, z])),
  );
  const triangles: number[] = [];
  for (let i = 1; i + 1 < n; i++) {
    triangles.push(0, i + 1, i);
    triangles.push(n, n + i, n + i + 1);
  }
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    triangles.push(i, j, n + j, i, n + j, n + i);
  }
  return { positions, triangles: Uint32Array.from(triangles) };
}
