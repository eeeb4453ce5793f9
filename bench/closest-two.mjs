import { once } from 'node:events';
import { Worker } from 'node:worker_threads';
import { buildTree } from '@radiant/core';
import { BufferAttribute, BufferGeometry, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { archOf, pointsBeside } from './arch.mjs';
import { figure, median } from './figure.mjs';

// The distance of one jaw from another, 100,000 places on 200,000 triangles, shared by two workers, against
// three-mesh-bvh on one thread in the same run. A native single-threaded tree was measured to stand about twelve times
// before that library.
const QUERIES = 100_000;
const mesh = archOf(200_000);
const points = pointsBeside(mesh, QUERIES, 3);
const tree = buildTree(mesh);
const half = 3 * (QUERIES / 2);
const workers = [points.slice(0, half), points.slice(half)].map(
  (own) => new Worker(new URL('./closest-half.mjs', import.meta.url), { workerData: { tree, points: own } }),
);
await Promise.all(workers.map((w) => once(w, 'message')));

const g = new BufferGeometry();
g.setAttribute('position', new BufferAttribute(mesh.positions.slice(), 3));
g.setIndex(new BufferAttribute(mesh.triangles.slice(), 1));
const bvh = new MeshBVH(g);
const p = new Vector3();
const hit = {};
const theirs = new Float64Array(QUERIES);
const [ownMs, theirMs] = [[], []];
let own = [];
for (let run = 0; run < 6; run++) {
  let t = performance.now();
  const answers = workers.map((w) => once(w, 'message'));
  for (const w of workers) w.postMessage('go');
  own = (await Promise.all(answers)).map(([d]) => d);
  ownMs.push(performance.now() - t);
  t = performance.now();
  for (let i = 0; i < QUERIES; i++)
    theirs[i] = bvh.closestPointToPoint(p.set(points[3 * i], points[3 * i + 1], points[3 * i + 2]), hit).distance;
  theirMs.push(performance.now() - t);
}
const worst = theirs.reduce(
  (w, d, i) => Math.max(w, Math.abs(d - own[Math.floor((2 * i) / QUERIES)][i % (QUERIES / 2)])),
  0,
);
if (worst > 1e-5) throw new Error(`The two libraries differ by ${worst} mm.`);
figure(
  'closest-100k-two-workers',
  median(ownMs),
  'ms',
  `three-mesh-bvh:${median(theirMs).toFixed(0)}ms`,
  median(theirMs) / median(ownMs),
);
for (const w of workers) await w.terminate();
