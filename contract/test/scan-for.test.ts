import { type CaseFile, scanFor } from '../src/index.js';

const file = (id: string, over: Partial<CaseFile>): CaseFile => ({
  id,
  kind: 'scan',
  jaw: 'upper',
  role: 'working',
  name: 'any',
  mime: 'model/stl',
  bytes: 1,
  sha256: '0'.repeat(64),
  parentId: null,
  frame: null,
  width: null,
  height: null,
  origin: '',
  at: '2026-11-20T00:00:00.000Z',
  view: null,
  state: 'before',
  takenOn: null,
  takenBy: '',
  lay: { quarterTurns: 0, mirrored: false },
  removedAt: null,
  ...over,
});

describe('which scan counts', () => {
  const files = [
    file('first', {}),
    file('came', { role: 'original' }),
    file('below', { jaw: 'lower' }),
    file('second', { state: null }),
    file('worn', { state: 'mock-up' }),
    file('cut', { state: 'prepared' }),
    file('raw', { role: 'original', state: 'prepared' }),
  ];

  it('is the newest of its jaw and state whose teeth are told apart', () => {
    expect(scanFor(files, 'lower', 'before')?.id).toBe('below');
    expect(scanFor(files, 'upper', 'mock-up')?.id).toBe('worn');
    expect(scanFor(files, 'upper', 'prepared')?.id).toBe('cut');
    expect(scanFor(files, 'upper', 'final')).toBeUndefined();
    expect(scanFor(files, 'lower', 'prepared')).toBeUndefined();
  });

  it('of the mouth before it is never one of a later state, however new; what nobody has said counts as before', () => {
    expect(scanFor(files, 'upper', 'before')?.id).toBe('second');
    expect(scanFor(files.slice(4), 'upper', 'before')).toBeUndefined();
  });

  it('is the one that is named, where it is of this jaw and its teeth are told apart', () => {
    expect(scanFor(files, 'upper', 'before', 'first')?.id).toBe('first');
    for (const id of ['below', 'came', 'gone', null]) expect(scanFor(files, 'upper', 'before', id)?.id).toBe('second');
  });

  it('is not told by names', () => {
    const odd = files.map((f) => ({ ...f, name: 'lower jaw, prepared, teeth picked out.ply' }));
    expect(scanFor(odd, 'upper', 'before')?.id).toBe('second');
  });
});
