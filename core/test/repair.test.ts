import {
  adjacencyOf,
  box,
  inspectMesh,
  type Mesh,
  mergeMeshes,
  openLoops,
  type RepairKind,
  repaired,
  sphere,
  vectorArea,
  volume,
} from '@radiant/core';
import Manifold from 'manifold-3d';

const ball = sphere(8, 24);
const moved = (m: Mesh, by: number): Mesh => ({
  positions: m.positions.map((v, i) => (i % 3 === 0 ? v + by : v)),
  triangles: m.triangles,
});
const without = (m: Mesh, gone: (t: number) => boolean): Mesh => ({
  positions: m.positions,
  triangles: m.triangles.filter((_, k) => !gone(Math.floor(k / 3))),
});
const did = (m: Mesh): Partial<Record<RepairKind, number>> =>
  Object.fromEntries(repaired(m).repairs.map((r) => [r.kind, r.count]));
/** The lower cap of a ball is left off: an open bowl whose border lies below. */
const bowl = without(ball, (t) =>
  [0, 1, 2].some((c) => (ball.positions[3 * (ball.triangles[3 * t + c] as number) + 2] as number) < -4),
);

async function closedByManifold(m: Mesh): Promise<{ status: string; volume: number }> {
  const wasm = await Manifold();
  wasm.setup();
  const solid = new wasm.Manifold(
    new wasm.Mesh({ numProp: 3, vertProperties: Float32Array.from(m.positions), triVerts: m.triangles }),
  );
  return { status: solid.status(), volume: solid.volume() };
}

it('a sound surface is left as it is, and nothing is told', () => {
  const { mesh, repairs } = repaired(ball);
  expect(repairs).toEqual([]);
  expect(volume(mesh)).toBeCloseTo(volume(ball), 1);
});

it('doubled points are joined: a soup of triangles becomes one closed surface', async () => {
  const soup: Mesh = {
    positions: Float64Array.from([...ball.triangles].flatMap((v) => [...ball.positions.subarray(3 * v, 3 * v + 3)])),
    triangles: Uint32Array.from(ball.triangles.map((_, i) => i)),
  };
  const { mesh, repairs } = repaired(soup);
  expect(repairs.map((r) => r.kind)).toEqual(['welded']);
  expect(repairs[0]?.sentence).toMatch(/^[\d,]+ doubled points joined$/);
  expect(inspectMesh(mesh).ok).toBe(true);
  const solid = await closedByManifold(mesh);
  expect(solid.status).toBe('NoError');
  expect(solid.volume).toBeCloseTo(volume(ball), 0);
});

it('triangles without area and doubled ones are left out, with their number', () => {
  const more = Uint32Array.from([...ball.triangles, ...ball.triangles.subarray(30, 36), 5, 5, 9]);
  const { mesh } = repaired({ positions: ball.positions, triangles: more });
  expect(did({ positions: ball.positions, triangles: more })).toEqual({ degenerate: 1, doubled: 2 });
  expect(mesh.triangles.length).toBe(ball.triangles.length);
});

it('faces that look the other way are turned, whichever they are', () => {
  const wrong = ball.triangles.slice();
  const chosen = [4, 90, 91, 92, 300];
  for (const t of chosen)
    [wrong[3 * t + 1], wrong[3 * t + 2]] = [wrong[3 * t + 2] as number, wrong[3 * t + 1] as number];
  const broken = { positions: ball.positions, triangles: wrong };
  expect(did(broken)).toEqual({ turned: chosen.length });
  expect(inspectMesh(repaired(broken).mesh).ok).toBe(true);
  expect(volume(repaired(broken).mesh)).toBeCloseTo(volume(ball), 1);
});

it('a third wall on an edge goes, and what is left is closed by manifold-3d’s judgement', async () => {
  const n = ball.positions.length / 3;
  const [a, b] = [ball.triangles[600] as number, ball.triangles[601] as number];
  const fin: Mesh = {
    positions: Float64Array.from([...ball.positions, 0, 0, 12]),
    triangles: Uint32Array.from([...ball.triangles, a, b, n]),
  };
  const { mesh, repairs } = repaired(fin);
  expect(repairs.map((r) => r.kind)).toContain('crowded');
  expect(inspectMesh(mesh).ok).toBe(true);
  expect((await closedByManifold(mesh)).status).toBe('NoError');
});

it('loose pieces are set aside, a large second piece is not', () => {
  const crumb = moved(sphere(0.4, 4), 30);
  expect(did(mergeMeshes([ball, crumb, moved(crumb, 3)]))).toEqual({ stray: 2 });
  expect(did(mergeMeshes([ball, moved(sphere(6, 24), 30)]))).toEqual({});
});

it('small holes are filled, the border of the scan is not', () => {
  const pricked = without(bowl, (t) => t % 151 === 7);
  const { mesh, repairs } = repaired(pricked);
  expect(repairs.map((r) => r.kind)).toEqual(['filled']);
  expect(repairs[0]?.count).toBeGreaterThan(2);
  expect(openLoops(mesh, adjacencyOf(mesh))).toHaveLength(1);
});

it('an open surface that is inside out is turned, and the doubt about its sides is told', () => {
  const out: Mesh = { positions: bowl.positions, triangles: bowl.triangles.slice().reverse() };
  expect(vectorArea(out)[2]).toBeLessThan(0);
  const { mesh, repairs } = repaired(out);
  expect(repairs.find((r) => r.kind === 'inside-out')?.sentence).toMatch(/mirrored, left and right are changed over/);
  expect(vectorArea(mesh)[2]).toBeGreaterThan(0);
});

it('what came in is not touched', () => {
  const before = [...ball.triangles];
  const bad = { positions: ball.positions, triangles: Uint32Array.from([...ball.triangles, 1, 1, 2]) };
  repaired(bad);
  expect([...ball.triangles]).toEqual(before);
  expect(bad.triangles.length).toBe(ball.triangles.length + 3);
});

it('a closed box stays a closed box', async () => {
  expect(await closedByManifold(repaired(box(3, 4, 5)).mesh)).toMatchObject({ status: 'NoError' });
});
