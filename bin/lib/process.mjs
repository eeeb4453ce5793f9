import { spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { root } from './paths.mjs';

/** Runs a command to its end in the project's root; its output goes to ours. Rejects with a sentence when it fails. */
export function run(command, args, options = {}) {
  return new Promise((done, failed) => {
    const child = spawn(command, args, {
      cwd: root,
      stdio: options.quiet ? ['ignore', 'ignore', 'inherit'] : ['ignore', 'inherit', 'inherit'],
      ...options,
    });
    child.on('error', failed);
    child.on('exit', (code) =>
      code === 0 ? done() : failed(new Error(`${command} ${args.join(' ')} ended with ${code}.`)),
    );
  });
}

/** Ends a process we started and waits for it; after the given time it is ended the hard way. */
export async function end(child, ms = 20000) {
  if (!child || child.exitCode !== null || child.signalCode !== null) return;
  const gone = new Promise((done) => child.once('exit', done));
  child.kill('SIGTERM');
  const hard = setTimeout(() => child.kill('SIGKILL'), ms);
  await gone;
  clearTimeout(hard);
}

/** Ends a process that was started detached, together with all that it started itself. */
export async function endGroup(child) {
  if (!child || child.exitCode !== null || child.signalCode !== null) return;
  const gone = new Promise((done) => child.once('exit', done));
  process.kill(-child.pid, 'SIGTERM');
  await gone;
}

/** A loopback port that is free now, at or after the given one. */
export async function freePort(from) {
  for (let port = from; port < from + 200; port++) if (await isFree(port)) return port;
  throw new Error(`No free port between ${from} and ${from + 200}.`);
}

export function isFree(port) {
  return new Promise((done) => {
    const probe = createServer();
    probe.once('error', () => done(false));
    probe.listen(port, '127.0.0.1', () => probe.close(() => done(true)));
  });
}
