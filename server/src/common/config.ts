import { randomBytes, randomUUID } from 'node:crypto';
import { closeSync, existsSync, fsyncSync, mkdirSync, openSync, readFileSync, renameSync, writeSync } from 'node:fs';
import { join } from 'node:path';

/** Everything the server is told from outside, read once at start from the environment. */
export interface Config {
  readonly port: number;
  readonly dataDir: string;
  readonly webDir: string | undefined;
  /** The watched folder into which devices lay their files. */
  readonly inboxDir: string;
  /** A file counts as written when its size and time have rested for so long, ms. */
  readonly inboxRestMs: number;
  /** Where uploads lie until they are kept, on the same disk as the files. */
  readonly incomingDir: string;
  /** Names under which browsers reach the server beside those of the loopback. */
  readonly hosts: readonly string[];
  /** Addresses of a proxy whose word on the caller's address counts; nobody's where nothing is said. */
  readonly proxy: string | undefined;
  readonly sessionSecret: string;
  /** `all`: the seven sample cases with all their photographs; `one`: the first case with what its stages need; `no`. */
  readonly demo: 'all' | 'one' | 'no';
  readonly database: { readonly port: number; readonly user: string; readonly password: string; readonly name: string };
}

/** @throws Error naming the variable that is missing */
export function readConfig(env: NodeJS.ProcessEnv = process.env): Config {
  const need = (name: string): string => {
    const v = env[name];
    if (!v) throw new Error(`The server needs ${name}; start it with bin/start.`);
    return v;
  };
  const dataDir = need('RADIANT_DATA');
  return {
    port: Number(need('RADIANT_PORT')),
    dataDir,
    webDir: env.RADIANT_WEB,
    inboxDir: env.RADIANT_INBOX ?? join(dataDir, 'inbox'),
    inboxRestMs: Number(env.RADIANT_INBOX_REST_MS ?? 10_000),
    incomingDir: join(dataDir, 'incoming'),
    hosts: (env.RADIANT_HOSTS ?? '')
      .split(',')
      .map((h) => h.trim().toLowerCase())
      .filter(Boolean),
    proxy: env.RADIANT_PROXY || undefined,
    sessionSecret: secret(join(dataDir, 'session.secret')),
    demo: env.RADIANT_DEMO === 'all' || env.RADIANT_DEMO === 'one' ? env.RADIANT_DEMO : 'no',
    database: {
      port: Number(need('RADIANT_DB_PORT')),
      user: 'arch',
      password: need('RADIANT_DB_PASSWORD'),
      name: 'radiant_arch',
    },
  };
}

/** Hex digits that a secret has; a file with fewer was cut short while it was written, and is made anew. */
const SECRET = /^[0-9a-f]{64}$/;

function secret(path: string): string {
  const held = existsSync(path) ? readFileSync(path, 'utf8').trim() : '';
  if (SECRET.test(held)) return held;
  mkdirSync(join(path, '..'), { recursive: true });
  const draft = `${path}.${randomUUID()}`;
  const file = openSync(draft, 'wx', 0o600);
  writeSync(file, randomBytes(32).toString('hex'));
  fsyncSync(file);
  closeSync(file);
  renameSync(draft, path);
  return readFileSync(path, 'utf8');
}

/** By this the configuration is asked for. */
export const CONFIG = Symbol('config');
