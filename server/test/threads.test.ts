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

  it('that fails by itself fails as it did', async () => {
    expect(await sentence(threads.run('fail', null))).toBe('0 as told');
  });
});
