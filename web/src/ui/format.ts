const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long' });
const DAY_YEAR = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });
const TIME = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });

const inUtc = (f: Intl.DateTimeFormat) =>
  new Intl.DateTimeFormat('en-GB', { ...(f.resolvedOptions() as Intl.DateTimeFormatOptions), timeZone: 'UTC' });
const UTC_DAY = inUtc(DAY);
const UTC_DAY_YEAR = inUtc(DAY_YEAR);

/**
 * "9 November", with the year when it is not this one. A day of the calendar is that day everywhere, a moment the day
 * that it is here; what is neither stands as it is.
 */
export function day(iso: string): string {
  const d = new Date(iso);
  if (Number.isNaN(d.getTime())) return iso;
  const calendar = /^\d{4}-\d\d-\d\d$/.test(iso);
  const thisYear = (calendar ? d.getUTCFullYear() : d.getFullYear()) === new Date().getFullYear();
  return (calendar ? (thisYear ? UTC_DAY : UTC_DAY_YEAR) : thisYear ? DAY : DAY_YEAR).format(d);
}

/** A sentence with the days in it as they are read: core writes them as ISO does. */
export const withDays = (sentence: string): string => sentence.replaceAll(/\b\d{4}-\d\d-\d\d\b/g, day);

/** "9 November, 14:05" */
export const moment = (iso: string): string =>
  Number.isNaN(Date.parse(iso)) ? iso : `${day(iso)}, ${TIME.format(new Date(iso))}`;

/** A number with a true minus sign. */
export function number(v: number, digits: number): string {
  const s = Math.abs(v).toFixed(digits);
  return v < 0 && Number(s) !== 0 ? `−${s}` : s;
}

/** A signed number: +0.4, −0.4, 0.0. */
export function signed(v: number, digits: number): string {
  const s = number(v, digits);
  return v > 0 && Number(s) !== 0 ? `+${s}` : s;
}

/** "just now", "7 min ago", "3 h ago", then the day. */
export function ago(iso: string, now = Date.now()): string {
  const minutes = Math.floor((now - new Date(iso).getTime()) / 60_000);
  if (minutes < 1) return 'just now';
  if (minutes < 60) return `${minutes} min ago`;
  return minutes < 24 * 60 ? `${Math.floor(minutes / 60)} h ago` : day(iso);
}
