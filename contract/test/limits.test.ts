import { fieldsOf } from '../src/base/holds.js';
import * as contract from '../src/index.js';
import {
  check,
  isDay,
  isMoment,
  isWithin,
  MeetSection,
  MOST_ERRORS,
  NewCase,
  ReadSection,
  ShapeSection,
  SignIn,
} from '../src/index.js';

/** Every class that the contract exports and that knows fields of its own, and the classes of their objects. */
const CLASSES = (() => {
  const found = new Set<new () => object>();
  const add = (type: new () => object) => {
    if (found.has(type) || fieldsOf(type).size === 0) return;
    found.add(type);
    for (const f of fieldsOf(type).values()) if (f.type) add(f.type);
  };
  for (const e of Object.values(contract)) if (typeof e === 'function' && /^class /.test(String(e))) add(e as never);
  return [...found];
})();

const nested = (depth: number) => JSON.parse('['.repeat(depth) + ']'.repeat(depth)) as unknown;

describe('what comes from outside is small before anything is made of it', () => {
  it('every list of every contract class says how long it may be', () => {
    expect(CLASSES.length).toBeGreaterThan(25);
    const endless = CLASSES.flatMap((type) =>
      [...fieldsOf(type)]
        .filter(([name, f]) => Reflect.getMetadata('design:type', type.prototype, name) === Array && !f.most)
        .map(([name]) => `${type.name}.${name}`),
    );
    expect(endless).toEqual([]);
  });

  it('a hundred thousand unknown fields are told as twenty, with short names', () => {
    const data = Object.fromEntries(Array.from({ length: 100_000 }, (_, i) => [`${'x'.repeat(100)}${i}`, i]));
    const { errors } = check(SignIn, data);
    expect(errors).toHaveLength(MOST_ERRORS);
    expect(JSON.stringify(errors).length).toBeLessThan(6000);
  });

  it('empty teeth by the ten thousand are one sentence on the list, not one on each tooth', () => {
    const { errors } = check(ShapeSection, { teeth: Array.from({ length: 20_000 }, () => ({})) });
    expect(errors).toEqual([{ field: 'teeth', message: 'A tooth is planned twice.' }]);
    expect(check(MeetSection, { wish: '', teeth: Array.from({ length: 20_000 }, () => ({})) }).errors).toHaveLength(1);
  });

  it('many fields that are wrong in themselves are told as twenty, the last saying how many more', () => {
    const stroke = { tool: 'x', radiusMm: 'x', amount: 'x', at: 'x' };
    const { errors } = check(ShapeSection, {
      teeth: [{ tooth: 11, strokes: Array.from({ length: 200 }, () => stroke) }],
    });
    expect(errors).toHaveLength(MOST_ERRORS);
    expect(errors.at(-1)?.message).toMatch(/^And \d{3} more fields/);
  });

  it.each(['constructor', '__proto__', 'toString', 'hasOwnProperty'])(
    'the field %p is an unknown one like any other',
    (name) => {
      const data = JSON.parse(`{"wish":"","${name}":{"polluted":true}}`) as object;
      const { value, errors } = check(MeetSection, data);
      expect(errors.map((e) => e.message)).toEqual([`The field “${name}” does not belong here.`]);
      expect((value as { polluted?: true }).polluted).toBeUndefined();
      expect(({} as { polluted?: true }).polluted).toBeUndefined();
    },
  );

  it.each([null, 1, 'x', [], [[]]])('%p in the place of fields is refused', (data) => {
    if (data !== null) expect(check(SignIn, data).errors).toHaveLength(1);
    expect(check(NewCase, { name: 'A', meet: data }).errors.length).toBe(data === null ? 0 : 1);
  });

  it('depth and number of values are counted without going down by calls', () => {
    expect(isWithin(nested(100_000), { values: 1e6, depth: 30 })).toBe(false);
    expect(isWithin(nested(29), { values: 100, depth: 30 })).toBe(true);
    expect(isWithin([1, 2, { a: 3 }], { values: 5, depth: 3 })).toBe(true);
    expect(isWithin([1, 2, { a: 3 }], { values: 4, depth: 3 })).toBe(false);
  });

  it('nesting where text or numbers belong is refused field by field, however deep', () => {
    for (const data of [{ wish: nested(50_000) }, { wish: '', teeth: nested(50_000) }])
      expect(check(MeetSection, data).errors.length).toBeGreaterThan(0);
    expect(check(ReadSection, { views: [nested(50_000)] }).errors.length).toBeGreaterThan(0);
  });

  it('half a surrogate pair is no text', () => {
    expect(check(MeetSection, { wish: 'a\ud83d' }).errors[0]?.message).toBe(
      'The text of “wish” holds half a character.',
    );
    expect(check(MeetSection, { wish: 'a\ud83d\ude00' }).errors).toEqual([]);
  });
});

describe('days and moments', () => {
  it.each([
    '2024-W10-3',
    '2026-02-30',
    '2026-13-01',
    '2026-1-1',
    '2026-12-18T10:00',
    '20261218',
    '2026-366',
    '0000-01-01',
    'x',
    '',
    ' 2026-12-18',
  ])('%p is no day', (text) => {
    expect(isDay(text)).toBe(false);
    expect(check(MeetSection, { finishBy: text }).errors).toEqual([
      { field: 'finishBy', message: 'The date to finish by is a calendar date.' },
    ]);
  });

  // The rule of the Gregorian calendar: hundreds are leap years only when 400 divides them.
  it.each([
    ['2024-02-29', true],
    ['2023-02-29', false],
    ['2000-02-29', true],
    ['1900-02-29', false],
    ['2026-04-31', false],
    ['2026-12-31', true],
  ])('%s is a day: %p', (text, day) => {
    expect(isDay(text)).toBe(day);
  });

  it.each(['2024-W10-3', '2026-12-18', '2026-02-30T10:00:00Z', '2026-12-18T10:00:00', '2026-12-18T25:00:00Z'])(
    '%p is no moment',
    (text) => {
      expect(isMoment(text)).toBe(false);
    },
  );

  it('what JSON makes of a date is a moment', () => {
    expect(isMoment(JSON.parse(JSON.stringify(new Date())))).toBe(true);
    expect(isMoment('2026-12-18T10:00:00+01:00')).toBe(true);
  });
});
