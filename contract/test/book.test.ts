import {
  type BookedVisit,
  type Booking,
  BookSection,
  Clinic,
  check,
  EMPTY_SECTIONS,
  FIRST_CLINIC,
  SECTIONS,
} from '@radiant/contract';
import { clashOf, courseOf, mondayOf, takenBy, worksOf } from '@radiant/contract/course';
import { dayOf, hoursFrom, hoursText, isoOf } from '@radiant/core';

const sentences = (type: new () => object, data: object) => check(type, data).errors.map((e) => e.message);
const visit: BookedVisit = { kind: 'seating', day: '2026-12-18', from: 540, minutes: 90, chair: 'chair 1' };

describe('what is booked', () => {
  const of = (over: object) => sentences(BookSection, { ...EMPTY_SECTIONS.book, ...over });
  it('takes visits, absences and what they follow from', () => {
    expect(of({})).toEqual([]);
    expect(of({ visits: [visit], away: [{ from: '2026-12-24', to: '2027-01-02', why: 'travels' }] })).toEqual([]);
    expect(
      of({ maker: 'mill', tissue: 'gum', impression: null, tryIn: true, guard: null, laboratoryDays: 12 }),
    ).toEqual([]);
  });

  it.each<[string, object, string]>([
    ['a visit that is none', { visits: [{ ...visit, kind: 'party' }] }, 'This visit is not known.'],
    ['a day that is none', { visits: [{ ...visit, day: '2026-02-30' }] }, 'A day is a calendar date.'],
    ['a time that is none', { visits: [{ ...visit, from: 1500 }] }, 'A time of day is told in minutes from midnight.'],
    ['a visit of no length', { visits: [{ ...visit, minutes: 0 }] }, 'A visit takes 5 to 600 minutes.'],
    ['a visit twice', { visits: [visit, { ...visit, day: '2026-12-19' }] }, 'A visit is booked twice.'],
    ['a laboratory of no days', { laboratoryDays: 0 }, 'The laboratory takes 1 to 60 working days.'],
    ['a maker that is none', { maker: 'magic' }, 'Who makes it is not known.'],
  ])('refuses %s', (_, over, sentence) => {
    expect(of(over)).toEqual([sentence]);
  });

  it('says where an absence ends before it begins', () => {
    const away = [{ from: '2026-12-24', to: '2026-12-20', why: '' }];
    expect(SECTIONS.book.sense({ ...EMPTY_SECTIONS.book, away }, new Map())).toEqual([
      { field: 'away.0.to', message: 'An absence ends after it begins.' },
    ]);
  });
});

it('says where two visits of one case are booked at the same time', () => {
  const both = (second: object) =>
    SECTIONS.book.sense(
      { ...EMPTY_SECTIONS.book, visits: [visit, { ...visit, kind: 'review', ...second }] },
      new Map(),
    );
  expect(both({ from: 600 })).toEqual([
    { field: 'visits.1', message: 'seating and colour and gum at a week are both booked on 2026-12-18 at that time.' },
  ]);
  expect(both({ from: 630 })).toEqual([]);
  expect(both({ day: '2026-12-28' })).toEqual([]);
});

describe('the hours of a house', () => {
  const of = (over: object) => sentences(Clinic, { ...FIRST_CLINIC, ...over });
  it('are taken as they are at first, and refused where they overlap or never end', () => {
    expect(of({})).toEqual([]);
    const at = (from: number, to: number) => ({ weekday: 0, from, to });
    expect(of({ hours: [at(480, 720), at(700, 900)] })).toEqual(['Monday: 08:00 to 12:00 and 11:40 to 15:00 overlap.']);
    expect(of({ hours: [at(720, 480)] })).toEqual(['Monday: 12:00 is not before 08:00.']);
    expect(of({ chairs: [] })).toEqual(['A house has at least one chair.']);
    expect(of({ timeZone: 'Mars/Olympus' })).toEqual(['This time zone is not known.']);
    expect(of({ laboratoryWeek: [7] })).toEqual(['A day of the week is 0, Monday, to 6, Sunday.']);
  });

  it('are read as people write them, and written so that they are read again', () => {
    for (const [text, spans] of [
      ['8-12, 13:30–17', '08:00–12:00, 13:30–17:00'],
      ['9.15 to 12.45', '09:15–12:45'],
      ['', ''],
    ] as const) {
      expect(hoursText(hoursFrom(text))).toBe(spans);
      expect(hoursFrom(spans)).toEqual(hoursFrom(text));
    }
    for (const bad of ['8', '8-25', 'nine to five', '8-12-13', '8:75-9'])
      expect(() => hoursFrom(bad)).toThrow('Hours are written as 8:00–12:00, 13:00–17:00.');
  });
});

describe('chairs', () => {
  const other = (over: Partial<Booking>): Booking => ({ ...visit, caseId: 'x', caseName: 'X', ...over });
  it('are taken for as long as a visit takes, and free at its end', () => {
    expect(clashOf(visit, [other({})])).toBeDefined();
    expect(clashOf(visit, [other({ from: 629 })])).toBeDefined();
    expect(clashOf(visit, [other({ from: 630 }), other({ from: 450 })])).toBeUndefined();
    expect(clashOf(visit, [other({ chair: 'chair 2' }), other({ day: '2026-12-19' })])).toBeUndefined();
    const taken = takenBy([other({}), other({ from: 60, minutes: 5 })], FIRST_CLINIC)(dayOf('2026-12-18'));
    expect(taken).toEqual([
      [
        { from: 540, to: 630 },
        { from: 60, to: 65 },
      ],
    ]);
  });

  it('and weeks begin on a Monday', () => {
    expect(isoOf(mondayOf(dayOf('2026-11-29')))).toBe('2026-11-23');
    expect(isoOf(mondayOf(dayOf('2026-11-30')))).toBe('2026-11-30');
  });
});

describe('from what visits follow', () => {
  const crown = { lengthMm: 10, widthMm: 8, facialVolumeMm: 0, rotationDeg: 0 };
  const sections = (over: object = {}) => {
    const data = { ...EMPTY_SECTIONS, shape: { teeth: [11, 21, 12].map((tooth) => ({ ...crown, tooth })) }, ...over };
    return Object.fromEntries(Object.entries(data).map(([k, v]) => [k, { data: v }])) as never;
  };
  const course = (over: object = {}) =>
    courseOf({ id: 'a', contours: [], files: [], sections: sections(over) }, FIRST_CLINIC, 2);

  it('are the planned teeth by what was decided, else by what reduce has', () => {
    const choices = [
      { tooth: 11, option: 'zirconia-crown' },
      { tooth: 12, option: 'none' },
    ];
    const own = worksOf({ sections: sections({ decide: { choices } }) });
    expect(own.find((t) => t.tooth === 11)?.work).toBe('crown');
    // What is left as it is needs no visit.
    expect(own.some((t) => t.tooth === 12)).toBe(false);
    expect(own.find((t) => t.tooth === 21)?.work).toBe('veneer');
  });

  it('wait for the gum where margins lie under it or it is inflamed, and not else', () => {
    expect(course().impression).toBe('same');
    const { reduce, meet, book } = EMPTY_SECTIONS;
    expect(course({ reduce: { ...reduce, design: 'ceramic-crown' } }).impression).toBe('healed');
    expect(course({ meet: { ...meet, teeth: [{ tooth: 11, past: ['inflamed'] }] } }).impression).toBe('healed');
    // A tooth that nothing is done to is not asked.
    expect(course({ meet: { ...meet, teeth: [{ tooth: 17, past: ['inflamed'] }] } }).impression).toBe('same');
    expect(course({ book: { ...book, tissue: 'gum' } }).impression).toBe('healed');
    // Somebody who decides it otherwise has it so.
    expect(course({ book: { ...book, tissue: 'gum', impression: 'same' } }).impression).toBe('same');
  });

  it('have a mock-up for as long as the house wears one, bleaching, and a guard where there is grinding', () => {
    expect([course().mockUpDays, course().guard, course().bleaching]).toEqual([2, false, false]);
    const { meet, match, book } = EMPTY_SECTIONS;
    const own = course({
      meet: { ...meet, cautions: ['grinding'] },
      match: { ...match, bleaching: [{ tooth: 11, to: 'A1', waitDays: 14 }] },
      book: { ...book, mockUpDays: 5 },
    });
    expect([own.mockUpDays, own.guard, own.bleaching]).toEqual([5, true, true]);
  });
});
