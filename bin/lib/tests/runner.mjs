import { spawn } from 'node:child_process';
import { pathToFileURL } from 'node:url';
import { inRoot, root } from '../paths.mjs';

/** So long may a lane take before it is ended, ms: far more than it needs, less than whoever waits for it. */
const LANE_MS = 40 * 60_000;

/** Leaves the processors to whatever else wants them. */
export const STANDING_BACK = ['nice', '-n', '5'];

/**
 * Runs Jest on one configuration, its output in pieces to `hear`. Resolves to whether all passed.
 * @param standsBack whether it leaves the processors to whatever else wants them
 */
export function runJest(name, { args = [], env = {}, hear, standsBack = false }) {
  const loader = pathToFileURL(inRoot('bin', 'lib', 'typescript.mjs')).href;
  const jest = inRoot('node_modules', 'jest', 'bin', 'jest.js');
  const config = inRoot('bin', 'lib', 'tests', `${name}.config.mjs`);
  return new Promise((done) => {
    const [command, ...rest] = [...(standsBack ? STANDING_BACK : []), process.execPath, jest, '--config', config];
    const child = spawn(command, [...rest, ...args], {
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
