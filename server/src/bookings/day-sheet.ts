import {
  type Booking,
  CAUTIONS,
  type CaseDetail,
  clinicCalendar,
  type DaySheet,
  type DayVisit,
  type PracticeSettings,
} from '@radiant/contract';
import { laidOutFor } from '@radiant/contract/chair';
import { askOf, courseOf } from '@radiant/contract/course';
import { dayOf, planVisits, Refusal, remindersOf, visitOf } from '@radiant/core';

/** What one case has on a day: its visits with what is laid out, and what has to be sent or made by then. */
export function sheetOf(
  detail: CaseDetail,
  { clinic, wearDays }: PracticeSettings,
  soon: readonly Booking[],
  day: string,
): Pick<DaySheet, 'visits' | 'reminders'> {
  const course = courseOf(detail, clinic, wearDays);
  const beware = detail.sections.meet.data.cautions.map((c) => CAUTIONS[c]);
  const visits = soon
    .filter((b) => b.caseId === detail.id && b.day === day)
    .map((b): DayVisit => {
      const visit = visitOf(b.kind, course);
      return {
        ...b,
        who: visit.who,
        steps: visit.steps.map((s) => s.does),
        layOut: laidOutFor(detail, clinic, wearDays, b.kind, dayOf(day)),
        beware,
      };
    });
  const on = dayOf(day);
  try {
    const plan = planVisits(askOf(detail, clinic, wearDays, [], on));
    // What only could be on a day asks for nothing yet: only what is booked does.
    const booked = { ...plan, visits: plan.visits.filter((v) => v.booked !== undefined) };
    const reminders = remindersOf(booked, course, clinicCalendar(clinic), on)
      .filter((r) => r.by === on)
      .map((r) => ({ caseId: detail.id, caseName: detail.name, what: r.what }));
    return { visits, reminders };
  } catch (error) {
    if (error instanceof Refusal) return { visits, reminders: [] };
    throw error;
  }
}
