import { spawn } from 'node:child_process';
import { pathToFileURL } from 'node:url';
import { inRoot, root } from '../paths.mjs';

/** So long may a lane take before it is ended, ms: far more than it needs, less than whoever waits for it. */
const LANE_MS = 40 * 60_000;

/** Runs Jest on one configuration, its output in pieces to `hear`. Resolves to whether all passed. */
export function runJest(name, { args = [], env = {}, hear }) {
  const loader = pathToFileURL(inRoot('bin', 'lib', 'typescript.mjs')).href;
  const jest = inRoot('node_modules', 'jest', 'bin', 'jest.js');
  const config = inRoot('bin', 'lib', 'tests', `${name}.config.mjs`);
  return new Promise((done) => {
    const child = spawn(process.execPath, [jest, '--config', config, ...args], {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, NODE_OPTIONS: `--import ${loader} --no-warnings --enable-source-maps`, ...env },
    });
    const late = setTimeout(() => child.kill('SIGKILL'), LANE_MS);
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.once('exit', (code) => {
      clearTimeout(late);
      done(code === 0);
    });
  });
}
