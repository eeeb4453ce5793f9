import { connect } from '../dist/database/connect.js';
import { migrate } from '../dist/database/migrations.js';
import { headsIn } from '../dist/files/store.js';

// Brings a database to the newest form and dies on the way, as the tests of migrations want it: whole, killed behind
// its nth statement that changes something, or, in one process, broken off behind every nth one of them in turn,
// beginning with another on each day.
const [port, password, what, nth, first] = process.argv.slice(2);
const open = () => connect({ port: Number(port), user: 'arch', password, name: 'radiant_arch' }, { patient: true });

function dying(db, at, die) {
  let count = 0;
  const query = db.query.bind(db);
  db.query = async (sql, options) => {
    const out = await query(sql, options);
    if (/^\s*(CREATE|ALTER|INSERT|UPDATE|DELETE)/i.test(typeof sql === 'string' ? sql : sql.query) && ++count === at)
      die();
    return out;
  };
  return db;
}

class Broken extends Error {}

/** Whether the whole way was gone before the nth statement came. */
async function brokenOff(at) {
  const db = dying(open(), at, () => {
    throw new Broken();
  });
  try {
    await migrate(db);
    return false;
  } catch (error) {
    if (error instanceof Broken || error.cause instanceof Broken || /Broken/.test(String(error.cause ?? error.message)))
      return true;
    throw error;
  } finally {
    await db.close();
  }
}

async function whole(files) {
  const db = open();
  await migrate(db, files && headsIn(files));
  await db.close();
}

async function anew() {
  const db = open();
  await db.query('DROP DATABASE radiant_arch');
  await db.query('CREATE DATABASE radiant_arch CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci');
  await db.close();
}

/** Every column, index and foreign key, as text. */
async function form() {
  const db = open();
  const rows = await db.query(
    `SELECT CONCAT_WS(' ', table_name, column_name, column_type, is_nullable, column_default, column_key) AS line FROM information_schema.columns WHERE table_schema = 'radiant_arch'
     UNION ALL SELECT CONCAT_WS(' ', table_name, non_unique, seq_in_index, column_name) FROM information_schema.statistics WHERE table_schema = 'radiant_arch'
     UNION ALL SELECT CONCAT_WS(' ', table_name, column_name, referenced_table_name) FROM information_schema.key_column_usage WHERE table_schema = 'radiant_arch' AND referenced_table_name IS NOT NULL`,
    { type: 'SELECT' },
  );
  await db.close();
  return rows.map((r) => r.line).sort();
}

if (what === 'kill') {
  await migrate(dying(open(), Number(nth), () => process.kill(process.pid, 'SIGKILL')));
} else if (what === 'everywhere') {
  await anew();
  await whole();
  const wanted = await form();
  const wrong = [];
  const tried = [];
  for (let at = Number(first); ; at += Number(nth)) {
    await anew();
    if (!(await brokenOff(at))) break;
    await whole();
    tried.push(at);
    if (JSON.stringify(await form()) !== JSON.stringify(wanted)) wrong.push(at);
  }
  process.send({ lines: wanted.length, tried, wrong });
  process.disconnect();
} else {
  // Here the next word is the folder with the kept files.
  await whole(nth);
  if (process.send) {
    process.send({ form: await form() });
    process.disconnect();
  }
}
