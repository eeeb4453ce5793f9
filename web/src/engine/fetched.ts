import { Refusal } from '@radiant/core';

/** Fetches a file of the case, telling how far it is. @throws Refusal `scan-not-fetched` */
export async function fetched(url: string, told: (share: number) => void = () => undefined): Promise<Uint8Array> {
  const response = await fetch(url).catch(() => undefined);
  if (!response?.ok || !response.body)
    throw new Refusal('scan-not-fetched', 'The scan can’t be fetched.', response?.status);
  const size = Number(response.headers.get('content-length') ?? 0);
  const reader = response.body.getReader();
  const parts: Uint8Array[] = [];
  let got = 0;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    parts.push(value);
    got += value.length;
    if (size > 0) told(got / size);
  }
  const out = new Uint8Array(got);
  let at = 0;
  for (const p of parts) {
    out.set(p, at);
    at += p.length;
  }
  return out;
}
