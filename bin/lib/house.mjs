import { spawn } from 'node:child_process';
import { appendFileSync } from 'node:fs';
import { join } from 'node:path';
import { inRoot, root } from './paths.mjs';
import { end } from './process.mjs';

/**
 * Starts bin/start as a person would, with one sample case or none, and waits for its first line. Resolves to { url,
 * output, stop, child }.
 */
export function launchHouse({ port, data, empty = false }) {
  // Whoever tests runs TypeScript from its source; the house runs what is built, as it does at a practice.
  const { NODE_OPTIONS: _, ...env } = process.env;
  return new Promise((done, failed) => {
    const child = spawn(
      'node',
      [inRoot('bin', 'lib', 'start.mjs'), '--port', String(port), '--data', data, empty ? '--empty' : '--one'],
      {
        cwd: root,
        env,
        stdio: ['ignore', 'pipe', 'pipe'],
      },
    );
    let output = '';
    const url = `http://127.0.0.1:${port}`;
    const log = join(data, 'house.log');
    const hear = (chunk) => {
      output += chunk;
      try {
        appendFileSync(log, chunk);
      } catch {
        // Its folder is not there yet, or no more.
      }
      if (output.includes(`ready ${url}`)) done({ url, child, output: () => output, stop: () => end(child, 30000) });
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.once('exit', (code) => failed(new Error(`bin/start ended with ${code}:\n${output}`)));
  });
}
