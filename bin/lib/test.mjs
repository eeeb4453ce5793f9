import { readArgs } from './args.mjs';
import { ensureBuild } from './build.mjs';
import { ensureModules, ensurePackages } from './install.mjs';
import { run } from './process.mjs';

const args = readArgs(process.argv.slice(2), { port: 8580, data: '.data/test' });
const jest = ['--experimental-vm-modules', '--no-warnings', 'node_modules/jest/bin/jest.js'];
const npx = (...a) => run('npx', ['--no-install', ...a]);

const STEPS = [
  [
    'install',
    async () => {
      await ensurePackages(['database', 'browser']);
      await ensureModules();
    },
  ],
  ['format and lint', () => npx('biome', 'check', '.', '--error-on-warnings')],
  ['import rule', () => run('node', ['bin/lib/import-rule.mjs'])],
  ['pattern rule', () => run('node', ['bin/lib/pattern-rule.mjs'])],
  [
    'types and build',
    async () => {
      await ensureBuild();
      await npx('tsc', '-p', 'web');
      await npx('tsc', '-p', 'tsconfig.test.json');
    },
  ],
  ['units', () => run('node', [...jest])],
  [
    'server and interface',
    () =>
      run('node', [...jest, '--config', 'jest.house.config.js'], {
        env: { ...process.env, RADIANT_TEST_DATA: args.data, RADIANT_TEST_PORT: String(args.port) },
      }),
  ],
];

const begun = Date.now();
for (const [name, step] of STEPS) {
  const t = Date.now();
  console.log(`\n── ${name}`);
  try {
    await step();
  } catch (error) {
    console.error(`\n${name} failed: ${error.message}`);
    process.exit(1);
  }
  console.log(`── ${name}: ${((Date.now() - t) / 1000).toFixed(0)} s`);
}
console.log(`\nall checks passed in ${((Date.now() - begun) / 1000).toFixed(0)} s`);
