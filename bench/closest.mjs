import { buildTree, closestPoints } from '@radiant/core';
import { BufferAttribute, BufferGeometry, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { archOf, pointsBeside } from './arch.mjs';
import { fastestOfEach, figure } from './figure.mjs';

const TRIANGLES = 200_000;
const QUERIES = 100_000;
/** Both must give the same distances to this, mm. */
const AGREE_MM = 1e-5;
const mesh = archOf(TRIANGLES);

// The library sorts the index it is given, so each build gets fresh copies, made outside the timing.
const geometries = [];
function geometry() {
  const g = new BufferGeometry();
  g.setAttribute('position', new BufferAttribute(mesh.positions.slice(), 3));
  g.setIndex(new BufferAttribute(mesh.triangles.slice(), 1));
  return g;
}
const BUILDS = { warm: 3, runs: 9 };
for (let i = 0; i < BUILDS.warm + BUILDS.runs; i++) geometries.push(geometry());

const build = fastestOfEach(
  () => buildTree(mesh),
  () => new MeshBVH(geometries.pop()),
  BUILDS,
);
figure('tree-build-200k', build.ownMs, 'ms', `three-mesh-bvh:${build.theirMs.toFixed(0)}ms`, build.ratio);

const tree = buildTree(mesh);
const bvh = new MeshBVH(geometry());
for (const reachMm of [0.5, 3]) {
  const points = pointsBeside(mesh, QUERIES, reachMm);
  const theirs = new Float64Array(QUERIES);
  const p = new Vector3();
  const hit = {};
  let own;
  const { ownMs, theirMs, ratio } = fastestOfEach(
    () => {
      own = closestPoints(tree, points);
    },
    () => {
      for (let i = 0; i < QUERIES; i++)
        theirs[i] = bvh.closestPointToPoint(p.set(points[3 * i], points[3 * i + 1], points[3 * i + 2]), hit).distance;
    },
  );
  const worst = theirs.reduce((w, d, i) => Math.max(w, Math.abs(d - own.distances[i])), 0);
  if (worst > AGREE_MM) throw new Error(`The two libraries differ by ${worst} mm.`);
  figure(`closest-100k-within-${reachMm}mm`, ownMs, 'ms', `three-mesh-bvh:${theirMs.toFixed(0)}ms`, ratio);
}
