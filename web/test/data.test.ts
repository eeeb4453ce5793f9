import type { SectionState } from '@radiant/contract';
import { EMPTY_SECTIONS, type LandmarkInput } from '@radiant/contract';
import { install } from '@sinonjs/fake-timers';
import type { Draft } from '../src/data/drafts.js';
import { type DraftKeeper, SectionStore } from '../src/data/section-store.js';

/** A browser's store of drafts; `full` and it keeps nothing more. */
class Keeper implements DraftKeeper {
  readonly kept = new Map<string, Draft>();
  full = false;
  load = async (caseId: string) => this.kept.get(caseId);
  save = async (caseId: string, _: string, draft: Draft) => {
    if (this.full) throw new DOMException('no room', 'QuotaExceededError');
    this.kept.set(caseId, structuredClone(draft));
  };
  clear = async (caseId: string) => void this.kept.delete(caseId);
}
const drafts = new Keeper();
const open = (caseId: string, initial: Propose) => new SectionStore(caseId, initial, drafts);

type Propose = SectionState<'propose'>;
const state = (version: number, edgeMm: number): Propose => ({
  name: 'propose',
  version,
  data: { school: 'ratio', referenceTooth: 11, edgeMm },
  by: 'A',
  at: null,
});
const edge = (s: SectionStore<'propose'>) => s.snapshot().data.edgeMm;
const set = (s: SectionStore<'propose'>, edgeMm: number, group?: string) =>
  s.set({ school: 'ratio', referenceTooth: 11, edgeMm }, group);

/** A server that answers each request as told. */
function server(
  answer: (body: { version: number; data: { edgeMm: number } }) => { status: number; body: unknown } | 'away',
) {
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
const accept = (body: { version: number; data: { edgeMm: number } }) => ({
  status: 200,
  body: state(body.version + 1, body.data.edgeMm),
});
let clock: ReturnType<typeof install>;
const pass = (ms: number) => clock.tickAsync(ms);

beforeEach(() => {
  // Only what the store waits by: the streams of an answer need the real turns.
  clock = install({ toFake: ['setTimeout', 'clearTimeout', 'setInterval', 'clearInterval', 'Date'] });
});
afterEach(() => {
  clock.uninstall();
});

describe('a section on the page', () => {
  it('saves the last of quick changes once, and knows the new version', async () => {
    const sent = server(accept);
    const s = open('c1', state(3, 0));
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
    const s = open('c2', state(1, 0));
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
    const s = open('c3', state(1, 0));
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
    const before = open('c4', state(1, 0));
    set(before, 0.8);
    await pass(10);
    before.end();
    server(accept);
    const after = open('c4', state(1, 0));
    await pass(10);
    expect(edge(after)).toBe(0.8);
    await pass(600);
    expect(after.snapshot().status).toBe('saved');
  });

  it('meets another’s change with both at hand, and sends nothing until the person has chosen', async () => {
    const sent = server((b) =>
      b.version === 1
        ? { status: 409, body: { type: '', title: '', status: 409, detail: '', current: state(5, 3) } }
        : accept(b),
    );
    const s = open('c5', state(1, 0));
    set(s, 2);
    await pass(600);
    expect(s.snapshot()).toMatchObject({
      status: 'conflict',
      conflict: { theirs: { version: 5 }, clashes: [{ path: ['edgeMm'], base: 0, mine: 2, theirs: 3 }] },
    });
    set(s, 2.1);
    await pass(5000);
    expect(sent).toHaveLength(1);
    s.resolve(() => 'mine');
    await pass(10);
    expect(sent[1]).toMatchObject({ version: 5, data: { edgeMm: 2.1 } });
    expect(s.snapshot()).toMatchObject({ status: 'saved', version: 6 });
  });

  it('taking theirs drops the edit, and undo still has it', async () => {
    server(() => ({ status: 409, body: { type: '', title: '', status: 409, detail: '', current: state(5, 3) } }));
    const s = open('c6', state(1, 0));
    set(s, 2);
    await pass(600);
    s.resolve(() => 'theirs');
    expect(edge(s)).toBe(3);
    s.undo();
    expect(edge(s)).toBe(2);
  });

  it('the same content from another is no conflict', async () => {
    server(() => ({ status: 409, body: { type: '', title: '', status: 409, detail: '', current: state(2, 2) } }));
    const s = open('c7', state(1, 0));
    set(s, 2);
    await pass(600);
    expect(s.snapshot()).toMatchObject({ status: 'saved', version: 2 });
  });

  it('a refusal is shown and the edit kept; the next change is sent again', async () => {
    server((b) =>
      b.data.edgeMm > 4 ? { status: 422, body: { type: '', title: '', status: 422, detail: 'Too far.' } } : accept(b),
    );
    const s = open('c8', state(1, 0));
    set(s, 9);
    await pass(600);
    expect(s.snapshot()).toMatchObject({ status: 'refused', refusal: { detail: 'Too far.' }, data: { edgeMm: 9 } });
    set(s, 1);
    await pass(600);
    expect(s.snapshot()).toMatchObject({ status: 'saved' });
    expect(s.snapshot().refusal).toBeUndefined();
  });

  it('news from the server is shown at once while nothing is being edited', () => {
    const s = open('c9', state(1, 0));
    s.serverHas(state(2, 1.5));
    expect(edge(s)).toBe(1.5);
    s.serverHas(state(1, 0));
    expect(edge(s)).toBe(1.5);
  });

  it('what only another has touched is never asked and never taken back', async () => {
    const theirs: Propose = {
      ...state(5, 0),
      data: { school: 'golden', referenceTooth: 11, edgeMm: 0 } as Propose['data'],
    };
    const sent = server((b) =>
      b.version === 1
        ? { status: 409, body: { type: '', title: '', status: 409, detail: '', current: theirs } }
        : { status: 200, body: { ...theirs, version: 6, data: b.data } },
    );
    const s = open('c10', state(1, 0));
    set(s, 2);
    await pass(1200);
    expect(sent[1]).toEqual({ version: 5, data: { school: 'golden', referenceTooth: 11, edgeMm: 2 } });
    expect(s.snapshot()).toMatchObject({ status: 'saved', version: 6 });
    expect(s.snapshot().conflict).toBeUndefined();
  });

  it('an edit that another has met while the page was closed is put together from what it began from', async () => {
    server(() => 'away');
    const before = open('c11', state(1, 0));
    set(before, 0.8);
    await pass(10);
    before.end();
    const sent = server(accept);
    const after = open('c11', {
      ...state(3, 0),
      data: { school: 'golden', referenceTooth: 11, edgeMm: 0 } as Propose['data'],
    });
    await pass(700);
    expect(sent).toEqual([{ version: 3, data: { school: 'golden', referenceTooth: 11, edgeMm: 0.8 } }]);
    expect(after.snapshot().status).toBe('saved');
  });

  it('a browser that can’t keep the edit is told, and the edit is sent all the same', async () => {
    drafts.full = true;
    let away = true;
    server((b) => (away ? 'away' : accept(b)));
    const s = open('c12', state(1, 0));
    set(s, 0.9);
    await pass(10);
    expect(s.snapshot()).toMatchObject({ unkept: true, data: { edgeMm: 0.9 } });
    expect(s.snapshot().status).not.toBe('saved');
    away = false;
    await pass(2700);
    drafts.full = false;
    expect(s.snapshot()).toMatchObject({ status: 'saved', unkept: false, data: { edgeMm: 0.9 } });
  });

  it('once it is ended it sends nothing: what waits is the person’s who made it', async () => {
    const sent = server(accept);
    const s = open('c13', state(1, 0));
    set(s, 0.9);
    await pass(10);
    s.end();
    await pass(5000);
    expect(sent).toEqual([]);
    expect(drafts.kept.get('c13')).toMatchObject({ baseVersion: 1, data: { edgeMm: 0.9 } });
  });

  it('an earlier state is looked at without a change, and gone back to by one that undo takes back', async () => {
    const sent = server(accept);
    const s = open('c20', state(7, 2));
    s.look(state(3, 1));
    expect(s.snapshot()).toMatchObject({ data: { edgeMm: 1 }, version: 7, looked: { version: 3 } });
    // Nothing is changed by a slip meanwhile, and news of another don't show through.
    set(s, 9);
    s.undo();
    s.serverHas(state(8, 2.5));
    await pass(5000);
    expect(sent).toEqual([]);
    expect(edge(s)).toBe(1);
    s.look(undefined);
    expect(edge(s)).toBe(2.5);
    s.look(state(3, 1));
    s.goBack();
    expect(edge(s)).toBe(1);
    await pass(600);
    expect(sent).toMatchObject([{ version: 8, data: { edgeMm: 1 } }]);
    s.undo();
    expect(edge(s)).toBe(2.5);
    await pass(600);
    expect(s.snapshot()).toMatchObject({ status: 'saved', version: 10 });
  });

  it('left within the application it sends what waits, once, and says what the server has then', async () => {
    const sent = server(accept);
    const s = open('c17', state(1, 0));
    set(s, 0.9);
    await pass(10);
    const told: [number, number][] = [];
    await s.leave((known) => told.push([known.version, known.data.edgeMm]));
    await pass(5000);
    expect(sent).toHaveLength(1);
    expect(told).toEqual([
      [1, 0],
      [2, 0.9],
    ]);
    expect(drafts.kept.has('c17')).toBe(false);
  });

  it('left while an edit is on its way it says what the server has once it has taken it', async () => {
    let answer: () => void = () => undefined;
    const gate = new Promise<void>((go) => {
      answer = go;
    });
    const sent = server(accept);
    const plain = globalThis.fetch;
    globalThis.fetch = (async (...of: Parameters<typeof fetch>) => {
      await gate;
      return plain(...of);
    }) as typeof fetch;
    const s = open('c21', state(1, 0));
    set(s, 0.9);
    await pass(600);
    expect(s.snapshot().status).toBe('saving');
    const told: number[] = [];
    const left = s.leave((known) => told.push(known.version));
    answer();
    await left;
    expect([sent.length, told]).toEqual([1, [1, 2]]);
  });

  it('left while the server is away it tries once; the edit waits in the browser', async () => {
    const sent = server(() => 'away');
    const s = open('c18', state(1, 0));
    set(s, 0.9);
    await s.leave(() => undefined);
    await pass(9000);
    expect(sent).toHaveLength(1);
    expect(drafts.kept.get('c18')).toMatchObject({ baseVersion: 1, data: { edgeMm: 0.9 } });
  });

  it('a page that begins with something older than its edit began from asks nobody to choose', async () => {
    const sent = server(accept);
    await drafts.save('c19', 'propose', { baseVersion: 4, base: state(4, 0.8).data, data: state(4, 0.9).data });
    const s = open('c19', state(2, 0.1));
    await pass(700);
    expect(sent).toEqual([{ version: 4, data: { school: 'ratio', referenceTooth: 11, edgeMm: 0.9 } }]);
    expect(s.snapshot()).toMatchObject({ status: 'saved', version: 5 });
    s.end();
  });

  it('an edit found in the browser is never called saved before the server has it', async () => {
    server(accept);
    await drafts.save('c15', 'propose', { baseVersion: 1, base: state(1, 0).data, data: state(1, 0.9).data });
    const s = open('c15', state(1, 0));
    const seen: [number, string][] = [];
    s.subscribe(() => seen.push([edge(s), s.snapshot().status]));
    await pass(700);
    expect(seen.map(([, status]) => status)).toContain('saving');
    expect(s.snapshot()).toMatchObject({ status: 'saved', version: 2, data: { edgeMm: 0.9 } });
    // Of all that was shown with the edit on it, only the last was saved.
    const early = seen.filter(([mm, status]) => mm === 0.9 && status === 'saved').length;
    expect(early).toBe(1);
    s.end();
  });

  it('an edit that an older program left is sent in the form that the section has now', async () => {
    const sent = server(accept);
    const base = { photoId: 'p', landmarks: [{ tooth: 11, kind: 'edge', x: 1, y: 2 }], drawn: [], views: [] };
    const data = { ...base, landmarks: [...base.landmarks, { tooth: 21, kind: 'edge', x: 9, y: 2 }] };
    await drafts.save('c16', 'read', { baseVersion: 1, base, data });
    const front = { view: 'retracted-front' as const, points: [], drawn: [], photoId: 'p' };
    const read = { ...EMPTY_SECTIONS.read, views: [{ ...front, landmarks: base.landmarks as LandmarkInput[] }] };
    const s = new SectionStore('c16', { name: 'read', version: 1, data: read, by: null, at: null }, drafts);
    await pass(700);
    expect(sent).toEqual([{ version: 1, data: { views: [{ ...front, landmarks: data.landmarks }] } }]);
    s.end();
  });

  it('the server’s word on why it can’t take it is said', async () => {
    server(() => ({
      status: 507,
      body: { type: '', title: '', status: 507, detail: 'The server’s disk is full; nothing was changed.' },
    }));
    const s = open('c14', state(1, 0));
    set(s, 0.9);
    await pass(600);
    expect(s.snapshot()).toMatchObject({ status: 'away', away: 'The server’s disk is full; nothing was changed.' });
    s.end();
  });
});
