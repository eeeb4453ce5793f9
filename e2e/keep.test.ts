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
    buffer: Buffer.from('{"format":"radiant-arch-case","version":9}'),
  });
  await page
    .getByText(`The case file has version 9; this program reads up to version ${CASE_DOCUMENT_VERSION}.`)
    .waitFor();
  await page.getByLabel('Case file').setInputFiles(path);
  await page.getByRole('heading', { name: 'Handed over' }).waitFor();
  expect(page.url()).not.toContain(id);
  await page.getByText('24 of 24 points').waitFor();
  expect(v.troubles).toEqual([]);
});
