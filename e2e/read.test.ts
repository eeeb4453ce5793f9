import type { CaseDetail } from '@radiant/contract';
import { frontLandmarks, readingOf } from '@radiant/contract';
import { frontRow, LANDMARK_KINDS } from '@radiant/core';
import {
  AVOCET,
  makePatient,
  type Patient,
  project,
  RETRACTED_FRONT,
  scalePoints,
  truePoints,
} from '@radiant/standins';
import type { Page } from 'playwright-core';
import sharp from 'sharp';
import { rendered } from '../standins/test/render.js';
import {
  closePages,
  copyOfAvocet,
  copyWithoutScans,
  open,
  picture,
  saved,
  typed,
  type Visit,
  visit,
} from './browser.js';

/** A small picture of the same patient: quick to render, every millimetre known. */
const CAMERA = { ...RETRACTED_FRONT, widthPx: 900, heightPx: 600 };
let patient: Patient;
let lyingJpeg: Buffer;
let v: Visit;

beforeAll(async () => {
  patient = makePatient(AVOCET);
  const { rgba } = rendered('Avocet', 'retracted-front', { widthPx: CAMERA.widthPx, heightPx: CAMERA.heightPx });
  const upright = sharp(rgba, { raw: { width: CAMERA.widthPx, height: CAMERA.heightPx, channels: 4 } }).removeAlpha();
  // As a camera held on its side writes it: pixels turned, and the orientation in EXIF.
  lyingJpeg = await upright.rotate(-90).withMetadata({ orientation: 6 }).jpeg({ quality: 92 }).toBuffer();
  v = await visit();
});
afterAll(closePages);

/** Screen place of a picture pixel: the photograph fits the bench as the page lays it out. */
async function placer(
  page: Page,
  act: 'click' | 'move' = 'click',
): Promise<(p: readonly [number, number]) => Promise<void>> {
  const box = await page.locator('[data-testid=photo-bench] image').boundingBox();
  if (!box) throw new Error('The photograph is not on the bench.');
  const k = box.width / CAMERA.widthPx;
  return ([x, y]) => page.mouse[act](box.x + x * k, box.y + y * k);
}

it('from an empty case to all measures: photograph, scale, 24 landmarks', async () => {
  const { page } = v;
  await page.getByRole('button', { name: 'New case' }).click();
  await typed(page.getByRole('textbox', { name: 'Name' }), 'Whimbrel');
  await typed(page.getByLabel('Age, years'), '41');
  await page.getByRole('button', { name: 'Open the case' }).click();
  await page.getByRole('link', { name: 'read', exact: true }).click();
  await page.getByText('No photograph yet').waitFor();

  await page
    .getByLabel('Photograph file')
    .setInputFiles({ name: 'broken.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('not a picture') });
  await page
    .getByText(/This is no picture in JPEG/)
    .first()
    .waitFor();

  await page
    .getByLabel('Photograph file')
    .setInputFiles({ name: 'front.jpg', mimeType: 'image/jpeg', buffer: lyingJpeg });
  await page.locator('[data-testid=photo-bench] image').waitFor();
  await page.getByText('click the one end of a known length').waitFor();
  const box = await page.locator('[data-testid=photo-bench] image').boundingBox();
  expect((box?.width ?? 0) / (box?.height ?? 1)).toBeCloseTo(1.5, 2);

  const click = await placer(page);
  const scale = scalePoints(CAMERA);
  // The ruler is seen and offered; its length is only taken by who says that its spaces are millimetres.
  await page.getByRole('button', { name: 'Set them on the ruler that is seen: 41 ticks' }).click();
  await page.getByText('How far apart are they?').waitFor();
  expect(await page.getByText('mm a pixel').count()).toBe(0);
  await page.getByRole('button', { name: '40 spaces, each a millimetre: take 40.0 mm' }).click();
  await page.getByText('mm a pixel').waitFor();
  const found = Number.parseFloat(
    (await page.getByRole('region', { name: 'Scale' }).locator('b').first().textContent()) ?? '',
  );
  expect(Math.abs(found / (CAMERA.fieldMm / CAMERA.widthPx) - 1)).toBeLessThan(0.005);
  await page.getByRole('button', { name: 'set it again' }).click();
  // What is half set is taken back by Esc and by undo, and the photograph stays.
  for (const key of ['Escape', 'Control+z']) {
    await click(scale.from);
    await page.getByText('click the other end of a known length').waitFor();
    await page.keyboard.press(key);
    await page.getByText('click the one end of a known length').waitFor();
  }
  await click(scale.from);
  await click(scale.to);
  // How long it is only the person knows: nothing stands there, and nothing is measured by it.
  await page.getByText('How far apart are they?').waitFor();
  const length = page.getByLabel('Between the two points');
  expect(await length.inputValue()).toBe('');
  expect(await page.getByText('mm a pixel').count()).toBe(0);
  await typed(length, '0');
  await page.getByText('Between 0.1 and 500.0 mm; not taken.').waitFor();
  await typed(length, String(scale.mm));
  await page.getByText('mm a pixel').waitFor();
  await page.getByRole('button', { name: 'landmarks' }).click();

  await page.getByRole('radio', { name: /^13/ }).click();
  for (const tooth of frontRow()) {
    const own = patient.teeth.find((t) => t.tooth === tooth);
    const points = truePoints(own as NonNullable<typeof own>);
    for (const kind of LANDMARK_KINDS) await click(project(CAMERA, points[kind]));
  }
  await page.getByText('24 of 24 points').waitFor();
  await saved(page);
  await page.getByRole('radio', { name: /^11/ }).click();
  // The true central is 9.9 mm long and 8.55 mm wide; a screen pixel is about 0.08 mm here.
  const read = async (id: string) =>
    Number.parseFloat(String(await page.getByTestId(id).textContent()).replace('−', '-'));
  expect(Math.abs((await read('length-11')) - 9.9)).toBeLessThan(0.25);
  expect(Math.abs((await read('width-11')) - 8.55)).toBeLessThan(0.25);
  await page
    .getByText(/is narrow: \d/)
    .first()
    .waitFor();
  expect(v.troubles).toEqual([]);
});

it('six boxes set all outlines where the borders are seen, each as one step', async () => {
  const { page } = v;
  const { id, client } = await copyWithoutScans('Boxes');
  const { version, data } = (await client.get<CaseDetail>(`/cases/${id}`)).body.sections.read;
  await client.patch(`/cases/${id}/sections/read`, { version, data: { ...data, landmarks: [] } });
  await open(page, id, 'read');
  await page.getByText('0 of 24 points').waitFor();
  const at = await placer(page, 'move');
  await page.getByRole('radio', { name: /^13/ }).click();
  await page.keyboard.press('d');
  for (const [i, tooth] of frontRow().entries()) {
    const own = patient.teeth.find((t) => t.tooth === tooth);
    const points = LANDMARK_KINDS.map((k) => project(CAMERA, truePoints(own as NonNullable<typeof own>)[k]));
    const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
    // As a hand draws it: a little off on every side but the edge, where it aims.
    const off = i % 2 ? 6 : -5;
    await at([Math.min(...xs) + off, Math.min(...ys) + off]);
    await page.mouse.down();
    await at([Math.max(...xs) - off / 2, Math.max(...ys) - 20]);
    await at([Math.max(...xs) - off / 2, Math.max(...ys)]);
    await page.mouse.up();
    await page.getByText(`${4 * (i + 1)} of 24 points`).waitFor();
  }
  await page.getByRole('radio', { name: /^11/ }).click();
  const read = async (id: string) =>
    Number.parseFloat(String(await page.getByTestId(id).textContent()).replace('−', '-'));
  expect(Math.abs((await read('width-11')) - 8.55)).toBeLessThan(0.3);
  expect(Math.abs((await read('length-11')) - 9.9)).toBeLessThan(0.35);
  await page.keyboard.press('Control+z');
  await page.getByText('20 of 24 points').waitFor();
});

it('landmarks are dragged, nudged by arrow keys, taken away and brought back by undo', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Nudged');
  await open(page, id, 'read');
  const edge = page.getByRole('button', { name: /^edge of 11, at/ });
  const at = async () =>
    ((await edge.getAttribute('aria-label')) ?? '')
      .match(/at ([\d.]+), ([\d.]+)/)
      ?.slice(1)
      .map(Number) as [number, number];
  const [x0, y0] = await at();
  await edge.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Shift+ArrowUp');
  const [x1, y1] = await at();
  expect([x1 - x0, y1 - y0].map((d) => Math.round(d * 10) / 10)).toEqual([1, -1.1]);

  const box = (await edge.boundingBox()) as { x: number; y: number; width: number; height: number };
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 26, box.y + box.height / 2 + 13, { steps: 4 });
  await page.mouse.up();
  const [x2] = await at();
  expect(x2 - x1).toBeGreaterThan(20);
  await page.getByRole('button', { name: 'Undo' }).click();
  expect((await at())[0]).toBe(x1);

  await edge.focus();
  await page.keyboard.press('Delete');
  await page.getByText('23 of 24 points').waitFor();
  await page.getByText('edge point of 11').waitFor();
  await page.keyboard.press('Control+z');
  await page.getByText('24 of 24 points').waitFor();
  await saved(page);
  const stored = frontLandmarks((await client.get<CaseDetail>(`/cases/${id}`)).body.sections.read.data).find(
    (m) => m.tooth === 11 && m.kind === 'edge',
  );
  expect([stored?.x, stored?.y]).toEqual([x1, y1]);
});

it('zoom, pan, the Universal notation and the list of keys', async () => {
  const { page } = v;
  const image = page.locator('[data-testid=photo-bench] image');
  const width = async () => (await image.boundingBox())?.width ?? 0;
  const before = await width();
  await page.mouse.move(600, 400);
  await page.mouse.wheel(0, -400);
  expect(await width()).toBeGreaterThan(before * 1.5);
  const left = async () => (await image.boundingBox())?.x ?? 0;
  const x = await left();
  await page.mouse.move(700, 640);
  await page.mouse.down();
  await page.mouse.move(640, 640, { steps: 3 });
  await page.mouse.up();
  const moved = (await left()) - x;
  expect(moved).toBeGreaterThan(-61);
  expect(moved).toBeLessThan(-54);
  await page.keyboard.press('0');
  expect(Math.round(await width())).toBe(Math.round(before));

  await page.getByLabel('tooth numbers').selectOption('universal');
  await page.getByRole('radio', { name: /^8, central incisor/ }).waitFor();
  await page.getByLabel('tooth numbers').selectOption('fdi');
  await page
    .getByRole('heading', { name: 'Avocet' })
    .or(page.getByRole('heading', { name: 'Nudged' }))
    .first()
    .click();
  await page.keyboard.press('?');
  await page.getByRole('dialog', { name: 'Keys' }).getByText('nudge the landmark 1 px').waitFor();
  await page.keyboard.press('Escape');
});

it('a lens follows the pointer, and light changes what is shown but not the file', async () => {
  const { page } = v;
  const { id } = await copyOfAvocet('Looked at');
  await open(page, id, 'read');
  const bench = page.getByTestId('photo-bench');
  await bench.locator('image').first().waitFor();
  await page.keyboard.press('g');
  await page.mouse.move(500, 420);
  const lens = page.getByTestId('magnifier');
  await lens.waitFor();
  const middle = async () => {
    const [x, y, w, h] = ((await lens.getAttribute('viewBox')) ?? '').split(' ').map(Number) as [
      number,
      number,
      number,
      number,
    ];
    return [x + w / 2, y + h / 2] as const;
  };
  const before = await middle();
  await page.mouse.move(560, 420);
  const after = await middle();
  const zoom = await bench
    .locator('svg')
    .first()
    .evaluate((e) => e.clientWidth / (e as unknown as SVGSVGElement).viewBox.baseVal.width);
  expect(after[0] - before[0]).toBeCloseTo(60 / zoom, 3);
  expect(after[1]).toBeCloseTo(before[1], 6);
  await page.keyboard.press('g');
  await lens.waitFor({ state: 'detached' });

  await page.getByRole('button', { name: 'light' }).click();
  await page.getByRole('slider', { name: 'Brightness' }).press('ArrowRight');
  await page.getByText('105 %').waitFor();
  expect(
    await bench
      .locator('image')
      .first()
      .evaluate((e) => getComputedStyle(e).filter),
  ).toBe('brightness(1.05) contrast(1)');
  await page.getByRole('button', { name: 'As taken' }).click();
  expect(
    await bench
      .locator('image')
      .first()
      .evaluate((e) => getComputedStyle(e).filter),
  ).toBe('none');
  await page.keyboard.press('Escape');
});

it('every figure answers how it was worked out', async () => {
  const { page } = v;
  const { id } = await copyOfAvocet('Asked');
  await open(page, id, 'read');
  await page.getByRole('button', { name: /How was this worked out: length of 11/ }).click();
  await page.getByText('crown length = length seen from the front ÷ share seen').waitFor();
  await page.getByText('repeatability of its points (sd)').first().waitFor();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /How was this worked out: 12 is narrow/ }).click();
  await page.getByText(/Chu 2007.*from memory/).waitFor();
  await picture(page, 'read-working');
  expect(v.troubles).toEqual([]);
});

it('a point is set a second time without seeing the first, and the ± follows how well', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Twice');
  await open(page, id, 'read');
  await page.getByText('24 of 24 points').waitFor();
  const landmarks = async () => frontLandmarks((await client.get<CaseDetail>(`/cases/${id}`)).body.sections.read.data);
  const [first] = (await landmarks()).filter((m) => m.tooth === 11 && m.kind === 'zenith');
  if (!first) throw new Error('The sample has no zenith of 11.');
  await page.getByRole('button', { name: 'again', exact: true }).click();
  await page.getByText('0 of 24 points').waitFor();
  await page
    .getByText(/zenith of 11, again/)
    .first()
    .waitFor();
  const image = page.locator('[data-testid=photo-bench] image').first();
  const box = (await image.boundingBox()) as { x: number; y: number; width: number };
  const k = box.width / 1500;
  // A quarter of a millimetre further up, as a hand does.
  await page.mouse.click(box.x + first.x * k, box.y + (first.y - 6) * k);
  await page.getByText('1 of 24 points').waitFor();
  await saved(page);
  const kept = (await landmarks()).find((m) => m.tooth === 11 && m.kind === 'zenith');
  expect(kept).toMatchObject({ x: first.x, y: first.y });
  expect(Math.abs((kept?.again?.x ?? 0) - first.x)).toBeLessThan(3);
  await page
    .getByTestId('spread-note')
    .filter({ hasText: /1 point was set twice/ })
    .waitFor();
  await page.keyboard.press('Control+z');
  await page.getByText('0 of 24 points').waitFor();
  await page.getByRole('button', { name: 'again', exact: true }).click();
  await page.getByText('24 of 24 points').waitFor();
});

it('a finding is accepted with a word and goes on to propose; a dismissed one steps back', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Verdicts');
  await open(page, id, 'read');
  await page.getByRole('button', { name: /^accept .*12 looks/ }).click();
  await typed(page.getByLabel(/^Word on: 12 looks/), 'patient sees it too');
  await page.getByRole('button', { name: /show all/ }).click();
  await page.getByRole('button', { name: /^dismiss .*12 is narrow/ }).click();
  await page.getByRole('button', { name: 'show fewer' }).click();
  await page.getByText(/1 dismissed/).waitFor();
  expect(await page.getByRole('button', { name: /^12 is narrow/ }).count()).toBe(0);
  await saved(page);
  const { verdicts } = (await client.get<CaseDetail>(`/cases/${id}`)).body.sections.read.data;
  expect(verdicts).toEqual([
    { id: 'width-12', verdict: 'accepted', word: 'patient sees it too' },
    { id: 'size-12', verdict: 'dismissed' },
  ]);
  await page.getByRole('button', { name: /show all/ }).click();
  await page.getByRole('button', { name: /^dismissed .*12 is narrow/ }).click();
  await page.getByText(/1 dismissed/).waitFor({ state: 'detached' });
  await open(page, id, 'propose');
  const wishes = page.getByRole('region', { name: 'What the plan should bring' });
  await wishes.getByText(/12 looks .* narrower than 22/).waitFor();
  await wishes.getByText('patient sees it too').waitFor();
  await wishes.getByText(/the patient: even, longer/).waitFor();
});

it('a photograph with landmarks is put aside only when asked, and undo brings both back', async () => {
  const { page } = v;
  const { id } = await copyOfAvocet('Replaced');
  await open(page, id, 'read');
  await page.getByText('24 of 24 points').waitFor();
  const other = { name: 'another.jpg', mimeType: 'image/jpeg', buffer: lyingJpeg };
  await page.getByLabel('Photograph file').setInputFiles(other);
  await page.getByText(/^46 landmarks stand on the photograph that is on the bench\./).waitFor();
  await page.getByRole('button', { name: 'Keep the old one' }).click();
  await page.getByText('24 of 24 points').waitFor();
  await page.getByLabel('Photograph file').setInputFiles(other);
  await page.getByRole('button', { name: 'Put it in' }).click();
  await page.getByText('0 of 24 points').waitFor();
  await page.keyboard.press('Control+z');
  await page.getByText('24 of 24 points').waitFor();
});

it('the tooth that comes nearest to the norms is proposed with its reasons', async () => {
  const { page } = v;
  const { id } = await copyOfAvocet('Ranked');
  await open(page, id, 'read');
  const list = page.getByRole('region', { name: 'Nearest to the norms' });
  await list
    .getByText(/width to length \d\d %, right from 7\d/)
    .first()
    .waitFor();
  expect(await list.getByRole('listitem').count()).toBe(3);
  await list.getByRole('button').first().click();
  await page.getByRole('button', { name: /^Take \d\d as reference/ }).waitFor();
});

it('a length and an angle are drawn, named, dragged and found again', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Drawn');
  await open(page, id, 'read');
  const image = page.locator('[data-testid=photo-bench] image').first();
  await image.waitFor();
  const box = (await image.boundingBox()) as { x: number; y: number; width: number };
  const k = box.width / RETRACTED_FRONT.widthPx;
  const click = (x: number, y: number) => page.mouse.click(box.x + x * k, box.y + y * k);
  await page.getByRole('button', { name: 'length', exact: true }).click();
  const { from, to, mm } = scalePoints(RETRACTED_FRONT);
  await click(from[0], from[1]);
  await click(to[0], to[1]);
  const list = page.getByRole('region', { name: 'Drawn measures' });
  await list.getByText(new RegExp(`^${mm}\\.0|^${mm - 1}\\.9`)).waitFor();

  await page.getByRole('button', { name: 'angle', exact: true }).click();
  for (const [x, y] of [
    [400, 800],
    [400, 900],
    [500, 900],
  ] as const)
    await click(x, y);
  await list.getByText(/^(90\.\d|89\.\d)/).waitFor();
  await typed(list.getByLabel('Name of the measure').first(), 'scale again');
  await list.getByLabel('Name of the measure').first().press('Tab');
  await page.getByLabel('point 1 of scale again').press('ArrowRight');
  await saved(page);
  const { drawn } = readingOf(
    (await client.get<CaseDetail>(`/cases/${id}`)).body.sections.read.data,
    'retracted-front',
  );
  expect(drawn.map((m) => [m.name, m.points.length])).toEqual([
    ['scale again', 2],
    ['angle 1', 3],
  ]);
  await list.getByRole('button', { name: /take away angle 1/ }).click();
  await page.keyboard.press('Control+z');
  await list.getByText(/^(90\.\d|89\.\d)/).waitFor();
  expect(v.troubles).toEqual([]);
});
