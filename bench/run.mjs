import { ensureBuild } from '../bin/lib/build.mjs';
import { ensureBrowser, ensureDatabase, ensureModules } from '../bin/lib/install.mjs';
import { inRoot } from '../bin/lib/paths.mjs';
import { run } from '../bin/lib/process.mjs';

/** Each in a process of its own, so that one's garbage and warmed code do not colour the next. */
const ALL = [
  'closest',
  'closest-two',
  'crown',
  'target',
  'colour',
  'decide',
  'book',
  'direct',
  'verify',
  'measures',
  'page',
  'repaint',
  'shape',
  'photograph',
  'own-scan',
  'own-scan-page',
  'load',
];
const asked = process.argv.slice(2);

await ensureDatabase();
await ensureBrowser();
await ensureModules();
await ensureBuild();
for (const name of asked.length ? asked : ALL) await run('node', [inRoot('bench', `${name}.mjs`)]);
