import { readFile } from 'node:fs/promises';
import { URL_ } from '../server/test/house.js';
import { closePages, copyOfAvocet, open, typed, type Visit, visit } from './browser.js';
import { type HouseSettings, houseSettings } from './house-settings.js';

let v: Visit;
let house: HouseSettings;

beforeAll(async () => {
  v = await visit();
  house = await houseSettings();
  await v.page.goto(`${URL_}/materials`);
  await v.page.getByRole('heading', { name: 'Ceramics, shades and rules' }).waitFor();
});
afterAll(async () => {
  await house.putBack();
  await closePages();
});

const csv = (name: string, text: string) => ({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });

it('a plate read over black and white comes in as a table, a wrong one is told; so do shades of a scale', async () => {
  const { page } = v;
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save an example table' }).click(),
  ]);
  const example = await readFile(await download.path(), 'utf8');
  await page
    .getByLabel('Ceramic as CSV')
    .setInputFiles(csv('upside down.csv', example.replace('over black', 'over blue')));
  await page.getByText(/upside down\.csv: Line 2: “over blue” is no reading of a plate/).waitFor();
  await page.getByLabel('Ceramic as CSV').setInputFiles(csv('house glass A2.csv', example));
  await page.getByRole('row', { name: /house glass A2/ }).waitFor();
  await house.until((s) => s.plates[0]?.name === 'house glass A2' && s.plates[0].mm === 1);
  await page.getByLabel('Scale as CSV').setInputFiles(csv('our tabs.csv', 'shade,L,a,b\nT1,78,-1,12\nT2,74,1,18\n'));
  await page.getByText('2 shades').waitFor();
  await house.until((s) => s.scales[0]?.shades[1]?.L === 74);
  expect(v.troubles).toEqual([]);
});

it('a rule is switched off and turns at a number that is typed; a fee is typed, and both are there in decide', async () => {
  const { page } = v;
  await page.getByRole('checkbox', { name: 'clenching and grinding speaks' }).click();
  await typed(page.getByLabel('Where additive first turns, of the crown'), '0.1');
  await page.keyboard.press('Tab');
  await typed(page.getByLabel('Fee for graduated veneer, glass-ceramic'), '900');
  await page.keyboard.press('Tab');
  await typed(page.getByLabel('Currency'), 'EUR');
  await page.keyboard.press('Tab');
  await house.until(
    (s) =>
      s.rulesOff.includes('grinding') &&
      s.ruleLimits.some((l) => l.rule === 'additive-first' && l.value === 0.1) &&
      s.fees.some((f) => f.option === 'veneer' && f.fee === 900) &&
      s.currency === 'EUR',
  );
  const kase = await copyOfAvocet('By the house');
  await open(page, kase.id, 'decide');
  const list = page.getByRole('list', { name: 'Options' });
  await list.waitFor({ timeout: 120_000 });
  await list.getByText('EUR 900').waitFor();
  // Of a patient who grinds, and by a limit that veneers pass too.
  expect(await list.getByText(/^Grinds:/).count()).toBe(0);
  expect(await list.getByText(/Takes \d\d % of a crown that is still sound\./).count()).toBeGreaterThan(3);
  await page.getByText('in the house').waitFor();
  await open(page, kase.id, 'match');
  await page.getByRole('row', { name: /house glass A2/ }).waitFor({ timeout: 60_000 });
  await page.getByLabel('Wanted shade').selectOption('T2');
  await page.getByRole('radio', { name: /house glass A2/ }).click();
  await page.getByText(/^House glass A2, \d\.\d\d mm as planned: ΔE00/).waitFor();
  expect(v.troubles).toEqual([]);
});
