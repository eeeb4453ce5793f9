import type { CaseDetail, ContourVersion } from '@radiant/contract';
import { avocetOf, type Client, signedIn } from '../house.js';

let dentist: Client;
let id: string;
type Told = ContourVersion & { detail: string };

/** A copy of the sample case of its own. */
beforeAll(async () => {
  dentist = await signedIn('dentist');
  const avocet = await avocetOf(dentist);
  const bytes = await dentist.bytes(`/cases/${avocet.id}/case.json`);
  const renamed = Buffer.from(bytes).toString('utf8').replace('"name":"Avocet"', '"name":"Godwit"');
  id = (await dentist.upload<CaseDetail>('/cases/import', renamed, 'case.json')).body.id;
});
const detail = async (of = id) => (await dentist.get<CaseDetail>(`/cases/${of}`)).body;
const put = <T>(path: string, body: unknown, who = dentist) => who.call<T>('PUT', path, body);

it('a version is the contour as it stands, counted, and stays what it was when the contour goes on', async () => {
  const before = await detail();
  const first = await dentist.post<Told>(`/cases/${id}/contours`, { name: 'first', why: 'to be worn' });
  expect(first.status).toBe(201);
  expect(first.body).toMatchObject({
    number: 1,
    name: 'first',
    why: 'to be worn',
    by: 'Dr Sample Curlew',
    teeth: before.sections.shape.data.teeth,
    approved: null,
    worn: null,
  });
  const { version, data } = before.sections.shape;
  const longer = { ...data, teeth: data.teeth.map((t) => (t.tooth === 11 ? { ...t, lengthMm: 11.4 } : t)) };
  expect((await dentist.patch<object>(`/cases/${id}/sections/shape`, { version, data: longer })).status).toBe(200);
  const second = await dentist.post<Told>(`/cases/${id}/contours`, { name: 'longer', why: '' });
  expect(second.body.number).toBe(2);
  const { contours } = await detail();
  expect(contours.map((c) => c.teeth.find((t) => t.tooth === 11)?.lengthMm)).toEqual([
    data.teeth.find((t) => t.tooth === 11)?.lengthMm,
    11.4,
  ]);
});

it('is kept by many at one moment with a number for each', async () => {
  const answers = await Promise.all(
    ['a', 'b', 'c'].map((name) => dentist.post<Told>(`/cases/${id}/contours`, { name, why: '' })),
  );
  expect(answers.map((a) => a.status)).toEqual([201, 201, 201]);
  expect(answers.map((a) => a.body.number).sort()).toEqual([3, 4, 5]);
});

it('wearing it is noted, may be noted again, and days in the wrong order are told', async () => {
  const [first] = (await detail()).contours;
  const path = `/cases/${id}/contours/${first?.id}/worn`;
  const worn = { from: '2026-11-17', until: null, speech: 'a slight lisp on the first day', bulk: '', family: '' };
  expect((await put<Told>(path, worn)).body.worn).toMatchObject({
    from: '2026-11-17',
    speech: 'a slight lisp on the first day',
  });
  expect((await put<Told>(path, { ...worn, until: '2026-11-24', family: 'likes it' })).body.worn).toMatchObject({
    until: '2026-11-24',
    family: 'likes it',
  });
  expect(await put<Told>(path, { ...worn, until: '2026-11-01' })).toMatchObject({
    status: 422,
    body: { detail: 'The mock-up came out before it was put in; look at the two days.' },
  });
  expect((await put<Told>(path, { ...worn, from: 'last week' })).status).toBe(422);
  expect((await detail()).contours[0]?.worn).toMatchObject({ until: '2026-11-24' });
});

it('the patient approves once; an approved version is frozen', async () => {
  const [first] = (await detail()).contours;
  const path = `/cases/${id}/contours/${first?.id}/approve`;
  expect((await dentist.post<Told>(path, { word: '' })).status).toBe(422);
  expect((await dentist.post<Told>(path, { word: 'signed after a week' })).body.approved).toMatchObject({
    word: 'signed after a week',
    by: 'Dr Sample Curlew',
  });
  expect(await dentist.post<Told>(path, { word: 'again' })).toMatchObject({
    status: 409,
    body: { detail: 'This version was approved before; it is frozen.' },
  });
  expect((await detail()).contours[0]?.approved?.word).toBe('signed after a week');
});

it('only the dentist keeps, wears and approves; others read', async () => {
  const { contours } = await detail();
  for (const role of ['assistant', 'technician'] as const) {
    const who = await signedIn(role);
    expect((await who.post(`/cases/${id}/contours`, { name: 'x', why: '' })).status).toBe(403);
    expect(
      (
        await put(
          `/cases/${id}/contours/${contours[1]?.id}/worn`,
          { from: '2026-11-17', speech: '', bulk: '', family: '' },
          who,
        )
      ).status,
    ).toBe(403);
    expect((await who.post(`/cases/${id}/contours/${contours[1]?.id}/approve`, { word: 'yes' })).status).toBe(403);
    expect((await who.get<CaseDetail>(`/cases/${id}`)).body.contours).toHaveLength(contours.length);
  }
});

it('without a contour there is nothing to keep, and another case’s version is not found', async () => {
  const bare = (await dentist.post<CaseDetail>('/cases', { name: 'Ruddy' })).body;
  expect(await dentist.post<Told>(`/cases/${bare.id}/contours`, { name: 'x', why: '' })).toMatchObject({
    status: 422,
    body: { detail: 'There is no contour to keep yet; shape one first.' },
  });
  const [first] = (await detail()).contours;
  expect((await dentist.post(`/cases/${bare.id}/contours/${first?.id}/approve`, { word: 'yes' })).status).toBe(404);
});

it('versions travel in the case file with everything that is said of them', async () => {
  const before = await detail();
  const made = (
    await dentist.upload<CaseDetail>('/cases/import', await dentist.bytes(`/cases/${id}/case.json`), 'case.json')
  ).body;
  const strip = (d: CaseDetail) =>
    d.contours.map(({ id: _, madeFrom, ...c }) => ({
      ...c,
      from: madeFrom.files.map(({ fileId, ...f }) => ({ ...f, held: d.files.find((h) => h.id === fileId)?.sha256 })),
    }));
  // What the file says of an approval is the file's word: nobody here has given it.
  const claims = strip(before).map((c) => ({ ...c, approved: c.approved && { ...c.approved, claimed: true } }));
  expect(strip(made)).toEqual(claims);
  expect(made.contours.filter((c) => c.approved).length).toBeGreaterThan(0);
  expect(made.imported).toMatchObject({ by: 'Dr Sample Curlew' });
  expect(made.contours[0]?.id).not.toBe(before.contours[0]?.id);
  // It counts when a dentist of this practice records it, once.
  const claim = made.contours.find((c) => c.approved);
  const approve = () =>
    dentist.post<ContourVersion>(`/cases/${made.id}/contours/${claim?.id}/approve`, { word: 'asked again here' });
  expect((await approve()).body.approved).toMatchObject({
    word: 'asked again here',
    by: 'Dr Sample Curlew',
    claimed: false,
  });
  expect((await approve()).status).toBe(409);
});
