import { randomUUID } from 'node:crypto';
import { mkdir, rename, utimes, writeFile } from 'node:fs/promises';
import { setPriority } from 'node:os';
import { join } from 'node:path';
import { type Jaw, placeMesh, rowsOfReadings, sub, WORLD, writePly, writeStlBinary } from '@radiant/core';
import {
  handHeld,
  INTRAORAL_SCANNER,
  inState,
  makePatient,
  type Patient,
  type PatientTooth,
  photograph,
  prepared,
  RECIPES,
  scan,
  scanOfCut,
  scanOfWorn,
  shadeReadings,
  type ViewName,
  WHOLE_SCANNER,
  wholeJaw,
} from '@radiant/standins';
import Papa from 'papaparse';
import sharp from 'sharp';
import { type Delivery, deviceOf, fileOf } from './deliveries.js';

// A process of its own: the simulated camera, scanner and shade meter. It is told the watched folder and what to deliver, makes one
// file after the other at low priority, and lays each into the folder of its device as a real one would.

const [inboxDir, list] = process.argv.slice(2);
const DAY_MS = 24 * 3600 * 1000;

/** A sitting's scanner has its own place for the mouth; a laboratory's another. */
const SITTINGS = {
  before: { origin: [31, -48, 12], x: [0, 0.8, 0.6], y: [1, 0, 0], z: [0, 0.6, -0.8] },
  'mock-up': { origin: [-12, 20, 64], x: [0.6, 0, 0.8], y: [0, 1, 0], z: [-0.8, 0, 0.6] },
  prepared: { origin: [8, -33, 21], x: [0, -1, 0], y: [0.8, 0, 0.6], z: [-0.6, 0, 0.8] },
  laboratory: { origin: [4, 7, -15], x: [-1, 0, 0], y: [0, -1, 0], z: [0, 0, 1] },
} as const;

/**
 * A whole jaw. Prepared teeth are cut from those that are there; a mock-up and a wax-up lie over the teeth that are
 * there; on a model nothing is wet and everything is seen.
 */
function whole(d: Delivery): Uint8Array {
  const recipe = RECIPES[d.patient];
  const before = makePatient(recipe);
  const patient =
    d.state === 'prepared' ? { ...before, teeth: prepared(before, makePatient(inState(recipe, 'final'))) } : before;
  const jaw = d.what === 'scan-whole-lower' ? 'lower' : 'upper';
  const over = d.state === 'before' || d.state === 'prepared' ? [] : restored(before, d, jaw);
  const model = d.what === 'scan-wax-up';
  const { mesh } = wholeJaw(
    patient,
    jaw,
    {
      ...WHOLE_SCANNER,
      stepMm: 0.28,
      seed: recipe.seed + (d.state === 'before' ? 0 : 1),
      placed: SITTINGS[model ? 'laboratory' : d.state === 'before' || d.state === 'prepared' ? d.state : 'mock-up'],
      ...(model && { noiseMm: 0.01, drops: 0, holes: 0 }),
    },
    over,
  );
  return jaw === 'lower' ? writePly(mesh, undefined, NOTE) : writeStlBinary(mesh, undefined, NOTE);
}

/** The front crowns of a later state, where they stand on the jaw that was there before. */
function restored(before: Patient, d: Delivery, jaw: Jaw): PatientTooth[] {
  const after = makePatient(inState(RECIPES[d.patient], d.state));
  if (jaw === 'upper') return after.teeth.filter(isFront);
  // Other edges close the bite elsewhere: the lower jaw is brought back to where it lay, by a tooth that is left alone.
  const at = (p: Patient) => (p.lower.find((t) => t.tooth === 34) as PatientTooth).frame.origin;
  const by = sub(at(before), at(after));
  return after.lower.filter(isFront).map((t) => ({ ...t, mesh: placeMesh(t.mesh, { ...WORLD, origin: by }) }));
}
const isFront = ({ tooth }: PatientTooth) => tooth % 10 <= 3;

/** What the shade meter has read; of the stumps one had dried before it was its turn. */
function table(d: Delivery, of: 'tooth' | 'stump'): Uint8Array {
  const at = new Date(Date.now() - d.daysAgo * DAY_MS).toISOString();
  const rows = rowsOfReadings(shadeReadings(d.patient, of, at, of === 'stump' ? [22] : []));
  return Buffer.from(`\ufeff${Papa.unparse(rows)}\r\n`);
}

const NOTE = 'simulated scanner, whole jaw, mm, nothing told apart';

async function made(d: Delivery): Promise<Uint8Array> {
  if (d.what.startsWith('scan-whole') || d.what === 'scan-wax-up') return whole(d);
  if (d.what === 'shade-tooth' || d.what === 'shade-stump')
    return table(d, d.what === 'shade-tooth' ? 'tooth' : 'stump');
  // Another sitting's scan has its own roughness.
  if (d.order) return scanOfCut(makePatient(RECIPES[d.patient]), d.order, { ...INTRAORAL_SCANNER, seed: 93 });
  if (d.worn) return scanOfWorn(makePatient(RECIPES[d.patient]), d.worn, { ...INTRAORAL_SCANNER, seed: 94 });
  const patient = makePatient(inState(RECIPES[d.patient], d.state));
  if (d.what === 'scan-stl') return scan(patient, INTRAORAL_SCANNER);
  if (d.what === 'scan-lower') return scan(patient, INTRAORAL_SCANNER, 'stl', 'lower');
  if (d.what === 'scan-ply') return scan(patient, INTRAORAL_SCANNER, 'ply');
  const { camera, expression } = handHeld(RECIPES[d.patient], d.what as ViewName);
  const p = photograph(patient, camera, expression);
  return sharp(Buffer.from(p.rgba.buffer), { raw: { width: p.width, height: p.height, channels: 4 } })
    .removeAlpha()
    .jpeg({ quality: 90 })
    .toBuffer();
}

async function deliver(d: Delivery): Promise<void> {
  const folder = join(inboxDir as string, deviceOf(d));
  await mkdir(folder, { recursive: true });
  const draft = join(folder, `.${randomUUID()}`);
  await writeFile(draft, await made(d));
  const taken = new Date(Date.now() - d.daysAgo * DAY_MS);
  await utimes(draft, taken, taken);
  await rename(draft, join(folder, fileOf(d)));
}

// Left alone by the server that started it, it ends too.
process.on('disconnect', () => process.exit(0));
process.on('SIGINT', () => undefined);
const deliveries = JSON.parse(list as string) as Delivery[];
for (const [i, d] of deliveries.entries()) {
  // The first files are waited for; the rest must not be in anybody's way.
  if (i === 2) setPriority(19);
  await deliver(d);
}
process.exit(0);
