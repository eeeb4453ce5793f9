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
