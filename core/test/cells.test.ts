import { type Cells, cellsOf, crown, firstThrough, type Mesh, sphere, type Vec3 } from '@radiant/core';
import { random } from '@radiant/standins';
import {
  BufferAttribute,
  BufferGeometry,
  DoubleSide,
  Mesh as Drawn,
  MeshBasicMaterial,
  Raycaster,
  Vector3,
} from 'three';

/** Surfaces that a pointer meets: closed, open with a hole to look through, lying in one plane, and one triangle. */
const SURFACES: readonly (readonly [string, Mesh])[] = [
  ['a crown', crown(13, { lengthMm: 10, widthMm: 8, facialVolumeMm: 0 }).mesh],
  ['half a sphere', open(sphere(8, 60))],
  [
    'a square',
    {
      positions: Float64Array.from([-9, -9, 0, 9, -9, 0, 9, 9, 0, -9, 9, 0]),
      triangles: Uint32Array.from([0, 1, 2, 0, 2, 3]),
    },
  ],
  [
    'one triangle',
    { positions: Float64Array.from([-9, -9, 1, 9, -9, 2, 0, 9, 3]), triangles: Uint32Array.from([0, 1, 2]) },
  ],
];

function open(m: Mesh): Mesh {
  const kept: number[] = [];
  for (let t = 0; t < m.triangles.length; t += 3) {
    const corners = m.triangles.subarray(t, t + 3);
    if ([...corners].some((v) => (m.positions[3 * v + 2] as number) < 2)) kept.push(...corners);
  }
  return { positions: m.positions, triangles: Uint32Array.from(kept) };
}

describe.each(SURFACES)('on %s', (_, m) => {
  const cells = cellsOf(m);

  it('a ray meets what three’s ray caster meets', () => {
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(Float64Array.from(m.positions), 3));
    geometry.setIndex(new BufferAttribute(m.triangles.slice(), 1));
    const drawn = new Drawn(geometry, new MeshBasicMaterial({ side: DoubleSide }));
    const r = random(41);
    let met = 0;
    for (let i = 0; i < 300; i++) {
      const from = [0, 1, 2].map(() => 40 * r.next() - 20) as unknown as Vec3;
      const to = [0, 1, 2].map(() => 14 * r.next() - 7);
      const way = new Vector3(...to).sub(new Vector3(...from)).normalize();
      const theirs = new Raycaster(new Vector3(...from), way).intersectObject(drawn)[0];
      const own = firstThrough(cells, m, from, [way.x, way.y, way.z]);
      expect(own === undefined).toBe(theirs === undefined);
      if (!own || !theirs) continue;
      met++;
      expect(Math.abs(own.distance - theirs.distance)).toBeLessThan(1e-5);
    }
    expect(met).toBeGreaterThan(40);
  });

  it('every triangle lies in one cell, within the cell’s box', () => {
    expect([...cells.faces].sort((a, b) => a - b)).toEqual(Array.from({ length: m.triangles.length / 3 }, (_, t) => t));
    for (let c = 0; c + 1 < cells.first.length; c++)
      for (const f of cells.faces.subarray(cells.first[c], cells.first[c + 1]))
        for (const v of m.triangles.subarray(3 * f, 3 * f + 3))
          expect(within(cells, c, m.positions.subarray(3 * v, 3 * v + 3))).toBe(true);
  });
});

function within({ box }: Cells, c: number, p: Float64Array): boolean {
  return [0, 1, 2].every(
    (k) =>
      (p[k] as number) >= (box[6 * c + k] as number) - 1e-5 &&
      (p[k] as number) <= (box[6 * c + 3 + k] as number) + 1e-5,
  );
}

it('on a fine sphere the cells stay small: a ray asks a small part of the triangles', () => {
  const m = sphere(20, 110);
  const { first } = cellsOf(m);
  const sizes = Array.from(first.subarray(1), (end, c) => end - (first[c] as number));
  expect(Math.max(...sizes)).toBeLessThan(m.triangles.length / 3 / 10);
});

it('without triangles nothing is met', () => {
  const none: Mesh = { positions: new Float64Array(), triangles: new Uint32Array() };
  expect(firstThrough(cellsOf(none), none, [0, 0, 9], [0, 0, -1])).toBeUndefined();
});
