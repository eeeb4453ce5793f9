import type { BookSection } from '@radiant/contract';
import { type Alternative, type Ask, type Course, dayOf, isoOf, type VisitPlan, whatWouldHold } from '@radiant/core';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { useSection } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { day, withDays } from '../../ui/format.js';

/** Whether the promised date holds; if not, what would make it hold and at which price. */
export function DateKept({ plan, ask }: { plan: VisitPlan; ask: Ask }) {
  const { data, set } = useSection('book');
  const mayWrite = useMayWrite('book');
  const ways = useMemo(() => (plan.holds === false ? whatWouldHold(ask) : []), [plan.holds, ask]);
  const end = day(isoOf(plan.end));
  if (plan.by === undefined)
    return (
      <section aria-label="The date">
        <h2 className="title">Finished {end} at the earliest</h2>
        <p className="mb-3 text-note text-ink-2">
          No date is promised.{' '}
          <Link className="how" to="../meet">
            Say one in meet
          </Link>
        </p>
      </section>
    );
  const happy = data.happyBy ? dayOf(data.happyBy) : undefined;
  const by = day(isoOf(plan.by));
  const late = plan.end - plan.by;
  return (
    <section aria-label="The date">
      <h2 className="title">{plan.holds ? `${by} can be kept` : `${by} can’t be kept`}</h2>
      <p className="mb-3 text-note text-ink-2">
        {plan.holds
          ? `Finished ${end} at the earliest: ${plan.by - plan.end} days to spare.`
          : `Finished ${end} at the earliest, ${late} ${late === 1 ? 'day' : 'days'} late.`}
        {data.why ? ` The date matters: ${data.why}.` : ''}
        {happy !== undefined &&
          (plan.end <= happy
            ? ` The patient would be happy by ${day(isoOf(happy))}, and that holds too.`
            : ` The patient would be happier by ${day(isoOf(happy))}.`)}
      </p>
      {plan.broken.map((b) => (
        <p key={b} className="finding mb-2 text-note" data-weight="stop">
          {withDays(b)}
        </p>
      ))}
      {plan.holds === false && (
        <>
          <h3 className="subtitle mb-1.5">What would make it hold</h3>
          <ul className="mb-4 space-y-2.5">
            {ways.map((w) => (
              <li key={w.id} className="finding text-note" data-weight={w.holds ? 'good' : 'watch'}>
                <b className="font-semibold">{w.words}</b>: {day(isoOf(w.end))}
                {w.holds ? '' : ', still late'}
                <p className="text-ink-2">{w.price}</p>
                {mayWrite && inBook(ask.course, w) && (
                  <button
                    type="button"
                    className="how text-tiny"
                    onClick={() => set({ ...data, ...inBook(ask.course, w) })}
                  >
                    take it
                  </button>
                )}
              </li>
            ))}
            <li className="finding text-note" data-weight="watch">
              <b className="font-semibold">a later date</b>: {end}, {late} {late === 1 ? 'day' : 'days'} more
              <p className="text-ink-2">
                <Link className="how" to="../meet">
                  Promise another in meet
                </Link>
              </p>
            </li>
          </ul>
        </>
      )}
    </section>
  );
}

/** What of another course is said here; nothing where it is decided elsewhere. */
function inBook(now: Course, { course }: Alternative): Partial<BookSection> | undefined {
  if (course.teeth !== now.teeth || course.bleaching !== now.bleaching) return undefined;
  return {
    ...(course.mockUpDays !== now.mockUpDays && { mockUpDays: course.mockUpDays ?? null }),
    ...(course.tryIn !== now.tryIn && { tryIn: course.tryIn }),
    ...(course.impression !== now.impression && { impression: course.impression }),
    ...(course.maker !== now.maker && { maker: course.maker }),
    ...(course.tissue !== now.tissue && { tissue: course.tissue }),
  };
}
