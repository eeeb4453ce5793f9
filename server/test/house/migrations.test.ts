import { fork } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { type Connection, createConnection } from 'mariadb';
import { startDatabase } from '../../../bin/lib/database.mjs';
import { freePort } from '../../../bin/lib/process.mjs';

const data = mkdtempSync(join(tmpdir(), 'radiant-migrations-'));
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
): Promise<{ end: 'whole' | 'killed' | 'failed'; told: Record<string, unknown> }> {
  return new Promise((done) => {
    const child = fork(
      resolve('server/test/migrate-and-die.mjs'),
      [String(database.port), database.password, what, nth],
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

it('broken off behind every statement in turn, they come to the same form in the next start', async () => {
  const { told, end } = await migrated('everywhere');
  expect(end).toBe('whole');
  expect(told).toMatchObject({ wrong: [] });
  expect(told.steps).toBeGreaterThan(30);
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
