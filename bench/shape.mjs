import { rm } from 'node:fs/promises';
import { launchHouse } from '../bin/lib/house.mjs';
import { launchBrowser, signedInPage } from './browser.mjs';
import { figure, median } from './figure.mjs';

const TURNS = 60;
const DABS = 30;
const VERSIONS = 15;
await rm('.data/bench-shape', { recursive: true, force: true });
const house = await launchHouse({ port: 8700, data: '.data/bench-shape' });
const browser = await launchBrowser();
try {
  const page = await signedInPage(browser, house.url);
  const { request } = page;
  const json = async (path) => (await request.get(`${house.url}/api${path}`)).json();
  const { id } = (await json('/cases')).cases.find((c) => c.name === 'Avocet');
  // All ten upper teeth planned, each with strokes on it.
  const kase = await json(`/cases/${id}`);
  const { data, version } = kase.sections.shape;
  const six = data.teeth.filter((t) => t.tooth % 10 <= 3);
  const beside = [15, 14, 24, 25].map((tooth) => ({
    ...six[0],
    tooth,
    lengthMm: 8.2,
    widthMm: 6.9,
    facialVolumeMm: 0,
  }));
  const stroke = { tool: 'add', radiusMm: 1.5, amount: 0.1, at: Array.from({ length: 12 }, (_, i) => 2000 + i) };
  const teeth = [...six, ...beside].map((t) => ({ ...t, strokes: Array.from({ length: 10 }, () => stroke) }));
  const put = await request.patch(`${house.url}/api/cases/${id}/sections/shape`, {
    data: { version, data: { ...data, teeth } },
  });
  if (!put.ok()) throw new Error(await put.text());

  const saves = [];
  for (let i = 0; i < VERSIONS; i++) {
    const begun = performance.now();
    const kept = await request.post(`${house.url}/api/cases/${id}/contours`, { data: { name: `bench ${i}`, why: '' } });
    if (!kept.ok()) throw new Error(await kept.text());
    saves.push(performance.now() - begun);
  }
  const saved = median(saves);
  figure('version-of-ten-teeth-saved', saved, 'ms', 'limit:300ms', 300 / saved);
  const kilobytes = JSON.stringify(teeth).length / 1000;
  figure('version-of-ten-teeth-with-100-strokes', kilobytes, 'kB', 'limit:100kB', 100 / kilobytes);

  await page.goto(`${house.url}/cases/${id}/shape`);
  await page.getByTestId('planned-count').filter({ hasText: '10' }).waitFor({ state: 'attached' });
  await page.waitForTimeout(4000);
  const box = await page.locator('canvas').boundingBox();
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  const cdp = await page.context().newCDPSession(page);
  await cdp.send('Performance.enable');
  const metrics = async () =>
    Object.fromEntries((await cdp.send('Performance.getMetrics')).metrics.map((m) => [m.name, m.value]));

  // Script of the page while the scene is dragged round, a frame after each move.
  await page.mouse.move(middle.x, middle.y + 180);
  await page.mouse.down();
  const perFrame = [];
  for (let i = 0; i < TURNS; i++) {
    const before = await metrics();
    await page.mouse.move(middle.x + 90 * Math.sin(i / 6), middle.y + 180 + 20 * Math.cos(i / 6));
    await page.evaluate(() => new Promise((r) => requestAnimationFrame(() => r())));
    perFrame.push(((await metrics()).ScriptDuration - before.ScriptDuration) * 1000);
  }
  await page.mouse.up();
  const turn = median(perFrame);
  figure('turning-the-scene-script-a-frame', turn, 'ms', 'limit:8ms', 8 / turn);

  // From a move of the brush to the mark that the scene leaves once the new surface was handed to WebGL.
  await page.keyboard.press('f');
  await page.keyboard.press('b');
  await page.waitForTimeout(1000);
  await page.evaluate(() => {
    window.dabs = [];
    let begun;
    window.addEventListener('pointermove', (e) => (begun = e.timeStamp), true);
    new PerformanceObserver((list) => {
      const mark = list.getEntriesByName('contour-painted').at(-1);
      if (mark && begun !== undefined) window.dabs.push(mark.startTime - begun);
      begun = undefined;
    }).observe({ type: 'mark' });
  });
  await page.mouse.move(middle.x - 60, middle.y);
  await page.mouse.down();
  await page.waitForTimeout(800);
  await page.evaluate(() => window.dabs.splice(0));
  for (let i = 0; i < DABS; i++) {
    const had = await page.evaluate(() => window.dabs.length);
    await page.mouse.move(middle.x - 60 + 26 * Math.sin(i / 4), middle.y + 1.6 * i);
    await page
      .waitForFunction((n) => window.dabs.length > n, had, { polling: 60, timeout: 3000 })
      .catch(() => undefined);
  }
  const dabs = await page.evaluate(() => window.dabs);
  await page.mouse.up();
  if (dabs.length < DABS / 2) throw new Error(`only ${dabs.length} moves of the brush were painted`);
  const painted = median(dabs);
  figure('brush-to-repainted-map', painted, 'ms', 'limit:50ms', 50 / painted);
} finally {
  await browser.close();
  await house.stop();
}
