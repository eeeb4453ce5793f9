import { isoOf, VISITS, type VisitKind } from '@radiant/core';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { useCase, useSection } from '../../data/case-context.js';
import { useJobs } from '../../data/jobs.js';
import { useVisits } from '../../data/use-visits.js';
import { Comments } from '../../shell/Comments.js';
import { ReadOnlyNote, Refused, useMayWrite } from '../../shell/ReadOnlyNote.js';
import { Week } from '../../shell/Week.js';
import { day, withDays } from '../../ui/format.js';
import { useHotkeys } from '../../ui/hotkeys.js';
import { Empty, KeyHint, Stage } from '../../ui/StageLayout.js';
import { saveFile } from '../../ui/save-file.js';
import { Waiting } from '../../ui/Waiting.js';
import { CourseFields } from './CourseFields.js';
import { DateKept } from './DateKept.js';
import { Reminders } from './Reminders.js';
import { visitOn } from './slots.js';
import { dayOrNone, Timeline } from './Timeline.js';
import { VisitCard } from './VisitCard.js';

type Look = 'case' | 'week';
const LOOKS: Readonly<Record<Look, string>> = { case: 'this case', week: 'the week' };
const LOOK_ORDER = Object.keys(LOOKS) as readonly Look[];

/** Book: which visits, when, and whether the promised date can be kept. */
export default function Book() {
  const here = useVisits();
  const { detail } = useCase();
  const { jobs } = useJobs(detail.id);
  const { data, set, refusal } = useSection('book');
  const mayWrite = useMayWrite('book');
  const [look, setLook] = useState<Look>('case');
  const [wished, setSelected] = useState<VisitKind>();
  const [tried, setTried] = useState<{ kind: VisitKind; day: number }>();
  const bench = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(780);
  useEffect(() => {
    const own = bench.current;
    if (!own) return;
    const watch = new ResizeObserver(([e]) => e && setWidth(Math.max(560, e.contentRect.width)));
    watch.observe(own);
    return () => watch.disconnect();
  }, []);
  useHotkeys('stage', [
    {
      keys: 'V',
      does: 'this case, the week',
      on: ['v'],
      run: () => setLook(LOOK_ORDER[(LOOK_ORDER.indexOf(look) + 1) % LOOK_ORDER.length] as Look),
    },
  ]);
  const plan = here?.plan;
  const selected =
    plan?.visits.find((v) => v.kind === wished) ?? plan?.visits.find((v) => v.booked === undefined) ?? plan?.visits[0];
  const withVisit = (kind: VisitKind, on: number) => {
    if (!here) return undefined;
    const visit = plan?.visits.find((v) => v.kind === kind);
    const before = data.visits.find((b) => b.kind === kind);
    const minutes = before?.minutes ?? visit?.minutes ?? 30;
    const next = visitOn(here.clinic, here.takenFor(kind), kind, isoOf(on), minutes) ?? {
      kind,
      day: isoOf(on),
      from: before?.from ?? 9 * 60,
      minutes,
      chair: before?.chair ?? (here.clinic.chairs[0] as string),
    };
    return [...data.visits.filter((b) => b.kind !== kind), next];
  };
  const would = tried && here?.tried(withVisit(tried.kind, tried.day) ?? []);
  return (
    <Stage
      bench={
        <div ref={bench} className="h-full">
          <div className="absolute top-3.5 left-4 z-10 flex gap-1.5">
            {LOOK_ORDER.map((l) => (
              <button
                key={l}
                type="button"
                className="chip chip-flat"
                aria-pressed={look === l}
                onClick={() => setLook(l)}
              >
                {LOOKS[l]}
              </button>
            ))}
          </div>
          {!here ? (
            <Waiting what="the practice’s hours and visits" />
          ) : here.trouble ? (
            <Empty title="No days can be found">
              <p>
                {here.trouble} The hours of the house and its laboratory are set in{' '}
                <Link className="how" to="/hours">
                  hours
                </Link>
                .
              </p>
            </Empty>
          ) : !plan || plan.visits.length === 0 ? (
            <Empty title="Visits follow from what is decided">
              <p>
                No tooth is planned yet.{' '}
                <Link className="how" to="../shape">
                  Go to shape
                </Link>
              </p>
            </Empty>
          ) : look === 'week' ? (
            <div className="h-full overflow-y-auto px-6 pt-14 pb-5">
              <Week
                clinic={here.clinic}
                others={here.bookings}
                own={data.visits}
                today={here.ask.today}
                name={detail.name}
              />
            </div>
          ) : (
            <div className="h-full overflow-y-auto pt-14 pb-4">
              <Timeline
                plan={would ?? plan}
                ask={here.ask}
                happyBy={dayOrNone(data.happyBy)}
                selected={selected?.kind}
                onSelect={setSelected}
                onTry={(kind, on) => setTried(on === undefined ? undefined : { kind, day: on })}
                onMove={(kind, on) => {
                  const visits = withVisit(kind, on);
                  if (visits) set({ ...data, visits }, `move ${kind}`);
                }}
                mayWrite={mayWrite}
                width={width}
              />
              <div className="min-h-[52px] px-4 pt-2 text-note" role="status">
                {tried && would && (
                  <>
                    <b>
                      {VISITS[tried.kind]} on {day(isoOf(tried.day))}:
                    </b>{' '}
                    {would.broken.length > 0
                      ? withDays(would.broken.join(' '))
                      : `finished ${day(isoOf(would.end))} at the earliest${would.holds === false ? ', too late' : ''}.`}
                  </>
                )}
              </div>
              <p className="px-4 text-tiny text-ink-2">
                Filled: booked or held. Hollow: the earliest day. Plum: what decides when the end can be. Bars: how long
                a visit may wait. Drag a visit to another day, or move it with the arrow keys.
              </p>
              <Reminders plan={plan} here={here} />
            </div>
          )}
        </div>
      }
      panel={
        <>
          <ReadOnlyNote section="book" />
          <Refused sentence={refusal && withDays(refusal.errors?.[0]?.message ?? refusal.detail)} />
          {here && plan && <DateKept plan={plan} ask={here.ask} />}
          {here && plan && selected && <VisitCard key={selected.kind} visit={selected} plan={plan} here={here} />}
          {here && <CourseFields course={here.ask.course} />}
          {data.visits.length > 0 && (
            <button
              type="button"
              className="btn btn-ghost mt-4"
              onClick={() =>
                jobs.start(detail.id, `/api/cases/${detail.id}/visits.ics`, `${detail.name} visits.ics`, saveFile)
              }
            >
              Save the visits as iCalendar
            </button>
          )}
          <Comments stage="book" />
        </>
      }
      foot={
        <>
          <KeyHint keys={['V']} does="another look" />
          <KeyHint keys={['?']} does="all keys" />
          <span className="ml-auto">
            Intervals are common practice where nothing else is said: the treating clinician decides.
          </span>
        </>
      }
    />
  );
}
