import type { Clinic, DaysAway, Who } from '@radiant/contract';
import { BOOK_LIMITS } from '@radiant/contract';
import { clock, hoursFrom, hoursText, requireHours } from '@radiant/core';
import { useRef, useState } from 'react';
import { api, sentenceOf } from '../data/api.js';
import { day } from '../ui/format.js';
import { NumberOnceDone } from '../ui/NumberOnceDone.js';
import { HousePage } from './HousePage.js';
import { VisitTimes } from './VisitTimes.js';

const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;

/** When the house and its laboratory work: what is booked goes by it. */
export const Hours = ({ who }: { who: Who }) => (
  <HousePage who={who} title="Hours">
    {(shown, set) => {
      const { clinic } = shown;
      const change = (next: Partial<Clinic>) => set({ clinic: { ...clinic, ...next } });
      return (
        <>
          <section aria-label="The house" className="mb-10">
            <h2 className="title mb-3">The house</h2>
            <div className="mb-5 grid max-w-[640px] grid-cols-[120px_1fr] items-start gap-x-4 gap-y-1.5 text-note">
              {DAYS.map((name, weekday) => (
                <DayHours
                  key={`${name} ${hoursText(clinic.hours.filter((h) => h.weekday === weekday))}`}
                  name={name}
                  weekday={weekday}
                  clinic={clinic}
                  change={change}
                />
              ))}
            </div>
            <Names
              needed
              label="Chairs, separated by commas"
              names={clinic.chairs}
              set={(chairs) => change({ chairs })}
            />
            <Names
              label="Who treats, separated by commas: nobody is booked in two chairs at one time"
              names={clinic.people}
              set={(people) => change({ people })}
            />
            <Zone value={clinic.timeZone} set={(timeZone) => change({ timeZone })} />
            <Away label="closed" away={clinic.away} set={(away) => change({ away })} holidays />
          </section>
          <section aria-label="The laboratory">
            <h2 className="title mb-3">The laboratory</h2>
            <div className="mb-4 flex items-center gap-3 text-note">
              working days from the scan that is sent to the work that is back
              <NumberOnceDone
                label="Working days of the laboratory"
                className="field w-[90px] text-right"
                value={clinic.laboratoryDays}
                {...BOOK_LIMITS.laboratoryDays}
                step={1}
                digits={0}
                onTaken={(laboratoryDays) => change({ laboratoryDays })}
              />
            </div>
            <PickUp value={clinic.laboratoryPickUp ?? null} set={(laboratoryPickUp) => change({ laboratoryPickUp })} />
            <fieldset className="mb-4 flex flex-wrap gap-1.5" aria-label="Days on which the laboratory works">
              {DAYS.map((name, weekday) => {
                const on = clinic.laboratoryWeek.includes(weekday);
                return (
                  <button
                    key={name}
                    type="button"
                    className="chip chip-flat"
                    aria-pressed={on}
                    onClick={() =>
                      change({
                        laboratoryWeek: on
                          ? clinic.laboratoryWeek.filter((w) => w !== weekday)
                          : [...clinic.laboratoryWeek, weekday].sort(),
                      })
                    }
                  >
                    {name}
                  </button>
                );
              })}
            </fieldset>
            {clinic.laboratoryWeek.length === 0 && (
              <p className="finding mb-3 text-note" data-weight="stop">
                The laboratory has no working day: nothing that it makes can be booked.
              </p>
            )}
            <Away
              label="laboratory closed"
              away={clinic.laboratoryAway}
              set={(laboratoryAway) => change({ laboratoryAway })}
            />
          </section>
          <VisitTimes clinic={clinic} change={change} />
        </>
      );
    }}
  </HousePage>
);

/** Until when on its days the laboratory fetches; taken when the field is left, as half a time is none. */
function PickUp({ value, set }: { value: number | null; set: (minute: number | null) => void }) {
  return (
    <label className="mb-4 flex items-center gap-3 text-note">
      <span className="shrink-0">it fetches until</span>
      <input
        key={value}
        type="time"
        className="field w-[130px] shrink-0 px-2 py-1"
        defaultValue={value === null ? '' : clock(value)}
        onBlur={(e) => {
          const [h, m] = e.target.value.split(':').map(Number);
          const minute = h === undefined || m === undefined ? null : h * 60 + m;
          if (minute !== value) set(minute);
        }}
      />
      <span className="text-ink-2">what is ready later goes the next working day; left empty, at any time</span>
    </label>
  );
}

function DayHours({
  name,
  weekday,
  clinic,
  change,
}: {
  name: string;
  weekday: number;
  clinic: Clinic;
  change: (next: Partial<Clinic>) => void;
}) {
  const own = clinic.hours.filter((h) => h.weekday === weekday);
  const [refused, setRefused] = useState<string>();
  const take = (text: string) => {
    if (text === hoursText(own)) return setRefused(undefined);
    try {
      const hours = [
        ...clinic.hours.filter((h) => h.weekday !== weekday),
        ...hoursFrom(text).map((s) => ({ weekday, ...s })),
      ];
      requireHours(hours);
      setRefused(undefined);
      change({ hours });
    } catch (error) {
      setRefused((error as Error).message);
    }
  };
  return (
    <>
      <label htmlFor={`hours-${weekday}`} className="pt-1.5">
        {name}
      </label>
      <div>
        <input
          id={`hours-${weekday}`}
          className="field w-full max-w-[320px] tabular-nums"
          defaultValue={hoursText(own)}
          placeholder="closed"
          onBlur={(e) => take(e.target.value)}
          onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        />
        {refused && (
          <p role="alert" className="mt-0.5 text-tiny text-stop">
            {refused}
          </p>
        )}
      </div>
    </>
  );
}

function Names({
  label,
  names,
  set,
  needed = false,
}: {
  label: string;
  names: readonly string[];
  set: (next: string[]) => void;
  /** One at least. */
  needed?: boolean;
}) {
  return (
    <label className="mb-4 block text-note">
      <span className="mb-1 block">{label}</span>
      <input
        key={names.join()}
        className="field w-full max-w-[460px]"
        defaultValue={names.join(', ')}
        onBlur={(e) => {
          const next = e.target.value
            .split(',')
            .map((n) => n.trim())
            .filter(Boolean);
          if (next.join() !== names.join() && (next.length > 0 || !needed)) set(next);
          else e.target.value = names.join(', ');
        }}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
      />
    </label>
  );
}

function Zone({ value, set }: { value: string; set: (zone: string) => void }) {
  const zones = ['UTC', ...Intl.supportedValuesOf('timeZone').filter((z) => z !== 'UTC')];
  return (
    <label className="mb-5 block text-note">
      <span className="mb-1 block">Where the clock on the wall hangs</span>
      <select className="field max-w-[320px]" value={value} onChange={(e) => set(e.target.value)}>
        {(zones.includes(value) ? zones : [value, ...zones]).map((z) => (
          <option key={z} value={z}>
            {z.replaceAll('_', ' ')}
          </option>
        ))}
      </select>
    </label>
  );
}

const shown = ({ from, to, why }: DaysAway) =>
  `${from === to ? day(from) : `${day(from)} to ${day(to)}`}${why ? `, ${why}` : ''}`;

/** Days on which nobody works: typed, or taken from a calendar of holidays. */
function Away({
  label,
  away,
  set,
  holidays = false,
}: {
  label: string;
  away: readonly DaysAway[];
  set: (next: DaysAway[]) => void;
  holidays?: boolean;
}) {
  const [refused, setRefused] = useState<string>();
  const file = useRef<HTMLInputElement>(null);
  const read = async (chosen: File) => {
    try {
      const today = new Date().toISOString().slice(0, 10);
      const found = await api.upload<DaysAway[]>(`/bookings/holidays?from=${today}`, chosen);
      const known = new Set(away.map((a) => `${a.from} ${a.to}`));
      set([...away, ...found.filter((f) => !known.has(`${f.from} ${f.to}`))]);
      setRefused(undefined);
    } catch (error) {
      setRefused(sentenceOf(error));
    }
  };
  return (
    <form
      aria-label={`Days ${label}`}
      className="text-note"
      onSubmit={(e) => {
        e.preventDefault();
        const f = new FormData(e.currentTarget);
        const [from, to, why] = ['from', 'to', 'why'].map((k) => String(f.get(k) ?? '')) as [string, string, string];
        if (!from) return;
        if (to && to < from) return setRefused('It ends before it begins.');
        setRefused(undefined);
        set([...away, { from, to: to || from, why: why.trim() }].sort((a, b) => (a.from < b.from ? -1 : 1)));
        e.currentTarget.reset();
      }}
    >
      <h3 className="subtitle mb-1">Days {label}</h3>
      {away.length === 0 && <p className="mb-1 text-ink-2">None.</p>}
      <ul className="mb-2">
        {away.map((a, i) => (
          <li key={`${a.from} ${a.to} ${a.why}`}>
            {shown(a)}{' '}
            <button type="button" className="how" onClick={() => set(away.filter((_, k) => k !== i))}>
              no longer
            </button>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap items-center gap-2">
        <input type="date" name="from" aria-label={`First day ${label}`} className="field w-[160px]" />
        <input type="date" name="to" aria-label={`Last day ${label}`} className="field w-[160px]" />
        <input name="why" aria-label={`Why ${label}`} placeholder="why" maxLength={80} className="field w-[220px]" />
        <button type="submit" className="btn btn-ghost">
          Add
        </button>
        {holidays && (
          <>
            <button type="button" className="how" onClick={() => file.current?.click()}>
              take holidays from an iCalendar file
            </button>
            <input
              ref={file}
              type="file"
              accept=".ics,text/calendar"
              aria-label="iCalendar file of holidays"
              className="sr-only"
              tabIndex={-1}
              onChange={(e) => {
                const chosen = e.target.files?.[0];
                e.target.value = '';
                if (chosen) void read(chosen);
              }}
            />
          </>
        )}
      </div>
      {refused && (
        <p role="alert" className="mt-1 text-stop">
          {refused}
        </p>
      )}
    </form>
  );
}
