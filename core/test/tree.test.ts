import {
  box,
  buildTree,
  closestPoint,
  closestPoints,
  crown,
  cylinder,
  liesInside,
  type Mesh,
  Refusal,
  rayCaster,
  refitTree,
  sheetDistances,
  signedDistances,
  signedField,
  sphere,
  type Vec3,
} from '@radiant/core';
import { random } from '@radiant/standins';
import { BufferAttribute, BufferGeometry, Ray, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';

function cloud(seed: number, n: number, halfMm: number): Float64Array {
  const r = random(seed);
  return Float64Array.from({ length: 3 * n }, () => (r.next() - 0.5) * 2 * halfMm);
}

function reference(m: Mesh): { bvh: MeshBVH; geometry: BufferGeometry } {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(Float64Array.from(m.positions), 3));
  geometry.setIndex(new BufferAttribute(m.triangles.slice(), 1));
  return { bvh: new MeshBVH(geometry), geometry };
}

describe('closest point and signed distance in closed form', () => {
  it('outside a box the distance is that to the clamped point', () => {
    const half = [2, 3, 4] as const;
    const tree = buildTree(box(4, 6, 8));
    const q = cloud(1, 500, 9);
    const found = closestPoints(tree, q);
    for (let i = 0; i < 500; i++) {
      const p = [0, 1, 2].map((k) => q[3 * i + k] as number);
      const outside = p.some((v, k) => Math.abs(v) > (half[k] as number));
      const away = p.map((v, k) => Math.abs(v) - (half[k] as number));
      const exact = outside ? Math.hypot(...away.map((d) => Math.max(0, d))) : -Math.max(...away);
      expect(found.distances[i]).toBeCloseTo(exact, 10);
    }
  });

  it('is negative inside and positive outside a box, at faces, edges and corners alike', () => {
    const field = signedField(box(2, 2, 2));
    const q = Float64Array.from([0, 0, 0, 2, 0, 0, 2, 2, 0, 2, 2, 2, 0.9, 0.9, 0.9, -3, 0.2, 0.1]);
    const exact = [-1, 1, Math.SQRT2, Math.sqrt(3), -0.1, 2];
    signedDistances(field, q).forEach((d, i) => {
      expect(d).toBeCloseTo(exact[i] as number, 10);
    });
  });

  it('nears |p| − r on a fine sphere', () => {
    const field = signedField(sphere(5, 96));
    const q = cloud(2, 300, 9);
    signedDistances(field, q).forEach((d, i) => {
      expect(
        Math.abs(d - (Math.hypot(q[3 * i] as number, q[3 * i + 1] as number, q[3 * i + 2] as number) - 5)),
      ).toBeLessThan(0.004);
    });
  });

  it('nears the distance to a cylinder’s wall', () => {
    const d = closestPoint(buildTree(cylinder(3, 40, 512)), [7, 0, 1]).distance;
    expect(d).toBeCloseTo(4, 3);
  });

  it('has no answer for a mesh without triangles', () => {
    expect(() => buildTree({ positions: new Float64Array(), triangles: new Uint32Array() })).toThrow(Refusal);
  });
});

describe.each([11, 12, 13, 24])('on crown %i, against three-mesh-bvh', (tooth) => {
  const m = crown(tooth, { lengthMm: 10, widthMm: 8, facialVolumeMm: 0 }).mesh;
  const { bvh } = reference(m);

  it('closest points agree to 1e-5 mm (seed 3)', () => {
    const q = cloud(3, 400, 12);
    const own = closestPoints(buildTree(m), q);
    for (let i = 0; i < 400; i++) {
      const hit = bvh.closestPointToPoint(new Vector3(q[3 * i], q[3 * i + 1], q[3 * i + 2]));
      expect(Math.abs((own.distances[i] as number) - (hit?.distance ?? Number.NaN))).toBeLessThan(1e-5);
    }
  });

  it.each([
    ['its own tree', () => buildTree(m)],
    // The tree of the same crown twisted and thinned, its boxes fitted to this one.
    [
      'the tree of another shape, fitted',
      () => refitTree(buildTree({ ...m, positions: m.positions.map((v, i) => v * (0.7 + 0.1 * (i % 3))) }), m),
    ],
  ])('rays meet the surface at the same place (seed 4): %s', (_, treeOf) => {
    const caster = rayCaster(treeOf());
    const q = cloud(4, 300, 12);
    const aim = cloud(5, 300, 4);
    let hits = 0;
    for (let i = 0; i < 300; i++) {
      const o = new Vector3(q[3 * i], q[3 * i + 1], q[3 * i + 2]);
      const d = new Vector3(aim[3 * i], aim[3 * i + 1], (aim[3 * i + 2] as number) + 5).sub(o).normalize();
      const theirs = bvh.raycastFirst(new Ray(o, d), 2);
      const ours = caster.first([o.x, o.y, o.z], [d.x, d.y, d.z]);
      expect(ours === undefined).toBe(theirs === null);
      if (ours && theirs) {
        hits++;
        expect(Math.abs(ours.distance - theirs.distance)).toBeLessThan(1e-5);
      }
    }
    expect(hits).toBeGreaterThan(150);
  });

  it('a point is inside when a ray from it crosses the surface an odd number of times', () => {
    const field = signedField(m);
    const q = cloud(6, 200, 6).map((v, i) => (i % 3 === 2 ? v + 5 : v));
    const d = signedDistances(field, q);
    for (let i = 0; i < 200; i++) {
      const o = new Vector3(q[3 * i], q[3 * i + 1], q[3 * i + 2]);
      const crossings = bvh.raycast(new Ray(o, new Vector3(0.123, 0.456, 0.881).normalize()), 2).length;
      if (Math.abs(d[i] as number) > 1e-6) expect((d[i] as number) < 0).toBe(crossings % 2 === 1);
    }
  });
});

it('a ray along an axis grazing a box face is not lost', () => {
  const caster = rayCaster(buildTree(box(2, 2, 2)));
  expect(caster.first([-5, 0.3, 0.2], [1, 0, 0])?.distance).toBeCloseTo(4, 12);
  expect(caster.first([-5, 0, 0], [1, 0, 0], 3)).toBeUndefined();
  expect(caster.first([-5, 4, 0], [1, 0, 0])).toBeUndefined();
});

describe('whether a point lies inside', () => {
  it('agrees with the radius of a sphere, near its wall and far, and with a box at its corners', () => {
    const r = random(77);
    const cast = rayCaster(buildTree(sphere(5, 24)));
    for (let i = 0; i < 300; i++) {
      const p: Vec3 = [12 * r.next() - 6, 12 * r.next() - 6, 12 * r.next() - 6];
      const d = Math.hypot(...p);
      if (Math.abs(d - 5) < 0.1) continue;
      expect(liesInside(cast, p)).toBe(d < 5);
    }
    const inBox = rayCaster(buildTree(box(4, 4, 4)));
    for (const k of [1.95, 2.05]) for (const s of [1, -1]) expect(liesInside(inBox, [k * s, k, -k * s])).toBe(k < 2);
  });

  it('a signed distance never claims a point deeper inside than the box around the surface is', () => {
    const field = signedField(box(2, 2, 2));
    const d = signedDistances(field, Float64Array.from([0, 0, 0, 0.9, 0, 0, 1.5, 0, 0, 3, 3, 3]));
    expect([...d].map((v) => Math.sign(v))).toEqual([-1, -1, 1, 1]);
  });

  it('in front of and behind an open sheet by its normals', () => {
    const sheet = signedField({
      positions: Float64Array.from([-9, -9, 0, 9, -9, 0, 9, 9, 0, -9, 9, 0]),
      triangles: Uint32Array.from([0, 1, 2, 0, 2, 3]),
    });
    expect([...sheetDistances(sheet, Float64Array.from([0, 0, 2, 1, 1, -3]))]).toEqual([2, -3]);
  });
});
