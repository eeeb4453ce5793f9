import { gzipSync } from 'node:zlib';
import { PASSWORD, PEOPLE, URL_ } from '../server/test/house.js';
import { closeBrowser, copyOfAvocet, newPage, open, visit } from './browser.js';

afterAll(closeBrowser);

it('a wrong password is told in a sentence, what was written stays, and the right one opens the cases', async () => {
  const page = await newPage();
  await page.goto(URL_);
  await page.getByLabel('E-mail address').fill(PEOPLE.assistant);
  await page.getByLabel('Password').fill('something else');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('alert').waitFor();
  expect(await page.getByLabel('E-mail address').inputValue()).toBe(PEOPLE.assistant);
  await page.getByLabel('Password').fill(PASSWORD);
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
  await page.getByLabel('E-mail address').fill('nobody');
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
  await page.getByRole('dialog').getByLabel(/name/i).fill('Whimbrel');
  await page.keyboard.press('Enter');
  await page.getByText('No photograph yet').waitFor();
  const base = page.url().replace(/\/read$/, '');
  for (const [stage, words] of [
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
  await page.getByLabel('Name').fill('Sample Godwit');
  await page.getByLabel('E-mail address').fill(email);
  await page.getByLabel('First password').fill('long enough to keep');
  await page.getByRole('button', { name: 'Add' }).click();
  await page.getByText('Sample Godwit').waitFor();
  await page.context().close();

  const { id } = await copyOfAvocet('Decisions');
  const other = await newPage();
  await other.goto(URL_);
  await other.getByLabel('E-mail address').fill(email);
  await other.getByLabel('Password').fill('long enough to keep');
  await other.getByRole('button', { name: 'Sign in' }).click();
  await other.getByRole('heading', { name: 'Cases' }).waitFor();
  await open(other, id, 'reduce');
  await other.getByText(/The dentist decides here/).waitFor();
  expect(await other.getByRole('button', { name: 'even veneer' }).isDisabled()).toBe(true);
  await other.context().close();
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
