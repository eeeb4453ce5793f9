/**
 * Composite layer by layer: volumes against manifold-3d and boxes whose answers are known, thicknesses against rays of
 * three-mesh-bvh, depth of cure everywhere.
 */
import {
  bodyOf,
  box,
  compositeLayers,
  crown,
  DIRECT_LIMITS,
  incrementsOf,
  type Mesh,
  missingOf,
  type PlannedTooth,
  USUAL_DIRECT,
  volume,
  WORLD,
} from '@radiant/core';
import Manifold from 'manifold-3d';
import * as THREE from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { directBodies, directPlan, layersThrough, placing } from '../src/direct/plan.js';
import { shifted, solids } from './direct-bodies.js';

/** Without lobes and side walls: slabs whose answers are known. */
const S = { ...USUAL_DIRECT, lobeMm: 0, sideMm: 0 };

/** An incisor whose edge is broken off by a slant, and its plan: cut by manifold-3d, so that no form of ours says where. */
async function broken(): Promise<{ planned: Mesh; tooth: Mesh }> {
  const wasm = await Manifold();
  wasm.setup();
  const planned = crown(11, { lengthMm: 10.5, widthMm: 8.5, facialVolumeMm: 0 }).mesh;
  const whole = new wasm.Manifold(
    new wasm.Mesh({ numProp: 3, vertProperties: Float32Array.from(planned.positions), triVerts: planned.triangles }),
  );
  const half = Math.SQRT1_2;
  // Everything beyond a plane goes: a corner, about 3 mm from the edge.
  const left = whole.trimByPlane([half, 0, half], 3.2).getMesh();
  const positions = Float64Array.from({ length: left.numVert * 3 }, (_, i) => {
    const v = Math.floor(i / 3);
    return left.vertProperties[v * left.numProp + (i % 3)] as number;
  });
  return { planned, tooth: { positions, triangles: Uint32Array.from(left.triVerts) } };
}
const asPlanned = (mesh: Mesh): PlannedTooth =>
  ({
    tooth: 11,
    mesh,
    frame: WORLD,
    crown: crown(11, { lengthMm: 10.5, widthMm: 8.5, facialVolumeMm: 0 }),
  }) as PlannedTooth;

const treeOf = (m: Mesh): MeshBVH =>
  new MeshBVH(
    new THREE.BufferGeometry()
      .setAttribute('position', new THREE.BufferAttribute(Float32Array.from(m.positions), 3))
      .setIndex(new THREE.BufferAttribute(m.triangles.slice(), 1)),
  );

describe('what is missing', () => {
  it('of a box on a box is the step, in front, behind and over it', () => {
    // Wanted 8 × 4 × 10, there 8 × 2 × 7 in its middle and at its root.
    const m = missingOf(box(8, 4, 10), shifted(box(8, 2, 7), 0, 0, 1.5));
    expect(Math.abs(m.missingMm3 - (8 * 4 * 10 - 8 * 2 * 7))).toBeLessThan(0.02 * 208);
    expect(m.proudMm3).toBeLessThan(2);
    const front = m.columns.filter((c) => c.front);
    expect(Math.abs((front[0]?.front?.to as number) - (front[0]?.front?.from as number) - 1)).toBeLessThan(1e-6);
  });

  it('is what manifold-3d calls the plan less the tooth, within half a per cent, and its layers are all of it', async () => {
    const solid = await solids();
    const { planned, tooth } = await broken();
    const want = solid(planned).subtract(solid(tooth)).volume();
    const m = missingOf(planned, tooth, 0.05);
    expect(Math.abs(m.missingMm3 - want) / want).toBeLessThan(0.005);
    const layers = compositeLayers(m, S);
    expect(layers.reduce((sum, l) => sum + l.mm3, 0)).toBeCloseTo(m.missingMm3, 6);
    expect(m.proudMm3).toBeLessThan(0.5);
  });

  it('tells what of the tooth stands out of the plan', () => {
    const m = missingOf(box(8, 4, 8), shifted(box(8, 4, 8), 0, -0.5, 0));
    // But for the last 0.6 mm at its neck, where a plan is closed.
    expect(Math.abs(m.proudMm3 - 0.5 * 8 * 7.4)).toBeLessThan(1);
    expect(m.proudMm).toBeCloseTo(0.5, 3);
    expect(Math.abs(m.missingMm3 - 0.5 * 64)).toBeLessThan(2);
  });
});

describe('layers', () => {
  it('of a slab are the shell behind, the enamel in front, and dentin between', () => {
    const layers = compositeLayers(missingOf(box(8, 3, 4), shifted(box(8, 3, 4), 0, 0, 20)), S);
    expect(layers.map((l) => l.name)).toEqual(['shell', 'dentin', 'enamel']);
    expect(layers.map((l) => Math.round(l.usualMm * 1000) / 1000)).toEqual([0.3, 2.2, 0.5]);
  });

  it('a side that is built gets a wall against the matrix, as thick as is set', () => {
    // 8 wide where the tooth is 6: 1 mm to each side, 0.4 of it wall.
    const m = missingOf(box(8, 3, 10), box(6, 3, 10));
    const wall = compositeLayers(m, { ...S, sideMm: 0.4 }).find((l) => l.name === 'wall')!;
    expect(Math.abs(wall.mm3 - 2 * 0.4 * 3 * 10)).toBeLessThan(0.08 * 24);
    const xs = [...wall.stretches.keys()].map((c) => Math.abs(m.grid.a0 + (c % m.grid.na) * m.grid.step));
    for (const x of xs) expect(x).toBeGreaterThan(3.5);
    expect(compositeLayers(m, S).some((l) => l.name === 'wall')).toBe(false);
    // All of what is missing, nothing twice.
    const sum = (mm: number) => compositeLayers(m, { ...S, sideMm: mm }).reduce((a, l) => a + l.mm3, 0);
    expect(sum(0.4)).toBeCloseTo(sum(0), 6);
  });

  it('each is one closed body by manifold-3d’s judgement, of about its own volume', async () => {
    const solid = await solids();
    const { planned, tooth } = await broken();
    const m = missingOf(planned, tooth, 0.05);
    for (const l of compositeLayers(m, S)) {
      const body = bodyOf(l, m);
      expect(volume(body)).toBeGreaterThan(0);
      const own = solid(body);
      expect(own.status()).toBe('NoError');
      expect(Math.abs(own.volume() - l.mm3) / l.mm3).toBeLessThan(0.12);
    }
  });

  it.each([
    ['enamel', 'the planned face to the dentin', 'dentin', -1, 0.5],
    ['the shell', 'the planned back to the dentin before it', 'dentin', 1, 0.3],
  ] as const)('%s is as thick as is set, measured back with rays from %s', async (_, _1, under, way, want) => {
    const { planned, tooth } = await broken();
    const m = missingOf(planned, tooth, 0.05);
    const bvh = treeOf(bodyOf(compositeLayers(m, S).find((l) => l.name === under)!, m));
    const face = new THREE.BufferGeometry()
      .setAttribute('position', new THREE.BufferAttribute(Float32Array.from(planned.positions), 3))
      .setIndex(new THREE.BufferAttribute(planned.triangles.slice(), 1));
    face.computeVertexNormals();
    const [p, n] = [face.getAttribute('position'), face.getAttribute('normal')];
    const thick: number[] = [];
    for (let v = 0; v < p.count; v++) {
      const normal = new THREE.Vector3().fromBufferAttribute(n, v);
      // Well on the face, where a face is a face.
      if (way * normal.y < 0.85) continue;
      const origin = new THREE.Vector3().fromBufferAttribute(p, v);
      const hit = bvh.raycastFirst(new THREE.Ray(origin, normal.negate()), THREE.DoubleSide);
      if (hit && hit.distance < 1) thick.push(hit.distance);
    }
    thick.sort((a, b) => a - b);
    expect(thick.length).toBeGreaterThan(20);
    for (const at of [0.1, 0.5, 0.9])
      expect(Math.abs((thick[Math.floor(at * thick.length)] as number) - want)).toBeLessThan(0.06);
  });

  it('between the lobes enamel goes deeper, and only near the edge', () => {
    const m = missingOf(box(8, 3, 10), shifted(box(8, 3, 10), 0, 0, 30));
    const enamel = compositeLayers(m, USUAL_DIRECT).find((l) => l.name === 'enamel')!;
    expect(enamel.thickestMm).toBeGreaterThan(0.65);
    expect(enamel.thickestMm).toBeLessThan(0.71);
    expect(enamel.usualMm).toBeCloseTo(0.5, 3);
  });
});

describe('increments', () => {
  it('none is thicker anywhere than the lamp cures, and together they are the layers', async () => {
    const { planned, tooth } = await broken();
    for (const cureMm of [0.5, 1, 2]) {
      const layers = compositeLayers(missingOf(planned, tooth), S);
      const all = incrementsOf(layers, cureMm);
      for (const i of all) expect(i.thickestMm).toBeLessThanOrEqual(cureMm + 1e-9);
      expect(all.reduce((s, i) => s + i.mm3, 0)).toBeCloseTo(
        layers.reduce((s, l) => s + l.mm3, 0),
        6,
      );
      // From the palate forward.
      expect(all[0]?.layer).toBe('shell');
      expect(all.at(-1)?.layer).toBe('enamel');
    }
  });

  it('none is deeper than the lamp cures by rays through the bodies themselves, from the face to the palate', async () => {
    const { planned, tooth } = await broken();
    const m = missingOf(planned, tooth);
    const layers = compositeLayers(m, S);
    for (const cureMm of [0.6, 1, 2]) {
      const all = incrementsOf(layers, cureMm);
      for (const l of layers) {
        const parts = all.find((i) => i.layer === l.name)!.of;
        const body = bodyOf(l, m);
        const bvh = treeOf(body);
        let deepest = 0;
        for (let v = 0; v < body.positions.length; v += 6) {
          const [x, z] = [body.positions[v]! + 0.01, body.positions[v + 2]! + 0.01];
          const hits = bvh
            .raycast(new THREE.Ray(new THREE.Vector3(x, -50, z), new THREE.Vector3(0, 1, 0)), THREE.DoubleSide)
            .map((h) => h.distance)
            .sort((a, b) => a - b);
          if (hits.length > 1) deepest = Math.max(deepest, hits.at(-1)! - hits[0]!);
        }
        expect(deepest).toBeGreaterThan(0);
        expect(deepest / parts).toBeLessThanOrEqual(cureMm + 1e-6);
      }
    }
  });

  it('two millimetres are usual, and the lamp’s light is told', async () => {
    expect(DIRECT_LIMITS.cureMm.usual).toBe(2);
    const { planned, tooth } = await broken();
    const plan = directPlan(asPlanned(planned), directBodies(asPlanned(planned), tooth, S), S);
    expect(plan.energy).toBe(20);
    expect(plan.portions).toEqual({ enamel: 1, body: 1 });
    expect(placing(plan)[0]).toMatch(/^\{11\} palatal shell: \d/);
  });
});

describe('of a tooth', () => {
  it('says how much longer and wider it becomes', () => {
    const plan = asPlanned(box(9, 3, 12));
    const bodies = directBodies(plan, shifted(box(8, 3, 10), 0.5, 0, 1), S);
    const told = directPlan(plan, bodies, S);
    expect(told.longerMm).toBeCloseTo(2, 0);
    expect(told.wider.left + told.wider.right).toBeCloseTo(1, 0);
  });

  it('draws sections through all layers that leave no gap', async () => {
    const { planned, tooth } = await broken();
    const bodies = directBodies(asPlanned(planned), tooth, S);
    const { rows } = layersThrough(bodies, 2);
    expect(rows.length).toBeGreaterThan(10);
    for (const r of rows) {
      if (!r.planned) continue;
      const lengths = r.layers.reduce((s, l) => s + l.to - l.from, 0);
      const has = r.tooth
        ? Math.max(0, Math.min(r.tooth.to, r.planned.to) - Math.max(r.tooth.from, r.planned.from))
        : 0;
      expect(Math.abs(lengths + has - (r.planned.to - r.planned.from))).toBeLessThan(0.07);
    }
  });

  it.each<[string, Mesh, Mesh, Partial<typeof S>, number | undefined, RegExp]>([
    [
      'that stands out of its plan',
      box(8, 4, 8),
      shifted(box(8, 4, 7), 0, -0.5, 0.5),
      {},
      undefined,
      /stand out of the plan/,
    ],
    [
      'whose shell leaves no body',
      box(8, 0.25, 4),
      shifted(box(8, 1, 4), 0, 0, 20),
      {},
      undefined,
      /no dentin is left/,
    ],
    ['that becomes far wider', box(12, 4, 8), shifted(box(8, 4, 8), 0, 0, 0.5), {}, undefined, /braces/],
    ['lit too briefly', box(8, 4, 8), shifted(box(8, 4, 7), 0, 0, 0.5), { seconds: 5 }, undefined, /light it longer/],
    ['of a child', box(8, 4, 8), shifted(box(8, 4, 7), 0, 0, 0.5), {}, 12, /pulp is wide/],
  ])('%s: a sentence', (_, want, there, over, age, sentence) => {
    const s = { ...S, ...over };
    const own = asPlanned(want);
    expect(
      directPlan(own, directBodies(own, there, s), s, age)
        .notes.map((n) => n.says)
        .join(' '),
    ).toMatch(sentence);
  });

  it('to which nothing is added is refused', () => {
    const own = asPlanned(box(8, 4, 8));
    expect(() => directBodies(own, box(8.4, 4.4, 8.4), S)).toThrow('The plan adds nothing to {11}');
  });
});

it('a slanting face is thicker along the column than the layer, and is told so', () => {
  // A slab that leans by 45 degrees.
  const slab = box(6, 3, 6);
  const lean: Mesh = {
    positions: Float64Array.from(slab.positions, (v, i) => (i % 3 === 1 ? v + (slab.positions[i + 1] as number) : v)),
    triangles: slab.triangles,
  };
  const enamel = compositeLayers(missingOf(lean, shifted(lean, 0, 0, 30)), S).find((l) => l.name === 'enamel')!;
  expect(enamel.usualMm).toBeCloseTo(0.5 * Math.SQRT2, 2);
});
