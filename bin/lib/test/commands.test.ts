import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { readArgs } from '../args.mjs';
import { end, endGroup, freePort, isFree, run } from '../process.mjs';

const DEFAULTS = { port: 8480, data: '.data' };
const lib = resolve('bin/lib');
const started = (child: ChildProcess) => new Promise((done) => child.stdout?.once('data', done));
/** Whether a process runs; one that ended but was not yet collected counts as gone. */
const lives = (pid: number) =>
  existsSync(`/proc/${pid}/stat`) && !/\) Z /.test(readFileSync(`/proc/${pid}/stat`, 'utf8'));

describe('what a person types', () => {
  it('nothing gives the defaults, with the data under the project', () => {
    expect(readArgs([], DEFAULTS)).toEqual({ port: 8480, data: resolve('.data'), empty: false, one: false });
  });

  it('port and folder, with a space or an equals sign', () => {
    expect(readArgs(['--port', '9000', '--data', '/tmp/a', '--empty'], DEFAULTS)).toEqual({
      port: 9000,
      data: '/tmp/a',
      empty: true,
      one: false,
    });
    expect(readArgs(['--port=9000', '--data=/tmp/a'], DEFAULTS)).toMatchObject({ port: 9000, data: '/tmp/a' });
  });

  it.each([
    [['--port', 'x'], /--port takes a number from 1 to 65535/],
    [['--port', '0'], /from 1 to 65535/],
    [['--port', '70000'], /from 1 to 65535/],
    [['--data'], /--data takes a folder/],
    [['--prot', '80'], /--prot is not understood\. Known: --port N, --data DIR, --empty/],
  ])('%p is answered with a sentence and starts nothing', (args, sentence) => {
    const r = spawnSync('node', [join(lib, 'start.mjs'), ...args], { encoding: 'utf8' });
    expect(r.status).toBe(1);
    expect(r.stderr.trim()).toMatch(sentence);
    expect(r.stderr.trim().split('\n')).toHaveLength(1);
    expect(r.stdout).toBe('');
  });
});

describe('processes and ports', () => {
  it('a command that fails is told with what was run', async () => {
    await expect(run('node', ['-e', 'process.exit(3)'])).rejects.toThrow('node -e process.exit(3) ended with 3.');
    await expect(run('node', ['-e', ''])).resolves.toBeUndefined();
  });

  it('a taken port is passed over', async () => {
    const from = await freePort(39_100);
    const taken = createServer();
    await new Promise<void>((done) => taken.listen(from, '127.0.0.1', done));
    expect(await isFree(from)).toBe(false);
    expect(await freePort(from)).toBeGreaterThan(from);
    await new Promise((done) => taken.close(done));
    expect(await isFree(from)).toBe(true);
  });

  it('ends a process politely, and one that will not go the hard way', async () => {
    const polite = spawn('node', ['-e', 'console.log(1); setInterval(() => {}, 1000)'], {
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    const deaf = spawn('node', ['-e', 'process.on("SIGTERM", () => {}); console.log(1); setInterval(() => {}, 1000)'], {
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    await Promise.all([started(polite), started(deaf)]);
    await end(polite);
    await end(deaf, 200);
    expect([polite.signalCode, deaf.signalCode]).toEqual(['SIGTERM', 'SIGKILL']);
    await end(polite);
  });

  it('ends a tool with what it started itself', async () => {
    const code =
      'const c = require("child_process").spawn("sleep", ["60"]); console.log(c.pid); setInterval(() => {}, 1000)';
    const parent = spawn('node', ['-e', code], { stdio: ['ignore', 'pipe', 'ignore'], detached: true });
    const grandchild = Number(String(await started(parent)));
    expect(lives(grandchild)).toBe(true);
    await endGroup(parent);
    for (let i = 0; i < 50 && lives(grandchild); i++) await new Promise((r) => setTimeout(r, 20));
    expect(lives(grandchild)).toBe(false);
  });
});

describe('the import rule', () => {
  let root: string;
  beforeEach(() => {
    root = mkdtempSync(join(tmpdir(), 'radiant-rule-'));
    cpSync(lib, join(root, 'bin', 'lib'), { recursive: true });
    write('core/src/index.ts', "export { a } from './geometry/a.js';");
    write('core/src/geometry/a.ts', "import { t } from '../teeth/t.js';\nexport const a = t;");
    write('core/src/teeth/t.ts', 'export const t = 1;');
    write('web/src/main.ts', "import { a } from '@radiant/core';");
    write('server/src/devices/demo.ts', "import { p } from '@radiant/standins';");
    write('server/src/cases/a.ts', "import { d } from '../devices/demo.js';");
  });
  afterEach(() => rmSync(root, { recursive: true }));
  const write = (path: string, text: string) => {
    mkdirSync(join(root, path, '..'), { recursive: true });
    writeFileSync(join(root, path), text);
  };
  const rule = () => {
    const r = spawnSync('node', [join(root, 'bin', 'lib', 'import-rule.mjs')], { encoding: 'utf8' });
    return { status: r.status, said: (r.stderr + r.stdout).trim() };
  };

  it('is content where imports run one way', () => {
    expect(rule()).toEqual({ status: 0, said: 'imports run one way' });
  });

  it.each([
    [
      'web/src/x.ts',
      "import { p } from '@radiant/standins';",
      /web\/src\/x\.ts imports standins; web may import core, contract/,
    ],
    ['contract/src/x.ts', "import { s } from '@radiant/server';", /contract may import core/],
    ['core/src/teeth/x.ts', "import { c } from '@radiant/contract';", /core may import nothing of the rest/],
    ['core/src/teeth/x.ts', "import { readFileSync } from 'node:fs';", /core imports nothing/],
    ['core/src/teeth/x.ts', "import { a } from '../geometry/a.js';", /geometry stands below teeth/],
    ['core/src/teeth/x.ts', 'export const w = window.innerWidth;', /uses its surroundings/],
    ['core/src/odds/x.ts', "import { t } from '../teeth/t.js';", /its subject is not in the list/],
    ['server/src/cases/x.ts', "import { p } from '@radiant/standins';", /only the devices module may/],
    ['web/src/x.ts', "import { a } from '../../core/src/index.js';", /reaches out of its part/],
    [
      'web/src/ui/x.ts',
      "import { a } from '../data/a.js';",
      /web\/src\/ui\/x\.ts imports from data; ui may import nothing of the rest/,
    ],
    [
      'web/src/stages/shape/x.ts',
      "import { a } from '../read/a.js';",
      /imports from stages\/read; stages\/shape may import shell/,
    ],
    ['web/src/odds/x.ts', "import { a } from '../ui/a.js';", /odds is not in the order/],
    [
      'server/src/devices/x.ts',
      "import { a } from '../cases/a.js';",
      /server: cases → devices → cases is a circle of folders/,
    ],
  ])('%s with %p is refused', (path, text, sentence) => {
    write(path, text);
    const r = rule();
    expect(r.status).toBe(1);
    expect(r.said).toMatch(sentence);
  });

  it('a comment that speaks of the window is no use of it', () => {
    write('core/src/teeth/x.ts', '/** The window(s) of time, see document. */\nexport const x = 1; // fetch(later)');
    expect(rule().status).toBe(0);
  });
});
