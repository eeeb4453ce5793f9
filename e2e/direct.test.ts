import type { CaseDetail } from '@radiant/contract';
import { closePages, copyOfAvocet, open, saved, type Visit, visit } from './browser.js';

let v: Visit;
let kase: Awaited<ReturnType<typeof copyOfAvocet>>;
beforeAll(async () => {
  v = await visit();
  kase = await copyOfAvocet('Built of composite');
  await open(v.page, kase.id, 'direct');
});
afterAll(closePages);

it('says how much is missing, in which layers, and draws them', async () => {
  const { page } = v;
  const layers = page.getByRole('region', { name: 'Layers of 11' });
  await layers.getByRole('heading', { name: /11: \d+\.\d mm³ to fill/ }).waitFor({ timeout: 90_000 });
  await layers.getByRole('row', { name: /enamel/ }).waitFor();
  await layers.getByText(/J\/cm²; about 16 are wanted/).waitFor();
  const sections = page.getByRole('region', { name: 'Sections of 11' }).getByRole('img');
  expect(await sections.count()).toBe(3);
  expect(await sections.first().getAttribute('aria-label')).toMatch(/thickest is/);
});

it('follows what is set, key by key, and keeps it', async () => {
  const { page } = v;
  const enamel = async () =>
    Number(
      (await page
        .getByRole('row', { name: /enamel/ })
        .getByRole('cell')
        .first()
        .textContent()) ?? '',
    );
  const before = await enamel();
  const field = page.getByLabel('enamel under the surface').first();
  await field.click();
  await page.keyboard.press('Control+A');
  await page.keyboard.type('0.2');
  await page.keyboard.press('Enter');
  await page.waitForFunction(
    (was) =>
      Number(
        [...document.querySelectorAll('tr')].find((r) => /^enamel/.test(r.textContent ?? ''))?.querySelector('td')
          ?.textContent,
      ) < was,
    before,
  );
  await saved(page);
  expect((await kase.client.get<CaseDetail>(`/cases/${kase.id}`)).body.sections.direct.data.enamelMm).toBe(0.2);
  const light = page.getByLabel('light for each increment').first();
  await light.click();
  await page.keyboard.press('Control+A');
  await page.keyboard.type('5');
  await page.keyboard.press('Enter');
  await page.getByText(/about 16 are wanted: light it longer/).waitFor();
  expect(v.troubles).toEqual([]);
});
