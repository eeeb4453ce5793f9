import { randomUUID } from 'node:crypto';
import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createConnection } from 'mariadb';
import { launchHouse } from '../bin/lib/house.mjs';
import { freePort } from '../bin/lib/process.mjs';
import { figure } from './figure.mjs';

// A practice with ten thousand cases and fifty people who all look at their list of cases, one question after the
// other, for some seconds; then five of them ask for a plan each while somebody asks for health. Everything on this
// machine: the people, the server and the database share its processors.

const CASES = 10_000;
const USERS = 50;
/** A person looks at what came before asking for more. */
const LOOKS_MS = 1000;
const SECONDS = 15;
const LIMIT_MS = 100;
const HEALTH_MS = 50;
const BODY_MS = 200;

const data = mkdtempSync(join(tmpdir(), 'radiant-load-'));
chmodSync(data, 0o711);
const port = await freePort(39_900);
const house = await launchHouse({ port, data });
const agent = new Agent({ keepAlive: true, maxSockets: USERS + 10 });

function ask(path, { cookie = '', method = 'GET', body, read = true } = {}) {
  return new Promise((done, failed) => {
    const begun = performance.now();
    const r = request(
      {
        host: '127.0.0.1',
        port,
        path: `/api${path}`,
        method,
        agent,
        headers: { cookie, ...(body && { 'content-type': 'application/json' }) },
      },
      (answer) => {
        const chunks = [];
        // Making megabytes into text here would stop the clock that is read beside it.
        answer.on('data', (c) => read && chunks.push(c));
        answer.on('end', () =>
          done({
            ms: performance.now() - begun,
            status: answer.statusCode,
            cookie: answer.headers['set-cookie']?.[0]?.split(';')[0],
            text: Buffer.concat(chunks).toString(),
          }),
        );
      },
    );
    r.on('error', failed);
    r.end(body && JSON.stringify(body));
  });
}
const limited = (name, ms, limitMs) => figure(name, ms, 'ms', `limit:${limitMs}ms`, limitMs / ms);
const percentile = (all, share) =>
  [...all].sort((a, b) => a - b)[Math.min(all.length - 1, Math.floor(share * all.length))];

try {
  const db = await createConnection({
    host: '127.0.0.1',
    port: Number(readFileSync(join(data, 'database.port'), 'utf8')),
    user: 'arch',
    password: readFileSync(join(data, 'database.secret'), 'utf8').trim(),
    database: 'radiant_arch',
  });
  const [{ id: practice }] = await db.query('SELECT id FROM practices LIMIT 1');
  for (let at = 0; at < CASES; at += 500) {
    const ids = Array.from({ length: 500 }, () => randomUUID());
    await db.batch(
      'INSERT INTO cases (id, practice_id, name, opened_at, changed_at, finish_by) VALUES (?, ?, ?, NOW(3), NOW(3) - INTERVAL ? MINUTE, NULL)',
      ids.map((id, i) => [id, practice, `Case ${String(at + i).padStart(5, '0')}`, at + i + 10]),
    );
    for (const name of ['meet', 'read', 'shape'])
      await db.batch(
        'INSERT INTO case_sections (case_id, name, version, data, by_name, at) VALUES (?, ?, 1, ?, ?, NOW(3))',
        ids.map((id) => [
          id,
          name,
          JSON.stringify({
            wish: 'longer and even',
            ageYears: 34,
            views: [{ view: 'retracted-front', landmarks: Array.from({ length: 24 }, (_, k) => ({ x: k, y: k })) }],
          }),
          'x',
        ]),
      );
  }
  await db.end();

  const cookies = [];
  for (let i = 0; i < USERS; i++)
    cookies.push(
      (
        await ask('/session', {
          method: 'POST',
          body: { email: 'dentist@estuary.example', password: 'wading birds at low tide' },
        })
      ).cookie,
    );
  const questions = ['/cases', '/cases?page=3', '/cases?search=042', '/cases?sort=name&page=11', '/cases?sort=finish'];
  for (const q of questions) await ask(q, { cookie: cookies[0] });

  const times = [];
  let refused = 0;
  const end = Date.now() + SECONDS * 1000;
  const person = async (cookie, i) => {
    await new Promise((r) => setTimeout(r, (i * LOOKS_MS) / USERS));
    for (let k = i; Date.now() < end; k++) {
      const { ms, status } = await ask(questions[k % questions.length], { cookie });
      times.push(ms);
      if (status !== 200) refused++;
      await new Promise((r) => setTimeout(r, Math.max(0, LOOKS_MS - ms)));
    }
  };
  await Promise.all(cookies.map(person));
  if (refused > 0) throw new Error(`${refused} of ${times.length} questions were refused.`);
  limited('list-of-cases-p95', percentile(times, 0.95), LIMIT_MS);

  // Without a pause between questions: as many as the machine answers.
  const closed = [];
  const stop = Date.now() + 5000;
  await Promise.all(
    cookies.map(async (cookie, i) => {
      for (let k = i; Date.now() < stop; k++) closed.push((await ask(questions[k % questions.length], { cookie })).ms);
    }),
  );
  limited('list-of-cases-without-pause-p95', percentile(closed, 0.95), LIMIT_MS);
  console.log(`lists-answered-a-second ${(closed.length / 5).toFixed(0)}`);

  const avocet = JSON.parse((await ask('/cases?search=Avocet', { cookie: cookies[0] })).text).cases[0].id;
  const health = [];
  let making = true;
  const asking = (async () => {
    while (making) {
      health.push((await ask('/health')).ms);
      await new Promise((r) => setTimeout(r, 20));
    }
  })();
  const work = [
    'plan.pdf',
    'plan.pdf?notation=universal',
    'contour.stl?what=mock-up',
    'contour.obj?what=planned',
    'contour.3mf?what=existing',
    'case.json',
  ];
  await Promise.all(work.map((w) => ask(`/cases/${avocet}/${w}`, { cookie: cookies[1], read: false })));
  making = false;
  await asking;
  limited('health-while-documents-are-made-p95', percentile(health, 0.95), HEALTH_MS);
  limited('health-while-documents-are-made-longest', Math.max(...health), HEALTH_MS);

  // The largest and oddest bodies that a route takes, one after the other; how long others wait for their answer
  // meanwhile.
  const fields = `{"version":0,"data":{${Array.from({ length: 110_000 }, (_, i) => `"f${i}":[]`).join(',')}}}`;
  const stroke = JSON.stringify({
    tool: 'add',
    radiusMm: 1,
    amount: 0.1,
    at: Array.from({ length: 45 }, (_, i) => 10_000 + i),
  });
  const teeth = [11, 12, 13, 21, 22, 23, 31, 41].map(
    (t) =>
      `{"tooth":${t},"lengthMm":10,"widthMm":8,"facialVolumeMm":0,"rotationDeg":0,"strokes":[${Array.from({ length: 200 }, () => stroke).join(',')}]}`,
  );
  const bodies = [
    fields,
    `{"version":0,"data":{"teeth":[${Array.from({ length: 600_000 }, () => '{}').join(',')}]}}`,
    `{"version":0,"data":${'['.repeat(900_000)}${']'.repeat(900_000)}}`,
    `{"version":0,"data":{"teeth":[${Array.from({ length: 150_000 }, () => '1e99').join(',')}]}}`,
    `{"version":9,"data":{"teeth":[${teeth.join(',')}]}}`,
  ];
  const waits = [];
  let sending = true;
  const waiting = (async () => {
    while (sending) {
      waits.push((await ask('/health')).ms);
      await new Promise((r) => setTimeout(r, 4));
    }
  })();
  for (const body of bodies)
    for (let i = 0; i < 3; i++)
      for (const [path, cookie] of [
        [`/cases/${avocet}/sections/shape`, cookies[1]],
        ['/session', ''],
      ])
        await new Promise((done) => {
          const r = request(
            {
              host: '127.0.0.1',
              port,
              path: `/api${path}`,
              method: path === '/session' ? 'POST' : 'PATCH',
              agent,
              headers: { cookie, 'content-type': 'application/json' },
            },
            (answer) => {
              answer.resume();
              answer.on('end', done);
            },
          );
          r.on('error', done);
          r.end(body);
        });
  sending = false;
  await waiting;
  limited('waiting-behind-the-worst-bodies-longest', Math.max(...waits), BODY_MS);
} finally {
  agent.destroy();
  await house.stop();
  rmSync(data, { recursive: true, force: true });
}
