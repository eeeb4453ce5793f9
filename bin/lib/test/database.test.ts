import { type ChildProcess, fork, spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { type Connection, createConnection } from 'mariadb';
import { startDatabase } from '../database.mjs';
import { freePort } from '../process.mjs';
import { begunAt, endRecorded, record, recorded, takeFolder } from '../running.mjs';
import { secret } from '../secret.mjs';

const asRoot = process.getuid?.() === 0;
const uidOf = (pid: number) => Number(/\nUid:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]);

describe('the database of a folder', () => {
  const data = mkdtempSync(join(tmpdir(), 'radiant-database-'));
  const dir = join(data, 'database');
  let database: Awaited<ReturnType<typeof startDatabase>>;
  const as = (user: string, password: string, more: object = {}): Promise<Connection> =>
    createConnection({ host: '127.0.0.1', port: database.port, user, password, connectTimeout: 3000, ...more });

  beforeAll(async () => {
    // As an older version made it: superusers without a password on every loopback address.
    mkdirSync(dir);
    const made = spawnSync('mariadb-install-db', [
      '--no-defaults',
      ...(asRoot ? ['--user=root'] : []),
      `--datadir=${dir}`,
      '--auth-root-authentication-method=normal',
    ]);
    expect(made.status).toBe(0);
    mkdirSync(join(data, 'files'), { mode: 0o755 });
    writeFileSync(join(data, 'notes.json'), '{}', { mode: 0o644 });
    database = await startDatabase(data, await freePort(39_300));
  });
  afterAll(async () => {
    await database?.stop();
    rmSync(data, { recursive: true, force: true });
  });

  it.each(['127.0.0.1', 'localhost', '::1'])(
    'lets no superuser in by %s, with or without the password',
    async (host) => {
      for (const password of ['', database.password])
        await expect(as('root', password, { host })).rejects.toThrow(/Access denied|ECONNREFUSED/);
      await expect(as('root', '', { socketPath: join(dir, 'database.sock') })).rejects.toThrow(/Access denied/);
      await expect(as('', '', { host })).rejects.toThrow(/Access denied|ECONNREFUSED/);
    },
  );

  it('gives the server’s account its own schema and nothing else: no file, no other schema, no account', async () => {
    const db = await as('arch', database.password);
    try {
      expect((await db.query('SHOW DATABASES')).map((r: { Database: string }) => r.Database).sort()).toEqual([
        'information_schema',
        'radiant_arch',
      ]);
      await expect(db.query(`SELECT 'x' INTO OUTFILE '${data}/out'`)).rejects.toThrow(/FILE privilege/);
      await expect(
        db.query("SELECT LOAD_FILE('/etc/passwd') AS f").then((r: { f: unknown }[]) => r[0]?.f),
      ).resolves.toBeNull();
      await expect(db.query('SELECT * FROM mysql.global_priv')).rejects.toThrow(/denied/);
      await expect(db.query("CREATE USER 'x'@'%'")).rejects.toThrow(/denied/);
      await expect(db.query('CREATE DATABASE other')).rejects.toThrow(/denied/);
    } finally {
      await db.end();
    }
  });

  it('has its temporary tables in a folder of its own: another database that starts would take them away', async () => {
    const db = await as('arch', database.password);
    try {
      const [{ folder }] = await db.query('SELECT @@tmpdir AS folder');
      expect(folder).toMatch(/database[^/]*-temporary$|radiant-arch\/[0-9a-f]{16}-temporary$/);
      expect(statSync(folder)).toMatchObject({ uid: statSync(dir).uid });
      expect(statSync(folder).mode & 0o777).toBe(0o700);
    } finally {
      await db.end();
    }
  });

  it('runs as another account when root starts it, and keeps its socket and files to itself', () => {
    const pid = recorded(data, 'database') as number;
    expect(pid).toBe(database.pid());
    expect(uidOf(pid)).toBe(
      asRoot ? Number(spawnSync('id', ['-u', 'mysql'], { encoding: 'utf8' }).stdout) : process.getuid?.(),
    );
    expect(statSync(dir).mode & 0o777).toBe(0o700);
    expect(statSync(join(dir, 'database.sock')).isSocket()).toBe(true);
    expect(statSync(join(data, 'database.secret')).mode & 0o777).toBe(0o600);
    // Others may pass through the folder as far as the database’s own door, and see nothing of what lies beside it.
    if (asRoot) for (const name of ['files', 'notes.json']) expect(statSync(join(data, name)).mode & 0o077).toBe(0);
    expect(statSync(data).mode & 0o066).toBe(0);
  });

  it('that a start which was killed left running is ended by the next one, which has the same data', async () => {
    const db = await as('arch', database.password, { database: 'radiant_arch' });
    await db.query('CREATE TABLE kept (n INT)');
    await db.end();
    await database.stop();
    const script = join(data, 'left.mjs');
    writeFileSync(
      script,
      `import { startDatabase } from ${JSON.stringify(resolve('bin/lib/database.mjs'))};
       const d = await startDatabase(${JSON.stringify(data)}, ${await freePort(39_400)}); process.send(d.pid());`,
    );
    const starter: ChildProcess = fork(script, { execArgv: [], stdio: ['ignore', 'ignore', 'inherit', 'ipc'] });
    const left = await new Promise<number>((done) => starter.once('message', (m) => done(m as number)));
    starter.kill('SIGKILL');
    await new Promise((done) => starter.once('exit', done));
    expect(begunAt(left)).toBeDefined();
    database = await startDatabase(data, await freePort(39_500));
    expect(begunAt(left)).toBeUndefined();
    const again = await as('arch', database.password, { database: 'radiant_arch' });
    expect(await again.query('SELECT * FROM kept')).toHaveLength(0);
    await again.end();
  });
});

describe('what runs on a folder', () => {
  const data = mkdtempSync(join(tmpdir(), 'radiant-running-'));
  afterAll(() => rmSync(data, { recursive: true, force: true }));

  it('is held by one start; a dead one’s hold passes on, another’s process of the same number is not mistaken for it', () => {
    expect(takeFolder(data)).toBeUndefined();
    expect(takeFolder(data)).toBeUndefined();
    const held = join(data, 'running-start.json');
    writeFileSync(held, JSON.stringify({ pid: process.ppid, begun: begunAt(process.ppid) }));
    expect(takeFolder(data)).toBe(process.ppid);
    writeFileSync(held, JSON.stringify({ pid: process.ppid, begun: 1 }));
    expect(takeFolder(data)).toBeUndefined();
    expect(JSON.parse(readFileSync(held, 'utf8'))).toEqual({ pid: process.pid, begun: begunAt(process.pid) });
  });

  it('is ended by its record; a process that only has the same number is left alone', async () => {
    const sleeper = spawn('sleep', ['60']);
    record(data, 'server', sleeper.pid as number);
    await endRecorded(data, 'server');
    expect(begunAt(sleeper.pid as number)).toBeUndefined();
    writeFileSync(join(data, 'running-server.json'), JSON.stringify({ pid: process.ppid, begun: 1 }));
    await endRecorded(data, 'server');
    expect(begunAt(process.ppid)).toBeDefined();
    expect(existsSync(join(data, 'running-server.json'))).toBe(false);
  });

  it.each(['', '\n', 'abc', '0123456789abcdef'])(
    'a secret of %p is half written and made anew; a whole one stays',
    (half) => {
      const file = join(data, 'a.secret');
      writeFileSync(file, half);
      const made = secret(file);
      expect(made).toMatch(/^[0-9a-f]{48}$/);
      expect(secret(file)).toBe(made);
    },
  );
});
