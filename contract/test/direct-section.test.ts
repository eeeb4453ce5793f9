import { checkSection, workKept, workOn } from '@radiant/contract';
import { ISLAND_POINTS } from '@radiant/core';

const place = (x: number) => ({ x, y: 1, z: 2 });
const marked = (island: unknown) => ({ works: [{ tooth: 41, kind: 'worn', island }], soundings: [] });
const said = (data: object) =>
  checkSection('direct', data)
    .errors.map((e) => e.message)
    .join('\n');

describe('an island of dentin that is marked', () => {
  it('is kept with its tooth, and comes to the engine as places', () => {
    const data = marked([0, 1, 2].map(place));
    expect(said(data)).toBe('');
    expect(workOn(data as never, 41).island).toEqual([
      [0, 1, 2],
      [1, 1, 2],
      [2, 1, 2],
    ]);
    const kept = workKept(41, {
      kind: 'worn',
      island: [
        [0.123, 1, 2],
        [1, 1, 2],
        [2, 1, 2],
      ],
    });
    expect(kept.island?.[0]).toEqual({ x: 0.12, y: 1, z: 2 });
    expect(said({ works: [kept], soundings: [] })).toBe('');
    expect(workOn(data as never, 31)).toEqual({ kind: 'addition' });
  });

  it.each([
    ['too few places', [0, 1].map(place), /at least 3 places/],
    ['too many', Array.from({ length: ISLAND_POINTS.max + 1 }, (_, i) => place(i)), /at most 40 places/],
    ['a place without height', [0, 1, 2].map((x) => ({ x, y: 1 })), /three coordinates/],
    ['a place out of the mouth', [0, 1, 900].map(place), /within 200 mm/],
    ['no list', 'round', /incomplete/],
  ])('%s is refused with a sentence', (_, island, sentence) => {
    expect(said(marked(island))).toMatch(sentence);
  });

  it('a dent at the neck is a kind of work, another is not known', () => {
    expect(said({ works: [{ tooth: 13, kind: 'neck' }], soundings: [] })).toBe('');
    expect(said({ works: [{ tooth: 13, kind: 'hole' }], soundings: [] })).toMatch(
      /kind of composite work is not known/,
    );
  });
});
