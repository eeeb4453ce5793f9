import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { CasePage, CaseSummary } from '@radiant/contract';
import { createConnection } from 'mariadb';

/** The running house that the tests talk to. */
export const DATA = process.env.RADIANT_TEST_DATA as string;
export const PORT = Number(process.env.RADIANT_TEST_PORT);
export const URL_ = `http://127.0.0.1:${PORT}`;

export const PEOPLE = {
  dentist: 'dentist@estuary.example',
  assistant: 'assistant@estuary.example',
  technician: 'technician@estuary.example',
} as const;
export const PASSWORD = 'wading birds at low tide';

export interface Answer<T = Record<string, never>> {
  readonly status: number;
  readonly headers: Headers;
  readonly body: T;
}

/**
 * After long arithmetic in a test the server has closed idle connections: some turns of the loop let that be noticed.
 */
const noticed = () => new Promise((r) => setTimeout(r, 20));

/**
 * A server may close an idle connection at the very moment at which it is used again. What changes nothing is then asked
 * once more, as browsers do (RFC 9110, 9.2.2).
 */
async function asked(url: string, init: RequestInit): Promise<Response> {
  try {
    return await fetch(url, init);
  } catch (error) {
    const { code } = ((error as Error).cause ?? {}) as { code?: string };
    if ((init.method ?? 'GET') !== 'GET' || (code !== 'UND_ERR_SOCKET' && code !== 'ECONNRESET')) throw error;
    return fetch(url, init);
  }
}

/** One browser's worth of requests: keeps its cookie. */
export class Client {
  private cookie = '';

  constructor(private readonly base = URL_) {}

  /** Name and value of its session's cookie. */
  get session(): [string, string] {
    const at = this.cookie.indexOf('=');
    return [this.cookie.slice(0, at), this.cookie.slice(at + 1)];
  }

  async call<T = never>(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Answer<T>> {
    await noticed();
    const form = body instanceof FormData;
    const response = await asked(`${this.base}/api${path}`, {
      method,
      headers: {
        ...(this.cookie && { cookie: this.cookie }),
        ...(body !== undefined && !form && { 'content-type': 'application/json' }),
        ...headers,
      },
      ...(body !== undefined && { body: form ? body : JSON.stringify(body) }),
    });
    const set = response.headers.get('set-cookie');
    if (set) this.cookie = set.split(';')[0] as string;
    const text = await response.text();
    let parsed: unknown = text;
    try {
      parsed = JSON.parse(text);
    } catch {
      // PDF and other bytes stay text.
    }
    return { status: response.status, headers: response.headers, body: parsed as T };
  }

  /** A request with a body as it stands, and the answer as text. */
  async raw(method: string, path: string, body?: string): Promise<{ status: number; text: string }> {
    const response = await fetch(`${this.base}/api${path}`, {
      method,
      headers: {
        ...(this.cookie && { cookie: this.cookie }),
        ...(body !== undefined && { 'content-type': 'application/json' }),
      },
      ...(body !== undefined && { body }),
    });
    return { status: response.status, text: await response.text() };
  }

  get = <T>(path: string) => this.call<T>('GET', path);
  post = <T>(path: string, body: unknown) => this.call<T>('POST', path, body);
  patch = <T>(path: string, body: unknown) => this.call<T>('PATCH', path, body);

  async bytes(path: string): Promise<Uint8Array> {
    await noticed();
    const response = await asked(`${this.base}/api${path}`, { headers: { cookie: this.cookie } });
    return new Uint8Array(await response.arrayBuffer());
  }

  upload<T>(path: string, bytes: Uint8Array | string, name: string): Promise<Answer<T>> {
    const form = new FormData();
    form.append('file', new Blob([typeof bytes === 'string' ? Buffer.from(bytes) : (bytes as BlobPart)]), name);
    return this.call<T>('POST', path, form);
  }

  async signIn(role: keyof typeof PEOPLE): Promise<this> {
    const { status } = await this.post('/session', { email: PEOPLE[role], password: PASSWORD });
    if (status !== 200) throw new Error(`Signing in as ${role} gave ${status}.`);
    return this;
  }
}

/** The cases on the first page, found by their name. */
export const casesOf = async (client: Client, search = ''): Promise<readonly CaseSummary[]> =>
  (await client.get<CasePage>(`/cases?search=${encodeURIComponent(search)}`)).body.cases;

/** The first sample case. */
export const avocetOf = async (client: Client): Promise<CaseSummary> =>
  (await casesOf(client, 'Avocet')).find((c) => c.name === 'Avocet') as CaseSummary;

export const signedIn = (role: keyof typeof PEOPLE): Promise<Client> => new Client().signIn(role);

/** Where the test database is, and how one comes in. */
export const databaseOf = () => ({
  port: Number(readFileSync(join(DATA, 'database.port'), 'utf8')),
  user: 'arch',
  password: readFileSync(join(DATA, 'database.secret'), 'utf8').trim(),
  name: 'radiant_arch',
});

/** Runs statements on the test database itself, for what no route can set up. */
export async function inDatabase<T>(
  work: (run: (sql: string, values?: unknown[]) => Promise<unknown>) => Promise<T>,
): Promise<T> {
  const { name: database, ...rest } = databaseOf();
  const db = await createConnection({ host: '127.0.0.1', database, ...rest });
  try {
    return await work((sql, values) => db.query(sql, values));
  } finally {
    await db.end();
  }
}

/** The process number of the house's database. */
export const databasePid = (data = DATA): number =>
  JSON.parse(readFileSync(join(data, 'running-database.json'), 'utf8')).pid as number;

/** Waits until something holds; fails after the given time with what was awaited. */
export async function until(what: string, holds: () => Promise<boolean>, ms = 30_000): Promise<void> {
  const end = Date.now() + ms;
  while (Date.now() < end) {
    if (await holds().catch(() => false)) return;
    await new Promise((r) => setTimeout(r, 200));
  }
  throw new Error(`Waited ${ms} ms in vain: ${what}`);
}
