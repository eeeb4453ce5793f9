import { readFile } from 'node:fs/promises';
import type { CaseDetail } from '@radiant/contract';
import { signedIn, URL_ } from '../server/test/house.js';
import { closePages, typed, type Visit, visit } from './browser.js';
import { type HouseSettings, houseSettings } from './house-settings.js';

let v: Visit;
let house: HouseSettings;

beforeAll(async () => {
  v = await visit();
  house = await houseSettings();
  await v.page.getByRole('link', { name: 'trays' }).click();
  await v.page.getByRole('heading', { name: 'Trays and thicknesses' }).waitFor();
});
afterAll(async () => {
  await house.putBack();
  await closePages();
});

it('a bur is typed in key by key, one that can’t be is told and not saved, and a tray is copied, named and put first', async () => {
  const { page, troubles } = v;
  await page.getByRole('button', { name: 'Copy as a new tray' }).click();
  await page.getByRole('button', { name: 'new tray', pressed: true }).waitFor();
  await typed(page.getByLabel('Name'), 'slim set');
  await page.keyboard.press('Enter');
  await house.until((s) => s.trays[1]?.name === 'slim set');
  await typed(page.getByLabel('tip of bur 1, mm'), '1.7');
  await page.keyboard.press('Tab');
  await page.getByText('The tip, 1.7 mm, is wider than the bur is anywhere, 1.4 mm.').waitFor();
  await page.getByText(/Not saved until this is mended/).waitFor();
  expect((await house.now()).data.trays[1]?.burs[0]?.tipMm).toBe(0.8);
  await typed(page.getByLabel('largest of bur 1, mm'), '2');
  await page.keyboard.press('Tab');
  await house.until((s) => s.trays[1]?.burs[0]?.tipMm === 1.7 && s.trays[1].burs[0].largestMm === 2);
  await page.getByText(/Not saved until/).waitFor({ state: 'detached' });
  // Half of it and all of it, tip and body.
  await page.getByRole('row', { name: /0\.85 · 1\.00 · 1\.70 · 2\.00/ }).waitFor();
  await page.getByRole('button', { name: 'cases begin with this tray' }).click();
  await house.until((s) => s.trays[0]?.name === 'slim set');
  const { body } = await (await signedIn('dentist')).post<CaseDetail>('/cases', { name: 'By tray' });
  expect(body.sections.reduce.data.tray?.name).toBe('slim set');
  expect(troubles).toEqual([]);
});

it('a tray goes out as CSV and comes in again; a table that is none is told by its line, and nothing is changed', async () => {
  const { page, troubles } = v;
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as CSV' }).click(),
  ]);
  const csv = (await readFile(await download.path())).toString('utf8');
  expect(csv).toContain('shape,largest mm,tip mm,length mm,shank mm,grit,note\r\n');
  const put = (name: string, text: string) =>
    page.getByLabel('Tray as CSV').setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
  await put('from the cupboard.csv', csv.replace('round-end,2,1.7', 'round-end,2.1,1.7'));
  await house.until((s) => s.trays.some((t) => t.name === 'from the cupboard' && t.burs[0]?.largestMm === 2.1));
  const before = (await house.now()).version;
  await put('wrong.csv', csv.replace('ball,1.8', 'bowl,1.8'));
  await page.getByText(/wrong\.csv: Line \d+: “bowl” is no shape; .* Nothing was changed\./).waitFor();
  await put('other.csv', 'name;price\nball;3\n');
  await page.getByText(/other\.csv: The table has no column “shape”/).waitFor();
  expect((await house.now()).version).toBe(before);
  await page.getByRole('button', { name: 'take the tray away' }).click();
  await house.until((s) => !s.trays.some((t) => t.name === 'from the cupboard'));
  expect(troubles).toEqual([]);
});

it('thicknesses of the house are typed beside the usual ones, and too thin ones are told', async () => {
  const { page } = v;
  await typed(page.getByLabel('graduated veneer, middle, mm'), '0.65');
  await page.keyboard.press('Tab');
  await house.until((s) => s.thickness.some((t) => t.design === 'graduated' && t.middle === 0.65 && t.edgeMm === 1.5));
  await page
    .getByRole('cell', { name: '0.3 · 0.5 · 0.7 · 1.5 · 0.0 · 0.0 take the usual of graduated veneer' })
    .waitFor();
  await typed(page.getByLabel('even veneer, cervical, mm'), '0.2');
  await page.keyboard.press('Tab');
  await page.getByText(/thinner than 0\.3 mm, the least of its material: cervical/).waitFor();
  await page.getByRole('button', { name: 'take the usual of even veneer' }).click();
  await house.until((s) => !s.thickness.some((t) => t.design === 'even'));
  const technician = await visit('technician');
  await technician.page.goto(`${URL_}/trays`);
  await technician.page.getByText('A dentist of the practice changes these.').waitFor();
  expect(await technician.page.getByLabel('graduated veneer, middle, mm').isDisabled()).toBe(true);
});
