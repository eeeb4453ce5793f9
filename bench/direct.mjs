import { ask, CaseEngine, firstContour, readScan, USUAL_DIRECT } from '@radiant/core';
import { AVOCET, INTRAORAL_SCANNER, makePatient, scan } from '@radiant/standins';
import Manifold from 'manifold-3d';
import { figure, medianMs } from './figure.mjs';

// Four incisors made longer and wider: all layers and increments, and one of them again while a thickness moves.
const TEETH = [12, 11, 21, 22];
const engine = new CaseEngine();
engine.take(readScan(scan(makePatient(AVOCET), INTRAORAL_SCANNER)));
const arch = engine.arch('upper');
const sizes = TEETH.map((t) => {
  const own = arch.teeth.get(t);
  return [t, { lengthMm: own.lengthMm + 1, widthMm: own.widthMm + 0.3 }];
});
engine.setPlan(firstContour(arch, new Map(sizes)));
for (const tooth of TEETH) engine.crown(tooth);

let enamelMm = 0.4;
const layers = (teeth) => () => {
  enamelMm += 0.001;
  for (const tooth of teeth) ask(engine, 'direct', tooth, { ...USUAL_DIRECT, enamelMm });
};
const four = medianMs(layers(TEETH), { warm: 2, runs: 9 });
figure('composite-four', four, 'ms', 'limit:2000ms', 2000 / four);
const one = medianMs(layers([11]), { warm: 2, runs: 15 });
figure('composite-slider', one, 'ms', 'limit:50ms', 50 / one);

// The same of a break that is drawn, with its bevel, and of a worn edge with its trough.
const work = (kind, more) => () => {
  enamelMm += 0.001;
  ask(engine, 'direct', 11, { ...USUAL_DIRECT, enamelMm }, undefined, { kind, ...more });
};
const broken = { broken: { corner: 'mesial', heightMm: 4, widthMm: 4 } };
for (const [name, kind, more] of [
  ['bevel', 'corner', broken],
  ['trough', 'worn', {}],
]) {
  const ms = medianMs(work(kind, more), { warm: 2, runs: 15 });
  figure(`composite-slider-${name}`, ms, 'ms', 'limit:50ms', 50 / ms);
}

// The missing volume alone, as a difference of solids.
const wasm = await Manifold();
wasm.setup();
const solid = (m) =>
  new wasm.Manifold(
    new wasm.Mesh({ numProp: 3, vertProperties: Float32Array.from(m.positions), triVerts: m.triangles }),
  );
const [plan, tooth] = [engine.crown(11).mesh, arch.teeth.get(11).field.mesh];
const library = medianMs(() => solid(plan).subtract(solid(tooth)).volume(), { warm: 1, runs: 7 });
figure('composite-one-against-a-library', one, 'ms', 'manifold-3d', library / one);
