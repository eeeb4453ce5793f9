import { closePages, copyOfAvocet, open, type Visit, visit } from './browser.js';

let v: Visit;
beforeAll(async () => {
  v = await visit();
});
afterAll(closePages);

it('the light goes with the pointer, and the faces between the line angles are told left against right', async () => {
  const { page } = v;
  const { id } = await copyOfAvocet('Lit');
  await open(page, id, 'shape');
  await page.getByText(/form fits it to/).waitFor({ timeout: 60_000 });
  await page.keyboard.press('i');
  const table = page.getByRole('table', { name: 'Width of the reflecting face' });
  await table.waitFor();
  const cells = async (row: number) => table.getByRole('row').nth(row).getByRole('cell').allInnerTexts();
  // The small lateral’s face is narrower than its fellow’s; as planned the centrals are alike.
  const laterals = await cells(2);
  expect(laterals[0]).toMatch(/^12 \| 22$/);
  expect(laterals[2]).toMatch(/^0\.\d ±0\.\d$/);
  expect((await cells(1))[4]).toBe('alike');
  // Another place of the light is another picture.
  const scene = page.getByLabel('Upper arch in three dimensions');
  const box = await scene.boundingBox();
  if (!box) throw new Error('The arch is not on the bench.');
  const shot = async (x: number, y: number) => {
    await page.mouse.move(box.x + x * box.width, box.y + y * box.height);
    await page.waitForTimeout(400);
    return scene.screenshot();
  };
  const [left, right] = [await shot(0.2, 0.2), await shot(0.8, 0.7)];
  expect(left.equals(right)).toBe(false);
  await page.keyboard.press('i');
  await table.waitFor({ state: 'detached' });
});
