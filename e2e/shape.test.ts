import type { CaseDetail } from '@radiant/contract';
import sharp from 'sharp';
import {
  closePages,
  copyOfAvocet,
  hearsOnce,
  holds,
  open,
  picture,
  saved,
  typed,
  type Visit,
  visit,
} from './browser.js';

let v: Visit;
let kase: Awaited<ReturnType<typeof copyOfAvocet>>;
beforeAll(async () => {
  v = await visit();
  kase = await copyOfAvocet('Shaped');
});
afterAll(closePages);

const planOf = async (tooth: number) =>
  (await kase.client.get<CaseDetail>(`/cases/${kase.id}`)).body.sections.shape.data.teeth.find(
    (t) => t.tooth === tooth,
  );
const six = () =>
  v.page.waitForFunction(
    () => document.querySelector('[data-testid=planned-count]')?.textContent?.startsWith('6'),
    undefined,
    { timeout: 90_000 },
  );

it('shows six planned surfaces over the scan, and a number changes one', async () => {
  const { page } = v;
  await open(page, kase.id, 'shape');
  await six();
  await page.getByRole('radio', { name: /^11/ }).click();
  const length = page.getByLabel('Length').first();
  const before = await length.inputValue();
  await page.getByText(/^scan 9\.9/).waitFor();
  // At most, and in all as a volume, once the full map is there.
  const added = page.getByRole('row', { name: /^added \+\d\.\d\d mm \d+\.\d mm³$/ });
  const was = await added.textContent();
  await typed(length, '11.5');
  await page.waitForFunction((old) => ![...document.querySelectorAll('tr')].some((r) => r.textContent === old), was);
  await saved(page);
  expect((await planOf(11))?.lengthMm).toBe(11.5);

  await typed(length, '40');
  await page.getByText('Between 5.00 and 16.00 mm; not taken.').waitFor();
  await saved(page);
  expect((await planOf(11))?.lengthMm).toBe(11.5);

  await typed(length, '11.5');
  await page.getByRole('button', { name: 'Undo' }).click();
  await holds(length, before);
  await page.getByRole('button', { name: 'Redo' }).click();
  await holds(length, '11.50');
  await saved(page);
});

it('sliders and arrow keys move by steps, one undo for one drag', async () => {
  const { page } = v;
  const rotation = page.getByLabel('Rotation, mesial forward').first();
  await rotation.focus();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Shift+ArrowUp');
  await holds(rotation, '5.5');
  const thumb = page.getByRole('slider', { name: 'Width' });
  const width = page.getByLabel('Width').first();
  const before = await width.inputValue();
  const box = (await thumb.boundingBox()) as { x: number; y: number; width: number; height: number };
  await page.mouse.move(box.x + 8, box.y + 8);
  await page.mouse.down();
  await page.mouse.move(box.x + 30, box.y + 8, { steps: 6 });
  await page.mouse.up();
  const after = Number(await width.inputValue());
  expect(after).toBeGreaterThan(Number(before) + 0.4);
  await page.getByRole('button', { name: 'Undo' }).click();
  await holds(width, before);
  await saved(page);
});

it('names a contour stale when the proposal has changed, and sets it anew', async () => {
  const { page } = v;
  await page.getByRole('link', { name: 'propose', exact: true }).click();
  await typed(page.getByLabel('Edge set down').first(), '1');
  await saved(page);
  await page.getByRole('link', { name: 'shape', exact: true }).click();
  await page.getByText('The proposal has changed since').waitFor();
  await page.getByText(/11 0\.\d+ mm longer/).waitFor();
  // Taken back, it is the same proposal again, whatever was written meanwhile.
  await page.getByRole('link', { name: 'propose', exact: true }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await saved(page);
  await page.getByRole('link', { name: 'shape', exact: true }).click();
  await six();
  expect(await page.getByText('The proposal has changed since').count()).toBe(0);
  await page.getByRole('link', { name: 'propose', exact: true }).click();
  await page.getByRole('button', { name: 'Redo' }).click();
  await saved(page);
  await page.getByRole('link', { name: 'shape', exact: true }).click();
  await page.getByText('The proposal has changed since').waitFor();
  await six();
  await page.getByRole('button', { name: 'Set the crowns to the proposal' }).click();
  await page.getByText('The proposal has changed since').waitFor({ state: 'detached' });
  await saved(page);
  await picture(page, 'shape');
  expect((await planOf(11))?.lengthMm).toBeCloseTo(11, 0);
});

it('a broken scan is refused in a sentence and the old one stays', async () => {
  const { page } = v;
  await page
    .getByLabel('Scan file')
    .setInputFiles({ name: 'x.stl', mimeType: 'model/stl', buffer: Buffer.from('solid nothing\nendsolid nothing\n') });
  await page.getByText('The STL file holds no triangles.').waitFor();
  await six();
  expect(v.troubles).toEqual([]);
});

it('a technician turns the arch and comments, and the numbers stand still', async () => {
  const t = await visit('technician');
  await open(t.page, kase.id, 'shape');
  await t.page.getByText('You read and comment here, and put wax-ups in as scans; the dentist decides.').waitFor();
  expect(await t.page.getByLabel('Length').first().isDisabled()).toBe(true);
  await typed(t.page.getByPlaceholder('Write a comment'), 'Incisal embrasures a little deeper, please.');
  await t.page.getByRole('button', { name: 'Send' }).click();
  await t.page.getByText('Incisal embrasures a little deeper, please.').waitFor();
  expect(t.troubles).toEqual([]);
});

it('a contour is kept as a version, worn, approved by the patient, and gone on from', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Versioned');
  await open(page, id, 'shape');
  const versions = page.getByRole('region', { name: 'Versions' });
  await versions.getByRole('button', { name: 'keep as version' }).click();
  const keep = page.getByRole('dialog', { name: 'Keep this contour' });
  await keep.getByRole('button', { name: 'Keep it' }).click();
  await keep.getByText('The name of a version has 1 to 60 characters.').waitFor();
  await typed(keep.getByLabel('Name'), 'for the mock-up');
  await keep.getByRole('button', { name: 'Keep it' }).click();
  await versions.getByRole('button', { name: /^1 · for the mock-up/ }).click();
  const card = page.getByRole('dialog', { name: 'Version 1: for the mock-up' });
  await card.getByText('The same in every number.').waitFor();
  await card.getByLabel('Put in on').fill('2026-11-17');
  await typed(card.getByLabel('Speech'), 'a slight lisp at first');
  const asked = card.getByRole('group', { name: 'Changes asked for' });
  await asked.getByRole('button', { name: 'add one' }).click();
  await asked.getByLabel('Tooth').selectOption('21');
  await typed(asked.getByLabel('By how much'), '-0.3');
  await card.getByRole('button', { name: 'save these notes' }).click();
  await asked.getByRole('button', { name: 'Make these edits on this version' }).waitFor();
  await typed(card.getByLabel('How the patient approved it, in a word'), 'after a week of wearing');
  await card.getByRole('button', { name: 'Approved by the patient' }).click();
  await card.getByText('after a week of wearing').waitFor();
  await card.getByRole('button', { name: 'Close' }).click();
  await open(page, id, 'reduce');
  await page.getByText('as kept in “for the mock-up”, approved by the patient').waitFor();

  await open(page, id, 'shape');
  await typed(page.getByLabel('Length').first(), '11.20');
  await saved(page);
  await versions.getByRole('button', { name: /^1 · for the mock-up.*approved by the patient/ }).click();
  await card.getByRole('row', { name: /length, mm/ }).waitFor();
  await card.getByRole('button', { name: 'Close' }).click();
  await open(page, id, 'reduce');
  await page.getByText('changed since “for the mock-up” was approved').waitFor();
  await open(page, id, 'shape');
  await versions.getByRole('button', { name: /^1 · for the mock-up/ }).click();
  await card.getByRole('button', { name: 'Go on from this one' }).click();
  await saved(page);
  const { contours, sections } = (await client.get<CaseDetail>(`/cases/${id}`)).body;
  expect(contours).toHaveLength(1);
  expect(contours[0]).toMatchObject({
    worn: { speech: 'a slight lisp at first' },
    approved: { word: 'after a week of wearing' },
  });
  expect(sections.shape.data.teeth).toEqual(contours[0]?.teeth);

  // What was asked for after wearing it becomes an edit, on that version.
  await versions.getByRole('button', { name: /^1 · for the mock-up/ }).click();
  await asked.getByRole('button', { name: 'Make these edits on this version' }).click();
  await card.waitFor({ state: 'detached' });
  await saved(page);
  const length = (teeth: CaseDetail['sections']['shape']['data']['teeth'] | undefined) =>
    teeth?.find((t) => t.tooth === 21)?.lengthMm ?? 0;
  const after = (await client.get<CaseDetail>(`/cases/${id}`)).body;
  expect(after.contours[0]?.worn?.asked).toEqual([{ tooth: 21, key: 'lengthMm', by: -0.3 }]);
  expect(length(after.sections.shape.data.teeth)).toBeCloseTo(length(after.contours[0]?.teeth as never) - 0.3, 6);
  expect(v.troubles).toEqual([]);
});

describe('the tools on the bench', () => {
  let id: string;
  let client: typeof kase.client;
  const plan = async (tooth: number) =>
    (await client.get<CaseDetail>(`/cases/${id}`)).body.sections.shape.data.teeth.find((t) => t.tooth === tooth);
  beforeAll(async () => {
    ({ id, client } = await copyOfAvocet('Tooled'));
    await open(v.page, id, 'shape');
    await six();
  });

  /** The middle of the bench, where the centrals are from the front. */
  const onCentral = async () => {
    const box = (await v.page.locator('canvas').boundingBox()) as {
      x: number;
      y: number;
      width: number;
      height: number;
    };
    return { x: box.x + box.width / 2 - 60, y: box.y + box.height / 2 + 20 };
  };

  it('a stroke of the brush is kept in the crown, mirrored when wished, and undone by one undo', async () => {
    const { page } = v;
    await page.keyboard.press('b');
    const brush = page.getByRole('region', { name: 'Brush' });
    await brush.getByRole('checkbox', { name: /mirror/ }).check();
    const at = await onCentral();
    await page.mouse.move(at.x, at.y);
    await page.mouse.down();
    await page.mouse.move(at.x + 12, at.y + 25, { steps: 6 });
    await page.mouse.up();
    await brush.getByText('1 stroke on 11').waitFor();
    await saved(page);
    const [own, other] = [await plan(11), await plan(21)];
    expect(own?.strokes).toHaveLength(1);
    expect(own?.strokes?.[0]).toMatchObject({ tool: 'add', radiusMm: 1.5, amount: 0.1 });
    expect(other?.strokes?.[0]?.at).toHaveLength(own?.strokes?.[0]?.at.length ?? 0);
    // Some hundred bytes a stroke, not a mesh.
    expect(JSON.stringify(own?.strokes).length).toBeLessThan(2000);
    await page.getByRole('button', { name: 'Undo' }).click();
    await brush.getByText('1 stroke on 11').waitFor({ state: 'detached' });
    await saved(page);
    expect((await plan(21))?.strokes ?? []).toEqual([]);
  });

  it('a stroke that would go through the crown or fold it is refused in a sentence and nothing of it stays', async () => {
    const { page } = v;
    const brush = page.getByRole('region', { name: 'Brush' });
    await brush.getByRole('button', { name: 'remove', exact: true }).click();
    for (let i = 0; i < 50; i++) await page.keyboard.press("'");
    await brush.getByText('1.00 mm').waitFor();
    const at = await onCentral();
    const strokes = async () => (await plan(11))?.strokes?.length ?? 0;
    let taken = 0;
    while (!(await brush.getByRole('alert').isVisible())) {
      expect(taken).toBeLessThan(9);
      await page.mouse.move(at.x, at.y);
      await page.mouse.down();
      await page.mouse.up();
      await brush
        .getByRole('alert')
        .or(brush.getByText(new RegExp(`^${taken + 1} strokes? on 11`)))
        .waitFor();
      if (!(await brush.getByRole('alert').isVisible())) taken++;
    }
    await brush.getByText(/[Tt]he stroke is not taken/).waitFor();
    await saved(page);
    expect(await strokes()).toBe(taken);
    await brush.getByRole('button', { name: 'take off' }).click();
    await saved(page);
    expect(await strokes()).toBe(0);
    await page.keyboard.press('b');
  });

  it('a section shows both lines and measures between two clicks', async () => {
    const { page } = v;
    await page.keyboard.press('x');
    const card = page.getByRole('region', { name: 'Section' });
    await page.waitForFunction(
      () => document.querySelectorAll('[aria-label="Section"] svg path[stroke="#5d2a5a"]').length > 0,
    );
    const drawing = (await card.getByRole('img').boundingBox()) as {
      x: number;
      y: number;
      width: number;
      height: number;
    };
    const pxPerMm = Math.min(drawing.width / 22, drawing.height / 19);
    const middle = { x: drawing.x + drawing.width / 2, y: drawing.y + drawing.height / 2 };
    await page.mouse.click(middle.x, middle.y);
    await page.mouse.click(middle.x + 5 * pxPerMm, middle.y);
    await card.getByText(/^(4\.9\d|5\.0\d) mm$/).waitFor();
    await card.getByRole('button', { name: 'level' }).click();
    await card.getByRole('slider', { name: 'moved' }).fill('1.5');
    await card.getByText('+1.5 mm').waitFor();
    await page.keyboard.press('x');
  });

  it('the bite closes on the plan, and to the right the canine leads', async () => {
    const { page } = v;
    await page.keyboard.press('o');
    const card = page.getByRole('region', { name: 'Bite' });
    await card.getByText(/^Closed, /).waitFor();
    await card.getByRole('row', { name: /overbite/ }).waitFor();
    await card.getByRole('button', { name: 'to the right' }).click();
    await card.getByRole('slider', { name: 'way' }).fill('2.5');
    await card.getByText(/^13 leads; all others are \d\.\d mm clear$/).waitFor();
    await card.getByRole('button', { name: 'an angle' }).click();
    await typed(card.getByLabel('Guidance angle, degrees'), '5');
    await card.getByText(/is in the way of .* by \d\.\d\d mm/).waitFor();
    await page.keyboard.press('o');
  });

  it('a crown pushed into its neighbour or into the lower teeth is told with the amount', async () => {
    const { page } = v;
    await page.getByRole('radio', { name: /^12/ }).click();
    await page.getByRole('button', { name: /^stand/ }).click();
    await typed(page.getByLabel('Away from the midline').first(), '-0.8');
    await page.getByText(/12 and 11 pass 0\.\d\d mm into each other/).waitFor();
    // A press mends it, and one step back brings it again.
    await page.getByRole('button', { name: 'make room' }).click();
    await page.getByText(/12 and 11 pass/).waitFor({ state: 'detached' });
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.getByText(/12 and 11 pass 0\.\d\d mm into each other/).waitFor();
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.getByText(/pass 0\.\d\d mm into each other/).waitFor({ state: 'detached' });
    // The canine stands over the lower first premolar: longer, it comes into it.
    await page.getByRole('radio', { name: /^13/ }).click();
    await page.getByRole('button', { name: 'size', exact: true }).click();
    await typed(page.getByLabel('Length').first(), '14');
    await page.getByText(/13 would lie \d\.\d\d mm inside 4\d in the closed bite/).waitFor();
    await page.getByRole('button', { name: 'Undo' }).click();
    await saved(page);
  });

  it('contacts are set to a tightness, and kept at it when a width changes, in one step back', async () => {
    const { page } = v;
    await page.getByRole('radio', { name: /^21/ }).click();
    await page.getByRole('checkbox', { name: 'keep', exact: true }).check();
    const width = page.getByLabel('Width').first();
    const was = await width.inputValue();
    const place = async () => (await plan(22))?.distalMm ?? 0;
    const before = await place();
    await typed(width, '7.9');
    await width.blur();
    await page.waitForTimeout(1500);
    await saved(page);
    expect(await place()).not.toBe(before);
    await page.getByText(/to 11 0\.0[0-5] mm (tight|open)/).waitFor();
    await page.getByRole('button', { name: 'Undo' }).click();
    await holds(width, was);
    await saved(page);
    expect(await place()).toBe(before);
    await page.getByRole('checkbox', { name: 'keep', exact: true }).uncheck();
    await saved(page);
  });

  it('a premolar is taken into the plan as it stands, and left again', async () => {
    const { page } = v;
    await page.getByRole('radio', { name: /^14/ }).click();
    await page.getByText('Not in the plan: this tooth stays as it is.').waitFor();
    await page.getByRole('button', { name: 'Take 14 into the plan' }).click();
    await page.waitForFunction(() =>
      document.querySelector('[data-testid=planned-count]')?.textContent?.startsWith('7'),
    );
    await page.getByRole('button', { name: 'face', exact: true }).click();
    await page.getByRole('button', { name: 'square' }).click();
    await saved(page);
    expect(await plan(14)).toMatchObject({ character: 'square' });
    await page.getByRole('button', { name: 'leave 14 as it is' }).click();
    await six();
    await saved(page);
  });

  it('a lower premolar is shaped on its own arch, and told where it comes into an upper tooth', async () => {
    const { page } = v;
    await page.getByRole('radio', { name: /^14/ }).click();
    await page.keyboard.press('j');
    await page.getByRole('radio', { name: /^44/, checked: true }).waitFor();
    await page.getByText(/form fits it to 0\.\d\d mm/).waitFor();
    await page.getByRole('button', { name: 'Take 44 into the plan' }).click();
    await page.waitForFunction(() =>
      document.querySelector('[data-testid=planned-count]')?.textContent?.startsWith('7'),
    );
    await page.getByRole('row', { name: /^added/ }).waitFor();
    await page.getByRole('button', { name: 'size', exact: true }).click();
    const length = page.getByLabel('Length').first();
    const as = Number(await length.inputValue());
    await typed(length, String(as + 2));
    await page.getByText(/44 would lie \d\.\d\d mm inside 1\d in the closed bite/).waitFor();
    await saved(page);
    expect((await plan(44))?.lengthMm).toBeCloseTo(as + 2, 6);
    await page.getByRole('button', { name: 'leave 44 as it is' }).click();
    await six();
    // A stage that knows upper teeth alone takes the one across.
    await page.keyboard.press('Alt+5');
    await page.getByRole('radio', { name: /^13/, checked: true }).waitFor();
    await page.keyboard.press('Alt+4');
    await six();
    await saved(page);
  });

  it('the plan is laid into the smile, with the words that it is no promise, to be saved', async () => {
    const { page } = v;
    await page.keyboard.press('s');
    // The sample has one photograph here; without a smile it says what to do, and the other view can still be chosen.
    await page.getByText('No such photograph yet').waitFor();
    await page.getByRole('button', { name: 'retracted, front' }).click();
    const picture = page.getByTestId('laid-smile');
    await picture.waitFor();
    expect(await picture.getAttribute('alt')).toMatch(/simulation and not a promise/);
    const words = (await page.getByText(/^laid in to \d+(\.\d)? px$/).textContent()) ?? '';
    expect(Number(/[\d.]+/.exec(words)?.[0])).toBeLessThan(2);
    const [saved] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'save the picture' }).click(),
    ]);
    expect(saved.suggestedFilename()).toBe('Tooled simulation.png');
    const { width, height } = await sharp(await saved.path()).metadata();
    expect([width, height]).toEqual([1500, 1000]);
    await page.keyboard.press('s');
    expect(v.troubles).toEqual([]);
  });
});

it('two people who shape the same tooth meet: both numbers are shown, one is chosen, nothing is overwritten', async () => {
  const { id, client } = await copyOfAvocet('Shaped by two');
  const [one, two] = [v, await visit()];
  await hearsOnce(two.page, id);
  for (const b of [one, two]) {
    await open(b.page, id, 'shape');
    await b.page.waitForFunction(
      () => document.querySelector('[data-testid=planned-count]')?.textContent?.startsWith('6'),
      undefined,
      { timeout: 90_000 },
    );
  }
  await typed(one.page.getByLabel('Length').first(), '10.8');
  await saved(one.page);
  await typed(two.page.getByLabel('Length').first(), '11.4');
  const dialog = two.page.getByRole('dialog', { name: /changed “shape” meanwhile/ });
  await dialog.waitFor();
  await dialog.getByText('11, length, mm').waitFor();
  await dialog.getByRole('button', { name: '10.8' }).click();
  await dialog.getByRole('button', { name: 'Keep what is marked' }).click();
  await saved(two.page);
  const teeth = (await client.get<CaseDetail>(`/cases/${id}`)).body.sections.shape.data.teeth;
  expect(teeth.find((t) => t.tooth === 11)?.lengthMm).toBe(10.8);
});

it('a slider links no program anew, the threads are given back, and the list on “?” is what the bench answers to', async () => {
  const { page } = v;
  const { id } = await copyOfAvocet('Given back');
  await page.addInitScript(() => {
    const counted = window as unknown as { links: number };
    counted.links = 0;
    const { linkProgram } = WebGL2RenderingContext.prototype;
    WebGL2RenderingContext.prototype.linkProgram = function (program) {
      counted.links++;
      linkProgram.call(this, program);
    };
  });
  await open(page, id, 'shape');
  // The script runs where a page is loaded.
  await page.reload();
  await six();
  await page.getByRole('radio', { name: /^11/ }).click();
  const links = () => page.evaluate(() => (window as unknown as { links: number }).links);
  const length = page.getByLabel('Length').first();
  await length.focus();
  await page.keyboard.press('ArrowUp');
  await saved(page);
  const before = await links();
  expect(before).toBeGreaterThan(0);
  for (let i = 0; i < 5; i++) {
    const was = await length.inputValue();
    await page.keyboard.press('ArrowUp');
    await page.waitForFunction(([old]) => (document.activeElement as HTMLInputElement).value !== old, [was]);
    await page.waitForTimeout(150);
  }
  await saved(page);
  expect(await links()).toBe(before);

  await page.keyboard.press('Escape');
  await page.getByRole('main').click({ position: { x: 20, y: 300 } });
  await page.keyboard.press('?');
  const keys = page.getByRole('dialog', { name: 'Keys' });
  await keys.getByText('brush, section, bite, light, in the smile').waitFor();
  // Nothing behind the list hears its keys.
  await page.keyboard.press('x');
  await page.keyboard.press('Escape');
  expect(await page.getByRole('button', { name: 'section', exact: true }).getAttribute('aria-pressed')).toBe('false');

  expect(page.workers().length).toBeGreaterThan(0);
  await page.clock.install();
  await page.getByRole('link', { name: /All cases/ }).click();
  await page.getByRole('heading', { name: 'Cases' }).waitFor();
  const within = async (most: number) => {
    for (let i = 0; i < 50 && page.workers().length > most; i++) await new Promise((r) => setTimeout(r, 100));
    return page.workers().map((w) => w.url());
  };
  // Threads are kept for the next case and the next scan, one each, and go when none is opened.
  const waiting = await within(2);
  expect(waiting.filter((url) => /case\.worker/.test(url)).length).toBeLessThan(2);
  expect(waiting.filter((url) => !/(case|raw-jaw)\.worker/.test(url))).toEqual([]);
  await page.clock.fastForward(61_000);
  expect(await within(0)).toEqual([]);
  expect(v.troubles).toEqual([]);
});
