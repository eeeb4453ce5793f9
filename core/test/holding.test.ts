import {
  holdingOf,
  NO_FIGURES,
  OPTIONS,
  type OptionFigures,
  type OptionId,
  optionOf,
  STRENGTH_CLASSES,
  STRENGTH_SOURCE,
  strengthClassOf,
  strengthOf,
  type ToothFacts,
} from '@radiant/core';
import { SOUND } from './sound-tooth.js';

const held = (id: OptionId, facts: Partial<ToothFacts> = {}, x: Partial<OptionFigures> = {}) =>
  holdingOf({ ...SOUND, ...facts }, optionOf(id), { ...NO_FIGURES, ...x });

describe('classes of dental ceramics', () => {
  // ISO 6872: 50, 100, 300, 500, 800 MPa; the first two are only for what is bonded.
  it('are the five of the standard', () => {
    expect(STRENGTH_CLASSES.map((c) => [c.number, c.mpa])).toEqual([
      [1, 50],
      [2, 100],
      [3, 300],
      [4, 500],
      [5, 800],
    ]);
    expect(STRENGTH_CLASSES.filter((c) => c.bondOnly).map((c) => c.number)).toEqual([1, 2]);
    expect(STRENGTH_SOURCE).toMatchObject({ mark: 'standard' });
  });

  it.each([
    [49, undefined],
    [50, 1],
    [299, 2],
    [300, 3],
    [799, 4],
    [1200, 5],
  ])('%d MPa is of class %s', (mpa, number) => {
    expect(strengthClassOf(mpa)?.number).toBe(number);
  });

  it('every ceramic option has one, composite and metal have none', () => {
    for (const o of OPTIONS)
      expect(strengthOf(o) !== undefined).toBe(['feldspathic', 'glass-ceramic', 'zirconia'].includes(o.made));
  });
});

describe('how a restoration is held', () => {
  it('what is not made is not held', () => {
    expect(held('none')).toBeUndefined();
    expect(held('bleach')).toBeUndefined();
  });

  it('veneers are bonded, and lack what the tooth has not', () => {
    expect(held('veneer')).toMatchObject({ way: 'bonded', lacks: [] });
    expect(held('veneer', { dry: false, bleeding: true }, { enamelShare: 0.3 })?.lacks).toHaveLength(3);
  });

  it('a glass-ceramic crown on high walls may be cemented, on low ones not', () => {
    expect(held('glass-crown', { dry: false }, { wallMm: 4 })).toMatchObject({ way: 'bonded or cemented', lacks: [] });
    expect(held('glass-crown', { dry: false }, { wallMm: 2 })).toMatchObject({ way: 'bonded' });
    expect(held('glass-crown', { dry: false }, { wallMm: 2 })?.lacks).toHaveLength(1);
  });

  it('zirconia is cemented, and bonded where its walls are low; metal lacks them then', () => {
    expect(held('zirconia-crown', { dry: false }, { wallMm: 4 })).toMatchObject({ way: 'cemented', lacks: [] });
    expect(held('zirconia-crown', {}, { wallMm: 2 })).toMatchObject({ way: 'bonded' });
    expect(held('metal-crown', {}, { wallMm: 2 })?.lacks.join()).toMatch(/2\.0 mm high/);
  });

  it('each way says what it needs', () => {
    for (const o of OPTIONS) {
      const own = held(o.id as OptionId, {}, { wallMm: 4 });
      if (own) expect(own.needs.length).toBeGreaterThan(1);
    }
  });
});
