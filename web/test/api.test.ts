import { AwayError, api, ProblemError, sentenceOf, speakAs } from '../src/data/api.js';

/** Puts a stand-in for the network in place that answers once and remembers what it was asked. */
function network(answer: Response | Error) {
  const asked: { url: string; init?: RequestInit }[] = [];
  globalThis.fetch = (async (url: string, init?: RequestInit) => {
    asked.push({ url, ...(init && { init }) });
    if (answer instanceof Error) throw answer;
    return answer;
  }) as typeof fetch;
  return asked;
}
const json = (status: number, body: unknown) => new Response(JSON.stringify(body), { status });
const thrownBy = (act: Promise<unknown>) =>
  act.then(
    () => undefined,
    (e: unknown) => e,
  );

describe('asking the server', () => {
  it('goes to its own routes and brings the answer', async () => {
    const asked = network(json(200, { name: 'Avocet' }));
    expect(await api.get('/cases/1')).toEqual({ name: 'Avocet' });
    expect(asked[0]?.url).toBe('/api/cases/1');
  });

  it('sends what is changed as JSON', async () => {
    const asked = network(json(200, {}));
    await api.patch('/cases/1/sections/propose', { version: 3, data: { edgeMm: 0.5 } });
    expect(asked[0]?.init).toMatchObject({
      method: 'PATCH',
      headers: { 'content-type': 'application/json' },
      body: '{"version":3,"data":{"edgeMm":0.5}}',
    });
  });

  it('sends a file as a form, whose border the browser sets', async () => {
    const asked = network(json(200, {}));
    await api.upload('/cases/1/photos', new File(['x'], 'front.jpg'));
    expect(asked[0]?.init?.body).toBeInstanceOf(FormData);
    expect(asked[0]?.init?.headers).toEqual({});
  });

  it('says whose page it is, from when somebody is signed in', async () => {
    speakAs('person-1');
    try {
      const changed = network(json(200, {}));
      await api.patch('/cases/1/sections/meet', {});
      expect(changed[0]?.init?.headers).toEqual({ 'content-type': 'application/json', 'x-radiant-person': 'person-1' });
    } finally {
      speakAs(undefined);
    }
  });

  it('an answer without content is no answer to read', async () => {
    network(new Response(null, { status: 204 }));
    expect(await api.remove('/session')).toBeUndefined();
  });
});

describe('what can go wrong', () => {
  it('a refusal comes with the server’s sentence', async () => {
    network(
      json(422, { type: 'about:blank', title: 'Not accepted', status: 422, detail: 'The edge level is not a number.' }),
    );
    const e = await thrownBy(api.post('/x', {}));
    expect(e).toBeInstanceOf(ProblemError);
    expect(sentenceOf(e)).toBe('The edge level is not a number.');
    expect((e as ProblemError).problem.status).toBe(422);
  });

  it('a refusal without details still has a sentence', async () => {
    network(new Response('<html>', { status: 403 }));
    expect(sentenceOf(await thrownBy(api.get('/x')))).toBe('The server refused this without saying why.');
  });

  it.each<[string, Response | Error, string]>([
    ['no connection', new TypeError('Failed to fetch'), 'The server can’t be reached.'],
    [
      'a database that is away',
      json(503, { detail: 'The database does not answer.' }),
      'The database does not answer.',
    ],
    ['a full disk', json(507, { detail: 'The server’s disk is full.' }), 'The server’s disk is full.'],
    ['a fault of the server', json(500, { detail: 'x is not a function' }), 'The server can’t be reached.'],
    ['a proxy without its server', new Response('Bad Gateway', { status: 502 }), 'The server can’t be reached.'],
  ])('%s means that the edit waits, with the server’s word where it has one', async (_, answer, sentence) => {
    network(answer);
    const e = await thrownBy(api.get('/x'));
    expect(e).toBeInstanceOf(AwayError);
    expect(sentenceOf(e)).toBe(sentence);
  });

  it('what is no error at all still has a sentence', () => {
    expect(sentenceOf('boom')).toBe('Something went wrong.');
  });
});
