import { EMPTY_SECTIONS, recordFindings, type ToothHistory } from '@radiant/contract';

const of = (teeth: ToothHistory[]) => recordFindings({ ...EMPTY_SECTIONS.meet, teeth });

describe('what was seen and noted of teeth is found, without a figure', () => {
  it('one finding for all teeth that it is noted of, in the words of the record', () => {
    const found = of([
      { tooth: 11, past: ['worn', 'trauma'] },
      { tooth: 21, past: ['worn', 'chipped'] },
    ]);
    expect(found.map((f) => [f.id, f.title, f.teeth])).toEqual([
      ['record-chipped', '{21}: chipped or indented edge', [21]],
      ['record-worn', '{11}, {21}: worn edge', [11, 21]],
    ]);
    for (const f of found) expect(f.figure).toBeUndefined();
  });

  it('inflamed gum holds back what its level decides', () => {
    expect(of([{ tooth: 12, past: ['inflamed'] }])[0]?.detail).toMatch(/levels, margins and impressions wait/);
  });

  it('what only concerns the tooth’s treatment is no finding of a smile', () => {
    expect(of([{ tooth: 11, past: ['root-filled', 'post', 'crown', 'filling', 'missing'] }])).toEqual([]);
    expect(of([])).toEqual([]);
  });

  it('a shade that was taken dry is taken again; a wet one, or one of which nobody said, is not questioned', () => {
    const shade = (tooth: number, wet?: boolean): ToothHistory => ({
      tooth,
      past: [],
      shade: { name: '2', at: '2026-11-27T09:00:00Z', ...(wet !== undefined && { wet }) },
    });
    const [only, ...others] = of([shade(11, false), shade(21, true), shade(12)]);
    expect([only?.id, only?.title]).toEqual(['record-dry-shade', '{11}: shade taken on a dry tooth']);
    expect(others).toEqual([]);
  });
});
