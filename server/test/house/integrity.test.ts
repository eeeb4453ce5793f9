import type { CaseDetail, CaseFile, ContourVersion, Delivered, Problem } from '@radiant/contract';
import { INTRAORAL_SCANNER, makePatient, scan, scatteredRecipe } from '@radiant/standins';
import sharp from 'sharp';
import { type Client, inDatabase, signedIn } from '../house.js';

let dentist: Client;
let id: string;
const jpeg = (seed: number) =>
  sharp(Buffer.from(Array.from({ length: 300 * 220 * 3 }, (_, i) => (i * 7919 + seed * 104729 + (i >> 5)) % 251)), {
    raw: { width: 300, height: 220, channels: 3 },
  })
    .jpeg()
    .toBuffer();
const send = (bytes: Buffer, name: string) =>
  dentist.upload<Delivered & Problem>(`/cases/${id}/files?kind=photo`, bytes, name);
const away = (file: CaseFile) => dentist.call<Problem>('DELETE', `/cases/${id}/files/${file.id}`);
const NUMBERS = { lengthMm: 10, widthMm: 8, facialVolumeMm: 0, rotationDeg: 0 };

beforeAll(async () => {
  dentist = await signedIn('dentist');
  id = (await dentist.post<CaseDetail>('/cases', { name: 'Under load' })).body.id;
});

describe('what something stands on stays', () => {
  it('a photograph that is laid over another', async () => {
    const file = (await send(await jpeg(1), 'laid.jpg')).body;
    const first = { x: 10, y: 10 };
    await dentist.patch(`/cases/${id}/sections/read`, {
      version: 0,
      data: { aligned: [{ photoId: file.id, first, second: { x: 50, y: 10 } }] },
    });
    const refused = await away(file);
    expect(refused).toMatchObject({
      status: 409,
      body: { detail: 'This photograph is laid over another; take it off there first.' },
    });
    await dentist.patch(`/cases/${id}/sections/read`, { version: 1, data: { aligned: [] } });
    expect((await away(file)).status).toBe(200);
  });

  it('the scans under a contour that was kept or approved, after the plan has gone on to another scan; the case comes out and in again', async () => {
    const scans: Delivered[] = [];
    for (const seed of [3, 4]) {
      const bytes = scan(makePatient(scatteredRecipe(seed)), INTRAORAL_SCANNER);
      scans.push((await dentist.upload<Delivered>(`/cases/${id}/files?kind=scan`, bytes, `upper ${seed}.stl`)).body);
    }
    const lower = (
      await dentist.upload<Delivered>(
        `/cases/${id}/files?kind=scan`,
        scan(makePatient(scatteredRecipe(3)), INTRAORAL_SCANNER, 'stl', 'lower'),
        'lower.stl',
      )
    ).body;
    const [under, next] = scans as [Delivered, Delivered];
    const teeth = [
      { tooth: 11, ...NUMBERS },
      { tooth: 41, ...NUMBERS, widthMm: 5 },
    ];
    await dentist.patch(`/cases/${id}/sections/shape`, { version: 0, data: { scanId: under.id, teeth } });
    const kept = (await dentist.post<ContourVersion>(`/cases/${id}/contours`, { name: 'wax-up one', why: '' })).body;
    await dentist.patch(`/cases/${id}/sections/shape`, { version: 1, data: { scanId: next.id, teeth } });
    expect((await away(under)).body.detail).toBe(
      '“wax-up one”, which was kept, stands on this scan; it stays with it.',
    );
    await dentist.post(`/cases/${id}/contours/${kept.id}/approve`, { word: 'yes' });
    for (const f of [under, lower])
      expect((await away(f)).body.detail).toBe(
        '“wax-up one”, which was approved, stands on this scan; it stays with it.',
      );
    // Put away by an older program, long ago: it stays all the same, is exported, and comes in again under its contour.
    await inDatabase((run) => run('UPDATE files SET removed_at = NOW() - INTERVAL 40 DAY WHERE id = ?', [under.id]));
    const made = (
      await dentist.upload<CaseDetail>('/cases/import', await dentist.bytes(`/cases/${id}/case.json`), 'case.json')
    ).body;
    const below = made.files.find((f) => f.id === made.contours[0]?.madeFrom.files[0]?.fileId);
    expect(below).toMatchObject({ name: 'upper 3.stl', bytes: under.bytes });
    await inDatabase((run) => run('UPDATE files SET removed_at = NULL WHERE id = ?', [under.id]));
  });
});

describe('the same bytes at the same moment', () => {
  it('sent six times make one file', async () => {
    const bytes = await jpeg(7);
    const answers = await Promise.all(Array.from({ length: 6 }, (_, i) => send(bytes, `copy ${i}.jpg`)));
    expect(new Set(answers.map((a) => a.body.id)).size).toBe(1);
    expect(answers.filter((a) => !a.body.already)).toHaveLength(1);
  });

  it('asked for ten times as a small picture are the same ten times', async () => {
    const file = (await send(await jpeg(8), 'wanted.jpg')).body;
    const small = await Promise.all(
      Array.from({ length: 10 }, () => dentist.bytes(`/cases/${id}/files/${file.id}/thumbnail`)),
    );
    expect(new Set(small.map((b) => Buffer.from(b).toString('base64'))).size).toBe(1);
    expect((await sharp(small[0]).metadata()).format).toBe('jpeg');
  });

  it('let go in one case and delivered in another never vanish, in sixty trials', async () => {
    const other = (await dentist.post<CaseDetail>('/cases', { name: 'Other side' })).body.id;
    const arrivals = async (bytes: Buffer) => {
      // An arrival that waits, as the watched folder records it, holding the same bytes.
      const first = await dentist.upload<Delivered>(`/cases/${other}/files?kind=photo`, bytes, 'first.jpg');
      const sha256 = await inDatabase(
        async (run) =>
          ((await run('SELECT sha256 FROM files WHERE id = ?', [first.body.id])) as { sha256: string }[])[0]?.sha256,
      );
      const arrival = crypto.randomUUID();
      await inDatabase(async (run) => {
        const [practice] = (await run('SELECT practice_id AS p FROM cases WHERE id = ?', [other])) as { p: string }[];
        await run(
          `INSERT INTO arrivals (id, practice_id, name, kind, bytes, sha256, state, sentence, origin, at) VALUES (?, ?, 'x.jpg', 'photo', 1, ?, 'tray', '', 'test', NOW())`,
          [arrival, practice?.p, sha256],
        );
        await run('DELETE FROM files WHERE id = ?', [first.body.id]);
      });
      return arrival;
    };
    const lost: number[] = [];
    for (let i = 0; i < 60; i++) {
      const bytes = await sharp({
        create: { width: 210, height: 210, channels: 3, background: { r: i, g: 77, b: 200 - i } },
      })
        .jpeg()
        .toBuffer();
      const arrival = await arrivals(bytes);
      const [, sent] = await Promise.all([
        dentist.call('DELETE', `/arrivals/${arrival}`),
        send(bytes, `race ${i}.jpg`),
      ]);
      const answer = await dentist.raw('GET', `/cases/${id}/files/${sent.body.id}/original`);
      if (answer.status !== 200) lost.push(i);
    }
    expect(lost).toEqual([]);
  });
});

describe('many at once on one section', () => {
  it('twenty-four contending writers are all answered: one is first, the others are told', async () => {
    const target = (await dentist.post<CaseDetail>('/cases', { name: 'Contended' })).body.id;
    const clients: Client[] = [];
    for (let i = 0; i < 24; i++) clients.push(await signedIn('dentist'));
    for (let version = 0; version < 3; version++) {
      const answers = await Promise.all(
        clients.map((c, i) =>
          c.patch<Problem>(`/cases/${target}/sections/meet`, { version, data: { wish: `by ${i}, ${version}` } }),
        ),
      );
      const statuses = answers.map((a) => a.status);
      expect(statuses.filter((s) => s === 200)).toHaveLength(1);
      expect(statuses.filter((s) => s === 409)).toHaveLength(23);
      expect((await dentist.get<CaseDetail>(`/cases/${target}`)).body.sections.meet.version).toBe(version + 1);
    }
  });
});

describe('the list of cases', () => {
  it('comes page by page, searched and sorted', async () => {
    const word = `Listed ${Math.random().toString(36).slice(2, 8)}`;
    for (let i = 0; i < 30; i++)
      await dentist.post('/cases', {
        name: `${word} ${String(i).padStart(2, '0')}`,
        ...(i % 3 === 0 && {
          meet: {
            wish: `w${i}`,
            wishTags: [],
            cautions: [],
            cautionNote: '',
            teeth: [],
            finishBy: `2027-01-${String(31 - i).padStart(2, '0')}`,
          },
        }),
      });
    const page = async (query: string) =>
      (
        await dentist.get<{
          cases: { name: string; finishBy: string | null; wish: string }[];
          total: number;
          pages: number;
        }>(`/cases?search=${encodeURIComponent(word)}${query}`)
      ).body;
    const first = await page('&sort=name');
    expect(first).toMatchObject({ total: 30, pages: 2 });
    expect(first.cases.map((c) => c.name.slice(-2))).toEqual(
      Array.from({ length: 24 }, (_, i) => String(i).padStart(2, '0')),
    );
    expect((await page('&sort=name&page=1')).cases).toHaveLength(6);
    const due = (await page('&sort=finish')).cases;
    expect(due.slice(0, 10).map((c) => c.finishBy)).toEqual([...due.slice(0, 10).map((c) => c.finishBy)].sort());
    expect(due[0]).toMatchObject({ finishBy: '2027-01-04', wish: 'w27' });
    expect(due.slice(10).every((c) => c.finishBy === null)).toBe(true);
    expect((await page('%25')).total).toBe(0);
    expect((await dentist.get<Problem>('/cases?sort=colour')).status).toBe(422);
  });
});
