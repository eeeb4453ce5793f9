import { randomUUID } from 'node:crypto';
import {
  type CaseDetail,
  FIRST_SETTINGS,
  type PracticeSettings,
  type PracticeSettingsState,
  type Problem,
  type Session,
  type TrayInput,
} from '@radiant/contract';
import { type Client, inDatabase, signedIn } from '../house.js';

let dentist: Client;
let first: PracticeSettingsState;

const PATH = '/practice/settings';
const state = async (of = dentist) => (await of.get<PracticeSettingsState>(PATH)).body;
const put = (version: number, data: object, by = dentist) =>
  by.call<PracticeSettingsState & Problem>('PUT', PATH, { version, data });
const opened = async () => (await dentist.post<CaseDetail>('/cases', { name: 'By settings' })).body;

beforeAll(async () => {
  dentist = await signedIn('dentist');
  first = await state();
});
afterAll(async () => {
  await put((await state()).version, first.data);
});

it('are read by all of the practice and set by the dentist, version by version, each with its name', async () => {
  const { version } = first;
  const data: PracticeSettings = { ...first.data, school: 'natural' };
  expect((await put(version, data)).body).toMatchObject({ version: version + 1, data, by: 'Dr Sample Curlew' });
  const technician = await signedIn('technician');
  expect((await state(technician)).data).toEqual(data);
  const refused = await put(version + 1, data, technician);
  expect(refused).toMatchObject({ status: 403 });
  const rows = (await inDatabase((run) => run('SELECT version FROM practice_settings ORDER BY version'))) as object[];
  expect(rows).toHaveLength(version + 1);
});

it('are overwritten by nobody who had not seen them, also at the same moment', async () => {
  const { version, data } = await state();
  const late = await put(version - 1, { ...data, school: 'golden' });
  expect(late).toMatchObject({
    status: 409,
    body: { detail: 'Dr Sample Curlew changed the practice’s settings meanwhile; nothing was overwritten.' },
  });
  const both = await Promise.all(['liked', 'population'].map((school) => put(version, { ...data, school })));
  expect(both.map((a) => a.status).sort()).toEqual([200, 409]);
});

/** A plate that reads brighter over black. */
const flat = (v: number) => Array.from({ length: 31 }, () => v);
const UPSIDE_DOWN = {
  name: 'own',
  mm: 1,
  overBlack: flat(0.5),
  overWhite: flat(0.3),
  blackGround: flat(0.02),
  whiteGround: flat(0.6),
};

it('that are none are told in a sentence', async () => {
  const { version, data } = await state();
  for (const [over, words] of [
    [{ school: 'mine' }, 'This school is not known.'],
    [{ drafts: 'burnt' }, 'Edits that were not sent stay sealed or are removed.'],
    [{ design: 'marble' }, 'This design is not known.'],
    [{ contactsMm: 0.4 }, 'Contacts are kept between 0.5 mm open and 0.1 mm tight.'],
    [{ notation: 'mine' }, 'Teeth are numbered by FDI or Universal.'],
    [{ plates: [UPSIDE_DOWN] }, /^own: At 400 nm it reads no brighter over white than over black/],
    [{ ruleLimits: [{ rule: 'luck', value: 1 }] }, 'This rule is not known.'],
    [{ prices: 3 }, 'The field “data.prices” does not belong here.'],
  ] as const)
    expect((await put(version, { ...data, ...over })).body.errors?.[0]?.message).toEqual(
      typeof words === 'string' ? words : expect.stringMatching(words),
    );
  expect((await state()).version).toBe(version);
});

it('hold where nothing is written: a case is proposed by the practice’s school, one that was written stays', async () => {
  const { version, data } = await state();
  await put(version, { ...data, school: 'golden', drafts: 'removed' });
  expect((await dentist.get<Session>('/session')).body.drafts).toBe('removed');
  const kase = await opened();
  expect(kase.sections.propose).toMatchObject({ version: 0, data: { school: 'golden' } });
  const own = { ...kase.sections.propose.data, school: 'ratio' };
  expect((await dentist.patch(`/cases/${kase.id}/sections/propose`, { version: 0, data: own })).status).toBe(200);
  await put(version + 1, { ...data, school: 'natural', drafts: 'sealed' });
  const now = (await dentist.get<CaseDetail>(`/cases/${kase.id}`)).body;
  expect(now.sections.propose.data.school).toBe('ratio');
  expect((await opened()).sections.propose.data.school).toBe('natural');
});

it('hold for design, cut, contacts and numbers too: a case begins with them, and who signs in is told the numbers', async () => {
  const { version, data } = await state();
  const own = { design: 'ceramic-crown', cutFrom: 'margin', contactsMm: 0.05, notation: 'universal' } as const;
  expect((await put(version, { ...data, ...own })).status).toBe(200);
  const { sections } = await opened();
  expect(sections.reduce).toMatchObject({ version: 0, data: { design: 'ceramic-crown', from: 'margin' } });
  expect(sections.shape.data.contactsMm).toBe(0.05);
  expect((await dentist.get<Session>('/session')).body.who?.notation).toBe('universal');
  // Settings that an older program wrote have none of these.
  await put(version + 1, { ...data, contactsMm: null });
  expect((await opened()).sections.shape.data.contactsMm).toBeUndefined();
});

it('of another practice are its own', async () => {
  const [practice, person] = [randomUUID(), randomUUID()];
  await inDatabase(async (run) => {
    await run('INSERT INTO practices (id, name) VALUES (?, ?)', [practice, 'Other']);
    await run('INSERT INTO practice_settings VALUES (?, 1, ?, ?, NOW(3))', [practice, '{"school":"liked"}', person]);
  });
  expect((await state()).data.school).not.toBe('liked');
  await inDatabase((run) => run('DELETE FROM practices WHERE id = ?', [practice]));
  expect(FIRST_SETTINGS).toEqual({
    drafts: 'sealed',
    school: 'ratio',
    wearDays: 1,
    design: 'graduated',
    cutFrom: 'mock-up',
    thickness: [],
    trays: [expect.objectContaining({ name: 'anterior tray' })],
    toleranceMm: 0.05,
    cornerMm: 0.2,
    contactsMm: null,
    scales: [],
    plates: [],
    rulesOff: [],
    ruleLimits: [],
    fees: [],
    composite: {},
    stock: [],
    clinic: expect.objectContaining({ chairs: ['chair 1'], laboratoryDays: 10, timeZone: 'UTC' }),
    currency: '',
    notation: 'fdi',
  });
});

it('composite is built up as the house does: a new case begins with it, and a thickness out of range is a sentence', async () => {
  const { version, data } = await state();
  const set = await put(version, { ...data, composite: { shellMm: 0.4, lampMw: 1400, seconds: 12 } });
  expect(set.status).toBe(200);
  const kase = await opened();
  expect(kase.sections.direct.data).toMatchObject({ shellMm: 0.4, lampMw: 1400, seconds: 12, works: [] });
  const next = await state();
  const refused = await put(next.version, { ...next.data, composite: { shellMm: 4 } });
  expect(refused.status).toBe(422);
  expect(JSON.stringify(refused.body)).toMatch(/palatal shell lies between 0.2 and 1 mm/);
  await put(next.version, { ...next.data, composite: {} });
});

it('trays and thicknesses are the house’s: a case begins with them and keeps what it was worked on with', async () => {
  const { version, data } = await state();
  const [first] = data.trays as [TrayInput];
  const mine = { name: 'mine', burs: first.burs.slice(0, 4) };
  const thick = { design: 'graduated', cervical: 0.4, middle: 0.6, incisal: 0.8, edgeMm: 1.5 } as const;
  const set = await put(version, { ...data, trays: [mine, first], thickness: [thick], toleranceMm: 0.1 });
  expect(set.status).toBe(200);
  const { sections } = await opened();
  expect(sections.reduce.data).toMatchObject({ tray: mine, thickness: [thick], toleranceMm: 0.1 });
  for (const [bad, words] of [
    [[{ name: 'none', burs: [] }], /“none” is empty/],
    [[{ ...mine, burs: [mine.burs[0], mine.burs[0]] }], /lies twice in “mine”/],
    [[mine, mine], /Two trays have the same name/],
    [[{ ...mine, burs: [{ ...mine.burs[0], largestMm: 60 }] }], /largest diameter of a bur lies between/],
    [[], /at least one tray/],
  ] as const) {
    const refused = await put(version + 1, { ...data, trays: bad as never });
    expect(refused.status).toBe(422);
    expect(JSON.stringify(refused.body)).toMatch(words);
  }
  // Settings of an older program: its own way of cutting is called otherwise now.
  await inDatabase((run) =>
    run('UPDATE practice_settings SET data = JSON_SET(data, "$.cutFrom", "tooth") WHERE version = ?', [version + 1]),
  );
  expect((await state()).data.cutFrom).toBe('margin');
  await put(version + 1, data);
});
