import { readFile } from 'node:fs/promises';
import type { CaseDetail, CaseDocument, CaseFile, Delivered, Problem } from '@radiant/contract';
import sharp from 'sharp';
import { type Client, inDatabase, signedIn, until } from '../house.js';

const FRONT = { view: 'retracted-front', points: [], drawn: [] };
let dentist: Client;
let id: string;
const picture = (colour: string, width = 600, height = 400) =>
  sharp({ create: { width, height, channels: 3, background: colour } }).jpeg();
const send = async (colour: string, name: string, query = '') =>
  dentist.upload<Delivered & Problem>(`/cases/${id}/files?kind=photo${query}`, await picture(colour).toBuffer(), name);
const detail = async () => (await dentist.get<CaseDetail>(`/cases/${id}`)).body;

beforeAll(async () => {
  dentist = await signedIn('dentist');
  id = (await dentist.post<CaseDetail>('/cases', { name: 'Records under test' })).body.id;
});

describe('a photograph that arrives', () => {
  it('takes view and state from what is said, else from its name, and who sent it', async () => {
    expect((await send('#a11', 'retracted front, before.jpg')).body).toMatchObject({
      view: 'retracted-front',
      state: 'before',
      takenBy: 'Dr Sample Curlew',
      already: false,
    });
    expect((await send('#a22', 'DSC_1.jpg', '&view=close-smile&state=final')).body).toMatchObject({
      view: 'close-smile',
      state: 'final',
    });
    expect((await send('#a33', 'DSC_2.jpg')).body).toMatchObject({ view: null, state: null });
  });

  it('the same bytes a second time are recognised and kept once', async () => {
    const again = await send('#a11', 'a copy.jpg');
    expect(again.body).toMatchObject({ already: true, name: 'retracted front, before.jpg' });
    expect((await detail()).files).toHaveLength(3);
  });

  it('with a view that is not known is refused, and nothing is kept', async () => {
    const refused = await send('#a44', 'x.jpg', '&view=selfie');
    expect(refused.status).toBe(422);
    expect(refused.body.detail).toBe('This view is not known.');
    expect((await detail()).files).toHaveLength(3);
  });

  it('one by one of many: a bad one stops none of the others', async () => {
    const answers = await Promise.all([
      send('#b11', 'one.jpg'),
      dentist.upload<Problem>(`/cases/${id}/files?kind=photo`, 'no picture', 'two.jpg'),
      send('#b33', 'three.jpg'),
    ]);
    expect(answers.map((a) => a.status)).toEqual([201, 422, 201]);
    expect(answers[1]).toMatchObject({ body: { detail: expect.stringMatching(/^This is no picture in JPEG/) } });
  });
});

describe('its thumbnail', () => {
  it('is small, upright and a JPEG; the original stays as it came', async () => {
    const lying = await picture('#c11', 900, 600).withMetadata({ orientation: 6 }).toBuffer();
    const file = (await dentist.upload<Delivered>(`/cases/${id}/files?kind=photo`, lying, 'lying.jpg')).body;
    const small = await sharp(await dentist.bytes(`/cases/${id}/files/${file.id}/thumbnail`)).metadata();
    expect(small).toMatchObject({ format: 'jpeg', width: 320, height: 480 });
    expect(Buffer.from(await dentist.bytes(`/cases/${id}/files/${file.id}/original`)).equals(lying)).toBe(true);
  });

  it('of a file that is not there is refused as all else', async () => {
    expect(
      (await dentist.get<Problem>(`/cases/${id}/files/00000000-0000-4000-8000-000000000000/thumbnail`)).status,
    ).toBe(404);
  });
});

describe('who and where', () => {
  /** EXIF as a camera writes it: a place, an owner and a serial number (CIPA DC-008). */
  const marked = () =>
    sharp({ create: { width: 500, height: 300, channels: 3, background: '#c22' } })
      .jpeg()
      .withExif({
        IFD0: { Artist: 'Sample Owner', Copyright: 'Sample Owner' },
        IFD2: { BodySerialNumber: '4711' },
        IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '53/1 30/1 0/1' },
      })
      .withMetadata({ orientation: 8 })
      .toBuffer();

  it('are in the bytes that came, and in nothing that is shown or handed on', async () => {
    const bytes = await marked();
    expect(bytes.includes('Sample Owner')).toBe(true);
    const file = (await dentist.upload<Delivered>(`/cases/${id}/files?kind=photo`, bytes, 'marked.jpg')).body;
    const shown = Buffer.from(await dentist.bytes(`/cases/${id}/files/${file.id}`));
    expect(shown.includes('Sample Owner')).toBe(false);
    expect((await sharp(shown).metadata()).orientation).toBe(8);
    expect(Buffer.from(await dentist.bytes(`/cases/${id}/files/${file.id}/original`)).equals(bytes)).toBe(true);
    const doc = (await dentist.get<CaseDocument>(`/cases/${id}/case.json`)).body;
    for (const f of doc.files) expect(Buffer.from(f.base64, 'base64').includes('Sample Owner')).toBe(false);
    expect((await (await signedIn('technician')).get(`/cases/${id}/files/${file.id}/original`)).status).toBe(403);
  });
});

describe('a picture that not every browser shows', () => {
  it('comes as HEIC, is kept byte for byte, and is shown and handed on as JPEG with its colour profile', async () => {
    const heic = await readFile(new URL('../data/quarters.heic', import.meta.url));
    const { body } = await dentist.upload<Delivered>(`/cases/${id}/files?kind=photo`, heic, 'IMG_0001.HEIC');
    expect(body).toMatchObject({ mime: 'image/heic', width: 320, height: 240 });
    const at = `/cases/${id}/files/${body.id}`;
    const shown = await sharp(await dentist.bytes(at)).metadata();
    expect(shown).toMatchObject({ format: 'jpeg', width: 320, height: 240 });
    expect(shown.icc?.length).toBeGreaterThan(128);
    expect((await sharp(await dentist.bytes(`${at}/thumbnail`)).metadata()).format).toBe('jpeg');
    expect(Buffer.from(await dentist.bytes(`${at}/original`)).equals(heic)).toBe(true);

    await dentist.patch(at, { quarterTurns: 3 });
    expect((await detail()).files.find((f) => f.id === body.id)).toMatchObject({ width: 240, height: 320 });
    expect(await sharp(await dentist.bytes(`${at}/thumbnail`)).metadata()).toMatchObject({ width: 240, height: 320 });
    const doc = (await dentist.get<CaseDocument>(`/cases/${id}/case.json`)).body;
    const handed = doc.files.find((f) => f.name === 'IMG_0001.HEIC');
    expect(await sharp(Buffer.from(handed?.base64 ?? '', 'base64')).metadata()).toMatchObject({
      format: 'jpeg',
      width: 240,
      height: 320,
    });
  });

  it('is not turned by fifths, nor is a scan', async () => {
    const { files } = await detail();
    const at = `/cases/${id}/files/${files[0]?.id}`;
    expect((await dentist.patch<Problem>(at, { quarterTurns: 5 })).body.detail).toBe(
      'A photograph is turned by 0 to 3 quarters.',
    );
  });
});

describe('what is said of a photograph', () => {
  it('can be changed, part by part', async () => {
    const file = (await detail()).files[2] as CaseFile;
    await dentist.patch(`/cases/${id}/files/${file.id}`, { view: 'upper-occlusal' });
    const { body } = await dentist.patch<CaseFile>(`/cases/${id}/files/${file.id}`, {
      state: 'mock-up',
      takenOn: '2026-11-20',
      takenBy: 'Sample Knot',
    });
    expect(body).toMatchObject({
      view: 'upper-occlusal',
      state: 'mock-up',
      takenOn: '2026-11-20',
      takenBy: 'Sample Knot',
    });
  });

  it('but not by a technician', async () => {
    const technician = await signedIn('technician');
    const file = (await detail()).files[0] as CaseFile;
    expect((await technician.patch<Problem>(`/cases/${id}/files/${file.id}`, { view: null })).status).toBe(403);
    expect((await technician.call<Problem>('DELETE', `/cases/${id}/files/${file.id}`)).status).toBe(403);
  });
});

describe('a photograph that is put away', () => {
  const names = (files: readonly CaseFile[]) => files.map((f) => f.name);

  it('leaves the wall and can be brought back', async () => {
    const file = (await detail()).files.find((f) => f.name === 'one.jpg') as CaseFile;
    await dentist.call('DELETE', `/cases/${id}/files/${file.id}`);
    const away = await detail();
    expect(names(away.files)).not.toContain('one.jpg');
    expect(names(away.removed)).toEqual(['one.jpg']);
    await dentist.post(`/cases/${id}/files/${file.id}/bring-back`, {});
    expect(names((await detail()).files)).toContain('one.jpg');
    expect((await detail()).removed).toEqual([]);
  });

  it('comes back too when the same bytes are sent again', async () => {
    const file = (await detail()).files.find((f) => f.name === 'three.jpg') as CaseFile;
    await dentist.call('DELETE', `/cases/${id}/files/${file.id}`);
    expect((await send('#b33', 'three.jpg')).body).toMatchObject({ id: file.id, already: true, removedAt: null });
  });

  it('is refused while measures stand on it', async () => {
    const file = (await detail()).files[0] as CaseFile;
    await dentist.patch(`/cases/${id}/sections/read`, {
      version: 0,
      data: { views: [{ ...FRONT, photoId: file.id, landmarks: [{ tooth: 11, kind: 'edge', x: 5, y: 5 }] }] },
    });
    const refused = await dentist.call<Problem>('DELETE', `/cases/${id}/files/${file.id}`);
    expect(refused.status).toBe(409);
    expect(refused.body.detail).toBe('Measures stand on this photograph; choose another in read first.');
    expect(names((await detail()).files)).toContain(file.name);
  });

  it('is out of reach after thirty days', async () => {
    const file = (await detail()).files.find((f) => f.name === 'one.jpg') as CaseFile;
    await dentist.call('DELETE', `/cases/${id}/files/${file.id}`);
    await inDatabase((run) => run('UPDATE files SET removed_at = NOW() - INTERVAL 31 DAY WHERE id = ?', [file.id]));
    await until('the file is out of the list', async () => (await detail()).removed.length === 0);
  });
});

describe('the case file', () => {
  it('carries view, state, date and name of each photograph there and back', async () => {
    const doc = (await dentist.get<CaseDocument>(`/cases/${id}/case.json`)).body;
    const made = (await dentist.upload<CaseDetail>('/cases/import', JSON.stringify(doc), 'case.json')).body;
    const said = (files: readonly CaseFile[]) =>
      files
        .map(({ name, view, state, takenOn, takenBy }) => ({ name, view, state, takenOn, takenBy }))
        .sort((a, b) => (a.name < b.name ? -1 : 1));
    expect(said(made.files)).toEqual(said((await detail()).files));
  });

  it('of version 1, which knew no views, is still read; its names say what they can', async () => {
    const doc = (await dentist.get<CaseDocument>(`/cases/${id}/case.json`)).body;
    const old = {
      ...doc,
      version: 1,
      sections: { ...doc.sections, meet: { wish: 'longer' } },
      files: doc.files.map(({ view: _v, state: _s, takenOn: _o, takenBy: _b, ...f }) => f),
    };
    const made = (await dentist.upload<CaseDetail>('/cases/import', JSON.stringify(old), 'case.json')).body;
    expect(made.sections.meet.data).toMatchObject({ wish: 'longer', wishTags: [], cautions: [], teeth: [] });
    expect(made.files.find((f) => f.name === 'retracted front, before.jpg')).toMatchObject({
      view: 'retracted-front',
      state: 'before',
    });
  });
});
