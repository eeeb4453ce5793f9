import { closePages, copyOfAvocet, open, picture, saved, type Visit, visit } from './browser.js';

let v: Visit;
let kase: Awaited<ReturnType<typeof copyOfAvocet>>;
beforeAll(async () => {
  v = await visit();
  kase = await copyOfAvocet('Reduced');
  await open(v.page, kase.id, 'reduce');
  await v.page.getByRole('img', { name: 'Existing, planned and target lines with dimensions' }).waitFor({ timeout: 90_000 });
});
afterAll(closePages);

const row = async (zone: string) => {
  const cells = await v.page
    .locator('aside table tr', { has: v.page.getByRole('button', { name: zone, exact: true }) })
    .locator('td')
    .allInnerTexts();
  return { needs: Number(cells[1]), gap: Number((cells[2] ?? '').replace('−', '-')), remove: cells[3] ?? '' };
};

it('removal is needed thickness less the gap, in each zone of each tooth', async () => {
  for (const tooth of [11, 12, 23]) {
    await v.page.getByRole('radio', { name: new RegExp(`^${tooth}`) }).click();
    await v.page.getByRole('heading', { name: `${tooth} · graduated veneer` }).waitFor();
    for (const zone of ['cervical', 'middle', 'incisal', 'edge']) {
      const r = await row(zone);
      const expected = r.needs - r.gap;
      if (r.remove.startsWith('none')) expect(expected).toBeLessThanOrEqual(0.03);
      else expect(Math.abs(Number.parseFloat(r.remove) - expected)).toBeLessThan(0.011);
    }
  }
});

it('through the mock-up grooves are as deep as the thickness, from the tooth as deep as the removal', async () => {
  const { page } = v;
  await page.getByRole('radio', { name: /^11/ }).click();
  expect((await row('middle')).needs).toBe(0.5);
  await page.getByTestId('groove-middle').getByText('0.5').waitFor();
  await page.getByRole('button', { name: 'from the tooth' }).click();
  await page.getByText('Groove depth is the removal').waitFor();
  const removal = Number.parseFloat((await row('middle')).remove);
  await page.waitForFunction(() => document.querySelector('[data-testid=groove-middle]')?.textContent !== '0.5');
  const depth = await page.getByTestId('groove-middle').textContent();
  if (depth !== '–') expect(Number(depth)).toBeLessThanOrEqual(removal + 0.05);
  await saved(page);
});

it('the even veneer needs more, flattens the edge, and says where enamel runs out', async () => {
  const { page } = v;
  const graduated = Number.parseFloat((await row('middle')).remove);
  await page.getByLabel('Design of all teeth').selectOption('even');
  await page.getByRole('heading', { name: '11 · even veneer' }).waitFor();
  await page.waitForFunction(() => document.querySelector('[data-testid=remove-11-edge]')?.textContent === 'flat');
  expect(Number.parseFloat((await row('middle')).remove)).toBeCloseTo(graduated + 0.3, 1);
  await page.getByText(/edge: flatten only; the plan lengthens/).waitFor();
  await page.getByText(/cervical: .* (may reach dentin|goes through the enamel)/).waitFor();
  await picture(page, 'reduce-even');
  await saved(page);
});

it('keys choose zone, tooth and strategy', async () => {
  const { page } = v;
  await page.keyboard.press('3');
  await page.getByText('incisal, to remove').waitFor();
  await page.keyboard.press(']');
  await page.getByRole('heading', { name: '21 · even veneer' }).waitFor();
  await page.keyboard.press('m');
  await page.getByText('Groove depth is the needed thickness').waitFor();
  expect(v.troubles).toEqual([]);
});
