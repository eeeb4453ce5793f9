import { createHash } from 'node:crypto';
import type { CaseDetail, CaseDocument, ContourVersion, Delivered, Problem } from '@radiant/contract';
import { box, FORMS_EDITION, matrixInto, readPly, turn, WORLD, writePly, writeStlBinary } from '@radiant/core';
import { AVOCET, INTRAORAL_SCANNER, makePatient, scan, scatteredRecipe } from '@radiant/standins';
import { type Client, inDatabase, signedIn } from '../house.js';

// Files say what they are, of which jaw, in which state, and what they were made from; what is frozen keeps the hashes
// of what it was made from.

const FRAME = matrixInto(turn({ ...WORLD, origin: [12, -7, 3] }, 'z', 30), 1);
const CROWN = { tooth: 11, lengthMm: 10, widthMm: 8.4, facialVolumeMm: 0.3, rotationDeg: 0 };
const upper = scan(makePatient(AVOCET), INTRAORAL_SCANNER, 'ply');
const other = scan(makePatient(scatteredRecipe(5)), INTRAORAL_SCANNER);
const raw = writeStlBinary(box(3, 4, 5));

let dentist: Client;
let id: string;
let original: Delivered;
let copy: Delivered;

const put = (bytes: Uint8Array, name: string, said: Record<string, string> = {}, to = id) =>
  dentist.upload<Delivered & Problem>(
    `/cases/${to}/files?${new URLSearchParams({ kind: 'scan', ...said })}`,
    bytes,
    name,
  );
const detail = async (of = id) => (await dentist.get<CaseDetail>(`/cases/${of}`)).body;
const bringIn = (doc: object) =>
  dentist.upload<CaseDetail & Problem>('/cases/import', JSON.stringify(doc), 'case.json');
const hash = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
/** The planned crowns; the head of an STL, its first 80 bytes, says which version they are. */
const crowns = async (version = '') =>
  (await dentist.bytes(`/cases/${id}/contour.stl?what=planned${version && `&version=${version}`}`)).subarray(80);

beforeAll(async () => {
  dentist = await signedIn('dentist');
  id = (await dentist.post<CaseDetail>('/cases', { name: 'Artefacts' })).body.id;
  original = (await put(raw, 'surgery two, before.stl')).body;
  copy = (await put(upper, 'anything.ply', { parentId: original.id, frame: FRAME.join() })).body;
});

describe('a working copy', () => {
  it('knows its original, how it was taken into the mouth, and the state that the original shows', async () => {
    expect(original).toMatchObject({ kind: 'scan', role: 'original', jaw: null, state: 'before', parentId: null });
    expect(copy).toMatchObject({ kind: 'scan', role: 'working', jaw: 'upper', state: 'before', parentId: original.id });
    expect(copy.frame).toEqual(FRAME);
    expect(copy.sha256).toBe(hash(upper));
    expect(copy.origin).toBe('made by Dr Sample Curlew');
    // By the teeth of the copy it is known of which jaw the original is.
    expect((await detail()).files.find((f) => f.id === original.id)?.jaw).toBe('upper');
  });

  it('of a photograph, of another case or by a frame that bends is refused in a sentence, and nothing is kept', async () => {
    const elsewhere = (await dentist.post<CaseDetail>('/cases', { name: 'Elsewhere' })).body.id;
    const bent = FRAME.map((v, i) => (i === 0 ? v + 0.2 : v));
    for (const [said, to, words] of [
      [{ parentId: copy.id }, id, 'A working copy is made of a scan of this case as it came.'],
      [{ parentId: original.id }, elsewhere, 'A working copy is made of a scan of this case as it came.'],
    ] as const)
      expect((await put(other, 'no.stl', said, to)).body.detail).toBe(words);
    for (const frame of [bent.join(), '1,2,3', FRAME.join().replace('1', 'one')])
      expect((await put(other, 'no.stl', { parentId: original.id, frame })).body.errors?.[0]?.message).toBe(
        'The frame is 16 numbers that turn, move and measure.',
      );
    expect((await detail()).files).toHaveLength(2);
    expect((await detail(elsewhere)).files).toHaveLength(0);
  });

  it('its state can be said anew; its jaw is told by its teeth', async () => {
    const say = (file: string, change: object) =>
      dentist.patch<Delivered & Problem>(`/cases/${id}/files/${file}`, change);
    expect((await say(copy.id, { state: 'prepared' })).body.state).toBe('prepared');
    expect((await say(copy.id, { state: 'before' })).body.state).toBe('before');
    expect((await say(copy.id, { jaw: 'lower' })).status).toBe(422);
    expect((await say(original.id, { jaw: 'lower' })).body.jaw).toBe('lower');
    expect((await say(original.id, { jaw: 'upper' })).body.jaw).toBe('upper');
    expect((await say(original.id, { jaw: 'both' })).body.errors?.[0]?.message).toBe(
      'A scan is of the upper or of the lower jaw.',
    );
  });
});

describe('a contour that was kept', () => {
  let kept: ContourVersion;
  let made: string;

  beforeAll(async () => {
    const { version } = (await detail()).sections.shape;
    await dentist.patch(`/cases/${id}/sections/shape`, { version, data: { teeth: [CROWN] } });
    kept = (await dentist.post<ContourVersion>(`/cases/${id}/contours`, { name: 'one', why: '' })).body;
    made = hash(await crowns(kept.id));
  });

  it('has the hashes of the scans that it was made from, also where the plan named none', () => {
    expect(kept.madeFrom).toEqual({
      files: [{ fileId: copy.id, jaw: 'upper', sha256: hash(upper) }],
      forms: FORMS_EDITION,
    });
  });

  it('is worked out on these, whichever scan counts later', async () => {
    expect(made).toBe(hash(await crowns()));
    await put(other, 'newer.stl');
    expect(hash(await crowns(kept.id))).toBe(made);
    expect(hash(await crowns())).not.toBe(made);
  });

  it('is not worked out on bytes that are others', async () => {
    const now = (sha256: string) =>
      inDatabase((run) => run('UPDATE files SET sha256 = ? WHERE id = ?', [sha256, copy.id]));
    await now(hash(other));
    const refused = await dentist.get<Problem>(`/cases/${id}/contour.stl?what=planned&version=${kept.id}`);
    await now(hash(upper));
    expect(refused).toMatchObject({
      status: 409,
      body: {
        detail: 'The scan that “one” was made from is not in this case any more, so it can’t be worked out.',
      },
    });
    expect(hash(await crowns(kept.id))).toBe(made);
  });
});

describe('the case file', () => {
  let doc: CaseDocument;
  const told = (d: CaseDetail) => {
    const name = (fileId: string | null) => d.files.find((f) => f.id === fileId)?.name;
    return {
      files: d.files.map(({ name: n, kind, jaw, role, state, parentId, frame, sha256 }) => [
        n,
        kind,
        jaw,
        role,
        state,
        name(parentId),
        frame,
        sha256,
      ]),
      contours: d.contours.map((c) => c.madeFrom.files.map(({ fileId, ...f }) => ({ ...f, file: name(fileId) }))),
    };
  };

  beforeAll(async () => {
    doc = (await dentist.get<CaseDocument>(`/cases/${id}/case.json`)).body;
  });

  it('carries all of it, under new numbers', async () => {
    const back = (await bringIn(doc)).body;
    expect(told(back)).toEqual(told(await detail()));
    expect(back.files[1]?.id).not.toBe(copy.id);
    expect(back.files[1]?.parentId).toBe(back.files[0]?.id);
  });

  it('of version 3, where kinds, names and the file’s head told it, is read into the same', async () => {
    const mesh = readPly(upper);
    const words = `0 0 0 1 0 0 0 1 0 0 0 1`;
    const bytes = writePly(mesh.mesh, mesh.attributes, `upper jaw, mm; mouth in the scan: ${words}`);
    const KIND = { original: 'own-scan', working: 'scan' } as const;
    const old = {
      ...doc,
      version: 3,
      files: doc.files.slice(0, 2).map(({ jaw: _j, role, parentId, frame: _f, ...f }) => ({
        ...f,
        kind: KIND[role ?? 'original'],
        state: null,
        ...(parentId && {
          name: 'surgery two, before, teeth picked out.ply',
          base64: Buffer.from(bytes).toString('base64'),
          sha256: hash(bytes),
        }),
      })),
      contours: doc.contours?.map(({ madeFrom, ...c }) => ({ ...c, scanId: madeFrom?.files[0]?.fileId })),
    };
    const answer = await bringIn(old);
    expect(answer.status).toBe(201);
    const [first, second] = answer.body.files;
    expect(first).toMatchObject({ kind: 'scan', role: 'original', parentId: null });
    expect(second).toMatchObject({ kind: 'scan', role: 'working', jaw: 'upper', parentId: first?.id });
    expect(second?.frame).toEqual([...matrixInto(WORLD)]);
    expect(answer.body.contours[0]?.madeFrom.files).toEqual([
      { fileId: second?.id, jaw: 'upper', sha256: hash(bytes) },
    ]);
  });

  it('whose contour was made from another scan than it holds is refused, and nothing comes in', async () => {
    const files = doc.contours?.[0]?.madeFrom?.files.map((f) => ({ ...f, sha256: hash(other) }));
    const refused = await bringIn({ ...doc, contours: [{ ...doc.contours?.[0], madeFrom: { files } }] });
    expect(refused).toMatchObject({
      status: 422,
      body: { detail: 'The contour “one” stands on another scan of the upper jaw than the case file holds.' },
    });
  });
});

it('sections that are written while files come in never make the database break a deadlock', async () => {
  const deadlocks = () =>
    inDatabase(async (run) => {
      const [row] = (await run("SHOW GLOBAL STATUS LIKE 'Innodb_deadlocks'")) as { Value: string }[];
      return Number(row?.Value);
    });
  const before = await deadlocks();
  const { version } = (await detail()).sections.meet;
  const writes = (async () => {
    for (let i = 0; i < 40; i++)
      expect(
        (await dentist.patch(`/cases/${id}/sections/meet`, { version: version + i, data: { wish: `wish ${i}` } }))
          .status,
      ).toBe(200);
  })();
  const arrivals = [0, 1, 2].map(async (lane) => {
    for (let i = 0; i < 12; i++)
      expect((await put(writeStlBinary(box(1 + lane, 1 + i / 10, 2)), `${lane} ${i}.stl`)).status).toBe(201);
  });
  await Promise.all([writes, ...arrivals]);
  expect(await deadlocks()).toBe(before);
});
