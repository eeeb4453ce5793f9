import { createRequire } from 'node:module';
import type { Page } from 'playwright-core';
import sharp from 'sharp';
import { URL_ } from '../server/test/house.js';
import { closePages, copyOfAvocet, newPage, open, picture, type Visit, visit } from './browser.js';

const AXE = createRequire(import.meta.url).resolve('axe-core/axe.min.js');

afterAll(closePages);

interface Violation {
  readonly id: string;
  readonly help: string;
  readonly nodes: readonly { readonly html: string; readonly failureSummary: string }[];
}

/** What axe-core finds against WCAG 2.2 A and AA; one line a finding. */
async function findings(page: Page): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window)))
    await page.evaluate(await import('node:fs').then((fs) => fs.readFileSync(AXE, 'utf8')));
  const violations = await page.evaluate(async () => {
    const { axe } = window as unknown as { axe: { run: (o: unknown) => Promise<{ violations: Violation[] }> } };
    return (await axe.run({ runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] })).violations;
  });
  return violations.map((v) => `${v.id}: ${v.help}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(' | ')}`);
}

const STAGES = [
  ['meet', 'Photographs'],
  ['read', 'What stands out'],
  ['propose', 'As it is, and as proposed'],
  ['shape', '11 · planned crown'],
  ['reduce', 'Section through 11'],
  ['verify', '11 · not read'],
  ['keep', 'The plan on paper'],
] as const;

/** What can't be brought into sight by scrolling up and down, and what lies over another control's middle. */
const lost = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const said: string[] = [];
    if (document.documentElement.scrollWidth > innerWidth) said.push('the page is wider than the screen');
    const name = (e: Element) => (e.getAttribute('aria-label') ?? e.textContent ?? e.tagName).trim().slice(0, 40);
    for (const e of document.querySelectorAll<HTMLElement>('button, a, input, select, textarea')) {
      if (e.closest('.sr-only') || e.classList.contains('sr-only') || !e.checkVisibility()) continue;
      if (getComputedStyle(e).pointerEvents === 'none' || getComputedStyle(e).opacity === '0') continue;
      e.scrollIntoView({ block: 'center' });
      const { left, right, top, bottom, width, height } = e.getBoundingClientRect();
      if (width < 2 || height < 2) continue;
      if (left < -1 || right > innerWidth + 1) said.push(`${name(e)} runs out of the screen`);
      else if (bottom < 0 || top > innerHeight) said.push(`${name(e)} can’t be scrolled to`);
      else {
        const over = document.elementFromPoint((left + right) / 2, (top + bottom) / 2);
        const mine = over && (e.contains(over) || over.contains(e) || over.closest('label')?.contains(e));
        if (!mine) said.push(`${name(e)} lies under ${over ? name(over) : 'nothing that is seen'}`);
      }
    }
    scrollTo(0, 0);
    return said;
  });

it('the page of signing in meets WCAG 2.2 AA as far as axe-core can tell', async () => {
  const page = await newPage();
  await page.goto(URL_);
  await page.getByLabel('Password').waitFor();
  expect(await findings(page)).toEqual([]);
  await page.context().close();
});

describe('every screen meets WCAG 2.2 AA as far as axe-core can tell', () => {
  let v: Visit;
  let id: string;
  beforeAll(async () => {
    v = await visit();
    ({ id } = await copyOfAvocet('Access'));
  });
  afterAll(() => v.page.context().close());

  it('cases', async () => {
    await v.page.goto(URL_);
    await v.page
      .getByRole('link', { name: /Access/ })
      .first()
      .waitFor();
    expect(await findings(v.page)).toEqual([]);
  });

  it('people', async () => {
    await v.page.goto(`${URL_}/people`);
    await v.page.getByRole('heading', { name: 'Add a person' }).waitFor();
    expect(await findings(v.page)).toEqual([]);
  });

  it('trays', async () => {
    await v.page.goto(`${URL_}/trays`);
    await v.page.getByRole('heading', { name: 'Thicknesses of the house, mm' }).waitFor();
    expect(await findings(v.page)).toEqual([]);
  });

  /** 1280 px at 400 % and at 200 %, and a tablet: nothing is lost, and nothing needs scrolling in two directions. */
  async function atEveryWidth(page: Page, name: string): Promise<void> {
    const found = await findings(page);
    for (const [width, height] of [
      [320, 256],
      [640, 400],
      [1024, 768],
    ] as const) {
      await page.setViewportSize({ width, height });
      if (width === 320) found.push(...(await findings(page)).map((f) => `${width} px: ${f}`));
      found.push(...(await lost(page)).map((f) => `${width} px: ${f}`));
    }
    await page.setViewportSize({ width: 1280, height: 800 });
    if (found.length > 0) await picture(page, `access-${name}`);
    expect(found).toEqual([]);
  }

  it.each(STAGES)('%s', async (stage, heading) => {
    await open(v.page, id, stage);
    await v.page.getByRole('heading', { name: heading }).waitFor();
    await atEveryWidth(v.page, stage);
  });

  it('the cuts step by step', async () => {
    await open(v.page, id, 'reduce');
    await v.page.getByRole('button', { name: 'step by step' }).click({ timeout: 90_000 });
    await v.page.getByRole('heading', { name: 'Guard the neighbours' }).waitFor({ timeout: 60_000 });
    await v.page.getByRole('button', { name: /Grooves, middle third/ }).click();
    await atEveryWidth(v.page, 'steps');
  });

  it('the list of keys, and a figure’s working', async () => {
    await open(v.page, id, 'read');
    await v.page.getByRole('heading', { name: 'What stands out' }).waitFor();
    await v.page.keyboard.press('?');
    await v.page.getByRole('dialog').waitFor();
    expect(await findings(v.page)).toEqual([]);
    await v.page.keyboard.press('Escape');
    await v.page.getByText('how?').first().click();
    expect(await findings(v.page)).toEqual([]);
  });

  it('the finder, the light’s card, and cases in a table', async () => {
    await open(v.page, id, 'shape');
    await v.page.getByText(/form fits it to/).waitFor({ timeout: 60_000 });
    await v.page.keyboard.press('i');
    await v.page.getByRole('table', { name: 'Width of the reflecting face' }).waitFor();
    const found = await findings(v.page);
    await v.page.keyboard.press('Control+k');
    await v.page.getByRole('option', { name: /^propose/ }).waitFor();
    found.push(...(await findings(v.page)));
    await v.page.keyboard.press('Escape');
    await v.page.getByRole('link', { name: /^All cases/ }).click();
    await v.page.getByRole('button', { name: 'table', exact: true }).click();
    await v.page.getByRole('table', { name: 'Cases' }).waitFor();
    found.push(...(await findings(v.page)));
    await v.page.getByRole('button', { name: 'cards', exact: true }).click();
    expect(found).toEqual([]);
  });

  it('the sorting of photographs', async () => {
    await open(v.page, id, 'meet');
    const bytes = await sharp({ create: { width: 400, height: 300, channels: 3, background: '#557' } })
      .jpeg()
      .toBuffer();
    await v.page
      .getByLabel('Photograph files')
      .setInputFiles({ name: 'IMG_1.jpg', mimeType: 'image/jpeg', buffer: bytes });
    await v.page.getByRole('button', { name: 'Sort it' }).click();
    await v.page.getByRole('heading', { name: 'One photograph to sort' }).waitFor();
    await v.page.getByText('Its colours tell no view.').waitFor();
    expect(await findings(v.page)).toEqual([]);
  });
});
