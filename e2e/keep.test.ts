import { readFileSync } from 'node:fs';
import { CASE_DOCUMENT_VERSION } from '@radiant/contract';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { closePages, copyOfAvocet, open, type Visit, visit } from './browser.js';

let v: Visit;
beforeAll(async () => {
  v = await visit();
});
afterAll(closePages);

it('the plan is handed over as one PDF page, the case as a file that comes back in', async () => {
  const { page } = v;
  const { id } = await copyOfAvocet('Handed over');
  await open(page, id, 'keep');
  for (const jaw of ['upper', 'lower']) await page.getByText(new RegExp(`^scan of the ${jaw} jaw, \\d`)).waitFor();
  // Avocet's six front teeth are planned: the index sits on the premolars.
  await page.getByText(/from 15 to 25: it sits on 15, 14, 24, 25, which stay/).waitFor();
  const [pdf] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Make the PDF' }).click(),
  ]);
  expect(pdf.suggestedFilename()).toBe('Handed over plan, FDI numbers.pdf');
  const read = await getDocument({ data: new Uint8Array(readFileSync(await pdf.path())), verbosity: 0 }).promise;
  expect(read.numPages).toBe(1);

  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the case file' }).click(),
  ]);
  const path = await file.path();
  await page.getByRole('link', { name: /All cases/ }).click();
  await page.getByRole('heading', { name: 'Cases' }).waitFor();
  await page.getByLabel('Case file').setInputFiles({
    name: 'no.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"format":"radiant-arch-case","version":99}'),
  });
  await page
    .getByText(`The case file has version 99; this program reads up to version ${CASE_DOCUMENT_VERSION}.`)
    .waitFor();
  await page.getByLabel('Case file').setInputFiles(path);
  await page.getByRole('heading', { name: 'Handed over' }).waitFor();
  expect(page.url()).not.toContain(id);
  await page.getByText('24 of 24 points').waitFor();
  expect(v.troubles).toEqual([]);
});

it('a model that takes long tells how far it is, goes on on another stage, and is called off', async () => {
  const { page } = v;
  const { id, client } = await copyOfAvocet('Being made');
  await open(page, id, 'keep');
  await page.getByRole('button', { name: 'Save the mock-up model' }).click();
  await page.getByText(/^(Shaping the crowns|Looking where the gum is|Filling the gum|Joining)/).waitFor();
  expect(await page.getByRole('button', { name: 'Save the mock-up model' }).isDisabled()).toBe(true);
  await page.getByRole('link', { name: 'meet', exact: true }).click();
  await page.getByRole('link', { name: /^one file being made, \d+ %$/ }).click();
  await page.getByRole('button', { name: 'call off' }).click();
  await page.getByText('Called off; nothing of it was kept.').waitFor();
  // The server has let go of it too: there is one thread for such work here, and it is free at once.
  const begun = Date.now();
  expect((await client.raw('GET', `/cases/${id}/contour.stl?what=existing`)).status).toBe(200);
  expect(Date.now() - begun).toBeLessThan(20_000);
  await page.getByRole('button', { name: /^clear/ }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the contour', exact: true }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Being made planned.stl');
  await page.getByText('Saved as Being made planned.stl.').waitFor();
});

it('a guide is looked at before it is printed, and one that would sit on nothing is refused in a sentence', async () => {
  const { page, troubles } = v;
  const { id } = await copyOfAvocet('To be printed');
  await open(page, id, 'keep');
  const card = page.getByRole('region', { name: 'Before it is printed' });
  await card.getByLabel('What is sent').selectOption('leaf guide');
  await card.getByRole('button', { name: 'Send it to the simulated printer' }).click();
  await card
    .getByText(/^leaf guide: one piece of \d+\.\d cm³, thinnest wall \d\.\d mm; .* mm high, about /)
    .waitFor({ timeout: 60_000 });
  await card.getByText(/thinner than 1\.0 mm/).waitFor();
  await card.getByLabel('What is sent').selectOption('sagittal slices');
  await card.getByRole('button', { name: 'Send it to the simulated printer' }).click();
  await card.getByText(/^sagittal slices: 6 pieces/).waitFor({ timeout: 60_000 });
  await card.getByLabel('What is sent').selectOption('mock-up index');
  await card.getByRole('button', { name: 'Send it to the simulated printer' }).click();
  await card.getByText(/^mock-up index: one piece of \d+\.\d cm³/).waitFor({ timeout: 120_000 });
  await card
    .getByText(/It goes on over the edges, \d+° from straight up to the back, and gives way by 0\.\d mm/)
    .waitFor();
  await card.getByText(/It sits on \d teeth that stay\./).waitFor();
  expect(troubles).toEqual([]);
});
