import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';

it('the search kernel that core ships is what its source compiles to', () => {
  const script = `import { compiledKernel, KERNEL } from './kernel.mjs'; console.log(JSON.stringify({ ...KERNEL, text: await compiledKernel() }))`;
  const r = spawnSync('node', ['--input-type=module', '-e', script], { cwd: resolve('bin/lib'), encoding: 'utf8' });
  expect(r.stderr).toBe('');
  const { product, text } = JSON.parse(r.stdout) as { product: string; text: string };
  expect(readFileSync(resolve(product), 'utf8')).toBe(text);
});
