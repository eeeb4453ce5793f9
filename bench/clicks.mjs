// How many acts of a hand the first minutes of a case take, counted in the real interface: presses of the pointer,
// drags and keys. `node bench/clicks.mjs URL` prints the table of docs/clicks.md; at URL runs `bin/start`, with all sample
// photographs of Avocet there. It leaves a case called Counted behind.
import { launchBrowser, signedInPage } from './browser.mjs';

/**
 * Seconds that practised hands take: to point 1.1, to press a button 0.1 (twice a click), to press a key 0.28; thinking
 * is not in it. Published: Card, Moran and Newell 1980, the keystroke-level model (from memory).
 */
const SECONDS = { click: 1.3, drag: 2.6, key: 0.28 };

const url = process.argv[2] ?? 'http://127.0.0.1:8480';
const browser = await launchBrowser();
const rows = [];
try {
  const page = await signedInPage(browser, url);
  const { request } = page;
  const json = async (path) => (await request.get(`${url}/api${path}`)).json();
  const { id: from } = (await json('/cases')).cases.find((c) => c.name === 'Avocet');
  const views = ['portrait-smile', 'portrait-rest', 'close-rest', 'close-smile', 'retracted-front', 'upper-occlusal'];
  const full = await json(`/cases/${from}`);
  const files = [];
  for (const [i, view] of views.entries()) {
    const f = full.files.find((own) => own.view === view);
    const buffer = await (await request.get(`${url}/api/cases/${from}/files/${f.id}`)).body();
    files.push({ name: `IMG_${100 + i}.jpg`, mimeType: 'image/jpeg', buffer });
  }
  const read = full.sections.read.data.views;

  // Counted where they arrive: what a script does without a pointer is no act.
  await page.evaluate(() => {
    window.acts = { click: 0, drag: 0, key: 0 };
    let down;
    addEventListener('pointerdown', (e) => (down = [e.clientX, e.clientY]), true);
    addEventListener(
      'pointerup',
      (e) => window.acts[down && Math.hypot(e.clientX - down[0], e.clientY - down[1]) > 6 ? 'drag' : 'click']++,
      true,
    );
    addEventListener('keydown', () => window.acts.key++, true);
  });
  const counted = async (what, before, work) => {
    await page.evaluate(() => Object.assign(window.acts, { click: 0, drag: 0, key: 0 }));
    await work();
    const acts = await page.evaluate(() => window.acts);
    const seconds = Object.entries(acts).reduce((s, [kind, n]) => s + n * SECONDS[kind], 0);
    rows.push([what, acts.click, acts.drag, acts.key, Math.round(seconds), before]);
  };

  await page.getByRole('button', { name: 'New case' }).click();
  await page.getByRole('textbox', { name: 'Name' }).pressSequentially('Counted');
  await page.keyboard.press('Enter');
  await page.getByText('drop pictures anywhere').waitFor();
  await page.getByLabel('Photograph files').setInputFiles(files);
  await page.getByText(`${files.length} of ${files.length} arrived`).waitFor();
  await page.getByText(`${files.length} photographs have no view`).waitFor();
  await counted(`${files.length} photographs sorted, each looked at`, '36 clicks', async () => {
    await page.getByRole('button', { name: 'Sort them' }).click();
    for (let i = 0; i < files.length; i++) {
      await page.getByText(/^A guess by its colours/).waitFor();
      await page.keyboard.press('Enter');
      await page.waitForTimeout(400);
    }
    await page.getByRole('heading', { name: 'All are sorted' }).waitFor();
    await page.keyboard.press('Escape');
  });

  await page.getByRole('link', { name: 'read', exact: true }).click();
  const image = page.locator('[data-testid=photo-bench] image');
  await image.waitFor();
  await page.getByText('click the one end of a known length').waitFor();
  const front = read.find((v) => v.view === 'retracted-front');
  const width = full.files.find((f) => f.view === 'retracted-front').width;
  const place = async ({ x, y }) => {
    const box = await image.boundingBox();
    const k = box.width / width;
    return [box.x + x * k, box.y + y * k];
  };
  await counted('front view: scale by the ruler that is seen, six outlines', '24 clicks and the scale', async () => {
    await page.getByRole('button', { name: /^Set them on the ruler/ }).click();
    await page.getByRole('button', { name: /each a millimetre/ }).click();
    await page.getByText('mm a pixel').waitFor();
    await page.getByRole('button', { name: 'landmarks' }).click();
    await page.getByRole('button', { name: 'by boxes' }).click();
    await page.getByRole('radio', { name: /^13/ }).click();
    for (const [i, tooth] of [13, 12, 11, 21, 22, 23].entries()) {
      const own = front.landmarks.filter((m) => m.tooth === tooth);
      const [xs, ys] = [own.map((m) => m.x), own.map((m) => m.y)];
      await page.mouse.move(...(await place({ x: Math.min(...xs), y: Math.min(...ys) })));
      await page.mouse.down();
      await page.mouse.move(...(await place({ x: Math.max(...xs), y: Math.max(...ys) })), { steps: 4 });
      await page.mouse.up();
      await page.getByText(`${4 * (i + 1)} of 24 points`).waitFor();
    }
  });

  for (const [i, view] of ['portrait, at rest', 'portrait, smiling'].entries()) {
    await page.getByRole('navigation', { name: 'Views' }).getByRole('button').nth(i).click();
    await page.getByRole('button', { name: 'points', exact: true }).click();
    await counted(`${view}: seven points suggested and taken`, '7 clicks', async () => {
      await page.getByRole('button', { name: 'suggest the points' }).click();
      await page.getByRole('button', { name: /^Take all/ }).click({ timeout: 60_000 });
    });
  }
} finally {
  await browser.close();
}
console.log('| what | clicks | drags | keys | seconds by the model | before |\n|---|---|---|---|---|---|');
for (const r of rows) console.log(`| ${r.join(' | ')} |`);
