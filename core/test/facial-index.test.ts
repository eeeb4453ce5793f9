import {
  ask,
  CaseEngine,
  CHAMFER_MM,
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
  slabOver,
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

it('the index of a mock-up follows the plan all over the face, ends along the gum’s scallop, and is one piece', async () => {
  const guide: Guide = ask(engine, 'mockUpGuide', 'upper');
  for (const p of guide.parts) expect(inspectMesh(p).ok).toBe(true);
  const whole = await joined(guide.parts);
  expect(whole.decompose()).toHaveLength(1);
  const [wall] = guide.parts as [Mesh];
  const inner = wall.positions.subarray(0, wall.positions.length / 2);
  for (const tooth of [12, 11, 21, 22]) {
    const planned = plannedTooth(arch, engine.contour, tooth);
    const size = planned.crown.size.widthMm;
    const [x0] = planned.frame.origin;
    const places: number[] = [];
    let top = -Infinity;
    for (let i = 0; i < inner.length; i += 3) {
      const [x, y, z] = inner.subarray(i, i + 3) as unknown as Vec3;
      if (Math.abs(x - x0) > 0.3 * size) continue;
      if (z > planned.frame.origin[2] + 0.8 && z < planned.frame.origin[2] + 7) places.push(x, y, z);
      top = Math.max(top, z);
    }
    // Straight to the front its relief is 0.05 mm; across a slanted face less, and never in the plan.
    const off = [...signedDistances(signedField(planned.mesh), Float64Array.from(places))].sort((a, b) => a - b);
    expect(off[0]).toBeGreaterThan(-0.05);
    expect(off[Math.floor(0.8 * off.length)]).toBeLessThan(0.1);
    // At the tooth's own zenith the wall ends; beside it, over a papilla, lower.
    const zenith = arch.teeth.get(tooth as Fdi);
    expect(Math.abs(top - ((zenith?.frame.origin[2] ?? 0) + (zenith?.zenithMm ?? 0)))).toBeLessThan(0.9);
  }
  const tops = new Map<number, number>();
  for (let i = 0; i < inner.length; i += 3)
    tops.set(
      Math.round((inner[i] as number) * 10),
      Math.max(tops.get(Math.round((inner[i] as number) * 10)) ?? -99, inner[i + 2] as number),
    );
  const heights = [...tops.values()];
  expect(Math.max(...heights) - Math.min(...heights)).toBeGreaterThan(2);
  // It lies on the palate behind, and goes on over the edges by giving way a little.
  const { min, max } = { min: whole.boundingBox().min, max: whole.boundingBox().max };
  expect((max[1] as number) - (min[1] as number)).toBeGreaterThan(15);
  expect(guide.wayOn?.givesMm).toBeLessThan(0.8);
  expect(guide.wayOn?.tiltDeg).toBeGreaterThanOrEqual(0);
});

it('over a flat ground a guide is five millimetres thick, its outer rims broken by its chamfer at 45°', () => {
  const [columns, rows, step] = [61, 31, 0.35];
  const flat = {
    columns,
    rows,
    along: new Float64Array(columns * rows).fill(2),
    at: (v: number, along: number): Vec3 => [Math.floor(v / rows) * step, along, (v % rows) * step],
  };
  const { positions } = slabOver(flat, { reliefMm: 0.1, thicknessMm: 5 });
  const thick = (i: number, j: number) => {
    const v = 3 * (i * rows + j);
    return (positions[v + 1] as number) - (positions[3 * columns * rows + v + 1] as number);
  };
  expect(positions[1]).toBeCloseTo(1.9, 9);
  expect(thick(30, 15)).toBeCloseTo(5, 9);
  for (const [i, j] of [
    [0, 15],
    [60, 15],
    [30, 0],
    [30, 30],
  ] as const)
    expect(thick(i, j)).toBeCloseTo(5 - CHAMFER_MM, 9);
  // A step in from the rim by so much less: 45°.
  expect(thick(1, 15)).toBeCloseTo(5 - CHAMFER_MM + step, 9);
});

it('beside a steep place a guide is as thick as anywhere, across it and not only along the way', () => {
  const [columns, rows, step] = [61, 31, 0.35];
  // A step of 8 mm in the ground, steeper than any ray would tell.
  const along = Float64Array.from({ length: columns * rows }, (_, v) => (Math.floor(v / rows) < 30 ? 0 : 8));
  const at = (v: number, y: number): Vec3 => [Math.floor(v / rows) * step, y, (v % rows) * step];
  const wall = slabOver({ columns, rows, along, at }, { reliefMm: 0, thicknessMm: 5, finMm: 0.1 });
  expect(printCheck(wall).thinnestMm).toBeGreaterThan(3);
});

it('no guide has a fin in an embrasure that would break: by the look before printing no wall is under a millimetre', () => {
  for (const guide of [index, ask(engine, 'edgeGuide', 'upper')]) {
    const check = printCheck(guide.parts[0] as Mesh);
    expect(check.thinnestMm).toBeGreaterThan(1);
    expect(check.thinMm2).toBeLessThan(10);
    expect(check.pieces).toBe(1);
  }
});
