import type { Booking, Clinic } from '@radiant/contract';
import { VISITS } from '@radiant/core';
import ical, { ICalCalendarMethod, ICalEventStatus } from 'ical-generator';
import { DateTime } from 'luxon';

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
