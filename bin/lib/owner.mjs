import { createHash, randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { createConnection } from 'mariadb';
import { fail } from './args.mjs';
import { SCHEMA, USER } from './database.mjs';
import { inRoot } from './paths.mjs';
import { recorded } from './running.mjs';

const GOOD_MINUTES = 30;
/** Base32 (RFC 4648): no digit that could be a letter. */
const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567';
/** 24 letters of five bits each: beyond any guessing. */
const LENGTH = 24;

/**
 * Makes a code with which a dentist gets back in. Who can read the data folder may: it holds the key to everything
 * anyway.
 * @returns { code, name, email, minutes }
 */
export async function recoveryCode(dataDir, email) {
  if (!recorded(dataDir, 'database'))
    throw new Error('Radiant Arch is not running on this folder; start it with bin/start first.');
  const read = (name) => readFileSync(join(dataDir, name), 'utf8').trim();
  const db = await createConnection({
    host: '127.0.0.1',
    port: Number(read('database.port')),
    user: USER,
    password: read('database.secret'),
    database: SCHEMA,
    timezone: 'Z',
  });
  try {
    const dentists = await db.query(
      "SELECT id, name, email FROM people WHERE role = 'dentist' AND ended_at IS NULL ORDER BY name",
    );
    const found = email ? dentists.filter((d) => d.email === email.toLowerCase()) : dentists;
    if (found.length === 0)
      throw new Error(
        email
          ? `There is no dentist with the address ${email}.`
          : 'There is no dentist yet; open the page and make the first account.',
      );
    if (found.length > 1)
      throw new Error(`There are several dentists; choose one with --email: ${found.map((d) => d.email).join(', ')}`);
    const letters = [...randomBytes(LENGTH)].map((b) => LETTERS[b % 32]).join('');
    const hash = createHash('sha256').update(letters).digest('hex');
    await db.query('REPLACE INTO recovery_codes (person_id, hash, expires_at) VALUES (?, ?, ?)', [
      found[0].id,
      hash,
      new Date(Date.now() + GOOD_MINUTES * 60_000),
    ]);
    return {
      code: letters.match(/.{4}/g).join('-'),
      name: found[0].name,
      email: found[0].email,
      minutes: GOOD_MINUTES,
    };
  } finally {
    await db.end();
  }
}

if (process.argv[1] === inRoot('bin', 'lib', 'owner.mjs')) {
  const { values } = parseArgs({
    options: { data: { type: 'string', default: inRoot('.data') }, email: { type: 'string' } },
  });
  await recoveryCode(resolve(values.data), values.email).then(
    ({ code, name, email, minutes }) =>
      console.log(
        `${code}\nfor ${name}, ${email}; good once, for ${minutes} minutes: on the sign-in page choose “lost the password?”.`,
      ),
    (error) => fail(error.message),
  );
}
