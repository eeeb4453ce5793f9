import { type BookedVisit, type Booking, type Clinic, clinicCalendar } from '@radiant/contract';
import { mondayOf } from '@radiant/contract/course';
import { clock, type Day, dayOf, isoOf, openOn, VISITS } from '@radiant/core';
import { useState } from 'react';
import { day } from '../ui/format.js';
import { PALETTE } from '../ui/palette.js';

const NAMES = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
const MIN_PX = 0.98;
const HOURS = 44;

/** The practice's week, chair by chair: an open case in plum, all others grey. */
export function Week({
  clinic,
  others,
  own,
  today,
  name,
  chosen,
  onDay,
}: {
  clinic: Clinic;
  others: readonly Booking[];
  own: readonly BookedVisit[];
  today: Day;
  name: string;
  chosen?: Day;
  onDay?: (day: Day) => void;
}) {
  const [monday, setMonday] = useState(() => mondayOf(own[0] ? dayOf(own[0].day) : today));
  const calendar = clinicCalendar(clinic);
  const all = clinic.hours.length > 0 ? clinic.hours : [{ weekday: 0, from: 480, to: 1020 }];
  const [first, last] = [Math.min(...all.map((h) => h.from)), Math.max(...all.map((h) => h.to))];
  const days = NAMES.map((_, i) => monday + i).filter((d, i) => i < 5 || openOn(calendar, d).length > 0 || has(d));
  function has(d: Day) {
    return [...own, ...others].some((b) => b.day === isoOf(d));
  }
  const y = (minute: number) => (minute - first) * MIN_PX;
  const hours = Array.from(
    { length: Math.ceil((last - first) / 60) + 1 },
    (_, i) => Math.ceil(first / 60) * 60 + i * 60,
  );
  return (
    <div className="h-full overflow-y-auto">
      <div className="mb-2 flex items-center gap-2">
        <button type="button" className="chip chip-flat" onClick={() => setMonday(monday - 7)}>
          the week before
        </button>
        <h2 className="subtitle min-w-[190px] text-center">
          {day(isoOf(monday))} to {day(isoOf(monday + 6))}
        </h2>
        <button type="button" className="chip chip-flat" onClick={() => setMonday(monday + 7)}>
          the week after
        </button>
        <button type="button" className="how text-note" onClick={() => setMonday(mondayOf(today))}>
          this week
        </button>
      </div>
      <div className="flex" style={{ height: y(last) + 34 }}>
        <div className="relative shrink-0 text-tiny text-ink-2" style={{ width: HOURS }}>
          {hours
            .filter((h) => h <= last)
            .map((h) => (
              <span key={h} className="absolute right-2 -translate-y-1/2 tabular-nums" style={{ top: 30 + y(h) }}>
                {clock(h)}
              </span>
            ))}
        </div>
        {days.map((d) => (
          <section key={d} className="min-w-0 flex-1 border-l border-hair" aria-label={day(isoOf(d))}>
            <h3 className={`h-[30px] px-1.5 text-tiny font-semibold ${d === today ? 'text-plum' : 'text-ink-2'}`}>
              {onDay ? (
                <button
                  type="button"
                  className={d === chosen ? 'underline decoration-2 underline-offset-4' : 'hover:text-ink'}
                  aria-pressed={d === chosen}
                  onClick={() => onDay(d)}
                >
                  {NAMES[(d - monday) % 7]} {isoOf(d).slice(8)}
                </button>
              ) : (
                `${NAMES[(d - monday) % 7]} ${isoOf(d).slice(8)}`
              )}
            </h3>
            <div className="relative bg-hair/40" style={{ height: y(last) }}>
              {openOn(calendar, d).map((s) => (
                <div
                  key={s.from}
                  className="absolute inset-x-0 bg-leaf"
                  style={{ top: y(s.from), height: y(s.to) - y(s.from) }}
                />
              ))}
              {clinic.chairs.flatMap((chair, c) => [
                ...others
                  .filter((b) => b.chair === chair && b.day === isoOf(d))
                  .map((b) => block(b, b.caseName, c, false)),
                ...own.filter((b) => b.chair === chair && b.day === isoOf(d)).map((b) => block(b, name, c, true)),
              ])}
            </div>
          </section>
        ))}
      </div>
    </div>
  );

  function block(b: BookedVisit, title: string, chair: number, mine: boolean) {
    const share = 100 / clinic.chairs.length;
    return (
      <div
        key={`${title} ${b.kind}`}
        className="absolute overflow-hidden rounded-md px-1.5 py-0.5 text-tiny leading-tight text-white"
        style={{
          top: y(b.from) + 1,
          height: b.minutes * MIN_PX - 2,
          left: `${chair * share}%`,
          width: `calc(${share}% - 3px)`,
          background: mine ? PALETTE.plum : PALETTE.ink2,
        }}
        title={`${clock(b.from)} ${title}: ${VISITS[b.kind]}, ${b.chair}`}
      >
        <b className="font-semibold">{clock(b.from)}</b> {title}
        <br />
        {VISITS[b.kind]}
      </div>
    );
  }
}
