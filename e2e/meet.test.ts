import type { CaseDetail } from '@radiant/contract';
import { AVOCET, makePatient, photograph, VIEWS, type ViewName } from '@radiant/standins';
import sharp from 'sharp';
import type { Client } from '../server/test/house.js';
import { closePages, copyOfAvocet, holds, open, saved, typed, type Visit, visit } from './browser.js';

let v: Visit;
beforeAll(async () => {
  v = await visit();
});
afterAll(closePages);

const picture = async (name: string, colour: string) => ({
  name,
  mimeType: 'image/jpeg',
  buffer: await sharp({ create: { width: 400, height: 300, channels: 3, background: colour } })
    .jpeg()
    .toBuffer(),
});

it('what the patient wants and what to beware of is kept, and stands on every stage', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Wishes');
  await open(page, id, 'meet');
  await typed(page.getByLabel('What the patient wants'), 'Close the gap beside the eye tooth.');
  await page.getByRole('button', { name: 'gaps closed' }).click();
  await page.getByRole('button', { name: 'bleeds easily' }).click();
  await typed(page.getByLabel('Age, years'), '35');
  await page.getByRole('button', { name: 'female', exact: true }).click();
  await saved(page);
  const { data } = (await client.get<CaseDetail>(`/cases/${id}`)).body.sections.meet;
  expect(data).toMatchObject({ ageYears: 35, sexAtBirth: null, wish: 'Close the gap beside the eye tooth.' });
  expect(data.wishTags).toContain('gaps-closed');
  await open(page, id, 'reduce');
  await page.getByText(/beware: .*bleeds easily/).waitFor();
});

it('an age that can’t be is told, kept on the screen, and does not reach the record', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Ages');
  await open(page, id, 'meet');
  await typed(page.getByLabel('Age, years'), '340');
  await page.getByText('Between 0 and 120 years, whole; not taken.').waitFor();
  await holds(page.getByLabel('Age, years'), '340');
  expect((await client.get<CaseDetail>(`/cases/${id}`)).body.sections.meet.data.ageYears).toBe(34);
});

it('a tooth’s history is noted in either notation', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Histories');
  await open(page, id, 'meet');
  await page.getByLabel('tooth numbers').selectOption({ label: 'Universal' });
  await page.getByRole('button', { name: /^7, lateral incisor/ }).click();
  await page.getByRole('button', { name: 'root-filled' }).click();
  await page.getByRole('button', { name: 'discoloured stump' }).click();
  await typed(page.getByLabel('Note').last(), '2019');
  await page.keyboard.press('Escape');
  await page.getByText(/7: root-filled, discoloured stump, 2019/).waitFor();
  await saved(page);
  await page.getByLabel('tooth numbers').selectOption({ label: 'FDI' });
  const { teeth } = (await client.get<CaseDetail>(`/cases/${id}`)).body.sections.meet.data;
  expect(teeth.find((t) => t.tooth === 12)).toEqual({ tooth: 12, past: ['root-filled', 'dark-stump'], note: '2019' });
});

it('a shade is kept with whether the tooth was wet and when, and one taken dry is told', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Shades');
  await open(page, id, 'meet');
  await page.getByRole('button', { name: /^11, central incisor/ }).click();
  await typed(page.getByLabel('Shade, as the tab is named'), '2 light');
  await page.getByRole('button', { name: 'dry', exact: true }).click();
  await page.getByText(/A dry tooth looks lighter/).waitFor();
  await page.getByRole('textbox', { name: 'taken' }).fill('2026-11-20T09:05');
  await page.keyboard.press('Escape');
  await page.getByText(/11: shade 2 light, taken dry 20 November/).waitFor();
  await saved(page);
  const { teeth } = (await client.get<CaseDetail>(`/cases/${id}`)).body.sections.meet.data;
  const at = new Date('2026-11-20T09:05').toISOString();
  expect(teeth.find((t) => t.tooth === 11)?.shade).toEqual({ name: '2 light', wet: false, at });
  await open(page, id, 'read');
  await page.getByRole('button', { name: /^show all/ }).click();
  await page.getByRole('button', { name: '11: shade taken on a dry tooth', exact: true }).waitFor();
});

it('many files at once find their places, and one that is no picture says so', async () => {
  const { page, troubles } = v;
  const { id } = await copyOfAvocet('Many');
  await open(page, id, 'meet');
  await page
    .getByLabel('Photograph files')
    .setInputFiles([
      await picture('lips smiling, before.jpg', '#933'),
      await picture('upper occlusal before.jpg', '#393'),
      { name: 'notes.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('not a picture') },
      await picture('IMG_7.jpg', '#339'),
    ]);
  await page.getByText('3 of 4 arrived').waitFor();
  await page.getByText(/This is no picture in JPEG/).waitFor();
  await page.getByRole('button', { name: /lips, smiling/ }).waitFor();
  await page.getByRole('button', { name: /upper, occlusal/ }).waitFor();

  await page.getByRole('button', { name: /IMG_7\.jpg/ }).click();
  await page.getByLabel('View').selectOption({ label: 'twelve o’clock' });
  await page.getByLabel('State of the mouth').selectOption({ label: 'before' });
  await page.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('button', { name: /twelve o’clock/ }).waitFor();
  expect(troubles).toEqual([]);
});

/** Small pictures of the stand-ins under the names that a camera gives. */
async function fromTheCamera(views: readonly ViewName[]) {
  const patient = makePatient(AVOCET);
  return Promise.all(
    views.map(async (view, i) => {
      const { camera, expression } = VIEWS[view];
      const heightPx = Math.round((330 * camera.heightPx) / camera.widthPx);
      const p = photograph(patient, { ...camera, widthPx: 330, heightPx }, expression);
      const raw = { width: p.width, height: p.height, channels: 4 } as const;
      const buffer = await sharp(Buffer.from(p.rgba.buffer), { raw }).removeAlpha().jpeg().toBuffer();
      return { name: `IMG_${100 + i}.jpg`, mimeType: 'image/jpeg', buffer };
    }),
  );
}

/** What the case holds of them, in the order of the camera. */
const taken = async (client: Client, id: string) =>
  (await client.get<CaseDetail>(`/cases/${id}`)).body.files
    .filter((f) => f.name.startsWith('IMG_'))
    .sort((a, b) => a.name.localeCompare(b.name));

it('photographs are sorted with a key each, are turned and mirrored, and keep the chosen state', async () => {
  const { page, troubles } = v;
  const { id, client } = await copyOfAvocet('Sorting');
  const views = ['close-smile', 'retracted-right', 'upper-occlusal'] as const;
  await open(page, id, 'meet');
  await page.getByRole('button', { name: /^mock-up \d/ }).click();
  await page.getByLabel('Photograph files').setInputFiles(await fromTheCamera(views));
  await page.getByText('3 of 3 arrived').waitFor();
  await page.getByText('3 photographs have no view or state yet').waitFor();
  await page.getByRole('button', { name: 'Sort them' }).click();
  await page.getByRole('heading', { name: '3 photographs to sort' }).waitFor();
  await page.getByRole('button', { name: 'mock-up', pressed: true }).waitFor();
  await page.getByRole('button', { name: /lips, smiling ?\(the guess\)/ }).waitFor();
  await page.keyboard.press('Enter');
  // It was taken over a mirror: as it lies it looks like the other side.
  await page.getByRole('dialog').getByText('IMG_101.jpg').waitFor();
  await page.keyboard.press('m');
  await page.getByRole('button', { name: /retracted, left ?\(the guess\)/ }).waitFor();
  await page.keyboard.press('7');
  await page.getByRole('dialog').getByText('IMG_102.jpg').waitFor();
  await page.keyboard.press('r');
  await page.keyboard.press('r');
  await page.getByRole('button', { name: /lower, occlusal ?\(the guess\)/ }).waitFor();
  await page.keyboard.press('l');
  await page.keyboard.press('8');
  await page.getByRole('heading', { name: 'All are sorted' }).waitFor();
  await page.getByRole('button', { name: 'Done' }).click();
  await page.getByRole('button', { name: /retracted, left/ }).waitFor();

  const files = await taken(client, id);
  expect(files.map((f) => [f.view, f.state, f.lay.quarterTurns, f.lay.mirrored])).toEqual([
    ['close-smile', 'mock-up', 0, false],
    ['retracted-left', 'mock-up', 0, true],
    ['upper-occlusal', 'mock-up', 1, false],
  ]);
  expect(files[2]).toMatchObject({ width: 220, height: 330 });
  expect(troubles).toEqual([]);
});

it('all guesses are taken with one click, and what none is made for is left', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Guesses');
  const views = ['lower-occlusal', 'retracted-left'] as const;
  await open(page, id, 'meet');
  await page
    .getByLabel('Photograph files')
    .setInputFiles([...(await fromTheCamera(views)), await picture('IMG_900.jpg', '#339')]);
  await page.getByText('3 of 3 arrived').waitFor();
  await page.getByText('3 photographs have no view or state yet').waitFor();
  await page.getByRole('button', { name: 'Sort them' }).click();
  await page.getByRole('button', { name: 'Take all 2 guesses' }).click();
  await page.getByRole('heading', { name: 'One photograph to sort' }).waitFor();
  await page.getByRole('button', { name: 'Later' }).click();
  await page.getByRole('button', { name: 'Sort it' }).waitFor();
  const files = await taken(client, id);
  expect(files.map((f) => f.view)).toEqual(['lower-occlusal', 'retracted-left', null]);
});

it('a photograph that measures stand on is not turned, and says why', async () => {
  const { page } = v;
  const { id } = await copyOfAvocet('Turned');
  await open(page, id, 'meet');
  await page.getByRole('button', { name: /retracted, front/ }).click();
  await page.getByRole('button', { name: 'turn left' }).click();
  await page.getByText(/Measures stand on this photograph as it lies now/).waitFor();
  await page.getByRole('button', { name: 'Close' }).click();
});

it('a picture is put away and brought back; one with measures on it is not', async () => {
  const { page } = v;
  const { id } = await copyOfAvocet('Away');
  await open(page, id, 'meet');
  await page.getByLabel('Photograph files').setInputFiles([await picture('retracted left before.jpg', '#773')]);
  await page.getByRole('button', { name: /retracted, left/ }).click();
  await page.getByRole('button', { name: 'Put away' }).click();
  await page.getByRole('button', { name: 'put away: 1' }).click();
  await page.getByRole('button', { name: 'bring back' }).click();
  await page.getByRole('button', { name: /retracted, left/ }).waitFor();
  await page.keyboard.press('Escape');

  await page.getByRole('button', { name: /retracted, front/ }).click();
  await page.getByRole('button', { name: 'Put away' }).click();
  await page.getByText('Measures stand on this photograph; choose another in read first.').waitFor();
});

it('photographs go on being sent while another stage is looked at', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('On their way');
  const photos = async () =>
    (await client.get<CaseDetail>(`/cases/${id}`)).body.files.filter((f) => f.kind === 'photo').length;
  const before = await photos();
  // As over a slow line: each waits until it is let through.
  let letThrough: () => void = () => undefined;
  const gate = new Promise<void>((go) => {
    letThrough = go;
  });
  await page.route(`**/api/cases/${id}/files?*`, async (route) => {
    await gate;
    await route.continue();
  });
  await open(page, id, 'meet');
  await page
    .getByLabel('Photograph files')
    .setInputFiles([await picture('one.jpg', '#446688'), await picture('two.jpg', '#664488')]);
  await page.getByText('0 of 2 arrived').waitFor();
  await page.getByRole('link', { name: 'propose', exact: true }).click();
  await page.getByText('0 of 2 sent').waitFor();
  letThrough();
  await page.getByText('0 of 2 sent').waitFor({ state: 'detached' });
  await page.getByText(/of 2 sent/).waitFor({ state: 'detached' });
  expect(await photos()).toBe(before + 2);
  await page.getByRole('link', { name: 'meet', exact: true }).click();
  await page.getByText('2 of 2 arrived').waitFor();
  await page.unrouteAll();
});

it('a day that has passed is asked about, in its place and as it is typed', async () => {
  const { page } = v;
  const { id } = await copyOfAvocet('Days');
  await open(page, id, 'meet');
  const day = page.getByLabel('Finish by');
  await day.click();
  await page.keyboard.type('12182020');
  await page.getByText('This day has passed. Is the year right?').waitFor();
  await page.keyboard.press('Shift+Tab');
  await day.fill('');
  await page.getByText('This day has passed.').waitFor({ state: 'detached' });
});
