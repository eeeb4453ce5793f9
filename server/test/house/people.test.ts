import { randomUUID } from 'node:crypto';
import type { CaseDetail, Delivered, Problem, SectionState, Who } from '@radiant/contract';
import { sphere, writeStlBinary } from '@radiant/core';
import { avocetOf, Client, casesOf, inDatabase, signedIn, URL_ } from '../house.js';

const caseOf = async (client: Client) => (await avocetOf(client)).id;

describe('signing in', () => {
  it('gives the person and a cookie that scripts and other sites can’t use', async () => {
    const answer = await new Client().post<Who>('/session', {
      email: 'Dentist@Estuary.example',
      password: 'wading birds at low tide',
    });
    expect(answer.body).toMatchObject({ name: 'Dr Sample Curlew', role: 'dentist' });
    const cookie = answer.headers.get('set-cookie') ?? '';
    expect(cookie).toMatch(/HttpOnly/);
    expect(cookie).toMatch(/SameSite=Strict/);
  });

  it('tells a wrong password and an unknown address alike', async () => {
    const wrong = await new Client().post<Problem>('/session', { email: 'assistant@estuary.example', password: 'no' });
    const unknown = await new Client().post<Problem>('/session', { email: 'nobody@estuary.example', password: 'no' });
    expect(wrong.status).toBe(401);
    expect(wrong.body).toEqual(unknown.body);
    expect(wrong.headers.get('content-type')).toContain('application/problem+json');
  });

  it('is slowed after five wrong tries, also for the right password', async () => {
    const email = 'slow@estuary.example';
    for (let i = 0; i < 5; i++)
      expect((await new Client().post('/session', { email, password: 'no' })).status).toBe(401);
    const sixth = await new Client().post<Problem>('/session', { email, password: 'no' });
    expect(sixth.status).toBe(429);
    expect(sixth.body.detail).toMatch(/^Too many wrong tries; wait \d minutes?\.$/);
  });

  it('keeps passwords as argon2id only', async () => {
    const rows = await inDatabase(
      async (run) => (await run('SELECT password_hash FROM people')) as { password_hash: string }[],
    );
    expect(rows.length).toBeGreaterThan(2);
    for (const r of rows) expect(r.password_hash).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
  });

  it('ends with signing out: the old cookie opens nothing', async () => {
    const client = await signedIn('assistant');
    expect((await client.get('/cases')).status).toBe(200);
    await client.call('DELETE', '/session');
    expect((await client.get('/cases')).status).toBe(401);
  });
});

describe('who sees what', () => {
  it.each(['/cases', `/cases/${randomUUID()}`, '/people', `/cases/${randomUUID()}/plan.pdf`])(
    'without a session %s is refused',
    async (path) => {
      expect((await new Client().get<Problem>(path)).body).toEqual({
        type: 'about:blank',
        title: 'Not signed in',
        status: 401,
        detail: 'Sign in first.',
      });
    },
  );

  it('another practice’s case is told as one that does not exist', async () => {
    const foreign = randomUUID();
    await inDatabase(async (run) => {
      const practice = randomUUID();
      await run('INSERT INTO practices (id, name) VALUES (?, ?)', [practice, 'Another practice']);
      await run('INSERT INTO cases (id, practice_id, name, opened_at, changed_at) VALUES (?, ?, ?, NOW(3), NOW(3))', [
        foreign,
        practice,
        'Foreign',
      ]);
    });
    const dentist = await signedIn('dentist');
    const other = await dentist.get<Problem>(`/cases/${foreign}`);
    const none = await dentist.get<Problem>(`/cases/${randomUUID()}`);
    expect(other.status).toBe(404);
    expect(other.body).toEqual(none.body);
    expect((await dentist.patch(`/cases/${foreign}/sections/meet`, { version: 0, data: { wish: 'x' } })).status).toBe(
      404,
    );
    expect(await casesOf(dentist, 'Foreign')).toEqual([]);
  });

  it('a technician reads, comments and puts wax-ups in, and changes nothing', async () => {
    const technician = await signedIn('technician');
    const id = await caseOf(technician);
    expect((await technician.get(`/cases/${id}`)).status).toBe(200);
    for (const name of ['meet', 'read', 'propose', 'shape', 'reduce'])
      expect((await technician.patch(`/cases/${id}/sections/${name}`, { version: 1, data: {} })).status).toBe(403);
    expect((await technician.post('/cases', { name: 'Mine' })).status).toBe(403);
    expect((await technician.upload(`/cases/${id}/files?kind=photo`, 'x', 'x.jpg')).status).toBe(403);
    const bytes = Buffer.from(writeStlBinary(sphere(9)));
    const before = await technician.upload<Problem>(`/cases/${id}/files?kind=scan&state=before`, bytes, 'mouth.stl');
    expect([before.status, before.body.detail]).toEqual([
      403,
      'A technician hands wax-ups over; scans of the mouth as it was are the practice’s.',
    ]);
    const wax = await technician.upload<Delivered>(`/cases/${id}/files?kind=scan`, bytes, 'wax-up.stl');
    expect(wax.body).toMatchObject({
      state: 'mock-up',
      role: 'original',
      origin: 'uploaded by Technician Sample Ruff',
    });
    expect((await technician.patch(`/cases/${id}/files/${wax.body.id}`, { state: 'before' })).status).toBe(403);
    expect((await technician.call('DELETE', `/cases/${id}/files/${wax.body.id}`)).status).toBe(403);
    const said = await technician.post<{ by: string; role: string }>(`/cases/${id}/comments`, {
      stage: 'shape',
      body: 'Contacts look tight.',
    });
    expect(said.body).toMatchObject({ by: 'Technician Sample Ruff', role: 'technician' });
  });

  it('a technician answers on a place of a preparation, and the place comes back as it was sent', async () => {
    const assistant = await signedIn('assistant');
    const { id } = (await assistant.post<CaseDetail>('/cases', { name: 'Answered', meet: { ageYears: 40 } })).body;
    const technician = await signedIn('technician');
    const place = { tooth: 11, check: 'finish', words: 'mesial finish line', at: [1.25, -2, 3.5] };
    await technician.post(`/cases/${id}/comments`, { stage: 'verify', body: 'I can’t see the root beyond it.', place });
    await technician.post(`/cases/${id}/comments`, { stage: 'verify', body: 'The rest is clear.' });
    const [first, second] = (await technician.get<CaseDetail>(`/cases/${id}`)).body.comments;
    expect([first?.place, second && 'place' in second]).toEqual([place, false]);
  });

  it('an assistant types readings of prepared teeth, and takes nothing as it is', async () => {
    const assistant = await signedIn('assistant');
    const { id } = (await assistant.post<CaseDetail>('/cases', { name: 'Read by hand', meet: { ageYears: 40 } })).body;
    const reading = { tooth: 11, way: 'index', place: 'edge', mm: 1.2 };
    const put = (version: number, data: object) =>
      assistant.patch<Problem & SectionState<'verify'>>(`/cases/${id}/sections/verify`, { version, data });
    const typed = await put(0, { readings: [reading], accepted: [] });
    expect([typed.status, typed.body.version]).toEqual([200, 1]);
    const at = '2026-01-01T10:00:00.000Z';
    const taken = { tooth: 11, check: 'room', place: 'edge', reason: 'late', by: 'me', at, found: '0.3 short' };
    const refused = await put(1, { readings: [reading], accepted: [taken] });
    expect([refused.status, refused.body.detail]).toEqual([
      403,
      'The dentist decides on verify; you may write readings by hand there.',
    ]);
    expect((await put(0, { readings: [], accepted: [taken] })).status).toBe(409);
    const dentist = await signedIn('dentist');
    expect(
      (await dentist.patch(`/cases/${id}/sections/verify`, { version: 1, data: { readings: [], accepted: [taken] } }))
        .status,
    ).toBe(200);
    // What the dentist took stays where the assistant changes a reading.
    expect((await put(2, { readings: [reading], accepted: [taken] })).status).toBe(200);
  });

  it('an assistant keeps records and measures, and leaves decisions to the dentist', async () => {
    const assistant = await signedIn('assistant');
    const id = await caseOf(assistant);
    const refused = await assistant.patch<Problem>(`/cases/${id}/sections/reduce`, {
      version: 1,
      data: { design: 'even', from: 'tooth' },
    });
    expect(refused.status).toBe(403);
    expect(refused.body.detail).toBe('The dentist decides on reduce; you may read it.');
    expect(
      (
        await assistant.post('/people', {
          name: 'A',
          email: 'a@b.example',
          password: 'long enough now',
          role: 'dentist',
        })
      ).status,
    ).toBe(403);
  });

  it('a dentist adds a person, once an address', async () => {
    const dentist = await signedIn('dentist');
    const person = {
      name: 'Sample Dunlin',
      email: 'dunlin@estuary.example',
      password: 'long enough now',
      role: 'assistant',
    };
    expect((await dentist.post<Who>('/people', person)).body).toMatchObject({ role: 'assistant' });
    expect((await dentist.post<Problem>('/people', person)).body.errors?.[0]?.field).toBe('email');
    const { role: _, ...account } = person;
    expect((await new Client().post<Problem>('/first-account', { ...account, practice: 'P' })).status).toBe(403);
  });
});

describe('the house at its door', () => {
  it('sends a strict content policy with every answer', async () => {
    const page = await fetch(URL_);
    const policy = page.headers.get('content-security-policy') ?? '';
    expect(policy).toContain("default-src 'none'");
    expect(policy).toContain("script-src 'self' 'wasm-unsafe-eval';");
    expect(policy.replace("'wasm-unsafe-eval'", '')).not.toContain('unsafe');
    expect(page.headers.get('x-content-type-options')).toBe('nosniff');
    expect(page.headers.get('x-powered-by')).toBeNull();
    const nonce = /'nonce-([^']+)'/.exec(policy)?.[1] as string;
    expect(await page.text()).toContain(nonce);
  });

  it('gives the one page that evaluates text no rights, and no other page that one', async () => {
    const frame = await fetch(`${URL_}/face-mesh/frame.html`);
    expect(frame.status).toBe(200);
    const policy = frame.headers.get('content-security-policy') ?? '';
    // Of no origin: no cookies, no storage, nothing of ours can be read (HTML, sandboxing).
    expect(policy).toMatch(/^sandbox allow-scripts; default-src 'none';/);
    expect(policy).not.toContain('allow-same-origin');
    expect(policy).toContain("'unsafe-eval'");
    expect(policy).toContain("frame-ancestors 'self'");
    expect(policy).toContain(`connect-src ${URL_}/face-mesh/ blob:`);
    for (const path of ['/', '/cases/x/read', '/api/health'])
      expect((await fetch(`${URL_}${path}`)).headers.get('content-security-policy')).not.toContain("'unsafe-eval'");
    expect((await fetch(`${URL_}/face-mesh/elsewhere.js`)).status).toBe(404);
  });

  it('refuses changes that another site’s page sends', async () => {
    const answer = await new Client().call<Problem>(
      'POST',
      '/session',
      { email: 'a@b.example', password: 'x' },
      { origin: 'http://elsewhere.example' },
    );
    expect(answer.status).toBe(403);
  });

  it('says that server and database answer', async () => {
    expect((await new Client().get('/health')).body).toEqual({ server: 'up', database: 'up', disk: 'room' });
  });

  it('describes every route in OpenAPI, with the contract’s schemas', async () => {
    const { body } = await new Client().get<{
      openapi: string;
      paths: Record<string, unknown>;
      components: { schemas: Record<string, { required?: string[] }> };
    }>('/openapi.json');
    expect(body.openapi).toMatch(/^3\./);
    for (const path of [
      '/api/session',
      '/api/cases/{id}/sections/{name}',
      '/api/cases/{caseId}/files',
      '/api/cases/{id}/plan.pdf',
      '/api/health',
    ])
      expect(body.paths).toHaveProperty([path]);
    expect(body.components.schemas.SectionChange?.required).toEqual(expect.arrayContaining(['version', 'data']));
    expect(body.components.schemas).toHaveProperty('Problem');
  });

  it('answers an unknown route with problem details and an unknown page with the application', async () => {
    expect((await new Client().get<Problem>('/nothing')).body.status).toBe(404);
    expect(await (await fetch(`${URL_}/cases/x/read`)).text()).toContain('<div id="root">');
  });
});
