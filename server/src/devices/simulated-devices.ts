import { randomUUID } from 'node:crypto';
import { mkdir, rename, utimes, writeFile } from 'node:fs/promises';
import { setPriority } from 'node:os';
import { join } from 'node:path';
import { handHeld, INTRAORAL_SCANNER, inState, makePatient, photograph, RECIPES, scan, type ViewName } from '@radiant/standins';
import sharp from 'sharp';
import { type Delivery, deviceOf, fileOf } from './deliveries.js';

// A process of its own: the simulated camera and scanner. It is told the watched folder and what to deliver, makes one file after
// the other at low priority, and lays each into the folder of its device as a real one would.

const [inboxDir, list] = process.argv.slice(2);
const DAY_MS = 24 * 3600 * 1000;

async function made(d: Delivery): Promise<Uint8Array> {
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
