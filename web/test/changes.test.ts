import { SECTIONS, same } from '@radiant/contract';
import { changes } from '../src/data/changes.js';
import { chosen, merge } from '../src/data/merge.js';

const { parts } = SECTIONS.shape;
const tooth = (t: number, lengthMm: number, more = {}) => ({
  tooth: t,
  lengthMm,
  widthMm: 8,
  facialVolumeMm: 0,
  rotationDeg: 0,
  ...more,
});

describe('where two states of a contour differ', () => {
  const before = { scanId: 's', teeth: [tooth(11, 10), tooth(21, 10)] };

  it('is nowhere when they say the same in another order', () => {
    expect(changes(parts, before, { teeth: [tooth(21, 10), tooth(11, 10)], scanId: 's' })).toEqual([]);
  });

  it('is the one number of the one tooth', () => {
    expect(changes(parts, before, { ...before, teeth: [tooth(11, 10.4), tooth(21, 10)] })).toEqual([
      { path: ['teeth', '[11]', 'lengthMm'], before: 10, after: 10.4 },
    ]);
  });

  it('is a tooth that came or went, as one place', () => {
    const [came, ...more] = changes(parts, before, { ...before, teeth: [...before.teeth, tooth(12, 9)] });
    expect(more).toEqual([]);
    expect(came).toMatchObject({ path: ['teeth', '[12]'], before: undefined, after: { lengthMm: 9 } });
    expect(changes(parts, before, { ...before, teeth: [tooth(11, 10)] })).toMatchObject([
      { path: ['teeth', '[21]'], after: undefined },
    ]);
  });

  it('names the places at which two such states clash, no more and no fewer', () => {
    const mine = { ...before, teeth: [tooth(11, 10.4, { widthMm: 8.2 }), tooth(21, 10)] };
    const theirs = { ...before, teeth: [tooth(11, 10.6), tooth(21, 9.8)] };
    const { clashes } = merge(parts, before, mine, theirs);
    const [a, b] = [mine, theirs].map((s) => changes(parts, before, s).map((c) => c.path.join()));
    expect(clashes.map((c) => c.path.join())).toEqual(a?.filter((p) => b?.includes(p)));
    // With every clash given to them, only what they had not touched is mine.
    const put = chosen(parts, before, mine, theirs, () => 'theirs');
    expect(changes(parts, theirs, put).map((c) => c.path.join())).toEqual(a?.filter((p) => !b?.includes(p)));
    expect(same(put, theirs)).toBe(false);
  });
});
