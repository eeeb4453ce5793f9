import type { CaseDetail } from '@radiant/contract';
import { closePages, copyOfAvocet, open, saved, type Visit, visit } from './browser.js';

let v: Visit;
let kase: Awaited<ReturnType<typeof copyOfAvocet>>;
beforeAll(async () => {
  v = await visit();
  kase = await copyOfAvocet('Treated at the chair');
  await open(v.page, kase.id, 'treat');
});
afterAll(closePages);

const treat = async () => (await kase.client.get<CaseDetail>(`/cases/${kase.id}`)).body.sections.treat.data;
const next = () => v.page.getByRole('button', { name: /done, next/ });
const chair = () => v.page.getByRole('region', { name: 'The chair' });
const heading = (text: RegExp | string) => chair().getByRole('heading', { level: 2, name: text });

it('a visit is chosen, its steps are seen before, and it begins', async () => {
  const { page } = v;
  await page.getByRole('button', { name: 'seating', exact: true }).click();
  await page.getByText(/steps from what is decided/).waitFor();
  await page.getByLabel('Cement of 11').selectOption('glass-ionomer');
  await page.getByText(/A veneer has no walls that hold it/).waitFor();
  await page.getByLabel('Cement of 11').selectOption('resin-light');
  await page.getByText(/A veneer has no walls that hold it/).waitFor({ state: 'detached' });
  await page.getByRole('button', { name: 'begin the visit' }).click();
  await heading(/stump shines through, then a twist/).waitFor();
  await saved(page);
  expect((await treat()).runs).toMatchObject([{ visit: 'seating', round: 1 }]);
});

it('a gate asks who says so; not met it stands in the record and goes on only with a reason', async () => {
  const { page } = v;
  await page.keyboard.press('n');
  await heading(/Is the gum healthy/).waitFor();
  // No key passes a gate.
  await page.keyboard.press('n');
  await heading(/Is the gum healthy/).waitFor();
  await page.getByRole('button', { name: 'Not met' }).click();
  await page
    .getByText(/Nothing is bonded where gum bleeds/)
    .first()
    .waitFor();
  const on = page.getByRole('button', { name: 'Go on all the same' });
  expect(await on.isDisabled()).toBe(true);
  await page.getByLabel('It goes on because').click();
  await page.keyboard.type('only at 23, away from it');
  await on.click();
  await heading(/Every trace of provisional cement/).waitFor();
  await saved(page);
  expect((await treat()).answers).toMatchObject([
    { gate: 'tissue', met: false },
    { gate: 'tissue', met: false, because: 'only at 23, away from it' },
  ]);
  // What was said can be taken back, and said again.
  await page.getByRole('button', { name: 'take the last back' }).click();
  await page.getByRole('button', { name: 'It is met now' }).click();
  await page.getByText(/Nothing is bonded where gum bleeds/).waitFor({ state: 'detached' });
});

it('a step is left out with its reason, and a word is noted', async () => {
  const { page } = v;
  await page.getByLabel('What was done otherwise, or seen').click();
  await page.keyboard.type('cement under 22');
  await next().click();
  await heading(/One at a time/).waitFor();
  await page.getByRole('button', { name: 'leave out' }).click();
  await page.getByLabel('Left out because').click();
  await page.keyboard.type('tried on the model');
  await page.getByRole('button', { name: 'leave it out' }).click();
  await heading(/Contacts to teeth that stay/).waitFor();
  await saved(page);
  const { done } = await treat();
  expect(done.some((d) => d.note === 'cement under 22')).toBe(true);
  expect(done.some((d) => d.leftOut === 'tried on the model')).toBe(true);
});

it('why a piece does not go home is searched, one look after the other', async () => {
  const { page } = v;
  const search = page.getByRole('region', { name: 'Why it does not go home' });
  await search.getByRole('button', { name: /Does it go home/ }).click();
  // Each alone, then pairs from the right: 13, 12, 11, 21, 22, 23.
  for (let i = 0; i < 6; i++) {
    await search.getByText(/^Try \d+ alone\.$/).waitFor();
    const tried = (await search.getByText(/^Try/).textContent()) ?? '';
    await search.getByRole('button', { name: 'home', exact: true }).click();
    await search.getByText(tried, { exact: true }).waitFor({ state: 'detached' });
  }
  await search.getByText('Try 13 and 12 together.').waitFor();
  await search.getByRole('button', { name: 'stands open' }).click();
  await search.getByText(/13 and 12: Both go home alone and stand open together/).waitFor();
  await saved(page);
  expect((await treat()).trials.at(-1)).toMatchObject({ teeth: [13, 12], home: false });
});

it('a hand scanner types a pack, and one that is out of date is said', async () => {
  const { page } = v;
  await page.getByLabel('Material, or scan its pack').click();
  await page.keyboard.type('(01)09506000134352(17)200229(10)ABC123');
  await page.keyboard.press('Enter');
  await page.getByText('item 09506000134352, lot ABC123, use by 29 February 2020').waitFor();
  await page.getByText('Out of date: take another pack.').waitFor();
  await page.keyboard.type('silane');
  await page.keyboard.press('Enter');
  await page.getByText('No lot: it can’t be traced.').waitFor();
});

it('times run on through a reload, and a second screen shows the same step and the same time', async () => {
  const { page } = v;
  await next().click();
  await next().click();
  for (const gate of [/margins seen all round/, /is the colour right/, /said yes/]) {
    await heading(gate).waitFor();
    await page
      .getByRole('button', { name: /^Yes, says/ })
      .first()
      .click();
  }
  await next().click();
  await heading(/Etch the inside/).waitFor();
  await page.getByText(/burns deep and late/).waitFor();
  await page.getByRole('button', { name: 'start 20 s' }).click();
  await saved(page);
  await page.reload();
  const running = page.getByRole('list', { name: 'Times that run' });
  await running.getByRole('button', { name: /Etch the inside .* left, stop/ }).waitFor();
  const other = await visit();
  await open(other.page, kase.id, 'treat');
  await other.page.getByRole('heading', { level: 2, name: /Etch the inside/ }).waitFor();
  await other.page
    .getByRole('button', { name: /Etch the inside/ })
    .first()
    .waitFor();
  await next().click();
  await heading(/Silane/).waitFor();
  await other.page.getByRole('heading', { level: 2, name: /Silane/ }).waitFor();
  // Over, it says so on both, until somebody has seen it.
  await running.getByRole('button', { name: /over, stop/ }).waitFor({ timeout: 40_000 });
  await other.page.getByRole('button', { name: /over, stop/ }).click();
  await running.waitFor({ state: 'detached' });
  await saved(other.page);
  const [timer] = (await treat()).timers;
  const kept = (Date.parse(timer?.stoppedAt as string) - Date.parse(timer?.startedAt as string)) / 1000;
  expect(kept).toBeGreaterThanOrEqual(20);
  expect(other.troubles).toEqual([]);
  await other.page.context().close();
});

it('without the network steps are done all the same, and come to the server when it is back', async () => {
  const { page } = v;
  const before = (await treat()).done.length;
  await page.context().setOffline(true);
  await next().click();
  await heading(/Isolate/).waitFor();
  await next().click();
  await heading(/Every trace of provisional cement off 11, 21/).waitFor();
  expect((await treat()).done).toHaveLength(before);
  await page.context().setOffline(false);
  await saved(page);
  expect((await treat()).done).toHaveLength(before + 2);
});

it('the step fills the screen, is large enough to read from afar, and everything is easily hit', async () => {
  const { page } = v;
  await page.keyboard.press('w');
  const size = await heading(/Every trace/).evaluate((e) => Number.parseFloat(getComputedStyle(e).fontSize));
  expect(size).toBeGreaterThanOrEqual(40);
  const small = await chair()
    .getByRole('button')
    .evaluateAll((all) =>
      all
        .map((b) => [b.textContent, b.getBoundingClientRect()] as const)
        .filter(([, r]) => r.width > 0 && (r.height < 48 || r.width < 48))
        .map(([t]) => t),
    );
  expect(small).toEqual([]);
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'verify' }).waitFor();
});

it('a word that was typed stays with its step when it is finished by the key', async () => {
  const { page } = v;
  await page.getByLabel('What was done otherwise, or seen').click();
  await page.keyboard.type('a little bleeding');
  await heading(/Every trace/).click();
  await page.keyboard.press('n');
  await heading(/Every trace/).waitFor({ state: 'detached' });
  await saved(page);
  expect((await treat()).done.some((d) => d.note === 'a little bleeding')).toBe(true);
});

it('a clock that is set back gives no time back, and it is said', async () => {
  const { page } = v;
  await page
    .getByRole('button', { name: /^start/ })
    .first()
    .click();
  const left = page.getByRole('list', { name: 'Times that run' }).getByRole('button').first();
  await left.waitFor();
  await page.evaluate(() => {
    const wall = Date.now.bind(Date);
    Date.now = () => wall() - 3_600_000;
  });
  await page.getByText('This device’s clock was set back.').waitFor();
  expect(await left.getAttribute('aria-label')).not.toMatch(/\d\d:\d\d left/);
  await left.click();
  await page.reload();
});

it('a visit ends before its time where somebody says so, and is not counted', async () => {
  const other = await copyOfAvocet('Ended early');
  const { page } = await visit();
  await open(page, other.id, 'treat');
  await page.getByRole('button', { name: 'begin the visit' }).click();
  await page.getByRole('button', { name: 'end here' }).click();
  await page.getByText(/steps are not done\./).waitFor();
  await page.getByRole('button', { name: 'end the visit here' }).click();
  await page.getByRole('button', { name: 'begin it again' }).waitFor();
  await saved(page);
  const [run] = (await other.client.get<CaseDetail>(`/cases/${other.id}`)).body.sections.treat.data.runs;
  expect(run?.endedAt).toBeDefined();
  expect(run?.teeth ?? null).toBeNull();
  await page.context().close();
});

it('a visit that is over stands in the record with how long it took', async () => {
  const { page } = v;
  for (let i = 0; i < 60; i++) {
    const end = page.getByRole('button', { name: 'end the visit' });
    if (await end.isVisible()) break;
    const now = (await chair().getByRole('heading', { level: 2 }).textContent()) ?? '';
    await next().click();
    await chair()
      .getByRole('heading', { level: 2, name: now, exact: true })
      .waitFor({ state: 'detached' })
      .catch(() => undefined);
  }
  await page.getByRole('button', { name: 'end the visit' }).click();
  await page.getByRole('button', { name: 'begin it again' }).waitFor();
  await page.getByRole('region', { name: 'Record' }).getByText(/min$/).waitFor();
  await saved(page);
  expect((await treat()).runs).toMatchObject([{ visit: 'seating', teeth: 6, endedAt: expect.any(String) }]);
  expect(v.troubles).toEqual([]);
});
