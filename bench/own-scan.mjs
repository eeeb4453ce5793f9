import {
  groundOf,
  inMouthOf,
  inverse,
  laidByShape,
  layOnto,
  mouthFrame,
  pickTeeth,
  placeMesh,
  readMesh,
  repaired,
  writeStlBinary,
} from '@radiant/core';
import { AVOCET, makePatient, WHOLE_SCANNER, wholeJaw } from '@radiant/standins';
import { figure } from './figure.mjs';

// A whole jaw of about a million triangles from the bytes of its file to picked teeth, one thread, as the worker in the
// browser does it; then the same jaw laid on another of it. The reference of each is the limit in seconds: above 1 is
// better.
const took = (work) => {
  const t = performance.now();
  const out = work();
  return [out, performance.now() - t];
};
const say = (name, ms, limitMs) => figure(name, ms, 'ms', `limit:${limitMs}ms`, limitMs / ms);

const fine = { ...WHOLE_SCANNER, stepMm: Number(process.env.STEP ?? 0.096) };
const patient = makePatient(AVOCET);
const source = wholeJaw(patient, 'upper', fine).mesh;
const bytes = writeStlBinary(source);
console.log(`${(source.triangles.length / 3).toLocaleString('en-GB')} triangles`);

const [read, readMs] = took(() => readMesh(bytes));
const [mended, mendMs] = took(() => repaired(read.mesh).mesh);
// The frame that shows it; looking at its folds and rooms, by which the frame is refined, counts to the picking.
const [found, frameMs] = took(() => mouthFrame(mended, 'upper'));
say('own-scan-open-1m', readMs + mendMs + frameMs, 3000);
const [{ look }, lookMs] = took(() => laidByShape(mended, 'upper', found));
const inMouth = inMouthOf(look);
const [, pickMs] = took(() => pickTeeth(look, look.teeth));
say('own-scan-ten-teeth-1m', lookMs + pickMs, 4000);

const elsewhere = placeMesh(mended, { origin: [12, -7, 30], x: [0, 1, 0], y: [-1, 0, 0], z: [0, 0, 1] });
const [, layMs] = took(() => layOnto(elsewhere, groundOf(inMouth), inverse(mouthFrame(elsewhere, 'upper').frame)));
say('own-scan-lay-1m', layMs, 4000);
console.log(
  `reading ${readMs.toFixed(0)}, mending ${mendMs.toFixed(0)}, frame ${frameMs.toFixed(0)}, folds and row ${lookMs.toFixed(0)}, spreading ${pickMs.toFixed(0)} ms`,
);
