import { spawn } from 'node:child_process';
import { mkdirSync, watch } from 'node:fs';
import { fail, readArgs } from './args.mjs';
import { ensureBuild } from './build.mjs';
import { startDatabase } from './database.mjs';
import { ensureDatabase, ensureModules } from './install.mjs';
import { inRoot, root } from './paths.mjs';
import { endGroup, freePort } from './process.mjs';
import { endRecorded, forget, takeFolder } from './running.mjs';
import { onEnd, startServer } from './server.mjs';

const args = readArgs(process.argv.slice(2), { port: 8480, data: '.data' });
const ends = [];
const leave = onEnd(ends);

try {
  mkdirSync(args.data, { recursive: true, mode: 0o700 });
  const holder = takeFolder(args.data);
  if (holder)
    fail(
      `Radiant Arch runs on ${args.data} already (process ${holder}); end it first, or choose another folder with --data.`,
    );
  await endRecorded(args.data, 'server');
  await ensureDatabase();
  await ensureModules();
  await ensureBuild({ web: false });
  const database = await startDatabase(args.data, args.port + 2);
  const apiPort = await freePort(args.port + 1);
  const options = {
    port: apiPort,
    data: args.data,
    database,
    demo: args.empty ? 'no' : args.one ? 'one' : 'all',
    web: '',
  };
  let server = await startServer(options);
  const compiler = spawn('npx', ['--no-install', 'tsc', '-b', '--watch', '--preserveWatchOutput'], {
    cwd: root,
    stdio: 'inherit',
    detached: true,
  });
  const page = spawn(
    'npx',
    [
      '--no-install',
      'vite',
      'web',
      '--host',
      '127.0.0.1',
      '--port',
      String(args.port),
      '--strictPort',
      '--logLevel',
      'warn',
    ],
    {
      cwd: root,
      stdio: 'inherit',
      detached: true,
      env: { ...process.env, RADIANT_API: `http://127.0.0.1:${apiPort}` },
    },
  );
  ends.push(
    () => endGroup(page),
    () => endGroup(compiler),
    () => server.stop(),
    database.stop,
    async () => forget(args.data, 'start'),
  );

  // The server starts again a moment after the compiler has written.
  let due;
  let busy = Promise.resolve();
  const restart = () => {
    clearTimeout(due);
    due = setTimeout(() => {
      busy = busy.then(async () => {
        await server.stop();
        server = await startServer(options).catch((error) => {
          console.error(error.message);
          return server;
        });
      });
    }, 400);
  };
  for (const part of ['core', 'contract', 'standins', 'server'])
    watch(inRoot(part, 'dist'), { recursive: true }, (_, file) => file?.endsWith('.js') && restart());
  console.log(`ready http://127.0.0.1:${args.port}`);
  page.on('exit', (code) => leave(code ?? 1));
} catch (error) {
  console.error(error.message);
  await leave(1);
}
