import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  chmodSync,
  chownSync,
  existsSync,
  mkdirSync,
  openSync,
  readdirSync,
  realpathSync,
  renameSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { createConnection } from 'node:net';
import { dirname, join } from 'node:path';
import { end, freePort, run } from './process.mjs';
import { endRecorded, forget, record } from './running.mjs';
import { secret } from './secret.mjs';

/** Debian's package makes this account; a database that root starts runs as it, never as root. */
const DATABASE_ACCOUNT = 'mysql';
/** Where the database lies when its account can't enter the data folder (below /root, say). */
const ELSEWHERE = '/var/lib/radiant-arch';
/** An empty folder beside the database, the only one that statements could name. */
const NO_FILES = 'no-files';
export const SCHEMA = 'radiant_arch';
export const USER = 'arch';

/**
 * Starts MariaDB on loopback with its data in DIR/database, made on first use. It is started again when it ends by
 * itself. What an earlier start left running is ended first. Returns { port, password, pid, stop }.
 */
export async function startDatabase(dataDir, firstPort) {
  mkdirSync(dataDir, { recursive: true, mode: 0o700 });
  await endRecorded(dataDir, 'database');
  const account = process.getuid() === 0 ? accountIds() : undefined;
  const dir = databaseFolder(dataDir, account);
  const user = account ? [`--user=${DATABASE_ACCOUNT}`] : [];
  // A database that starts takes away the temporary tables that it finds: in a shared folder they may be another's.
  const temporary = `${dir}-temporary`;
  mkdirSync(temporary, { recursive: true, mode: 0o700 });
  if (account) chownSync(temporary, account.uid, account.gid);
  const folders = [`--datadir=${dir}`, `--tmpdir=${temporary}`];
  if (!existsSync(join(dir, 'mysql')))
    await run(
      'mariadb-install-db',
      ['--no-defaults', ...user, ...folders, '--auth-root-authentication-method=normal', '--skip-test-db'],
      { quiet: true },
    );
  // A folder from before may hold files of root's.
  if (account) await run('chown', ['-R', `${DATABASE_ACCOUNT}:`, `${dir}/`]);
  const password = secret(join(dataDir, 'database.secret'));
  const init = join(dir, 'init.sql');
  writeFileSync(init, initSql(password), { mode: 0o600 });
  if (account) chownSync(init, account.uid, account.gid);
  // The only folder that statements could read or write files in: empty, and nobody may write there.
  const noFiles = join(dirname(dir), NO_FILES);
  mkdirSync(noFiles, { recursive: true, mode: 0o555 });
  const port = await freePort(firstPort);
  writeFileSync(join(dataDir, 'database.port'), String(port), { mode: 0o600 });
  const log = openSync(join(dataDir, 'database.log'), 'a', 0o600);
  const args = [
    '--no-defaults',
    ...user,
    ...folders,
    '--bind-address=127.0.0.1',
    `--port=${port}`,
    // Relative to the data folder, in which the database stands: names of sockets are short, folders may not be.
    '--socket=database.sock',
    '--pid-file=database.pid',
    `--init-file=${init}`,
    `--secure-file-priv=${noFiles}`,
    '--local-infile=0',
    '--skip-name-resolve',
    '--character-set-server=utf8mb4',
    '--collation-server=utf8mb4_unicode_ci',
    '--innodb-flush-log-at-trx-commit=1',
    '--max-allowed-packet=64M',
    '--max-connections=200',
    '--skip-log-bin',
  ];
  let stopping = false;
  let child;
  const launch = () => {
    // A group of its own, so that Ctrl-C reaches only us and the server can finish before its database goes.
    child = spawn('/usr/sbin/mariadbd', args, { stdio: ['ignore', log, log], detached: true });
    record(dataDir, 'database', child.pid);
    child.on('exit', (code) => {
      if (stopping) return;
      console.error(`the database ended (${code}); starting it again`);
      setTimeout(() => !stopping && launch(), 1000);
    });
  };
  launch();
  const stop = async () => {
    stopping = true;
    await end(child);
    forget(dataDir, 'database');
  };
  try {
    await answers(port, () => child.exitCode !== null, join(dataDir, 'database.log'));
  } catch (error) {
    await stop();
    throw error;
  }
  return { port, password, pid: () => child.pid, stop };
}

/** @throws Error when the account is missing */
function accountIds() {
  const id = (flag) =>
    Number(spawnSync('id', [flag, DATABASE_ACCOUNT], { encoding: 'utf8' }).stdout.trim() || Number.NaN);
  const ids = { uid: id('-u'), gid: id('-g') };
  if (Number.isInteger(ids.uid) && Number.isInteger(ids.gid) && ids.uid !== 0) return ids;
  throw new Error(
    `Started as root, the database runs as “${DATABASE_ACCOUNT}”; this account is missing. Install mariadb-server again, or start as another user.`,
  );
}

/**
 * DIR/database, which only the database's account may enter. Where that account can't come as far as DIR, the folder
 * lies below ELSEWHERE and DIR/database points to it.
 */
function databaseFolder(dataDir, account) {
  const dir = join(dataDir, 'database');
  if (!account) {
    mkdirSync(dir, { recursive: true, mode: 0o700 });
    return dir;
  }
  // It may pass through, and see nothing on the way: what lies beside it is closed before the door is opened that far.
  for (const entry of readdirSync(dataDir, { withFileTypes: true }))
    if (entry.isDirectory() && entry.name !== 'database' && entry.name !== NO_FILES)
      chmodSync(join(dataDir, entry.name), 0o700);
    else if (entry.isFile()) chmodSync(join(dataDir, entry.name), 0o600);
  chmodSync(dataDir, 0o711);
  mkdirSync(dir, { recursive: true });
  const real = realpathSync(dir);
  chownSync(real, account.uid, account.gid);
  chmodSync(real, 0o700);
  if (enters(real, account)) return real;
  if (real !== dir) throw new Error(`The database’s folder ${real} can’t be entered by “${DATABASE_ACCOUNT}”.`);
  const name = createHash('sha256').update(dataDir).digest('hex').slice(0, 16);
  const elsewhere = join(ELSEWHERE, name);
  mkdirSync(dirname(elsewhere), { recursive: true, mode: 0o711 });
  if (existsSync(elsewhere)) renameSync(elsewhere, `${elsewhere}-left-${Date.now()}`);
  // What DIR/database holds already goes along: by copy, since it may be another disk.
  const moved = spawnSync('cp', ['-a', dir, elsewhere]);
  if (moved.status !== 0 || !enters(elsewhere, account))
    throw new Error(`The database’s folder can’t be put into ${elsewhere}.`);
  renameSync(dir, `${dir}-moved`);
  symlinkSync(elsewhere, dir);
  console.log(`the database lies in ${elsewhere}: “${DATABASE_ACCOUNT}” can’t enter ${dataDir}`);
  return elsewhere;
}

const enters = (dir, { uid, gid }) => spawnSync('test', ['-x', dir], { uid, gid, cwd: '/' }).status === 0;

/**
 * Run at every start; says the same each time, and takes away whatever else an older or foreign hand has put in. There
 * is one account: it comes from loopback with the password in DIR, and has nothing but its own schema. No superuser is
 * left.
 */
function initSql(password) {
  const others = `NOT (User = '${USER}' AND Host = '127.0.0.1') AND User <> 'mariadb.sys'`;
  return [
    `CREATE DATABASE IF NOT EXISTS ${SCHEMA} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;`,
    `CREATE OR REPLACE USER '${USER}'@'127.0.0.1' IDENTIFIED BY '${password}';`,
    `GRANT ALL ON ${SCHEMA}.* TO '${USER}'@'127.0.0.1';`,
    `DELETE FROM mysql.global_priv WHERE ${others};`,
    `DELETE FROM mysql.db WHERE ${others};`,
    'DELETE FROM mysql.proxies_priv;',
    'FLUSH PRIVILEGES;',
    '',
  ].join('\n');
}

async function answers(port, ended, log) {
  for (let i = 0; i < 300; i++) {
    if (await greeted(port)) return;
    if (i > 20 && ended()) break;
    await new Promise((r) => setTimeout(r, 100));
  }
  throw new Error(`The database did not start; see ${log}.`);
}

/** MariaDB speaks first: a greeting means that it takes connections. */
function greeted(port) {
  return new Promise((done) => {
    const s = createConnection({ host: '127.0.0.1', port });
    const finish = (v) => {
      s.destroy();
      done(v);
    };
    s.once('data', () => finish(true));
    s.once('error', () => finish(false));
    s.setTimeout(500, () => finish(false));
  });
}
