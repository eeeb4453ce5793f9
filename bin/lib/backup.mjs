import { createHash } from 'node:crypto';
import {
  closeSync,
  copyFileSync,
  createReadStream,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { createConnection } from 'mariadb';
import { fail } from './args.mjs';
import { SCHEMA, USER } from './database.mjs';
import { client, databaseOf } from './dump.mjs';
import { inRoot } from './paths.mjs';

/** A file that is taken out between two looks is a reason to begin again, so often. */
const TRIES = 4;

/**
 * Writes a backup into a new folder. The database is read in one transaction, so that it is of one moment whatever goes
 * on; files have their content for a name and never change, so those that the database names are copied before and
 * after, and counted at the end. Nobody has to stop working.
 * @returns what was written, in words
 */
export async function backUp(dataDir, target) {
  if (existsSync(target)) throw new Error(`${target} is there already; a backup goes into a new folder.`);
  const draft = `${target}.unfinished`;
  rmSync(draft, { recursive: true, force: true });
  mkdirSync(join(draft, 'files'), { recursive: true, mode: 0o700 });
  const database = await databaseOf(dataDir, 9480);
  try {
    for (let tries = 1; ; tries++) {
      copyFiles(join(dataDir, 'files'), join(draft, 'files'));
      const before = await namedNow(database);
      await dump(database, join(draft, 'database.sql'));
      copyFiles(join(dataDir, 'files'), join(draft, 'files'));
      const named = await namedIn(join(draft, 'database.sql'), new Set([...before, ...(await namedNow(database))]));
      const missing = named.filter((sha256) => !existsSync(place(join(draft, 'files'), sha256)));
      if (missing.length === 0) break;
      if (tries === TRIES)
        throw new Error(`${missing.length} files that the database names are not there, ${missing[0]} among them.`);
    }
  } finally {
    await database.stop();
  }
  for (const name of ['session.secret'])
    if (existsSync(join(dataDir, name))) copyFileSync(join(dataDir, name), join(draft, name));
  const files = all(join(draft, 'files'));
  const manifest = {
    format: 'radiant-arch-backup',
    version: 1,
    writtenAt: new Date().toISOString(),
    database: await hashOf(join(draft, 'database.sql')),
    files: files.length,
  };
  writeFileSync(join(draft, 'backup.json'), `${JSON.stringify(manifest, null, 2)}\n`, { mode: 0o600 });
  for (const name of ['database.sql', 'backup.json']) flush(join(draft, name));
  renameSync(draft, target);
  return `${files.length} files and the database of ${manifest.writtenAt} are in ${target}`;
}

async function dump(database, path) {
  const output = openSync(path, 'w', 0o600);
  try {
    await client(
      'mariadb-dump',
      [
        '--single-transaction',
        '--no-tablespaces',
        '--skip-lock-tables',
        '--hex-blob',
        '--default-character-set=utf8mb4',
      ],
      database,
      { output },
    );
  } finally {
    closeSync(output);
  }
}

/** Of the files that the database named before or after, those that the dump names. */
async function namedIn(path, named) {
  const found = new Set();
  let rest = '';
  for await (const chunk of createReadStream(path, { encoding: 'latin1', highWaterMark: 1 << 20 })) {
    const text = rest + chunk;
    for (const [, sha256] of text.matchAll(/'([0-9a-f]{64})'/g)) if (named.has(sha256)) found.add(sha256);
    rest = text.slice(-66);
  }
  return [...found];
}

async function namedNow({ port, password }) {
  const db = await createConnection({ host: '127.0.0.1', port, user: USER, password, database: SCHEMA });
  try {
    const rows = await db.query("SELECT sha256 FROM files UNION SELECT sha256 FROM arrivals WHERE sha256 <> ''");
    return rows.map((r) => r.sha256);
  } finally {
    await db.end();
  }
}

export const place = (dir, sha256) => join(dir, sha256.slice(0, 2), sha256);

/** Every kept file below a store, by its name. */
export function all(dir) {
  if (!existsSync(dir)) return [];
  return readdirSync(dir)
    .filter((f) => /^[0-9a-f]{2}$/.test(f))
    .flatMap((f) => readdirSync(join(dir, f)).filter((n) => /^[0-9a-f]{64}$/.test(n)));
}

function copyFiles(from, to) {
  for (const sha256 of all(from)) {
    const target = place(to, sha256);
    if (existsSync(target) && statSync(target).size === sizeOf(place(from, sha256))) continue;
    mkdirSync(dirname(target), { recursive: true, mode: 0o700 });
    try {
      copyFileSync(place(from, sha256), target);
      flush(target);
    } catch (error) {
      // Let go since the folder was read.
      if (error.code !== 'ENOENT') throw error;
    }
  }
}

const sizeOf = (path) => statSync(path, { throwIfNoEntry: false })?.size;

function flush(path) {
  const file = openSync(path, 'r');
  fsyncSync(file);
  closeSync(file);
}

export async function hashOf(path) {
  const hash = createHash('sha256');
  for await (const chunk of createReadStream(path)) hash.update(chunk);
  return hash.digest('hex');
}

if (process.argv[1] === inRoot('bin', 'lib', 'backup.mjs')) {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: { data: { type: 'string', default: inRoot('.data') } },
  });
  if (positionals.length !== 1) fail('Say into which new folder: bin/backup FOLDER [--data DIR]');
  await backUp(resolve(values.data), resolve(positionals[0])).then(console.log, (error) => fail(error.message));
}
