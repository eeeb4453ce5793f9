import type { Booking, CaseDetail, DaySheet, PracticeSettingsState, Problem, SectionState } from '@radiant/contract';
import ICAL from 'ical.js';
import { DateTime } from 'luxon';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { avocetOf, type Client, signedIn } from '../house.js';

let dentist: Client;
let assistant: Client;
let first: CaseDetail;
let second: CaseDetail;

const VISIT = { kind: 'seating', day: '2027-03-26', from: 9 * 60, minutes: 90, chair: 'chair 1' } as const;
const newCase = async (name: string) =>
  (await dentist.post<CaseDetail>('/cases', { name, meet: { ageYears: 40, cautions: ['grinding'] } })).body;
const put = (client: Client, id: string, version: number, visits: readonly object[]) =>
  client.patch<SectionState<'book'> & Problem>(`/cases/${id}/sections/book`, { version, data: { away: [], visits } });
const setClinic = async (over: object) => {
  const now = (await dentist.get<PracticeSettingsState>('/practice/settings')).body;
  return dentist.call<PracticeSettingsState & Problem>('PUT', '/practice/settings', {
    version: now.version,
    data: { ...now.data, clinic: { ...now.data.clinic, ...over } },
  });
};

beforeAll(async () => {
  dentist = await signedIn('dentist');
  assistant = await signedIn('assistant');
  first = await newCase('Booked first');
  second = await newCase('Booked second');
});

describe('chairs across cases', () => {
  it('are booked by an assistant, and never twice', async () => {
    expect((await put(assistant, first.id, 0, [VISIT])).status).toBe(200);
    const clash = await put(assistant, second.id, 0, [{ ...VISIT, kind: 'preparation', from: 10 * 60 }]);
    expect([clash.status, clash.body.errors?.[0]?.message]).toEqual([
      422,
      'chair 1 has “Booked first” for seating on 2027-03-26 then.',
    ]);
    expect((await put(assistant, second.id, 0, [{ ...VISIT, kind: 'preparation', from: 10 * 60 + 30 }])).status).toBe(
      200,
    );
    const twice = await put(assistant, first.id, 1, [VISIT, { ...VISIT, kind: 'review', from: 10 * 60 }]);
    expect([twice.status, twice.body.errors?.[0]?.message]).toEqual([
      422,
      'seating and colour and gum at a week are both booked on 2027-03-26 at that time.',
    ]);
    const technician = await signedIn('technician');
    expect((await put(technician, second.id, 1, [])).status).toBe(403);
  });

  it('of two who want one at the same moment the second hears of the first', async () => {
    const cases = await Promise.all(['A', 'B', 'C', 'D'].map((n) => newCase(`At once ${n}`)));
    const wanted = { ...VISIT, day: '2027-04-01', kind: 'composite' };
    const answers = await Promise.all(cases.map((c) => put(assistant, c.id, 0, [wanted])));
    expect(answers.map((a) => a.status).sort()).toEqual([200, 422, 422, 422]);
    const list = (await assistant.get<Booking[]>('/bookings?from=2027-04-01&to=2027-04-01')).body;
    expect(list).toHaveLength(1);
    // A case that was put away lets its chair go.
    const holder = list[0] as Booking;
    expect(await dentist.call('DELETE', `/cases/${holder.caseId}`)).toMatchObject({ status: 204 });
    const other = cases.find((c) => c.id !== holder.caseId) as CaseDetail;
    expect((await put(assistant, other.id, 0, [wanted])).status).toBe(200);
  });

  it('stay with the first case when it is made twice', async () => {
    const copy = (await dentist.post<CaseDetail>(`/cases/${first.id}/duplicate`, { name: 'Made twice' })).body;
    expect(copy.sections.book.data.visits).toEqual([]);
  });

  it('are listed between two days, and wrong days are told', async () => {
    const list = (await assistant.get<Booking[]>('/bookings?from=2027-03-26&to=2027-03-26')).body;
    expect(list.map((b) => `${b.caseName} ${b.from}`).sort()).toEqual(['Booked first 540', 'Booked second 630']);
    expect((await assistant.get<Problem>('/bookings?from=2027-03-26&to=2027-03-25')).body.detail).toBe(
      'Ask for visits from a day to the same or a later one.',
    );
  });
});

it('a day sheet says visit by visit what is laid out, and what to beware of', async () => {
  const { body } = await assistant.get<DaySheet>('/bookings/day?day=2027-03-26');
  expect(body.visits.map((v) => `${v.caseName}: ${v.kind}`)).toEqual([
    'Booked first: seating',
    'Booked second: preparation',
  ]);
  expect(body.visits[0]?.layOut.join()).toMatch(/try-in paste/);
  expect(body.visits[0]?.beware).toEqual(['clenches or grinds']);
  expect((await assistant.get('/bookings/day?day=soon')).status).toBe(422);
});

it('a day says what has to be sent or made by then for visits to come, of what is booked alone', async () => {
  // Before seating on Friday the work is back on Thursday.
  const { body } = await assistant.get<DaySheet>('/bookings/day?day=2027-03-25');
  expect(body.visits).toEqual([]);
  expect(body.reminders.filter((r) => r.caseName === 'Booked first').map((r) => r.what)).toContain(
    'work back from the laboratory, looked at on the model, for seating',
  );
  expect((await assistant.get<DaySheet>('/bookings/day?day=2027-09-01')).body.reminders).toEqual([]);
});

describe('iCalendar', () => {
  const events = async (id: string) => {
    const text = new TextDecoder().decode(await assistant.bytes(`/cases/${id}/visits.ics`));
    return new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent').map((c) => ({
      event: new ICAL.Event(c),
      status: c.getFirstPropertyValue('status'),
      sequence: Number(c.getFirstPropertyValue('sequence') ?? 0),
    }));
  };

  it('has a visit at its instant by the clock of the house, before and after summer time begins', async () => {
    expect((await setClinic({ timeZone: 'Europe/Lisbon' })).status).toBe(200);
    // In Lisbon clocks go on an hour on 28 March 2027.
    for (const [day, utc] of [
      ['2027-03-26', '09:00'],
      ['2027-03-29', '08:00'],
    ] as const) {
      const { version } = (await assistant.get<CaseDetail>(`/cases/${first.id}`)).body.sections.book;
      expect((await put(assistant, first.id, version, [{ ...VISIT, day }])).status).toBe(200);
      const [own] = await events(first.id);
      expect(own?.event.startDate.toJSDate().toISOString()).toBe(`${day}T${utc}:00.000Z`);
      expect(own?.event.startDate.toJSDate().getTime()).toBe(
        DateTime.fromISO(`${day}T09:00`, { zone: 'Europe/Lisbon' }).toMillis(),
      );
      expect(own?.event.duration.toSeconds()).toBe(90 * 60);
      expect(own?.event.summary).toBe('Booked first: seating');
      expect(own?.event.location).toBe('chair 1');
    }
    expect((await setClinic({ timeZone: 'UTC' })).status).toBe(200);
  });

  it('keeps a visit’s name when it moves, counts up, and cancels what is booked no more', async () => {
    const [before] = await events(first.id);
    const { version } = (await assistant.get<CaseDetail>(`/cases/${first.id}`)).body.sections.book;
    await put(assistant, first.id, version, [{ ...VISIT, day: '2027-04-02' }]);
    const [moved] = await events(first.id);
    expect(moved?.event.uid).toBe(before?.event.uid);
    expect(moved?.sequence).toBeGreaterThan(before?.sequence ?? 0);
    await put(assistant, first.id, version + 1, []);
    const [gone] = await events(first.id);
    expect([gone?.event.uid, gone?.status]).toEqual([before?.event.uid, 'CANCELLED']);
    expect(gone?.sequence).toBeGreaterThan(moved?.sequence ?? 0);
    // Booked anew it is the same visit again.
    await put(assistant, first.id, version + 2, [VISIT]);
    const all = await events(first.id);
    expect(all.map((e) => e.status)).toEqual(['CONFIRMED']);
    expect(all[0]?.event.uid).toBe(before?.event.uid);
  });

  const calendar = (...lines: string[]) =>
    ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//x//x//EN', ...lines, 'END:VCALENDAR', ''].join('\r\n');
  const holidays = (text: string) =>
    assistant.upload<Problem & { from: string; to: string; why: string }[]>(
      '/bookings/holidays?from=2026-12-01',
      text,
      'h.ics',
    );

  it('of holidays gives its days, whole days with their last one, and those that recur each year', async () => {
    const { body, status } = await holidays(
      calendar(
        'BEGIN:VEVENT',
        'UID:1',
        'DTSTART;VALUE=DATE:20261224',
        'DTEND;VALUE=DATE:20261227',
        'SUMMARY:Winter',
        'END:VEVENT',
        'BEGIN:VEVENT',
        'UID:2',
        'DTSTART;VALUE=DATE:20200501',
        'RRULE:FREQ=YEARLY;COUNT=9',
        'SUMMARY:May day',
        'END:VEVENT',
        'BEGIN:VEVENT',
        'UID:3',
        'DTSTART;VALUE=DATE:20250101',
        'SUMMARY:Long gone',
        'END:VEVENT',
      ),
    );
    expect([status, body]).toEqual([
      201,
      [
        { from: '2026-12-24', to: '2026-12-26', why: 'Winter' },
        { from: '2027-05-01', to: '2027-05-01', why: 'May day' },
        { from: '2028-05-01', to: '2028-05-01', why: 'May day' },
      ],
    ]);
  });

  it('with an event that recurs each second is through with it', async () => {
    const text = calendar(
      'BEGIN:VEVENT',
      'UID:1',
      'DTSTART:20200101T000000Z',
      'RRULE:FREQ=SECONDLY',
      'END:VEVENT',
      'BEGIN:VEVENT',
      'UID:2',
      'DTSTART;VALUE=DATE:20261231',
      'END:VEVENT',
    );
    expect((await holidays(text)).body).toEqual([{ from: '2026-12-31', to: '2026-12-31', why: '' }]);
  });

  it('that is none, or has no days to come, is told in a sentence', async () => {
    for (const [text, sentence] of [
      ['a,b,c', 'This is no iCalendar file: it begins with BEGIN:VCALENDAR and ends with END:VCALENDAR.'],
      ['BEGIN:VCALENDAR\r\nVERSION:2.0', /This is no iCalendar file|has no days/],
      [calendar(), 'This calendar has no days that are still to come.'],
      [
        calendar('BEGIN:VEVENT', 'UID:1', 'DTSTART;VALUE=DATE:20200101', 'END:VEVENT'),
        'This calendar has no days that are still to come.',
      ],
    ] as const) {
      const { status, body } = await holidays(text);
      expect(status).toBe(422);
      expect(body.detail).toMatch(sentence);
    }
  });
});

it('hours that overlap are refused in a sentence, and nothing is set', async () => {
  const before = (await dentist.get<PracticeSettingsState>('/practice/settings')).body.version;
  const hours = [
    { weekday: 0, from: 480, to: 720 },
    { weekday: 0, from: 700, to: 900 },
  ];
  const { status, body } = await setClinic({ hours });
  expect([status, body.errors?.[0]?.message]).toEqual([422, 'Monday: 08:00 to 12:00 and 11:40 to 15:00 overlap.']);
  expect((await dentist.get<PracticeSettingsState>('/practice/settings')).body.version).toBe(before);
});

describe('an estimate for the patient', () => {
  const paper = async (id: string) => {
    const bytes = await dentist.bytes(`/cases/${id}/plan.pdf?form=estimate`);
    const pdf = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
    const { items } = await (await pdf.getPage(1)).getTextContent();
    return items
      .map((i) => ('str' in i ? i.str : ''))
      .join(' ')
      .replace(/\s+/g, ' ');
  };

  it('names what is done to each tooth, its price with the laboratory’s, visits and days; for two plans both', async () => {
    const kase = await newCase('Estimated');
    const none = await dentist.get<Problem>(`/cases/${kase.id}/plan.pdf?form=estimate`);
    expect([none.status, none.body.detail]).toEqual([
      422,
      'There is nothing to estimate yet: decide what is done to a tooth first.',
    ]);
    const choices = [11, 21].map((tooth) => ({ tooth, option: 'veneer' }));
    const other = [{ tooth: 11, option: 'direct' }];
    await dentist.patch(`/cases/${kase.id}/sections/decide`, { version: 0, data: { choices, other, plan: 'A' } });
    const now = (await dentist.get<PracticeSettingsState>('/practice/settings')).body;
    const put = (fees: object[], currency: string) =>
      dentist.call<PracticeSettingsState>('PUT', '/practice/settings', {
        version: now.version,
        data: { ...now.data, fees, currency },
      });
    const fees = [{ option: 'veneer', fee: 600, laboratory: 250 }];
    const set = await put(fees, 'CU');
    expect(set.status).toBe(200);
    const words = await paper(kase.id);
    // Two veneers at 600 and 250.
    expect(words).toMatch(/Plan A, followed CU 1,700/);
    expect(words).toMatch(/11 .*veneer.* CU 850/);
    expect(words).toMatch(/preparation \d+ min not before \d+ \w+ 20\d\d/);
    expect(words).toMatch(/\d visits, \d\.\d hours in the chair; finished/);
    // Composite has no fee: no total is made up.
    expect(words).toMatch(/Plan B 11 direct composite .*The house has no fee for some of it: no price is told\./);
    expect(words).toMatch(/An estimate and no offer/);
    // No scan says how much is cut.
    expect(words).not.toMatch(/mm³/);
    const avocet = (await dentist.get<CaseDetail>(`/cases/${(await avocetOf(dentist)).id}`)).body;
    const was = avocet.sections.decide;
    const decided = await dentist.patch<SectionState<'decide'>>(`/cases/${avocet.id}/sections/decide`, {
      version: was.version,
      data: {
        choices: [
          { tooth: 11, option: 'veneer' },
          { tooth: 21, option: 'bleach' },
        ],
      },
    });
    expect(await paper(avocet.id)).toMatch(
      /11 graduated veneer.*? [1-9]\d? mm³ of the tooth are removed; .* 21 bleach nothing of the tooth is removed;/,
    );
    await dentist.patch(`/cases/${avocet.id}/sections/decide`, { version: decided.body.version, data: was.data });
    await dentist.call('PUT', '/practice/settings', { version: set.body.version, data: { ...now.data } });
  });
});

it('a person who treats is in one chair at a time, and the house’s own minutes count', async () => {
  expect(
    (
      await setClinic({
        chairs: ['chair 1', 'chair 2'],
        people: ['Dr Sample Curlew'],
        minutes: [{ visit: 'review', minutes: 40, perTooth: 0 }],
      })
    ).status,
  ).toBe(200);
  const [one, two] = [await newCase('One chair'), await newCase('Other chair')];
  const by = { by: 'Dr Sample Curlew' };
  const at = { ...VISIT, day: '2027-05-10' };
  expect((await put(assistant, one.id, 0, [{ ...at, ...by }])).status).toBe(200);
  expect((await put(assistant, two.id, 0, [{ ...at, chair: 'chair 2', ...by }])).body.errors?.[0]?.message).toBe(
    'Dr Sample Curlew has “One chair” for seating on 2027-05-10 then.',
  );
  expect((await put(assistant, two.id, 0, [{ ...at, chair: 'chair 2' }])).status).toBe(200);
  expect((await setClinic({ chairs: ['chair 1'], people: [], minutes: [] })).status).toBe(200);
});
