import { isoOf, remindersOf, type VisitPlan } from '@radiant/core';
import type { PlanHere } from '../../data/use-visits.js';
import { day } from '../../ui/format.js';

/** What has to be sent, ordered or made, and by when. */
export function Reminders({ plan, here }: { plan: VisitPlan; here: PlanHere }) {
  const { ask } = here;
  const all = remindersOf(plan, ask.course, ask.house.clinic, ask.today);
  if (all.length === 0) return null;
  return (
    <section aria-label="To send, order and make" className="px-4 pt-5">
      <h2 className="subtitle mb-1.5">To send, order and make</h2>
      <ul className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-0.5 text-note">
        {all.map((r) => {
          const booked = plan.visits.find((v) => v.kind === r.for)?.booked !== undefined;
          const late = r.by < ask.today;
          return (
            <li key={`${r.by} ${r.what}`} className="contents">
              <span
                className={`tabular-nums ${late && booked ? 'font-semibold text-stop' : booked ? 'font-semibold' : 'text-ink-2'}`}
              >
                {late ? (booked ? `since ${day(isoOf(r.by))}` : 'at once') : `by ${day(isoOf(r.by))}`}
              </span>
              <span className={booked ? '' : 'text-ink-2'}>
                {r.what}
                {booked ? '' : ' (not booked yet)'}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
