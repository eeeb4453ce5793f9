import type { CaseDetail, CaseFile, Problem, SectionHistory, SectionState } from '@radiant/contract';
import { box, writeStlBinary } from '@radiant/core';
import { AVOCET, INTRAORAL_SCANNER, makePatient, scan } from '@radiant/standins';
import sharp from 'sharp';
import { type Client, signedIn } from '../house.js';

let dentist: Client;
let kase: CaseDetail;
let photo: CaseFile;

const picture = (width = 600, height = 400) => sharp({ create: { width, height, channels: 3, background: '#804040' } });
const section = (name: string, version: number, data: unknown) =>
  dentist.patch<Problem & SectionState>(`/cases/${kase.id}/sections/${name}`, { version, data });
const upload = (bytes: Uint8Array | string, kind = 'photo', name = 'x') =>
  dentist.upload<Problem & CaseFile>(`/cases/${kase.id}/files?kind=${kind}`, bytes, name);
const detail = async () => (await dentist.get<CaseDetail>(`/cases/${kase.id}`)).body;

beforeAll(async () => {
  dentist = await signedIn('dentist');
  kase = (
    await dentist.post<CaseDetail>('/cases', { name: 'Sections under test', meet: { wish: 'longer', ageYears: 40 } })
  ).body;
  photo = (await upload(await picture().jpeg().toBuffer(), 'photo', 'front.jpg')).body;
});

const CROWN = { tooth: 11, lengthMm: 10, widthMm: 8, facialVolumeMm: 0, rotationDeg: 0 };
const STROKE = { tool: 'add', radiusMm: 1, amount: 0.1, at: [5, 6] };
const BROKEN_CROWNS: readonly (readonly [string, object, RegExp])[] = [
  ['a torque of 60°', { torqueDeg: 60 }, /^Torque, edge forward: between −20 and 20°\.$/],
  ['a neck wider by a word', { neckWidthMm: 'much' }, /^Neck, wider: between −0\.8 and 1\.2 mm\.$/],
  ['a character that is none', { character: 'bold' }, /soft, even or square/],
  ['a crown on a molar', { tooth: 16 }, /premolars, 15 to 25/],
  ['a brush that does not exist', { strokes: [{ ...STROKE, tool: 'melt' }] }, /adds, removes or smooths/],
  ['a brush of 9 mm', { strokes: [{ ...STROKE, radiusMm: 9 }] }, /radius is 0\.3 to 4 mm/],
  ['a stroke of 3 mm', { strokes: [{ ...STROKE, amount: 3 }] }, /0\.01 to 1 mm/],
  ['a stroke of no places', { strokes: [{ ...STROKE, at: [] }] }, /at least one place/],
  ['a stroke between vertices', { strokes: [{ ...STROKE, at: [1.5] }] }, /number of the crown’s surface/],
];

describe('changing a section', () => {
  it('keeps a crown with every number, its character and its strokes as they were sent', async () => {
    const whole = {
      ...CROWN,
      tipDeg: 2,
      torqueDeg: -3,
      neckWidthMm: 0.2,
      edgeCurveMm: 0.3,
      textureShare: 1.4,
      character: 'soft',
      strokes: [STROKE],
    };
    const made = (await dentist.post<CaseDetail>('/cases', { name: 'A whole crown' })).body;
    const put = await dentist.patch<SectionState>(`/cases/${made.id}/sections/shape`, {
      version: 0,
      data: { teeth: [whole, { ...CROWN, tooth: 14 }] },
    });
    expect(put.status).toBe(200);
    expect((await dentist.get<CaseDetail>(`/cases/${made.id}`)).body.sections.shape.data.teeth).toEqual([
      whole,
      { ...CROWN, tooth: 14 },
    ]);
  });

  it('writes it with a revision and the next version', async () => {
    const first = await section('propose', 0, { school: 'reference', referenceTooth: 21, edgeMm: 0.4 });
    expect(first.body).toMatchObject({ version: 1, by: 'Dr Sample Curlew', data: { referenceTooth: 21 } });
    expect((await detail()).sections.propose.version).toBe(1);
  });

  it('with an old version is refused with both at hand, and overwrites nothing', async () => {
    const late = await section('propose', 0, { school: 'ratio', referenceTooth: 11, edgeMm: 2 });
    expect(late.status).toBe(409);
    expect(late.body.current).toMatchObject({ version: 1, data: { edgeMm: 0.4 } });
    expect((await detail()).sections.propose.data.edgeMm).toBe(0.4);
  });

  it('of two at the same moment lets one through', async () => {
    const both = await Promise.all(
      [1, 2].map((edgeMm) => section('propose', 1, { school: 'ratio', referenceTooth: 11, edgeMm })),
    );
    expect(both.map((b) => b.status).sort()).toEqual([200, 409]);
    for (let round = 0; round < 8; round++) {
      const fresh = (await dentist.post<CaseDetail>('/cases', { name: `Race ${round}` })).body.id;
      const change = { version: 0, data: { design: 'even', from: 'tooth' } };
      const firsts = await Promise.all(
        [1, 2, 3].map(() => dentist.patch<object>(`/cases/${fresh}/sections/reduce`, change)),
      );
      expect(firsts.map((b) => b.status).sort()).toEqual([200, 409, 409]);
    }
  });

  const front = (over: object) => ({
    views: [{ view: 'retracted-front', points: [], drawn: [], photoId: photo.id, ...over }],
  });
  const marks = (...landmarks: object[]) => front({ landmarks });
  const mark = (x: unknown, y: number, tooth = 11, kind = 'edge') => ({ tooth, kind, x, y });
  const scale = (mm: number, x = 500) => front({ calibration: { from: { x: 10, y: 10 }, to: { x, y: 10 }, mm } });
  it.each<[string, string, () => unknown, RegExp]>([
    ['a landmark outside the picture', 'read', () => marks(mark(601, 20)), /edge point of 11 lies outside the picture/],
    ['a landmark with a word for a number', 'read', () => marks(mark('NaN', 2)), /not a number/],
    ['two points at one place', 'read', () => marks(mark(5, 5), mark(5, 5, 11, 'mesial')), /lie at one place/],
    ['a landmark set twice', 'read', () => marks(mark(5, 5), mark(6, 5)), /set twice/],
    ['a landmark on a molar', 'read', () => marks(mark(5, 5, 16)), /15 to 25 and 35 to 45/],
    ['a scale of 0 mm', 'read', () => scale(0), /more than 0 mm/],
    ['a scale whose ends are one point', 'read', () => scale(20, 10), /lie at one place/],
    [
      'landmarks without a photograph',
      'read',
      () => front({ photoId: null, landmarks: [mark(1, 1)] }),
      /need a photograph/,
    ],
    [
      'outlines of teeth on a view from the side',
      'read',
      () => front({ view: 'retracted-left', landmarks: [mark(1, 1)] }),
      /marked on the retracted front view/,
    ],
    ['another case’s photograph', 'read', () => front({ photoId: kase.id }), /does not belong to this case/],
    [
      'a foreign field',
      'propose',
      () => ({ school: 'ratio', referenceTooth: 11, edgeMm: 0, colour: 'A1' }),
      /“colour” does not belong here/,
    ],
    [
      'an unknown school',
      'propose',
      () => ({ school: 'mine', referenceTooth: 11, edgeMm: 0 }),
      /school of proportion is not known/,
    ],
    [
      'a crown of 40 mm',
      'shape',
      () => ({ teeth: [{ tooth: 11, lengthMm: 40, widthMm: 8, facialVolumeMm: 0, rotationDeg: 0 }] }),
      /^Length: between 5 and 16 mm\.$/,
    ],
    ...BROKEN_CROWNS.map(([what, crown, sentence]): [string, string, () => unknown, RegExp] => [
      what,
      'shape',
      () => ({ teeth: [{ ...CROWN, ...crown }] }),
      sentence,
    ]),
    [
      'a tooth planned twice',
      'shape',
      () => ({ teeth: [1, 2].map(() => ({ tooth: 11, lengthMm: 10, widthMm: 8, facialVolumeMm: 0, rotationDeg: 0 })) }),
      /planned twice/,
    ],
    ['another case’s scan', 'shape', () => ({ scanId: kase.id, teeth: [] }), /does not belong to this case/],
  ])('refuses %s in one sentence and changes nothing', async (_, name, data, sentence) => {
    const before = await detail();
    const version = before.sections[name as 'read'].version;
    const refused = await section(name, version, data());
    expect(refused.status).toBe(422);
    expect(refused.body.detail).toMatch(sentence);
    expect(refused.body.detail.split(/(?<=[.!?])\s/)).toHaveLength(1);
    expect((await detail()).sections).toEqual(before.sections);
  });
});

describe('files that arrive', () => {
  it('gives back the very bytes', async () => {
    const bytes = await picture(300, 300).png().toBuffer();
    const made = (await upload(bytes, 'photo', 'fräulein.png')).body;
    expect(made).toMatchObject({ mime: 'image/png', width: 300, height: 300, name: 'fräulein.png' });
    expect(Buffer.from(await dentist.bytes(`/cases/${kase.id}/files/${made.id}`)).equals(bytes)).toBe(true);
  });

  it('a photograph that lies on its side by EXIF is measured upright', async () => {
    const made = (await upload(await picture(600, 400).withMetadata({ orientation: 6 }).jpeg().toBuffer())).body;
    expect([made.width, made.height]).toEqual([400, 600]);
  });

  it('a scan with numbered teeth is taken', async () => {
    const bytes = scan(makePatient(AVOCET), INTRAORAL_SCANNER);
    expect((await upload(bytes, 'scan', 'jaw.stl')).body).toMatchObject({
      jaw: 'upper',
      role: 'working',
      mime: 'model/stl',
    });
  });

  it('a scan that does not tell its teeth apart is kept as it came', async () => {
    const bytes = writeStlBinary(box(1, 1, 1));
    const made = (await upload(bytes, 'scan', 'any.stl')).body;
    expect(made).toMatchObject({ kind: 'scan', role: 'original', mime: 'model/stl' });
    expect(Buffer.from(await dentist.bytes(`/cases/${kase.id}/files/${made.id}`)).equals(Buffer.from(bytes))).toBe(
      true,
    );
  });

  /** A PNG header that announces a size, without the data. */
  const bomb = async () => {
    const png = await picture(200, 200).png().toBuffer();
    png.writeUInt32BE(40_000, 16);
    png.writeUInt32BE(40_000, 20);
    const { crc32 } = await import('node:zlib');
    png.writeUInt32BE((crc32 as (b: Buffer) => number)(png.subarray(12, 29)), 29);
    return png;
  };
  it.each<[string, string, () => Promise<Uint8Array | string> | Uint8Array | string, RegExp, number]>([
    ['text called a picture', 'photo', () => 'not a picture', /no picture in JPEG/, 422],
    [
      'an SVG',
      'photo',
      () => '<svg xmlns="http://www.w3.org/2000/svg" width="900" height="900"/>',
      /no picture in JPEG/,
      422,
    ],
    ['nothing', 'photo', () => '', /empty/, 422],
    ['a bomb of 40,000 × 40,000 pixels', 'photo', bomb, /40000 × 40000 pixels/, 422],
    [
      'a picture cut short',
      'photo',
      async () => (await picture(900, 900).png({ compressionLevel: 0 }).toBuffer()).subarray(0, 3000),
      /damaged/,
      422,
    ],
    ['a thumbnail', 'photo', () => picture(40, 40).png().toBuffer(), /at least 200/, 422],
    ['more than 50 MB', 'photo', () => new Uint8Array(51 * 1024 * 1024), /larger than 50 MB/, 413],
    [
      'an empty STL',
      'scan',
      () => writeStlBinary({ positions: new Float64Array(), triangles: new Uint32Array() }),
      /no triangles/,
      422,
    ],
    ['a broken STL', 'scan', () => writeStlBinary(box(1, 1, 1)).slice(0, 200), /cut short/, 422],
    ['a file of unknown kind', 'sound', () => 'x', /a photo, a scan or readings of colour/, 422],
  ])('refuses %s in a sentence and keeps nothing', async (_, kind, bytes, sentence, status) => {
    const before = (await detail()).files.length;
    const refused = await upload(await bytes(), kind);
    expect(refused.body.detail).toMatch(sentence);
    expect(refused.status).toBe(status);
    expect((await detail()).files).toHaveLength(before);
  });
});

describe('the history of a section', () => {
  const history = (query = '') =>
    dentist.get<SectionHistory & Problem>(`/cases/${kase.id}/sections/propose/history${query}`);

  it('goes back to its first state, twelve at a time, each with its content, its person and its moment', async () => {
    for (let n = 0; n < 15; n++) {
      const { version, data } = (await detail()).sections.propose;
      const { status } = await section('propose', version, { ...data, edgeMm: n / 10 });
      expect(status).toBe(200);
    }
    const first = (await history()).body;
    const now = (await detail()).sections.propose;
    expect(first.states).toHaveLength(12);
    expect(first.more).toBe(true);
    expect(first.states[0]).toEqual(now);
    const older = (await history(`?before=${first.states.at(-1)?.version}`)).body;
    expect(older.more).toBe(false);
    const all = [...first.states, ...older.states];
    expect(all.map((s) => s.version)).toEqual(Array.from({ length: now.version }, (_, i) => now.version - i));
    expect(all.slice(0, 15).map((s) => (s as SectionState<'propose'>).data.edgeMm)).toEqual(
      Array.from({ length: 15 }, (_, i) => (14 - i) / 10),
    );
  });

  it('is refused in a sentence before a state that is no number, and is none of a section that is none', async () => {
    const { status, body } = await history('?before=soon');
    expect([status, body.errors?.[0]?.message]).toEqual([422, 'Before which state is a whole number from 1.']);
    expect((await dentist.get(`/cases/${kase.id}/sections/wishes/history`)).status).toBe(404);
  });
});

describe('a case’s name', () => {
  it('is changed by whoever keeps records, and by nobody else; an empty one is told', async () => {
    const named = await dentist.patch<CaseDetail>(`/cases/${kase.id}`, { name: 'Another name' });
    expect([named.status, named.body.name]).toEqual([200, 'Another name']);
    expect((await detail()).name).toBe('Another name');
    const empty = await dentist.patch<Problem>(`/cases/${kase.id}`, { name: '' });
    expect([empty.status, empty.body.errors?.[0]?.message]).toEqual([422, 'The name has 1 to 80 characters.']);
    const technician = await signedIn('technician');
    expect((await technician.patch(`/cases/${kase.id}`, { name: 'Mine' })).status).toBe(403);
    expect((await detail()).name).toBe('Another name');
  });
});
