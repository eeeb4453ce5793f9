import type { CaseDetail, PracticeSettingsState } from '@radiant/contract';
import { readingOf } from '@radiant/contract';
import type { Locator, Page } from 'playwright-core';
import { signedIn, URL_, until } from '../server/test/house.js';
import { closePages, copyOfAvocet, copyWithoutScans, holds, open, saved, type Visit, visit } from './browser.js';

afterAll(closePages);
let v: Visit;
beforeAll(async () => {
  v = await visit();
});

/** As a person does: into the field, all of it marked, then key by key; what stands in the field after each. */
async function keys(page: Page, field: Locator, text: string): Promise<string[]> {
  await field.click();
  await page.keyboard.press('ControlOrMeta+a');
  const seen: string[] = [];
  for (const key of text) {
    await page.keyboard.type(key);
    // Long enough for what was taken to come back to the field.
    await page.waitForTimeout(60);
    seen.push(await field.inputValue());
  }
  return seen;
}
const grown = (text: string) => Array.from(text, (_, i) => text.slice(0, i + 1));
const now = async (k: { id: string; client: Awaited<ReturnType<typeof copyOfAvocet>>['client'] }) =>
  (await k.client.get<CaseDetail>(`/cases/${k.id}`)).body;

describe('a number that is typed key by key', () => {
  it('stands as typed after each key and is kept exactly: a crown’s length, the edge, a width that is held', async () => {
    const { page } = v;
    const kase = await copyOfAvocet('Typed');
    await open(page, kase.id, 'shape');
    const length = page.getByLabel('Length').first();
    await length.waitFor();
    for (const text of ['10.55', '9,8', '12']) expect(await keys(page, length, text)).toEqual(grown(text));
    await page.keyboard.press('Tab');
    await saved(page);
    expect((await now(kase)).sections.shape.data.teeth.find((t) => t.tooth === 11)?.lengthMm).toBe(12);
    await keys(page, length, '10.55');
    await page.keyboard.press('Enter');
    await saved(page);
    expect((await now(kase)).sections.shape.data.teeth.find((t) => t.tooth === 11)?.lengthMm).toBe(10.55);
    expect(await length.inputValue()).toBe('10.55');

    await open(page, kase.id, 'propose');
    await page.getByTestId('target-11').waitFor();
    const edge = page.getByLabel('Edge set down').first();
    for (const text of ['1.5', '-0.5', '−1.25', '.5']) expect(await keys(page, edge, text)).toEqual(grown(text));
    await keys(page, edge, '-1.25');
    await page.getByRole('button', { name: 'hold the width of 11' }).click();
    const held = page.getByLabel('width of 11, mm');
    for (const text of ['10', '10.4']) expect(await keys(page, held, text)).toEqual(grown(text));
    await page.keyboard.press('Tab');
    await saved(page);
    expect((await now(kase)).sections.propose.data).toMatchObject({
      edgeMm: -1.25,
      locked: [{ tooth: 11, widthMm: 10.4 }],
    });
  });

  it('that replaces another and is too large leaves the other as it was taken', async () => {
    const { page } = v;
    const kase = await copyOfAvocet('Typed twice');
    await open(page, kase.id, 'shape');
    const length = page.getByLabel('Length').first();
    await length.waitFor();
    // The field isn't left between the two; the nine of the second is within the limits, and nothing of it counts.
    await keys(page, length, '11.5');
    await keys(page, length, '90');
    await page.getByText('Between 5.00 and 16.00 mm; not taken.').waitFor();
    await saved(page);
    expect((await now(kase)).sections.shape.data.teeth.find((t) => t.tooth === 11)?.lengthMm).toBe(11.5);
  });

  it('beyond the limits is told and not taken, stays for putting right, and what says nothing gives way to what is kept', async () => {
    const { page } = v;
    const kase = await copyWithoutScans('Typed too far');
    await open(page, kase.id, 'propose');
    await page.getByTestId('target-11').waitFor();
    const edge = page.getByLabel('Edge set down').first();
    await keys(page, edge, '40');
    await page.getByText('Between −3.0 and 4.0 mm; not taken.').waitFor();
    await saved(page);
    expect((await now(kase)).sections.propose.data.edgeMm).toBe(0.5);
    await page.keyboard.press('Tab');
    expect(await edge.inputValue()).toBe('40');
    for (const nothing of ['-', '.']) {
      await keys(page, edge, nothing);
      await page.keyboard.press('Tab');
      // The four of the first key was within the limits; nothing of it counts.
      expect(await edge.inputValue()).toBe('0.5');
    }
  });

  it('of a change that was asked for keeps its minus: shorter stays shorter', async () => {
    const { page } = v;
    const kase = await copyOfAvocet('Asked');
    await kase.client.post(`/cases/${kase.id}/contours`, { name: 'worn', why: '' });
    await open(page, kase.id, 'shape');
    const versions = page.getByRole('region', { name: 'Versions' });
    await versions.getByRole('button', { name: /worn/ }).last().click();
    const card = page.getByRole('dialog', { name: /worn/ });
    await card.getByLabel('Put in on').fill('2026-11-17');
    // What was typed and not saved is there again after Esc.
    await card.getByLabel('Speech').pressSequentially('whistles a little');
    await page.keyboard.press('Escape');
    await card.waitFor({ state: 'detached' });
    await versions.getByRole('button', { name: /worn/ }).last().click();
    await holds(card.getByLabel('Speech'), 'whistles a little');
    await holds(card.getByLabel('Put in on'), '2026-11-17');
    const asked = card.getByRole('group', { name: 'Changes asked for' });
    await asked.getByRole('button', { name: 'add one' }).click();
    expect(await keys(page, asked.getByLabel('By how much'), '-0.75')).toEqual(grown('-0.75'));
    await card.getByRole('button', { name: 'save these notes' }).click();
    await asked.getByRole('button', { name: 'Make these edits on this version' }).waitFor();
    const own = (await now(kase)).contours.find((c) => c.name === 'worn');
    expect(own?.worn?.asked).toMatchObject([{ key: 'lengthMm', by: -0.75 }]);
    // The targets ask whether the worn shape was measured again, until it is said.
    await open(page, kase.id, 'reduce');
    await page.getByTestId('worn-asked').getByRole('link', { name: 'Say it in shape' }).click();
    await versions.getByRole('button', { name: /worn/ }).last().click();
    await card.getByLabel('Measured again as it was worn').selectOption('yes, and it is this contour');
    await card.getByRole('button', { name: 'save these notes' }).click();
    await card.getByRole('button', { name: 'save these notes', disabled: true }).waitFor();
    await page.keyboard.press('Escape');
    await page.getByRole('link', { name: 'reduce' }).click();
    await page.getByTestId('remove-11-middle').waitFor();
    expect(await page.getByTestId('worn-asked').count()).toBe(0);
  });

  it('of a form in a dialog and of a comment is there again after Esc and after another stage; sent, it is gone', async () => {
    const { page } = v;
    const kase = await copyOfAvocet('Unsent');
    await open(page, kase.id, 'shape');
    await page.getByRole('button', { name: 'keep as version' }).click();
    await page.getByLabel('Why it is kept').pressSequentially('before the edge is changed');
    await page.keyboard.press('Escape');
    await page.getByLabel('Comment', { exact: true }).pressSequentially('half a remark');
    await open(page, kase.id, 'keep');
    await open(page, kase.id, 'shape');
    await holds(page.getByLabel('Comment', { exact: true }), 'half a remark');
    await page.getByRole('button', { name: 'keep as version' }).click();
    await holds(page.getByLabel('Why it is kept'), 'before the edge is changed');
    await page.getByLabel('Name', { exact: true }).pressSequentially('first');
    await page.getByRole('button', { name: 'Keep it' }).click();
    await page.getByRole('button', { name: /1 · first/ }).waitFor();
    expect((await now(kase)).contours.find((c) => c.name === 'first')?.why).toBe('before the edge is changed');
    await page.getByRole('button', { name: 'Send' }).click();
    await holds(page.getByLabel('Comment', { exact: true }), '');
  });

  it('of years and of a scale’s length too; an age can be taken out again', async () => {
    const { page } = v;
    const kase = await copyWithoutScans('Years');
    await open(page, kase.id, 'meet');
    const age = page.getByLabel('Age, years');
    expect(await keys(page, age, '104')).toEqual(grown('104'));
    await saved(page);
    expect((await now(kase)).sections.meet.data.ageYears).toBe(104);
    await age.click();
    await page.keyboard.press('ControlOrMeta+a');
    await page.keyboard.press('Delete');
    await page.keyboard.press('Tab');
    await page.waitForTimeout(700);
    await saved(page);
    expect((await now(kase)).sections.meet.data.ageYears ?? null).toBeNull();

    await open(page, kase.id, 'read');
    await page.getByRole('button', { name: 'scale', exact: true }).first().click();
    const length = page.getByLabel('Between the two points');
    await length.waitFor();
    expect(await keys(page, length, '20.5')).toEqual(grown('20.5'));
    await saved(page);
    expect(readingOf((await now(kase)).sections.read.data, 'retracted-front').calibration?.mm).toBe(20.5);
  });
});

it('Ctrl Z where text is written takes back the text, not the plan', async () => {
  const { page } = v;
  const kase = await copyWithoutScans('Taken back');
  await open(page, kase.id, 'propose');
  await page.getByTestId('target-11').waitFor();
  const edge = page.getByLabel('Edge set down').first();
  await keys(page, edge, '1.5');
  await page.keyboard.press('Tab');
  await saved(page);
  const remark = page.getByRole('textbox', { name: /comment|remark/i }).first();
  await remark.click();
  await page.keyboard.type('a word');
  await page.keyboard.press('ControlOrMeta+z');
  await page.waitForTimeout(800);
  expect(await edge.inputValue()).toBe('1.5');
  expect((await now(kase)).sections.propose.data.edgeMm).toBe(1.5);
  await page.getByRole('heading', { name: 'As it is, and as proposed' }).click();
  await page.keyboard.press('ControlOrMeta+z');
  await saved(page);
  expect((await now(kase)).sections.propose.data.edgeMm).toBe(0.5);
});

it('gum that is moved up makes the crown grow at the gum: its edge stays', async () => {
  const { page } = v;
  const kase = await copyWithoutScans('Gum up');
  await open(page, kase.id, 'propose');
  const tooth = page.getByTestId('proposed-11');
  await tooth.waitFor();
  const box = async () => (await tooth.boundingBox()) as { y: number; height: number };
  const before = await box();
  await keys(page, page.getByLabel('Gum moved up').first(), '2');
  await page.getByText('gum moved up 2.0 mm').waitFor();
  await page.waitForTimeout(300);
  const after = await box();
  expect(after.height).toBeGreaterThan(before.height * 1.1);
  // The lower border of the drawn crown is its edge.
  expect(Math.abs(after.y + after.height - (before.y + before.height))).toBeLessThan(1.5);
});

it('a technician has no brush, and nothing that they do leaves a contour behind that is not there', async () => {
  const kase = await copyOfAvocet('Looked at');
  const { page } = await visit('technician');
  await open(page, kase.id, 'shape');
  await page.getByText('You read and comment here, and put wax-ups in as scans; the dentist decides.').waitFor();
  expect(await page.getByRole('button', { name: 'brush' }).count()).toBe(0);
  await page.keyboard.press('b');
  const canvas = page.locator('canvas').first();
  await canvas.waitFor();
  await canvas.hover();
  await page.mouse.down();
  await page.mouse.move(700, 400, { steps: 5 });
  await page.mouse.up();
  await page.waitForTimeout(500);
  expect(await page.locator('[data-testid=save-state]').getAttribute('data-status')).toBe('saved');
  expect(await page.getByRole('button', { name: 'Undo' }).isDisabled()).toBe(true);
  await page.context().close();
});

it('a front photograph that hangs on the wall lies on the bench of read, and what is set on it is kept', async () => {
  const client = await signedIn('dentist');
  const id = (await client.post<CaseDetail>('/cases', { name: 'From the wall' })).body.id;
  const avocet = await copyOfAvocet('Gives its photograph');
  const front = (await now(avocet)).files.find((f) => f.view === 'retracted-front');
  const bytes = await avocet.client.bytes(`/cases/${avocet.id}/files/${front?.id}`);
  await client.upload(`/cases/${id}/files?kind=photo&view=retracted-front`, bytes, 'front.jpg');
  const { page } = v;
  await open(page, id, 'read');
  const image = page.locator('[data-testid=photo-bench] image');
  await image.waitFor();
  await page.getByText('click the one end of a known length').waitFor();
  const box = (await image.boundingBox()) as { x: number; y: number; width: number; height: number };
  await page.mouse.click(box.x + box.width * 0.3, box.y + box.height * 0.5);
  await page.mouse.click(box.x + box.width * 0.6, box.y + box.height * 0.5);
  expect(await keys(page, page.getByLabel('Between the two points'), '20')).toEqual(grown('20'));
  await saved(page);
  const read = readingOf((await client.get<CaseDetail>(`/cases/${id}`)).body.sections.read.data, 'retracted-front');
  expect(read.photoId).toBeTruthy();
  expect(read.calibration?.mm).toBe(20);
});

it('paper and tables are numbered as the screen is, and say so', async () => {
  const { page } = v;
  const kase = await copyOfAvocet('Numbered');
  await open(page, kase.id, 'keep');
  await page.getByLabel('tooth numbers').selectOption('universal');
  try {
    const [paper] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Make the PDF' }).click(),
    ]);
    expect(paper.suggestedFilename()).toBe('Numbered plan, Universal numbers.pdf');
    await open(page, kase.id, 'propose');
    const table = page.getByRole('table', { name: 'Targets beside what is' });
    await table.waitFor();
    await table.hover();
    const [sheet] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save as CSV: Targets beside what is' }).click(),
    ]);
    expect(sheet.suggestedFilename()).toBe('Targets beside what is, Universal numbers.csv');
    const stream = await sheet.createReadStream();
    const chunks: Buffer[] = [];
    for await (const chunk of stream) chunks.push(chunk as Buffer);
    expect(Buffer.concat(chunks).toString('utf8').slice(1).split('\r\n')[0]).toBe('tooth numbers,Universal (1–32)');
  } finally {
    await page.getByLabel('tooth numbers').selectOption('fdi');
  }
});

it('numbers of the practice’s settings are sent once, when the field is left; what was refused is told', async () => {
  const { page } = v;
  const client = await signedIn('dentist');
  const settings = async () => (await client.get<PracticeSettingsState>('/practice/settings')).body;
  const first = await settings();
  await page.goto(`${URL_}/people`);
  const days = page.getByLabel(/A mock-up is worn/);
  expect(await keys(page, days, '14')).toEqual(['1', '14']);
  await page.getByRole('checkbox', { name: /Contacts of a new contour are kept/ }).check();
  const tight = page.getByLabel('Tightness of contacts, mm');
  expect(await keys(page, tight, '0.05')).toEqual(grown('0.05'));
  await page.keyboard.press('Tab');
  await until('all is kept', async () => (await settings()).data.contactsMm === 0.05);
  const now = await settings();
  expect(now).toMatchObject({ version: first.version + 3, data: { wearDays: 14, contactsMm: 0.05 } });
  await client.call('PUT', '/practice/settings', { version: now.version, data: first.data });
});

it('what is searched for among the cases narrows the list key by key', async () => {
  const { page } = v;
  await page.goto(URL_);
  const search = page.getByLabel('Find a case');
  for (const seen of await keys(page, search, 'avo').then((s) => s.entries()))
    expect(seen[1]).toBe('avo'.slice(0, seen[0] + 1));
  await page
    .getByRole('link', { name: /^Avocet/ })
    .first()
    .waitFor();
  await page.getByText('Typed twice').waitFor({ state: 'detached' });
});

it('nothing of all this troubled the page', () => expect(v.troubles).toEqual([]));

it('a case’s name is written where it stands, key by key; Esc leaves it, an empty one is told', async () => {
  const { page } = v;
  const kase = await copyWithoutScans('Named once');
  await open(page, kase.id, 'keep');
  await page.getByRole('button', { name: 'Named once, change the name' }).click();
  const field = page.getByLabel('Name of the case');
  expect(await keys(page, field, 'Whimbrel')).toEqual(grown('Whimbrel'));
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Named once, change the name' }).click();
  await keys(page, field, ' ');
  await page.keyboard.press('Enter');
  await page.getByText(/The name has 1 to \d+ characters\./).waitFor();
  await keys(page, field, 'Whimbrel');
  await page.keyboard.press('Enter');
  // The heading is called by what is typed in it already; the button comes when the name is kept.
  await page.getByRole('button', { name: 'Whimbrel, change the name' }).waitFor();
  expect((await now(kase)).name).toBe('Whimbrel');
  await page.waitForFunction(() => document.title === 'Whimbrel · keep · Radiant Arch');
});
