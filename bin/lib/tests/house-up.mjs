import { mkdirSync, rmSync } from 'node:fs';
import { launchHouse } from '../house.mjs';
import { inRoot } from '../paths.mjs';

/** Starts the house that one lane's tests share: a database and a server of its own, from what is built now. */
export default async function up() {
  const data = process.env.RADIANT_TEST_DATA ?? inRoot('.data', 'test');
  const port = Number(process.env.RADIANT_TEST_PORT ?? 8580);
  rmSync(data, { recursive: true, force: true });
  mkdirSync(data, { recursive: true });
  // Devices of the tests lay whole files; ten seconds of rest for each of them would be waited for.
  process.env.RADIANT_INBOX_REST_MS ??= '700';
  globalThis.radiantHouse = await launchHouse({ port, data });
  process.env.RADIANT_TEST_DATA = data;
  process.env.RADIANT_TEST_PORT = String(port);
}
