import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { type CaseDetail, EMPTY_SECTIONS } from '@radiant/contract';
import { type Browser, type BrowserContext, chromium, type Locator, type Page } from 'playwright-core';
import { browserPath } from '../bin/lib/browser.mjs';
import { avocetOf, type Client, type PEOPLE, signedIn, URL_ } from '../server/test/house.js';

/** The lane's one browser, ended by `bin/lib/tests/house-down.mjs`. */
const held = globalThis as { radiantBrowser?: Promise<Browser> };

/** Debian's Chromium, drawing WebGL in software. */
function start(): Promise<Browser> {
  held.radiantBrowser ??= chromium.launch({
    ...(browserPath() && { executablePath: browserPath() as string }),
    args: [
      '--no-sandbox',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--disable-gpu-compositing',
      '--use-angle=swiftshader',
      '--enable-unsafe-swiftshader',
    ],
  });
  return held.radiantBrowser;
}

/** Pages that are open. */
const contexts = new Set<BrowserContext>();

/** Closes every page that was opened; the browser stays for the next file. */
export async function closePages(): Promise<void> {
  for (const c of contexts) await c.close();
  contexts.clear();
}

/** A page error or a violation of the content policy fails the test that meets it. */
export interface Visit {
  readonly page: Page;
  /** What went wrong on the page so far. */
  readonly troubles: string[];
}

/** Writes into a field as a person does: all of it marked, then key by key. */
export async function typed(field: Locator, text: string): Promise<void> {
  await field.click();
  await field.press('ControlOrMeta+a');
  await field.pressSequentially(text, { delay: 10 });
}

/** A browser of its own, not signed in. @param hasTouch whether its screen is touched, as a tablet's */
export async function newPage(hasTouch = false): Promise<Page> {
  const context = await (await start()).newContext({
    viewport: { width: 1280, height: 800 },
    deviceScaleFactor: 0.5,
    acceptDownloads: true,
    hasTouch,
  });
  contexts.add(context);
  context.once('close', () => contexts.delete(context));
  const page = await context.newPage();
  page.setDefaultTimeout(45_000);
  return page;
}

/** A browser of its own, signed in; how one signs in by hand is tried in `house.test.ts`. */
export async function visit(role: keyof typeof PEOPLE = 'dentist', hasTouch = false): Promise<Visit> {
  const page = await newPage(hasTouch);
  const [name, value] = (await signedIn(role)).session;
  await page.context().addCookies([{ name, value, url: URL_ }]);
  const troubles: string[] = [];
  page.on('pageerror', (e) => troubles.push(e.message));
  page.on('console', (m) => {
    if (m.type() === 'error' && /Content Security Policy|Uncaught/.test(m.text())) troubles.push(m.text());
  });
  await page.goto(URL_);
  await page.getByRole('heading', { name: 'Cases' }).waitFor();
  return { page, troubles };
}

/** Signed in once a file, for what a test asks of the server itself. */
let asked: Promise<Client> | undefined;

/** A copy of the demo case of its own, so that tests do not meet each other's edits. */
export async function copyOfAvocet(name: string): Promise<{ id: string; client: Client }> {
  asked ??= signedIn('dentist');
  const client = await asked;
  const avocet = await avocetOf(client);
  const made = await client.post<CaseDetail>(`/cases/${avocet.id}/duplicate`, { name });
  return { id: made.body.id, client };
}

/** A copy that has no scans and no contour: its pages open sooner, and not every test needs them. */
export async function copyWithoutScans(name: string): ReturnType<typeof copyOfAvocet> {
  const made = await copyOfAvocet(name);
  const { sections, files } = (await made.client.get<CaseDetail>(`/cases/${made.id}`)).body;
  const { version } = sections.shape;
  const emptied = await made.client.patch(`/cases/${made.id}/sections/shape`, { version, data: EMPTY_SECTIONS.shape });
  expect(emptied.status).toBe(200);
  for (const f of files.filter((own) => own.kind === 'scan'))
    expect((await made.client.call('DELETE', `/cases/${made.id}/files/${f.id}`)).status).toBe(200);
  return made;
}

/** Goes to an address as a link of the application does, without loading it anew. */
const follow = (page: Page, path: string) =>
  page.evaluate((to) => {
    history.pushState(null, '', to);
    dispatchEvent(new PopStateEvent('popstate', { state: null }));
  }, path);

/**
 * Opens a stage of a case: from within the application, over the list of cases, as its users do; else by its address.
 */
export async function open(page: Page, id: string, stage: string): Promise<void> {
  const inside = await page.locator('nav[aria-label=Journey], h1:has-text("Cases")').count();
  if (!inside) {
    await page.goto(`${URL_}/cases/${id}/${stage}`);
    return;
  }
  await follow(page, '/');
  await page.getByRole('heading', { name: 'Cases' }).waitFor();
  await follow(page, `/cases/${id}/${stage}`);
}

/**
 * Lets a page ask for the case once and no more, so that it does not hear of another's change before its own meets it:
 * a page asks again every ten seconds. To be called before the case is opened.
 */
export async function hearsOnce(page: Page, id: string): Promise<void> {
  let asked = 0;
  await page.route(`**/api/cases/${id}`, (route) => (asked++ === 0 ? route.continue() : route.abort()));
}

/** Waits until a field holds a value; the page writes it a moment after the store has it. */
export async function holds(field: Locator, value: string): Promise<void> {
  const end = Date.now() + 5000;
  let seen = await field.inputValue();
  while (seen !== value && Date.now() < end) {
    await new Promise((r) => setTimeout(r, 50));
    seen = await field.inputValue();
  }
  expect(seen).toBe(value);
}

/** Waits until the stage says that everything is saved. */
export const saved = (page: Page) => page.locator('[data-testid=save-state][data-status=saved]').waitFor();

/** Keeps a picture of a failed state for whoever looks. */
export async function picture(page: Page, name: string): Promise<void> {
  const dir = join(process.cwd(), 'e2e', '.out');
  mkdirSync(dir, { recursive: true });
  await page.screenshot({ path: join(dir, `${name}.png`) });
}
