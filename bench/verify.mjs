import { ask, bestWay, CaseEngine, readScan, spread, undercutMm2 } from '@radiant/core';
import { AVOCET, cutRow, INTRAORAL_SCANNER, makePatient, scan } from '@radiant/standins';
import { figure, medianMs } from './figure.mjs';

// Six prepared veneers of the first sample patient, each cut under a plan that keeps the teeth's own shape.
const patient = makePatient(AVOCET);
const engine = new CaseEngine();
engine.take(readScan(scan(patient, INTRAORAL_SCANNER)));
engine.take(readScan(scan(patient, INTRAORAL_SCANNER, 'stl', 'lower')));
const whole = ask(engine, 'existingPlan');
const six = [13, 12, 11, 21, 22, 23];
const plan = Object.fromEntries(six.map((t) => [t, whole[t]]));
engine.setPlan(plan);
const choice = { design: 'graduated', from: 'mock-up' };
const teeth = cutRow(patient, { plan, choice });
const rest = engine.scan('upper').rest;
for (const t of six) ask(engine, 'target', t, choice);

// A scan that comes is measured from the beginning each time.
const verdict = medianMs(
  () => {
    engine.takeLater({ jaw: 'upper', teeth, rest });
    if (ask(engine, 'prepVerdict', 'upper', choice).teeth.length !== 6) throw new Error('Six teeth are judged.');
  },
  { warm: 1, runs: 3 },
);
figure('verdict-six', verdict, 'ms', 'limit:5000ms', 5000 / verdict);

const way = medianMs(() => ask(engine, 'commonWay', six, choice), { warm: 1, runs: 5 });
figure('common-way-six', way, 'ms', 'limit:600ms', 600 / way);

// The search against trying 10,000 directions one by one, on as many normals as ten teeth have.
const normals = Float64Array.from(
  spread(40_000)
    .filter((n) => n[2] > -0.1)
    .flat(),
);
const facing = { normals, areaMm2: new Float64Array(normals.length / 3).fill(0.02) };
const found = medianMs(() => bestWay(facing, [0, 0, 1]), { warm: 1, runs: 5 });
const all = spread(10_000);
const brute = medianMs(() => all.reduce((least, w) => Math.min(least, undercutMm2(facing, w)), Infinity), {
  warm: 1,
  runs: 3,
});
figure('best-way', found, 'ms', 'brute-force-10000', brute / found);
