import { Refusal } from '../errors.js';
import { afterWorking, beforeWorking, type Calendar } from './calendar.js';
import type { Day } from './day.js';

/** Something that happens on one day. */
export interface Event {
  readonly id: string;
  /** Not before and not after. */
  readonly from: Day;
  readonly to: Day;
  /** Whether a day between them can be it at all. */
  readonly can: (day: Day) => boolean;
}

/** How two events lie to each other: the second so many days after the first. */
export interface Link {
  readonly from: string;
  readonly to: string;
  readonly least: number;
  /** No upper end where left out; days of the calendar. */
  readonly most?: number;
  /** Whose working days `least` counts; all days where nobody is named. */
  readonly working?: { readonly calendar: Calendar; readonly who: string };
}

/** What an event's day comes from: a link, or its own days alone. */
export type Because = { readonly link: Link; readonly end: 'least' | 'most' } | { readonly own: true };

/** Earliest and latest day of every event, and why they are no better. */
export interface Solved {
  readonly earliest: ReadonlyMap<string, Day>;
  readonly latest: ReadonlyMap<string, Day>;
  readonly earliestBy: ReadonlyMap<string, Because>;
}

/** Where the links can't be kept within the days there are: the event that has no day, and what pushed it. */
export interface Stuck {
  readonly stuck: string;
  readonly by: ReadonlyMap<string, Because>;
}

const after = ({ least, working }: Link, day: Day): Day =>
  working ? afterWorking(working.calendar, day, least, working.who) : day + least;
const before = ({ least, working }: Link, day: Day): Day =>
  working ? beforeWorking(working.calendar, day, least, working.who) : day - least;

/**
 * Earliest and latest days of a temporal constraint network (Dechter, Meiri, Pearl 1991, Artificial Intelligence
 * 49:61, from memory). A link bounds one day by a function of another that never falls, and an event's own days bound
 * it alone: of two solutions the earlier day of each event is a solution again, and so is the later. So what pushing
 * days only as far as they must go ends in is exact, whatever days are closed; no choice has to be searched.
 * @throws Refusal `interval-cycle` for links that ask for each other whatever the days
 */
export function solveDays(events: readonly Event[], links: readonly Link[]): Solved | Stuck {
  requireNoCycle(events, links);
  const by = new Map<string, Because>(events.map((e) => [e.id, { own: true }]));
  const earliest = pushed(events, links, by, 1);
  if (typeof earliest === 'string') return { stuck: earliest, by };
  const latest = pushed(events, links, new Map(), -1);
  // What has an earliest solution has a latest one.
  return { earliest, latest: latest as ReadonlyMap<string, Day>, earliestBy: by };
}

/** Pushes days on (1) or back (−1) as far as they must go; the event that runs out of days where one does. */
function pushed(
  events: readonly Event[],
  links: readonly Link[],
  by: Map<string, Because>,
  way: 1 | -1,
): Map<string, Day> | string {
  const find = (e: Event, from: Day): Day | undefined => {
    const end = way === 1 ? e.to : e.from;
    for (let d = from; way * (end - d) >= 0; d += way) if (e.can(d)) return d;
    return undefined;
  };
  const known = new Map(events.map((e) => [e.id, e]));
  const days = new Map<string, Day>();
  for (const e of events) {
    const first = find(e, way === 1 ? e.from : e.to);
    if (first === undefined) return e.id;
    days.set(e.id, first);
  }
  for (let changed = true; changed; ) {
    changed = false;
    for (const link of links)
      for (const end of ['least', 'most'] as const) {
        if (end === 'most' && link.most === undefined) continue;
        // On the way on a least bounds the second by the first and a most the first by the second; back it is turned.
        const toSecond = (end === 'least') === (way === 1);
        const [of, on] = toSecond ? [link.from, link.to] : [link.to, link.from];
        const [given, at] = [days.get(of) as Day, days.get(on) as Day];
        const bound =
          end === 'least'
            ? way === 1
              ? after(link, given)
              : before(link, given)
            : given - way * (link.most as number);
        if (way * (bound - at) <= 0) continue;
        const next = find(known.get(on) as Event, bound);
        by.set(on, { link, end });
        if (next === undefined) return on;
        days.set(on, next);
        changed = true;
      }
  }
  return days;
}

/** Links whose ends ask for each other can't be kept on any days: shortest paths find them before days are looked at. */
function requireNoCycle(events: readonly Event[], links: readonly Link[]): void {
  // A working day is a day at least.
  const edges = links.flatMap((l) => [
    { from: l.from, to: l.to, days: l.least },
    ...(l.most === undefined ? [] : [{ from: l.to, to: l.from, days: -l.most }]),
  ]);
  const at = new Map(events.map((e) => [e.id, 0]));
  const came = new Map<string, string>();
  let last: string | undefined;
  for (let round = 0; round <= events.length; round++) {
    last = undefined;
    for (const e of edges)
      if ((at.get(e.from) as number) + e.days > (at.get(e.to) as number)) {
        at.set(e.to, (at.get(e.from) as number) + e.days);
        came.set(e.to, e.from);
        last = e.to;
      }
    if (last === undefined) return;
  }
  let on = last as string;
  for (let i = 0; i < events.length; i++) on = came.get(on) as string;
  const cycle = [on];
  for (let e = came.get(on) as string; e !== on; e = came.get(e) as string) cycle.unshift(e);
  throw new Refusal(
    'interval-cycle',
    `These intervals can’t all be kept: ${cycle.join(', ')} wait for each other.`,
    cycle,
  );
}

/** The events that decide when one can be, first to last: each is where it is because of the one before. */
export function chainTo(id: string, by: ReadonlyMap<string, Because>): string[] {
  const out = [id];
  for (let because = by.get(id); because && 'link' in because; because = by.get(out[0] as string)) {
    const of = because.end === 'least' ? because.link.from : because.link.to;
    if (out.includes(of)) break;
    out.unshift(of);
  }
  return out;
}
