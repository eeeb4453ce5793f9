import { readFile } from 'node:fs/promises';
import type { CaseDetail } from '@radiant/contract';
import { closePages, copyOfAvocet, open, picture, saved, typed, type Visit, visit } from './browser.js';

let v: Visit;
let kase: Awaited<ReturnType<typeof copyOfAvocet>>;
beforeAll(async () => {
  v = await visit();
  kase = await copyOfAvocet('Reduced');
  await open(v.page, kase.id, 'reduce');
  await v.page
    .getByRole('img', { name: 'Existing, planned and target lines with dimensions' })
    .waitFor({ timeout: 90_000 });
});
afterAll(closePages);

const row = async (zone: string) => {
  const cells = await v.page
    .locator('aside table tr', { has: v.page.getByRole('button', { name: zone, exact: true }) })
    .locator('td')
    .allInnerTexts();
  return { needs: Number(cells[1]), gap: Number((cells[2] ?? '').replace('−', '-')), remove: cells[3] ?? '' };
};

it('removal is told alike on map, table and section, and is needed thickness less gap but for where it runs out', async () => {
  const section = v.page.getByRole('img', { name: 'Existing, planned and target lines with dimensions' });
  for (const tooth of [11, 12, 23]) {
    await v.page.getByRole('radio', { name: new RegExp(`^${tooth}`) }).click();
    await v.page.getByRole('heading', { name: `${tooth} · graduated veneer` }).waitFor();
    for (const zone of ['cervical', 'middle', 'incisal', 'edge']) {
      const r = await row(zone);
      const expected = r.needs - r.gap;
      if (r.remove.startsWith('none')) {
        expect(expected).toBeLessThanOrEqual(0.05);
        continue;
      }
      expect(Math.abs(Number.parseFloat(r.remove) - expected)).toBeLessThan(0.1);
      const told = Number.parseFloat(r.remove).toFixed(2);
      expect(await v.page.getByTestId(`remove-${tooth}-${zone}`).textContent()).toBe(told);
      await section.getByText(told, { exact: true }).first().waitFor();
    }
  }
});

it('through the mock-up grooves are as deep as the thickness, in the bare tooth as deep as the removal', async () => {
  const { page } = v;
  await page.getByRole('radio', { name: /^11/ }).click();
  expect((await row('middle')).needs).toBe(0.5);
  await page.getByTestId('groove-middle').getByText('0.5').waitFor();
  await page.getByRole('button', { name: 'margin first' }).click();
  await page.getByText('grooves as deep as what has to go').waitFor();
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
  await page.getByText('cut in two planes').waitFor();
  await page.keyboard.press('m');
  await page.getByText('Grooves are as deep as the needed thickness').waitFor();
  expect(v.troubles).toEqual([]);
});

it('one tooth has a design of its own, the others keep the case’s', async () => {
  const { page } = v;
  await page.getByRole('radio', { name: /^12/ }).click();
  await page.getByRole('button', { name: '12 alone' }).click();
  await page.getByLabel('Design of 12').selectOption('ceramic-crown');
  await page.getByRole('heading', { name: '12 · all-ceramic crown' }).waitFor();
  await page.waitForFunction(
    () => document.querySelector('aside table tr:nth-child(2) td:nth-child(2)')?.textContent === '1.2',
  );
  expect((await row('middle')).needs).toBe(1.2);
  await page.getByRole('radio', { name: /^11/ }).click();
  await page.getByRole('heading', { name: '11 · even veneer' }).waitFor();
  expect((await row('middle')).needs).toBe(0.8);
  await page.getByRole('radio', { name: /^12/ }).click();
  await page.getByRole('button', { name: 'all teeth' }).click();
  await page.getByRole('heading', { name: '12 · even veneer' }).waitFor();
  await saved(page);
});

it('a planned tooth that the scan does not have is named, and the others have their targets', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Without');
  const { shape } = (await client.get<CaseDetail>(`/cases/${id}`)).body.sections;
  // A lower tooth is planned, and the lower scan is put away.
  const teeth = [...shape.data.teeth, { tooth: 41, lengthMm: 9, widthMm: 5.4, facialVolumeMm: 0, rotationDeg: 0 }];
  await client.patch(`/cases/${id}/sections/shape`, { version: shape.version, data: { ...shape.data, teeth } });
  const lower = (await client.get<CaseDetail>(`/cases/${id}`)).body.files.find((f) => f.jaw === 'lower');
  await client.call('DELETE', `/cases/${id}/files/${lower?.id}`);
  await open(page, id, 'reduce');
  await page.getByText('No target for 41: planned, but not in the scan of that jaw.').waitFor({ timeout: 90_000 });
  await page.getByTestId('remove-11-middle').waitFor();
  expect(v.troubles).toEqual([]);
});

it('on the arch it is shown what goes from each tooth, where dentin is met, and the prepared teeth; a crown takes more', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Prepared');
  await open(page, id, 'reduce');
  await page.getByTestId('remove-11-middle').waitFor({ timeout: 90_000 });
  await page.keyboard.press('v');
  await page.getByText('6 target preparations', { exact: true }).waitFor({ state: 'attached', timeout: 90_000 });
  const sums = page.getByRole('table', { name: 'What the preparation takes' });
  const taken = async () =>
    Number.parseFloat((await sums.getByRole('row', { name: /^volume/ }).textContent())?.match(/\d+\.\d/)?.[0] ?? '');
  const veneer = await taken();
  expect(veneer).toBeGreaterThan(10);
  await sums.getByText(/^[1-3]?\d % of the crown$/).waitFor();
  const over = page.getByRole('table', { name: 'Tooth to remove over the face' });
  const middle = Number.parseFloat(
    (await over
      .getByRole('row', { name: /^middle/ })
      .locator('td')
      .nth(1)
      .locator('b')
      .textContent()) ?? '',
  );
  // The same tooth as the zones tell it, whose middle is a little wider.
  await page.getByRole('button', { name: 'in zones' }).click();
  const zone = Number.parseFloat((await page.getByTestId('remove-11-middle').textContent()) ?? '');
  expect(Math.abs(zone - middle)).toBeLessThan(0.06);
  await page.getByRole('button', { name: 'on the arch' }).click();

  // The part that only brings it into line is a part of it, and has its own map.
  const inLine = Number.parseFloat(
    (await sums.getByRole('row', { name: /^into line/ }).textContent())?.match(/\d+\.\d/)?.[0] ?? '',
  );
  expect(inLine).toBeLessThan(veneer);
  await page.getByRole('button', { name: 'into line first' }).click();
  await page.getByText('to remove to stand in line with the plan').waitFor();
  expect(await page.getByRole('button', { name: 'dentin', exact: true }).isDisabled()).toBe(true);
  await page.getByRole('button', { name: 'what goes', exact: true }).click();
  await page
    .getByRole('figure', { name: 'Finish line' })
    .getByRole('img', { name: /^Level to the gum: mesial at the gum, facial .*, distal at the gum$/ })
    .waitFor();

  const instead = page.getByRole('table', { name: 'What if' });
  const would = async (row: RegExp) =>
    Number.parseFloat((await instead.getByRole('row', { name: row }).locator('td').first().textContent()) ?? '');
  // What is told of the chosen design is what its own preparation takes; a contour further to the front takes less.
  expect(await would(/^graduated veneer/)).toBeCloseTo(veneer, 1);
  expect(await would(/further to the front/)).toBeLessThan(veneer - 3);
  expect(await would(/^facial veneer/)).toBeLessThan(veneer);
  await page.getByLabel('Design of all teeth').selectOption('ceramic-crown');
  await sums.getByText(/^[67]\d % of the crown$/).waitFor({ timeout: 60_000 });
  expect(await taken()).toBeGreaterThan(3 * veneer);
  await page.getByText(/the finish line is wished 0\.\d mm beyond where the scan ends at the gum/).waitFor();
  for (let n = 0; n < 3; n++) await page.keyboard.press('p');
  expect(await page.getByRole('button', { name: 'prepared', exact: true }).getAttribute('aria-pressed')).toBe('true');
  await page.keyboard.press(']');
  await page.getByRole('heading', { name: '21 · all-ceramic crown' }).waitFor();
  await saved(page);
  expect((await client.get<CaseDetail>(`/cases/${id}`)).body.sections.reduce.data.design).toBe('ceramic-crown');
  expect(v.troubles).toEqual([]);
});

it('a thickness of one’s own is typed, moves the targets, is told where it is too thin, and goes back to the usual', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Thick');
  await open(page, id, 'reduce');
  const middle = page.getByTestId('remove-11-middle');
  await middle.waitFor({ timeout: 90_000 });
  const before = Number.parseFloat((await middle.textContent()) ?? '');
  const field = page.getByLabel('Thickness, middle');
  await typed(field, '0.9');
  await page.keyboard.press('Tab');
  await page.waitForFunction(
    ([was]) =>
      Math.abs(
        Number.parseFloat(document.querySelector('[data-testid=remove-11-middle]')?.textContent ?? '') -
          (was as number) -
          0.4,
      ) < 0.05,
    [before],
  );
  await page.getByText('usual 0.3 · 0.5 · 0.7 · 1.5 · 0.0').waitFor();
  await typed(field, '0.2');
  await page.keyboard.press('Tab');
  await page.getByText(/Thinner than 0\.3 mm, the least that its material is usually made in: middle\./).waitFor();
  await saved(page);
  const reduce = async () => (await client.get<CaseDetail>(`/cases/${id}`)).body.sections.reduce.data;
  expect((await reduce()).thickness).toEqual([
    { design: 'graduated', cervical: 0.3, middle: 0.2, incisal: 0.7, edgeMm: 1.5 },
  ]);
  // Half a millimetre below the gum, and so deep that the bone is spoken of.
  const margin = page.getByLabel('Finish line below the gum');
  await typed(margin, '-0.5');
  await page.keyboard.press('Tab');
  await saved(page);
  expect((await reduce()).thickness?.[0]).toMatchObject({ middle: 0.2, belowGumMm: -0.5 });
  await typed(margin, '1.5');
  await page.keyboard.press('Tab');
  await page.getByText(/1\.5 mm below the gum: sound to the bone first\./).waitFor();
  await page.getByLabel('Contacts').selectOption('broken');
  await page.getByText(', contacts half way').waitFor();
  await saved(page);
  expect((await reduce()).thickness?.[0]).toMatchObject({ middle: 0.2, belowGumMm: 1.5, contact: 'broken' });
  await typed(field, '9');
  await page.getByText('Between 0.0 and 3.0 mm; not taken.').waitFor();
  await page.getByRole('button', { name: 'take the usual' }).click();
  await page.waitForFunction(
    ([was]) => Number.parseFloat(document.querySelector('[data-testid=remove-11-middle]')?.textContent ?? '') === was,
    [before],
  );
  await saved(page);
  expect((await reduce()).thickness).toEqual([]);
  // A crown has sides, a palatal surface and walls; too steep ones are told.
  await page.getByLabel('Design of all teeth').selectOption('ceramic-crown');
  await typed(page.getByLabel('Taper of each wall'), '11');
  await page.keyboard.press('Tab');
  await page.getByText(/^Over 10° a wall little holds the crown/).waitFor();
  await typed(page.getByLabel('Thickness, palatal'), '1.5');
  await page.keyboard.press('Tab');
  await saved(page);
  expect((await reduce()).thickness?.[0]).toMatchObject({ design: 'ceramic-crown', taperDeg: 11, palatalMm: 1.5 });
  expect(v.troubles).toEqual([]);
});

it('the way out is set by hand, one that can’t be is told, and what the bite lacks is cut for it and left again', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Ways');
  await open(page, id, 'reduce');
  await page.getByTestId('remove-11-middle').waitFor({ timeout: 90_000 });
  const reduce = async () => (await client.get<CaseDetail>(`/cases/${id}`)).body.sections.reduce.data;
  await page.keyboard.press('v');
  const sums = page.getByRole('table', { name: 'What the preparation takes' });
  await sums.getByText(/° from the front down to the edge/).waitFor({ timeout: 60_000 });
  await sums.getByRole('button', { name: 'set by hand' }).click();
  const down = page.getByLabel('Way out, down from the front');
  await typed(down, '84');
  await page.keyboard.press('Tab');
  await page.getByText(/nothing comes off on this way: \d+ % of what the design cuts is hidden/).waitFor();
  await sums.getByText('84° from the front down to the edge').waitFor();
  await typed(page.getByLabel('Way out, turned to the distal side'), '-45');
  await page.getByText('Between −30 and 30 °; not taken.').waitFor();
  await page.keyboard.press('Escape');
  await typed(down, '40');
  await page.keyboard.press('Tab');
  await page.getByText(/nothing comes off on this way/).waitFor({ state: 'detached' });
  await saved(page);
  expect((await reduce()).ways).toEqual([{ tooth: 11, downDeg: 40, turnDeg: 0 }]);
  await sums.getByRole('button', { name: 'let it be found' }).click();
  await saved(page);
  expect((await reduce()).ways).toEqual([]);
  // A crown has no room behind it under this plan.
  await page.getByLabel('Design of all teeth').selectOption('zirconia-crown');
  const room = page.getByRole('table', { name: 'Room in the bite' });
  const more = page.getByRole('button', { name: /^cut 0\.\d\d mm more there$/ }).first();
  await more.waitFor({ timeout: 60_000 });
  const cut = Number.parseFloat(/0\.\d\d/.exec((await more.textContent()) ?? '')?.[0] ?? '');
  await more.click();
  await room.getByText(`+${cut.toFixed(2)}`).waitFor();
  await saved(page);
  expect((await reduce()).room).toEqual([{ tooth: 11, place: expect.stringMatching(/edge|palatal/), moreMm: cut }]);
  await room.getByRole('button', { name: /^Cut nothing for the bite/ }).click();
  await saved(page);
  expect((await reduce()).room).toEqual([]);
  expect(v.troubles).toEqual([]);
});

it('step by step each tooth has its cuts with bur and depth; a bur by hand says what it does; the tray is the house’s', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Steps');
  await open(page, id, 'reduce');
  await page.getByTestId('remove-11-middle').waitFor({ timeout: 90_000 });
  await page.getByRole('button', { name: 'step by step' }).click();
  await page.getByRole('heading', { name: 'Guard the neighbours' }).waitFor({ timeout: 60_000 });
  const steps = page.getByRole('region', { name: 'Steps of 11' });
  await page.keyboard.press('ArrowDown');
  await page.getByRole('heading', { name: 'Seat the mock-up' }).waitFor();
  await steps.getByRole('button', { name: /Grooves, middle third/ }).click();
  expect(await page.getByTestId('step-depth').textContent()).toBe('0.5mm');
  await steps.getByText('ball diamond, 2.0 mm on a 1.0 mm shank').waitFor();
  // All of it as a table, a step in each line.
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'save the cut list as CSV' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Steps, cut list, FDI numbers.csv');
  const table = await readFile(await download.path(), 'utf8');
  expect(table).toContain('tooth,design,step,what,where,bur,"diameter, 1/10 mm",engagement,"depth, mm"');
  expect(table).toMatch(/\r\n11,graduated veneer,\d+,"Grooves, middle third",middle,"ball diamond, 2\.0 mm[^"]*",020,/);
  // The neighbour’s list begins at its own first step.
  await page.keyboard.press(']');
  await page
    .getByRole('region', { name: 'Steps of 21' })
    .getByRole('heading', { name: 'Guard the neighbours' })
    .waitFor();
  await page.keyboard.press('[');

  await page
    .getByLabel('Bur for middle')
    .selectOption({ label: '0.70 · ball diamond, 2.4 mm on a 1.0 mm shank, ball sunk to its shank' });
  await page.getByText('Chosen by hand: 0.20 mm deeper than wanted').first().waitFor();
  await steps.getByRole('button', { name: /Grooves, middle third 0\.7/ }).waitFor();
  const reduce = async () => (await client.get<CaseDetail>(`/cases/${id}`)).body.sections.reduce.data;
  await saved(page);
  expect((await reduce()).grooves).toEqual([
    { tooth: 11, zone: 'middle', bur: expect.stringContaining('ball 024'), how: 'ball sunk to its shank' },
  ]);
  await page.getByLabel('Bur for middle').selectOption('');
  await steps.getByRole('button', { name: /Grooves, middle third 0\.5/ }).waitFor();

  await page.getByRole('button', { name: 'margin first' }).click();
  await steps.getByRole('button', { name: /Trace the finish line/ }).click();
  await page.getByRole('heading', { name: 'Trace the finish line' }).waitFor();
  // A coarser tolerance lets one bur serve more depths.
  const burs = page.getByRole('list', { name: 'Burs of this case' }).getByRole('listitem');
  const before = await burs.count();
  await typed(page.getByLabel('Tolerance of depths, mm'), '0.3');
  await page.keyboard.press('Tab');
  await page.waitForFunction(
    ([n]) => document.querySelectorAll('[aria-label="Burs of this case"] li').length < (n as number),
    [before],
  );
  expect(v.troubles).toEqual([]);
});
