import type { CaseDetail } from '@radiant/contract';
import { closeBrowser, copyOfAvocet, holds, open, saved, visit } from './browser.js';

afterAll(closeBrowser);
const stored = async (k: Awaited<ReturnType<typeof copyOfAvocet>>) => (await k.client.get<CaseDetail>(`/cases/${k.id}`)).body.sections;

it('an edit is found again after a reload and in another browser', async () => {
  const kase = await copyOfAvocet('Found again');
  const one = await visit();
  await open(one.page, kase.id, 'propose');
  await one.page.getByLabel('Edge set down').first().fill('1.2');
  await saved(one.page);
  await one.page.reload();
  await holds(one.page.getByLabel('Edge set down').first(), '1.2');
  const two = await visit('assistant');
  await open(two.page, kase.id, 'propose');
  await holds(two.page.getByLabel('Edge set down').first(), '1.2');
});

it('of two browsers the second is told and shown both; it chooses, nothing is overwritten', async () => {
  const kase = await copyOfAvocet('Met');
  const [one, two] = await Promise.all([visit(), visit()]);
  await Promise.all([open(one.page, kase.id, 'propose'), open(two.page, kase.id, 'propose')]);
  await Promise.all([one, two].map((b) => b.page.getByTestId('target-11').waitFor()));
  await one.page.getByLabel('Edge set down').first().fill('0.9');
  await saved(one.page);
  await two.page.getByLabel('Edge set down').first().fill('1.9');
  const dialog = two.page.getByRole('dialog', { name: /changed “propose” meanwhile/ });
  await dialog.waitFor();
  await dialog.getByRole('button', { name: '0.9' }).waitFor();
  await dialog.getByRole('button', { name: '1.9' }).waitFor();
  expect((await stored(kase)).propose.data.edgeMm).toBe(0.9);
  await dialog.getByRole('button', { name: '0.9' }).click();
  await dialog.getByRole('button', { name: 'Keep what is marked' }).click();
  await saved(two.page);
  await holds(two.page.getByLabel('Edge set down').first(), '0.9');

  await one.page.reload();
  await one.page.getByLabel('Edge set down').first().fill('0.3');
  await saved(one.page);
  await two.page.getByLabel('Edge set down').first().fill('2.5');
  await two.page.getByRole('button', { name: 'All of mine' }).click();
  await saved(two.page);
  expect((await stored(kase)).propose).toMatchObject({ data: { edgeMm: 2.5 } });
});

it('with the server away edits stay in the browser, survive a reload, and are sent when it is back', async () => {
  const kase = await copyOfAvocet('Away');
  const { page } = await visit();
  await open(page, kase.id, 'propose');
  await page.getByTestId('target-11').waitFor();
  const away = (url: URL) => url.pathname.includes('/sections/');
  await page.route(away, (route) => route.abort());
  await page.getByLabel('Edge set down').first().fill('0.7');
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
  const kase = await copyOfAvocet('Away and met');
  const { page } = await visit();
  await open(page, kase.id, 'propose');
  await page.getByTestId('target-11').waitFor();
  const away = (url: URL) => url.pathname.includes('/sections/');
  await page.route(away, (route) => route.abort());
  await page.getByLabel('Edge set down').first().fill('0.8');
  await page.locator('[data-testid=save-state][data-status=away]').waitFor();
  await kase.client.patch(`/cases/${kase.id}/sections/propose`, { version: 1, data: { school: 'ratio', referenceTooth: 11, edgeMm: 3 } });
  await page.unroute(away);
  await page.getByRole('button', { name: 'All of theirs' }).click();
  await saved(page);
  await holds(page.getByLabel('Edge set down').first(), '3.0');
});
