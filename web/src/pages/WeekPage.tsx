import type { Booking, DaySheet, Who } from '@radiant/contract';
import { clock, dayOf, isoOf, VISITS } from '@radiant/core';
import { useState } from 'react';
import { Link } from 'react-router';
import useSWR from 'swr';
import { api, sentenceOf } from '../data/api.js';
import { todayIn } from '../data/today.js';
import { usePracticeSettings } from '../data/use-practice-settings.js';
import { Week } from '../shell/Week.js';
import { day } from '../ui/format.js';
import { Trouble, Waiting } from '../ui/Waiting.js';
import { PracticePage } from './PracticePage.js';

/** So far back and ahead the visits are there, days. */
const RANGE = { back: 60, ahead: 400 } as const;

/** The practice's week, and what is laid out on a day of it. */
export function WeekPage({ who }: { who: Who }) {
  const { shown, trouble, retry } = usePracticeSettings();
  const today = shown && dayOf(todayIn(shown.clinic.timeZone));
  const { data: bookings, error } = useSWR(
    today === undefined ? null : `/bookings?from=${isoOf(today - RANGE.back)}&to=${isoOf(today + RANGE.ahead)}`,
    (path: string) => api.get<Booking[]>(path),
  );
  const [wished, setDay] = useState<number>();
  const chosen = wished ?? today;
  return (
    <PracticePage who={who} title="The week">
      {trouble || error ? (
        <Trouble sentence={trouble ?? sentenceOf(error)} retry={retry} />
      ) : !shown || today === undefined || !bookings ? (
        <Waiting what="the week" />
      ) : (
        <>
          <Week
            clinic={shown.clinic}
            others={bookings}
            own={[]}
            today={today}
            name=""
            chosen={chosen ?? today}
            onDay={setDay}
          />
          {chosen !== undefined && <Sheet on={isoOf(chosen)} />}
        </>
      )}
    </PracticePage>
  );
}

/** What is laid out on a day, visit by visit. */
function Sheet({ on }: { on: string }) {
  const { data, error } = useSWR(`/bookings/day?day=${on}`, (path: string) => api.get<DaySheet>(path));
  return (
    <section aria-label={`Day sheet of ${day(on)}`} className="mt-8">
      <div className="mb-3 flex items-baseline gap-4">
        <h2 className="title">{day(on)}: what is laid out</h2>
        <button type="button" className="how text-note print:hidden" onClick={() => window.print()}>
          print
        </button>
      </div>
      {data && data.reminders.length > 0 && (
        <ul className="finding mb-4 space-y-0.5 text-note" data-weight="watch" aria-label="To be sent or made today">
          {data.reminders.map((r) => (
            <li key={`${r.caseId} ${r.what}`}>
              <b className="font-semibold">
                <Link className="how" to={`/cases/${r.caseId}/book`}>
                  {r.caseName}
                </Link>
              </b>
              : {r.what}
            </li>
          ))}
        </ul>
      )}
      {error ? (
        <p className="text-stop">{sentenceOf(error)}</p>
      ) : !data ? (
        <p className="text-note text-ink-2">Being put together …</p>
      ) : data.visits.length === 0 ? (
        <p className="text-note text-ink-2">Nothing is booked on this day. Press another day over its column.</p>
      ) : (
        <ul className="space-y-4">
          {data.visits.map((v) => (
            <li key={`${v.caseId} ${v.kind}`} className="grid grid-cols-[110px_1fr] gap-x-4 text-note">
              <span className="text-lead font-semibold tabular-nums">
                {clock(v.from)}
                <span className="block text-tiny font-normal text-ink-2">
                  {v.minutes} min, {v.chair}
                </span>
              </span>
              <div>
                <Link className="how text-lead" to={`/cases/${v.caseId}/book`}>
                  {v.caseName}
                </Link>
                : {VISITS[v.kind]}, {v.who}
                {v.beware.length > 0 && <p className="font-semibold text-removed-ink">beware: {v.beware.join(', ')}</p>}
                <p>{v.layOut.join(', ')}.</p>
                <p className="text-ink-2">{v.steps.join(' → ')}</p>
              </div>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
