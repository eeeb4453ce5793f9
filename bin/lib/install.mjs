import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { fail } from './args.mjs';
import { inRoot } from './paths.mjs';
import { run } from './process.mjs';

const DEBIAN = {
  database: { package: 'mariadb-server', files: ['/usr/sbin/mariadbd'] },
  browser: { package: 'chromium', files: ['/usr/bin/chromium'] },
};

/** Installs the Debian packages that are missing; needs root or sudo only then. */
export async function ensurePackages(names) {
  const missing = names.map((n) => DEBIAN[n]).filter((p) => !p.files.every(existsSync));
  if (missing.length === 0) return;
  const packages = missing.map((p) => p.package);
  if (!existsSync('/usr/bin/apt-get')) fail(`Please install ${packages.join(' and ')}: this machine has no apt-get.`);
  const asRoot = process.getuid() === 0 ? [] : ['sudo'];
  if (asRoot.length > 0 && !existsSync('/usr/bin/sudo'))
    fail(`Please install ${packages.join(' and ')} as root: apt-get install ${packages.join(' ')}`);
  console.log(`installing ${packages.join(', ')}`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const apt = (...args) => {
    const [command, ...rest] = [...asRoot, 'apt-get', ...args];
    return run(command, rest, { env, quiet: true });
  };
  await apt('update');
  // Another installation may be running on a fresh machine: it is waited for.
  await apt('install', '-o', 'DPkg::Lock::Timeout=300', '-y', '--no-install-recommends', ...packages);
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
