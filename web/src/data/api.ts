import type { Problem } from '@radiant/contract';
import { watched } from './slow.js';

/** A refusal of the server, with its problem details. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
    this.name = 'ProblemError';
  }
}

/** The server or its database could not be reached. */
export class AwayError extends Error {
  /** @param said why, where the server has said so: its disk is full, it is busy */
  constructor(readonly said?: string) {
    super(said ?? 'The server can’t be reached.');
    this.name = 'AwayError';
  }
}

async function answer<T>(response: Response): Promise<T> {
  if (response.ok) return response.status === 204 ? (undefined as T) : ((await response.json()) as T);
  const problem = (await response.json().catch(() => undefined)) as Problem | undefined;
  if (response.status >= 500) throw new AwayError(response.status === 500 ? undefined : problem?.detail);
  throw new ProblemError(
    problem ?? {
      type: 'about:blank',
      title: 'Refused',
      status: response.status,
      detail: 'The server refused this without saying why.',
    },
  );
}

/** Whose page this is: what it sends counts only while the same person is signed in, whatever other tabs have done. */
let person: string | undefined;
export function speakAs(personId: string | undefined): void {
  person = personId;
}

export const PERSON_HEADER = 'x-radiant-person';
export const personHeader = (): Record<string, string> => (person ? { [PERSON_HEADER]: person } : {});

async function call<T>(path: string, init?: RequestInit): Promise<T> {
  let response: Response;
  try {
    response = await watched(fetch(`/api${path}`, { ...init, headers: { ...init?.headers, ...personHeader() } }));
  } catch {
    throw new AwayError();
  }
  return answer<T>(response);
}

const json = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
});

/** @throws ProblemError, AwayError */
export const api = {
  /** @param signal by which it is called off */
  get: <T>(path: string, signal?: AbortSignal) => call<T>(path, signal && { signal }),
  post: <T>(path: string, body: unknown) => call<T>(path, json('POST', body)),
  put: <T>(path: string, body: unknown) => call<T>(path, json('PUT', body)),
  patch: <T>(path: string, body: unknown) => call<T>(path, json('PATCH', body)),
  remove: <T>(path: string) => call<T>(path, { method: 'DELETE' }),
  upload: <T>(path: string, file: File) => {
    const body = new FormData();
    body.append('file', file);
    return call<T>(path, { method: 'POST', body });
  },
};

/** The sentence for people in whatever was thrown. */
export function sentenceOf(error: unknown): string {
  return error instanceof Error ? error.message : 'Something went wrong.';
}
