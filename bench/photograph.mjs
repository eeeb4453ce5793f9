import { rm } from 'node:fs/promises';
import sharp from 'sharp';
import { launchHouse } from '../bin/lib/house.mjs';
import { launchBrowser, signedInPage } from './browser.mjs';
import { figure, median } from './figure.mjs';

const MOVES = 40;
const [WIDTH, HEIGHT] = [6000, 4000];
await rm('.data/bench-photo', { recursive: true, force: true });
const house = await launchHouse({ port: 8690, data: '.data/bench-photo' });
const browser = await launchBrowser();
try {
  const page = await signedInPage(browser, house.url);
  // The demo photograph and everything that is marked on it, enlarged to 24 megapixels.
  const { request } = page;
  const json = async (path) => (await request.get(`${house.url}/api${path}`)).json();
  const { id } = (await json('/cases')).cases.find((c) => c.name === 'Avocet');
  const kase = await json(`/cases/${id}`);
  const { data, version } = kase.sections.read;
  const own = data.views.find((v) => v.view === 'retracted-front');
  const photo = kase.files.find((f) => f.id === own.photoId);
  const small = await (await request.get(`${house.url}/api/cases/${id}/files/${photo.id}`)).body();
  const big = await sharp(small).resize(WIDTH, HEIGHT).jpeg({ quality: 92 }).toBuffer();
  const made = await (
    await request.post(`${house.url}/api/cases/${id}/files?kind=photo&view=retracted-front`, {
      multipart: { file: { name: 'large.jpg', mimeType: 'image/jpeg', buffer: big } },
    })
  ).json();
  const k = WIDTH / photo.width;
  const grown = (p) => ({ ...p, x: p.x * k, y: p.y * k });
  const front = {
    ...own,
    photoId: made.id,
    calibration: { ...own.calibration, from: grown(own.calibration.from), to: grown(own.calibration.to) },
    landmarks: own.landmarks.map(grown),
    points: own.points.map(grown),
  };
  const next = { ...data, views: [front] };
  const put = await request.patch(`${house.url}/api/cases/${id}/sections/read`, { data: { version, data: next } });
  if (!put.ok()) throw new Error(await put.text());

  await page.goto(`${house.url}/cases/${id}/read`);
  await page.getByText('24 of 24 points').waitFor();
  await page.waitForTimeout(2500);

  // From the click on the stage to the frame after the picture is decoded; the first opening has filled the caches.
  const openings = [];
  for (let i = 0; i < 5; i++) {
    await page.getByRole('link', { name: 'meet' }).click();
    await page.getByRole('heading', { name: 'Photographs' }).waitFor();
    openings.push(
      await page.evaluate(async () => {
        const begun = performance.now();
        [...document.querySelectorAll('nav[aria-label=Journey] a')].find((a) => a.textContent.includes('read')).click();
        let image = null;
        while (!image) {
          await new Promise((r) => requestAnimationFrame(r));
          image = document.querySelector('[data-testid=photo-bench] image');
        }
        const same = new Image();
        same.src = image.getAttribute('href');
        await same.decode();
        await new Promise((r) => requestAnimationFrame(() => requestAnimationFrame(r)));
        return performance.now() - begun;
      }),
    );
  }
  const opening = median(openings);
  figure('opening-24-megapixels-to-first-paint', opening, 'ms', 'limit:1000ms', 1000 / opening);

  // Zoomed in, so that the original and not its preview is on the bench; every overlay on.
  await page.getByRole('button', { name: /overlays/ }).click();
  for (const name of ['level of the edges', 'long axes', 'line of the zeniths', 'widths from the front'])
    await page.getByLabel(name).check();
  await page.keyboard.press('Escape');
  const mark = page.getByRole('button', { name: /^edge of 11, at/ });
  const box = await mark.boundingBox();
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  for (let i = 0; i < 4; i++) await page.mouse.wheel(0, -200);
  await page.waitForTimeout(4000);
  const at = await mark.boundingBox();
  const [ax, ay] = [at.x + at.width / 2, at.y + at.height / 2];
  const cdp = await page.context().newCDPSession(page);
  await cdp.send('Performance.enable');
  const script = async () =>
    (await cdp.send('Performance.getMetrics')).metrics.find((m) => m.name === 'ScriptDuration').value * 1000;
  await page.mouse.move(ax, ay);
  await page.mouse.down();
  const steps = [];
  for (let i = 1; i <= MOVES + 5; i++) {
    const before = await script();
    await page.mouse.move(ax + 12 * Math.sin(i / 4), ay + 9 * Math.cos(i / 5));
    await page.waitForTimeout(90);
    // The first steps warm the engine up.
    if (i > 5) steps.push((await script()) - before);
  }
  await page.mouse.up();
  const label = await mark.getAttribute('aria-label');
  if (label === null) throw new Error('The landmark was lost.');
  const drag = median(steps);
  figure('landmark-drag-script-a-step-24-megapixels', drag, 'ms', 'limit:16ms', 16 / drag);
} finally {
  await browser.close();
  await house.stop();
}
