import { readFile } from 'node:fs/promises';
import type { CaseDetail } from '@radiant/contract';
import { closePages, copyOfAvocet, open, saved, typed, type Visit, visit } from './browser.js';

let v: Visit;
let kase: Awaited<ReturnType<typeof copyOfAvocet>>;
beforeAll(async () => {
  v = await visit();
  kase = await copyOfAvocet('Matched');
  await open(v.page, kase.id, 'match');
});
afterAll(closePages);

const section = async () => (await kase.client.get<CaseDetail>(`/cases/${kase.id}`)).body.sections.match.data;
const ceramics = () => v.page.getByRole('table', { name: 'Ceramics' });
const differenceOf = async (name: string) =>
  Number.parseFloat((await ceramics().getByRole('row', { name }).locator('td').nth(1).textContent()) ?? '');

it('a zone without a reading says what to enter; shade, colour and stump are typed, and the ceramics told over them', async () => {
  const { page } = v;
  await page.getByRole('radio', { name: /^12/ }).click();
  await page.getByRole('heading', { name: '12, body: what is under the ceramic?' }).waitFor({ timeout: 90_000 });
  await page.getByLabel('Wanted shade').selectOption('A1');
  const whole = page.getByRole('group', { name: '12 before it is cut' });
  await whole.getByRole('button', { name: 'enter its colour' }).click();
  await typed(page.getByLabel('L* of 12 before it is cut'), '60.5');
  await page.keyboard.press('Tab');
  await ceramics().waitFor({ timeout: 60_000 });
  await page.getByText(/The stump is worked out from the uncut tooth: read it once it is cut\./).waitFor();
  const clear = await differenceOf('glass-ceramic, high translucency');
  const opaque = await differenceOf('zirconia, high strength');
  expect(clear).toBeGreaterThan(opaque + 1);
  // The stump is read, dry; a dry one is flagged, and the answer is of what was read.
  const stump = page.getByRole('group', { name: 'its stump, cut' });
  await stump.getByRole('button', { name: 'enter its colour' }).click();
  await typed(page.getByLabel('L* of its stump, cut'), '48');
  await page.keyboard.press('Tab');
  await stump.getByRole('checkbox', { name: 'wet' }).click();
  await page.getByText(/Read dry: a dry tooth looks lighter for hours to days\./).waitFor();
  await page.getByText('stump, read', { exact: true }).waitFor();
  await saved(page);
  const { readings, wanted } = await section();
  expect(wanted).toBe('A1');
  expect(readings.filter((r) => r.tooth === 12).map((r) => [r.of, r.zone, r.L, r.wet])).toEqual([
    ['tooth', 'body', 60.5, true],
    ['stump', 'body', 48, false],
  ]);
  expect(v.troubles).toEqual([]);
});

it('another ceramic is chosen for one tooth, the cement changes the figures, and what no tooth has is not taken', async () => {
  const { page } = v;
  const before = await differenceOf('glass-ceramic, medium translucency');
  await page.getByLabel('Cement').selectOption('opaque');
  await page.waitForFunction(
    ([was]) => {
      const row = [...document.querySelectorAll('table[aria-label=Ceramics] tr')].find((r) =>
        r.textContent?.includes('glass-ceramic, medium'),
      );
      return Number.parseFloat(row?.querySelectorAll('td')[1]?.textContent ?? '') < (was as number) - 0.2;
    },
    [before],
  );
  await ceramics().getByRole('radio', { name: 'zirconia, high strength' }).click();
  await page.getByText(/^Zirconia, high strength, \d\.\d\d mm as planned: ΔE00/).waitFor();
  const L = page.getByLabel('L* of 12 before it is cut');
  await typed(L, '120');
  await page.getByText('Between 20.0 and 98.0; not taken.').waitFor();
  await page.keyboard.press('Escape');
  await saved(page);
  expect(await section()).toMatchObject({ cement: 'opaque', own: [{ tooth: 12, ceramic: 'zirconia-strong' }] });
  // A reading is taken out again, and the zone asks for one.
  for (const name of ['12 before it is cut', 'its stump, cut'])
    await page.getByRole('group', { name }).getByRole('button', { name: 'take it out' }).click();
  await page.getByRole('heading', { name: '12, body: what is under the ceramic?' }).waitFor();
  await page.keyboard.press('1');
  await page.getByRole('heading', { name: '12, gum', exact: true }).waitFor();
  await saved(page);
  expect((await section()).readings.some((r) => r.tooth === 12)).toBe(false);
  expect(v.troubles).toEqual([]);
});

it('readings come as a table: a wrong line is told, the rest is shown before it is taken over, and goes out again', async () => {
  const { page } = v;
  const input = page.getByLabel('Readings as CSV');
  const table = (rows: string) => ({
    name: 'meter.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(`tooth,of,zone,wet,at,L,a,b\n${rows}`),
  });
  await input.setInputFiles(table('13,tooth,body,damp,2026-11-20,74,1,18\n'));
  await page
    .getByText('meter.csv: Line 2: “damp” in the column “wet”; known are wet, dry. Nothing was changed.')
    .waitFor();
  await input.setInputFiles(
    table(
      '13,tooth,body,wet,2026-11-20,74,1,18\n11,tooth,body,dry,2026-11-20,80,0,14\n36,tooth,body,wet,2026-11-20,70,1,19\n',
    ),
  );
  const dialog = page.getByRole('dialog');
  await dialog.getByText('Left out: 36. Colours are read on front teeth and premolars.').waitFor();
  await dialog.getByText(/Some were read dry/).waitFor();
  await dialog.getByRole('button', { name: 'Take over 2, replacing 1' }).click();
  await saved(page);
  const { readings } = await section();
  expect(readings.filter((r) => r.tooth === 13).map((r) => [r.L, r.wet])).toEqual([[74, true]]);
  expect(readings.filter((r) => r.tooth === 11 && r.zone === 'body').map((r) => [r.L, r.wet])).toEqual([[80, false]]);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'save all as CSV' }).click(),
  ]);
  expect(await readFile(await download.path(), 'utf8')).toMatch(
    /13,tooth,body,wet,2026-11-20T00:00:00.000Z,,,74.00,1.00,18.00/,
  );
  expect(v.troubles).toEqual([]);
});

it('the planned teeth are shown as predicted and where their stumps show; bleaching first and what the laboratory is told are kept', async () => {
  const { page } = v;
  await page.getByRole('radio', { name: /^11/ }).click();
  await page.getByRole('button', { name: 'in the mouth' }).click();
  await page.getByText(/^[1-6] teeth in predicted colour$/).waitFor({ state: 'attached', timeout: 60_000 });
  await page.keyboard.press('p');
  await page.getByText('how much of the stump shows').waitFor();
  await page.getByRole('button', { name: 'zone by zone' }).click();
  await page.getByRole('checkbox', { name: 'bleach 11 first' }).click();
  await page.getByLabel('Shade after bleaching').selectOption('B1');
  await typed(page.getByLabel('Days to wait after bleaching'), '10');
  await page.keyboard.press('Tab');
  await page.getByLabel('Bleaching ended on').fill('2026-11-15');
  await page.getByText(/Its colour counts from 25 November/).waitFor();
  await page.getByText('Read before its colour has settled after bleaching: not used.').first().waitFor();
  await page.getByLabel('edge translucency').selectOption('high');
  await typed(page.getByLabel('Note on 11 for the laboratory'), 'a halo at the edge');
  await saved(page);
  const data = await section();
  expect(data.bleaching).toEqual([{ tooth: 11, to: 'B1', waitDays: 10, endedOn: '2026-11-15' }]);
  expect(data.character).toEqual([{ tooth: 11, translucency: 'high', note: 'a halo at the edge' }]);
  expect(v.troubles).toEqual([]);
});

it('a rough colour is taken from a photograph by a place on a card and one on the tooth, and stays rough', async () => {
  const { page } = v;
  await page.getByRole('radio', { name: /^22/ }).click();
  await page
    .getByRole('group', { name: '22 before it is cut' })
    .getByRole('button', { name: 'from a photograph' })
    .click();
  const dialog = page.getByRole('dialog');
  const picture = dialog.getByRole('img');
  await picture.evaluate((i: HTMLImageElement) => i.decode());
  const box = await picture.boundingBox();
  if (!box) throw new Error('The photograph is not there.');
  const at = (x: number, y: number) => page.mouse.click(box.x + x * box.width, box.y + y * box.height);
  await dialog.getByText('Press on the grey card.').waitFor();
  await at(0.5, 0.5);
  await dialog.getByText('Press on the tooth, away from shine.').waitFor();
  await at(0.52, 0.5);
  await dialog.getByTestId('rough-colour').waitFor();
  await dialog.getByRole('button', { name: 'Keep as rough reading' }).click();
  await page.getByText(/^Rough, from a photograph/).waitFor();
  await saved(page);
  expect((await section()).readings.find((r) => r.tooth === 22 && r.zone === 'gum' && r.of === 'tooth')).toMatchObject({
    rough: true,
    device: 'photograph',
  });
  expect(v.troubles).toEqual([]);
});
