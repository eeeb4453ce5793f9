import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { fail } from './args.mjs';
import { BROWSERS, browserPath } from './browser.mjs';
import { inRoot } from './paths.mjs';
import { run } from './process.mjs';

const DATABASE = { package: 'mariadb-server', path: '/usr/sbin/mariadbd' };

/** Installs the database server where it is missing; needs root or sudo only then. */
export async function ensureDatabase() {
  if (!existsSync(DATABASE.path)) await installed(DATABASE.package);
}

/** Installs a browser for the tests where none is there: the first that this Debian has. */
export async function ensureBrowser() {
  if (browserPath()) return;
  const [best, whole] = BROWSERS;
  // Older Debians have no package for it alone.
  await installed(best.package).catch(() => installed(whole.package));
}

async function installed(name) {
  if (!existsSync('/usr/bin/apt-get')) fail(`Please install ${name}: this machine has no apt-get.`);
  const asRoot = process.getuid() === 0 ? [] : ['sudo'];
  if (asRoot.length > 0 && !existsSync('/usr/bin/sudo'))
    fail(`Please install ${name} as root: apt-get install ${name}`);
  console.log(`installing ${name}`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const apt = (...args) => {
    const [command, ...rest] = [...asRoot, 'apt-get', ...args];
    return run(command, rest, { env, quiet: true });
  };
  await apt('update');
  // Another installation may be running on a fresh machine: it is waited for.
  await apt('install', '-o', 'DPkg::Lock::Timeout=300', '-y', '--no-install-recommends', name);
}

/** Runs npm ci when the lock file is not the one that was installed last. */
export async function ensureModules() {
  const stamp = inRoot('node_modules', '.lock-hash');
  const hash = createHash('sha256')
    .update(readFileSync(inRoot('package-lock.json')))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === hash) return;
  console.log('installing node modules');
  await run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
  mkdirSync(dirname(stamp), { recursive: true });
  writeFileSync(stamp, hash);
}
