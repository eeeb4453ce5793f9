import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { fail } from './args.mjs';
import { ensureBuild } from './build.mjs';
import { ensureBrowser, ensureDatabase, ensureModules } from './install.mjs';
import { inRoot, root } from './paths.mjs';
import { secondsSince, sideBySide } from './tests/lanes.mjs';
import { runJest, STANDING_BACK } from './tests/runner.mjs';
import { ensureSample } from './tests/sample.mjs';

const USAGE = 'Known: [PATTERN…] --all, --day N, --port N, --data DIR.';

/** What a person asked for. Ends the process with a sentence when it is not understood. */
function asked(argv) {
  const out = { port: 8580, data: inRoot('.data', 'test'), patterns: [], env: {} };
  for (let i = 0; i < argv.length; i++) {
    const [name, inline] = argv[i].split('=');
    const value = () => inline ?? argv[++i];
    const whole = () => {
      const n = Number(value());
      if (!Number.isInteger(n) || n < 1 || n > 65_000) fail(`${name} takes a number from 1 to 65000.`);
      return n;
    };
    if (name === '--port') out.port = whole();
    else if (name === '--day') out.env.RADIANT_TEST_DAY = String(whole());
    else if (name === '--all') out.env.RADIANT_TEST_ALL = '1';
    else if (name === '--data') out.data = value() ?? fail('--data takes a folder.');
    else if (name.startsWith('-')) fail(`${argv[i]} is not understood. ${USAGE}`);
    else out.patterns.push(name);
  }
  return out;
}

/** A command whose output goes to `hear`. */
const command =
  (name, ...args) =>
  (hear) =>
    new Promise((done) => {
      const child = spawn(name, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] });
      child.stdout.on('data', hear);
      child.stderr.on('data', hear);
      child.once('error', (error) => {
        hear(`${error.message}\n`);
        done(false);
      });
      child.once('exit', (code) => done(code === 0));
    });
const npx = (...args) => command('npx', '--no-install', ...args);
const oneAfterTheOther =
  (...steps) =>
  async (hear) => {
    for (const step of steps) if (!(await step(hear))) return false;
    return true;
  };

const { port, data, patterns, env } = asked(process.argv.slice(2));
const some = patterns.length > 0;
const args = some ? ['--passWithNoTests', ...patterns] : [];
const begun = Date.now();

await ensureDatabase();
await ensureBrowser();
await ensureModules();

const lane =
  (name, at, more = {}) =>
  (hear) =>
    runJest(name, {
      args,
      hear,
      ...more,
      env: { ...env, RADIANT_TEST_DATA: join(data, name), RADIANT_TEST_PORT: String(port + at) },
    });

const rules = oneAfterTheOther(
  npx('biome', 'check', '.', '--error-on-warnings'),
  command('node', 'bin/lib/import-rule.mjs'),
  command('node', 'bin/lib/pattern-rule.mjs'),
);
const checked = (project) => command(...STANDING_BACK, 'npx', '--no-install', 'tsc', '-p', project);
const types = oneAfterTheOther(checked('web'), checked('tsconfig.test.json'));
// What a house runs is built before any test begins, so that none meets half of it; units need no build.
const failed = await sideBySide({
  ...(!some && { rules }),
  build: async () => {
    await ensureBuild();
    return true;
  },
});
// What talks to a house waits often: types and units, which only compute, stand back and fill its pauses.
if (failed.length === 0) {
  const sample = ensureSample(data, port + 20);
  const withHouse = (name, at) => async (hear) => {
    await sample;
    return lane(name, at)(hear);
  };
  failed.push(
    ...(await sideBySide({
      ...(!some && { types }),
      units: lane('units', 0, { standsBack: true }),
      server: withHouse('server', 20),
      modelling: withHouse('modelling', 40),
      interface: withHouse('interface', 60),
    })),
  );
}
if (failed.length > 0) {
  console.error(`\nfailed: ${failed.join(', ')}`);
  process.exit(1);
}
console.log(`\nall checks passed in ${secondsSince(begun)} s`);
