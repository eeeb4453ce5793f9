import { fork } from 'node:child_process';
import { inRoot, root } from './paths.mjs';
import { end } from './process.mjs';
import { forget, record } from './running.mjs';

/**
 * Waits before a server that ended by itself is started again, ms: doubled each time, and from the first after a good
 * while.
 */
const BACK_OFF = { firstMs: 1000, mostMs: 30_000, goodMs: 60_000 };

/** Starts the built server and waits until it listens. Returns the process. */
export async function startServer({ port, data, database, demo, web = inRoot('web', 'dist'), quiet = false }) {
  const child = fork(inRoot('server', 'dist', 'main.js'), {
    cwd: root,
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
  record(data, 'server', child.pid);
  await new Promise((done, failed) => {
    child.once('message', done);
    child.once('exit', (code) => failed(new Error(`The server ended with ${code} before it was ready.`)));
  });
  return {
    child,
    stop: async () => {
      await end(child);
      forget(data, 'server');
    },
  };
}

/**
 * Starts the server and keeps it running: when it ends by itself it is started again, with longer and longer waits
 * while it keeps failing. The database is left alone.
 */
export async function keepServer(options, backOff = BACK_OFF) {
  let stopping = false;
  let waitMs = backOff.firstMs;
  let server;
  let begun;
  let timer;
  let starting = Promise.resolve();
  const follow = () => {
    begun = Date.now();
    server.child.once('exit', (code, signal) => again(signal ?? code));
  };
  const again = (code) => {
    if (stopping) return;
    if (Date.now() - begun > backOff.goodMs) waitMs = backOff.firstMs;
    console.error(`the server ended (${code}); starting it again in ${waitMs / 1000} s`);
    timer = setTimeout(() => {
      starting = startServer(options).then(
        (next) => {
          server = next;
          if (stopping) return server.stop();
          console.log('the server is back');
          follow();
        },
        (error) => {
          console.error(error.message);
          begun = Date.now();
          again('not ready');
        },
      );
    }, waitMs);
    waitMs = Math.min(backOff.mostMs, 2 * waitMs);
  };
  server = await startServer(options);
  follow();
  return {
    stop: async () => {
      stopping = true;
      clearTimeout(timer);
      await starting;
      await server.stop();
    },
  };
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
