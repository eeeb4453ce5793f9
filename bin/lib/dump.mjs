import { spawn } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { SCHEMA, startDatabase, USER } from './database.mjs';
import { recorded } from './running.mjs';

/**
 * The database of a folder: the one that runs, or one that is started for as long as it is needed.
 * @returns { port, password, stop }
 */
export async function databaseOf(dataDir, firstPort) {
  if (recorded(dataDir, 'database')) {
    const read = (name) => readFileSync(join(dataDir, name), 'utf8').trim();
    return { port: Number(read('database.port')), password: read('database.secret'), stop: async () => undefined };
  }
  if (!existsSync(join(dataDir, 'database'))) throw new Error(`${dataDir} holds no database.`);
  return startDatabase(dataDir, firstPort);
}

/** Runs a client program of the database; the password goes by the environment, where other people don't see it. */
export function client(program, args, { port, password }, { input, output }) {
  return new Promise((done, failed) => {
    const child = spawn(
      program,
      ['--no-defaults', '-h', '127.0.0.1', '-P', String(port), '-u', USER, ...args, SCHEMA],
      {
        env: { ...process.env, MYSQL_PWD: password },
        stdio: [input ?? 'ignore', output ?? 'ignore', 'inherit'],
      },
    );
    child.once('error', failed);
    child.once('exit', (code) => (code === 0 ? done() : failed(new Error(`${program} ended with ${code}.`))));
  });
}
