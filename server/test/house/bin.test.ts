import { type CaseDetail, type CasePage, type ContourVersion, KEPT_DAYS, type Problem } from '@radiant/contract';
import { BinService } from '../../src/cases/bin.service.js';
import { openDatabase } from '../../src/database/database.js';
import { avocetOf, type Client, databaseOf, signedIn } from '../house.js';

let dentist: Client;
const listed = async (query = '') => (await dentist.get<CasePage>(`/cases?search=Binned${query}`)).body;
const opened = async (name: string) => (await dentist.post<CaseDetail>('/cases', { name })).body.id;

beforeAll(async () => {
  dentist = await signedIn('dentist');
});

describe('a case that is put away', () => {
  let id: string;
  beforeAll(async () => {
    id = await opened('Binned one');
  });

  it('is a dentist’s to put away', async () => {
    const refused = await (await signedIn('assistant')).call('DELETE', `/cases/${id}`);
    expect(refused.status).toBe(403);
    expect((await listed()).cases.map((c) => c.name)).toEqual(['Binned one']);
  });

  it('leaves the list, is read only, says who put it away, and comes back as it was', async () => {
    expect((await dentist.call('DELETE', `/cases/${id}`)).status).toBe(204);
    expect((await listed()).cases).toEqual([]);
    const bin = await listed('&bin=true');
    expect(bin.cases.map((c) => [c.name, c.removed?.by])).toEqual([['Binned one', 'Dr Sample Curlew']]);
    expect(bin.binned).toBeGreaterThan(0);
    expect((await dentist.get<CaseDetail>(`/cases/${id}`)).body.putAway?.by).toBe('Dr Sample Curlew');
    const refused = await dentist.patch<Problem>(`/cases/${id}`, { name: 'other' });
    expect([refused.status, refused.body.detail]).toEqual([
      409,
      'This case was put away; bring it back before it is changed.',
    ]);
    expect((await dentist.post<Problem>(`/cases/${id}/comments`, { stage: 'propose', body: 'x' })).status).toBe(409);
    expect((await dentist.post<CaseDetail>(`/cases/${id}/bring-back`, {})).body.putAway).toBeNull();
    expect((await listed()).cases.map((c) => c.name)).toEqual(['Binned one']);
  });

  it('of another practice is not there', async () => {
    const missing = await dentist.call('DELETE', '/cases/00000000-0000-4000-8000-000000000000');
    expect(missing.status).toBe(404);
  });
});

it('after its days a case is forgotten with all that it holds, save one whose contour the patient approved', async () => {
  const avocet = await avocetOf(dentist);
  const copy = async (name: string) =>
    (await dentist.post<CaseDetail>(`/cases/${avocet.id}/duplicate`, { name })).body.id;
  const [plain, approved] = [await opened('Forgotten'), await copy('Held')];
  const path = `/cases/${approved}/contours`;
  const { body: made } = await dentist.post<ContourVersion>(path, { name: 'worn', why: '' });
  expect((await dentist.post(`${path}/${made.id}/approve`, { word: 'signed' })).status).toBe(200);
  for (const id of [plain, approved]) await dentist.call('DELETE', `/cases/${id}`);

  const db = openDatabase(databaseOf());
  try {
    const bin = new BinService({ counted: () => {} } as never, { release: async () => {} } as never);
    const days = (n: number) => Date.now() + n * 86_400_000;
    await bin.forgetOld(days(KEPT_DAYS - 1));
    expect((await dentist.get(`/cases/${plain}`)).status).toBe(200);
    await bin.forgetOld(days(KEPT_DAYS + 1));
  } finally {
    await db.close();
  }
  expect((await dentist.get(`/cases/${plain}`)).status).toBe(404);
  const left = (await dentist.get<CaseDetail>(`/cases/${approved}`)).body;
  expect([left.putAway?.held, left.contours.length]).toEqual([true, 1]);
  const bin = (await dentist.get<CasePage>('/cases?search=Held&bin=true')).body;
  expect(bin.cases.map((c) => c.removed?.held)).toEqual([true]);
});

it('the list is sorted by what the person opened last, and knows at which stage they left it', async () => {
  const [a, b] = [await opened('Left a'), await opened('Left b')];
  await dentist.post(`/cases/${b}/opened`, { stage: 'shape' });
  await dentist.post(`/cases/${a}/opened`, { stage: 'read' });
  const left = async (client: Client) =>
    (await client.get<CasePage>('/cases?search=Left&sort=opened')).body.cases.map((c) => [c.name, c.leftAt]);
  expect(await left(dentist)).toEqual([
    ['Left a', 'read'],
    ['Left b', 'shape'],
  ]);
  await dentist.post(`/cases/${b}/opened`, { stage: 'reduce' });
  expect((await left(dentist))[0]).toEqual(['Left b', 'reduce']);
  // Another person has opened neither.
  expect((await left(await signedIn('assistant'))).map(([, stage]) => stage)).toEqual([null, null]);
  expect((await dentist.post(`/cases/${b}/opened`, { stage: '../x' })).status).toBe(422);
});
