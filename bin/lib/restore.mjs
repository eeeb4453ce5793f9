import { closeSync, copyFileSync, existsSync, mkdirSync, openSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { fail } from './args.mjs';
import { all, hashOf, place } from './backup.mjs';
import { startDatabase } from './database.mjs';
import { client } from './dump.mjs';
import { inRoot } from './paths.mjs';

/**
 * Puts a backup into an empty data folder: every file is checked against its name and the database against the backup's
 * own word before anything is written.
 * @returns what was restored, in words
 */
export async function restore(source, dataDir) {
  if (existsSync(dataDir) && readdirSync(dataDir).length > 0)
    throw new Error(`${dataDir} is not empty; a backup is restored into a folder of its own.`);
  const manifest = await checked(source);
  const files = all(join(source, 'files'));
  mkdirSync(dataDir, { recursive: true, mode: 0o700 });
  for (const sha256 of files) {
    const target = place(join(dataDir, 'files'), sha256);
    mkdirSync(dirname(target), { recursive: true, mode: 0o700 });
    copyFileSync(place(join(source, 'files'), sha256), target);
  }
  if (existsSync(join(source, 'session.secret')))
    copyFileSync(join(source, 'session.secret'), join(dataDir, 'session.secret'));
  const database = await startDatabase(dataDir, 9490);
  try {
    const input = openSync(join(source, 'database.sql'), 'r');
    await client('mariadb', ['--default-character-set=utf8mb4'], database, { input });
    closeSync(input);
  } finally {
    await database.stop();
  }
  return `${files.length} files and the database of ${manifest.writtenAt} are in ${dataDir}; start with bin/start --data ${dataDir}`;
}

/** @throws Error naming what is wrong with the backup */
async function checked(source) {
  const path = join(source, 'backup.json');
  if (!existsSync(path)) throw new Error(`${source} is no backup, or one that was never finished.`);
  const manifest = JSON.parse(readFileSync(path, 'utf8'));
  if (manifest.format !== 'radiant-arch-backup' || manifest.version !== 1)
    throw new Error(`${source} is no backup that this program reads.`);
  if ((await hashOf(join(source, 'database.sql'))) !== manifest.database)
    throw new Error('The database in the backup is damaged.');
  const files = all(join(source, 'files'));
  if (files.length !== manifest.files)
    throw new Error(`The backup holds ${files.length} files instead of ${manifest.files}.`);
  for (const sha256 of files)
    if ((await hashOf(place(join(source, 'files'), sha256))) !== sha256)
      throw new Error(`The file ${sha256} in the backup is damaged.`);
  return manifest;
}

if (process.argv[1] === inRoot('bin', 'lib', 'restore.mjs')) {
  const { values, positionals } = parseArgs({ allowPositionals: true, options: { data: { type: 'string' } } });
  if (positionals.length !== 1 || !values.data)
    fail('Say from where and into which empty folder: bin/restore FOLDER --data DIR');
  await restore(resolve(positionals[0]), resolve(values.data)).then(console.log, (error) => fail(error.message));
}
