import { type Delivered, PHOTO_MOST_BYTES } from '@radiant/contract';
import { AwayError, ProblemError } from '../src/data/api.js';
import { UploadQueue } from '../src/data/upload-queue.js';

/** A server whose answers are given one by one, in the order of the test's choosing. */
function server() {
  const pending: {
    path: string;
    name: string;
    told: (n: number) => void;
    done: (d: Delivered) => void;
    failed: (e: unknown) => void;
  }[] = [];
  const send = (path: string, file: File, told: (n: number) => void, signal: AbortSignal) =>
    new Promise<Delivered>((done, failed) => {
      pending.push({ path, name: file.name, told, done, failed });
      signal.addEventListener('abort', () => failed(new DOMException('called off', 'AbortError')));
    });
  const answer = async (name: string, what: 'arrived' | 'already' | Error) => {
    const own = pending.filter((p) => p.name === name).at(-1);
    if (what instanceof Error) own?.failed(what);
    else own?.done({ already: what === 'already' } as Delivered);
    await new Promise((r) => setTimeout(r));
  };
  return { pending, send, answer };
}
const files = (...names: string[]) => names.map((n) => new File(['x'], n));
const refusal = (detail: string) => new ProblemError({ type: '', title: '', status: 422, detail });

describe('many files at once', () => {
  it('go two at a time, each when one before it has ended', async () => {
    const s = server();
    const q = new UploadQueue('c', () => undefined, s.send);
    q.add(files('a', 'b', 'c', 'd'));
    expect(s.pending.map((p) => p.name)).toEqual(['a', 'b']);
    await s.answer('b', 'arrived');
    expect(s.pending.map((p) => p.name)).toEqual(['a', 'b', 'c']);
    await s.answer('a', 'arrived');
    await s.answer('c', 'arrived');
    await s.answer('d', 'arrived');
    expect(q.snapshot().every((i) => i.state === 'done')).toBe(true);
  });

  it('have each their own fate, told in a sentence', async () => {
    const s = server();
    let arrived = 0;
    const q = new UploadQueue('c', () => arrived++, s.send);
    q.add(files('good', 'bad', 'twice', 'cut'));
    await s.answer('good', 'arrived');
    await s.answer('bad', refusal('This is not a JPEG or PNG picture.'));
    await s.answer('twice', 'already');
    await s.answer('cut', new AwayError());
    expect(q.snapshot().map((i) => [i.name, i.state, i.sentence])).toEqual([
      ['good', 'done', undefined],
      ['bad', 'refused', 'This is not a JPEG or PNG picture.'],
      ['twice', 'already', 'The case holds this picture already.'],
      ['cut', 'cut', 'The connection was cut; nothing of it was kept. Send it again.'],
    ]);
    expect(arrived).toBe(2);
  });

  it('one that was cut off is sent again and arrives', async () => {
    const s = server();
    const q = new UploadQueue('c', () => undefined, s.send);
    q.add(files('a'));
    await s.answer('a', new AwayError());
    q.again(q.snapshot()[0]?.key as number);
    expect(s.pending).toHaveLength(2);
    await s.answer('a', 'arrived');
    expect(q.snapshot()).toEqual([{ key: 1, name: 'a', share: 1, state: 'done' }]);
  });

  it('tell how far each has got', async () => {
    const s = server();
    const q = new UploadQueue('c', () => undefined, s.send);
    const shares: number[] = [];
    q.subscribe(() => shares.push(q.snapshot()[0]?.share ?? -1));
    q.add(files('a'));
    s.pending[0]?.told(0.4);
    s.pending[0]?.told(0.9);
    expect(shares).toEqual(expect.arrayContaining([0, 0.4, 0.9]));
  });

  it('over 50 MB are refused before a byte is sent', () => {
    const s = server();
    const q = new UploadQueue('c', () => undefined, s.send);
    const big = new File([], 'big');
    Object.defineProperty(big, 'size', { value: PHOTO_MOST_BYTES + 1 });
    q.add([big]);
    expect(s.pending).toEqual([]);
    expect(q.snapshot()[0]).toMatchObject({ state: 'refused', sentence: 'The file is larger than 50 MB.' });
  });

  it('called off, stop at once: what has arrived stays, the rest can be sent again', async () => {
    const s = server();
    const q = new UploadQueue('c', () => undefined, s.send);
    q.add(files('a', 'b', 'c'));
    await s.answer('a', 'arrived');
    q.callOff();
    await new Promise((r) => setTimeout(r));
    expect(q.snapshot().map((i) => i.state)).toEqual(['done', 'cut', 'cut']);
    q.clear();
    expect(q.snapshot()).toEqual([]);
  });

  it('dropped on a place of the wall say its view and state with the file', () => {
    const s = server();
    const q = new UploadQueue('c', () => undefined, s.send);
    q.add(files('a'), { view: 'close-smile', state: 'mock-up' });
    expect(s.pending[0]?.path).toBe('/cases/c/files?kind=photo&view=close-smile&state=mock-up');
  });
});
