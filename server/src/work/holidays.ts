import { type Day, dayOf, isoOf, Refusal } from '@radiant/core';
import ICAL from 'ical.js';

/** Days on which something of a calendar lies. */
export interface HolidayDays {
  readonly from: string;
  readonly to: string;
  readonly why: string;
}

/**
 * Events that recur are followed so far, so many are taken, and so many turns of one are looked at: one that recurs each
 * second would never end. House limits.
 */
const MOST = { days: 5 * 366, events: 400, turns: 20_000 } as const;

/**
 * The days of an iCalendar file of holidays. Events that recur are followed from a day on.
 * @throws Refusal `calendar-broken` for what is no calendar, or has no days
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
      for (let next = each.next(), turns = 0; next && turns < MOST.turns; next = each.next(), turns++) {
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

const refused = (sentence: string) => new Refusal('calendar-broken', sentence);
