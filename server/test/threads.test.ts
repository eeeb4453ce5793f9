import { pathToFileURL } from 'node:url';
import { Threads } from '../src/pool/threads.js';

const ODD = pathToFileURL('server/test/odd-work.mjs').href;
/** Time is short only where it is what ends the work: a thread may take a second to begin beside other tests. */
const BOUNDS = { threads: 1, waiting: 2, memoryMb: 64, timeMs: 40_000 };
const sentence = (work: Promise<unknown>) =>
  work.then(
    () => 'done',
    (e: Error & { getStatus?: () => number }) => `${e.getStatus?.() ?? 0} ${e.message}`,
  );

describe('work in threads', () => {
  let threads: Threads;
  beforeEach(() => {
    threads = new Threads(ODD, BOUNDS);
  });
  afterEach(() => threads.end());

  it('that never ends is ended, and the next is done', async () => {
    const hurried = new Threads(ODD, { ...BOUNDS, timeMs: 1500 });
    expect(await sentence(hurried.run('forever', null))).toBe(
      '413 This took more time than one piece of work may take; nothing was changed.',
    );
    await hurried.end();
    expect(await threads.run('echo', { a: 1 })).toEqual({ a: 1 });
  });

  it('that eats all memory is ended, the server lives, and the next is done', async () => {
    expect(await sentence(threads.run('eat', null))).toBe(
      '413 This took more memory than one piece of work may take; nothing was changed.',
    );
    expect(await threads.run('echo', 7)).toBe(7);
  });

  it('waits in a line of bounded length; more is told that the server is busy', async () => {
    const all = await Promise.all(Array.from({ length: 6 }, () => sentence(threads.run('wait', 200))));
    expect(all.filter((s) => s === 'done')).toHaveLength(3);
    expect(all.filter((s) => s.startsWith('503 The server is busy'))).toHaveLength(3);
  });

  it('that nobody waits for any more is ended, and the next is done', async () => {
    const off = new AbortController();
    const work = sentence(threads.run('forever', null, { signal: off.signal }));
    setTimeout(() => off.abort(), 600);
    expect(await work).toBe('0 Called off; nothing of it was kept.');
    expect(await threads.run('echo', 2)).toBe(2);
  });

  it('tells how far it is, in order, to whoever wants to hear it', async () => {
    const heard: string[] = [];
    const told = ({ what, share }: { what: string; share: number }) => void heard.push(`${what} ${share}`);
    expect(await threads.run('steps', { n: 4 }, { told })).toBe(4);
    expect(heard).toEqual(['step 1 0.25', 'step 2 0.5', 'step 3 0.75', 'step 4 1']);
    expect(await threads.run('steps', { n: 1 })).toBe(1);
  });

  it('that fails by itself fails as it did', async () => {
    expect(await sentence(threads.run('fail', null))).toBe('0 as told');
  });
});
