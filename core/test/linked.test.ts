import { linked } from '@radiant/core';

describe('a length of the scan beside that of the photograph', () => {
  it('the smaller error counts, which is the scan’s where there is one', () => {
    expect(linked({ value: 8.5, pm: 0.05 }, { value: 8.6, pm: 0.2 })).toMatchObject({ used: 'scan', apart: false });
    expect(linked({ value: 8.5, pm: 0.3 }, { value: 8.6, pm: 0.2 })).toMatchObject({ used: 'photo', apart: false });
  });

  // Errors that know nothing of each other add in quadrature (GUM, JCGM 100:2008, from memory): 0.05 and 0.12 give
  // 0.13.
  it.each([
    [8.62, false],
    [8.64, true],
    [8.36, true],
  ])('%d mm beside 8.5 ± 0.05 and ± 0.12 is apart: %s', (value, apart) => {
    expect(linked({ value: 8.5, pm: 0.05 }, { value, pm: 0.12 }).apart).toBe(apart);
  });

  it('says why one alone is used, and that there is none', () => {
    expect(linked(undefined, { value: 8, pm: 0.2 })).toEqual({
      photo: { value: 8, pm: 0.2 },
      used: 'photo',
      why: 'the scan has no such tooth',
      apart: false,
    });
    expect(linked({ value: 8, pm: 0.05 }, undefined)).toMatchObject({
      used: 'scan',
      why: 'not marked on the photograph',
    });
    expect(linked(undefined, undefined)).toEqual({ why: 'measured on neither', apart: false });
  });
});
