import { type CaseDetail, contourPlan } from '@radiant/contract';
import { INTRAORAL_SCANNER, makePatient, RECIPES, scanOfCut } from '@radiant/standins';
import { closePages, copyOfAvocet, open, saved, type Visit, visit } from './browser.js';

let v: Visit;
let kase: Awaited<ReturnType<typeof copyOfAvocet>>;
beforeAll(async () => {
  v = await visit();
  kase = await copyOfAvocet('Verified');
  await open(v.page, kase.id, 'verify');
});
afterAll(closePages);

const detail = async () => (await kase.client.get<CaseDetail>(`/cases/${kase.id}`)).body;

it('without a scan readings are typed or stepped, place by place, and say what is missing', async () => {
  const { page } = v;
  const field = page.getByRole('textbox', { name: '11 middle' });
  await field.waitFor({ timeout: 120_000 });
  await field.click();
  await page.keyboard.type('0.2');
  await page.keyboard.press('Tab');
  await page.getByText('11 middle: 0.2 mm of 0.5', { exact: false }).waitFor();
  await page.getByText('Not read yet: cervical, incisal, edge.').waitFor();
  await page.getByRole('textbox', { name: '11 cervical' }).focus();
  await page.getByRole('button', { name: 'a tenth more' }).click();
  await page.getByRole('button', { name: 'next place' }).click();
  await page.getByRole('button', { name: 'next place' }).click();
  await page.getByRole('button', { name: 'a tenth less' }).click();
  await saved(page);
  const readings = (await detail()).sections.verify.data.readings.map(({ place, mm }) => `${place} ${mm}`).sort();
  expect(readings).toEqual(['cervical 0.4', 'incisal 0.6', 'middle 0.2']);
  // Gum and edge thirds are right and the middle is not: flat.
  await page.getByText('11 face: flat where the contour curves', { exact: false }).waitFor();
  expect(v.troubles).toEqual([]);
});

it('a scan of the prepared teeth is judged: what is wrong is shown, listed by bur, and taken with a reason', async () => {
  const { page } = v;
  const { sections } = await detail();
  const order = {
    plan: contourPlan(sections.shape.data.teeth),
    choice: sections.reduce.data,
    faults: { 11: { 'edge short': 0.35 } },
    nicked: { 24: 0.35 },
  };
  const bytes = scanOfCut(makePatient(RECIPES.Avocet), order, { ...INTRAORAL_SCANNER, seed: 95 });
  const up = await kase.client.upload<{ state: string; role: string }>(
    `/cases/${kase.id}/files?kind=scan&state=prepared`,
    bytes,
    'upper jaw, prepared.stl',
  );
  if (up.status !== 201) throw new Error(JSON.stringify(up.body));
  expect({ ...up.body, status: up.status }).toMatchObject({ status: 201, role: 'working', state: 'prepared' });
  await page.reload();
  await page.getByRole('heading', { name: '11 · cut more' }).waitFor({ timeout: 180_000 });
  await page.getByText('4 teeth that were not cut lie within', { exact: false }).waitFor();
  const long = page.getByText(/11 edge, .* too long over its length/);
  await long.waitFor();
  await page.keyboard.press('n');
  await page.getByRole('radio', { name: /^23/ }).click();
  await page.getByText('24 is nicked', { exact: false }).waitFor();
  await page.getByRole('radio', { name: /^11/ }).click();
  await page.getByRole('button', { name: 'cut list', exact: true }).click();
  const list = page.getByRole('table', { name: 'What is still to cut' });
  await list.getByRole('button', { name: 'edge' }).waitFor();
  await page.getByRole('button', { name: 'take it as it is' }).first().click();
  await page.getByLabel('Why it is taken as it is').click();
  await page.keyboard.type('The lower teeth leave room.');
  await page.getByRole('button', { name: 'Accept' }).click();
  await page.getByText('Taken as it is by Dr Sample Curlew', { exact: false }).waitFor();
  expect(await list.getByRole('button', { name: 'edge', exact: true }).count()).toBe(0);
  await saved(page);
  expect((await detail()).sections.verify.data.accepted).toMatchObject([
    { tooth: 11, check: 'edge', by: 'Dr Sample Curlew', reason: 'The lower teeth leave room.' },
  ]);
  expect(v.troubles).toEqual([]);
});

it('a finish line is drawn by dragging on the tooth, judged as it is drawn, and taken back', async () => {
  const { page } = v;
  await page.getByRole('button', { name: 'on the arch', exact: true }).click();
  await page.getByRole('radio', { name: /^11/ }).click();
  await page.getByRole('button', { name: 'draw it', exact: true }).click();
  const box = await page.getByLabel('Prepared teeth, in three dimensions').boundingBox();
  if (!box) throw new Error('no picture');
  // Down the face of the right central.
  const at = (down: number) => [box.x + box.width * 0.45, box.y + box.height * down] as const;
  await page.mouse.move(...at(0.44));
  await page.mouse.down();
  await page.mouse.move(...at(0.47), { steps: 4 });
  await page.mouse.move(...at(0.5), { steps: 4 });
  await page.mouse.up();
  await saved(page);
  const drawn = (await detail()).sections.verify.data.lines ?? [];
  expect(drawn.length).toBeGreaterThan(5);
  expect(new Set(drawn.map((l) => l.tooth)).size).toBe(1);
  const tooth = drawn[0]?.tooth as number;
  await page.getByRole('radio', { name: new RegExp(`^${tooth}`) }).click();
  await page
    .getByText(`A part of the line of ${tooth} is drawn by hand`, { exact: false })
    .waitFor({ state: 'detached' });
  await page.getByRole('button', { name: 'drawn', exact: true }).click();
  await page.getByText(`A part of the line of ${tooth} is drawn by hand`, { exact: false }).waitFor();
  await page.getByRole('button', { name: 'as it is found' }).click();
  await saved(page);
  expect((await detail()).sections.verify.data.lines).toEqual([]);
  expect(v.troubles).toEqual([]);
});

it('a technician answers on what was found and on a point of the surface, and both lead back to their place', async () => {
  const t = await visit('technician');
  await open(t.page, kase.id, 'verify');
  await t.page.getByRole('radio', { name: /^23/ }).click({ timeout: 180_000 });
  const nicked = t.page.getByRole('listitem').filter({ hasText: '24 is nicked' });
  await nicked.getByRole('button', { name: 'answer it' }).click();
  await t.page.keyboard.press('Tab');
  const line = nicked.getByRole('textbox', { name: /^Answer to/ });
  await line.click();
  await t.page.keyboard.type('I see it in the scan too.');
  await nicked.getByRole('button', { name: 'Send' }).click();
  await nicked.getByText('I see it in the scan too.').waitFor();
  await t.page.getByRole('button', { name: 'put it on a point of a tooth' }).click();
  await t.page.getByText('Press the point that the comment is about; Esc leaves it.').waitFor();
  const scene = t.page.getByLabel('Prepared teeth, in three dimensions');
  const box = await scene.boundingBox();
  // The arch stands in the middle of the picture; a tooth is found to the left of its middle line.
  for (const share of [0.47, 0.44, 0.41, 0.5]) {
    if (box) await t.page.mouse.click(box.x + box.width * share, box.y + box.height * 0.52);
    if (await t.page.getByRole('button', { name: 'not on it' }).isVisible()) break;
    await t.page.waitForTimeout(400);
  }
  await t.page.getByRole('button', { name: 'not on it' }).waitFor();
  await t.page.getByRole('textbox', { name: 'Comment', exact: true }).click();
  await t.page.keyboard.type('Is this a crack?');
  await t.page.getByRole('button', { name: 'Send' }).last().click();
  await t.page.getByRole('button', { name: /a point of its surface:$/ }).waitFor();
  const placed = (await detail()).comments.filter((c) => c.stage === 'verify').map((c) => c.place);
  expect(placed).toMatchObject([{ tooth: 23, check: 'neighbours' }, { words: 'a point of its surface' }]);
  expect(placed[1]?.at).toHaveLength(3);
  // From the list of comments the place is found again, from another look.
  await t.page.getByRole('button', { name: 'cut list', exact: true }).click();
  await t.page.getByRole('button', { name: /a point of its surface:$/ }).click();
  await scene.waitFor();
  expect(t.troubles).toEqual([]);
});

it('an assistant types readings and can take nothing as it is', async () => {
  const a = await visit('assistant');
  await open(a.page, kase.id, 'verify');
  await a.page.getByRole('button', { name: 'by hand', exact: true }).first().click({ timeout: 180_000 });
  await a.page.getByText('You write readings by hand here; the rest the dentist decides.').waitFor();
  const field = a.page.getByRole('textbox', { name: '12 middle' });
  await field.click();
  await a.page.keyboard.type('0.4');
  await a.page.keyboard.press('Tab');
  await saved(a.page);
  expect((await detail()).sections.verify.data.readings).toContainEqual({
    tooth: 12,
    way: 'index',
    place: 'middle',
    mm: 0.4,
  });
  expect(await a.page.getByRole('button', { name: 'take it as it is' }).count()).toBe(0);
  expect(a.troubles).toEqual([]);
});
