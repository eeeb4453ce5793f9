import { jest } from '@jest/globals';
import type { SectionState } from '@radiant/contract';
import { assemble, differences } from '../src/data/differences.js';
import { SectionStore, same } from '../src/data/section-store.js';

/** The little of a browser that the store needs. */
class Storage {
  private items = new Map<string, string>();
  getItem = (k: string) => this.items.get(k) ?? null;
  setItem = (k: string, v: string) => void this.items.set(k, v);
  removeItem = (k: string) => void this.items.delete(k);
}
const drafts = new Storage();
Object.assign(globalThis, { localStorage: drafts, sessionStorage: new Storage() });

type Propose = SectionState<'propose'>;
const state = (version: number, edgeMm: number): Propose => ({
  name: 'propose',
  version,
  data: { school: 'ratio', referenceTooth: 11, edgeMm },
  by: 'A',
  at: null,
});
const edge = (s: SectionStore<'propose'>) => s.snapshot().data.edgeMm;
const set = (s: SectionStore<'propose'>, edgeMm: number, group?: string) => s.set({ school: 'ratio', referenceTooth: 11, edgeMm }, group);

/** A server that answers each request as told. */
function server(answer: (body: { version: number; data: { edgeMm: number } }) => { status: number; body: unknown } | 'away') {
  const sent: { version: number; data: { edgeMm: number } }[] = [];
  globalThis.fetch = (async (_: unknown, init: RequestInit) => {
    const body = JSON.parse(String(init.body));
    sent.push(body);
    const a = answer(body);
    if (a === 'away') throw new TypeError('fetch failed');
    return new Response(JSON.stringify(a.body), { status: a.status });
  }) as typeof fetch;
  return sent;
}
const accept = (body: { version: number; data: { edgeMm: number } }) => ({ status: 200, body: state(body.version + 1, body.data.edgeMm) });
const pass = (ms: number) => jest.advanceTimersByTimeAsync(ms);

beforeEach(() => {
  jest.useFakeTimers();
});
afterEach(() => {
  jest.useRealTimers();
});

describe('a section on the page', () => {
  it('saves the last of quick changes once, and knows the new version', async () => {
    const sent = server(accept);
    const s = new SectionStore('c1', state(3, 0));
    set(s, 0.1, 'drag');
    set(s, 0.2, 'drag');
    set(s, 0.3, 'drag');
    expect(s.snapshot().status).toBe('waiting');
    await pass(600);
    expect(sent).toEqual([{ version: 3, data: { school: 'ratio', referenceTooth: 11, edgeMm: 0.3 } }]);
    expect(s.snapshot()).toMatchObject({ status: 'saved', version: 4 });
  });

  it('takes back one drag by one undo, and does it again', async () => {
    server(accept);
    const s = new SectionStore('c2', state(1, 0));
    set(s, 0.5, 'drag');
    set(s, 0.7, 'drag');
    s.endGroup();
    set(s, 1.5, 'drag');
    s.undo();
    expect(edge(s)).toBe(0.7);
    s.undo();
    expect(edge(s)).toBe(0);
    expect(s.snapshot().canUndo).toBe(false);
    s.redo();
    s.redo();
    expect(edge(s)).toBe(1.5);
    await pass(600);
    expect(s.snapshot().version).toBe(2);
  });

  it('keeps an edit while the server is away and sends it when it is back', async () => {
    let away = true;
    server((b) => (away ? 'away' : accept(b)));
    const s = new SectionStore('c3', state(1, 0));
    set(s, 0.9);
    await pass(600);
    expect(s.snapshot().status).toBe('away');
    expect(edge(s)).toBe(0.9);
    away = false;
    await pass(2100);
    expect(s.snapshot()).toMatchObject({ status: 'saved', version: 2 });
  });

  it('a page that is opened again finds the edit that was not sent', async () => {
    server(() => 'away');
    const before = new SectionStore('c4', state(1, 0));
    set(before, 0.8);
    server(accept);
    const after = new SectionStore('c4', state(1, 0));
    await pass(10);
    expect(edge(after)).toBe(0.8);
    await pass(600);
    expect(after.snapshot().status).toBe('saved');
  });

  it('meets another’s change with both at hand, and sends nothing until the person has chosen', async () => {
    const sent = server((b) => (b.version === 1 ? { status: 409, body: { type: '', title: '', status: 409, detail: '', current: state(5, 3) } } : accept(b)));
    const s = new SectionStore('c5', state(1, 0));
    set(s, 2);
    await pass(600);
    expect(s.snapshot()).toMatchObject({ status: 'conflict', conflict: { version: 5, data: { edgeMm: 3 } } });
    set(s, 2.1);
    await pass(5000);
    expect(sent).toHaveLength(1);
    s.resolve('mine');
    await pass(10);
    expect(sent[1]).toMatchObject({ version: 5, data: { edgeMm: 2.1 } });
    expect(s.snapshot()).toMatchObject({ status: 'saved', version: 6 });
  });

  it('taking theirs drops the edit, and undo still has it', async () => {
    server(() => ({ status: 409, body: { type: '', title: '', status: 409, detail: '', current: state(5, 3) } }));
    const s = new SectionStore('c6', state(1, 0));
    set(s, 2);
    await pass(600);
    s.resolve('theirs');
    expect(edge(s)).toBe(3);
    s.undo();
    expect(edge(s)).toBe(2);
  });

  it('the same content from another is no conflict', async () => {
    server(() => ({ status: 409, body: { type: '', title: '', status: 409, detail: '', current: state(2, 2) } }));
    const s = new SectionStore('c7', state(1, 0));
    set(s, 2);
    await pass(600);
    expect(s.snapshot()).toMatchObject({ status: 'saved', version: 2 });
  });

  it('a refusal is shown and the edit kept; the next change is sent again', async () => {
    server((b) => (b.data.edgeMm > 4 ? { status: 422, body: { type: '', title: '', status: 422, detail: 'Too far.' } } : accept(b)));
    const s = new SectionStore('c8', state(1, 0));
    set(s, 9);
    await pass(600);
    expect(s.snapshot()).toMatchObject({ status: 'refused', refusal: { detail: 'Too far.' }, data: { edgeMm: 9 } });
    set(s, 1);
    await pass(600);
    expect(s.snapshot()).toMatchObject({ status: 'saved' });
    expect(s.snapshot().refusal).toBeUndefined();
  });

  it('news from the server is shown at once while nothing is being edited', () => {
    const s = new SectionStore('c9', state(1, 0));
    s.serverHas(state(2, 1.5));
    expect(edge(s)).toBe(1.5);
    s.serverHas(state(1, 0));
    expect(edge(s)).toBe(1.5);
  });
});

describe('two contents side by side', () => {
  const tooth = (t: number, lengthMm: number) => ({ tooth: t, lengthMm, widthMm: 8 });
  const mine = { proposalVersion: 1, teeth: [tooth(11, 10), tooth(21, 10)] };
  const theirs = { proposalVersion: 2, teeth: [tooth(11, 10.5), tooth(21, 10)] };

  it('differ where they differ, tooth by tooth and number by number', () => {
    expect(differences(mine, theirs)).toEqual([
      { key: 'proposalVersion', label: 'set to proposal', mine: '1', theirs: '2' },
      { key: 'teeth/11/lengthMm', label: '11, length, mm', mine: '10', theirs: '10.5' },
    ]);
  });

  it('are put together by the choice for each line', () => {
    expect(assemble(mine, theirs, (k) => (k === 'proposalVersion' ? 'theirs' : 'mine'))).toEqual({ ...mine, proposalVersion: 2 });
    expect(assemble(mine, theirs, () => 'theirs')).toEqual(theirs);
  });

  it('a landmark that one has taken away stays away when that side is chosen', () => {
    const a = { landmarks: [{ tooth: 11, kind: 'edge', x: 1, y: 2 }] };
    const b = { landmarks: [] };
    expect(differences(a, b)[0]).toMatchObject({ label: '11 edge', mine: '1.0, 2.0 px', theirs: 'none' });
    expect(assemble(a, b, () => 'theirs')).toEqual(b);
  });

  it('are the same whatever the order of their fields, and null as good as absent', () => {
    expect(same({ a: 1, b: null, c: [1, 2] }, { c: [1, 2], a: 1 })).toBe(true);
    expect(same({ c: [1, 2] }, { c: [2, 1] })).toBe(false);
  });
});
