import { dayOf, isoOf } from '../schedule/day.js';

/** What a label says of a pack: as much of it as it says. */
export interface Lot {
  readonly item?: string;
  readonly lot?: string;
  /** The last day it may be used, a calendar date. */
  readonly expiry?: string;
}

const GROUP = '\u001d';
/** Fields of fixed length by their identifier, digits after it. S GS1 General Specifications, from memory. */
const FIXED: Readonly<Record<string, number>> = {
  '00': 18,
  '01': 14,
  '02': 14,
  '11': 6,
  '12': 6,
  '13': 6,
  '15': 6,
  '16': 6,
  '17': 6,
  '20': 2,
};

/**
 * What a hand scanner types: the fields of a GS1 label, with their identifiers in brackets or run together with a group
 * separator after fields of open length. Nothing where it is no such label.
 * S GS1 General Specifications, element strings, from memory.
 * @param today a calendar date: the century of a two-digit year is the one nearest to it
 */
export function lotOf(typed: string, today: string): Lot | undefined {
  const fields = fieldsOf(typed.trim());
  if (!fields) return undefined;
  const date = fields.get('17') ?? fields.get('15');
  const expiry = date && dateOf(date, today);
  if (date && !expiry) return undefined;
  const [item, lot] = [fields.get('01'), fields.get('10')];
  return item || lot || expiry ? { ...(item && { item }), ...(lot && { lot }), ...(expiry && { expiry }) } : undefined;
}

function fieldsOf(typed: string): Map<string, string> | undefined {
  const out = new Map<string, string>();
  if (typed.startsWith('(')) {
    for (const [, id, value] of typed.matchAll(/\((\d{2,4})\)([^()]+)/g))
      out.set(id as string, (value as string).trim());
    return out;
  }
  // A scanner may say first which kind of code it read.
  let rest = typed.replace(/^\](C1|d2|Q3|e0)/, '');
  if (!/^\d{4}/.test(rest)) return undefined;
  while (rest) {
    const id = rest.slice(0, 2);
    const fixed = FIXED[id];
    const end = fixed ? 2 + fixed : rest.includes(GROUP) ? rest.indexOf(GROUP) : rest.length;
    const value = rest.slice(2, end);
    if (!/^\d\d$/.test(id) || !value || (fixed && value.length < fixed)) return undefined;
    out.set(id, value);
    rest = rest.slice(rest[end] === GROUP ? end + 1 : end);
  }
  return out;
}

/** The day of six digits, year month day; day 00 is the month's last. Years are within 49 back and 50 ahead. */
function dateOf(six: string, today: string): string | undefined {
  const [yy, mm, dd] = [six.slice(0, 2), six.slice(2, 4), six.slice(4, 6)].map(Number) as [number, number, number];
  const now = Number(today.slice(0, 4));
  const ahead = yy - (now % 100);
  const year = now - (now % 100) + yy + (ahead >= 51 ? -100 : ahead <= -50 ? 100 : 0);
  if (!(mm >= 1 && mm <= 12) || !(dd >= 0 && dd <= 31)) return undefined;
  const last = new Date(Date.UTC(year, mm, 0)).getUTCDate();
  if (dd > last) return undefined;
  const two = (n: number) => String(n).padStart(2, '0');
  return isoOf(dayOf(`${year}-${two(mm)}-${two(dd || last)}`));
}
