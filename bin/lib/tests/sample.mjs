import { createHash } from 'node:crypto';
import { existsSync, lstatSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { launchHouse } from '../house.mjs';
import { inRoot } from '../paths.mjs';
import { run } from '../process.mjs';

/** Devices of the tests lay whole files; ten seconds of rest for each of them would be waited for. */
export const restOfInbox = () => {
  process.env.RADIANT_INBOX_REST_MS ??= '700';
};

/** What makes a sample house: the server that is built, and the day, since its cases have dates. */
const madeFrom = () =>
  createHash('sha256')
    .update(readFileSync(inRoot('node_modules', '.cache', 'radiant', 'server.hash')))
    .update(new Date().toDateString())
    .digest('hex');

/**
 * A house with its sample case, made once and kept for as long as nothing that makes it has changed. The houses of the
 * lanes begin as copies of it, so that its photographs and scans are not computed for each.
 */
export async function ensureSample(data, port) {
  const folder = join(data, 'sample');
  const stamp = join(data, 'sample.hash');
  const hash = madeFrom();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === hash && isWhole(folder)) return;
  rmSync(stamp, { force: true });
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  restOfInbox();
  const house = await launchHouse({ port, data: folder });
  await house.stop();
  writeFileSync(stamp, hash);
}

/** A database that lies elsewhere, because its account can't enter this folder, would not be copied. */
const isWhole = (folder) =>
  existsSync(join(folder, 'database')) && !lstatSync(join(folder, 'database')).isSymbolicLink();

/** Copies the sample house into a lane's folder, which then begins with its case; without one the lane makes its own. */
export async function copySample(data, into) {
  const folder = join(data, 'sample');
  if (existsSync(join(data, 'sample.hash')) && isWhole(folder)) await run('cp', ['-a', `${folder}/.`, into]);
}
