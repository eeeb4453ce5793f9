import type { CaseDetail } from '@radiant/contract';
import { closePages, copyOfAvocet, open, saved, type Visit, visit } from './browser.js';

let v: Visit;
let kase: Awaited<ReturnType<typeof copyOfAvocet>>;
beforeAll(async () => {
  v = await visit();
  kase = await copyOfAvocet('Pulled');
  await open(v.page, kase.id, 'shape');
  await v.page.getByRole('radio', { name: /^11/ }).click();
  await v.page.getByRole('row', { name: /^added/ }).waitFor({ timeout: 90_000 });
});
afterAll(closePages);

const crown = async () => {
  const { teeth } = (await kase.client.get<CaseDetail>(`/cases/${kase.id}`)).body.sections.shape.data;
  return teeth.find((t) => t.tooth === 11) as NonNullable<(typeof teeth)[number]>;
};

/** Drags a handle by px of the screen, in steps as a hand does. */
async function pull(name: RegExp, dx: number, dy: number): Promise<void> {
  const { page } = v;
  const box = await page.getByRole('slider', { name }).boundingBox();
  const [x, y] = [(box?.x ?? 0) + 13, (box?.y ?? 0) + 13];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let k = 1; k <= 5; k++) await page.mouse.move(x + (dx * k) / 5, y + (dy * k) / 5);
  await page
    .getByText(/^\d+\.\d\d mm$/)
    .first()
    .waitFor();
  await page.mouse.up();
  await saved(page);
}

it('the distal side makes the crown wider, with the figure beside it, and one step back takes the drag back', async () => {
  const { page } = v;
  const before = await crown();
  await pull(/^Distal side of 11/, -14, 0);
  const wider = await crown();
  // The bench shows some 14 px a millimetre here; the mesial side stands.
  expect(wider.widthMm - before.widthMm).toBeGreaterThan(0.6);
  expect(wider.widthMm - before.widthMm).toBeLessThan(1.6);
  expect({ ...wider, widthMm: 0 }).toEqual({ ...before, widthMm: 0 });
  await page.getByRole('button', { name: 'Undo' }).click();
  await saved(page);
  expect(await crown()).toEqual(before);
});

it('the edge makes it longer, by a drag and by keys; the zenith moves the gum and leaves the edge', async () => {
  const { page } = v;
  const before = await crown();
  await pull(/^Edge of 11/, 0, 10);
  const longer = await crown();
  expect(longer.lengthMm).toBeGreaterThan(before.lengthMm + 0.3);
  await page.getByRole('slider', { name: /^Edge of 11/ }).focus();
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('ArrowUp');
  await saved(page);
  expect((await crown()).lengthMm).toBeCloseTo(longer.lengthMm - 0.45, 6);
  const now = await crown();
  await pull(/^Zenith of 11/, 0, -8);
  const higher = await crown();
  const up = (higher.zenithUpMm ?? 0) - (now.zenithUpMm ?? 0);
  expect(up).toBeGreaterThan(0.2);
  expect(higher.lengthMm - now.lengthMm).toBeCloseTo(up, 6);
});

it('handles are out of the way while a tool is in the hand and from behind, and nobody’s who may not shape', async () => {
  const { page } = v;
  const edge = page.getByRole('slider', { name: /^Edge of 11/ });
  await page.keyboard.press('b');
  await edge.waitFor({ state: 'detached' });
  await page.keyboard.press('Escape');
  await edge.waitFor();
  await page.getByRole('button', { name: 'behind' }).click();
  await edge.waitFor({ state: 'hidden' });
  await page.getByRole('button', { name: 'front', exact: true }).click();
  await edge.waitFor();
  const other = await visit('technician');
  await open(other.page, kase.id, 'shape');
  await other.page.getByRole('row', { name: /^added/ }).waitFor({ timeout: 90_000 });
  expect(await other.page.getByRole('slider', { name: /^Edge of 11/ }).count()).toBe(0);
});

it('a character that is pointed at is shown on the crown and not kept', async () => {
  const { page } = v;
  const before = await crown();
  const added = page.getByRole('row', { name: /^added/ });
  const was = await added.textContent();
  await page.getByRole('button', { name: 'face', exact: true }).click();
  await page.getByRole('button', { name: 'square' }).hover();
  await page.waitForFunction(
    (t) => document.querySelector('[aria-label="Added and removed"] tbody tr')?.textContent !== t,
    was,
  );
  await page.mouse.move(400, 300);
  await page.waitForFunction(
    (t) => document.querySelector('[aria-label="Added and removed"] tbody tr')?.textContent === t,
    was,
  );
  expect(await crown()).toEqual(before);
  expect(v.troubles).toEqual([]);
});
