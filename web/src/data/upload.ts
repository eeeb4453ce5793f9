import type { Delivered, Problem } from '@radiant/contract';
import { AwayError, ProblemError, personHeader } from './api.js';

/**
 * Sends one file and tells how far it has got, 0 to 1; `fetch` can't tell.
 * @throws ProblemError when the server refuses, AwayError when the connection is cut, DOMException AbortError when
 *   called off
 */
export function sendFile(
  path: string,
  file: File,
  told: (share: number) => void,
  signal: AbortSignal,
): Promise<Delivered> {
  return new Promise((done, failed) => {
    const body = new FormData();
    body.append('file', file);
    const request = new XMLHttpRequest();
    request.open('POST', `/api${path}`);
    for (const [name, value] of Object.entries(personHeader())) request.setRequestHeader(name, value);
    request.upload.onprogress = (e) => e.lengthComputable && told(e.loaded / e.total);
    request.onerror = () => failed(new AwayError());
    request.onabort = () => failed(new DOMException('called off', 'AbortError'));
    request.onload = () => {
      const answer = parsed(request.responseText);
      if (request.status >= 200 && request.status < 300) done(answer as Delivered);
      else if (request.status >= 500 || request.status === 0)
        failed(new AwayError((answer as Problem | undefined)?.detail));
      else
        failed(
          new ProblemError(
            (answer as Problem | undefined) ?? {
              type: 'about:blank',
              title: 'Refused',
              status: request.status,
              detail: 'The server refused this without saying why.',
            },
          ),
        );
    };
    signal.addEventListener('abort', () => request.abort());
    request.send(body);
  });
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
