import { buildTree, type ClosestPoints, closestPoints, type Mesh, sphere } from '@radiant/core';
import { random } from '@radiant/standins';
import { BufferAttribute, BufferGeometry, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { searchEach } from '../src/geometry/tree/closest.js';
import { mortonOrder } from '../src/geometry/tree/morton.js';
import { type PackedSearch, pack, packedSearch } from '../src/geometry/tree/packed.js';

/** Triangles thrown about a cube, one in ten a needle or flat. */
function soup(seed: number, count: number): Mesh {
  const r = random(seed);
  const positions = new Float64Array(9 * count);
  for (let t = 0; t < count; t++) {
    const at = [0, 1, 2].map(() => 20 * r.next() - 10);
    const thin = r.next() < 0.1 ? 1e-4 : 1;
    for (let v = 0; v < 3; v++)
      for (let k = 0; k < 3; k++)
        positions[9 * t + 3 * v + k] = (at[k] as number) + r.next() * (k === v || v === 0 ? 1 : thin);
  }
  return { positions, triangles: Uint32Array.from({ length: 3 * count }, (_, i) => i) };
}

function about(seed: number, n: number, halfMm: number): Float64Array {
  const r = random(seed);
  return Float64Array.from({ length: 3 * n }, () => (2 * r.next() - 1) * halfMm);
}

const rows = (n: number): ClosestPoints => ({
  points: new Float64Array(3 * n),
  distances: new Float64Array(n),
  faces: new Uint32Array(n),
});

function packedOf(m: Mesh): PackedSearch {
  const search = pack(buildTree(m));
  if (!search) throw new Error('This engine cannot run the kernel.');
  return search;
}

describe('the packed search', () => {
  // One triangle and nine: a root that is a leaf, and leaves with an odd last triangle.
  it.each([1, 2, 9, 500, 6000])('of %i thrown triangles finds what the plain one finds', (count) => {
    const m = soup(count, count);
    const tree = buildTree(m);
    const q = about(8, 5000, 14);
    const order = mortonOrder(q);
    const [own, plain] = [rows(5000), rows(5000)];
    packedOf(m)(q, order, own);
    searchEach(tree, q, order, plain);
    for (let i = 0; i < 5000; i++) {
      expect(Math.abs((own.distances[i] as number) - (plain.distances[i] as number))).toBeLessThan(1e-9);
      const p = [0, 1, 2].map((k) => own.points[3 * i + k] as number);
      expect(Math.hypot(...p.map((v, k) => v - (q[3 * i + k] as number)))).toBeCloseTo(own.distances[i] as number, 9);
    }
  });

  it('names the triangle that holds the point', () => {
    const m = soup(3, 700);
    const q = about(9, 800, 12);
    const own = rows(800);
    packedOf(m)(q, mortonOrder(q), own);
    for (let i = 0; i < 800; i++) {
      const f = own.faces[i] as number;
      const alone: Mesh = { positions: m.positions, triangles: m.triangles.slice(3 * f, 3 * f + 3) };
      expect(closestPoints(buildTree(alone), q.slice(3 * i, 3 * i + 3)).distances[0]).toBeCloseTo(
        own.distances[i] as number,
        9,
      );
    }
  });

  it('agrees with three-mesh-bvh to 1e-5 mm, near and far', () => {
    const m = sphere(8, 70);
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(Float64Array.from(m.positions), 3));
    geometry.setIndex(new BufferAttribute(m.triangles.slice(), 1));
    const bvh = new MeshBVH(geometry);
    const q = about(10, 600, 30);
    const own = rows(600);
    packedOf(m)(q, mortonOrder(q), own);
    for (let i = 0; i < 600; i++) {
      const theirs = bvh.closestPointToPoint(new Vector3(q[3 * i], q[3 * i + 1], q[3 * i + 2]))?.distance ?? Number.NaN;
      expect(Math.abs((own.distances[i] as number) - theirs)).toBeLessThan(1e-5);
    }
  });

  it('a query that is no place takes nothing from those beside it', () => {
    const m = soup(5, 300);
    const q = about(11, 60, 12);
    q[31] = Number.NaN;
    const [own, plain] = [rows(60), rows(60)];
    packedOf(m)(q, mortonOrder(q), own);
    searchEach(buildTree(m), q, mortonOrder(q), plain);
    for (let i = 0; i < 60; i++) if (i !== 10) expect(own.distances[i]).toBeCloseTo(plain.distances[i] as number, 9);
    expect(own.distances[10]).toBeNaN();
  });
});

describe('a tree is packed', () => {
  const large = sphere(20, 110);

  it('when it is large and was asked often enough', () => {
    const tree = buildTree(large);
    const triangles = large.triangles.length / 3;
    expect(triangles).toBeGreaterThan(20_000);
    expect(packedSearch(tree, 10)).toBeUndefined();
    expect(packedSearch(tree, triangles / 10)).toBeDefined();
    expect(packedSearch(tree, 1)).toBe(packedSearch(tree, 1));
  });

  it('and answers the same before and after', () => {
    const tree = buildTree(large);
    const q = about(12, 1500, 30);
    const before = closestPoints(tree, q);
    const after = closestPoints(tree, about(13, 3000, 30)) && closestPoints(tree, q);
    expect(packedSearch(tree, 1)).toBeDefined();
    for (let i = 0; i < 1500; i++) {
      expect(after.distances[i]).toBeCloseTo(before.distances[i] as number, 12);
      // By construction a sphere of facets lies just under its radius.
      expect(Math.abs(Math.hypot(...q.slice(3 * i, 3 * i + 3)) - 20)).toBeLessThan(
        (after.distances[i] as number) + 0.02,
      );
    }
  });

  it('never when it is small', () => {
    expect(packedSearch(buildTree(sphere(5, 24)), 1e9)).toBeUndefined();
  });
});
