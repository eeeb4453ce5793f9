import type { SectionData, StepDone, StepTimer } from '@radiant/contract';
import { atVisitOf, type ChairCase, doneSteps, type Held, heldVisits } from '@radiant/contract/chair';
import { courseOf } from '@radiant/contract/course';
import {
  type AtVisit,
  type Course,
  dayOf,
  type Protocol,
  protocolOf,
  teethOfVisit,
  VISIT_KINDS,
  type VisitKind,
  visitsOf,
} from '@radiant/core';
import { useMemo, useState } from 'react';
import { useCase, useSection, useSentence } from '../../data/case-context.js';
import type { ChairClock } from '../../data/chair-clock.js';
import { todayIn } from '../../data/today.js';
import { usePracticeSettings } from '../../data/use-practice-settings.js';
import { actsOn, type ChairActs } from './chair-acts.js';

/** A visit at the chair: what is to be done, what is done, and the acts that say so. */
export interface Chair extends ChairActs {
  readonly visit: VisitKind;
  readonly round: number;
  readonly kinds: readonly VisitKind[];
  readonly course: Course;
  readonly at: AtVisit;
  readonly protocol: Protocol;
  /** As it is held; nothing until it was begun. */
  readonly held?: Held;
  /** How often it was held before. */
  readonly before: number;
  readonly done: ReadonlyMap<string, StepDone>;
  /** The first step that is not done; the number of steps when all are. */
  readonly current: number;
  readonly timers: readonly StepTimer[];
  readonly choose: (visit: VisitKind) => void;
}

/** @returns undefined until the practice's settings are there, or while nothing is planned */
export function useChair(clock: ChairClock): Chair | undefined {
  const { detail, who } = useCase();
  const { shown } = usePracticeSettings();
  const sentence = useSentence();
  const [meet, shape, decide, match, direct, reduce, book] = [
    useSection('meet'),
    useSection('shape'),
    useSection('decide'),
    useSection('match'),
    useSection('direct'),
    useSection('reduce'),
    useSection('book'),
  ];
  const { data, set } = useSection('treat');
  const [wished, setWished] = useState<VisitKind>();
  const zone = shown?.clinic.timeZone;
  const today = zone && todayIn(zone);

  const known = useMemo(() => {
    if (!shown || !today) return undefined;
    const sections = { meet, shape, decide, match, direct, reduce, book, treat: { data } };
    const kase: ChairCase = { ...detail, sections };
    const course = courseOf(kase, shown.clinic, shown.wearDays);
    const helds = heldVisits(data);
    const needed = new Set(visitsOf(course).map((v) => v.kind));
    const kinds = VISIT_KINDS.filter((k) => needed.has(k) || helds.some((h) => h.visit === k));
    return { kase, course, helds, kinds };
  }, [shown, today, detail, meet, shape, decide, match, direct, reduce, book, data]);

  const visit = known && (wished ?? firstOf(known.kinds, known.helds, book.data, today ?? ''));
  const composed = useMemo(() => {
    if (!known || !visit || !shown || !today) return undefined;
    const own = known.helds.filter((h) => h.visit === visit);
    const held = own.find((h) => !h.endedAt);
    const before = own.filter((h) => h.endedAt).length;
    const round = held?.round ?? before + 1;
    const at = atVisitOf(known.kase, shown.clinic, shown.wearDays, { visit, round }, dayOf(today));
    return { held, before, round, at, protocol: protocolOf(visit, at), done: doneSteps(data, { visit, round }) };
  }, [known, visit, shown, today, data]);

  if (!known || !visit || !composed || known.course.teeth.length === 0) return undefined;
  const { held, before, round, at, protocol, done } = composed;
  const acts = actsOn({
    data,
    set,
    entry: { visit, round, by: who.name },
    steps: protocol.steps,
    done,
    ...(protocol.steps.every((s) => done.has(s.id)) && { teeth: teethOfVisit(visit, at).length }),
    sentence,
    now: () => new Date(clock.now()).toISOString(),
  });
  const gap = protocol.steps.findIndex((s) => !done.has(s.id));
  return {
    visit,
    round,
    kinds: known.kinds,
    course: known.course,
    at,
    protocol,
    ...(held && { held }),
    before,
    done,
    current: gap < 0 ? protocol.steps.length : gap,
    timers: data.timers.filter((t) => t.visit === visit && t.round === round),
    choose: setWished,
    ...acts,
    end: () => {
      // What was done stays in sight when it is over.
      setWished(visit);
      acts.end();
    },
  };
}

/** The visit that is open, else the one that is booked today, else the next that was not held yet. */
function firstOf(
  kinds: readonly VisitKind[],
  helds: readonly Held[],
  book: SectionData['book'],
  today: string,
): VisitKind | undefined {
  const open = [...helds].reverse().find((h) => !h.endedAt);
  const booked = book.visits.find((v) => v.day === today && kinds.includes(v.kind));
  return open?.visit ?? booked?.kind ?? kinds.find((k) => !helds.some((h) => h.visit === k)) ?? kinds[0];
}
