import { readdirSync, statSync } from 'node:fs';
import { request } from 'node:http';
import { join } from 'node:path';
import type { Colleague, Problem, Who } from '@radiant/contract';
import { recoveryCode } from '../../../bin/lib/owner.mjs';
import { Client, DATA, inDatabase, PORT, signedIn } from '../house.js';

const wrong = (email: string, headers: Record<string, string> = {}) =>
  new Client().call<Problem>('POST', '/session', { email, password: 'no' }, headers);
const someone = async (name: string): Promise<{ id: string; email: string; password: string; client: Client }> => {
  const dentist = await signedIn('dentist');
  const person = { email: `${name}@door.example`, password: `the first word of ${name}` };
  const { id } = (await dentist.post<Who>('/people', { ...person, name: `Sample ${name}`, role: 'dentist' })).body;
  const client = new Client();
  expect((await client.post('/session', person)).status).toBe(200);
  return { id, ...person, client };
};

describe('tries to sign in', () => {
  it('at the same moment can’t pass together: of thirty, five are looked at', async () => {
    const statuses = await Promise.all(
      Array.from({ length: 30 }, async () => (await wrong('parallel@door.example')).status),
    );
    expect(statuses.filter((s) => s === 401).length).toBeLessThanOrEqual(5);
    expect(statuses.filter((s) => s === 429).length).toBeGreaterThanOrEqual(25);
  });

  it('with an address that the caller makes up are counted as the caller’s', async () => {
    const statuses: number[] = [];
    for (let i = 0; i < 8; i++)
      statuses.push((await wrong('forwarded@door.example', { 'x-forwarded-for': `10.0.0.${i}` })).status);
    expect(statuses).toEqual([401, 401, 401, 401, 401, 429, 429, 429]);
  });

  it('are counted without names, forgotten when right, and swept when their time is over', async () => {
    const ada = await someone('ada');
    for (let i = 0; i < 3; i++) await wrong(ada.email);
    expect((await new Client().post('/session', { email: ada.email, password: ada.password })).status).toBe(200);
    for (let i = 0; i < 5; i++) expect((await wrong(ada.email)).status).toBe(401);
    const rows = await inDatabase(
      async (run) => (await run('SELECT name, failures FROM sign_in_tries')) as { name: string }[],
    );
    for (const r of rows) expect(r.name).toMatch(/^[0-9a-f]{64}$/);
    // What other tests have counted from this address is made to be long ago.
    await inDatabase((run) => run('UPDATE sign_in_tries SET window_ends = NOW() - INTERVAL 1 DAY'));
  });

  it('for one name from anywhere end too, later than from one place', async () => {
    await inDatabase(async (run) => {
      const { createHash } = await import('node:crypto');
      const key = createHash('sha256').update(['account', 'many@door.example'].join('\0')).digest('hex');
      await run('REPLACE INTO sign_in_tries (name, failures, window_ends) VALUES (?, 30, NOW() + INTERVAL 10 MINUTE)', [
        key,
      ]);
    });
    expect((await wrong('many@door.example')).status).toBe(429);
    expect((await wrong('few@door.example')).status).toBe(401);
  });
});

describe('a session', () => {
  it('ends twelve hours after signing in, whatever is done in it', async () => {
    const bob = await someone('bob');
    const age = (hours: number) =>
      inDatabase(async (run) => {
        const rows = (await run('SELECT sid, data FROM sessions')) as { sid: string; data: string }[];
        for (const r of rows) {
          const data = JSON.parse(r.data) as { personId?: string; since?: number };
          if (data.personId === bob.id)
            await run('UPDATE sessions SET data = ? WHERE sid = ?', [
              JSON.stringify({ ...data, since: Date.now() - hours * 3600_000 }),
              r.sid,
            ]);
        }
      });
    await age(11.9);
    expect((await bob.client.get('/cases')).status).toBe(200);
    await age(12.01);
    expect((await bob.client.get('/cases')).status).toBe(401);
  });

  it('that was signed out stays so, also for what was under way', async () => {
    const { client } = await someone('cleo');
    const under = Array.from({ length: 12 }, () => client.get('/cases'));
    await client.call('DELETE', '/session');
    await Promise.all(under);
    expect((await client.get('/cases')).status).toBe(401);
  });

  it('of others ends with a new password; one’s own goes on, the old password opens nothing', async () => {
    const dan = await someone('dan');
    const elsewhere = new Client();
    await elsewhere.post('/session', { email: dan.email, password: dan.password });
    expect(
      (
        await dan.client.post<Problem>('/people/me/password', {
          current: 'not this one',
          password: 'another long word',
        })
      ).body.detail,
    ).toBe('This is not your present password.');
    expect((await elsewhere.get('/cases')).status).toBe(200);
    expect(
      (await dan.client.post('/people/me/password', { current: dan.password, password: 'another long word' })).status,
    ).toBe(204);
    expect((await dan.client.get('/cases')).status).toBe(200);
    expect((await elsewhere.get('/cases')).status).toBe(401);
    expect((await new Client().post('/session', { email: dan.email, password: dan.password })).status).toBe(401);
    expect((await new Client().post('/session', { email: dan.email, password: 'another long word' })).status).toBe(200);
  });
});

describe('people who go', () => {
  it('are signed out and kept out; their name stays; they can come back', async () => {
    const dentist = await signedIn('dentist');
    const eve = await someone('eve');
    expect((await dentist.call('POST', `/people/${eve.id}/end`, {})).status).toBe(204);
    expect((await eve.client.get('/cases')).status).toBe(401);
    expect((await new Client().post('/session', { email: eve.email, password: eve.password })).status).toBe(401);
    const gone = (await dentist.get<Colleague[]>('/people')).body.find((p) => p.id === eve.id);
    expect(gone).toMatchObject({ name: 'Sample eve', endedAt: expect.any(String) });
    await dentist.call('POST', `/people/${eve.id}/bring-back`, {});
    expect((await new Client().post('/session', { email: eve.email, password: eve.password })).status).toBe(200);
  });

  it('can’t end themselves, nor be ended by an assistant, nor from another practice', async () => {
    const finn = await someone('finn');
    expect((await finn.client.call<Problem>('POST', `/people/${finn.id}/end`, {})).body.detail).toBe(
      'Another dentist of the practice can end your account; you can’t yourself.',
    );
    for (const what of ['end', 'sign-out', 'bring-back', 'password'])
      expect((await (await signedIn('assistant')).call('POST', `/people/${finn.id}/${what}`, {})).status).toBe(403);
    await inDatabase(async (run) => {
      await run("INSERT INTO practices (id, name) VALUES ('00000000-0000-4000-8000-0000000000aa', 'Elsewhere')");
      await run("UPDATE people SET practice_id = '00000000-0000-4000-8000-0000000000aa' WHERE id = ?", [finn.id]);
    });
    const dentist = await signedIn('dentist');
    expect((await dentist.call('POST', `/people/${finn.id}/end`, {})).status).toBe(404);
    expect((await finn.client.get('/cases')).status).toBe(200);
  });

  it('are signed out by a dentist, or given a first password', async () => {
    const dentist = await signedIn('dentist');
    const gus = await someone('gus');
    expect((await dentist.call('POST', `/people/${gus.id}/sign-out`, {})).status).toBe(204);
    expect((await gus.client.get('/cases')).status).toBe(401);
    expect((await dentist.post(`/people/${gus.id}/password`, { password: 'given by a dentist' })).status).toBe(204);
    expect((await new Client().post('/session', { email: gus.email, password: 'given by a dentist' })).status).toBe(
      200,
    );
  });
});

describe('the way back in', () => {
  it('is a code from the machine itself, good once, with the right address, and for half an hour', async () => {
    const hal = await someone('hal');
    const { code, name } = await recoveryCode(DATA, hal.email);
    expect(name).toBe('Sample hal');
    expect(code).toMatch(/^[A-Z2-7]{4}(-[A-Z2-7]{4}){5}$/);
    const back = (email: string, c: string) =>
      new Client().post<Problem>('/recovery', { email, code: c, password: 'chosen after recovery' });
    expect((await back('ada@door.example', code)).status).toBe(401);
    expect((await back(hal.email, 'AAAA-AAAA-AAAA-AAAA-AAAA-AAAA')).status).toBe(401);
    const two = await Promise.all([back(hal.email, code), back(hal.email, code.toLowerCase().replaceAll('-', ' '))]);
    expect(two.map((a) => a.status).sort()).toEqual([200, 401]);
    expect((await hal.client.get('/cases')).status).toBe(401);
    expect((await new Client().post('/session', { email: hal.email, password: 'chosen after recovery' })).status).toBe(
      200,
    );
    const late = await recoveryCode(DATA, hal.email);
    await inDatabase((run) => run('UPDATE recovery_codes SET expires_at = NOW() - INTERVAL 1 SECOND'));
    expect((await back(hal.email, late.code)).status).toBe(401);
  });

  it('asks which dentist where there are several, and knows no others', async () => {
    await expect(recoveryCode(DATA)).rejects.toThrow(/several dentists; choose one with --email/);
    await expect(recoveryCode(DATA, 'assistant@estuary.example')).rejects.toThrow(/no dentist with the address/);
  });
});

it('nobody else of the machine sees what the house keeps: every folder and file of its own is closed to others', () => {
  // The log is the tests’ own; the empty folder is there to be looked into.
  const kept = readdirSync(DATA).filter((name) => name !== 'house.log' && name !== 'no-files');
  expect(kept).toEqual(
    expect.arrayContaining(['files', 'inbox', 'incoming', 'session.secret', 'database.secret', 'database']),
  );
  expect(kept.filter((name) => (statSync(join(DATA, name)).mode & 0o077) !== 0)).toEqual([]);
});

describe('what every answer says', () => {
  it('of the interface: nobody keeps it, and a page may ask the browser for nothing', async () => {
    const dentist = await signedIn('dentist');
    for (const path of ['/cases', '/session', '/people', '/arrivals']) {
      const { headers } = await dentist.get(path);
      expect(headers.get('cache-control')).toBe('no-store');
      expect(headers.get('permissions-policy')).toMatch(/camera=\(\).*geolocation=\(\).*microphone=\(\)/);
    }
  });

  it('is packed where the browser can unpack it', async () => {
    const answer = await fetch(`http://127.0.0.1:${PORT}/api/openapi.json`, { headers: { 'accept-encoding': 'gzip' } });
    expect(answer.headers.get('content-encoding')).toBe('gzip');
    expect(await answer.json()).toHaveProperty('openapi');
  });

  it.each([
    ['evil.example', 421],
    [`evil.example:${PORT}`, 421],
    ['127.0.0.1.evil.example', 421],
    [`localhost:${PORT}`, 200],
    [`127.0.0.1:${PORT}`, 200],
  ])('to the name %s is %i: another page’s name that points here is not ours', async (host, status) => {
    const seen = await new Promise<number>((done, failed) => {
      request({ host: '127.0.0.1', port: PORT, path: '/api/health', headers: { host } }, (r) => {
        r.resume();
        done(r.statusCode ?? 0);
      })
        .once('error', failed)
        .end();
    });
    expect(seen).toBe(status);
  });
});
