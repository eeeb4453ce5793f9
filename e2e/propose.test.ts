import { closeBrowser, copyOfAvocet, open, saved, type Visit, visit } from './browser.js';

let v: Visit;
beforeAll(async () => {
  v = await visit();
});
afterAll(closeBrowser);

/** Target length and width of a tooth as the table shows them. */
async function target(tooth: number): Promise<{ length: number; width: number; ratio: number }> {
  const cells = await v.page.getByTestId(`target-${tooth}`).locator('td').allInnerTexts();
  // Behind the figure stands, for screen readers, what its button does.
  const last = (s: string | undefined) => Number((s ?? '').replace(/\s*How was this.*$/s, '').match(/\d+\.\d$/)?.[0]);
  return { length: last(cells[2]), width: last(cells[4]), ratio: Number.parseFloat(cells[6] ?? '') };
}

it('the edge level lengthens the centrals by as much, and the widths fill the space in both schools', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Proposed');
  await open(page, id, 'propose');
  await page.getByTestId('target-11').waitFor();
  const before = await target(11);
  const edge = page.getByLabel('Edge set down').first();
  await edge.fill('1.5');
  await page.getByText('+1.5').first().waitFor();
  const after = await target(11);
  expect(after.length - before.length).toBeCloseTo(1, 1);
  const sum = async () => (await Promise.all([13, 12, 11, 21, 22, 23].map(target))).reduce((s, t) => s + t.width, 0);
  const shown = page.locator('aside').getByText(/^\d\d\.\d/);
  const space = Number.parseFloat(String(await shown.first().textContent()));
  expect(Math.abs((await sum()) - space)).toBeLessThan(0.35);

  await edge.fill('9');
  await page.getByText('Between −3.0 and 4.0 mm; not taken.').waitFor();
  await edge.fill('0');
  await page.getByText('reference tooth', { exact: true }).click();
  await page.getByLabel('Reference tooth', { exact: true }).selectOption('11');
  const [left, right] = await Promise.all([target(21), target(11)]);
  expect(left.length).toBe(right.length);
  expect(left.width).toBe(right.width);
  expect(Math.abs((await sum()) - space)).toBeLessThan(0.35);
  await saved(page);
  const stored = (await client.get<{ sections: { propose: { data: object } } }>(`/cases/${id}`)).body.sections.propose.data;
  expect(stored).toEqual({ school: 'reference', referenceTooth: 11, edgeMm: 0 });
});

it('schools stand side by side; a width that is held stays while the others share what is left; too much is told', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Schooled');
  await open(page, id, 'propose');
  await page.getByTestId('target-11').waitFor();
  expect(await page.getByRole('radio', { name: /ratio|width|tooth|means|liked/ }).count()).toBeGreaterThanOrEqual(8);
  await page.getByText('golden ratio', { exact: true }).click();
  const golden = await target(13);
  await page.getByText('recurring ratio', { exact: true }).click();
  await page.getByLabel('Each tooth of the one before').first().fill('0.8');
  await page.getByLabel('Each tooth of the one before').first().press('Tab');
  await page.waitForTimeout(100);
  expect((await target(13)).width).toBeGreaterThan(golden.width + 0.5);

  await page.getByRole('button', { name: 'hold the width of 11' }).click();
  const held = page.getByLabel('width of 11, mm');
  await held.fill('9.4');
  await page.waitForTimeout(100);
  expect((await target(11)).width).toBe(9.4);
  expect((await target(21)).width).toBe(9.4);
  await held.fill('13.5');
  await page.getByText(/The teeth need \d+\.\d mm more than there is/).waitFor();
  await page.getByRole('button', { name: 'hold the width of 11' }).click();

  const before = await target(11);
  await page.getByLabel('Gum moved up').first().fill('1.2');
  await page.getByText(/more than a usual sulcus: the new margin must keep about 2\.7 mm to the bone/).waitFor();
  expect((await target(11)).length - before.length).toBeCloseTo(1.2, 1);
  await page.getByLabel('close the gaps').uncheck();
  await saved(page);
  const { data } = (await client.get<{ sections: { propose: { data: object } } }>(`/cases/${id}`)).body.sections.propose;
  expect(data).toMatchObject({ school: 'recurring', ratio: 0.8, gumMm: 1.2, gaps: 'keep', locked: [] });
  expect(v.troubles).toEqual([]);
});

it('a tooth taken as reference in read sets the school', async () => {
  const { page } = v;
  const { id } = await copyOfAvocet('Referred');
  await open(page, id, 'read');
  await page.getByRole('radio', { name: /^23/ }).click();
  await page.getByRole('button', { name: 'Take 23 as reference' }).click();
  await page.getByLabel('Reference tooth', { exact: true }).waitFor();
  expect(await page.getByLabel('Reference tooth', { exact: true }).inputValue()).toBe('23');
  await saved(page);
});

it('without measures says what to do', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Bare');
  await client.patch(`/cases/${id}/sections/read`, { version: 1, data: { landmarks: [] } });
  await open(page, id, 'propose');
  await page.getByText('Targets need measures first').waitFor();
  expect(v.troubles).toEqual([]);
});
