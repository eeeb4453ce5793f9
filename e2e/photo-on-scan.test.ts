import type { CaseDetail, LandmarkInput } from '@radiant/contract';
import { frontLandmarks, readingOf } from '@radiant/contract';
import { closePages, copyOfAvocet, open, saved, type Visit, visit } from './browser.js';

let v: Visit;
let id: string;
let client: Awaited<ReturnType<typeof copyOfAvocet>>['client'];
let landmarks: () => Promise<LandmarkInput[]>;
/** As the sample case has them, all set by hand. */
let before: LandmarkInput[];

beforeAll(async () => {
  v = await visit();
  const copy = await copyOfAvocet('Photo on scan');
  ({ id, client } = copy);
  const read = async () => (await copy.client.get<CaseDetail>(`/cases/${id}`)).body.sections.read;
  landmarks = async () => [...frontLandmarks((await read()).data)];
  const { version, data } = await read();
  before = [...frontLandmarks(data)];
  await copy.client.patch(`/cases/${id}/sections/read`, {
    version,
    data: {
      ...data,
      views: [
        { ...readingOf(data, 'retracted-front'), landmarks: before.filter((m) => [13, 11, 21].includes(m.tooth)) },
      ],
    },
  });
  await open(v.page, id, 'read');
});
afterAll(closePages);

const off = (a: LandmarkInput, b: LandmarkInput) => Math.hypot(a.x - b.x, a.y - b.y);
const key = (m: LandmarkInput) => `${m.kind} ${m.tooth}`;

it('twelve marks match the photograph with the scan; a place of the scan is taken with a key', async () => {
  const { page } = v;
  await page.getByText('matched from 12 marked places').waitFor();
  await page.getByText('take the scan’s place').waitFor();
  await page.keyboard.press('m');
  await saved(page);
  const made = (await landmarks()).filter((m) => m.from === 'scan');
  expect(made).toHaveLength(1);
  const hand = before.find((m) => key(m) === key(made[0] as LandmarkInput)) as LandmarkInput;
  // 25 px are a millimetre here.
  expect(off(made[0] as LandmarkInput, hand)).toBeLessThan(12);
  // What the scan gave does not count as a mark of its own.
  await page.getByText('matched from 12 marked places').waitFor();
});

it('the next landmark is set by a click on the scan beside the photograph', async () => {
  const { page } = v;
  const count = (await landmarks()).length;
  await page.keyboard.press('b');
  const scene = page.getByLabel('The scan beside the photograph').locator('canvas');
  await scene.waitFor();
  const status = page.getByLabel('The scan beside the photograph').getByRole('status');
  await status.getByText(/^Click .* here or on the photograph$/).waitFor();
  // The scene needs a moment for its first picture; until it has one a click meets nothing.
  const end = Date.now() + 20_000;
  while ((await landmarks()).length === count && Date.now() < end) {
    await scene.click({ position: { x: 215, y: 110 } });
    await page.waitForTimeout(1500);
  }
  await saved(page);
  const now = await landmarks();
  expect(now.length).toBeGreaterThan(count);
  // The middle of the arch is where the centrals are in the photograph too.
  const [right, left] = [11, 21].map((t) => before.find((m) => m.tooth === t && m.kind === 'distal') as LandmarkInput);
  const made = now
    .filter((m) => m.from === 'scan')
    .find((m) => off(m, before.find((b) => key(b) === key(m)) as LandmarkInput) > 30) as LandmarkInput;
  expect(made.x).toBeGreaterThan(right?.x as number);
  expect(made.x).toBeLessThan(left?.x as number);
  await page.keyboard.press('Control+z');
  await saved(page);
});

it('all that is missing is set from the scan, close to where a hand had set it', async () => {
  const { page } = v;
  await page.getByRole('button', { name: /^Set the \d+ missing from the scan$/ }).click();
  await page.getByText('24 of 24 points').waitFor();
  await saved(page);
  const made = (await landmarks()).filter((m) => m.from === 'scan');
  expect(made.length).toBeGreaterThanOrEqual(11);
  const far = made.map((m) => off(m, before.find((b) => key(b) === key(m)) as LandmarkInput)).sort((a, b) => a - b);
  expect(far[Math.floor(far.length / 2)]).toBeLessThan(8);
  // Moved by a hand it is a hand's mark.
  await page.getByRole('button', { name: /^zenith of 12, at/ }).focus();
  await page.keyboard.press('ArrowUp');
  await saved(page);
  await page.getByText('matched from 13 marked places').waitFor();
});

const cameraKept = async () => {
  const { body } = await client.get<CaseDetail>(`/cases/${id}`);
  return readingOf(body.sections.read.data, 'retracted-front').calibration?.camera;
};

it('how the camera stood by the scan is taken out of the measures with the marks that tell it, and left in where asked', async () => {
  const { page } = v;
  await page.getByRole('button', { name: 'scale', exact: true }).click();
  const camera = page.getByTestId('camera-by-scan');
  await camera.getByText('taken out of the measures.').waitFor();
  await saved(page);
  // The sample front is taken from a stand, straight on.
  const kept = await cameraKept();
  expect(Math.abs(kept?.yawDeg ?? 9)).toBeLessThan(2);
  expect(Math.abs(kept?.pitchDeg ?? 9)).toBeLessThan(2);
  expect(kept?.yawPmDeg).toBeGreaterThan(0.05);
  await camera.getByRole('button', { name: 'leave it in' }).click();
  await camera.getByText('left in the measures.').waitFor();
  await saved(page);
  // Another mark does not take it out against the wish; one undo takes the mark back, the next the wish.
  await page.getByRole('button', { name: 'landmarks', exact: true }).click();
  await page.getByRole('button', { name: /^zenith of 12, at/ }).focus();
  await page.keyboard.press('ArrowUp');
  await saved(page);
  await page.waitForTimeout(700);
  expect(await cameraKept()).toBeUndefined();
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await saved(page);
  expect(await cameraKept()).toEqual(kept);
});

it('the scale is taken from the scan and agrees with the printed one', async () => {
  const { page } = v;
  if (!(await page.getByLabel('Scale', { exact: true }).isVisible()))
    await page.getByRole('button', { name: 'scale', exact: true }).click();
  const printed = Number(((await page.getByLabel('Scale', { exact: true }).textContent()) ?? '').match(/0\.0\d+/)?.[0]);
  await page.getByTestId('scale-by-scan').getByText('agrees within the errors').waitFor();
  await page.getByLabel('known by').selectOption('scan');
  await page.getByText('across the centrals, in their plane').waitFor();
  const own = Number(((await page.getByLabel('Scale', { exact: true }).textContent()) ?? '').match(/0\.0\d+/)?.[0]);
  expect(Math.abs(own / printed - 1)).toBeLessThan(0.02);
  await page.getByRole('button', { name: 'how?' }).first().click();
  await page.getByText('length by the matched scan').waitFor();
  // With the scale comes how the camera stood.
  await saved(page);
  expect(await cameraKept()).toMatchObject({ distanceMm: expect.any(Number) });
  expect(v.troubles).toEqual([]);
});
