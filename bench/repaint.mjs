import { launchHouse } from '../bin/lib/house.mjs';
import { launchBrowser, signedInPage } from './browser.mjs';
import { figure, median } from './figure.mjs';

const MOVES = 40;
const house = await launchHouse({ port: 8680, data: '.data/bench' });
const browser = await launchBrowser();
try {
  const page = await signedInPage(browser, house.url);
  await page.getByRole('link', { name: /Avocet/ }).click();
  await page.getByRole('link', { name: /shape/i }).click();
  await page.getByTestId('planned-count').filter({ hasText: '6' }).waitFor({ state: 'attached' });
  await page.waitForTimeout(2000);
  const slider = page.getByRole('slider', { name: /Length/ });
  await slider.focus();

  // From the key's event to the mark that the scene leaves once the new surface was handed to WebGL, and to the first
  // frame that could begin after that: on a machine without graphics hardware the second holds the drawing itself.
  // Nothing here asks for frames while it waits, since each would cost the page one.
  await page.evaluate(() => {
    window.moves = [];
    let begun;
    window.addEventListener(
      'keydown',
      (e) => {
        begun = e.timeStamp;
      },
      true,
    );
    new PerformanceObserver((list) => {
      const mark = list.getEntriesByName('contour-painted').at(-1);
      if (!mark || begun === undefined) return;
      const drawn = mark.startTime - begun;
      const from = begun;
      begun = undefined;
      requestAnimationFrame(() => window.moves.push([drawn, performance.now() - from]));
    }).observe({ type: 'mark' });
  });
  for (let i = 0; i < MOVES; i++) {
    await slider.press(i % 8 < 4 ? 'ArrowRight' : 'ArrowLeft');
    await page.waitForFunction((n) => window.moves.length > n, i, { polling: 100 });
  }
  const moves = await page.evaluate(() => window.moves);
  const drawn = median(moves.map((m) => m[0]));
  const seen = median(moves.map((m) => m[1]));
  figure('slider-to-repainted-map', drawn, 'ms', 'limit:50ms', 50 / drawn);
  figure('slider-to-next-frame-drawn-by-the-processor', seen, 'ms', 'limit:50ms', 50 / seen);
} finally {
  await browser.close();
  await house.stop();
}
