import type { Booking, Clinic } from '@radiant/contract';
import { type Day, dayOf, isoOf, VISITS } from '@radiant/core';
import ICAL from 'ical.js';
import ical, { ICalCalendarMethod, ICalEventStatus } from 'ical-generator';
import { DateTime } from 'luxon';
import { ProblemException } from '../common/problem.filter.js';

/** A visit that was booked once and is no more: a calendar that has it takes it out. */
export interface Cancelled {
  readonly caseId: string;
  readonly caseName: string;
  readonly kind: Booking['kind'];
  readonly day: string;
  readonly from: number;
  readonly minutes: number;
}

/** The same visit has the same name in every calendar, wherever it is moved: an update replaces it. */
const uidOf = ({ caseId, kind }: Pick<Booking, 'caseId' | 'kind'>): string =>
  `${caseId}.${kind.replaceAll(' ', '-')}@radiant-arch`;

/** An instant of a day by the clock of a time zone; where a clock is set on, the hour that is left out comes later. */
const at = (day: string, minute: number, zone: string): Date =>
  DateTime.fromISO(day, { zone })
    .set({ hour: Math.floor(minute / 60), minute: minute % 60 })
    .toJSDate();

/**
 * Visits as an iCalendar file (RFC 5545), in instants: no reader has to know the zone's rules.
 * @param sequence grows with every change, so that readers know which is newer
 */
export function calendarOf(
  name: string,
  visits: readonly Booking[],
  cancelled: readonly Cancelled[],
  { timeZone }: Pick<Clinic, 'timeZone'>,
  sequence: number,
  stamp: Date,
): string {
  const calendar = ical({
    name,
    prodId: { company: 'Radiant Arch', product: 'visits' },
    method: ICalCalendarMethod.PUBLISH,
  });
  const put = (v: Cancelled, status: ICalEventStatus, chair?: string) =>
    calendar.createEvent({
      id: uidOf(v),
      sequence,
      stamp,
      start: at(v.day, v.from, timeZone),
      end: at(v.day, v.from + v.minutes, timeZone),
      summary: `${v.caseName}: ${VISITS[v.kind]}`,
      status,
      ...(chair && { location: chair }),
    });
  for (const v of visits) put(v, ICalEventStatus.CONFIRMED, v.chair);
  for (const v of cancelled) put(v, ICalEventStatus.CANCELLED);
  return calendar.toString();
}

/** Days on which something of a calendar lies. */
export interface HolidayDays {
  readonly from: string;
  readonly to: string;
  readonly why: string;
}

/** Events that recur are followed so far, and so many are taken. House limits. */
const MOST = { days: 5 * 366, events: 400 } as const;

/**
 * The days of an iCalendar file of holidays. Events that recur are followed from a day on.
 * @throws ProblemException 422 for what is no calendar, or has no days
 */
export function holidaysOf(text: string, from: Day): HolidayDays[] {
  let root: ICAL.Component;
  try {
    root = new ICAL.Component(ICAL.parse(text));
  } catch {
    throw refused('This is no iCalendar file: it begins with BEGIN:VCALENDAR and ends with END:VCALENDAR.');
  }
  if (root.name !== 'vcalendar') throw refused('This iCalendar file holds no calendar.');
  const out: HolidayDays[] = [];
  for (const component of root.getAllSubcomponents('vevent')) {
    const event = new ICAL.Event(component);
    if (!event.startDate || component.getFirstPropertyValue('status') === 'CANCELLED') continue;
    const why = String(event.summary ?? '').slice(0, 80);
    const add = (start: ICAL.Time, end: ICAL.Time) => {
      const [a, b] = [start.toString().slice(0, 10), end.toString().slice(0, 10)];
      // The end of whole days is the day after.
      const last = end.isDate && dayOf(b) > dayOf(a) ? isoOf(dayOf(b) - 1) : b;
      if (dayOf(last) >= from) out.push({ from: a, to: last, why });
    };
    if (!event.isRecurring()) add(event.startDate, event.endDate ?? event.startDate);
    else {
      const each = event.iterator();
      for (let next = each.next(); next; next = each.next()) {
        if (dayOf(next.toString().slice(0, 10)) > from + MOST.days || out.length >= MOST.events) break;
        const { startDate, endDate } = event.getOccurrenceDetails(next);
        add(startDate, endDate);
      }
    }
  }
  if (out.length === 0) throw refused('This calendar has no days that are still to come.');
  if (out.length > MOST.events) throw refused(`This calendar has more than ${MOST.events} stretches of days.`);
  return out.sort((a, b) => (a.from < b.from ? -1 : a.from > b.from ? 1 : 0));
}

const refused = (sentence: string) => new ProblemException(422, 'Not accepted', sentence);
