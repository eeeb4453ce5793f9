const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long' });
const DAY_YEAR = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });
const TIME = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });

/** "9 November", with the year when it is not this one. */
export function day(iso: string): string {
  const d = new Date(iso);
  return (d.getFullYear() === new Date().getFullYear() ? DAY : DAY_YEAR).format(d);
}

/** "9 November, 14:05" */
export const moment = (iso: string): string => `${day(iso)}, ${TIME.format(new Date(iso))}`;

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
