import {
  closeSync,
  existsSync,
  mkdirSync,
  openSync,
  readdirSync,
  renameSync,
  rmSync,
  symlinkSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { join } from 'node:path';
import type { Arrived, CaseDetail } from '@radiant/contract';
import { INTRAORAL_SCANNER, makePatient, scan, scatteredRecipe } from '@radiant/standins';
import sharp from 'sharp';
import { Client, DATA, signedIn, until } from '../house.js';

const INBOX = join(DATA, 'inbox');
let client: Client;
let kase: CaseDetail;

const jpeg = (shade: number) =>
  sharp({ create: { width: 320, height: 240, channels: 3, background: { r: shade, g: 90, b: 80 } } })
    .jpeg()
    .toBuffer();
/** As a device does: written under a hidden name, then renamed. */
function lay(path: string, bytes: Uint8Array | string): void {
  const whole = join(INBOX, path);
  mkdirSync(join(whole, '..'), { recursive: true });
  const draft = join(whole, '..', `.draft-${Math.random()}`);
  writeFileSync(draft, bytes);
  renameSync(draft, whole);
}
const arrivals = async () => (await client.get<Arrived[]>('/arrivals')).body;
async function arrived(name: string): Promise<Arrived> {
  let found: Arrived | undefined;
  await until(`${name} arrives`, async () => {
    found = (await arrivals()).find((a) => a.name === name);
    return !!found;
  });
  return found as Arrived;
}

beforeAll(async () => {
  client = await signedIn('dentist');
  kase = (await client.post<CaseDetail>('/cases', { name: 'Greenshank' })).body;
});

it('a photograph whose name begins with the case goes to it, with its view, state, device and day; the folder is empty again', async () => {
  lay('test camera/Greenshank - close smile, mock-up.jpg', await jpeg(200));
  const a = await arrived('Greenshank - close smile, mock-up.jpg');
  expect(a).toMatchObject({
    state: 'taken',
    kind: 'photo',
    origin: 'test camera',
    caseId: kase.id,
    caseName: 'Greenshank',
  });
  const { files } = (await client.get<CaseDetail>(`/cases/${kase.id}`)).body;
  expect(files).toEqual([
    expect.objectContaining({
      view: 'close-smile',
      state: 'mock-up',
      origin: 'test camera',
      takenOn: new Date().toISOString().slice(0, 10),
    }),
  ]);
  expect(existsSync(join(INBOX, 'test camera', a.name))).toBe(false);
});

it('the same photograph under another name is recognised', async () => {
  lay('test camera/Greenshank - again.jpg', await jpeg(200));
  expect(await arrived('Greenshank - again.jpg')).toMatchObject({
    state: 'held',
    sentence: 'The case held the same file already.',
  });
  expect((await client.get<CaseDetail>(`/cases/${kase.id}`)).body.files).toHaveLength(1);
});

it('scans come as STL and as PLY', async () => {
  const patient = makePatient(scatteredRecipe(31));
  lay('test scanner/Greenshank/upper.stl', scan(patient, INTRAORAL_SCANNER));
  lay('test scanner/Greenshank/upper.ply', scan(patient, INTRAORAL_SCANNER, 'ply'));
  expect(await arrived('upper.stl')).toMatchObject({ state: 'taken', kind: 'scan' });
  expect(await arrived('upper.ply')).toMatchObject({ state: 'taken', kind: 'scan' });
  const scans = (await client.get<CaseDetail>(`/cases/${kase.id}`)).body.files.filter((f) => f.kind === 'scan');
  expect(scans.map((f) => f.mime).sort()).toEqual(['model/ply', 'model/stl']);
});

it('what names no case waits in the tray, with a picture, until somebody gives it a case', async () => {
  lay('IMG_0001.jpg', await jpeg(120));
  const a = await arrived('IMG_0001.jpg');
  expect(a).toMatchObject({
    state: 'tray',
    sentence: 'Its name begins with no case’s name.',
    origin: 'watched folder',
    caseId: null,
  });
  const small = await client.bytes(`/arrivals/${a.id}/picture`);
  expect((await sharp(small).metadata()).format).toBe('jpeg');

  const technician = await signedIn('technician');
  expect((await technician.post(`/arrivals/${a.id}/place`, { caseId: kase.id })).status).toBe(403);
  expect((await client.post(`/arrivals/${a.id}/place`, { caseId: a.id })).status).toBe(422);
  expect((await client.post<{ detail: string }>(`/arrivals/${a.id}/place`, {})).body.detail).toMatch(/Choose a case/);
  const placed = await client.post<Arrived>(`/arrivals/${a.id}/place`, {
    caseId: kase.id,
    view: 'portrait-rest',
    state: 'before',
  });
  expect(placed).toMatchObject({ status: 200, body: { state: 'taken', caseName: 'Greenshank' } });
  const { files } = (await client.get<CaseDetail>(`/cases/${kase.id}`)).body;
  expect(files).toContainEqual(
    expect.objectContaining({ name: 'IMG_0001.jpg', view: 'portrait-rest', state: 'before' }),
  );
  expect((await client.post(`/arrivals/${a.id}/place`, { caseId: kase.id })).status).toBe(404);
});

it('what is no picture and no scan waits too, can only be thrown away, and is gone then', async () => {
  lay('letter.txt', 'hello');
  const a = await arrived('letter.txt');
  expect(a).toMatchObject({
    state: 'tray',
    kind: null,
    sentence: 'This is no picture in JPEG, PNG, WebP, TIFF or HEIC and no STL, PLY, OBJ or CSV file.',
  });
  expect((await client.post<{ detail: string }>(`/arrivals/${a.id}/place`, { caseId: kase.id })).body.detail).toMatch(
    /no STL, PLY, OBJ or CSV file/,
  );
  expect((await client.call('DELETE', `/arrivals/${a.id}`)).status).toBe(204);
  expect((await arrivals()).some((q) => q.id === a.id)).toBe(false);
});

it('a broken picture for a case is refused with its reason, kept in the tray, and the case is unchanged', async () => {
  const whole = await jpeg(60);
  lay('Greenshank - broken.jpg', whole.subarray(0, whole.length / 2));
  lay('Greenshank - broken.ply', 'ply\nformat ascii 1.0\nelement vertex 3\n');
  expect(await arrived('Greenshank - broken.jpg')).toMatchObject({
    state: 'refused',
    sentence: 'The picture is damaged and can’t be read to its end.',
  });
  expect(await arrived('Greenshank - broken.ply')).toMatchObject({
    state: 'refused',
    sentence: 'The PLY file’s header has no end.',
  });
  const { files } = (await client.get<CaseDetail>(`/cases/${kase.id}`)).body;
  expect(files.filter((f) => f.name.includes('broken'))).toEqual([]);
});

it('a file that is too large is refused and not lost: it lies aside in the folder', async () => {
  lay('Greenshank - huge.jpg', new Uint8Array(51 * 1024 * 1024));
  expect(await arrived('Greenshank - huge.jpg')).toMatchObject({
    state: 'refused',
    sentence: 'The file is larger than 50 MB; it lies in the folder .refused of the inbox.',
  });
  await until('it lies aside', async () => existsSync(join(INBOX, '.refused', 'Greenshank - huge.jpg')));
  expect(existsSync(join(INBOX, 'Greenshank - huge.jpg'))).toBe(false);
});

it('a slow device that writes in pieces is waited for: the file arrives once, and whole', async () => {
  const whole = Buffer.from(await jpeg(33));
  const path = join(INBOX, 'Greenshank - slow.jpg');
  const device = openSync(path, 'w');
  const pieces = 7;
  for (let i = 0; i < pieces; i++) {
    writeSync(
      device,
      whole.subarray(Math.floor((i * whole.length) / pieces), Math.floor(((i + 1) * whole.length) / pieces)),
    );
    await new Promise((r) => setTimeout(r, 400));
  }
  expect((await arrivals()).some((a) => a.name === 'Greenshank - slow.jpg')).toBe(false);
  closeSync(device);
  expect(await arrived('Greenshank - slow.jpg')).toMatchObject({ state: 'taken', bytes: whole.length });
  expect((await arrivals()).filter((a) => a.name === 'Greenshank - slow.jpg')).toHaveLength(1);
  await until('the folder is empty again', async () => !existsSync(path));
});

it('a name as long as a disk allows is taken like any other', async () => {
  const name = `Greenshank - ${'long '.repeat(60)}`.slice(0, 251).concat('.jpg');
  expect(Buffer.byteLength(name)).toBe(255);
  lay(name, await jpeg(44));
  expect(await arrived(name)).toMatchObject({ state: 'taken', kind: 'photo' });
});

it('a name that is no UTF-8 is told, and its file stays where it is', async () => {
  const odd = Buffer.concat([Buffer.from(`${INBOX}/Greenshank - Br`), Buffer.from([0xfc]), Buffer.from('cke.jpg')]);
  writeFileSync(odd, await jpeg(55));
  const told = await arrived('Greenshank - Br\ufffdcke.jpg');
  expect(told).toMatchObject({
    state: 'refused',
    sentence: 'Its name is not written in UTF-8; it stays in the folder. Let the device give it another name.',
  });
  expect(existsSync(odd)).toBe(true);
  rmSync(odd);
});

it('a link into somebody else’s folder is not followed', async () => {
  const path = join(INBOX, 'Greenshank - link.jpg');
  const elsewhere = join(DATA, 'elsewhere.jpg');
  writeFileSync(elsewhere, await jpeg(66));
  symlinkSync(elsewhere, path);
  await new Promise((r) => setTimeout(r, 2500));
  expect((await arrivals()).some((a) => a.name === 'Greenshank - link.jpg')).toBe(false);
  rmSync(path);
  rmSync(elsewhere);
});

it('two files that are too large and called the same lie aside both', async () => {
  const large = new Uint8Array(51 * 1024 * 1024);
  lay('again/Greenshank - huge.jpg', large);
  await until(
    'both lie aside',
    async () => readdirSync(join(INBOX, '.refused')).filter((n) => n.startsWith('Greenshank - huge')).length === 2,
  );
});

it('who is not signed in sees nothing of it', async () => {
  expect((await new Client().get('/arrivals')).status).toBe(401);
});

it('a preview fills a screen and is never larger than the original', async () => {
  const big = await sharp({ create: { width: 4200, height: 2800, channels: 3, background: '#987' } })
    .jpeg()
    .toBuffer();
  lay('Greenshank - upper occlusal.jpg', big);
  await arrived('Greenshank - upper occlusal.jpg');
  const file = (await client.get<CaseDetail>(`/cases/${kase.id}`)).body.files.find((f) => f.view === 'upper-occlusal');
  const meta = await sharp(await client.bytes(`/cases/${kase.id}/files/${file?.id}/preview`)).metadata();
  expect([meta.width, meta.height]).toEqual([2000, 1333]);
});

it('readings of a shade meter go to their case as a file of their own; a table that can’t be read is refused by its line', async () => {
  const head = 'tooth,of,zone,wet,at,L,a,b';
  lay('Greenshank - shades.csv', `${head}\r\n11,tooth,body,wet,2026-11-20T09:10:00Z,75.5,0.2,17.5\r\n`);
  lay('Greenshank - wrong shades.csv', `${head}\r\n11,tooth,body,wet,2026-11-20T09:10:00Z,light,0.2,17.5\r\n`);
  expect(await arrived('Greenshank - shades.csv')).toMatchObject({ state: 'taken', kind: 'colours' });
  expect(await arrived('Greenshank - wrong shades.csv')).toMatchObject({
    state: 'refused',
    sentence: 'Line 2: “light” in the column “L” is no number.',
  });
  const { files } = (await client.get<CaseDetail>(`/cases/${kase.id}`)).body;
  expect(files).toContainEqual(
    expect.objectContaining({ name: 'Greenshank - shades.csv', kind: 'colours', mime: 'text/csv', role: null }),
  );
});
