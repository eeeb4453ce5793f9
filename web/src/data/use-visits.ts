import { type BookedVisit, type Booking, type Clinic, type ToothChoice } from '@radiant/contract';
import { laidOutFor } from '@radiant/contract/chair';
import { askOf } from '@radiant/contract/course';
import { type Ask, dayOf, isoOf, planVisits, Refusal, type VisitKind, type VisitPlan } from '@radiant/core';
import { useMemo } from 'react';
import useSWR from 'swr';
import { api } from './api.js';
import { useCase, useSection } from './case-context.js';
import { todayIn } from './today.js';
import { usePracticeSettings } from './use-practice-settings.js';

/** So far ahead other cases' visits are asked for, days. */
const AHEAD_DAYS = 400;

/** What is asked of the calendar for the case that is open, and what it answers. */
export interface PlanHere {
  readonly clinic: Clinic;
  readonly bookings: readonly Booking[];
  /** What is taken of the chairs for one visit of this case: other cases' visits, and its own other ones. */
  readonly takenFor: (kind: VisitKind) => readonly Booking[];
  readonly ask: Ask;
  readonly plan?: VisitPlan;
  /** Why there is none. */
  readonly trouble?: string;
  /** What is laid out for a visit. */
  readonly layOut: (kind: VisitKind) => readonly string[];
  /** The plan as it would be with these visits booked. */
  readonly tried: (visits: readonly BookedVisit[]) => VisitPlan | undefined;
  /** The plan as it would be with other choices, nothing of it booked. */
  readonly chosen: (choices: readonly ToothChoice[]) => VisitPlan | undefined;
}

/** @returns undefined until the practice's hours and visits are there */
export function useVisits(): PlanHere | undefined {
  const { detail } = useCase();
  const { shown } = usePracticeSettings();
  const [meet, shape, decide, match, direct, reduce, book, treat] = [
    useSection('meet'),
    useSection('shape'),
    useSection('decide'),
    useSection('match'),
    useSection('direct'),
    useSection('reduce'),
    useSection('book'),
    useSection('treat'),
  ];
  const zone = shown?.clinic.timeZone;
  const today = zone && todayIn(zone);
  const range = today && `/bookings?from=${today}&to=${isoOf(dayOf(today) + AHEAD_DAYS)}`;
  const { data: bookings } = useSWR(range ?? null, (path: string) => api.get<Booking[]>(path), {
    refreshInterval: 30_000,
  });
  // What is typed counts at once, before the server has it.
  return useMemo(() => {
    if (!shown || !today || !bookings) return undefined;
    const others = bookings.filter((b) => b.caseId !== detail.id);
    const asked = (visits: readonly BookedVisit[], choices = decide.data.choices) =>
      askOf(
        {
          ...detail,
          sections: {
            meet,
            shape,
            match,
            reduce,
            decide: { data: { ...decide.data, choices: [...choices] } },
            book: { data: { ...book.data, visits: [...visits] } },
          },
        },
        shown.clinic,
        shown.wearDays,
        others,
        dayOf(today),
      );
    const ask = asked(book.data.visits);
    const own = planned(ask);
    return {
      clinic: shown.clinic,
      bookings: others,
      takenFor: (kind) => [
        ...others,
        ...book.data.visits
          .filter((v) => v.kind !== kind)
          .map((v) => ({ ...v, caseId: detail.id, caseName: detail.name })),
      ],
      layOut: (kind) =>
        laidOutFor(
          { ...detail, sections: { meet, shape, decide, match, direct, reduce, book, treat } },
          shown.clinic,
          shown.wearDays,
          kind,
          dayOf(today),
        ),
      ask,
      ...own,
      tried: (visits) => planned(asked(visits)).plan,
      chosen: (choices) => planned(asked([], [...choices])).plan,
    };
  }, [shown, today, bookings, detail, meet, shape, decide, match, direct, reduce, book, treat]);
}

function planned(ask: Ask): { plan?: VisitPlan; trouble?: string } {
  try {
    return { plan: planVisits(ask) };
  } catch (error) {
    if (error instanceof Refusal) return { trouble: error.message };
    throw error;
  }
}
