import { acrossOf, adjacencyOf, CROWDED, type Mesh, neighbourhoodOf, OPEN, sphere } from '@radiant/core';

/** Triangles among a few corners, so that edges are open, shared by two, and by many. */
function heap(seed: number, corners: number, count: number): Mesh {
  let state = seed;
  const next = (below: number) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return Math.floor((state / 2 ** 32) * below);
  };
  const triangles: number[] = [];
  while (triangles.length < 3 * count) {
    const [a, b, c] = [next(corners), next(corners), next(corners)];
    if (a !== b && b !== c && c !== a) triangles.push(a, b, c);
  }
  return { positions: new Float64Array(3 * corners), triangles: Uint32Array.from(triangles) };
}

/** Every triangle compared with every other. */
function slowly({ triangles }: Mesh): number[] {
  const ends = (k: number) =>
    [triangles[k] as number, triangles[k - (k % 3) + ((k + 1) % 3)] as number].sort((p, q) => p - q).join(' ');
  return [...triangles.keys()].map((k) => {
    const others = [...triangles.keys()].filter((j) => Math.floor(j / 3) !== Math.floor(k / 3) && ends(j) === ends(k));
    return others.length === 0 ? OPEN : others.length > 1 ? CROWDED : Math.floor((others[0] as number) / 3);
  });
}

test.each([
  [1, 40, 30],
  [2, 12, 30],
  [3, 6, 18],
  [4, 200, 150],
])('what lies across each edge is what comparing every two triangles finds: heap %i', (seed, corners, count) => {
  const m = heap(seed, corners, count);
  expect([...acrossOf(m)]).toEqual(slowly(m));
});

test('on a closed surface every edge has one triangle across, and each lies across the other', () => {
  const m = sphere(5, 6);
  const across = acrossOf(m);
  expect(Math.min(...across)).toBeGreaterThanOrEqual(0);
  for (let k = 0; k < across.length; k++) {
    const o = 3 * (across[k] as number);
    expect([across[o], across[o + 1], across[o + 2]]).toContain(Math.floor(k / 3));
  }
  // Euler: V − E + F = 2.
  const edges = neighbourhoodOf(m, adjacencyOf(m)).beside.length / 2;
  expect(m.positions.length / 3 - edges + m.triangles.length / 3).toBe(2);
});
