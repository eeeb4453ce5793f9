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

it('the kind of work is chosen, a break is drawn key by key, and more is missing then', async () => {
  const { page } = v;
  const title = page.getByRole('heading', { name: /11: \d+\.\d mm³ to fill/ });
  const mm3 = async () => Number(/: (\d+\.\d) mm³/.exec((await title.textContent()) ?? '')?.[1]);
  const before = await mm3();
  await page.getByRole('button', { name: 'broken corner or edge' }).click();
  await page.getByLabel('the scan does not show the break: draw it').check();
  const high = page.getByLabel('broken up to, from the edge').first();
  await high.click();
  await page.keyboard.press('Control+A');
  await page.keyboard.type('4.5');
  await page.keyboard.press('Enter');
  await page.getByText('surface of the break').waitFor();
  await saved(page);
  expect(await mm3()).toBeGreaterThan(before + 10);
  const { works } = (await kase.client.get<CaseDetail>(`/cases/${kase.id}`)).body.sections.direct.data;
  expect(works).toEqual([{ tooth: 11, kind: 'corner', broken: { corner: 'mesial', heightMm: 4.5, widthMm: 4 } }]);
});

it('a worn edge is shown from above with its trough, or why there is none', async () => {
  const { page } = v;
  await page.getByRole('button', { name: 'worn edge', exact: true }).click();
  await page.getByRole('img', { name: /Worn edge from above/ }).waitFor();
  await page.getByText('edge, front to back').waitFor();
  // The dentin is marked round on the scan, place by place; the last one can be taken back.
  await page.getByRole('button', { name: 'mark it on the scan' }).click();
  const scene = page.getByRole('group', { name: 'Tooth and composite, in three dimensions' });
  await scene.waitFor();
  const marking = page.getByRole('status').filter({ hasText: 'Press round the dentin' });
  await marking.getByText('none so far').waitFor();
  const { x, y, width, height } = (await scene.boundingBox()) as NonNullable<
    Awaited<ReturnType<typeof scene.boundingBox>>
  >;
  /** Until the scene is drawn nothing is under the pointer. */
  const press = async (dx: number, dy: number, said: string) => {
    for (let tries = 0; tries < 20; tries++) {
      await page.mouse.click(x + width / 2 + dx, y + height / 2 + dy);
      const shown = await marking
        .getByText(said)
        .waitFor({ timeout: 2500 })
        .then(
          () => true,
          () => false,
        );
      if (shown) return;
    }
    throw new Error(`Pressing at ${dx}, ${dy} never said “${said}”.`);
  };
  await press(-18, 0, 'one place so far');
  await press(18, 0, '2 places so far');
  expect(await marking.getByRole('button', { name: 'Keep it' }).isDisabled()).toBe(true);
  await press(12, 14, '3 places so far');
  await press(-12, 14, '4 places so far');
  await page.keyboard.press('Backspace');
  await marking.getByText('3 places so far').waitFor();
  await page.keyboard.press('Enter');
  await marking.waitFor({ state: 'detached' });
  await saved(page);
  const marked = (await kase.client.get<CaseDetail>(`/cases/${kase.id}`)).body.sections.direct.data.works[0]?.island;
  expect(marked).toHaveLength(3);
  // Upper edges lie at the bottom, and it is the right central that was pressed.
  for (const p of marked ?? []) expect([p.x < 0, Math.abs(p.x) < 9]).toEqual([true, true]);
  await page.getByRole('button', { name: 'within the walls' }).click();
  await page.getByText('dentin is taken to lie within the walls').waitFor();
  await page.getByRole('button', { name: 'layers', exact: true }).click();
  await page.getByRole('button', { name: 'addition of shape or length' }).click();
  await page.getByRole('img', { name: /Worn edge from above/ }).waitFor({ state: 'detached' });
  await saved(page);
});

it('gaps are told with shares and bone, and what was sounded is kept', async () => {
  const { page } = v;
  await page.getByRole('button', { name: 'gaps', exact: true }).click();
  const gap = page.getByRole('region', { name: 'Between 12 and 11' });
  await gap.getByText('the usual 4.5 mm are taken').waitFor();
  await gap.getByLabel('tip of the papilla to the bone, sounded').click();
  await page.keyboard.type('7.5');
  await page.keyboard.press('Enter');
  await gap.getByText(/Such a space filled in \d+ of 100/).waitFor();
  await gap.getByText('the usual 4.5 mm are taken').waitFor({ state: 'detached' });
  await saved(page);
  const { soundings } = (await kase.client.get<CaseDetail>(`/cases/${kase.id}`)).body.sections.direct.data;
  expect(soundings).toEqual([{ between: '12-11', mm: 7.5 }]);
});

it('a dent at the neck has its figures, or is said not to be there, and no shell to set', async () => {
  const { page } = v;
  await page.getByRole('button', { name: 'defect at the neck' }).click();
  await page
    .getByText(/no dent beside the gum is found|from where the crown ends/)
    .first()
    .waitFor();
  expect(await page.getByLabel('palatal shell', { exact: true }).count()).toBe(0);
  await page.getByRole('button', { name: 'addition of shape or length' }).click();
  await page.getByLabel('palatal shell').first().waitFor();
  await saved(page);
});

it('colour, side movement and finishing stand on the bench, one key further each', async () => {
  const { page } = v;
  await page.getByRole('heading', { name: /^11:/ }).click();
  await page.keyboard.press('p');
  await page
    .getByRole('region', { name: /Two shades/ })
    .getByText(/ΔE00/)
    .first()
    .waitFor();
  await page.keyboard.press('p');
  await page.getByRole('region', { name: 'To the right' }).getByText('back teeth part by').first().waitFor();
  await page.keyboard.press('p');
  await page.getByRole('list', { name: 'Finishing' }).getByText('Line angles marked').waitFor();
});

it('the key and the layers are saved as files', async () => {
  const { page } = v;
  const links = page.getByRole('region', { name: 'Key and layers as files' }).getByRole('link');
  expect(await links.allTextContents()).toEqual(['palatal key, STL', 'palatal key, 3MF', 'layers, 3MF', 'layers, STL']);
  for (const at of [0, 2]) {
    const href = (await links.nth(at).getAttribute('href')) as string;
    const [status, bytes, head] = await page.evaluate(async (url) => {
      const answer = await fetch(url);
      const body = new Uint8Array(await answer.arrayBuffer());
      return [answer.status, body.length, String.fromCharCode(...body.slice(0, 2))] as const;
    }, href);
    expect(status).toBe(200);
    expect(bytes).toBeGreaterThan(10_000);
    // A 3MF file is a zip archive.
    if (at === 2) expect(head).toBe('PK');
  }
  expect(v.troubles).toEqual([]);
});
