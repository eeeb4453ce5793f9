import { type CaseDetail, readingOf } from '@radiant/contract';
import type { CDPSession, Page } from 'playwright-core';
import { closePages, copyOfAvocet, copyWithoutScans, open, saved, type Visit, visit } from './browser.js';

let v: Visit;
beforeAll(async () => {
  v = await visit('dentist', true);
});
afterAll(closePages);

/** Fingers on the page, as a tablet's screen reports them. */
async function fingers(page: Page) {
  const cdp: CDPSession = await page.context().newCDPSession(page);
  return (type: 'touchStart' | 'touchMove' | 'touchEnd', ...at: readonly (readonly [number, number])[]) =>
    cdp.send('Input.dispatchTouchEvent', { type, touchPoints: at.map(([x, y], id) => ({ x, y, id })) });
}

it('on a photograph a tap sets a point, a held finger aims with the lens and sets it where it is lifted, two zoom', async () => {
  const { page } = v;
  const { id, client } = await copyWithoutScans('By finger');
  const { read } = (await client.get<CaseDetail>(`/cases/${id}`)).body.sections;
  const views = read.data.views.map((r) =>
    r.view === 'retracted-front' ? { ...r, landmarks: [], ...(r.points && { points: [] }) } : r,
  );
  expect(
    (await client.patch(`/cases/${id}/sections/read`, { version: read.version, data: { ...read.data, views } })).status,
  ).toBe(200);
  await open(page, id, 'read');
  const image = page.locator('[data-testid=photo-bench] image').first();
  await image.waitFor();
  await page.getByText('0 of 24 points').waitFor();
  const touch = await fingers(page);
  const box = await image.boundingBox();
  const [x, y] = [(box?.x ?? 0) + (box?.width ?? 0) * 0.4, (box?.y ?? 0) + (box?.height ?? 0) * 0.6];

  await touch('touchStart', [x, y]);
  await touch('touchEnd');
  await page.getByText('1 of 24 points').waitFor();

  const lens = page.getByTestId('magnifier');
  expect(await lens.count()).toBe(0);
  await touch('touchStart', [x + 90, y]);
  await lens.waitFor();
  for (let d = 5; d <= 30; d += 5) await touch('touchMove', [x + 90 + d, y - d]);
  // It stands above the finger, which hides what lies under it; the picture has not moved.
  const stands = await lens.boundingBox();
  expect((stands?.y ?? 999) + (stands?.height ?? 0)).toBeLessThan(y - 40);
  expect(await image.boundingBox()).toEqual(box);
  await touch('touchEnd');
  await page.getByText('2 of 24 points').waitFor();
  await lens.waitFor({ state: 'detached' });
  await saved(page);
  const now = (await client.get<CaseDetail>(`/cases/${id}`)).body.sections.read.data;
  const [first, second] = readingOf(now, 'retracted-front').landmarks ?? [];
  const apart = [(second?.x ?? 0) - (first?.x ?? 0), (second?.y ?? 0) - (first?.y ?? 0)];
  // 120 to the right and 30 up, in the picture's own pixels.
  expect((apart[0] ?? 0) / (apart[1] ?? 1)).toBeCloseTo(-4, 0);

  // One that goes at once moves the picture, and two zoom it.
  await touch('touchStart', [x, y + 60]);
  for (let d = 10; d <= 60; d += 10) await touch('touchMove', [x + d, y + 60]);
  await touch('touchEnd');
  expect((await image.boundingBox())?.x).toBeGreaterThan((box?.x ?? 0) + 20);
  await touch('touchStart', [x, y + 60], [x + 60, y + 60]);
  for (let d = 5; d <= 40; d += 5) await touch('touchMove', [x - d, y + 60], [x + 60 + d, y + 60]);
  await touch('touchEnd');
  expect((await image.boundingBox())?.width).toBeGreaterThan(1.3 * (box?.width ?? 0));
  await page.getByText('2 of 24 points').waitFor();
});

it('on the crowns a held finger is told the millimetres under it', async () => {
  const { page } = v;
  const { id } = await copyOfAvocet('By finger, crowns');
  await open(page, id, 'shape');
  await page.getByRole('row', { name: /^added/ }).waitFor({ timeout: 90_000 });
  const canvas = page.locator('canvas').first();
  const box = await canvas.boundingBox();
  const touch = await fingers(page);
  const told = page.getByText(/^[+−]\d\.\d\d mm (added|removed)$/);
  expect(await told.count()).toBe(0);
  await touch('touchStart', [(box?.x ?? 0) + (box?.width ?? 0) * 0.44, (box?.y ?? 0) + (box?.height ?? 0) * 0.53]);
  await told.waitFor();
  await touch('touchEnd');
  await told.waitFor({ state: 'hidden' });
  expect(v.troubles).toEqual([]);
});

it('a pen sets points as a mouse does, and brushes the more the harder it is pressed', async () => {
  const { page } = v;
  const { id, client } = await copyWithoutScans('By pen');
  const { read } = (await client.get<CaseDetail>(`/cases/${id}`)).body.sections;
  const views = read.data.views.map((r) =>
    r.view === 'retracted-front' ? { ...r, landmarks: [], ...(r.points && { points: [] }) } : r,
  );
  await client.patch(`/cases/${id}/sections/read`, { version: read.version, data: { ...read.data, views } });
  await open(page, id, 'read');
  const image = page.locator('[data-testid=photo-bench] image').first();
  await image.waitFor();
  await page.getByText('0 of 24 points').waitFor();
  const cdp = await page.context().newCDPSession(page);
  const pen = (type: 'mousePressed' | 'mouseMoved' | 'mouseReleased', x: number, y: number, force = 0.5) =>
    cdp.send('Input.dispatchMouseEvent', {
      type,
      x,
      y,
      force,
      button: force === 0 && type === 'mouseMoved' ? 'none' : 'left',
      buttons: type === 'mouseReleased' || force === 0 ? 0 : 1,
      clickCount: 1,
      pointerType: 'pen',
    });
  const box = await image.boundingBox();
  const [x, y] = [(box?.x ?? 0) + (box?.width ?? 0) * 0.4, (box?.y ?? 0) + (box?.height ?? 0) * 0.6];
  await pen('mousePressed', x, y);
  await pen('mouseReleased', x, y);
  await page.getByText('1 of 24 points').waitFor();
  // A point that is there is taken and moved.
  const mark = page.locator('[data-testid=photo-bench] [aria-label*=", at "]').first();
  const before = await mark.boundingBox();
  await pen('mousePressed', x, y);
  for (let d = 4; d <= 24; d += 4) await pen('mouseMoved', x + d, y);
  await pen('mouseReleased', x + 24, y);
  await page.getByText('1 of 24 points').waitFor();
  expect((await mark.boundingBox())?.x).toBeGreaterThan((before?.x ?? 0) + 10);

  const made = await copyOfAvocet('By pen, crowns');
  const stroked = async (force: number): Promise<number> => {
    await open(page, made.id, 'shape');
    await page.getByRole('row', { name: /^added/ }).waitFor({ timeout: 90_000 });
    await page.keyboard.press('b');
    const canvas = await page.locator('canvas').first().boundingBox();
    const at = [
      (canvas?.x ?? 0) + (canvas?.width ?? 0) * 0.44,
      (canvas?.y ?? 0) + (canvas?.height ?? 0) * 0.53,
    ] as const;
    const count = async () =>
      (await made.client.get<CaseDetail>(`/cases/${made.id}`)).body.sections.shape.data.teeth.flatMap(
        (t) => t.strokes ?? [],
      );
    const had = (await count()).length;
    await pen('mouseMoved', at[0], at[1], 0);
    await pen('mousePressed', at[0], at[1], force);
    for (let d = 2; d <= 12; d += 2) await pen('mouseMoved', at[0] + d, at[1] + d, force);
    await pen('mouseReleased', at[0] + 12, at[1] + 12, 0);
    for (let n = 0; n < 100 && (await count()).length === had; n++) await page.waitForTimeout(100);
    const strokes = await count();
    expect(strokes.length).toBeGreaterThan(had);
    return Math.max(...strokes.slice(had).map((k) => Math.abs(k.amount)));
  };
  const light = await stroked(0.15);
  expect(await stroked(0.9)).toBeGreaterThan(1.5 * light);
  expect(v.troubles).toEqual([]);
});
