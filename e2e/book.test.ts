import type { CaseDetail } from '@radiant/contract';
import { dayOf, isoOf, weekdayOf } from '@radiant/core';
import { closePages, copyOfAvocet, open, saved, type Visit, visit } from './browser.js';

let v: Visit;
let kase: Awaited<ReturnType<typeof copyOfAvocet>>;
const today = dayOf(new Date().toISOString().slice(0, 10));
beforeAll(async () => {
  v = await visit();
  kase = await copyOfAvocet('Booked');
  await open(v.page, kase.id, 'book');
});
afterAll(closePages);

const detail = async () => (await kase.client.get<CaseDetail>(`/cases/${kase.id}`)).body;
const promised = async (day: string) => {
  const { version, data } = (await detail()).sections.meet;
  await kase.client.patch(`/cases/${kase.id}/sections/meet`, { version, data: { ...data, finishBy: day } });
};

it('a date that can be kept says how many days are to spare, and a visit is booked with the first free time', async () => {
  const { page } = v;
  await promised(isoOf(today + 60));
  await page.reload();
  await page.getByRole('heading', { name: /can be kept$/ }).waitFor({ timeout: 60_000 });
  await page.getByText(/days to spare/).waitFor();
  await page.getByRole('button', { name: /^preparation, not booked/ }).click();
  const card = page.getByRole('region', { name: 'preparation' });
  await card.getByText('burs in the order of the list', { exact: false }).waitFor();
  await card.getByRole('button', { name: 'Book it' }).click();
  await card.getByText(/^Booked .*, 08:00 to /).waitFor();
  await saved(page);
  const [booked] = (await detail()).sections.book.data.visits;
  expect(booked).toMatchObject({ kind: 'preparation', from: 480, chair: 'chair 1' });
  expect(weekdayOf(dayOf(booked?.day as string))).toBeLessThan(5);
  expect(v.troubles).toEqual([]);
});

it('a visit moves by the arrow keys, and what it breaks is said', async () => {
  const { page } = v;
  const before = (await detail()).sections.book.data.visits[0]?.day as string;
  await page.getByRole('button', { name: /^preparation, booked on/ }).focus();
  await page.keyboard.press('ArrowRight');
  await saved(page);
  expect((await detail()).sections.book.data.visits[0]?.day).toBe(isoOf(dayOf(before) + 1));
  // The mock-up comes off before: booked on a later day it lies behind what rests on it.
  await page.getByRole('button', { name: /^mock-up out and approval/ }).click();
  const card = page.getByRole('region', { name: 'mock-up out and approval' });
  await card.getByLabel('Day').fill(isoOf(dayOf(before) + 10));
  await page.getByText(/lies before mock-up out and approval on .*, on which it rests\./).waitFor();
  await card.getByRole('button', { name: 'Not booked' }).click();
  await page.getByText(/on which it rests/).waitFor({ state: 'detached' });
  await saved(page);
});

it('a date that can’t be kept says what would keep it, and one of them is taken', async () => {
  const { page } = v;
  // Next week somewhere: too soon for ten working days of a laboratory.
  const { version, data } = (await detail()).sections.book;
  await kase.client.patch(`/cases/${kase.id}/sections/book`, { version, data: { ...data, visits: [] } });
  await promised(isoOf(today + 9));
  await page.reload();
  await page.getByRole('heading', { name: /can’t be kept$/ }).waitFor({ timeout: 60_000 });
  const way = page.getByRole('listitem').filter({ hasText: 'own mill and seat it the next day' }).first();
  await way.getByText(/monolithic/).waitFor();
  await way.getByRole('button', { name: 'take it' }).click();
  await page.getByRole('heading', { name: /can be kept$/ }).waitFor();
  await saved(page);
  expect((await detail()).sections.book.data.maker).toBe('mill');
});

it('the week shows the practice’s visits, and hours are typed as people write them', async () => {
  const { page } = v;
  await page.goto(new URL('/hours', page.url()).href);
  const friday = page.getByLabel('Friday', { exact: true }).first();
  await friday.click();
  await page.keyboard.press('Control+A');
  await page.keyboard.type('8-12, 11-15');
  await page.keyboard.press('Enter');
  await page.getByText('Friday: 08:00 to 12:00 and 11:00 to 15:00 overlap.').waitFor();
  await friday.click();
  await page.keyboard.press('Control+A');
  await page.keyboard.type('8-12, 13-15:30');
  await page.keyboard.press('Enter');
  await page.getByText('Friday: 08:00 to 12:00 and 11:00 to 15:00 overlap.').waitFor({ state: 'detached' });
  const pickUp = page.getByLabel('it fetches until', { exact: false });
  await pickUp.click();
  await page.keyboard.type('0330PM');
  await page.keyboard.press('Tab');
  await page.getByRole('heading', { name: 'The laboratory' }).click();
  await page.waitForTimeout(500);
  await page.reload();
  expect(await pickUp.inputValue()).toBe('15:30');
  expect(await page.getByLabel('Friday', { exact: true }).first().inputValue()).toBe('08:00–12:00, 13:00–15:30');
  await page.getByRole('link', { name: 'week', exact: true }).click();
  await page.getByRole('heading', { name: 'The week' }).waitFor();
  await page.getByText(/what is laid out$/).waitFor();
  // As it was, for whoever comes after.
  await page.goto(new URL('/hours', page.url()).href);
  await page.getByLabel('Friday', { exact: true }).first().fill('8-12, 13-17');
  await page.keyboard.press('Enter');
  await page.waitForTimeout(300);
  expect(v.troubles).toEqual([]);
});
