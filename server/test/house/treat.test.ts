/** The record of a treatment at the server: who writes it, what it comes to on paper and in the house's own times. */
import type { CaseDetail, Problem, SectionState, TreatSection } from '@radiant/contract';
import type { Taken } from '@radiant/core';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { type Client, signedIn } from '../house.js';

let dentist: Client;
let kase: CaseDetail;
const at = (minute: number) => new Date(Date.UTC(2026, 6, 3, 9, minute)).toISOString();
const who = { visit: 'seating', round: 1, by: 'dentist' } as const;
const empty: TreatSection = {
  pieces: [],
  oldWorks: [],
  runs: [],
  done: [],
  answers: [],
  timers: [],
  used: [],
  trials: [],
  looks: [],
};
const put = (client: Client, id: string, version: number, data: Partial<TreatSection>) =>
  client.patch<SectionState<'treat'> & Problem>(`/cases/${id}/sections/treat`, {
    version,
    data: { ...empty, ...data },
  });

beforeAll(async () => {
  dentist = await signedIn('dentist');
  kase = (await dentist.post<CaseDetail>('/cases', { name: 'Treated' })).body;
});

it('is written by an assistant too, and by no technician', async () => {
  const assistant = await signedIn('assistant');
  const technician = await signedIn('technician');
  expect((await put(assistant, kase.id, 0, { runs: [{ ...who, begunAt: at(0) }] })).status).toBe(200);
  expect((await put(technician, kase.id, 1, {})).status).toBe(403);
  const wrong = await put(dentist, kase.id, 1, { runs: [{ ...who, begunAt: at(30), endedAt: at(0) }] });
  expect([wrong.status, wrong.body.errors?.[0]?.message]).toEqual([422, 'A visit ends after it begins.']);
});

it('comes on paper with times of the house’s clock, deviations and lots', async () => {
  const nothing = (await dentist.post<CaseDetail>('/cases', { name: 'Not treated' })).body;
  const none = await dentist.get<Problem>(`/cases/${nothing.id}/plan.pdf?form=treatment`);
  expect([none.status, none.body.detail]).toEqual([
    422,
    'Nothing was done at the chair yet: begin a visit in treat first.',
  ]);
  await put(dentist, kase.id, 1, {
    runs: [{ ...who, begunAt: at(0), endedAt: at(80), teeth: 4 }],
    done: [{ ...who, step: 'floss', at: at(40), did: 'Floss both sides of 11.', leftOut: 'tacked too long' }],
    answers: [{ ...who, gate: 'word', met: true, saidBy: 'the patient', at: at(20) }],
    used: [{ ...who, id: '4b6c1bb8-31a8-4a39-8a3f-0c4fd53e6d33', name: 'etch gel', lot: 'A1', at: at(30) }],
    trials: [{ ...who, teeth: [11, 21], home: false, at: at(10) }],
  });
  const pdf = await dentist.bytes(`/cases/${kase.id}/plan.pdf?form=treatment&notation=universal`);
  const doc = await getDocument({ data: new Uint8Array(pdf), verbosity: 0 }).promise;
  const page = await (await doc.getPage(1)).getTextContent();
  const text = page.items.map((i) => ('str' in i ? i.str : '')).join(' ');
  for (const words of [
    'Treated: record of treatment',
    '3 July 2026, 09:00 to 10:20, 80 min',
    'the patient says yes: yes, says the patient',
    'etch gel, lot A1',
    'Floss both sides of 11. – tacked too long',
    '8, 9 together: not home',
  ])
    expect(text.replaceAll(/\s+/g, ' ')).toContain(words);
});

it('gives the house its own times, and lets those of cases that were put away go', async () => {
  const taken = async () => (await dentist.get<Taken[]>('/bookings/taken')).body;
  expect(await taken()).toContainEqual({ visit: 'seating', teeth: 4, minutes: 80 });
  const other = (await dentist.post<CaseDetail>('/cases', { name: 'Treated twice' })).body;
  await put(dentist, other.id, 0, { runs: [{ ...who, begunAt: at(0), endedAt: at(33), teeth: 1 }] });
  expect(await taken()).toContainEqual({ visit: 'seating', teeth: 1, minutes: 33 });
  await dentist.call('DELETE', `/cases/${other.id}`);
  expect(await taken()).not.toContainEqual({ visit: 'seating', teeth: 1, minutes: 33 });
});

it('stays with the case it happened in when a case is copied', async () => {
  const copy = await dentist.post<CaseDetail>(`/cases/${kase.id}/duplicate`, { name: 'Copy of treated' });
  expect(copy.status).toBe(201);
  expect(copy.body.sections.treat.data).toMatchObject({ runs: [], done: [], answers: [], used: [], trials: [] });
  const own = (await dentist.get<CaseDetail>(`/cases/${kase.id}`)).body;
  expect(own.sections.treat.data.done).toHaveLength(1);
});

it('the clock of the server is there for whoever keeps times by it', async () => {
  const before = Date.now();
  const { body } = await dentist.get<{ now: number }>('/health/clock');
  expect(body.now).toBeGreaterThanOrEqual(before - 1000);
  expect(body.now).toBeLessThanOrEqual(Date.now() + 1000);
});
