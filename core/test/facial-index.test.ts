import {
  ask,
  CaseEngine,
  type Fdi,
  firstContour,
  type Guide,
  inspectMesh,
  type Mesh,
  mergeMeshes,
  plannedTooth,
  printCheck,
  rayCaster,
  readScan,
  signedDistances,
  signedField,
  type Vec3,
  volume,
} from '@radiant/core';
import { INTRAORAL_SCANNER, makePatient, RECIPES, scan } from '@radiant/standins';
import Manifold from 'manifold-3d';

const engine = new CaseEngine();
engine.take(readScan(scan(makePatient(RECIPES.Sandpiper), INTRAORAL_SCANNER)));
const arch = engine.arch('upper');
const targets = [12, 11, 21, 22].map((t) => {
  const own = arch.teeth.get(t as Fdi);
  return [t, { lengthMm: own?.lengthMm ?? 0, widthMm: (own?.widthMm ?? 0) - 0.1 }] as const;
});
engine.setPlan(firstContour(arch, new Map(targets)));
const index: Guide = ask(engine, 'facialIndex', 'upper');
const leaves: Guide = ask(engine, 'leafGuide', 'upper');

async function joined(parts: readonly Mesh[]) {
  const wasm = await Manifold();
  wasm.setup();
  return wasm.Manifold.union(
    parts.map(
      (m) =>
        new wasm.Manifold(
          new wasm.Mesh({ numProp: 3, vertProperties: Float32Array.from(m.positions), triVerts: m.triangles }),
        ),
    ),
  );
}

describe('a facial index over four incisors', () => {
  const [wall] = index.parts as [Mesh];
  const crowns = [12, 11, 21, 22].map((t) => plannedTooth(arch, engine.contour, t).mesh);

  it('is one closed wall, five millimetres thick to the front, of the volume that manifold-3d finds', async () => {
    expect(inspectMesh(wall).ok).toBe(true);
    const solid = await joined([wall]);
    expect(solid.volume() / volume(wall)).toBeCloseTo(1, 4);
    expect(solid.genus()).toBe(0);
    const cast = rayCaster(signedField(wall).tree);
    let thinnest = Infinity;
    for (let x = -8; x <= 8; x += 0.5) {
      const first = cast.first([x, -70, 5], [0, 1, 0]);
      const second = first && cast.first([x, -70 + first.distance + 1e-4, 5], [0, 1, 0]);
      if (second) thinnest = Math.min(thinnest, second.distance);
    }
    expect(thinnest).toBeGreaterThan(4.99);
    expect(thinnest).toBeLessThan(8);
  });

  it('follows the plan by its relief where the face looks forward, and never comes into it', () => {
    const field = signedField(mergeMeshes(crowns));
    // Its back sheet is the first half of its places.
    const back = wall.positions.subarray(0, wall.positions.length / 2);
    const d = signedDistances(field, back);
    const near = [...d].filter((_, i) => Math.abs(back[3 * i] as number) < 7 && (back[3 * i + 2] as number) < 7);
    const sorted = [...near].sort((a, b) => a - b);
    expect(sorted[0]).toBeGreaterThan(-0.03);
    expect(sorted[sorted.length >> 1]).toBeGreaterThan(0.03);
    expect(sorted[sorted.length >> 1]).toBeLessThan(0.12);
  });

  it('sits on teeth that stay on both sides, and comes off to the front without meeting a tooth', () => {
    expect(index.seats).toBeGreaterThanOrEqual(2);
    const all = signedField(
      mergeMeshes([...crowns, ...[13, 23, 14, 24].map((t) => arch.teeth.get(t)?.field.mesh as Mesh)]),
    );
    const cast = rayCaster(all.tree);
    const back = wall.positions.subarray(0, wall.positions.length / 2);
    let met = 0;
    for (let i = 0; i < back.length; i += 30)
      if (cast.first(back.subarray(i, i + 3) as unknown as Vec3, [0, -1, 0])) met++;
    expect(met).toBe(0);
  });
});

it('as a book it has three leaves that a spine holds together: one piece, less than the whole wall by its slits', async () => {
  expect(leaves.parts).toHaveLength(4);
  for (const p of leaves.parts) expect(inspectMesh(p).ok).toBe(true);
  const book = await joined(leaves.parts);
  expect(book.decompose()).toHaveLength(1);
  const whole = volume(index.parts[0] as Mesh);
  expect(book.volume()).toBeLessThan(0.97 * whole);
  expect(book.volume()).toBeGreaterThan(0.8 * whole);
  // Without the spine they fall apart.
  expect((await joined(leaves.parts.slice(0, 3))).decompose()).toHaveLength(3);
});

it('is refused in a sentence where nothing is planned', () => {
  const bare = new CaseEngine();
  bare.take(readScan(scan(makePatient(RECIPES.Sandpiper), INTRAORAL_SCANNER)));
  expect(() => ask(bare, 'facialIndex', 'upper')).toThrow('No tooth is planned, so there is no index.');
});

it('an edge strip lies under the edges by its relief, seats on teeth that stay, and comes off downward', async () => {
  const strip: Guide = ask(engine, 'edgeGuide', 'upper');
  const [body] = strip.parts as [Mesh];
  expect(inspectMesh(body).ok).toBe(true);
  expect((await joined([body])).volume() / volume(body)).toBeCloseTo(1, 4);
  expect(volume(body)).toBeGreaterThan(0);
  expect(strip.seats).toBeGreaterThanOrEqual(2);
  const crowns = [12, 11, 21, 22].map((t) => plannedTooth(arch, engine.contour, t).mesh);
  const stay = [13, 23, 14, 24].map((t) => arch.teeth.get(t)?.field.mesh as Mesh);
  const all = signedField(mergeMeshes([...crowns, ...stay]));
  const top = body.positions.subarray(0, body.positions.length / 2);
  const off = [...signedDistances(all, top)].sort((a, b) => a - b);
  expect(off[0]).toBeGreaterThan(-0.05);
  // Under every planned edge it comes as near as its relief.
  for (const mesh of crowns) {
    const near = [...signedDistances(signedField(mesh), top)].sort((a, b) => a - b);
    expect(near[0]).toBeLessThan(0.2);
  }
  const cast = rayCaster(all.tree);
  for (let i = 0; i < top.length; i += 30)
    expect(cast.first(top.subarray(i, i + 3) as unknown as Vec3, [0, 0, -1])).toBeUndefined();
});

it('a sagittal slice stands in front of each planned tooth, two millimetres wide, its back along the plan', () => {
  const slices = ask(engine, 'sagittalSlices', 'upper');
  expect(slices.map((s) => s.tooth).sort()).toEqual([11, 12, 21, 22]);
  for (const { tooth, mesh } of slices) {
    expect(inspectMesh(mesh).ok).toBe(true);
    const xs = mesh.positions.filter((_, i) => i % 3 === 0);
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(2, 6);
    const planned = plannedTooth(arch, engine.contour, tooth);
    const back = mesh.positions.subarray(0, mesh.positions.length / 2);
    const d = [...signedDistances(signedField(planned.mesh), back)].sort((a, b) => a - b);
    expect(d[0]).toBeGreaterThan(-0.05);
    expect(d[Math.floor(d.length / 4)]).toBeLessThan(0.2);
  }
});

it('no guide has a fin in an embrasure that would break: by the look before printing no wall is under a millimetre', () => {
  for (const guide of [index, ask(engine, 'edgeGuide', 'upper')]) {
    const check = printCheck(guide.parts[0] as Mesh);
    expect(check.thinnestMm).toBeGreaterThan(1);
    expect(check.thinMm2).toBeLessThan(10);
    expect(check.pieces).toBe(1);
  }
});
