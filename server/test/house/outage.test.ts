import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { CaseDetail, Problem } from '@radiant/contract';
import { launchHouse } from '../../../bin/lib/house.mjs';
import { Client, DATA, databasePid, PORT, signedIn, until } from '../house.js';

it('a killed database is told, comes back by itself, and has lost nothing', async () => {
  const dentist = await signedIn('dentist');
  const made = (await dentist.post<CaseDetail>('/cases', { name: 'Outlives the database' })).body;
  await dentist.patch(`/cases/${made.id}/sections/meet`, { version: 0, data: { wish: 'kept' } });
  process.kill(databasePid(), 'SIGKILL');
  await until(
    'the outage shows',
    async () => (await new Client().get<{ database: string }>('/health')).body.database === 'away',
    5000,
  );
  const refused = await dentist.get<Problem>('/cases');
  expect([503, 200]).toContain(refused.status);
  if (refused.status === 503) expect(refused.body.detail).toMatch(/database does not answer/);
  await until(
    'the database is back',
    async () => (await new Client().get<{ database: string }>('/health')).status === 200,
  );
  await until('the session still holds', async () => (await dentist.get('/cases')).status === 200);
  expect((await dentist.get<CaseDetail>(`/cases/${made.id}`)).body.sections.meet).toMatchObject({
    version: 1,
    data: { wish: 'kept' },
  });
});

it('a database that hangs is told within two seconds, and when it goes on so does the work', async () => {
  const dentist = await signedIn('dentist');
  const pid = databasePid();
  process.kill(pid, 'SIGSTOP');
  try {
    // What was asked a moment before may be told once more.
    await new Promise((r) => setTimeout(r, 400));
    const asked = new Client().get<{ database: string }>('/health').then((a) => ({ a, late: false }));
    const answer = await Promise.race([
      asked,
      new Promise<{ late: true }>((r) => setTimeout(() => r({ late: true }), 2000)),
    ]);
    expect(answer).toMatchObject({ late: false, a: { status: 503, body: { server: 'up', database: 'away' } } });
  } finally {
    process.kill(pid, 'SIGCONT');
  }
  await until('the work goes on', async () => (await dentist.get('/cases')).status === 200);
});

it('a killed server is started again; the database is left alone and sessions hold', async () => {
  const dentist = await signedIn('dentist');
  const before = databasePid();
  process.kill(JSON.parse(readFileSync(join(DATA, 'running-server.json'), 'utf8')).pid as number, 'SIGKILL');
  await until('the server is back', async () => (await dentist.get('/cases')).status === 200);
  expect(databasePid()).toBe(before);
});

it('a second start on the same folder is refused in a sentence and disturbs nothing', async () => {
  await expect(launchHouse({ port: PORT + 60, data: DATA, empty: true })).rejects.toThrow(
    /Radiant Arch runs on .* already \(process \d+\)/,
  );
  expect((await new Client().get('/health')).status).toBe(200);
});

describe('an empty house of its own, beside the other one', () => {
  const data = mkdtempSync(join(tmpdir(), 'radiant-empty-'));
  afterAll(() => rmSync(data, { recursive: true, force: true }));

  it('asks for a first account, keeps it over a restart, and ends cleanly', async () => {
    // Beyond the houses of the other lanes, which may be up at the same time.
    const port = PORT + 100;
    const house = await launchHouse({ port, data, empty: true });
    const first = house
      .output()
      .split('\n')
      .find((l) => l.startsWith('ready'));
    expect(first).toBe(`ready http://127.0.0.1:${port}`);
    const client = new Client(house.url);
    const account = {
      practice: 'New practice',
      name: 'Sample Person',
      email: 'first@new.example',
      password: 'a long first password',
    };
    try {
      expect((await client.get('/session')).body).toEqual({
        who: null,
        firstAccountNeeded: true,
        draftKey: null,
        drafts: 'sealed',
      });
      expect((await client.post<Problem>('/first-account', { ...account, password: 'short' })).body.detail).toBe(
        'The password needs at least 10 characters.',
      );
      expect((await client.post('/first-account', account)).status).toBe(201);
      expect((await client.get('/cases')).body).toEqual({ cases: [], total: 0, page: 0, pages: 1, binned: 0 });
    } finally {
      await house.stop();
    }
    expect(house.child.exitCode).toBe(0);

    const killed = await launchHouse({ port, data, empty: true });
    killed.child.kill('SIGKILL');
    // The next start finds what the killed one has left running, on the same port, and ends it.
    const begun = await launchHouse({ port, data, empty: true });
    try {
      // The session lives in the database: the same cookie still opens the door.
      expect((await client.get<{ who: { name: string } }>('/session')).body.who.name).toBe('Sample Person');
    } finally {
      await begun.stop();
    }
  });
});
