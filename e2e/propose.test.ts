import type { CaseDetail } from '@radiant/contract';
import sharp from 'sharp';
import { signedIn } from '../server/test/house.js';
import { closePages, copyOfAvocet, holds, open, saved, typed, type Visit, visit } from './browser.js';

let v: Visit;
beforeAll(async () => {
  v = await visit();
});
afterAll(closePages);

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
  await typed(edge, '1.5');
  await page.getByText('+1.5').first().waitFor();
  const after = await target(11);
  expect(after.length - before.length).toBeCloseTo(1, 1);
  const sum = async () => (await Promise.all([13, 12, 11, 21, 22, 23].map(target))).reduce((s, t) => s + t.width, 0);
  const shown = page.locator('aside').getByText(/^\d\d\.\d/);
  const space = Number.parseFloat(String(await shown.first().textContent()));
  expect(Math.abs((await sum()) - space)).toBeLessThan(0.35);

  await typed(edge, '9');
  await page.getByText('Between −3.0 and 4.0 mm; not taken.').waitFor();
  await typed(edge, '0');
  await page.getByText('reference tooth', { exact: true }).click();
  await page.getByLabel('Reference tooth', { exact: true }).selectOption('11');
  const [left, right] = await Promise.all([target(21), target(11)]);
  expect(left.length).toBe(right.length);
  expect(left.width).toBe(right.width);
  expect(Math.abs((await sum()) - space)).toBeLessThan(0.35);
  await saved(page);
  const stored = (await client.get<{ sections: { propose: { data: object } } }>(`/cases/${id}`)).body.sections.propose
    .data;
  expect(stored).toEqual({ school: 'reference', referenceTooth: 11, edgeMm: 0 });
});

it('schools stand side by side; a width that is held stays while the others share what is left; too much is told', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Schooled');
  await open(page, id, 'propose');
  await page.getByTestId('target-11').waitFor();
  expect(await page.getByRole('radio', { name: /ratio|width|tooth|crowns|means|liked/ }).count()).toBe(9);
  await page.getByText('golden ratio', { exact: true }).click();
  const golden = await target(13);
  await page.getByText('recurring ratio', { exact: true }).click();
  await typed(page.getByLabel('Each tooth of the one before').first(), '0.75');
  await page.getByLabel('Each tooth of the one before').first().press('Tab');
  await page.waitForTimeout(100);
  expect((await target(13)).width).toBeGreaterThan(golden.width + 0.5);

  await page.getByRole('button', { name: 'hold the width of 11' }).click();
  const held = page.getByLabel('width of 11, mm');
  await typed(held, '9.4');
  await page.waitForTimeout(100);
  expect((await target(11)).width).toBe(9.4);
  expect((await target(21)).width).toBe(9.4);
  await typed(held, '13.5');
  await page.getByText(/The teeth need \d+\.\d mm more than there is/).waitFor();
  await page.getByRole('button', { name: 'hold the width of 11' }).click();

  const before = await target(11);
  await typed(page.getByLabel('Gum moved up').first(), '1.2');
  await page.getByText(/more than a usual sulcus: the new margin must keep about 2\.7 mm to the bone/).waitFor();
  // Both are shown to a tenth.
  expect(Math.abs((await target(11)).length - before.length - 1.2)).toBeLessThan(0.11);
  await page.getByLabel('close the gaps').uncheck();
  await saved(page);
  const { data } = (await client.get<{ sections: { propose: { data: object } } }>(`/cases/${id}`)).body.sections
    .propose;
  expect(data).toMatchObject({ school: 'recurring', ratio: 0.75, gumMm: 1.2, gaps: 'keep', locked: [] });
  expect(v.troubles).toEqual([]);
});

it('edge, gum and a width are taken hold of on the drawing, by hand and by keys, each as one step', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Handles');
  const now = async () => (await client.get<CaseDetail>(`/cases/${id}`)).body.sections.propose.data;
  await open(page, id, 'propose');
  await page.getByTestId('target-11').waitFor();
  const before = (await now()).edgeMm;
  const edge = page.getByRole('slider', { name: 'Central edges, up and down' });
  const box = await edge.boundingBox();
  if (!box) throw new Error('The handle is not on the drawing.');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x, y + 8, { steps: 3 });
  await page.mouse.move(x, y + 22, { steps: 4 });
  // The figure goes with the hand.
  await edge.getByText(/^[+−]\d\.\d mm$/).waitFor();
  await page.mouse.up();
  const after = Number(await edge.getAttribute('aria-valuenow'));
  expect(after).toBeGreaterThan(before + 0.3);
  await saved(page);
  expect((await now()).edgeMm).toBeCloseTo(after, 6);
  await page.keyboard.press('Control+z');
  expect(Number(await edge.getAttribute('aria-valuenow'))).toBeCloseTo(before, 6);

  await page.getByRole('radio', { name: /^12/ }).click();
  const side = page.getByRole('slider', { name: 'Side of 12, in and out' });
  const width = Number(await side.getAttribute('aria-valuenow'));
  await side.focus();
  // To the picture's left is away from the middle.
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowLeft');
  expect(Number(await side.getAttribute('aria-valuenow'))).toBeCloseTo(width + 0.3, 6);
  await saved(page);
  expect((await now()).locked).toEqual([{ tooth: 12, widthMm: Math.round(10 * (width + 0.3)) / 10 }]);

  const gum = page.getByRole('slider', { name: 'Gum line, up and down' });
  await gum.focus();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowDown');
  await saved(page);
  expect((await now()).gumMm).toBeCloseTo(0.1, 6);
});

it('a school under the pointer is shown on the drawing and changes nothing', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Looked at');
  await open(page, id, 'propose');
  await page.getByTestId('target-11').waitFor();
  const { version } = (await client.get<CaseDetail>(`/cases/${id}`)).body.sections.propose;
  await page.getByText('golden ratio', { exact: true }).hover();
  await page.getByText('as golden ratio would').waitFor();
  await page.getByRole('heading', { name: 'Edge and gum' }).hover();
  await page.getByText('as golden ratio would').waitFor({ state: 'detached' });
  expect((await client.get<CaseDetail>(`/cases/${id}`)).body.sections.propose.version).toBe(version);
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

it('without a scan and measures says what to do', async () => {
  const { page } = v;
  const client = await signedIn('dentist');
  const { id } = (await client.post<CaseDetail>('/cases', { name: 'Bare' })).body;
  await open(page, id, 'propose');
  await page.getByText('Targets need measures first').waitFor();
  expect(v.troubles).toEqual([]);
});

it('sizes are the scan’s wherever there is one, also without any landmark', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Scanned');
  const targets = page.getByRole('table', { name: 'Targets beside what is' });
  await open(page, id, 'propose');
  await targets.waitFor();
  // The modelled lateral is 5.4 mm wide; the photograph gives it ±0.5, the scan ±0.1.
  const width = page.getByTestId('target-12').locator('td').nth(3);
  const scanned = async () => {
    await width.getByText(/±.1/).waitFor();
    const [, mm] = ((await width.textContent()) ?? '').replace(/\s/g, '').match(/^(\d\.\d)±\.1/) ?? [];
    expect(Math.abs(Number(mm) - 5.4)).toBeLessThan(0.11);
  };
  await scanned();
  await client.patch(`/cases/${id}/sections/read`, {
    version: 1,
    data: { landmarks: [], verdicts: [], drawn: [], views: [], aligned: [] },
  });
  await page.reload();
  await targets.waitFor();
  await scanned();
});

it('one tooth alone is planned: the others stay as they are, and only it becomes a crown', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Alone');
  await open(page, id, 'propose');
  await page.getByTestId('target-12').waitFor();
  for (const tooth of [13, 12, 11, 22, 23]) await page.getByLabel(`${tooth} in the plan`).uncheck();
  expect(await page.getByLabel('21 in the plan').isDisabled()).toBe(true);
  const sizes = await page.getByTestId('target-12').locator('td').allInnerTexts();
  expect([sizes[2]?.startsWith('as is'), sizes[4]?.startsWith('as is')]).toEqual([true, true]);
  await saved(page);
  await page.getByRole('button', { name: 'Shape the crowns to this' }).click();
  const teeth = async () =>
    (await client.get<CaseDetail>(`/cases/${id}`)).body.sections.shape.data.teeth.map((t) => t.tooth);
  const end = Date.now() + 90_000;
  while ((await teeth()).length !== 1 && Date.now() < end) await page.waitForTimeout(200);
  expect(await teeth()).toEqual([21]);
  await open(page, id, 'reduce');
  await page.getByRole('heading', { name: 'Section through 21' }).waitFor({ timeout: 90_000 });
  expect(await page.getByTestId('remove-21-middle').count()).toBe(1);
  expect(await page.getByTestId('remove-11-middle').count()).toBe(0);
  expect(v.troubles).toEqual([]);
});

describe('the edge', () => {
  it('is proposed with its reasons, taken by one press, and what it comes to is shown; through the lip is told at the field', async () => {
    const { page } = v;
    const { id, client } = await copyOfAvocet('Edged');
    // The smile and rest views of the sample, as a hand marks them: lips level at the corners, edges over the lower
    // one.
    const detail = (await client.get<CaseDetail>(`/cases/${id}`)).body;
    const photo = detail.files.find((f) => f.kind === 'photo');
    const lip = (which: string, y: readonly number[]) =>
      y.map((d, i) => ({ id: `${which}-lip-${i + 1}`, x: 350 + 150 * i, y: 400 + d }));
    const calibration = { from: { x: 400, y: 700 }, to: { x: 700, y: 700 }, mm: 20 };
    const corners = [
      { id: 'corner-right', x: 200, y: 400 },
      { id: 'corner-left', x: 1100, y: 400 },
    ];
    const views = [
      {
        view: 'close-rest',
        photoId: photo?.id,
        calibration,
        drawn: [],
        points: [
          ...corners,
          ...lip('upper', [0, 0, 0, 0, 0]),
          ...lip('lower', [20, 40, 50, 40, 20]),
          { id: 'edge-11', x: 600, y: 415 },
          { id: 'edge-21', x: 700, y: 412 },
        ],
      },
      {
        view: 'close-smile',
        photoId: photo?.id,
        calibration,
        drawn: [],
        points: [
          ...corners,
          ...lip('upper', [-60, -90, -100, -90, -60]),
          ...lip('lower', [60, 90, 100, 90, 60]),
          { id: 'edge-11', x: 600, y: 480 },
          { id: 'edge-21', x: 700, y: 476 },
        ],
      },
    ];
    const { version, data } = detail.sections.read;
    expect((await client.patch(`/cases/${id}/sections/read`, { version, data: { ...data, views } })).status).toBe(200);

    await open(page, id, 'propose');
    // 15 px at 15 px/mm: 1 mm shows; 1.58 is usual at 34, so 0.6 mm more; the lip leaves about 1.2 mm.
    await page.getByText('Proposed: +0.6 mm').waitFor();
    await page.getByText(/^1\.0 mm show at rest; usual for 30–39 years: 1\.6 mm/).waitFor();
    await page.getByRole('button', { name: 'take it' }).click();
    const field = page.getByLabel('Edge set down').first();
    await holds(field, '0.6');
    await page.getByRole('row', { name: /shown at rest, mm 1\.0 → 1\.6/ }).waitFor();
    await typed(field, '3');
    await page
      .getByRole('alert')
      .filter({ hasText: /The edge would lie \d\.\d mm below the border of the lower lip in full smile\./ })
      .waitFor();
    await typed(field, '0.6');

    await page.getByRole('button', { name: 'on the smile' }).click();
    const line = page.getByRole('slider', { name: 'Planned edge, up and down' });
    await line.focus();
    await page.keyboard.press('ArrowDown');
    await holds(field, '0.7');
    await saved(page);
    await page.getByRole('button', { name: 'as drawing' }).click();
    expect(v.troubles).toEqual([]);
  });

  it('the space goes from premolar to premolar when these give and take too', async () => {
    const { page } = v;
    await page.getByText('from canine to canine along the arch').waitFor();
    await page.getByRole('checkbox', { name: 'the first premolars give and take too' }).check();
    await page.getByText('from first premolar to first premolar along the arch').waitFor();
    await page.getByText(/^14 7\.\d → \d\.\d mm$/).waitFor();
    await saved(page);
  });

  it('a liked smile is measured on a picture and its proportions carried over', async () => {
    const { page } = v;
    await page.getByRole('radio', { name: /a smile that is liked/ }).check({ force: true });
    await page.getByRole('button', { name: 'measure them on a picture' }).click();
    const dialog = page.getByRole('dialog', { name: 'A smile that is liked' });
    const picture = await sharp({ create: { width: 900, height: 300, channels: 3, background: '#c9b8a0' } })
      .png()
      .toBuffer();
    await dialog
      .getByLabel('Picture of a smile that is liked')
      .setInputFiles({ name: 'liked.png', mimeType: 'image/png', buffer: picture });
    const area = dialog.getByRole('img');
    await area.waitFor();
    const box = (await area.boundingBox()) as { x: number; y: number; width: number; height: number };
    // Widths 70, 100, 140 and back: a lateral of 71 %, a canine of 70 %.
    for (const x of [100, 170, 270, 410, 550, 650, 720])
      await page.mouse.click(box.x + (x / 900) * box.width, box.y + box.height / 2);
    await dialog
      .getByText(/lateral/)
      .filter({ hasText: /7[01]\s*%/ })
      .first()
      .waitFor();
    await dialog.getByRole('button', { name: 'Carry its proportions over' }).click();
    await saved(page);
    await holds(page.getByLabel('Lateral of central, from the front').first(), '71');
  });
});
