import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, openSync, readFileSync, writeFileSync } from 'node:fs';
import { createConnection } from 'node:net';
import { join } from 'node:path';
import { end, freePort, run } from './process.mjs';

/**
 * Starts MariaDB on loopback with its data in DIR/database, made on first use. It is started again when it ends by itself.
 * Returns { port, password, stop, kill }.
 */
export async function startDatabase(dataDir, firstPort) {
  const dir = join(dataDir, 'database');
  mkdirSync(dataDir, { recursive: true, mode: 0o700 });
  const user = process.getuid() === 0 ? ['--user=root'] : [];
  if (!existsSync(join(dir, 'mysql'))) {
    mkdirSync(dir, { recursive: true });
    await run('mariadb-install-db', ['--no-defaults', ...user, `--datadir=${dir}`, '--auth-root-authentication-method=normal', '--skip-test-db'], {
      quiet: true,
    });
  }
  const password = secret(join(dataDir, 'database.secret'));
  const init = join(dataDir, 'database.init.sql');
  writeFileSync(init, initSql(password), { mode: 0o600 });
  const port = await freePort(firstPort);
  writeFileSync(join(dataDir, 'database.port'), String(port));
  // Sockets have short names; /tmp keeps them below the limit wherever DIR lies.
  const socket = join('/tmp', `radiant-${process.pid}-${port}.sock`);
  const log = openSync(join(dataDir, 'database.log'), 'a');
  const args = [
    '--no-defaults',
    ...user,
    `--datadir=${dir}`,
    '--bind-address=127.0.0.1',
    `--port=${port}`,
    `--socket=${socket}`,
    `--pid-file=${join(dataDir, 'database.pid')}`,
    `--init-file=${init}`,
    '--skip-name-resolve',
    '--character-set-server=utf8mb4',
    '--collation-server=utf8mb4_unicode_ci',
    '--innodb-flush-log-at-trx-commit=1',
    '--max-allowed-packet=64M',
    '--skip-log-bin',
  ];
  let stopping = false;
  let child;
  const launch = () => {
    // A group of its own, so that Ctrl-C reaches only us and the server can finish before its database goes.
    child = spawn('/usr/sbin/mariadbd', args, { stdio: ['ignore', log, log], detached: true });
    child.on('exit', (code) => {
      if (stopping) return;
      console.error(`the database ended (${code}); starting it again`);
      setTimeout(() => !stopping && launch(), 1000);
    });
  };
  launch();
  await answers(port, () => child.exitCode !== null, join(dataDir, 'database.log'));
  return {
    port,
    password,
    pid: () => child.pid,
    stop: async () => {
      stopping = true;
      await end(child);
    },
  };
}

function secret(path) {
  if (!existsSync(path)) writeFileSync(path, randomBytes(24).toString('hex'), { mode: 0o600 });
  return readFileSync(path, 'utf8').trim();
}

/** Run at every start; says the same each time. Nobody gets in without the password in DIR. */
function initSql(password) {
  return [
    'CREATE DATABASE IF NOT EXISTS radiant_arch CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;',
    `CREATE OR REPLACE USER 'arch'@'127.0.0.1' IDENTIFIED BY '${password}';`,
    "GRANT ALL ON radiant_arch.* TO 'arch'@'127.0.0.1';",
    `ALTER USER 'root'@'localhost' IDENTIFIED BY '${password}';`,
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
