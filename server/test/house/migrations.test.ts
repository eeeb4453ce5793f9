import { fork } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { scanFor } from '@radiant/contract';
import { frameInHead, mouthBy } from '@radiant/core';
import { type Connection, createConnection } from 'mariadb';
import { startDatabase } from '../../../bin/lib/database.mjs';
import { freePort } from '../../../bin/lib/process.mjs';
import { ALL, DAY, share } from '../../../core/test/trials/rotating.js';

// In memory where there is such a folder: a disk is waited for at each of a thousand statements.
const MEMORY = '/dev/shm';
const data = mkdtempSync(join(existsSync(MEMORY) ? MEMORY : tmpdir(), 'radiant-migrations-'));
let database: Awaited<ReturnType<typeof startDatabase>>;
let db: Connection;

beforeAll(async () => {
  database = await startDatabase(data, await freePort(39_700));
  db = await createConnection({
    host: '127.0.0.1',
    port: database.port,
    user: 'arch',
    password: database.password,
    database: 'radiant_arch',
  });
});
afterAll(async () => {
  await db?.end();
  await database?.stop();
  rmSync(data, { recursive: true, force: true });
});

/** Migrates in a process of its own; what it tells, and how it ended. */
function migrated(
  what = 'whole',
  nth = '',
  first = '',
): Promise<{ end: 'whole' | 'killed' | 'failed'; told: Record<string, unknown> }> {
  return new Promise((done) => {
    const child = fork(
      resolve('server/test/migrate-and-die.mjs'),
      [String(database.port), database.password, what, nth, first],
      { execArgv: [] },
    );
    let told = {};
    child.on('message', (m) => {
      told = m as object;
    });
    child.once('exit', (code, signal) =>
      done({ told, end: signal === 'SIGKILL' ? 'killed' : code === 0 ? 'whole' : 'failed' }),
    );
  });
}

async function anew(): Promise<void> {
  await db.query('DROP DATABASE radiant_arch');
  await db.query('CREATE DATABASE radiant_arch CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci');
  await db.query('USE radiant_arch');
}

/** Of the statements so many are passed over each time, others on another day; none with `--all`. */
const EVERY = ALL ? 1 : 8;
const FIRST = ALL ? 1 : 1 + (DAY % EVERY);

it(`broken off behind every statement in turn (${share}), they come to the same form in the next start`, async () => {
  const { told, end } = await migrated('everywhere', String(EVERY), String(FIRST));
  expect(end).toBe('whole');
  expect(told).toMatchObject({ wrong: [] });
  const tried = told.tried as number[];
  expect(tried[0]).toBe(FIRST);
  expect(tried.length * EVERY).toBeGreaterThan(40);
  expect(told.lines).toBeGreaterThan(80);
}, 240_000);

it('killed in the midst, with the lock in hand, they go on in the next start', async () => {
  await anew();
  const { form } = (await migrated()).told;
  for (const nth of ['4', '17']) {
    await anew();
    expect((await migrated('kill', nth)).end).toBe('killed');
    expect((await migrated()).told).toEqual({ form });
  }
});

it('two servers that start at the same moment both find it whole', async () => {
  await anew();
  expect(await Promise.all([migrated(), migrated(), migrated()])).toMatchObject([
    { end: 'whole' },
    { end: 'whole' },
    { end: 'whole' },
  ]);
});

it('a day that is none in an old record is taken out, the rest of the record and good days stay', async () => {
  await anew();
  await migrated();
  await db.query("DELETE FROM migrations WHERE name >= '0006'");
  const practice = '00000000-0000-4000-8000-000000000001';
  await db.query('INSERT INTO practices (id, name) VALUES (?, ?)', [practice, 'P']);
  const days = ['2024-W10-3', '2026-02-30', '2026-12-18', '2026-12-18T10:00', null];
  for (const [i, finishBy] of days.entries()) {
    const id = `00000000-0000-4000-8000-00000000010${i}`;
    await db.query('INSERT INTO cases (id, practice_id, name, opened_at, changed_at) VALUES (?, ?, ?, NOW(), NOW())', [
      id,
      practice,
      `c${i}`,
    ]);
    const record = JSON.stringify({ wish: 'kept', finishBy });
    await db.query("INSERT INTO case_sections VALUES (?, 'meet', 1, ?, 'x', NOW())", [id, record]);
    await db.query("INSERT INTO revisions VALUES (?, 'meet', 1, ?, 'x', NOW())", [id, record]);
  }
  expect((await migrated()).end).toBe('whole');
  const rows = (await db.query(
    "SELECT c.name, JSON_VALUE(s.data, '$.finishBy') AS day, JSON_VALUE(s.data, '$.wish') AS wish, JSON_VALUE(r.data, '$.finishBy') AS old, CAST(c.finish_by AS CHAR) AS sorted FROM cases c JOIN case_sections s ON s.case_id = c.id JOIN revisions r ON r.case_id = c.id ORDER BY c.name",
  )) as { day: string | null; wish: string; old: string | null; sorted: string | null }[];
  expect(rows.map((r) => r.wish)).toEqual(['kept', 'kept', 'kept', 'kept', 'kept']);
  for (const key of ['day', 'old', 'sorted'] as const)
    expect(rows.map((r) => (r[key] === 'null' ? null : r[key]))).toEqual([null, null, '2026-12-18', null, null]);
});

it('what a practice had set among the words of the program becomes its settings, once', async () => {
  await anew();
  await migrated();
  const practice = '00000000-0000-4000-8000-000000000001';
  await db.query('INSERT INTO practices (id, name) VALUES (?, ?)', [practice, 'P']);
  for (const again of [1, 2]) {
    await db.query("DELETE FROM migrations WHERE name >= '0010'");
    await db.query('INSERT IGNORE INTO settings VALUES (?, ?)', [
      `drafts ${practice.slice(0, 32)}`,
      again === 1 ? 'removed' : 'sealed',
    ]);
    expect((await migrated()).end).toBe('whole');
    expect(await db.query('SELECT practice_id, version, data FROM practice_settings')).toEqual([
      { practice_id: practice, version: 1, data: { drafts: 'removed' } },
    ]);
  }
  expect(await db.query("SELECT * FROM settings WHERE name LIKE 'drafts%'")).toEqual([]);
});

/** A house of the six sample cases as it stood before files told what they are: the database as it was written. */
describe('a database of six cases in which files were told apart by their names', () => {
  interface OldFile {
    readonly id: string;
    readonly case_id: string;
    readonly kind: string;
    readonly name: string;
    readonly sha256: string;
    readonly at: Date;
  }
  interface NewFile extends OldFile {
    readonly jaw: 'upper' | 'lower' | null;
    readonly role: 'original' | 'working' | null;
    readonly state: string | null;
    readonly parent_id: string | null;
    readonly frame: number[] | null;
  }
  const all = async <T>(sql: string) => (await db.query(sql)) as T[];
  const SECTIONS = 'SELECT case_id, name, version, CAST(data AS CHAR) AS data FROM case_sections ORDER BY 1, 2';
  const HISTORY = 'SELECT case_id, section, version, MD5(data) AS data FROM revisions ORDER BY 1, 2, 3';
  const CASES = 'SELECT id, name, CAST(finish_by AS CHAR) AS finish_by FROM cases ORDER BY name';
  const files = join(data, 'six-cases');
  let before: { cases: unknown[]; sections: { case_id: string; name: string; data: string }[]; history: unknown[] };
  let old: OldFile[];
  let now: NewFile[];
  let cases: { id: string; name: string }[];
  const ofCase = <T extends OldFile>(rows: readonly T[], name: string) =>
    rows.filter((f) => f.case_id === cases.find((c) => c.name === name)?.id);

  beforeAll(async () => {
    await anew();
    const sql = gunzipSync(readFileSync(resolve('server/test/data/six-cases-0008.sql.gz'))).toString();
    // As a dump is read: tables in any order, and columns that the database works out itself are passed over.
    await db.query("SET FOREIGN_KEY_CHECKS = 0, sql_mode = 'NO_AUTO_VALUE_ON_ZERO'");
    for (const statement of sql.split(/;\n/)) if (statement.trim()) await db.query(statement);
    await db.query('SET FOREIGN_KEY_CHECKS = 1, sql_mode = DEFAULT');
    before = { cases: await all(CASES), sections: await all(SECTIONS), history: await all(HISTORY) };
    cases = await all(CASES);
    old = await all('SELECT * FROM files ORDER BY at');
    // The heads of the two files that were made out of others, as they were written then.
    for (const [i, f] of old.filter((o) => o.name.endsWith(', teeth picked out.ply')).entries()) {
      mkdirSync(join(files, f.sha256.slice(0, 2)), { recursive: true });
      writeFileSync(
        join(files, f.sha256.slice(0, 2), f.sha256),
        `ply\nformat binary_little_endian 1.0\ncomment jaw, mm; mouth in the scan: ${i + 1} 2 3 0 1 0 -1 0 0 0 0 1\n`,
      );
    }
    expect((await migrated('whole', files)).end).toBe('whole');
    now = await all('SELECT * FROM files ORDER BY at');
  });

  it('keeps every case, section and revision as it was', async () => {
    expect(cases.map((c) => c.name)).toEqual(['Avocet', 'Curlew', 'Dunlin', 'Plover', 'Sandpiper', 'Turnstone']);
    expect({ cases: await all(CASES), sections: await all(SECTIONS), history: await all(HISTORY) }).toEqual(before);
    expect(now.map((f) => [f.id, f.name, f.sha256])).toEqual(old.map((f) => [f.id, f.name, f.sha256]));
  });

  it('the same scans count as before', () => {
    for (const { id } of cases) {
      const shape = before.sections.find((s) => s.case_id === id && s.name === 'shape');
      const named = (JSON.parse(shape?.data ?? '{}') as { scanId?: string }).scanId;
      const was = (kind: string) => old.filter((f) => f.case_id === id && f.kind === kind);
      const upper = was('scan').find((f) => f.id === named) ?? was('scan').at(-1);
      const held = now.filter((f) => f.case_id === id) as unknown as Parameters<typeof scanFor>[0];
      expect(scanFor(held, 'upper', 'before', named)?.id).toBe(upper?.id);
      expect(scanFor(held, 'lower', 'before', named)?.id).toBe(was('lower-scan').at(-1)?.id);
    }
  });

  it('every file says what it is; names are for people', () => {
    const told = (f: NewFile) => [f.kind, f.jaw, f.role, f.state, f.name.replace(/^\w+ - /, '')];
    expect(new Set(now.map((f) => f.kind))).toEqual(new Set(['photo', 'scan']));
    expect(now.filter((f) => f.kind === 'photo').every((f) => f.jaw === null && f.role === null)).toBe(true);
    expect(
      ofCase(now, 'Sandpiper')
        .filter((f) => f.kind === 'scan')
        .map(told),
    ).toEqual([
      ['scan', 'upper', 'working', null, 'upper jaw, before.stl'],
      ['scan', 'lower', 'working', null, 'lower jaw, before.stl'],
      ['scan', null, 'original', 'before', 'whole upper jaw, before.stl'],
      ['scan', null, 'original', 'before', 'whole lower jaw, before.ply'],
      ['scan', null, 'original', 'prepared', 'whole upper jaw, prepared.stl'],
    ]);
  });

  it('a working copy knows its original, and the frame that stood in its head', () => {
    const copies = ofCase(now, 'Dunlin').filter((f) => f.parent_id);
    expect(copies.map((f) => f.jaw)).toEqual(['upper', 'lower']);
    for (const [i, copy] of copies.entries()) {
      const parent = now.find((f) => f.id === copy.parent_id);
      expect(parent).toMatchObject({ role: 'original', jaw: copy.jaw, case_id: copy.case_id });
      expect(copy.name).toBe(`${parent?.name.replace(/\.\w+$/, '')}, teeth picked out.ply`);
      const head = readFileSync(join(files, copy.sha256.slice(0, 2), copy.sha256));
      expect(mouthBy(copy.frame ?? [])).toEqual(frameInHead(head));
      expect(mouthBy(copy.frame ?? [])?.origin).toEqual([i + 1, 2, 3]);
    }
    expect(now.filter((f) => f.frame)).toHaveLength(2);
  });

  it('a contour that was kept has the hashes of what it was made from', async () => {
    const contours = await all<{ name: string; case_id: string; made_from: { files: Record<string, string>[] } }>(
      'SELECT name, case_id, made_from FROM contours ORDER BY at',
    );
    const of = (name: string) => contours.find((c) => c.case_id === cases.find((k) => k.name === name)?.id)?.made_from;
    const entry = (f: OldFile | undefined, jaw: string) => ({ fileId: f?.id, jaw, sha256: f?.sha256 });
    const was = (name: string, kind: string) => ofCase(old, name).filter((f) => f.kind === kind);
    expect(of('Avocet')?.files).toEqual([entry(was('Avocet', 'scan')[0], 'upper')]);
    // Its plan has a lower tooth: that stood on the newest lower scan.
    expect(of('Dunlin')?.files).toEqual([
      entry(was('Dunlin', 'scan')[0], 'upper'),
      entry(was('Dunlin', 'lower-scan').at(-1), 'lower'),
    ]);
    expect(contours).toHaveLength(3);
  });
});
