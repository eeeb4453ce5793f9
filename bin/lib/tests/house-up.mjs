import { mkdirSync, rmSync } from 'node:fs';
import { dirname } from 'node:path';
import { launchHouse } from '../house.mjs';
import { inRoot } from '../paths.mjs';
import { copySample, restOfInbox } from './sample.mjs';

/** Starts the house that one lane's tests share: a database and a server of its own, from what is built now. */
export default async function up() {
  const data = process.env.RADIANT_TEST_DATA ?? inRoot('.data', 'test', 'house');
  const port = Number(process.env.RADIANT_TEST_PORT ?? 8580);
  rmSync(data, { recursive: true, force: true });
  mkdirSync(data, { recursive: true });
  await copySample(dirname(data), data);
  restOfInbox();
  globalThis.radiantHouse = await launchHouse({ port, data });
  process.env.RADIANT_TEST_DATA = data;
  process.env.RADIANT_TEST_PORT = String(port);
}
