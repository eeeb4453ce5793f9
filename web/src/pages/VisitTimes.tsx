import type { Clinic } from '@radiant/contract';
import {
  type Course,
  OWN_TIMES_FROM,
  type OwnTimes,
  ownTimes,
  type Taken,
  usualMinutes,
  VISIT_KINDS,
  VISITS,
} from '@radiant/core';
import useSWR from 'swr';
import { api } from '../data/api.js';
import { NumberOnceDone } from '../ui/NumberOnceDone.js';

/** The usual case, by which the minutes of steps are told: veneers, scanned the same day. */
const USUAL: Course = {
  teeth: [{ tooth: 11, work: 'veneer' }],
  hasRecords: false,
  tissue: 'gum',
  impression: 'same',
  maker: 'laboratory',
  laboratoryDays: 10,
  tryIn: true,
  bleaching: false,
  guard: true,
};

/** How long visits take: as the house has it, as their steps say, and as they truly took. */
export function VisitTimes({ clinic, change }: { clinic: Clinic; change: (next: Partial<Clinic>) => void }) {
  const { data: taken } = useSWR('/bookings/taken', (path: string) => api.get<Taken[]>(path));
  const learned = ownTimes(taken ?? []);
  return (
    <section aria-label="How long visits take" className="mt-10">
      <h2 className="title mb-1">How long visits take</h2>
      <p className="mb-3 max-w-[80ch] text-note text-ink-2">
        In minutes, and for each tooth more. What is not written goes by the steps of a visit. What visits truly took
        here is learned in treat, from {OWN_TIMES_FROM} of a kind on.
      </p>
      <div className="grid max-w-[860px] grid-cols-[1fr_auto_auto_auto_auto] items-center gap-x-4 gap-y-1.5 text-note">
        <span />
        <b className="text-right text-tiny text-ink-2">minutes</b>
        <b className="text-right text-tiny text-ink-2">a tooth more</b>
        <b className="text-tiny text-ink-2">truly took here</b>
        <span />
        {VISIT_KINDS.filter((k) => k !== 'bleached').map((visit) => {
          const own = clinic.minutes.find((m) => m.visit === visit);
          const others = clinic.minutes.filter((m) => m.visit !== visit);
          const usual = usualMinutes(visit, USUAL);
          const shown = own ?? usual;
          const put = (next: Partial<{ minutes: number; perTooth: number }>) =>
            change({
              minutes: [...others, { visit, minutes: shown.minutes, perTooth: shown.perTooth, ...next }],
            });
          return (
            <div key={visit} className="contents">
              <span>{VISITS[visit]}</span>
              {(['minutes', 'perTooth'] as const).map((k) => (
                <NumberOnceDone
                  key={k}
                  label={`${VISITS[visit]}, ${k === 'minutes' ? 'minutes' : 'minutes a tooth'}`}
                  className={`field w-[90px] text-right ${own ? '' : 'text-ink-2'}`}
                  value={shown[k]}
                  min={0}
                  max={k === 'minutes' ? 600 : 240}
                  step={1}
                  digits={0}
                  onTaken={(v) => put({ [k]: v })}
                />
              ))}
              <LearnedTime
                learned={learned.find((l) => l.visit === visit)}
                shown={shown}
                take={({ minutes, perTooth }) => put({ minutes, perTooth })}
              />
              {own ? (
                <button type="button" className="how" onClick={() => change({ minutes: others })}>
                  by its steps
                </button>
              ) : (
                <span />
              )}
            </div>
          );
        })}
      </div>
    </section>
  );
}

/** What visits of a kind truly took, and the button by which the house takes it over. */
function LearnedTime({
  learned,
  shown,
  take,
}: {
  learned: OwnTimes | undefined;
  shown: { readonly minutes: number; readonly perTooth: number };
  take: (own: OwnTimes) => void;
}) {
  if (!learned) return <span className="text-ink-3">–</span>;
  const same = learned.minutes === shown.minutes && learned.perTooth === shown.perTooth;
  return (
    <span className="tabular-nums">
      {learned.minutes} + {learned.perTooth}, of {learned.visits} visits{' '}
      {!same && (
        <button
          type="button"
          className="how"
          aria-label={`take over what ${VISITS[learned.visit]} truly took`}
          onClick={() => take(learned)}
        >
          take over
        </button>
      )}
    </span>
  );
}
