import { gzipSync } from 'node:zlib';
import { recoveryCode } from '../bin/lib/owner.mjs';
import { DATA, PASSWORD, PEOPLE, signedIn, URL_ } from '../server/test/house.js';
import { closePages, copyOfAvocet, newPage, open, typed, visit } from './browser.js';

afterAll(closePages);

it('a wrong password is told in a sentence, what was written stays, and the right one opens the cases', async () => {
  const page = await newPage();
  await page.goto(URL_);
  await typed(page.getByLabel('E-mail address'), PEOPLE.assistant);
  await typed(page.getByLabel('Password'), 'something else');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('alert').waitFor();
  expect(await page.getByLabel('E-mail address').inputValue()).toBe(PEOPLE.assistant);
  await typed(page.getByLabel('Password'), PASSWORD);
  await page.getByLabel('Password').press('Enter');
  await page.getByRole('heading', { name: 'Cases' }).waitFor();
  await page.context().close();
});

it('a form says at the field what is missing, before anything is sent', async () => {
  const page = await newPage();
  await page.goto(URL_);
  let sent = 0;
  page.on('request', (r) => {
    if (r.method() === 'POST') sent++;
  });
  await typed(page.getByLabel('E-mail address'), 'nobody');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByText('Write the e-mail address in full.').waitFor();
  await page.getByText('Write the password.').waitFor();
  expect(sent).toBe(0);
  await page.context().close();
});

it('signing out closes the door behind one: the case’s address asks to sign in again', async () => {
  const { id } = await copyOfAvocet('Door');
  const { page } = await visit();
  await open(page, id, 'read');
  await page.getByRole('heading', { name: 'What stands out' }).waitFor();
  await page.getByRole('link', { name: 'all cases' }).click();
  await page.getByRole('button', { name: 'sign out' }).click();
  await page.getByRole('button', { name: 'Sign in' }).waitFor();
  await open(page, id, 'read');
  await page.getByRole('button', { name: 'Sign in' }).waitFor();
  expect(await page.getByText('Door').count()).toBe(0);
  await page.context().close();
});

it('a new case begins empty and says on every stage what to do first', async () => {
  const { page, troubles } = await visit();
  await page.getByRole('button', { name: 'New case' }).click();
  await typed(page.getByRole('dialog').getByLabel(/name/i), 'Whimbrel');
  await page.keyboard.press('Enter');
  await page.getByText('drop pictures anywhere').waitFor();
  const base = page.url().replace(/\/meet$/, '');
  for (const [stage, words] of [
    ['read', /No photograph yet/],
    ['propose', /measure|six teeth/i],
    ['shape', /No scan yet/],
    ['reduce', /contour|scan/i],
  ] as const) {
    await page.goto(`${base}/${stage}`);
    await page.getByText(words).first().waitFor();
  }
  expect(troubles).toEqual([]);
  await page.context().close();
});

it('a dentist adds an assistant, who signs in and may not decide', async () => {
  const { page } = await visit();
  const email = `godwit-${Date.now()}@estuary.example`;
  await page.getByRole('link', { name: 'people' }).click();
  await typed(page.getByLabel('Name', { exact: true }), 'Sample Godwit');
  await typed(page.getByLabel('E-mail address'), email);
  await typed(page.getByLabel('First password'), 'long enough to keep');
  await page.getByRole('button', { name: 'Add' }).click();
  await page.getByText('Sample Godwit', { exact: true }).waitFor();
  await page.context().close();

  const { id } = await copyOfAvocet('Decisions');
  const other = await newPage();
  await other.goto(URL_);
  await typed(other.getByLabel('E-mail address'), email);
  await typed(other.getByLabel('Password'), 'long enough to keep');
  await other.getByRole('button', { name: 'Sign in' }).click();
  await other.getByRole('heading', { name: 'Cases' }).waitFor();
  await open(other, id, 'reduce');
  await other.getByText(/The dentist decides here/).waitFor();
  expect(await other.getByLabel('Design of all teeth').isDisabled()).toBe(true);
  await other.context().close();
});

it('a password is changed, a dentist who is shut out comes back with a code, and a person who leaves is kept out', async () => {
  const { page } = await visit();
  const email = `whimbrel-${Date.now()}@estuary.example`;
  await page.getByRole('link', { name: 'people' }).click();
  const add = page.getByRole('region', { name: 'Add a person' });
  await typed(add.getByLabel('Name'), 'Sample Whimbrel');
  await typed(add.getByLabel('E-mail address'), email);
  await typed(add.getByLabel('First password'), 'handed over once');
  await add.getByLabel('Role').selectOption('dentist');
  await add.getByRole('button', { name: 'Add' }).click();
  await page.getByText('Sample Whimbrel', { exact: true }).waitFor();

  const other = await newPage();
  await other.goto(URL_);
  await typed(other.getByLabel('E-mail address'), email);
  await typed(other.getByLabel('Password'), 'handed over once');
  await other.getByRole('button', { name: 'Sign in' }).click();
  await other.getByRole('link', { name: 'people' }).click();
  const own = other.getByRole('region', { name: 'Your password' });
  await typed(own.getByLabel('Present password'), 'not it');
  await typed(own.getByLabel('New password'), 'chosen by myself');
  await own.getByRole('button', { name: 'Change it' }).click();
  await own.getByText('This is not your present password.').waitFor();
  await typed(own.getByLabel('Present password'), 'handed over once');
  await own.getByRole('button', { name: 'Change it' }).click();
  await own.getByText('Changed. Everywhere else you are signed out.').waitFor();

  await other.getByRole('button', { name: 'sign out', exact: true }).click();
  await other.getByRole('button', { name: 'lost the password?' }).click();
  const { code } = await recoveryCode(DATA, email);
  await typed(other.getByLabel('E-mail address'), email);
  await typed(other.getByLabel('Code'), code);
  await typed(other.getByLabel('New password'), 'found back again');
  await other.getByRole('button', { name: 'Set the password and sign in' }).click();
  await other.getByRole('heading', { name: 'People' }).waitFor();

  const row = page.getByRole('listitem').filter({ hasText: 'Sample Whimbrel' });
  await row.getByRole('button', { name: /leaves the practice/ }).click();
  await row.getByRole('button', { name: 'end the account' }).click();
  await row.getByText(/left on/).waitFor();
  await other.reload();
  await other.getByRole('button', { name: 'Sign in' }).waitFor();
  await other.context().close();
  await page.context().close();
});

it('one broken part of a page says so and leaves the rest alone', async () => {
  const { page } = await visit();
  await page.route('**/api/cases?**', async (route) => {
    const answer = await route.fetch();
    const body = (await answer.json()) as { cases: object[] };
    // As a fault anywhere in a card would: nothing in it can be drawn.
    await route.fulfill({
      json: { ...body, cases: body.cases.map((c, i) => (i === 0 ? { ...c, stagesBegun: null } : c)) },
    });
  });
  await page.reload();
  await page
    .getByText(/can’t be shown/)
    .first()
    .waitFor();
  await page
    .getByRole('link', { name: /changed/ })
    .first()
    .waitFor();
  await page.context().close();
});

it('many cases are found by name, and the way back keeps what was looked for', async () => {
  const client = await signedIn('dentist');
  for (let i = 0; i < 26; i++) await client.post('/cases', { name: `Knot ${String(i).padStart(2, '0')}` });
  const { page } = await visit();
  await page.getByLabel('Find a case').click();
  await page.keyboard.type('knot 1');
  await page.getByText('Knot 15').waitFor();
  await page.getByText('Knot 05').waitFor({ state: 'detached' });
  await page.getByLabel('Sort by').selectOption('name');
  // Pressed while the list is being put in order anew, a card goes away under the finger.
  await page.waitForFunction(() => /Knot 10[\s\S]*Knot 11[\s\S]*Knot 12/.test(document.body.textContent ?? ''));
  await page.getByText('Knot 11').click();
  await page.getByText('drop pictures anywhere').waitFor();
  await page.goBack();
  await page.getByText('Knot 15').waitFor();
  expect(await page.getByLabel('Find a case').inputValue()).toBe('knot 1');
  await typed(page.getByLabel('Find a case'), 'knot');
  await page.getByText(/page 1 of 2, 26 cases/).waitFor();
  await page.getByRole('button', { name: 'after' }).click();
  await page.getByText(/page 2 of 2/).waitFor();
  await page.context().close();
});

it('cases stand as cards or in a table, are put away and brought back, and are gone on with where one left them', async () => {
  const { page } = await visit();
  await page.getByRole('button', { name: 'table', exact: true }).click();
  const table = page.getByRole('table', { name: 'Cases' });
  await typed(page.getByLabel('Find a case'), 'knot 03');
  await page.getByText('Knot 04').waitFor({ state: 'detached' });
  await table.getByRole('link', { name: 'Knot 03' }).click();
  await page.getByRole('link', { name: 'propose', exact: true }).click();
  await page.getByText('how long, how wide, where is the edge').first().waitFor();
  await page.getByRole('link', { name: /^All cases/ }).click();
  // Chosen once, it stays a table.
  await table.waitFor();
  await page.getByLabel('Sort by').selectOption('opened');
  await table.getByRole('row').nth(1).getByRole('link', { name: 'Knot 03' }).click();
  await page.waitForURL(/\/propose$/);
  await page.getByRole('link', { name: /^All cases/ }).click();
  await typed(page.getByLabel('Find a case'), 'knot 03');
  // Until the others are gone the rows still move, and with them what is pressed.
  await page.getByText('Knot 04').waitFor({ state: 'detached' });

  await page.getByRole('button', { name: 'More for Knot 03' }).click();
  await page.getByText('put away …').click();
  await page.getByText(/Records of treatment are kept as long as your local rules ask/).waitFor();
  await page.getByRole('button', { name: 'Put it away' }).click();
  await table.getByRole('link', { name: 'Knot 03' }).waitFor({ state: 'detached' });
  await page.getByRole('button', { name: /^put away: \d/ }).click();
  await page.getByText(/put away .* by Dr Sample Curlew; it is forgotten in 30 days/).waitFor();
  await page.getByRole('link', { name: 'read it' }).click();
  await page.getByText(/nothing can be changed/).waitFor();
  await page.getByRole('button', { name: 'bring it back' }).click();
  await page.getByText(/nothing can be changed/).waitFor({ state: 'detached' });
  await page.getByRole('link', { name: /^All cases/ }).click();
  await typed(page.getByLabel('Find a case'), 'knot 03');
  await table.getByRole('link', { name: 'Knot 03' }).waitFor();
  await page.getByRole('button', { name: 'cards', exact: true }).click();
  await page.context().close();
});

it('a key that is pressed while the search is being asked for is not lost', async () => {
  const { page } = await visit();
  await page.addInitScript(() => {
    const { replaceState } = History.prototype;
    let pressed = false;
    History.prototype.replaceState = function (...args) {
      replaceState.apply(this, args);
      const field = document.querySelector<HTMLInputElement>('input[type=search]');
      if (pressed || !field || !String(args[2]).includes('search=knot')) return;
      pressed = true;
      // As a hand does that goes on typing at this very moment.
      Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')?.set?.call(field, `${field.value} 1`);
      field.dispatchEvent(new Event('input', { bubbles: true }));
    };
  });
  await page.reload();
  await page.getByLabel('Find a case').click();
  await page.keyboard.type('knot');
  await page.getByText('Knot 15').waitFor();
  await page.getByText('Knot 05').waitFor({ state: 'detached' });
  expect(await page.getByLabel('Find a case').inputValue()).toBe('knot 1');
  await page.goto(`${URL_}/?search=knot+2`);
  await page.getByText('Knot 25').waitFor();
  expect(await page.getByLabel('Find a case').inputValue()).toBe('knot 2');
  await page.context().close();
});

it('an address that leads nowhere says so and shows the way back', async () => {
  const { page } = await visit();
  await page.goto(`${URL_}/cases/00000000-0000-4000-8000-000000000000/read`);
  await page
    .getByText(/not|no case/i)
    .first()
    .waitFor();
  await page.getByRole('link', { name: /cases/i }).first().click();
  await page.getByRole('heading', { name: 'Cases' }).waitFor();
  await page.context().close();
});

it('the first page’s scripts are built for use and together smaller than 250 kB gzipped', async () => {
  const page = await newPage();
  const scripts: Promise<Buffer>[] = [];
  page.on('response', (r) => {
    if (r.url().endsWith('.js')) scripts.push(r.body());
  });
  await page.goto(URL_);
  await page.getByLabel('Password').waitFor();
  const bodies = await Promise.all(scripts);
  expect(bodies.length).toBeGreaterThan(0);
  expect(bodies.reduce((sum, b) => sum + gzipSync(b).length, 0)).toBeLessThan(250_000);
  // A development build of the interface library would carry its warnings.
  expect(bodies.some((b) => b.includes('React has detected'))).toBe(false);
  await page.context().close();
});
