import { BOOK_LIMITS, type BookedVisit } from '@radiant/contract';
import { clock, dayOf, isoOf, type PlannedVisit, sourceWords, VISITS, type VisitPlan } from '@radiant/core';
import { useId } from 'react';
import { useSection } from '../../data/case-context.js';
import type { PlanHere } from '../../data/use-visits.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { day } from '../../ui/format.js';
import { NumberInput } from '../../ui/NumberInput.js';
import { slotsOn, visitOn } from './slots.js';

const STEP_MIN = 15;

/** The chosen visit: when it is or can be, its steps, and what is laid out. */
export function VisitCard({ visit: v, plan, here }: { visit: PlannedVisit; plan: VisitPlan; here: PlanHere }) {
  const { data, set, store } = useSection('book');
  const mayWrite = useMayWrite('book');
  const id = useId();
  const { clinic } = here;
  const bookings = here.takenFor(v.kind);
  const own = data.visits.find((b) => b.kind === v.kind);
  const put = (next: BookedVisit | undefined, group?: string) =>
    set({ ...data, visits: [...data.visits.filter((b) => b.kind !== v.kind), ...(next ? [next] : [])] }, group);
  const before = plan.intervals.filter((i) => i.to === v.kind);
  const chosen = own?.day ?? isoOf(v.earliest);
  const minutes = own?.minutes ?? v.minutes;
  const slots = slotsOn(clinic, bookings, chosen, minutes);
  const times = slots.flatMap((s) =>
    Array.from({ length: Math.floor((s.to - minutes - s.from) / STEP_MIN) + 1 }, (_, i) => ({
      chair: s.chair,
      from: s.from + i * STEP_MIN,
    })),
  );
  const shown = own && !times.some((t) => t.chair === own.chair && t.from === own.from) ? [own, ...times] : times;
  return (
    <section aria-label={VISITS[v.kind]} className="mt-2 border-t border-hair pt-3">
      <h2 className="title">{VISITS[v.kind]}</h2>
      <p className="mb-2 text-note text-ink-2">
        {own
          ? `${dayOf(own.day) < here.ask.today ? 'Held' : 'Booked'} ${day(own.day)}, ${clock(own.from)} to ${clock(own.from + own.minutes)}, ${own.chair}.`
          : `Not booked. ${day(isoOf(v.earliest))} at the earliest${v.latest === undefined ? '' : `, ${day(isoOf(v.latest))} at the latest`}.`}
        {v.slackDays !== undefined && !own && ` It may wait ${v.slackDays} ${v.slackDays === 1 ? 'day' : 'days'}.`}
        {v.decides && ' It decides when the end can be.'}
      </p>
      <div className="mb-3 grid grid-cols-[1fr_1fr] gap-2">
        <label className="text-tiny text-ink-2">
          Day
          <input
            type="date"
            className="field mt-0.5 w-full px-2 py-1 text-note"
            value={chosen}
            disabled={!mayWrite}
            onChange={(e) => {
              if (!e.target.value) return;
              put(
                visitOn(clinic, bookings, v.kind, e.target.value, minutes) ?? {
                  kind: v.kind,
                  day: e.target.value,
                  from: own?.from ?? 9 * 60,
                  minutes,
                  chair: own?.chair ?? (clinic.chairs[0] as string),
                },
                `day ${v.kind}`,
              );
            }}
            onBlur={() => store.endGroup()}
          />
        </label>
        <label className="text-tiny text-ink-2" htmlFor={id}>
          Time and chair
          <select
            id={id}
            className="field mt-0.5 w-full px-2 py-1 text-note"
            disabled={!mayWrite || shown.length === 0}
            value={own ? `${own.from} ${own.chair}` : ''}
            onChange={(e) => {
              const [from, ...chair] = e.target.value.split(' ');
              put({ kind: v.kind, day: chosen, from: Number(from), minutes, chair: chair.join(' ') });
            }}
          >
            {!own && <option value="">{shown.length === 0 ? 'no room on this day' : 'choose'}</option>}
            {shown.map((t) => (
              <option key={`${t.from} ${t.chair}`} value={`${t.from} ${t.chair}`}>
                {clock(t.from)}, {t.chair}
              </option>
            ))}
          </select>
        </label>
        <div className="text-tiny text-ink-2">
          Minutes
          <NumberInput
            label="Minutes"
            className="field mt-0.5 w-full px-2 py-1 text-note"
            value={minutes}
            {...BOOK_LIMITS.minutes}
            step={5}
            digits={0}
            disabled={!mayWrite || !own}
            onChange={(m) => own && m !== null && put({ ...own, minutes: m }, `minutes ${v.kind}`)}
            onDone={() => store.endGroup()}
          />
        </div>
        {own && clinic.people.length > 0 && (
          <label className="text-tiny text-ink-2">
            Who treats
            <select
              className="field mt-0.5 w-full px-2 py-1 text-note"
              value={own.by ?? ''}
              disabled={!mayWrite}
              onChange={(e) => put({ ...own, by: e.target.value || null })}
            >
              <option value="">nobody named</option>
              {clinic.people.map((p) => (
                <option key={p} value={p}>
                  {p}
                </option>
              ))}
            </select>
          </label>
        )}
        <div className="flex items-end">
          {own ? (
            <button type="button" className="btn btn-ghost w-full" disabled={!mayWrite} onClick={() => put(undefined)}>
              Not booked
            </button>
          ) : (
            <button
              type="button"
              className="btn w-full"
              disabled={!mayWrite || shown.length === 0}
              onClick={() => put(visitOn(clinic, bookings, v.kind, chosen, minutes))}
            >
              Book it
            </button>
          )}
        </div>
      </div>
      {!own && (
        <p className="mb-2 text-tiny text-ink-2">
          If it was held already, choose the day on which it was: what it rests on counts as done.
        </p>
      )}
      <ul className="mb-2 space-y-1 text-note">
        {before.map((i) => (
          <li key={i.from}>
            {i.least === 0
              ? 'The same day or later'
              : `${i.least} ${i.working ? 'working ' : ''}${i.least === 1 ? 'day' : 'days'}`}{' '}
            after {VISITS[i.from]}
            {i.usual > i.least ? `, usually ${i.usual}` : ''}
            {i.most === undefined ? '' : `, at most ${i.most}`}: {i.reason}.{' '}
            <span className="text-tiny text-ink-2">{sourceWords(i.source)}</span>
          </li>
        ))}
      </ul>
      <h3 className="subtitle mb-1">Steps</h3>
      <ol className="mb-3 list-decimal pl-5 text-note">
        {v.steps.map((s) => (
          <li key={s.does}>
            {s.does}{' '}
            <span className="text-tiny text-ink-2">
              {s.minutes > 0 ? `${s.minutes} min` : ''}
              {s.perTooth ? `${s.minutes > 0 ? ' and ' : ''}${s.perTooth} min a tooth` : ''}
            </span>
          </li>
        ))}
      </ol>
      <h3 className="subtitle mb-1">Laid out</h3>
      <p className="mb-4 text-note">{here.layOut(v.kind).join(', ')}.</p>
    </section>
  );
}
