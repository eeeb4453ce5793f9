import { fail, readArgs } from './args.mjs';
import { ensureBuild } from './build.mjs';
import { startDatabase } from './database.mjs';
import { ensureModules, ensurePackages } from './install.mjs';
import { isFree } from './process.mjs';
import { onEnd, startServer } from './server.mjs';

const args = readArgs(process.argv.slice(2), { port: 8480, data: '.data' });
const ends = [];
const leave = onEnd(ends);

try {
  if (!(await isFree(args.port))) fail(`Port ${args.port} is taken; choose another with --port.`);
  await ensurePackages(['database']);
  await ensureModules();
  await ensureBuild();
  const database = await startDatabase(args.data, args.port + 1);
  ends.push(database.stop);
  const server = await startServer({ port: args.port, data: args.data, database, demo: args.empty ? 'no' : args.one ? 'one' : 'all' });
  ends.unshift(server.stop);
  server.child.on('exit', (code) => leave(code ?? 1));
  console.log(`ready http://127.0.0.1:${args.port}`);
  if (args.empty) console.log('open it to make the first account · Ctrl-C ends');
  else console.log('sample sign-in: dentist@estuary.example, "wading birds at low tide" · Ctrl-C ends');
} catch (error) {
  console.error(error.message);
  await leave(1);
}
