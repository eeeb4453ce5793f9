/**
 * What composite meets on the tooth: the face of a break and the dent beside the gum against bodies cut by manifold-3d,
 * an island that is marked against areas worked out by hand, and what is shown of a scanned tooth.
 */
import {
  area,
  ask,
  box,
  CaseEngine,
  cross,
  crown,
  drawnFace,
  type Mesh,
  missingOf,
  neckDefect,
  normalize,
  type PlannedTooth,
  readScan,
  scannedBreak,
  sub,
  TOOTH_PLACES,
  troughRim,
  USUAL_DIRECT,
  type Vec3,
  vertex,
  volume,
  WORLD,
  wornEdge,
} from '@radiant/core';
import { INTRAORAL_SCANNER, makePatient, RECIPES, scan } from '@radiant/standins';
import type { Manifold as Solid } from 'manifold-3d';
import { columnOf, columnPlace } from '../src/direct/missing.js';
import { directBodies, directPlan, layersThrough } from '../src/direct/plan.js';
import { solids } from './direct-bodies.js';

const CROWN = crown(11, { lengthMm: 10.5, widthMm: 8.5, facialVolumeMm: 0 });
const PLANNED = { tooth: 11, mesh: CROWN.mesh, frame: WORLD, crown: CROWN } as PlannedTooth;

/** A body of manifold-3d as a mesh with even triangles, as a scanner gives them. */
function meshOf(solid: Solid, edgeMm = 0.25): Mesh {
  const m = solid.refineToLength(edgeMm).getMesh();
  return {
    positions: Float64Array.from({ length: m.numVert * 3 }, (_, i) => {
      const v = Math.floor(i / 3);
      return m.vertProperties[v * m.numProp + (i % 3)] as number;
    }),
    triangles: Uint32Array.from(m.triVerts),
  };
}

/** The area of what looks exactly one way. */
function looking(m: Mesh, way: Vec3): number {
  const at = (k: number) => vertex(m, m.triangles[k] as number);
  const own: number[] = [];
  for (let t = 0; t < m.triangles.length; t += 3) {
    const n = normalize(cross(sub(at(t + 1), at(t)), sub(at(t + 2), at(t))));
    if (n[0] * way[0] + n[1] * way[1] + n[2] * way[2] > 0.9999) own.push(...m.triangles.subarray(t, t + 3));
  }
  return area({ positions: m.positions, triangles: Uint32Array.from(own) });
}

describe('the face of a break', () => {
  it.each([
    ['straight through', [Math.SQRT1_2, 0, Math.SQRT1_2], 3.2],
    ['flat through the edge', [0, 0, 1], 3],
    ['askew from the face to behind', [0.6, 0.35, Math.sqrt(1 - 0.36 - 0.1225)], 3.4],
  ] as const)('is as large as a plane cuts it: %s', async (_, way, at) => {
    const solid = await solids();
    // The edge lies at the lowest z: what lies beyond the plane there goes.
    const low = CROWN.mesh.positions.reduce((a, v, i) => (i % 3 === 2 ? Math.min(a, v) : a), Infinity);
    const tooth = meshOf(solid(CROWN.mesh).trimByPlane([...way], low * way[2] + at));
    const cut: Vec3 = [-way[0], -way[1], -way[2]];
    const truth = looking(tooth, cut);
    expect(truth).toBeGreaterThan(8);
    const face = scannedBreak(tooth, missingOf(CROWN.mesh, tooth));
    // It keeps off the plan's own surface by a sliver, and ends with whole triangles.
    expect(face.mm2 / truth).toBeGreaterThan(0.9);
    expect(face.mm2 / truth).toBeLessThan(1.03);
    for (let t = 0; t < face.mesh.triangles.length; t += 3) {
      const p = [0, 1, 2].map((k) => vertex(face.mesh, face.mesh.triangles[t + k] as number)) as [Vec3, Vec3, Vec3];
      const n = normalize(cross(sub(p[1], p[0]), sub(p[2], p[0])));
      expect(n[0] * cut[0] + n[1] * cut[1] + n[2] * cut[2]).toBeGreaterThan(0.6);
    }
  });

  it('is all of a slab that has broken across', () => {
    const tooth = { ...box(8, 4, 6), positions: box(8, 4, 6).positions.map((v, i) => (i % 3 === 2 ? v + 2 : v)) };
    expect(scannedBreak(tooth, missingOf(box(8, 4, 10), tooth)).mm2).toBeCloseTo(8 * 4, 6);
  });

  it('is none where nothing has broken', () => {
    expect(scannedBreak(CROWN.mesh, missingOf(CROWN.mesh, CROWN.mesh)).mm2).toBe(0);
  });

  it('is drawn straight from the side to the edge: 5 by 4 mm of a slab 4 mm deep', () => {
    const slab = box(8, 4, 10);
    for (const mesialX of [1, -1] as const) {
      const face = drawnFace(missingOf(slab, slab), { corner: 'mesial', heightMm: 3, widthMm: 4 }, mesialX);
      expect(Math.abs(face.mm2 - 20)).toBeLessThan(0.6);
      expect(Math.sign(face.mesh.positions[0] as number)).toBe(mesialX);
    }
  });
});

describe('dentin that is marked on a worn edge', () => {
  const tooth = box(6, 3, 10);
  const square = (x: number, y: number) =>
    [
      [-x, -y],
      [x, -y],
      [x, y],
      [-x, y],
    ] as const;

  it('is troughed as it is marked, and the walls are what it leaves', () => {
    const worn = wornEdge(tooth, USUAL_DIRECT, square(1.5, 0.9));
    expect(worn.marked).toBe(true);
    expect(Math.abs(worn.islandMm2 - 3 * 1.8)).toBeLessThan(0.3);
    expect(Math.abs(worn.troughMm3 - 3 * 1.8 * 1.2)).toBeLessThan(0.4);
    // 1.5 mm half depth less 0.9.
    expect(Math.abs((worn.wallMm as number) - 0.6)).toBeLessThan(0.11);
    // Its border goes round it once: as long as the square.
    const rim = troughRim(worn);
    let long = 0;
    for (let k = 0; k < rim.length; k += 2) {
      const [a, b] = [rim[k] as Vec3, rim[k + 1] as Vec3];
      long += Math.hypot(a[0] - b[0], a[1] - b[1]);
      expect(a[2]).toBeCloseTo(-5, 6);
    }
    expect(Math.abs(long - 2 * (3 + 1.8))).toBeLessThan(0.5);
  });

  it('is drawn in a section as wide and as deep as it is', () => {
    const own = { ...PLANNED, mesh: box(6, 3, 11) };
    const island = square(1.5, 0.6).map(([a, b]): Vec3 => [a, b, -5]);
    const { rows } = layersThrough(directBodies(own, tooth, USUAL_DIRECT, { kind: 'worn', island }), 0);
    const core = rows.flatMap((r) => r.layers.filter((l) => l.name === 'core').map((l) => ({ ...l, z: r.z })));
    expect(Math.abs(core.length * 0.1 - 1.2)).toBeLessThan(0.11);
    for (const c of core) {
      expect(Math.abs(c.to - c.from - 1.2)).toBeLessThan(0.11);
      expect(c.z).toBeGreaterThan(-5);
    }
  });

  it('is said where its walls are thin, where they would break, and where it lies beside the edge', () => {
    const own = { ...PLANNED, mesh: box(6, 3, 11) };
    const told = (x: number, y: number, at = 0) => {
      const island = square(x, y).map(([a, b]): Vec3 => [a + at, b, -5]);
      const bodies = directBodies(own, tooth, USUAL_DIRECT, { kind: 'worn', island });
      return directPlan(own, bodies, USUAL_DIRECT)
        .notes.map((n) => `${n.state}: ${n.says}`)
        .join('\n');
    };
    expect(told(1.5, 0.7)).not.toMatch(/wall/);
    expect(told(1.5, 0.9)).toMatch(
      /look: \{11\}: the dentin as it is marked leaves a wall of 0\.[56] mm, less than the 0\.8/,
    );
    expect(told(1.5, 1.3)).toMatch(/stop: \{11\}: walls of 0\.[12] mm break/);
    expect(told(0.5, 0.5, 6)).toMatch(/stop: .*beside the worn face/);
  });
});

describe('a dent beside the gum', () => {
  /** A rod laid across the face: its middle so far before the face, so thick. */
  const dented = async (deepMm: number, upMm: number, radiusMm = 1.2) => {
    const solid = await solids();
    const whole = solid(CROWN.mesh);
    // Where the crown ends and where its face lies at that height, in the middle.
    const m = missingOf(CROWN.mesh, CROWN.mesh);
    const { grid, wants } = m;
    const middle = Math.round(-grid.a0 / grid.step);
    const ends = Math.max(...[...wants.keys()].filter((c) => c % grid.na === middle).map((c) => columnPlace(m, c)[1]));
    const z = ends - upMm;
    const face = wants.get(columnOf(m, 0, z))?.from as number;
    const { Manifold } = await import('manifold-3d').then(async (m) => {
      const wasm = await m.default();
      wasm.setup();
      return wasm;
    });
    const rod = Manifold.cylinder(4, radiusMm, radiusMm, 96, true)
      .rotate([0, 90, 0])
      .translate([0, face - radiusMm + deepMm, z]);
    const bodyOf = new Manifold(whole.getMesh());
    return { tooth: meshOf(bodyOf.subtract(rod)), mm3: bodyOf.intersect(rod).volume() };
  };

  it('is found where it lies, as deep and as high as a rod has cut it', async () => {
    const { tooth, mm3 } = await dented(0.9, 3);
    const m = missingOf(CROWN.mesh, tooth);
    expect(Math.abs(m.missingMm3 / mm3 - 1)).toBeLessThan(0.05);
    const { defect, missing } = neckDefect(m, USUAL_DIRECT)!;
    expect(Math.abs(defect.deepMm - 0.9)).toBeLessThan(0.1);
    // The chord of a circle of 1.2 mm cut 0.9 deep, less what is shallower than counts.
    const chord = 2 * Math.sqrt(1.2 ** 2 - 0.3 ** 2);
    expect(defect.highMm).toBeLessThan(chord + 0.15);
    expect(defect.highMm).toBeGreaterThan(chord - 0.8);
    // The neck comes nearer to the edge beside the middle, so that it is no further than there.
    expect(defect.toNeckMm).toBeLessThan(3 - chord / 2 + 0.3);
    expect(defect.toNeckMm).toBeGreaterThan(3 - chord / 2 - 1);
    // Its bevel runs to the edge alone, in the enamel.
    expect(defect.bevelMm).toBe(1);
    expect(defect.cutMm3).toBeGreaterThan(0.1);
    expect(missing.missingMm3 - m.missingMm3).toBeCloseTo(defect.cutMm3, 2);
  });

  it('is filled with no shell and no lobes, and said to be near the root or the pulp', async () => {
    const work = { kind: 'neck' } as const;
    const told = (tooth: Mesh) => directPlan(PLANNED, directBodies(PLANNED, tooth, USUAL_DIRECT, work), USUAL_DIRECT);
    const high = told((await dented(0.9, 3)).tooth);
    expect(high.layers.map((l) => l.name)).toEqual(['dentin', 'enamel']);
    expect(high.layers.reduce((sum, l) => sum + l.mm3, 0)).toBeCloseTo(high.missingMm3, 6);
    const says = (p: typeof high) => p.notes.map((n) => n.says).join('\n');
    expect(says(high)).not.toMatch(/pulp|root/);
    expect(says(told((await dented(0.8, 1.3)).tooth))).toMatch(/ends at the root/);
    expect(says(told((await dented(2.3, 3, 2.4)).tooth))).toMatch(/2\.\d mm deep beside the gum the pulp is near/);
  });

  it('is none where the plan lays the same on all of the face', () => {
    const fuller = crown(11, { lengthMm: 10.5, widthMm: 8.5, facialVolumeMm: 0.6 }).mesh;
    expect(missingOf(fuller, CROWN.mesh).missingMm3).toBeGreaterThan(10);
    expect(neckDefect(missingOf(fuller, CROWN.mesh), USUAL_DIRECT)?.defect.deepMm ?? 0).toBeLessThan(0.9);
    const own = { ...PLANNED, mesh: CROWN.mesh };
    const longer = { ...PLANNED, mesh: crown(11, { lengthMm: 10.5, widthMm: 8.5, facialVolumeMm: 0.1 }).mesh };
    const told = directPlan(own, directBodies(longer, CROWN.mesh, USUAL_DIRECT, { kind: 'neck' }), USUAL_DIRECT);
    expect(told.notes.map((n) => n.says).join()).toMatch(/no dent beside the gum is found/);
  });
});

describe('a dent on a scanned tooth', () => {
  /** What a rod of 1.5 mm laid across the face takes, 2.6 mm under the highest place of the tooth; how deep it goes. */
  const dentedBy = (mesh: Mesh, mm: number): { mesh: Mesh; deepMm: number } => {
    const radius = 1.5;
    const positions = mesh.positions.slice();
    const z = positions.reduce((a, v, i) => (i % 3 === 2 ? Math.max(a, v) : a), -Infinity) - 2.6;
    const at = (v: number, k: number) => positions[3 * v + k] as number;
    const all = Array.from({ length: positions.length / 3 }, (_, v) => v);
    const face = all.reduce((a, v) => (Math.abs(at(v, 2) - z) < 0.3 ? Math.min(a, at(v, 1)) : a), Infinity);
    const middle = face - radius + mm;
    let deepMm = 0;
    for (const v of all) {
      const [dy, dz] = [at(v, 1) - middle, at(v, 2) - z];
      if (Math.hypot(dy, dz) >= radius) continue;
      const to = middle + Math.sqrt(radius ** 2 - dz ** 2);
      deepMm = Math.max(deepMm, to - at(v, 1));
      positions[3 * v + 1] = to;
    }
    return { mesh: { positions, triangles: mesh.triangles }, deepMm };
  };

  it('is found under the plan that fits the dented tooth, and none is found on a whole one', () => {
    const whole = readScan(scan(makePatient(RECIPES.Dunlin), INTRAORAL_SCANNER));
    const told = (from: typeof whole) => {
      const engine = new CaseEngine();
      engine.take(from);
      const plan = ask(engine, 'existingPlan')[11];
      engine.setPlan(plan ? { 11: plan } : {});
      return ask(engine, 'direct', 11, USUAL_DIRECT, undefined, { kind: 'neck' });
    };
    expect(told(whole).neck).toBeUndefined();
    const dented = dentedBy(whole.teeth.get(11) as Mesh, 0.8);
    const { neck } = told({ ...whole, teeth: new Map([...whole.teeth, [11, dented.mesh]]) });
    // The form that fits runs a little into the dent.
    expect((neck?.deepMm as number) / dented.deepMm).toBeGreaterThan(0.5);
    expect((neck?.deepMm as number) / dented.deepMm).toBeLessThan(1.1);
    expect(neck?.wideMm).toBeGreaterThan(2.5);
    expect(neck?.wideMm).toBeLessThan(5);
    expect(neck?.highMm).toBeLessThan(2.5);
  });
});

describe('what is shown of a tooth and its composite', () => {
  const patient = makePatient(RECIPES.Redshank);
  const engine = new CaseEngine();
  beforeAll(() => {
    engine.take(readScan(scan(patient, INTRAORAL_SCANNER)));
    engine.setPlan(ask(engine, 'existingPlan'));
  });

  it('is the tooth as it was scanned, with its break, and closed bodies in the mouth', async () => {
    const view = ask(engine, 'directView', 21, USUAL_DIRECT, { kind: 'corner' });
    const told = ask(engine, 'direct', 21, USUAL_DIRECT, undefined, { kind: 'corner' });
    expect(view.places.length).toBe(view.mesh.positions.length / 3);
    const names = new Set([...view.places].map((p) => TOOTH_PLACES[p]));
    expect(names).toContain('break');
    expect(names).toContain('bevel');
    expect(told.bevel?.breakMm2).toBeGreaterThan(5);
    const solid = await solids();
    for (const { layer, mesh } of view.bodies) {
      const mm3 = told.layers.find((l) => l.name === layer)?.mm3 as number;
      expect(Math.abs(volume(mesh) / mm3 - 1)).toBeLessThan(0.01);
      expect(solid(mesh).status()).toBe('NoError');
    }
    const bodies = view.bodies.reduce((sum, b) => sum + volume(b.mesh), 0);
    expect(Math.abs(bodies / told.missingMm3 - 1)).toBeLessThan(0.005);
    // A break that is drawn is no place of the scan, but a surface of its own.
    const drawn = ask(engine, 'directView', 21, USUAL_DIRECT, {
      kind: 'corner',
      broken: { corner: 'distal', heightMm: 3, widthMm: 3 },
    });
    expect([...drawn.places].some((p) => TOOTH_PLACES[p] === 'break')).toBe(false);
    expect(area(drawn.broken as Mesh)).toBeGreaterThan(3);
  });
});
