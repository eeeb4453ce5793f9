import { ask, buildTree, CaseEngine, firstContour, rayCaster, readScan } from '@radiant/core';
import { AVOCET, INTRAORAL_SCANNER, makePatient, scan } from '@radiant/standins';
import { BufferAttribute, BufferGeometry, Ray } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { fastestOfEach, figure, medianMs } from './figure.mjs';

// Six teeth as the interface asks for them: the crowns stand and their rays are known, a thickness has changed.
const TEETH = [13, 12, 11, 21, 22, 23];
const engine = new CaseEngine();
engine.take(readScan(scan(makePatient(AVOCET), INTRAORAL_SCANNER)));
const arch = engine.arch('upper');
const targets = TEETH.map((t) => {
  const own = arch.teeth.get(t);
  return [t, { lengthMm: own.lengthMm + 0.7, widthMm: own.widthMm }];
});
engine.setPlan(firstContour(arch, new Map(targets)));

let middle = 0.5;
const thicker = (teeth) => () => {
  middle += 0.001;
  const thickness = [{ design: 'graduated', cervical: 0.3, middle, incisal: 0.7, edgeMm: 1.5 }];
  for (const tooth of teeth) ask(engine, 'target', tooth, { design: 'graduated', thickness });
};
const six = medianMs(thicker(TEETH), { warm: 3, runs: 9 });
figure('targets-six', six, 'ms', 'limit:300ms', 300 / six);
const one = medianMs(thicker([11]), { warm: 3, runs: 9 });
figure('target-one', one, 'ms', 'limit:80ms', 80 / one);

// The whole plan: targets, zones, grooves of the case and each tooth's steps.
const plan = medianMs(
  () => {
    middle += 0.001;
    const thickness = [{ design: 'graduated', cervical: 0.3, middle, incisal: 0.7, edgeMm: 1.5 }];
    ask(engine, 'cutList', { design: 'graduated', from: 'mock-up', thickness });
  },
  { warm: 2, runs: 7 },
);
figure('cut-list-six', plan, 'ms', 'limit:300ms', 300 / plan);

// A guide over the row that faces the front, four of it planned.
engine.setPlan(firstContour(arch, new Map(targets.slice(1, 5))));
const leaves = medianMs(() => ask(engine, 'leafGuide', 'upper'), { warm: 1, runs: 3 });
figure('leaf-guide', leaves, 'ms', 'limit:5000ms', 5000 / leaves);

// Ten crowns, premolars among them; a guide over all of them.
const TEN = [15, 14, ...TEETH, 24, 25];
const ten = new CaseEngine();
ten.take(readScan(scan(makePatient(AVOCET), INTRAORAL_SCANNER)));
const sizes = TEN.map((t) => {
  const own = ten.arch('upper').teeth.get(t);
  return [t, { lengthMm: own.lengthMm + 0.7, widthMm: own.widthMm }];
});
ten.setPlan(firstContour(ten.arch('upper'), new Map(sizes)));
let cervical = 1.1;
const crowns = medianMs(
  () => {
    cervical += 0.001;
    // House thicknesses of each tooth's own design, so that nothing is remembered from before.
    const thickness = ['ceramic-crown', 'ceramic-crown-premolar'].map((design) => ({
      design,
      cervical,
      middle: 1.2,
      incisal: 1.4,
      edgeMm: 2,
    }));
    for (const tooth of TEN) ask(ten, 'target', tooth, { design: 'ceramic-crown', thickness });
  },
  { warm: 2, runs: 5 },
);
figure('crowns-ten', crowns, 'ms', 'limit:1000ms', 1000 / crowns);
const leavesOfTen = medianMs(() => ask(ten, 'leafGuide', 'upper'), { warm: 1, runs: 3 });
figure('leaf-guide-ten', leavesOfTen, 'ms', 'limit:5000ms', 5000 / leavesOfTen);

// The rays of one target, which are most of it: the same ones against a planned crown by three-mesh-bvh, tree and all.
const { mesh, frame } = engine.crown(11);
const rays = [];
for (let row = 0; row < 44; row++)
  for (let k = 0; k < 128; k++) {
    const a = (2 * Math.PI * (k + 0.5)) / 128;
    const [u, v, z] = [Math.cos(a), -Math.sin(a), 1 + row * 0.2];
    const at = (r) => [0, 1, 2].map((c) => frame.origin[c] + r * (u * frame.x[c] + v * frame.y[c]) + z * frame.z[c]);
    rays.push([at(14), [0, 1, 2].map((c) => -(u * frame.x[c] + v * frame.y[c]))]);
  }
const geometry = () => {
  const g = new BufferGeometry();
  g.setAttribute('position', new BufferAttribute(mesh.positions.slice(), 3));
  g.setIndex(new BufferAttribute(mesh.triangles.slice(), 1));
  return g;
};
const geometries = Array.from({ length: 12 }, geometry);
const [ours, theirs] = [new Float64Array(rays.length), new Float64Array(rays.length)];
const ray = new Ray();
const both = fastestOfEach(
  () => {
    const cast = rayCaster(buildTree(mesh));
    for (const [i, [from, along]] of rays.entries()) ours[i] = cast.first(from, along)?.distance ?? -1;
  },
  () => {
    const bvh = new MeshBVH(geometries.pop());
    for (const [i, [from, along]] of rays.entries()) {
      ray.origin.set(...from);
      ray.direction.set(...along);
      theirs[i] = bvh.raycastFirst(ray, 2)?.distance ?? -1;
    }
  },
  { warm: 3, runs: 9 },
);
const apart = ours.reduce((most, mm, i) => Math.max(most, Math.abs(mm - theirs[i])), 0);
if (apart > 1e-4) throw new Error(`The two libraries differ by ${apart} mm.`);
figure('target-rays-5632', both.ownMs, 'ms', `three-mesh-bvh:${both.theirMs.toFixed(1)}ms`, both.ratio);
