import { mkdirSync } from 'node:fs';
import { fail, readArgs } from './args.mjs';
import { ensureBuild } from './build.mjs';
import { startDatabase } from './database.mjs';
import { ensureDatabase, ensureModules } from './install.mjs';
import { isFree } from './process.mjs';
import { endRecorded, forget, takeFolder } from './running.mjs';
import { keepServer, onEnd } from './server.mjs';

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
  ends.push(async () => forget(args.data, 'start'));
  // What a start that died has left running still has our port.
  await endRecorded(args.data, 'server');
  if (!(await isFree(args.port))) {
    console.error(`Port ${args.port} is taken; choose another with --port.`);
    await leave(1);
  }
  await ensureDatabase();
  await ensureModules();
  await ensureBuild();
  const database = await startDatabase(args.data, args.port + 1);
  ends.unshift(database.stop);
  const server = await keepServer({
    port: args.port,
    data: args.data,
    database,
    demo: args.empty ? 'no' : args.one ? 'one' : 'all',
  });
  ends.unshift(server.stop);
  console.log(`ready http://127.0.0.1:${args.port}`);
  if (args.empty) console.log('open it to make the first account · Ctrl-C ends');
  else console.log('sample sign-in: dentist@estuary.example, "wading birds at low tide" · Ctrl-C ends');
} catch (error) {
  console.error(error.message);
  await leave(1);
}
