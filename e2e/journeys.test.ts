import { readFileSync } from 'node:fs';
import { type CaseDetail, type CaseFile, EMPTY_SECTIONS } from '@radiant/contract';
import {
  handHeld,
  INTRAORAL_SCANNER,
  makePatient,
  type Patient,
  RECIPES,
  type RecipeName,
  scan,
} from '@radiant/standins';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { Page } from 'playwright-core';
import sharp from 'sharp';
import { rotating, share } from '../core/test/trials/rotating.js';
import { viewReading } from '../server/src/devices/demo-readings.js';
import { signedIn } from '../server/test/house.js';
import { closePages, saved, typed, visit } from './browser.js';

afterAll(closePages);

/** What the patient of a sample case wishes, and how a dentist would go about it. */
interface Journey {
  readonly name: RecipeName;
  readonly wish: string;
  /** Teeth of the upper front that are taken out of the plan; their widths and lengths stay. */
  readonly left: readonly number[];
  readonly planned: readonly number[];
  /** Where the patient's teeth are missing, it is said in the record. */
  readonly missing?: readonly number[];
  readonly design: string;
  /** What is set in propose before the crowns are shaped. */
  readonly set?: (page: Page) => Promise<void>;
  /** What must be seen of it in the end. */
  readonly holds: (kase: CaseDetail, patient: Patient) => void;
}

const teethOf = (c: CaseDetail) => c.sections.shape.data.teeth;
const INCISORS = [12, 11, 21, 22];
const lengthOf = (p: Patient, tooth: number) => p.teeth.find((t) => t.tooth === tooth)?.crown.size.lengthMm ?? 0;
const planned = (c: CaseDetail, tooth: number) => teethOf(c).find((t) => t.tooth === tooth);

const JOURNEYS: readonly Journey[] = [
  {
    name: 'Avocet',
    wish: 'wants them even and a little longer',
    left: [],
    planned: [13, 12, 11, 21, 22, 23],
    design: 'graduated',
    set: (page) => typed(page.getByLabel('Edge set down').first(), '0.5'),
    holds: (c, p) => {
      for (const t of [11, 21]) expect(planned(c, t)?.lengthMm).toBeGreaterThan(lengthOf(p, t));
    },
  },
  {
    name: 'Curlew',
    wish: 'the one grey front tooth',
    left: [13, 12, 11, 22, 23],
    planned: [21],
    design: 'ceramic-crown',
    holds: (c) => expect(teethOf(c)).toHaveLength(1),
  },
  {
    name: 'Sandpiper',
    wish: 'the white and brown spots away, everything else may stay',
    left: [13, 23],
    planned: INCISORS,
    design: 'graduated',
    // The edges are left where they are.
    set: (page) => typed(page.getByLabel('Edge set down').first(), '0'),
    holds: (c, p) => {
      for (const t of [11, 21]) expect(Math.abs((planned(c, t)?.lengthMm ?? 0) - lengthOf(p, t))).toBeLessThan(0.5);
    },
  },
  {
    name: 'Dunlin',
    wish: 'the black triangles between the front teeth catch food',
    left: [13, 23],
    planned: INCISORS,
    design: 'direct',
    holds: (c) => expect(c.sections.reduce.data.design).toBe('direct'),
  },
  {
    name: 'Turnstone',
    wish: 'two teeth never came; the eye teeth look like fangs',
    missing: [12, 22],
    left: [14, 24],
    planned: [13, 11, 21, 23],
    design: 'direct',
    holds: (c) => {
      // The canines are to look like laterals.
      expect(planned(c, 13)?.widthMm).toBeLessThan(planned(c, 11)?.widthMm ?? 0);
    },
  },
  {
    name: 'Plover',
    wish: 'too much gum, teeth like a child’s',
    left: [],
    planned: [13, 12, 11, 21, 22, 23],
    design: 'ceramic-crown',
    set: (page) => typed(page.getByLabel('Gum moved up').first(), '2.2'),
    holds: (c) => {
      expect(c.sections.propose.data.gumMm).toBe(2.2);
      for (const t of teethOf(c)) expect(t.zenithUpMm ?? 0).toBeGreaterThan(1.5);
    },
  },
];

/** A camera's file of the size of the front view; what is on it the marks of a careful hand say. */
async function photograph(name: RecipeName) {
  const { camera } = handHeld(makePatient(RECIPES[name]).recipe, 'retracted-front');
  const buffer = await sharp({
    create: { width: camera.widthPx, height: camera.heightPx, channels: 3, background: '#a4605c' },
  })
    .jpeg()
    .toBuffer();
  return { name: 'retracted front before.jpg', mimeType: 'image/jpeg', buffer };
}

describe(`from a name to paper (${share})`, () => {
  it.each(rotating(JOURNEYS, 1))('$name: $wish', async (j) => {
    const { page, troubles } = await visit();
    const client = await signedIn('dentist');
    const patient = makePatient(RECIPES[j.name]);

    // The case, what the patient wants, and what is missing.
    await page.getByRole('button', { name: 'New case' }).click();
    await typed(page.getByRole('dialog').getByLabel(/name/i), `Journey of ${j.name}`);
    await page.keyboard.press('Enter');
    await page.getByText('drop pictures anywhere').waitFor();
    const id = page.url().match(/cases\/([^/]+)/)?.[1] as string;
    const now = async () => (await client.get<CaseDetail>(`/cases/${id}`)).body;
    await typed(page.getByLabel('What the patient wants'), j.wish);
    await saved(page);
    if (j.missing) {
      const { version, data } = (await now()).sections.meet;
      const teeth = j.missing.map((tooth) => ({ tooth, past: ['missing'], note: '' }));
      expect((await client.patch(`/cases/${id}/sections/meet`, { version, data: { ...data, teeth } })).status).toBe(
        200,
      );
    }

    // The photograph by hand; its points as a careful hand sets them, which read's own tests click.
    await page.getByLabel('Photograph files').setInputFiles(await photograph(j.name));
    await page.getByText('retracted, front').first().waitFor();
    let photo: CaseFile | undefined;
    while (!photo) photo = (await now()).files.find((f) => f.view === 'retracted-front');
    const reading = viewReading(patient, 'retracted-front', photo.id);
    const written = await client.patch(`/cases/${id}/sections/read`, {
      version: (await now()).sections.read.version,
      data: { ...EMPTY_SECTIONS.read, views: [reading] },
    });
    expect(written.status).toBe(200);

    // The scans.
    await page.getByRole('link', { name: 'shape', exact: true }).click();
    for (const jaw of ['upper', 'lower'] as const) {
      await page
        .getByLabel('Scan file')
        .first()
        .setInputFiles({
          name: `${jaw}.stl`,
          mimeType: 'model/stl',
          buffer: Buffer.from(scan(patient, INTRAORAL_SCANNER, 'stl', jaw)),
        });
      await page
        .getByText(new RegExp(`${jaw}.stl`))
        .first()
        .waitFor();
    }

    // The proposal for the teeth that the wish is about.
    await page.getByRole('link', { name: 'propose', exact: true }).click();
    await page.getByTestId('target-11').waitFor({ timeout: 90_000 });
    for (const t of j.left) await page.getByRole('checkbox', { name: `${t} in the plan` }).uncheck();
    await j.set?.(page);
    await saved(page);
    await page.getByRole('button', { name: 'Shape the crowns to this' }).click();

    // The crowns stand, none in another.
    await page.getByRole('radio', { name: new RegExp(`^${j.planned[0]}`) }).click();
    await page.getByRole('region', { name: 'Contacts' }).waitFor({ timeout: 90_000 });
    await saved(page);
    expect(
      teethOf(await now())
        .map((t) => t.tooth)
        .sort(),
    ).toEqual([...j.planned].sort());
    expect(await page.getByText(/pass \d\.\d\d mm into each other/).count()).toBe(0);

    // Kept, worn, approved.
    const versions = page.getByRole('region', { name: 'Versions' });
    await versions.getByRole('button', { name: 'keep as version' }).click();
    const keep = page.getByRole('dialog', { name: 'Keep this contour' });
    await typed(keep.getByLabel('Name'), 'worn');
    await keep.getByRole('button', { name: 'Keep it' }).click();
    await versions.getByRole('button', { name: /^1 · worn/ }).click();
    const card = page.getByRole('dialog', { name: 'Version 1: worn' });
    await typed(card.getByLabel('How the patient approved it, in a word'), 'in the chair');
    await card.getByRole('button', { name: 'Approved by the patient' }).click();
    await card.getByText('in the chair').waitFor();
    await card.getByRole('button', { name: 'Close' }).click();

    // What is to be cut for the design.
    await page.getByRole('link', { name: 'reduce', exact: true }).click();
    await page.getByLabel('Design of all teeth').selectOption(j.design);
    for (const t of j.planned) await page.getByTestId(`remove-${t}-middle`).waitFor({ timeout: 90_000 });
    await saved(page);

    // And paper.
    await page.getByRole('link', { name: 'keep', exact: true }).click();
    const [pdf] = await Promise.all([
      page.waitForEvent('download', { timeout: 90_000 }),
      page.getByRole('button', { name: 'Make the PDF' }).click(),
    ]);
    const paper = await getDocument({ data: new Uint8Array(readFileSync(await pdf.path())), verbosity: 0 }).promise;
    const content = await (await paper.getPage(1)).getTextContent();
    const words = content.items.map((i) => ('str' in i ? i.str : '')).join(' ');
    for (const t of j.planned) expect(words).toContain(`${t}`);
    expect(words).toContain('approved by the patient');
    j.holds(await now(), patient);
    expect(troubles).toEqual([]);
  });
});
