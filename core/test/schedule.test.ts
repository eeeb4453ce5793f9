import {
  type Ask,
  afterWorking,
  beforeWorking,
  type Calendar,
  type Course,
  chainTo,
  dayOf,
  type Event,
  freeOn,
  type House,
  intervalsOf,
  isOpen,
  isoOf,
  type Link,
  planVisits,
  remindersOf,
  requireHours,
  solveDays,
  visitsOf,
  weekdayOf,
  whatWouldHold,
} from '@radiant/core';
import { random } from '@radiant/standins';
import { DateTime } from 'luxon';

const WEEK: Calendar = {
  hours: [0, 1, 2, 3, 4].map((weekday) => ({ weekday, from: 8 * 60, to: 17 * 60 })),
  away: [],
};

describe('days', () => {
  it('are those of a calendar library over years with leap days and changes to summer time', () => {
    for (
      let at = DateTime.fromISO('2023-12-20', { zone: 'Europe/Lisbon' }), n = 0;
      n < 1600;
      n++, at = at.plus({ days: 1 })
    ) {
      const iso = at.toISODate() as string;
      const day = dayOf(iso);
      expect(isoOf(day)).toBe(iso);
      expect(weekdayOf(day)).toBe(at.weekday - 1);
      if (n > 0) expect(day).toBe(dayOf(at.minus({ days: 1 }).toISODate() as string) + 1);
    }
  });

  it('that are none are refused in a sentence', () => {
    for (const bad of ['2026-02-30', '2025-02-29', '26-1-1', 'soon', '2026-13-01'])
      expect(() => dayOf(bad)).toThrow(/is no day; a day is written as 2026-12-18\./);
    expect(isoOf(dayOf('2028-02-29') + 1)).toBe('2028-03-01');
  });
});

describe('a calendar', () => {
  const friday = dayOf('2026-12-18');
  const holidays: Calendar = {
    ...WEEK,
    away: [{ from: dayOf('2026-12-24'), to: dayOf('2027-01-03'), why: 'the year’s end' }],
  };

  it('counts working days over weekends and holidays, there and back', () => {
    expect(isoOf(afterWorking(WEEK, friday, 1))).toBe('2026-12-21');
    expect(isoOf(afterWorking(holidays, friday, 4))).toBe('2027-01-04');
    for (let n = 0; n < 12; n++)
      for (let d = friday; d < friday + 30; d++) {
        const end = afterWorking(holidays, d, n);
        // The latest start that still ends by then: a day later would not.
        const back = beforeWorking(holidays, end, n);
        expect(back).toBeGreaterThanOrEqual(d);
        expect(afterWorking(holidays, back, n)).toBeLessThanOrEqual(end);
        expect(afterWorking(holidays, back + 1, n)).toBeGreaterThan(end);
      }
  });

  it('says that hours overlap, end before they begin, and that nobody works any more', () => {
    const at = (from: number, to: number, weekday = 1) => ({ weekday, from, to });
    expect(() => requireHours([at(480, 720), at(700, 900)])).toThrow(
      'Tuesday: 08:00 to 12:00 and 11:40 to 15:00 overlap.',
    );
    expect(() => requireHours([at(480, 720), at(720, 900), at(500, 600, 2)])).not.toThrow();
    expect(() => requireHours([at(900, 480)])).toThrow('Tuesday: 15:00 is not before 08:00.');
    expect(() => afterWorking({ hours: [], away: [] }, friday, 1, 'The laboratory')).toThrow(
      'The laboratory has no working day left.',
    );
  });

  it('has room where a stretch is free for as long', () => {
    const open = [{ from: 480, to: 720 }];
    expect(freeOn(open, [{ from: 540, to: 600 }], 60)).toEqual([
      { from: 480, to: 540 },
      { from: 600, to: 720 },
    ]);
    expect(freeOn(open, [{ from: 540, to: 600 }], 90)).toEqual([{ from: 600, to: 720 }]);
    expect(freeOn(open, [{ from: 0, to: 2000 }], 5)).toEqual([]);
  });
});

const anyDay = () => true;
const event = (id: string, from: number, to: number, can: Event['can'] = anyDay): Event => ({ id, from, to, can });

describe('a network of days', () => {
  it('is as earliest and latest of a textbook’s critical path', () => {
    // A project of six activities as textbooks of the critical path method have it (Kelley, Walker 1959): A 3, B 2 after
    // A, C 4 after A, D 4 after B, E 1 after C, F 2 after D and E. It takes 11; A, B, D, F are critical, C and E have 1.
    const takes = { A: 3, B: 2, C: 4, D: 4, E: 1, F: 2 } as const;
    const after = [
      ['A', 'B'],
      ['A', 'C'],
      ['B', 'D'],
      ['C', 'E'],
      ['D', 'F'],
      ['E', 'F'],
      ['F', 'end'],
    ] as const;
    const links = after.map(([from, to]): Link => ({ from, to, least: takes[from] }));
    const events = [...Object.keys(takes), 'end'].map((id) => event(id, 0, 11));
    const own = solveDays(events, links);
    if ('stuck' in own) throw new Error('stuck');
    expect([...own.earliest]).toEqual([
      ['A', 0],
      ['B', 3],
      ['C', 3],
      ['D', 5],
      ['E', 7],
      ['F', 9],
      ['end', 11],
    ]);
    expect([...own.earliest].map(([id, d]) => (own.latest.get(id) as number) - d)).toEqual([0, 0, 1, 0, 1, 0, 0]);
    expect(chainTo('end', own.earliestBy)).toEqual(['A', 'B', 'D', 'F', 'end']);
  });

  it('is, on a thousand random networks with closed days, what an exhaustive search finds', () => {
    const r = random(7);
    const int = (n: number) => Math.floor(r.next() * n);
    let [solved, stuck] = [0, 0];
    for (let trial = 0; trial < 1000; trial++) {
      const n = 2 + int(3);
      const span = 9;
      const events = Array.from({ length: n }, (_, i) => {
        const open = new Set(Array.from({ length: span }, (_, d) => d).filter(() => r.next() < 0.65));
        return event(String(i), int(3), span - 1 - int(2), (d) => open.has(d));
      });
      const links: Link[] = [];
      for (let a = 0; a < n; a++)
        for (let b = 0; b < n; b++) {
          if (a === b || r.next() > 0.45) continue;
          const least = int(4) - 1;
          links.push({ from: String(a), to: String(b), least, ...(r.next() < 0.5 && { most: least + int(4) }) });
        }
      const all: number[][] = [];
      const place = (days: number[]): void => {
        if (days.length === n) {
          const ok = links.every((l) => {
            const gap = (days[Number(l.to)] as number) - (days[Number(l.from)] as number);
            return gap >= l.least && (l.most === undefined || gap <= l.most);
          });
          if (ok) all.push(days);
          return;
        }
        const e = events[days.length] as Event;
        for (let d = e.from; d <= e.to; d++) if (e.can(d)) place([...days, d]);
      };
      place([]);
      let own: ReturnType<typeof solveDays> | undefined;
      try {
        own = solveDays(events, links);
      } catch {
        expect(all).toEqual([]);
        stuck++;
        continue;
      }
      if ('stuck' in own) {
        expect(all).toEqual([]);
        stuck++;
        continue;
      }
      solved++;
      const { earliest, latest } = own;
      events.forEach((e, i) => {
        expect(earliest.get(e.id)).toBe(Math.min(...all.map((d) => d[i] as number)));
        expect(latest.get(e.id)).toBe(Math.max(...all.map((d) => d[i] as number)));
      });
    }
    // Both kinds are tried often.
    expect(Math.min(solved, stuck)).toBeGreaterThan(200);
  });

  it('names the visits that wait for each other', () => {
    const links: Link[] = [
      { from: 'A', to: 'B', least: 3 },
      { from: 'B', to: 'C', least: 2 },
      { from: 'A', to: 'C', least: 0, most: 4 },
    ];
    const events = ['A', 'B', 'C', 'D'].map((id) => event(id, 0, 100));
    expect(() => solveDays(events, links)).toThrow(/These intervals can’t all be kept: .* wait for each other\./);
  });
});

const SIX = [13, 12, 11, 21, 22, 23].map((tooth) => ({ tooth, work: 'veneer' }) as const);
const COURSE: Course = {
  teeth: SIX,
  hasRecords: true,
  mockUpDays: 3,
  tissue: 'none',
  impression: 'same',
  maker: 'laboratory',
  laboratoryDays: 10,
  tryIn: false,
  bleaching: false,
  guard: false,
};
const HOUSE: House = { clinic: WEEK, laboratory: WEEK, taken: () => [[]], chairs: 1 };
const MONDAY = dayOf('2026-11-30');
const ask = (over: Partial<Ask> = {}, course: Partial<Course> = {}): Ask => ({
  course: { ...COURSE, ...course },
  house: HOUSE,
  patientAway: [],
  today: MONDAY,
  booked: [],
  ...over,
});
const kinds = (course: Partial<Course>) => visitsOf({ ...COURSE, ...course }).map((v) => v.kind);
const gap = (course: Partial<Course>, from: string, to: string) =>
  intervalsOf({ ...COURSE, ...course }).find((i) => i.from === from && i.to === to);

describe('visits', () => {
  it('follow from what is decided', () => {
    expect(kinds({})).toEqual(['mock-up in', 'mock-up out', 'preparation', 'seating', 'review']);
    expect(
      kinds({ hasRecords: false, tissue: 'gum', impression: 'healed', tryIn: true, guard: true, bleaching: true }),
    ).toEqual([
      'records',
      'bleached',
      'mock-up in',
      'mock-up out',
      'tissue',
      'preparation',
      'impression',
      'try-in',
      'seating',
      'review',
      'guard',
    ]);
    // Nothing is cut under a no-prep veneer, but it is scanned; composite needs no laboratory at all.
    expect(kinds({ teeth: SIX.map((t) => ({ ...t, work: 'no-prep veneer' })) })).toEqual([
      'mock-up in',
      'mock-up out',
      'impression',
      'seating',
      'review',
    ]);
    expect(kinds({ teeth: SIX.map((t) => ({ ...t, work: 'composite' })) })).toEqual([
      'mock-up in',
      'mock-up out',
      'composite',
      'review',
    ]);
    expect(kinds({ teeth: [] })).toEqual(['mock-up in', 'mock-up out']);
  });

  it('keep the intervals of the trade (common practice, no source)', () => {
    expect(gap({ tissue: 'gum', impression: 'healed' }, 'tissue', 'impression')?.least).toBe(14);
    expect(gap({ impression: 'healed' }, 'preparation', 'impression')?.least).toBe(14);
    expect(gap({ tissue: 'bone', impression: 'healed' }, 'tissue', 'preparation')?.least).toBeGreaterThanOrEqual(60);
    expect([gap({ bleaching: true }, 'bleached', 'preparation')].map((i) => [i?.least, i?.usual])).toEqual([[7, 14]]);
    const worn = gap({ mockUpDays: 1 }, 'mock-up in', 'mock-up out');
    expect([worn?.least, (worn?.most ?? 0) >= 7]).toEqual([1, true]);
    expect(gap({ maker: 'mill' }, 'preparation', 'seating')?.least).toBe(1);
    expect(gap({}, 'preparation', 'seating')?.working).toBe('laboratory');
    const review = gap({}, 'seating', 'review');
    expect((review?.least ?? 0) <= 7 && (review?.usual ?? 0) === 7).toBe(true);
    for (const i of intervalsOf({
      ...COURSE,
      tissue: 'gum',
      impression: 'healed',
      bleaching: true,
      guard: true,
      tryIn: true,
    })) {
      expect(i.least).toBeLessThanOrEqual(i.usual);
      expect(i.usual).toBeLessThanOrEqual(i.most ?? Infinity);
      expect(i.reason.length).toBeGreaterThan(10);
    }
  });

  it('take longer for more teeth', () => {
    const minutes = (n: number) =>
      visitsOf({ ...COURSE, teeth: SIX.slice(0, n) }).find((v) => v.kind === 'preparation')?.minutes;
    expect((minutes(6) ?? 0) > (minutes(2) ?? 0)).toBe(true);
    expect((minutes(6) ?? 1) % 5).toBe(0);
  });
});

describe('a promised date', () => {
  it('is kept or not, with earliest, latest, slack, and the chain that decides', () => {
    const plan = planVisits(ask({ by: dayOf('2026-12-23') }));
    // Monday, three days worn, prepared the same Thursday, ten working days of the laboratory.
    expect(plan.visits.map((v) => [v.kind, isoOf(v.earliest)])).toEqual([
      ['mock-up in', '2026-11-30'],
      ['mock-up out', '2026-12-03'],
      ['preparation', '2026-12-03'],
      ['seating', '2026-12-17'],
      ['review', '2026-12-22'],
    ]);
    expect([plan.holds, isoOf(plan.end)]).toEqual([true, '2026-12-17']);
    const slack = plan.visits.map((v) => v.slackDays);
    // From 17 to 23 December; a mock-up that comes off on the 9th went in on Friday the 4th, not on a Sunday.
    expect(slack.slice(0, 4)).toEqual([4, 6, 6, 6]);
    expect(plan.visits.filter((v) => v.decides).map((v) => v.kind)).toEqual([
      'mock-up in',
      'mock-up out',
      'preparation',
      'seating',
    ]);
  });

  it('that can’t be kept says what would make it hold, by its price, and what only comes nearer', () => {
    const late = ask({ by: dayOf('2026-12-15') }, { tryIn: true });
    expect(planVisits(late).holds).toBe(false);
    const ways = whatWouldHold(late);
    expect(ways.filter((w) => w.holds).map((w) => w.id)).toContain('mill');
    for (const w of ways) {
      // Each is a whole course of its own, and its date is what that course gives.
      expect(planVisits({ ...late, course: w.course }).end).toBe(w.end);
      expect(w.holds).toBe(w.end <= dayOf('2026-12-15'));
      expect(w.end).toBeLessThan(planVisits(late).end);
      expect(w.price.length).toBeGreaterThan(10);
    }
    const holds = ways.map((w) => w.holds);
    expect(holds).toEqual([...holds].sort((a, b) => Number(b) - Number(a)));
    // An impression is never moved to the same day where the gum was worked on.
    const cut = ask({ by: dayOf('2026-12-15') }, { tissue: 'gum', impression: 'healed' });
    expect(whatWouldHold(cut).some((w) => w.id.includes('same-day'))).toBe(false);
    // Nor where it bleeds.
    const deep = { by: dayOf('2026-12-22') };
    const offered = (inflamed: boolean) =>
      whatWouldHold(ask(deep, { impression: 'healed', inflamed })).some((w) => w.id.includes('same-day'));
    expect([offered(false), offered(true)]).toEqual([true, false]);
  });

  it('counts a day of the laboratory more where the visit ends after it has fetched', () => {
    const at = (until: number, pickUp?: number) => {
      const day = dayOf('2026-12-03');
      const a = ask({
        house: { ...HOUSE, ...(pickUp !== undefined && { pickUp }) },
        booked: [{ kind: 'preparation', day, until }],
      });
      return planVisits(a);
    };
    const seating = (p: ReturnType<typeof at>) => isoOf(p.visits.find((v) => v.kind === 'seating')?.earliest as number);
    const usual = seating(at(17 * 60));
    expect(seating(at(15 * 60, 15 * 60))).toBe(usual);
    // 17 December is a Thursday: the next working day is the 18th.
    expect([usual, seating(at(17 * 60, 15 * 60))]).toEqual(['2026-12-17', '2026-12-18']);
    expect(at(17 * 60, 15 * 60).intervals.find((i) => i.to === 'seating')?.reason).toMatch(
      /preparation ends at 17:00, and the laboratory fetches until 15:00/,
    );
  });

  it('offers fewer teeth where that frees a chair in time, without those that stand furthest from the middle', () => {
    // Half an hour a day is free: six teeth do not fit, four do.
    const six = [13, 12, 11, 21, 22, 23].map((tooth) => ({ tooth, work: 'composite' as const }));
    const short = {
      ...WEEK,
      hours: WEEK.hours.map((h) => ({ ...h, from: 8 * 60, to: h.weekday === 4 ? 12 * 60 : 8 * 60 + 165 })),
    };
    const a = ask(
      { by: dayOf('2026-12-01'), house: { ...HOUSE, clinic: { ...short, away: [] } } },
      { teeth: six, hasRecords: true, tryIn: false },
    );
    const fewer = whatWouldHold(a).find((w) => w.id === 'fewer-teeth');
    expect(fewer?.course.teeth.map((t) => t.tooth)).toEqual([12, 11, 21, 22]);
    expect(planVisits(a).end).toBeGreaterThan(dayOf('2026-12-01'));
    expect(fewer?.end).toBeLessThan(planVisits(a).end);
  });

  it('waits for the clinic, the laboratory, the patient, and a chair that is free long enough', () => {
    const shut = { ...WEEK, away: [{ from: dayOf('2026-12-03'), to: dayOf('2026-12-04'), why: 'course' }] };
    const at = (a: Ask, kind: string) => isoOf(planVisits(a).visits.find((v) => v.kind === kind)?.earliest as number);
    expect(at(ask({ house: { ...HOUSE, clinic: shut } }), 'preparation')).toBe('2026-12-07');
    expect(at(ask({ patientAway: [{ from: MONDAY, to: MONDAY + 1, why: '' }] }), 'mock-up in')).toBe('2026-12-02');
    const closed = { ...WEEK, away: [{ from: dayOf('2026-12-10'), to: dayOf('2026-12-11'), why: 'move' }] };
    expect(at(ask({ house: { ...HOUSE, laboratory: closed } }), 'seating')).toBe('2026-12-21');
    const busy: House = { ...HOUSE, taken: (d) => [d === dayOf('2026-12-03') ? [{ from: 9 * 60, to: 16 * 60 }] : []] };
    // Twenty minutes have room beside it, the preparation has not.
    expect(at(ask({ house: busy }), 'mock-up out')).toBe('2026-12-03');
    expect(at(ask({ house: busy }), 'preparation')).toBe('2026-12-04');
    expect(at(ask({ house: { ...busy, chairs: 2 } }), 'preparation')).toBe('2026-12-03');
  });

  it('with visits that are booked tells what they break, and plans the rest around them', () => {
    const plan = planVisits(
      ask({
        booked: [
          { kind: 'preparation', day: dayOf('2026-12-08') },
          { kind: 'seating', day: dayOf('2026-12-16') },
        ],
      }),
    );
    expect(plan.broken).toEqual([
      'seating on 2026-12-16 comes too soon after preparation: at least 10 working days, since 10 working days of the laboratory; a provisional is worn six weeks at most.',
    ]);
    expect(plan.visits.find((v) => v.kind === 'review')?.earliest).toBe(dayOf('2026-12-21'));
    const before = planVisits(
      ask({
        booked: [
          { kind: 'preparation', day: dayOf('2026-12-08') },
          { kind: 'seating', day: dayOf('2026-12-05') },
        ],
      }),
    );
    expect(before.broken).toContain('seating on 2026-12-05 lies before preparation on 2026-12-08, on which it rests.');
    expect(before.broken).toContain('The clinic is closed on 2026-12-05, the day of seating.');
  });

  it('has a latest day only for what it rests on, and says what is booked for nothing', () => {
    const far = planVisits(ask({ by: dayOf('2027-03-01') }, { guard: true }));
    expect(far.visits.map((v) => v.latest !== undefined)).toEqual([true, true, true, true, false, false]);
    // Without anything that finishes teeth the date is that of all there is.
    const none = planVisits(ask({ by: dayOf('2026-12-23') }, { teeth: [] }));
    expect(none.visits.map((v) => v.slackDays !== undefined)).toEqual([true, true]);
    const extra = planVisits(ask({ booked: [{ kind: 'guard', day: dayOf('2026-12-22') }] }));
    expect(extra.broken).toEqual(['night guard on 2026-12-22 is booked, though nothing that is decided asks for it.']);
    expect(extra.visits.at(-1)).toMatchObject({ kind: 'guard', needed: false, booked: dayOf('2026-12-22') });
    expect(extra.end).toBe(dayOf('2026-12-17'));
  });

  it('goes on from what was held: what that rests on was done, and what waits for it is counted from it', () => {
    const plan = planVisits(
      ask({ by: dayOf('2026-12-10'), booked: [{ kind: 'preparation', day: dayOf('2026-11-23') }] }),
    );
    expect(plan.visits.map((v) => v.kind)).toEqual(['preparation', 'seating', 'review']);
    // Ten working days after Monday the 23rd of November.
    expect([isoOf(plan.end), plan.holds, plan.broken]).toEqual(['2026-12-07', true, []]);
    // Nothing has to be made any more for what was held, nor is it asked whether it was needed.
    expect(remindersOf(plan, COURSE, WEEK, MONDAY).some((r) => r.for === 'preparation')).toBe(false);
    expect(planVisits(ask({ booked: [{ kind: 'tissue', day: dayOf('2026-11-23') }] })).broken).toEqual([]);
  });

  it('tells what is booked too early for what is not booked before it, and still finds days for all else', () => {
    const plan = planVisits(ask({ booked: [{ kind: 'seating', day: dayOf('2026-12-04') }] }));
    expect(plan.broken).toEqual([
      'seating on 2026-12-04 is too early: preparation is not booked, and can’t be done before it in time.',
    ]);
    expect(plan.visits.find((v) => v.kind === 'preparation')?.earliest).toBe(dayOf('2026-12-03'));
    // A provisional that is worn for longer than it should be is told, and the seating still has its days.
    const long = planVisits(ask({ booked: [{ kind: 'preparation', day: dayOf('2026-09-01') }] }));
    expect(long.broken).toEqual(['seating can’t come within 42 days of preparation on 2026-09-01.']);
    expect(long.visits.find((v) => v.kind === 'seating')?.earliest).toBe(MONDAY);
  });

  it('calls composite back each year, also after it was done', () => {
    const course = { ...COURSE, teeth: [{ tooth: 11, work: 'composite' as const }] };
    const booked = [{ kind: 'composite' as const, day: dayOf('2026-10-03') }];
    const own = remindersOf(planVisits({ ...ask({ booked }), course }), course, WEEK, MONDAY);
    // 3 October 2027 is a Sunday.
    expect(own.filter((r) => /^yearly check/.test(r.what)).map((r) => isoOf(r.by))).toEqual(['2027-10-04']);
  });

  it('says what is to be sent and made, working days before', () => {
    const plan = planVisits(ask({ booked: [{ kind: 'preparation', day: dayOf('2026-12-07') }] }));
    const own = remindersOf(plan, COURSE, WEEK, MONDAY).map((r) => `${isoOf(r.by)} ${r.what.split(',')[0]}`);
    // Two working days before Monday the 7th is Thursday; the scan goes out on the day.
    expect(own).toContain('2026-12-03 indexes');
    expect(own).toContain('2026-12-07 scan or impression');
    expect(own).toContain('2026-12-18 work back from the laboratory');
    expect([...own].sort()).toEqual(own);
    const mill = planVisits(ask({}, { maker: 'mill' }));
    expect(
      remindersOf(mill, { ...COURSE, maker: 'mill' }, WEEK, MONDAY).some((r) => r.what.includes('laboratory')),
    ).toBe(false);
  });

  it('is not looked for where nobody works', () => {
    expect(() => planVisits(ask({ house: { ...HOUSE, clinic: { hours: [], away: [] } } }))).toThrow(
      'The clinic has no working day left.',
    );
    expect(() => planVisits(ask({ house: { ...HOUSE, laboratory: { hours: [], away: [] } } }))).toThrow(
      'The laboratory has no working day left.',
    );
    // Each kind of work, in each way, has days.
    for (const work of ['veneer', 'no-prep veneer', 'crown', 'composite'] as const)
      for (const tissue of ['none', 'gum', 'bone'] as const)
        for (const maker of ['laboratory', 'mill'] as const)
          for (const tryIn of [false, true])
            expect(
              planVisits(
                ask(
                  {},
                  {
                    teeth: SIX.map((t) => ({ ...t, work })),
                    tissue,
                    maker,
                    tryIn,
                    impression: tissue === 'none' ? 'same' : 'healed',
                  },
                ),
              ).visits.every((v) => isOpen(WEEK, v.earliest)),
            ).toBe(true);
  });
});
