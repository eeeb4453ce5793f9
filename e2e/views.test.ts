import { mkdirSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { CaseDetail } from '@radiant/contract';
import { alignOnTwo, measureSmile, pointsOf, scaleOf, type Vec3 } from '@radiant/core';
import { AVOCET, makePatient, project, truePoints, trueViewPoints, VIEWS } from '@radiant/standins';
import type { Page } from 'playwright-core';
import sharp from 'sharp';
import { DATA, URL_ } from '../server/test/house.js';
import { rendered } from '../standins/test/render.js';
import { closePages, copyOfAvocet, copyWithoutScans, open, saved, typed, type Visit, visit } from './browser.js';

/** A small picture of the smile: quick to render, every millimetre known. */
const SMALL = { widthPx: 900, heightPx: 600 };
const CAMERA = { ...VIEWS['close-smile'].camera, ...SMALL };
let v: Visit;
let smile: Buffer;
const patient = makePatient(AVOCET);
const truth = trueViewPoints(patient, 'close-smile', VIEWS['close-smile'].expression) as Record<string, Vec3>;

beforeAll(async () => {
  const { rgba } = rendered('Avocet', 'close-smile', SMALL);
  smile = await sharp(rgba, { raw: { width: SMALL.widthPx, height: SMALL.heightPx, channels: 4 } })
    .removeAlpha()
    .jpeg({ quality: 92 })
    .toBuffer();
  v = await visit();
});
afterAll(closePages);

const openView = (page: Page, id: string, view: string) => page.goto(`${URL_}/cases/${id}/read?view=${view}`);
async function placer(page: Page) {
  const image = page.locator('[data-testid=photo-bench] image').first();
  await image.waitFor();
  const box = (await image.boundingBox()) as { x: number; y: number; width: number };
  const k = box.width / SMALL.widthPx;
  return { k, click: (x: number, y: number) => page.mouse.click(box.x + x * k, box.y + y * k) };
}
const figure = async (page: Page, id: string) =>
  Number.parseFloat(
    String(await page.getByTestId(`figure-${id}`).locator('td').nth(1).textContent()).replace('−', '-'),
  );

it('the smile from nothing: photograph, scale by a tooth’s width from the scan, points in their order, what they tell', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Smiling');
  await openView(page, id, 'close-smile');
  await page.getByText('The lips in full smile, straight on').waitFor();
  await page.getByLabel('Photograph file').setInputFiles({ name: 'smile.jpg', mimeType: 'image/jpeg', buffer: smile });
  const { click, k } = await placer(page);

  await page.getByRole('button', { name: /^scale/ }).click();
  const central = truePoints(patient.teeth.find((t) => t.tooth === 21) as (typeof patient.teeth)[0]);
  await click(...project(CAMERA, central.mesial));
  await click(...project(CAMERA, central.distal));
  await page.getByLabel('known by').selectOption('tooth');
  await page
    .getByText(/from the scan/)
    .first()
    .waitFor({ state: 'attached' });
  const option = await page.locator('option', { hasText: /^21: .* from the scan$/ }).getAttribute('value');
  await page
    .getByRole('region', { name: 'Scale' })
    .getByRole('combobox')
    .nth(1)
    .selectOption(option as string);
  await page.getByText('as this view shows it: teeth turn away round the arch').waitFor();

  await page.getByRole('button', { name: 'points', exact: true }).click();
  for (const spec of pointsOf('close-smile')) {
    const at = truth[spec.id];
    await page.getByText('next:').waitFor();
    if (!at) {
      // A zenith that the lip covers is passed over by its key.
      await page.keyboard.press('x');
      continue;
    }
    const [x, y] = project(CAMERA, at);
    if (spec.id === 'corner-left') {
      // The picture is all but symmetrical: the mirrored place is taken.
      await page.getByTestId('guess').waitFor();
      await page.keyboard.press('m');
    } else if (spec.id === 'upper-lip-3') {
      // A click beside the border is drawn to it.
      await page.keyboard.press('e');
      await click(x + 12, y - 5 / k);
      await page.getByRole('button', { name: /^border of the upper lip, middle, at/ }).waitFor();
      await page.keyboard.press('e');
    } else await click(x, y);
  }
  await saved(page);
  const { views } = (await client.get<CaseDetail>(`/cases/${id}`)).body.sections.read.data;
  const points = views.find((q) => q.view === 'close-smile')?.points ?? [];
  expect(points).toHaveLength(Object.keys(truth).length);
  const snapped = points.find((p) => p.id === 'upper-lip-3') as { x: number; y: number };
  expect(Math.abs(snapped.y - project(CAMERA, truth['upper-lip-3'] as Vec3)[1])).toBeLessThan(3.2);

  const x = (n: string) => project(CAMERA, truth[n] as Vec3)[0];
  const dark =
    (100 * (x('outer-right') - x('corner-right') + x('corner-left') - x('outer-left'))) /
    (x('corner-left') - x('corner-right'));
  expect(Math.abs((await figure(page, 'corridor')) - dark)).toBeLessThan(2);
  const width = ((x('corner-left') - x('corner-right')) * CAMERA.fieldMm) / CAMERA.widthPx;
  expect(Math.abs((await figure(page, 'smile-width')) - width)).toBeLessThan(3);
  await page.getByTestId('figure-crowns-seen').getByText('average lip line').waitFor();
  // The course of the edges as core reads it off the true places.
  const places = Object.fromEntries(Object.entries(truth).map(([name, p]) => [name, project(CAMERA, p)]));
  const scale = scaleOf({ from: [0, 0], to: [CAMERA.widthPx, 0], mm: CAMERA.fieldMm });
  const course = measureSmile({ view: 'close-smile', points: places, scale }).find(
    (f) => f.id === 'edge-curve',
  )?.figure;
  expect(Math.abs((await figure(page, 'edge-curve')) - (course?.value ?? 999))).toBeLessThan(30);
  expect(v.troubles).toEqual([]);
});

it('the points of a portrait are suggested by the model that ships with the application, and taken by a person', async () => {
  const { page, troubles } = v;
  const { id, client } = await copyWithoutScans('Face');
  const now = async () => (await client.get<CaseDetail>(`/cases/${id}`)).body;
  const { sections, files } = await now();
  const { version, data } = sections.read;
  const marked = data.views.find((w) => w.view === 'portrait-smile')?.points ?? [];
  const views = data.views.map((w) => (w.view === 'portrait-smile' ? { ...w, points: [] } : w));
  await client.patch(`/cases/${id}/sections/read`, { version, data: { ...data, views } });
  // Nothing is fetched but from this server.
  const elsewhere: string[] = [];
  page.on('request', (r) => {
    if (!r.url().startsWith(URL_) && !/^(blob|data):/.test(r.url())) elsewhere.push(r.url());
  });
  await open(page, id, 'read?view=portrait-smile');
  await page.getByRole('button', { name: 'suggest the points' }).click();
  await page.getByText(/^7 points suggested by a model of faces/).waitFor({ timeout: 60_000 });
  // Suggested is not set.
  await page.getByText('0 of 10 points').waitFor();
  await page.getByRole('button', { name: 'Take all 7' }).click();
  await page.getByText('7 of 10 points').waitFor();
  await saved(page);
  const set = (await now()).sections.read.data.views.find((w) => w.view === 'portrait-smile')?.points ?? [];
  const mmPerPx = 212 / (files.find((f) => f.view === 'portrait-smile')?.width ?? 900);
  for (const [point, most] of [
    ['pupil-right', 2.5],
    ['pupil-left', 2.5],
    ['corner-right', 4],
    ['corner-left', 4],
    ['nose-base', 4],
  ] as const) {
    const [own, truth] = [set, marked].map((all) => all.find((p) => p.id === point));
    const off = Math.hypot((own?.x ?? 0) - (truth?.x ?? 0), (own?.y ?? 0) - (truth?.y ?? 0)) * mmPerPx;
    expect(`${point} ${off < most ? 'near' : off.toFixed(1)}`).toBe(`${point} near`);
  }
  expect(elsewhere).toEqual([]);
  expect(troubles).toEqual([]);
});

it('points have names for screen readers, are nudged by keys, and overlays are switched one by one', async () => {
  const { page } = v;
  const { id } = await copyOfAvocet('Named');
  await open(page, id, 'read');
  await page.getByRole('button', { name: 'contacts, axes' }).click();
  const papilla = page.getByRole('button', { name: /^tip of the papilla between 12 and 11, at/ });
  const before = await papilla.getAttribute('aria-label');
  await papilla.focus();
  await page.keyboard.press('Shift+ArrowDown');
  expect(await papilla.getAttribute('aria-label')).not.toBe(before);
  await page.keyboard.press('Control+z');

  const drawn = () => page.locator('[data-testid=photo-bench] svg').first().locator('path').count();
  const bare = await drawn();
  await page.getByRole('button', { name: /overlays/ }).click();
  await page.getByLabel('long axes').check();
  const axes = await drawn();
  expect(axes).toBeGreaterThan(bare);
  await page.getByLabel('widths from the front').check();
  expect(await drawn()).toBeGreaterThan(axes);
  await page.getByLabel('long axes').uncheck();
  await page.getByLabel('widths from the front').uncheck();
  expect(await drawn()).toBe(bare);
  await page.keyboard.press('Escape');
});

it('a second length that does not agree is told beside the scale', async () => {
  const { page } = v;
  const { id } = await copyOfAvocet('Doubted');
  await open(page, id, 'read');
  await page.getByRole('button', { name: 'scale', exact: true }).click();
  await page.getByRole('button', { name: 'check by a second length' }).click();
  const image = (await page.locator('[data-testid=photo-bench] image').first().boundingBox()) as {
    x: number;
    y: number;
    width: number;
  };
  await page.mouse.click(image.x + 80, image.y + 200);
  await page.mouse.click(image.x + 380, image.y + 200);
  await typed(page.getByLabel('Between the two points'), '20');
  await page.getByText('does not agree').waitFor();
  await page.getByRole('button', { name: 'back to the scale' }).click();
  await page.getByText(/the picture is tilted, or one of the two lengths is wrong/).waitFor();
});

it('the views are stepped through by keys and their strip says how far each is marked', async () => {
  const { page } = v;
  const { id } = await copyOfAvocet('Stepped');
  await open(page, id, 'read');
  const strip = page.getByRole('navigation', { name: 'Views' });
  await strip.getByRole('button', { name: 'front: 46 of 46 points' }).waitFor();
  await page.keyboard.press('PageDown');
  await page.getByText('No photograph yet').waitFor();
  // The scans of both jaws tell which teeth lead to each side, without a photograph.
  for (const side of ['right', 'left']) await page.getByTestId(`lead-${side}`).waitFor();
  expect(await page.getByTestId('lead-right').textContent()).toMatch(/^To the right: /);
  expect(await strip.getByRole('button', { name: /^right:/ }).getAttribute('aria-current')).toBe('true');
  await page.keyboard.press('PageUp');
  await page.getByText('24 of 24 points').waitFor();
});

it('two states are laid over each other on two points, under a slider and beside each other', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Compared');
  const turned = await sharp(smile).rotate(4, { background: '#555' }).jpeg().toBuffer();
  await client.upload(`/cases/${id}/files?kind=photo&view=close-smile&state=before`, smile, 'before.jpg');
  await client.upload(`/cases/${id}/files?kind=photo&view=close-smile&state=mock-up`, turned, 'mock-up.jpg');
  await open(page, id, 'meet');
  await page.getByRole('button', { name: 'Compare', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'Compare' });
  await dialog.getByText(/Not laid over each other yet/).waitFor();
  await dialog.getByRole('button', { name: 'align' }).click();
  for (const pane of [0, 1]) {
    const box = (await dialog.locator('figure svg').nth(pane).boundingBox()) as {
      x: number;
      y: number;
      width: number;
      height: number;
    };
    await page.mouse.click(box.x + box.width * 0.3, box.y + box.height * (0.5 - 0.02 * pane));
    await page.mouse.click(box.x + box.width * 0.7, box.y + box.height * (0.5 + 0.02 * pane));
  }
  await dialog.getByRole('button', { name: /^second place on mock-up.*, at/ }).waitFor();
  await dialog.getByRole('button', { name: 'slider' }).click();
  await page.waitForTimeout(1200);
  const { aligned } = (await client.get<CaseDetail>(`/cases/${id}`)).body.sections.read.data;
  expect(aligned).toHaveLength(2);
  const two = (i: number) =>
    [aligned[i]?.first, aligned[i]?.second].map((p) => [p?.x ?? 0, p?.y ?? 0] as const) as unknown as Parameters<
      typeof alignOnTwo
    >[0];
  const s = alignOnTwo(two(1), two(0));
  const laid = await dialog.getByTestId('laid-over').locator('image').getAttribute('transform');
  const drawn = (laid ?? '')
    .replace(/[^\d.e -]/g, '')
    .trim()
    .split(' ')
    .map(Number);
  expect(drawn[0]).toBeCloseTo(s.a, 6);
  expect(drawn[1]).toBeCloseTo(s.b, 6);
  expect(drawn[4]).toBeCloseTo(s.tx, 3);
  const slider = dialog.getByRole('slider', { name: 'Where the line stands' });
  await slider.press('ArrowLeft');
  expect(await slider.getAttribute('aria-valuenow')).toBe('49');
  await dialog.getByRole('button', { name: 'side by side' }).click();
  expect(await dialog.locator('figure').count()).toBe(2);
  expect(v.troubles).toEqual([]);
});

it('a file that names no case waits in the tray, is seen there, and is put on the wall', async () => {
  const { page } = v;
  const { id } = await copyOfAvocet('Traying');
  const inbox = join(DATA, 'inbox');
  mkdirSync(inbox, { recursive: true });
  writeFileSync(join(inbox, '.coming'), await sharp(smile).resize(600).jpeg().toBuffer());
  renameSync(join(inbox, '.coming'), join(inbox, 'DSC_7788 smile.jpg'));
  await open(page, id, 'meet');
  await page.getByRole('button', { name: /^arrivals .*waiting/ }).click();
  const tray = page.getByRole('region', { name: 'Tray' });
  await tray.getByText('DSC_7788 smile.jpg').first().waitFor();
  await tray.getByLabel('Case of DSC_7788 smile.jpg').selectOption({ label: 'Traying' });
  expect(await tray.getByLabel('View of DSC_7788 smile.jpg').inputValue()).toBe('close-smile');
  await tray.getByRole('button', { name: 'put it there' }).first().click();
  await page.getByRole('link', { name: 'Traying' }).first().waitFor();
  await page.keyboard.press('Escape');
  await page.getByRole('region', { name: 'Not sorted yet' }).getByText('DSC_7788 smile.jpg').waitFor();
});
