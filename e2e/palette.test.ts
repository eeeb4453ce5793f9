import { closePages, copyOfAvocet, open, type Visit, visit } from './browser.js';

let v: Visit;
beforeAll(async () => {
  v = await visit();
});
afterAll(closePages);

it('a stage, a tool, a tooth and another case are found by their names, with keys alone', async () => {
  const { page, troubles } = v;
  const first = await copyOfAvocet('Finder one');
  await copyOfAvocet('Finder two');
  await open(page, first.id, 'read');
  await page.getByRole('button', { name: /^find/ }).waitFor();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('propo');
  await page.getByRole('option', { name: /^propose/ }).waitFor();
  await page.keyboard.press('Enter');
  await page.waitForURL(/\/propose$/);
  await page.getByRole('dialog').waitFor({ state: 'detached' });

  await page.keyboard.press('Control+k');
  await page.keyboard.type('22 lat');
  await page.getByRole('option', { name: /^22/ }).waitFor();
  await page.keyboard.press('Enter');
  await page.getByRole('radio', { name: /^22/, checked: true }).waitFor();

  await open(page, first.id, 'shape');
  await page.getByText(/form fits it to/).waitFor({ timeout: 60_000 });
  await page.keyboard.press('Control+k');
  await page.keyboard.type('section');
  await page.getByRole('option', { name: /section, on or off/ }).waitFor();
  await page.keyboard.press('Enter');
  await page.getByRole('region', { name: 'Section' }).waitFor();

  await page.getByRole('button', { name: /^find/ }).click();
  await page.keyboard.type('finder two');
  await page.getByRole('option', { name: /^Finder two/ }).waitFor();
  await page.keyboard.press('Enter');
  await page.getByRole('heading', { name: 'Finder two' }).waitFor();
  expect(troubles).toEqual([]);
});

it('a key is given another, clashes are told, and keys without Ctrl are turned off', async () => {
  const { page } = v;
  const { id } = await copyOfAvocet('Own keys');
  await open(page, id, 'shape');
  await page.getByText(/form fits it to/).waitFor({ timeout: 60_000 });
  const section = page.getByRole('region', { name: 'Section' });
  await page.keyboard.press('?');
  await page.getByRole('button', { name: 'X: section, on or off, change' }).click();
  await page.keyboard.press('b');
  await page.getByText('B does “brush, on or off”; take another, or change that one first.').waitFor();
  await page.keyboard.press('y');
  await page.getByRole('button', { name: 'Y: section, on or off, change' }).waitFor();
  await page.keyboard.press('Escape');
  await page.keyboard.press('x');
  await page.keyboard.press('y');
  await section.waitFor();
  await page.keyboard.press('y');
  await section.waitFor({ state: 'detached' });
  await page.keyboard.press('?');
  await page.getByLabel('keys without Ctrl or Alt work').click();
  await page.keyboard.press('Escape');
  await page.keyboard.press('y');
  await page.waitForTimeout(200);
  expect(await section.count()).toBe(0);
  // The list is found by its name still.
  await page.keyboard.press('Control+k');
  await page.keyboard.type('this list');
  await page.keyboard.press('Enter');
  await page.getByLabel('keys without Ctrl or Alt work').click();
  await page.getByRole('button', { name: 'all keys as they were' }).click();
  await page.getByRole('button', { name: 'X: section, on or off, change' }).waitFor();
  await page.keyboard.press('Escape');
});
