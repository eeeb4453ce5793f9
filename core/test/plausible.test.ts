import { doubtfulMeasures, type Figure, ratioFigure, type ToothMeasure } from '@radiant/core';

const mm = (value: number, pm = 0.2): Figure => ({ value, pm, unit: 'mm', working: { formula: '', inputs: [] } });
const tooth = (t: number, width: number, length: number): ToothMeasure => ({
  tooth: t,
  width: mm(width),
  length: mm(length),
  ratio: ratioFigure(mm(width), mm(length)),
});

describe('what can hardly be measured in a mouth', () => {
  it('is nothing of living people’s means, men’s and women’s (Sterrett et al. 1999, from memory)', () => {
    expect(
      doubtfulMeasures([tooth(11, 8.59, 10.19), tooth(12, 6.13, 7.79), tooth(13, 7.15, 8.89), tooth(21, 8.06, 9.39)]),
    ).toEqual([]);
  });

  it('is nothing of a peg-shaped lateral, a worn-down central, or a tooth whose ± reaches what can be', () => {
    expect(doubtfulMeasures([tooth(12, 3.6, 6), tooth(11, 8.4, 5.2)])).toEqual([]);
    expect(doubtfulMeasures([{ tooth: 11, width: mm(5.9, 0.3) }])).toEqual([]);
  });

  it('is a scale by which the teeth are half as large as they are', () => {
    const [only, ...more] = doubtfulMeasures([tooth(11, 4.3, 5.1), tooth(21, 4.2, 5), tooth(12, 2.5, 4.2)]);
    expect(more).toEqual([]);
    expect(only).toMatchObject({ about: 'scale', teeth: [11, 21, 12] });
    expect(only?.sentence).toMatch(
      /^By this scale \{11\} is 4\.3 mm wide, \{21\} is 4\.2 mm wide, and 1 more can hardly be: look/,
    );
  });

  it('is a scale by which a small tooth is twice as large', () => {
    expect(doubtfulMeasures([tooth(11, 17, 20), tooth(12, 13, 17)])[0]?.about).toBe('scale');
  });

  it('is a point that makes one tooth eleven times as wide as long, whatever the scale', () => {
    const found = doubtfulMeasures([tooth(11, 8.5, 0.78), tooth(21, 8.5, 10)]);
    expect(found.map((d) => [d.about, d.teeth])).toEqual([['points', [11]]]);
    expect(found[0]?.sentence).toMatch(/1090 % as wide as long/);
  });

  it('is one tooth alone that is too narrow: its points are asked for first', () => {
    const found = doubtfulMeasures([tooth(11, 5, 9), tooth(21, 8.5, 10)]);
    expect(found).toEqual([
      { about: 'points', teeth: [11], sentence: '{11} would be 5.0 mm wide: look at its points, and at the scale.' },
    ]);
  });
});
