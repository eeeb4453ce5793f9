import {
  type Ask,
  type Course,
  type CourseWork,
  type Day,
  type Design,
  dayOf,
  type Fdi,
  impressionOf,
  onlyAdded,
  optionOf,
  restorationOf,
  type Span,
  weekdayOf,
} from '@radiant/core';
import type { CaseDetail } from './cases.js';
import { type Clinic, clinicCalendar, laboratoryCalendar, patientAway } from './clinic.js';
import { type BookedVisit, overlap } from './sections/book.js';
import type { SectionData } from './sections/index.js';
import { standingOf } from './standing.js';

/** A visit of any case of the practice, as the week shows it. */
export interface Booking extends BookedVisit {
  readonly caseId: string;
  readonly caseName: string;
}

/** The sections from which visits follow. */
type Asked = 'meet' | 'shape' | 'decide' | 'match' | 'reduce' | 'book';

/** A case, as far as its visits go: as the server has it, or as it is being edited. */
export interface BookableCase extends Pick<CaseDetail, 'id' | 'contours' | 'files'> {
  readonly sections: { readonly [N in Asked]: { readonly data: SectionData[N] } };
}
type Works = { readonly sections: Pick<BookableCase['sections'], 'shape' | 'decide' | 'reduce'> };

/** The design of a tooth: as it was decided, else as reduce has it. */
export function designAt(tooth: Fdi, { decide, reduce }: Pick<Works['sections'], 'decide' | 'reduce'>): Design {
  const chosen = decide.data.choices.find((c) => c.tooth === tooth)?.option;
  const design = chosen && optionOf(chosen).design;
  return restorationOf(tooth, design ? { ...reduce.data, own: [{ tooth, design }] } : reduce.data).design;
}

/** What becomes of each planned tooth: as it was decided, else as reduce has it. */
export function worksOf({ sections }: Works): readonly { tooth: Fdi; work: CourseWork }[] {
  const { shape, decide, reduce } = sections;
  const planned = new Set([...shape.data.teeth.map((t) => t.tooth), ...decide.data.choices.map((c) => c.tooth)]);
  return [...planned]
    .sort((a, b) => a - b)
    .flatMap((tooth) => {
      const chosen = decide.data.choices.find((c) => c.tooth === tooth)?.option;
      const option = chosen && optionOf(chosen);
      if (option && !option.design) return [];
      const design = designAt(tooth, { decide, reduce });
      const work: CourseWork =
        design.kind === 'crown'
          ? 'crown'
          : design.kind === 'direct' || option?.made === 'composite'
            ? 'composite'
            : onlyAdded(design)
              ? 'no-prep veneer'
              : 'veneer';
      return [{ tooth, work }];
    });
}

/** From what the visits of a case follow. @param wearDays for which the house has a mock-up worn */
export function courseOf(detail: BookableCase, clinic: Clinic, wearDays: number): Course {
  const { meet, shape, match, book } = detail.sections;
  const teeth = worksOf(detail);
  const own = book.data;
  const approved = standingOf(shape.data.teeth, detail.contours).kind === 'approved';
  const tissue = own.tissue ?? 'none';
  const belowGum = teeth.some(
    ({ tooth, work }) => work !== 'composite' && designAt(tooth, detail.sections).finish.belowGumMm > 0,
  );
  const inflamed = meet.data.teeth.some((t) => t.past.includes('inflamed') && teeth.some((o) => o.tooth === t.tooth));
  return {
    teeth,
    hasRecords: detail.files.some((f) => f.kind === 'photo') && detail.files.some((f) => f.kind === 'scan'),
    ...(!approved && { mockUpDays: own.mockUpDays ?? wearDays }),
    tissue,
    ...(inflamed && { inflamed }),
    impression: own.impression ?? impressionOf({ belowGum, inflamed, tissue }),
    maker: own.maker ?? 'laboratory',
    laboratoryDays: own.laboratoryDays ?? clinic.laboratoryDays,
    tryIn: own.tryIn ?? false,
    bleaching: (match.data.bleaching?.length ?? 0) > 0,
    guard: own.guard ?? meet.data.cautions.includes('grinding'),
    ...(clinic.minutes.length > 0 && { times: clinic.minutes }),
  };
}

/** What is asked of the calendar for a case. @param others visits of the practice's other cases */
export function askOf(
  detail: BookableCase,
  clinic: Clinic,
  wearDays: number,
  others: readonly Booking[],
  today: Day,
): Ask {
  const { meet, book } = detail.sections;
  return {
    course: courseOf(detail, clinic, wearDays),
    house: {
      clinic: clinicCalendar(clinic),
      laboratory: laboratoryCalendar(clinic),
      chairs: clinic.chairs.length,
      ...(clinic.laboratoryPickUp != null && { pickUp: clinic.laboratoryPickUp }),
      taken: takenBy(
        [
          ...others.filter((b) => b.caseId !== detail.id),
          // Of its own visits too: what is booked once has no room for another.
          ...book.data.visits.map((v) => ({ ...v, caseId: detail.id, caseName: '' })),
        ],
        clinic,
      ),
    },
    patientAway: patientAway(book.data.away),
    today,
    ...(meet.data.finishBy && { by: dayOf(meet.data.finishBy) }),
    booked: book.data.visits.map((v) => ({ kind: v.kind, day: dayOf(v.day), until: v.from + v.minutes })),
  };
}

/** What others have of each chair, day by day. */
export function takenBy(others: readonly Booking[], { chairs }: Clinic): (day: Day) => readonly (readonly Span[])[] {
  const all = new Map<string, Span[]>();
  for (const b of others) {
    const key = `${dayOf(b.day)} ${b.chair}`;
    all.set(key, [...(all.get(key) ?? []), { from: b.from, to: b.from + b.minutes }]);
  }
  return (day) => chairs.map((c) => all.get(`${day} ${c}`) ?? []);
}

/** The first of others that wants the same chair at the same time. */
export const clashOf = <T extends BookedVisit>(own: BookedVisit, others: readonly T[]): T | undefined =>
  others.find((o) => overlap(own, o));

/** The Monday of a day's week. */
export const mondayOf = (day: Day): Day => day - weekdayOf(day);

/** A visit of a day, with what is laid out for it. */
export interface DayVisit extends Booking {
  readonly who: string;
  readonly steps: readonly string[];
  readonly layOut: readonly string[];
  readonly beware: readonly string[];
}

/** Everything of a day, in its order. */
export interface DaySheet {
  readonly day: string;
  readonly visits: readonly DayVisit[];
  /** What has to be sent, ordered or made by that day, of all cases with a visit soon. */
  readonly reminders: readonly { readonly caseId: string; readonly caseName: string; readonly what: string }[];
}
