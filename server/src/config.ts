import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** Everything the server is told from outside, read once at start from the environment. */
export interface Config {
  readonly port: number;
  readonly dataDir: string;
  readonly webDir: string | undefined;
  /** The watched folder into which devices lay their files. */
  readonly inboxDir: string;
  readonly sessionSecret: string;
  /** `all`: the six sample cases with all their photographs; `one`: the first case with what its stages need; `no`. */
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
    sessionSecret: secret(join(dataDir, 'session.secret')),
    demo: env.RADIANT_DEMO === 'all' || env.RADIANT_DEMO === 'one' ? env.RADIANT_DEMO : 'no',
    database: { port: Number(need('RADIANT_DB_PORT')), user: 'arch', password: need('RADIANT_DB_PASSWORD'), name: 'radiant_arch' },
  };
}

function secret(path: string): string {
  if (!existsSync(path)) {
    mkdirSync(join(path, '..'), { recursive: true });
    writeFileSync(path, randomBytes(32).toString('hex'), { mode: 0o600 });
  }
  return readFileSync(path, 'utf8').trim();
}
