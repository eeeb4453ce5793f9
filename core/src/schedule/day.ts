import { Refusal } from '../errors.js';

/** A day of the civil calendar, whole days since 1 January 1970. No clock and no time zone is in it. */
export type Day = number;

const MS = 86_400_000;

/** A day as ISO 8601 writes it. @throws Refusal `day-invalid` for what is none, 30 February among them */
export function dayOf(iso: string): Day {
  const parts = /^(\d{4})-(\d\d)-(\d\d)$/.exec(iso);
  if (parts) {
    const [y, m, d] = parts.slice(1).map(Number) as [number, number, number];
    const at = Date.UTC(y, m - 1, d);
    const back = new Date(at);
    if (back.getUTCFullYear() === y && back.getUTCMonth() === m - 1 && back.getUTCDate() === d) return at / MS;
  }
  throw new Refusal('day-invalid', `“${iso.slice(0, 20)}” is no day; a day is written as 2026-12-18.`, iso);
}

export const isoOf = (day: Day): string => new Date(day * MS).toISOString().slice(0, 10);

/** 0 is Monday, 6 Sunday. */
export const weekdayOf = (day: Day): number => (((day + 3) % 7) + 7) % 7;
