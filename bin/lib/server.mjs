import { fork } from 'node:child_process';
import { inRoot, root } from './paths.mjs';
import { end } from './process.mjs';

/** Starts the built server and waits until it listens. Returns the process. */
export async function startServer({ port, data, database, demo, web = inRoot('web', 'dist'), quiet = false }) {
  const child = fork(inRoot('server', 'dist', 'main.js'), {
    cwd: root,
    execArgv: ['--enable-source-maps'],
    detached: true,
    stdio: ['ignore', quiet ? 'ignore' : 'inherit', 'inherit', 'ipc'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      RADIANT_PORT: String(port),
      RADIANT_DATA: data,
      RADIANT_WEB: web,
      RADIANT_DB_PORT: String(database.port),
      RADIANT_DB_PASSWORD: database.password,
      RADIANT_DEMO: demo,
    },
  });
  await new Promise((done, failed) => {
    child.once('message', done);
    child.once('exit', (code) => failed(new Error(`The server ended with ${code} before it was ready.`)));
  });
  return { child, stop: () => end(child) };
}

/** Calls the ends in order on Ctrl-C or a polite signal, once, and leaves. */
export function onEnd(ends) {
  let ending = false;
  const leave = async (code) => {
    if (ending) return;
    ending = true;
    for (const e of ends) await e().catch((error) => console.error(error.message));
    process.exit(code);
  };
  process.on('SIGINT', () => leave(0));
  process.on('SIGTERM', () => leave(0));
  process.on('SIGHUP', () => leave(0));
  return leave;
}
