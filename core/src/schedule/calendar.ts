import { Refusal } from '../errors.js';
import type { Day } from './day.js';
import { weekdayOf } from './day.js';

/** From and to, minutes from midnight by the clock on the wall. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/** Hours that recur on a day of the week, 0 Monday to 6 Sunday. */
export interface WeekHours extends Span {
  readonly weekday: number;
}

/** Days on which nobody works or somebody is away, both ends within. */
export interface Away {
  readonly from: Day;
  readonly to: Day;
  readonly why: string;
}

/** When somebody works: hours that recur every week, less days away. */
export interface Calendar {
  readonly hours: readonly WeekHours[];
  readonly away: readonly Away[];
}

/** Beyond this nobody is looked for, days. A calendar that is closed so long is closed for good. */
export const FAR_DAYS = 3 * 366;

const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;
export const clock = (minute: number): string =>
  `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;

/** @throws Refusal `hours-overlap`; `number-invalid` for hours that end before they begin */
export function requireHours(hours: readonly WeekHours[]): void {
  for (const h of hours)
    if (!(h.from < h.to))
      throw new Refusal('number-invalid', `${DAYS[h.weekday]}: ${clock(h.from)} is not before ${clock(h.to)}.`, h);
  for (const [i, a] of hours.entries())
    for (const b of hours.slice(i + 1))
      if (a.weekday === b.weekday && a.from < b.to && b.from < a.to)
        throw new Refusal(
          'hours-overlap',
          `${DAYS[a.weekday]}: ${clock(a.from)} to ${clock(a.to)} and ${clock(b.from)} to ${clock(b.to)} overlap.`,
          [a, b],
        );
}

/** The hours of a day of the week as they are written: `08:00–12:00, 13:00–17:00`; empty where it is closed. */
export const hoursText = (hours: readonly Span[]): string =>
  [...hours]
    .sort((a, b) => a.from - b.from)
    .map((h) => `${clock(h.from)}–${clock(h.to)}`)
    .join(', ');

/**
 * Hours as somebody writes them: `8-12, 13:30-17`, with any dash.
 * @throws Refusal `number-invalid` for what is no time of day
 */
export function hoursFrom(text: string): Span[] {
  const minute = (t: string): number => {
    const parts = /^(\d{1,2})(?:[:.](\d\d))?$/.exec(t.trim());
    const at = parts ? 60 * Number(parts[1]) + Number(parts[2] ?? 0) : Number.NaN;
    if (!(at <= 24 * 60) || Number(parts?.[2] ?? 0) > 59)
      throw new Refusal('number-invalid', 'Hours are written as 8:00–12:00, 13:00–17:00.', text);
    return at;
  };
  if (text.trim() === '') return [];
  return text.split(/[,;]/).map((part) => {
    const [from, to, more] = part.split(/[-–—]|\bto\b/);
    if (from === undefined || to === undefined || more !== undefined)
      throw new Refusal('number-invalid', 'Hours are written as 8:00–12:00, 13:00–17:00.', text);
    return { from: minute(from), to: minute(to) };
  });
}

/** The hours of a day, in their order; none where it is closed. */
export function openOn({ hours, away }: Calendar, day: Day): readonly Span[] {
  if (away.some((a) => a.from <= day && day <= a.to)) return [];
  return hours.filter((h) => h.weekday === weekdayOf(day)).sort((a, b) => a.from - b.from);
}

export const isOpen = (c: Calendar, day: Day): boolean => openOn(c, day).length > 0;

/** The first open day on or after one. @throws Refusal `no-working-day` */
export function nextOpen(c: Calendar, day: Day, who = 'The calendar'): Day {
  for (let d = day; d <= day + FAR_DAYS; d++) if (isOpen(c, d)) return d;
  throw new Refusal('no-working-day', `${who} has no working day left.`, day);
}

/** The day that is so many working days after one; the day itself is none of them. @throws Refusal `no-working-day` */
export function afterWorking(c: Calendar, day: Day, days: number, who?: string): Day {
  let at = day;
  for (let n = 0; n < days; n++) at = nextOpen(c, at + 1, who);
  return at;
}

/** The latest day from which so many working days still end by another. @throws Refusal `no-working-day` */
export function beforeWorking(c: Calendar, by: Day, days: number, who = 'The calendar'): Day {
  for (let d = by; d >= by - FAR_DAYS; d--) if (afterWorking(c, d, days, who) <= by) return d;
  throw new Refusal('no-working-day', `${who} has no working day before.`, by);
}

/** The free stretches of a day in which so many minutes have room. @param busy what is taken of it */
export function freeOn(open: readonly Span[], busy: readonly Span[], minutes: number): Span[] {
  let free: Span[] = open.map((s) => ({ ...s }));
  for (const b of busy)
    free = free.flatMap((s) =>
      b.to <= s.from || b.from >= s.to
        ? [s]
        : [
            { from: s.from, to: b.from },
            { from: b.to, to: s.to },
          ].filter((x) => x.to > x.from),
    );
  return free.filter((s) => s.to - s.from >= minutes);
}
