import type { CaseDetail } from '@radiant/contract';
import { closeBrowser, copyOfAvocet, holds, open, picture, saved, type Visit, visit } from './browser.js';

let v: Visit;
let kase: Awaited<ReturnType<typeof copyOfAvocet>>;
beforeAll(async () => {
  v = await visit();
  kase = await copyOfAvocet('Shaped');
});
afterAll(closeBrowser);

const planOf = async (tooth: number) => (await kase.client.get<CaseDetail>(`/cases/${kase.id}`)).body.sections.shape.data.teeth.find((t) => t.tooth === tooth);
const six = () =>
  v.page.waitForFunction(() => document.querySelector('[data-testid=planned-count]')?.textContent?.startsWith('6'), undefined, { timeout: 90_000 });

it('shows six planned surfaces over the scan, and a number changes one', async () => {
  const { page } = v;
  await open(page, kase.id, 'shape');
  await six();
  await page.getByRole('radio', { name: /^11/ }).click();
  const length = page.getByLabel('Length').first();
  const before = await length.inputValue();
  await page.getByText(/^scan 9\.9/).waitFor();
  const added = page.getByText('mm added');
  const was = await added.textContent();
  await length.fill('11.5');
  await page.waitForFunction((old) => ![...document.querySelectorAll('span')].some((s) => s.textContent === old), was);
  await saved(page);
  expect((await planOf(11))?.lengthMm).toBe(11.5);

  await length.fill('40');
  await page.getByText('Between 5.00 and 16.00 mm; not taken.').waitFor();
  expect((await planOf(11))?.lengthMm).toBe(11.5);

  await length.fill('11.5');
  await page.getByRole('button', { name: 'Undo' }).click();
  await holds(length, before);
  await page.getByRole('button', { name: 'Redo' }).click();
  await holds(length, '11.50');
  await saved(page);
});

it('sliders and arrow keys move by steps, one undo for one drag', async () => {
  const { page } = v;
  const rotation = page.getByLabel('Rotation, mesial forward').first();
  await rotation.focus();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Shift+ArrowUp');
  await holds(rotation, '5.5');
  const thumb = page.getByRole('slider', { name: 'Width' });
  const width = page.getByLabel('Width').first();
  const before = await width.inputValue();
  const box = (await thumb.boundingBox()) as { x: number; y: number; width: number; height: number };
  await page.mouse.move(box.x + 8, box.y + 8);
  await page.mouse.down();
  await page.mouse.move(box.x + 30, box.y + 8, { steps: 6 });
  await page.mouse.up();
  const after = Number(await width.inputValue());
  expect(after).toBeGreaterThan(Number(before) + 0.4);
  await page.getByRole('button', { name: 'Undo' }).click();
  await holds(width, before);
  await saved(page);
});

it('names a contour stale when the proposal has changed, and sets it anew', async () => {
  const { page } = v;
  await page.getByRole('link', { name: 'propose', exact: true }).click();
  await page.getByLabel('Edge set down').first().fill('1');
  await saved(page);
  await page.getByRole('link', { name: 'shape', exact: true }).click();
  await page.getByText('The proposal has changed since').waitFor();
  await six();
  await page.getByRole('button', { name: 'Set the crowns to the proposal' }).click();
  await page.getByText('The proposal has changed since').waitFor({ state: 'detached' });
  await saved(page);
  await picture(page, 'shape');
  expect((await planOf(11))?.lengthMm).toBeCloseTo(11, 0);
});

it('a broken scan is refused in a sentence and the old one stays', async () => {
  const { page } = v;
  await page.getByLabel('Scan file').setInputFiles({ name: 'x.stl', mimeType: 'model/stl', buffer: Buffer.from('solid nothing\nendsolid nothing\n') });
  await page.getByText('The STL file holds no triangles.').waitFor();
  await six();
  expect(v.troubles).toEqual([]);
});

it('a technician turns the arch and comments, and the numbers stand still', async () => {
  const t = await visit('technician');
  await open(t.page, kase.id, 'shape');
  await t.page.getByText('You read and comment here; the dentist decides.').waitFor();
  expect(await t.page.getByLabel('Length').first().isDisabled()).toBe(true);
  await t.page.getByPlaceholder('Write a comment').fill('Incisal embrasures a little deeper, please.');
  await t.page.getByRole('button', { name: 'Send' }).click();
  await t.page.getByText('Incisal embrasures a little deeper, please.').waitFor();
  expect(t.troubles).toEqual([]);
});

it('a contour is kept as a version, worn, approved by the patient, and gone on from', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Versioned');
  await open(page, id, 'shape');
  const versions = page.getByRole('region', { name: 'Versions' });
  await versions.getByRole('button', { name: 'keep as version' }).click();
  const keep = page.getByRole('dialog', { name: 'Keep this contour' });
  await keep.getByRole('button', { name: 'Keep it' }).click();
  await keep.getByText('The name of a version has 1 to 60 characters.').waitFor();
  await keep.getByLabel('Name').fill('for the mock-up');
  await keep.getByRole('button', { name: 'Keep it' }).click();
  await versions.getByRole('button', { name: /^1 · for the mock-up/ }).click();
  const card = page.getByRole('dialog', { name: 'Version 1: for the mock-up' });
  await card.getByText('The same in every number.').waitFor();
  await card.getByLabel('Put in on').fill('2026-11-17');
  await card.getByLabel('Speech').fill('a slight lisp at first');
  await card.getByRole('button', { name: 'note it' }).click();
  await card.getByLabel('How the patient approved it, in a word').fill('after a week of wearing');
  await card.getByRole('button', { name: 'Approved by the patient' }).click();
  await card.getByText('after a week of wearing').waitFor();
  await card.getByRole('button', { name: 'Close' }).click();
  await open(page, id, 'reduce');
  await page.getByText('as kept in “for the mock-up”, approved by the patient').waitFor();

  await open(page, id, 'shape');
  await page.getByLabel('Length').first().fill('11.20');
  await saved(page);
  await versions.getByRole('button', { name: /^1 · for the mock-up.*approved by the patient/ }).click();
  await card.getByRole('row', { name: /length, mm/ }).waitFor();
  await card.getByRole('button', { name: 'Close' }).click();
  await open(page, id, 'reduce');
  await page.getByText('changed since “for the mock-up” was approved').waitFor();
  await open(page, id, 'shape');
  await versions.getByRole('button', { name: /^1 · for the mock-up/ }).click();
  await card.getByRole('button', { name: 'Go on from this one' }).click();
  await saved(page);
  const { contours, sections } = (await client.get<CaseDetail>(`/cases/${id}`)).body;
  expect(contours).toHaveLength(1);
  expect(contours[0]).toMatchObject({ worn: { speech: 'a slight lisp at first' }, approved: { word: 'after a week of wearing' } });
  expect(sections.shape.data.teeth).toEqual(contours[0]?.teeth);
  expect(v.troubles).toEqual([]);
});
