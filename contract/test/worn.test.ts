import {
  check,
  completedSettings,
  daysWorn,
  FIRST_SETTINGS,
  formsChanged,
  MadeFrom,
  PracticeSettings,
  WornMockUp,
  wornUnmeasured,
} from '@radiant/contract';
import { FORMS_EDITION } from '@radiant/core';

describe('for how long a mock-up was worn', () => {
  it.each([
    ['2026-03-01', '2026-03-04', 3],
    ['2026-03-01', '2026-03-01', 0],
    ['2026-02-27', '2026-03-02', 3],
    ['2026-03-05', '2026-03-01', 0],
  ])('from %s to %s are %i days', (from, until, days) => {
    expect(daysWorn({ from, until }, '2027-01-01')).toBe(days);
  });

  it('is counted to today while it is in, and is nothing where it never was', () => {
    expect(daysWorn({ from: '2026-03-01' }, '2026-03-08')).toBe(7);
    expect(daysWorn(null, '2026-03-08')).toBeUndefined();
    expect(daysWorn({ from: '' }, '2026-03-08')).toBeUndefined();
  });

  it('the edge stood right, too long or too short, and nothing else', () => {
    const errors = (edge: string) =>
      check(WornMockUp, { from: '2026-03-01', speech: '', bulk: '', family: '', edge }).errors.map((e) => e.message);
    expect(errors('long')).toEqual([]);
    expect(errors('lovely')).toEqual(['The edge stood right, too long or too short.']);
  });
});

describe('whether the worn shape was measured again', () => {
  const worn = (from: string, measured?: 'same' | 'taken' | 'no') => ({
    worn: Object.assign(new WornMockUp(), { from, ...(measured && { measured }) }),
  });

  it('is asked of the mock-up that was worn last, until it is said', () => {
    const never = { worn: null };
    expect(wornUnmeasured([never])).toBeUndefined();
    const [first, last] = [worn('2026-03-01'), worn('2026-04-01', 'no')];
    expect(wornUnmeasured([last, never, first])).toBe(last);
    expect(wornUnmeasured([first, worn('2026-04-01', 'same')])).toBeUndefined();
    expect(wornUnmeasured([first, worn('2026-04-01', 'taken')])).toBeUndefined();
    expect(wornUnmeasured([first])).toBe(first);
  });

  it('takes its three answers and no other', () => {
    const errors = (measured: unknown) =>
      check(WornMockUp, { from: '2026-03-01', speech: '', bulk: '', family: '', measured }).errors.map(
        (e) => e.message,
      );
    for (const answer of ['same', 'taken', 'no', null]) expect(errors(answer)).toEqual([]);
    expect(errors('perhaps')).toEqual(['The worn shape was measured again, or it was not.']);
  });
});

describe('how long a practice has it worn', () => {
  it('is a day until it is set, in settings of before too', () => {
    expect(FIRST_SETTINGS.wearDays).toBe(1);
    expect(completedSettings({ drafts: 'removed', school: 'ratio' }).wearDays).toBe(1);
  });

  it.each([
    [7, []],
    [1.5, ['The days that a mock-up is worn are a whole number.']],
    [61, ['A mock-up is worn for 0 to 60 days.']],
  ])('%d days', (wearDays, said) => {
    expect(check(PracticeSettings, { ...FIRST_SETTINGS, wearDays }).errors.map((e) => e.message)).toEqual(said);
  });
});

describe('a contour that was kept with other crown forms', () => {
  it('is told by the edition that it was made with; one that says none is of the first', () => {
    expect(formsChanged({ madeFrom: { files: [], forms: FORMS_EDITION } })).toBe(false);
    expect(formsChanged({ madeFrom: { files: [], forms: FORMS_EDITION - 1 } })).toBe(true);
    expect(formsChanged({ madeFrom: { files: [] } })).toBe(true);
  });

  it('an edition that is no whole number is refused', () => {
    const errors = (forms: unknown) => check(MadeFrom, { files: [], forms }).errors.map((e) => e.message);
    expect(errors(3)).toEqual([]);
    expect(errors(1.5)).toContain('The edition of the crown forms is a whole number.');
  });
});
