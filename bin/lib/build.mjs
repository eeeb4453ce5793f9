import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { inRoot } from './paths.mjs';
import { run } from './process.mjs';

const LIBRARIES = ['core', 'contract', 'standins', 'server'];
const CONFIG = ['package-lock.json', 'tsconfig.json', 'tsconfig.base.json', 'bin/lib/build.mjs'];
/** Whoever asks for the build, tests too: a library built for development would be half as fast and twice as large. */
const env = { ...process.env, NODE_ENV: 'production' };

/** Builds server and web application where their sources have changed since the last time. */
export async function ensureBuild({ web = true } = {}) {
  await once('server', [...LIBRARIES, ...CONFIG], inRoot('server', 'dist', 'main.js'), () =>
    run('npx', ['--no-install', 'tsc', '-b'], { env }),
  );
  if (web)
    await once('web', ['core', 'contract', 'web', ...CONFIG], inRoot('web', 'dist', 'index.html'), () =>
      run('npx', ['--no-install', 'vite', 'build', 'web', '--logLevel', 'warn'], { env }),
    );
}

async function once(name, sources, product, build) {
  const stamp = inRoot('node_modules', '.cache', 'radiant', `${name}.hash`);
  const hash = hashOf(sources);
  if (existsSync(product) && existsSync(stamp) && readFileSync(stamp, 'utf8') === hash) return;
  console.log(`building ${name}`);
  await build();
  mkdirSync(dirname(stamp), { recursive: true });
  writeFileSync(stamp, hash);
}

function hashOf(sources) {
  const hash = createHash('sha256');
  const take = (path) => {
    if (!existsSync(path)) return;
    const s = statSync(path);
    if (s.isDirectory()) {
      for (const name of readdirSync(path).sort())
        if (!['dist', 'node_modules', 'test'].includes(name)) take(join(path, name));
    } else hash.update(path).update(readFileSync(path));
  };
  for (const s of sources) take(inRoot(s));
  return hash.digest('hex');
}
