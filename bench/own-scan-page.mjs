import { rm, writeFile } from 'node:fs/promises';
import { writeStlBinary } from '@radiant/core';
import { AVOCET, makePatient, WHOLE_SCANNER, wholeJaw } from '@radiant/standins';
import { launchHouse } from '../bin/lib/house.mjs';
import { launchBrowser, signedInPage } from './browser.mjs';
import { figure } from './figure.mjs';

// A whole jaw of about a million triangles in the real interface: from the file chosen to the jaw drawn (as it is read,
// coarse, while it is mended and on its way to the record), from there to its ten teeth with the whole of it drawn, and
// the longest that the page stood still, drawing in software left in.
await rm('.data/bench-own-scan', { recursive: true, force: true });
const house = await launchHouse({ port: 8700, data: '.data/bench-own-scan' });
const browser = await launchBrowser();
try {
  const mesh = wholeJaw(makePatient(AVOCET), 'upper', {
    ...WHOLE_SCANNER,
    stepMm: Number(process.env.STEP ?? 0.096),
  }).mesh;
  const file = '.data/bench-own-scan/jaw.stl';
  await writeFile(file, writeStlBinary(mesh));
  console.log(`${(mesh.triangles.length / 3).toLocaleString('en-GB')} triangles`);
  const page = await signedInPage(browser, house.url);
  const { id } = (await (await page.request.get(`${house.url}/api/cases`)).json()).cases.find(
    (c) => c.name === 'Avocet',
  );
  // A house's server has looked at such a file before: its thread for that is up.
  const before = writeStlBinary({ positions: mesh.positions.map((v) => v + 1), triangles: mesh.triangles });
  const put = await page.request.post(`${house.url}/api/cases/${id}/files?kind=scan`, {
    multipart: { file: { name: 'before.stl', mimeType: 'model/stl', buffer: Buffer.from(before) } },
  });
  if (!put.ok()) throw new Error(`The scan before was not taken: ${put.status()}.`);
  await page.goto(`${house.url}/cases/${id}/shape`);
  await page.getByRole('button', { name: 'put another scan in' }).waitFor();
  await page.waitForTimeout(4000);
  // How long the page's own thread was held at most, drawing included.
  await page.evaluate(() => {
    window.longest = 0;
    let last = performance.now();
    setInterval(() => {
      const now = performance.now();
      window.longest = Math.max(window.longest, now - last - 50);
      last = now;
    }, 50);
  });
  const begun = performance.now();
  await page.getByLabel('Scan file').first().setInputFiles(file);
  await page.getByLabel('The scan in three dimensions').locator('canvas').waitFor();
  // It is drawn when the page has come to the frame after the next.
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  const shown = performance.now() - begun;
  figure('own-scan-chosen-to-shown-1m', shown, 'ms', 'limit:3000ms', 3000 / shown);
  await page.getByRole('combobox', { name: 'Number of 21' }).waitFor();
  // Three seconds to be seen and four more to its teeth; what is seen sooner is not owed to the teeth.
  const picked = performance.now() - begun;
  figure('own-scan-chosen-to-ten-teeth-1m', picked, 'ms', 'limit:7000ms', 7000 / picked);
  const still = await page.evaluate(() => window.longest);
  console.log(`the page stood still for ${still.toFixed(0)} ms at most, drawing in software included`);
} finally {
  await browser.close();
  await house.stop();
}
