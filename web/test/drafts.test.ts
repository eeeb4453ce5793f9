import 'fake-indexeddb/auto';
import { Drafts } from '../src/data/drafts.js';

/** The little of a browser that a tab needs: its own session store, and the locks of all tabs. */
class Storage {
  private items = new Map<string, string>();
  getItem = (k: string) => this.items.get(k) ?? null;
  setItem = (k: string, v: string) => void this.items.set(k, v);
}
const heldNow = new Set<string>();
const locks = {
  query: async () => ({ held: [...heldNow].map((name) => ({ name })) }),
  request: async (name: string, _: object, work: (lock: object | null) => unknown) => {
    if (heldNow.has(name)) return work(null);
    heldNow.add(name);
    return work({});
  },
};
Object.defineProperty(globalThis, 'navigator', { value: { locks }, configurable: true });
Object.assign(globalThis, { sessionStorage: new Storage() });

const key = (n: number) => Buffer.alloc(32, n).toString('base64');
const draft = (wish: string) => ({ baseVersion: 3, base: { wish: '' }, data: { wish } });
const everything = async (): Promise<Uint8Array[]> =>
  new Promise((done, failed) => {
    const open = indexedDB.open('radiant-arch');
    open.onerror = () => failed(open.error);
    open.onsuccess = () => {
      const all = open.result.transaction('drafts').objectStore('drafts').getAll();
      all.onsuccess = () => done((all.result as { bytes: ArrayBuffer }[]).map((r) => new Uint8Array(r.bytes)));
    };
  });

it('a draft is found again by the person it belongs to, and gone when it is cleared', async () => {
  const mine = await Drafts.open('dentist', key(1));
  await mine.save('case', 'meet', draft('secret wish'));
  expect(await mine.load('case', 'meet')).toEqual(draft('secret wish'));
  expect(await mine.load('case', 'read')).toBeUndefined();
  expect(await mine.count()).toBe(1);
  await mine.clear('case', 'meet');
  expect(await mine.load('case', 'meet')).toBeUndefined();
});

it('nobody else finds it, nor can read it in the browser’s store', async () => {
  const mine = await Drafts.open('dentist', key(1));
  await mine.save('case', 'meet', draft('secret wish'));
  const other = await Drafts.open('assistant', key(2));
  expect(await other.load('case', 'meet')).toBeUndefined();
  expect(await other.count()).toBe(0);
  for (const bytes of await everything()) expect(Buffer.from(bytes).includes('secret')).toBe(false);
  // The same name with another key: the session's key is what opens it.
  expect(await (await Drafts.open('dentist', key(3))).load('case', 'meet')).toBeUndefined();
});

it('work on a file is kept sealed beside the drafts, counts as none, and goes with all of the person’s', async () => {
  const mine = await Drafts.open('dentist', key(1));
  const waiting = await mine.count();
  await mine.keepWork('case', 'scan-1', { acts: ['secret'] });
  expect(await mine.work('case', 'scan-1')).toEqual({ acts: ['secret'] });
  expect(await mine.work('case', 'scan-2')).toBeUndefined();
  expect(await (await Drafts.open('assistant', key(2))).work('case', 'scan-1')).toBeUndefined();
  for (const bytes of await everything()) expect(Buffer.from(bytes).includes('secret')).toBe(false);
  expect(await mine.count()).toBe(waiting);
  await mine.dropWork('case', 'scan-1');
  expect(await mine.work('case', 'scan-1')).toBeUndefined();
  await mine.keepWork('case', 'scan-1', { acts: [] });
  await mine.removeAll();
  expect(await mine.work('case', 'scan-1')).toBeUndefined();
});

it('removing all of a person’s drafts leaves those of others', async () => {
  const [mine, other] = [await Drafts.open('dentist', key(1)), await Drafts.open('assistant', key(2))];
  await mine.save('case', 'meet', draft('a'));
  await mine.save('case', 'read', draft('b'));
  await other.save('case', 'meet', draft('c'));
  await mine.removeAll();
  expect(await mine.count()).toBe(0);
  expect(await other.load('case', 'meet')).toEqual(draft('c'));
});
