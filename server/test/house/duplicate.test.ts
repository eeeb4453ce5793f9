import type { CaseDetail, Problem } from '@radiant/contract';
import { readingOf } from '@radiant/contract';
import { avocetOf, type Client, signedIn } from '../house.js';

describe('a second case made of one', () => {
  let dentist: Client;
  let first: CaseDetail;
  beforeAll(async () => {
    dentist = await signedIn('dentist');
    first = (await dentist.get<CaseDetail>(`/cases/${(await avocetOf(dentist)).id}`)).body;
  });
  const duplicate = async (name: string, from = first.id) =>
    (await dentist.post<CaseDetail>(`/cases/${from}/duplicate`, { name })).body;

  it('holds what the first holds, with files of its own numbers and the same bytes', async () => {
    const second = await duplicate('Ruff');
    expect([second.name, second.id === first.id]).toEqual(['Ruff', false]);
    const { scanId, ...shape } = second.sections.shape.data;
    const { scanId: before, ...was } = first.sections.shape.data;
    expect(shape).toEqual(was);
    expect(second.sections.meet).toEqual(first.sections.meet);
    expect(second.files.map((f) => [f.name, f.kind, f.bytes])).toEqual(
      first.files.map((f) => [f.name, f.kind, f.bytes]),
    );
    expect(second.files.some((f) => first.files.some((o) => o.id === f.id))).toBe(false);
    expect(second.files.find((f) => f.id === scanId)?.name).toBe(first.files.find((f) => f.id === before)?.name);
    expect(second.files.some((f) => f.id === readingOf(second.sections.read.data, 'retracted-front').photoId)).toBe(
      true,
    );
    const bytes = (c: CaseDetail, kind: string) =>
      dentist.bytes(`/cases/${c.id}/files/${c.files.find((f) => f.kind === kind)?.id}`);
    expect(await bytes(second, 'scan')).toEqual(await bytes(first, 'scan'));
  });

  it('lives by itself: what is changed in one is not changed in the other, and its history goes on', async () => {
    const second = await duplicate('Knot');
    const { version, data } = second.sections.propose;
    const changed = await dentist.patch(`/cases/${second.id}/sections/propose`, {
      version,
      data: { ...data, edgeMm: 1.2 },
    });
    expect(changed.status).toBe(200);
    const after = (await dentist.get<CaseDetail>(`/cases/${first.id}`)).body;
    expect(after.sections.propose).toEqual(first.sections.propose);
    const file = JSON.parse(new TextDecoder().decode(await dentist.bytes(`/cases/${second.id}/case.json`))) as {
      history: { section: string; version: number }[];
    };
    expect(file.history.filter((h) => h.section === 'propose').map((h) => h.version)).toEqual(
      Array.from({ length: version + 1 }, (_, i) => i + 1),
    );
  });

  it('an approval comes along as what the first case says, not as the patient’s word', async () => {
    const one = await duplicate('Godwit');
    const kept = (await dentist.post<{ id: string }>(`/cases/${one.id}/contours`, { name: 'worn', why: '' })).body;
    expect(
      (await dentist.post(`/cases/${one.id}/contours/${kept.id}/approve`, { word: 'yes, like this' })).status,
    ).toBeLessThan(300);
    const two = await duplicate('Whimbrel', one.id);
    const [own] = two.contours;
    expect(own?.name).toBe('worn');
    expect(own?.approved).toMatchObject({ word: 'yes, like this', claimed: true });
    expect(own?.id).not.toBe(kept.id);
    expect(own?.madeFrom.files.map((f) => f.fileId)).toEqual([two.sections.shape.data.scanId]);
  });

  it('is refused without a name, to a technician, and of another’s case', async () => {
    expect((await dentist.post<Problem>(`/cases/${first.id}/duplicate`, { name: '' })).body.errors?.[0]?.message).toBe(
      'The name has 1 to 80 characters.',
    );
    const technician = await signedIn('technician');
    expect((await technician.post(`/cases/${first.id}/duplicate`, { name: 'Mine' })).status).toBe(403);
    expect((await dentist.post('/cases/00000000-0000-4000-8000-000000000000/duplicate', { name: 'None' })).status).toBe(
      404,
    );
  });
});
