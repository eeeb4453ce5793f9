import type { CaseDetail, PracticeSettingsState } from '@radiant/contract';
import { PASSWORD, PEOPLE, URL_ } from '../server/test/house.js';
import { closePages, copyOfAvocet, copyWithoutScans, hearsOnce, holds, open, saved, typed, visit } from './browser.js';

afterAll(closePages);
const stored = async (k: Awaited<ReturnType<typeof copyOfAvocet>>) =>
  (await k.client.get<CaseDetail>(`/cases/${k.id}`)).body.sections;

it('an edit is found again after a reload and in another browser', async () => {
  const kase = await copyWithoutScans('Found again');
  const one = await visit();
  await open(one.page, kase.id, 'propose');
  await typed(one.page.getByLabel('Edge set down').first(), '1.2');
  await saved(one.page);
  await one.page.reload();
  await holds(one.page.getByLabel('Edge set down').first(), '1.2');
  const two = await visit('assistant');
  await open(two.page, kase.id, 'propose');
  await holds(two.page.getByLabel('Edge set down').first(), '1.2');
});

it('of two browsers the second is told and shown both; it chooses, nothing is overwritten', async () => {
  const kase = await copyWithoutScans('Met');
  const [one, two] = await Promise.all([visit(), visit()]);
  await hearsOnce(two.page, kase.id);
  await Promise.all([open(one.page, kase.id, 'propose'), open(two.page, kase.id, 'propose')]);
  await Promise.all([one, two].map((b) => b.page.getByTestId('target-11').waitFor()));
  await typed(one.page.getByLabel('Edge set down').first(), '0.9');
  await saved(one.page);
  await typed(two.page.getByLabel('Edge set down').first(), '1.9');
  const dialog = two.page.getByRole('dialog', { name: /changed “propose” meanwhile/ });
  await dialog.waitFor();
  await dialog.getByRole('button', { name: '0.9' }).waitFor();
  await dialog.getByRole('button', { name: '1.9' }).waitFor();
  expect((await stored(kase)).propose.data.edgeMm).toBe(0.9);
  // Nothing is chosen beforehand, and nothing goes on without a choice.
  expect(await dialog.locator('[aria-pressed=true]').count()).toBe(0);
  expect(await dialog.getByRole('button', { name: '1 still to choose' }).isDisabled()).toBe(true);
  await dialog.getByRole('button', { name: '0.9' }).click();
  await dialog.getByRole('button', { name: 'Keep what is marked' }).click();
  await saved(two.page);
  await holds(two.page.getByLabel('Edge set down').first(), '0.9');

  await one.page.reload();
  await typed(one.page.getByLabel('Edge set down').first(), '0.3');
  await saved(one.page);
  // Slowly, so that the first digit is sent before the last is typed: the question may not take the keys.
  await typed(two.page.getByLabel('Edge set down').first(), '2');
  await two.page.waitForTimeout(900);
  await two.page.keyboard.type('.5');
  await two.page.locator('[data-testid=save-state][data-status=conflict]').waitFor();
  await two.page.getByRole('button', { name: 'Mark all of mine' }).click();
  await two.page.getByRole('button', { name: 'Keep what is marked' }).click();
  await saved(two.page);
  expect((await stored(kase)).propose).toMatchObject({ data: { edgeMm: 2.5 } });
});

it('with the server away edits stay in the browser, survive a reload, and are sent when it is back', async () => {
  const kase = await copyWithoutScans('Away');
  const { page } = await visit();
  await open(page, kase.id, 'propose');
  await page.getByTestId('target-11').waitFor();
  const away = (url: URL) => url.pathname.includes('/sections/');
  await page.route(away, (route) => route.abort());
  await typed(page.getByLabel('Edge set down').first(), '0.7');
  await page.locator('[data-testid=save-state][data-status=away]').waitFor();
  expect((await stored(kase)).propose.data.edgeMm).toBe(0.5);
  await page.reload();
  await page.locator('[data-testid=save-state][data-status=away]').waitFor();
  await holds(page.getByLabel('Edge set down').first(), '0.7');
  await page.unroute(away);
  await saved(page);
  expect((await stored(kase)).propose.data.edgeMm).toBe(0.7);
});

it('an edit kept while another changed the section meets the choice when it comes back', async () => {
  const kase = await copyWithoutScans('Away and met');
  const { page } = await visit();
  await open(page, kase.id, 'propose');
  await page.getByTestId('target-11').waitFor();
  const away = (url: URL) => url.pathname.includes('/sections/');
  await page.route(away, (route) => route.abort());
  await typed(page.getByLabel('Edge set down').first(), '0.8');
  await page.locator('[data-testid=save-state][data-status=away]').waitFor();
  await kase.client.patch(`/cases/${kase.id}/sections/propose`, {
    version: 1,
    data: { school: 'ratio', referenceTooth: 11, edgeMm: 3 },
  });
  await page.unroute(away);
  await page.getByRole('button', { name: 'Mark all of theirs' }).click();
  await page.getByRole('button', { name: 'Keep what is marked' }).click();
  await saved(page);
  await holds(page.getByLabel('Edge set down').first(), '3.0');
});

it('a colleague’s edit of another tooth is taken over without a question, and neither is lost', async () => {
  const kase = await copyOfAvocet('Both');
  const { page } = await visit();
  await open(page, kase.id, 'shape');
  const length = page.getByLabel('Length').first();
  await length.waitFor();
  const before = await stored(kase);
  const teeth = before.shape.data.teeth.map((t) => (t.tooth === 22 ? { ...t, widthMm: 6.15 } : t));
  const away = (url: URL) => url.pathname.includes('/sections/');
  await page.route(away, (route) => route.abort());
  await typed(length, '10.9');
  await page.locator('[data-testid=save-state][data-status=away]').waitFor();
  await kase.client.patch(`/cases/${kase.id}/sections/shape`, {
    version: before.shape.version,
    data: { ...before.shape.data, teeth },
  });
  await page.unroute(away);
  await saved(page);
  expect(await page.getByRole('dialog').count()).toBe(0);
  await page.getByText('saved, together with Dr Sample Curlew’s changes').waitFor();
  const after = (await stored(kase)).shape.data.teeth;
  expect(after.find((t) => t.tooth === 22)?.widthMm).toBe(6.15);
  expect(after.find((t) => t.tooth === 11)?.lengthMm).toBe(10.9);
});

it('an edit that was not sent is never sent in another’s name: signed out it is asked about, sealed, and found again by its own', async () => {
  const kase = await copyWithoutScans('Sealed');
  const { page } = await visit();
  await open(page, kase.id, 'meet');
  const age = page.getByLabel('Age, years');
  await age.waitFor();
  const away = (url: URL) => url.pathname.includes('/sections/');
  await page.route(away, (route) => route.abort());
  await typed(age, '77');
  await page.locator('[data-testid=save-state][data-status=away]').waitFor();
  await page.getByRole('link', { name: 'all cases' }).click();
  await page.getByRole('button', { name: 'sign out' }).click();
  await page
    .getByRole('alertdialog', { name: 'Edits that were not sent' })
    .getByText(/sealed until you sign in again/)
    .waitFor();
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  await page.unroute(away);
  const signIn = async (role: 'dentist' | 'assistant') => {
    await typed(page.getByLabel('E-mail address'), PEOPLE[role]);
    await typed(page.getByLabel('Password'), PASSWORD);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await page.getByRole('heading', { name: 'Cases' }).waitFor();
  };
  await signIn('assistant');
  await open(page, kase.id, 'meet');
  await holds(page.getByLabel('Age, years'), '34');
  await page.waitForTimeout(1200);
  expect((await stored(kase)).meet.data.ageYears).toBe(34);
  await page.getByRole('link', { name: 'all cases' }).click();
  await page.getByRole('button', { name: 'sign out' }).click();
  await signIn('dentist');
  await open(page, kase.id, 'meet');
  await holds(page.getByLabel('Age, years'), '77');
  await saved(page);
  expect((await stored(kase)).meet).toMatchObject({ data: { ageYears: 77 }, by: 'Dr Sample Curlew' });
});

it('where the practice wants it so, what was not sent is removed with signing out, after a warning', async () => {
  const kase = await copyWithoutScans('Removed');
  const { page } = await visit();
  await page.getByRole('link', { name: 'people' }).click();
  const [kept] = await Promise.all([
    page.waitForResponse((r) => r.url().endsWith('/api/practice/settings') && r.request().method() === 'PUT'),
    page.getByLabel(/are removed from the browser/).check(),
  ]);
  expect(kept.status()).toBe(200);
  try {
    await open(page, kase.id, 'meet');
    const away = (url: URL) => url.pathname.includes('/sections/');
    await page.route(away, (route) => route.abort());
    await typed(page.getByLabel('Age, years'), '80');
    await page.locator('[data-testid=save-state][data-status=away]').waitFor();
    await page.getByRole('link', { name: 'all cases' }).click();
    await page.getByRole('button', { name: 'sign out' }).click();
    await page.getByText('Signing out removes what is left in this browser.').waitFor();
    await page.getByRole('button', { name: 'Remove and sign out' }).click();
    await page.unroute(away);
    await typed(page.getByLabel('E-mail address'), PEOPLE.dentist);
    await typed(page.getByLabel('Password'), PASSWORD);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await page.getByRole('heading', { name: 'Cases' }).waitFor();
    await open(page, kase.id, 'meet');
    await holds(page.getByLabel('Age, years'), '34');
    await page.waitForTimeout(1000);
    expect((await stored(kase)).meet.data.ageYears).toBe(34);
  } finally {
    const { version, data } = (await kase.client.get<PracticeSettingsState>('/practice/settings')).body;
    await kase.client.call('PUT', '/practice/settings', { version, data: { ...data, drafts: 'sealed' } });
  }
});

it('a duplicated tab leaves the edit of its twin alone', async () => {
  const kase = await copyWithoutScans('Twin');
  const { page } = await visit();
  await open(page, kase.id, 'meet');
  const away = (url: URL) => url.pathname.includes('/sections/');
  await page.context().route(away, (route) => route.abort());
  await typed(page.getByLabel('Age, years'), '79');
  await page.locator('[data-testid=save-state][data-status=away]').waitFor();
  // A window that a page opens gets a copy of its session store, as a duplicated tab does.
  const [twin] = await Promise.all([page.waitForEvent('popup'), page.evaluate(() => void window.open(location.href))]);
  await twin.getByLabel('Age, years').waitFor();
  await twin.waitForTimeout(1000);
  expect(await twin.getByLabel('Age, years').inputValue()).toBe('34');
  await twin.close();
  await page.context().unroute(away);
  await saved(page);
  expect((await stored(kase)).meet.data.ageYears).toBe(79);
});

it('when somebody else signs in in another tab, this one sends nothing in their name', async () => {
  const kase = await copyWithoutScans('Two tabs');
  const { page } = await visit();
  await open(page, kase.id, 'meet');
  const age = page.getByLabel('Age, years');
  await age.waitFor();
  const other = await page.context().newPage();
  await other.goto(URL_);
  await other.evaluate(
    async ([email, password]) => {
      await fetch('/api/session', { method: 'DELETE' });
      await fetch('/api/session', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ email, password }),
      });
    },
    [PEOPLE.assistant, PASSWORD] as const,
  );
  await typed(age, '78');
  await page.locator('[data-testid=save-state][data-status=signed-out]').waitFor();
  expect((await stored(kase)).meet.data.ageYears).toBe(34);
});

it('every saved state is in the history: looked at without a change, gone back to, and undone', async () => {
  const kase = await copyWithoutScans('With a history');
  const { page, troubles } = await visit();
  await open(page, kase.id, 'propose');
  const edge = page.getByLabel('Edge set down').first();
  // Whoever types slowly leaves a state behind a key: what counts is which one was there when.
  const after = async (mm: string) => {
    await typed(edge, mm);
    await page.keyboard.press('Tab');
    await saved(page);
    return (await stored(kase)).propose.version;
  };
  const first = await after('0.8');
  const version = await after('1.4');
  await page.getByRole('button', { name: 'History of propose' }).click();
  const history = page.getByRole('dialog', { name: 'History of propose' });
  await history.getByText(/→ 1\.4$/).waitFor();
  await history.getByRole('button', { name: `Look at no. ${first}`, exact: true }).click();
  await holds(edge, '0.8');
  await page.getByText(/You look at propose no\. \d+, saved/).waitFor();
  expect(await edge.isDisabled()).toBe(true);
  // Another stage stands on what is, never on what is looked at.
  await page.getByRole('link', { name: 'meet', exact: true }).click();
  await page.getByRole('link', { name: 'propose', exact: true }).click();
  await holds(edge, '1.4');
  await page.getByRole('button', { name: 'History of propose' }).click();
  await history.getByRole('button', { name: `Look at no. ${first}`, exact: true }).click();
  await holds(edge, '0.8');
  await page.getByRole('button', { name: 'Return to now' }).click();
  await holds(edge, '1.4');
  expect((await stored(kase)).propose.version).toBe(version);
  await history.getByRole('button', { name: `Look at no. ${first}`, exact: true }).click();
  await page.getByRole('button', { name: 'Go back to it' }).click();
  await holds(edge, '0.8');
  await saved(page);
  expect((await stored(kase)).propose).toMatchObject({ version: version + 1, data: { edgeMm: 0.8 } });
  await history.getByText(/1\.4 → 0\.8/).waitFor();
  await history.getByRole('button', { name: 'Close the history' }).click();
  await page.getByRole('main').click({ position: { x: 5, y: 5 } });
  await page.keyboard.press('Control+z');
  await holds(edge, '1.4');
  await page.keyboard.press('Control+y');
  await holds(edge, '0.8');
  await saved(page);
  expect(troubles).toEqual([]);
});

it('signing in again in one tab wakes the other: its edit is sent without anything being pressed there', async () => {
  const kase = await copyWithoutScans('Two tabs');
  const { page } = await visit();
  await open(page, kase.id, 'propose');
  await page.getByTestId('target-11').waitFor();
  await page.context().clearCookies();
  await typed(page.getByLabel('Edge set down').first(), '1.7');
  await page.locator('[data-testid=save-state][data-status=signed-out]').waitFor();
  const other = await page.context().newPage();
  await other.goto(URL_);
  await typed(other.getByLabel('E-mail address'), PEOPLE.dentist);
  await typed(other.getByLabel('Password'), PASSWORD);
  await other.getByRole('button', { name: 'Sign in' }).click();
  await other.getByRole('heading', { name: 'Cases' }).waitFor();
  expect(await other.title()).toBe('Cases · Radiant Arch');
  await saved(page);
  expect((await stored(kase)).propose.data.edgeMm).toBe(1.7);
  expect(await page.title()).toBe('Two tabs · propose · Radiant Arch');
});
