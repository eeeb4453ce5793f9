import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { CaseDetail, Problem } from '@radiant/contract';
import { avocetOf, type Client, DATA, signedIn, URL_ } from '../house.js';

let dentist: Client;
beforeAll(async () => {
  dentist = await signedIn('dentist');
});

const serverPid = () => JSON.parse(readFileSync(join(DATA, 'running-server.json'), 'utf8')).pid as number;
/** The most memory that the server has ever had, MB. */
const peakMb = () => Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${serverPid()}/status`, 'utf8'))?.[1]) / 1024;

it('a plan that is asked for again, at once or later, is made once', async () => {
  const { id } = await avocetOf(dentist);
  const together = await Promise.all([1, 2, 3].map(() => dentist.bytes(`/cases/${id}/plan.pdf`)));
  // The page carries the second in which it was made.
  await new Promise((r) => setTimeout(r, 1100));
  const later = await dentist.bytes(`/cases/${id}/plan.pdf`);
  const texts = new Set([...together, later].map((b) => Buffer.from(b).toString('base64')));
  expect(texts.size).toBe(1);
  expect(Buffer.from(later.subarray(0, 5)).toString()).toBe('%PDF-');
  const other = await dentist.bytes(`/cases/${id}/plan.pdf?notation=universal`);
  expect(texts.has(Buffer.from(other).toString('base64'))).toBe(false);
});

it('while models are made the server goes on answering', async () => {
  const { id } = await avocetOf(dentist);
  let going = true;
  let answers = 0;
  const asking = (async () => {
    while (going) {
      expect((await fetch(`${URL_}/api/health`)).status).toBe(200);
      answers++;
      await new Promise((r) => setTimeout(r, 20));
    }
  })();
  const begun = Date.now();
  await Promise.all(
    ['stl?what=mock-up', 'obj?what=planned', 'ply?what=existing'].map((f) =>
      dentist.bytes(`/cases/${id}/contour.${f}`),
    ),
  );
  const seconds = (Date.now() - begun) / 1000;
  going = false;
  await asking;
  // A server that makes models where it answers gives one answer for each of them.
  expect(answers).toBeGreaterThan(4 * seconds);
});

it('a large section is checked in a thread and kept exactly', async () => {
  const { id } = (await dentist.post<CaseDetail>('/cases', { name: 'Brushed' })).body;
  const stroke = (k: number) => ({
    tool: 'add',
    radiusMm: 1,
    amount: 0.1,
    at: Array.from({ length: 40 }, (_, i) => (i * 97 + k) % 20_000),
  });
  const teeth = [11, 21].map((tooth) => ({
    tooth,
    lengthMm: 10,
    widthMm: 8,
    facialVolumeMm: 0,
    rotationDeg: 0,
    strokes: Array.from({ length: 200 }, (_, k) => stroke(k)),
  }));
  const kept = await dentist.patch<{ data: object }>(`/cases/${id}/sections/shape`, { version: 0, data: { teeth } });
  expect(kept.body.data).toEqual({ teeth });
  (teeth[1] as { strokes: { at: number[] }[] }).strokes[7] = { ...stroke(0), at: [-1] };
  const refused = await dentist.patch<Problem>(`/cases/${id}/sections/shape`, { version: 1, data: { teeth } });
  expect(refused).toMatchObject({
    status: 422,
    body: { detail: 'A place of a stroke is a number of the crown’s surface.' },
  });
});

describe('a case file that would end the house', () => {
  const head = (list: string) =>
    `{"format":"radiant-arch-case","version":3,"writtenAt":"2026-11-20T08:00:00.000Z","name":"X","${list}":[`;
  const bringIn = async (text: string) => (await dentist.upload<Problem>('/cases/import', text, 'case.json')).body;
  const MANY = '{},'.repeat(5_000_000);

  it.each([
    [
      'fifteen megabytes of empty entries',
      () => `${head('history')}${MANY}{}]}`,
      /^The section|^section|must|belongs|not|text/i,
    ],
    [
      'fifteen megabytes of empty lists in one section',
      () => `{"format":"radiant-arch-case","version":3,"sections":{"meet":[${MANY}{}]}}`,
      /holds more in one place/,
    ],
    ['fifteen megabytes without a name', () => `[${MANY}{}]`, /^This is not a Radiant Arch case file\.$/],
    [
      'lists within lists',
      () => `{"format":"radiant-arch-case","version":3,"sections":${'['.repeat(100_000)}`,
      /holds more in one place/,
    ],
    ['a file that never ends', () => `${head('files')}{"base64":"${'A'.repeat(15_000_000)}`, /cut short/],
  ])('%s is refused in a sentence, and memory stays where it was', async (_, make, sentence) => {
    const text = make();
    const before = peakMb();
    const refused = await bringIn(text);
    expect(refused.status).toBe(422);
    expect(refused.detail).toMatch(sentence);
    expect(peakMb() - before).toBeLessThan(400);
    expect((await fetch(`${URL_}/api/health`)).status).toBe(200);
  });

  it('leaves nothing lying about', async () => {
    const { readdirSync } = await import('node:fs');
    expect(readdirSync(join(DATA, 'incoming'))).toEqual([]);
  });
});

it('a case of many versions and with broken old texts comes out and in again with nothing lost', async () => {
  const { id } = (await dentist.post<CaseDetail>('/cases', { name: 'Long kept' })).body;
  for (let version = 0; version < 120; version++)
    await dentist.patch(`/cases/${id}/sections/meet`, { version, data: { wish: `wish ${version} \u2028 of many` } });
  const bytes = Buffer.from(await dentist.bytes(`/cases/${id}/case.json`));
  // As an older program may have written it: half a character, and the fields in another order.
  const { history, ...rest } = JSON.parse(bytes.toString('utf8')) as { history: unknown[] };
  const text = JSON.stringify({ history, ...rest }).replace('wish 7 ', 'wish 7\\ud83d ');
  const made = (await dentist.upload<CaseDetail>('/cases/import', text, 'case.json')).body;
  expect(made.sections.meet).toMatchObject({ version: 120, data: { wish: 'wish 119 \u2028 of many' } });
  const again = JSON.parse(Buffer.from(await dentist.bytes(`/cases/${made.id}/case.json`)).toString('utf8')) as {
    history: { data: { wish: string } }[];
  };
  expect(again.history).toHaveLength(120);
  expect(again.history[7]?.data.wish).toBe('wish 7\ufffd \u2028 of many');
});
