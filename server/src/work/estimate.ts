import { type Booking, type CaseDetail, type PracticeSettings, priceOf, type ToothChoice } from '@radiant/contract';
import { askOf } from '@radiant/contract/course';
import {
  dayOf,
  type Fdi,
  isoOf,
  label,
  type Notation,
  type OptionId,
  optionOf,
  planVisits,
  Refusal,
  VISITS,
} from '@radiant/core';
import {
  type Doc,
  date,
  HAIR,
  INK_2,
  LEFT,
  letterHead,
  MM,
  newPaper,
  PLUM,
  RIGHT,
  roomFor,
  text,
  WIDTH,
} from './plan-paper.js';

/** From what an estimate is made beside the case. */
export interface EstimateOrder {
  readonly settings: PracticeSettings;
  readonly bookings: readonly Booking[];
  /** Where the house's clock hangs. */
  readonly today: string;
}

/** One plan as a patient reads it. */
export interface PlanEstimate {
  readonly name: string;
  readonly followed: boolean;
  readonly teeth: readonly {
    readonly tooth: string;
    readonly what: string;
    readonly upkeep: string;
    readonly price?: number | undefined;
    /** Of the tooth, mm³; nothing where no scan says how much. */
    readonly removedMm3?: number | undefined;
  }[];
  /** Nothing where one of its options has no fee. */
  readonly total?: number | undefined;
  readonly visits: readonly {
    readonly what: string;
    readonly minutes: number;
    readonly day: string;
    readonly booked: boolean;
  }[];
  readonly hours: number;
  readonly end?: string | undefined;
}

/** What each plan of a case comes to; nothing while nothing is decided. */
export function estimatesOf(
  detail: CaseDetail,
  notation: Notation,
  { settings, bookings, today }: EstimateOrder,
  removed: (tooth: Fdi, option: OptionId) => number | undefined = () => undefined,
): PlanEstimate[] {
  const { data } = detail.sections.decide;
  const now = data.plan ?? 'A';
  const plans = [
    { name: now, choices: data.choices },
    ...(data.other ? [{ name: now === 'A' ? 'B' : 'A', choices: data.other }] : []),
  ].sort((a, b) => (a.name < b.name ? -1 : 1));
  return plans
    .filter((p) => p.choices.length > 0)
    .map(({ name, choices }): PlanEstimate => {
      const plan = visitsWith(detail, choices, name === now, { settings, bookings, today });
      const visits = plan?.visits.filter((v) => v.needed) ?? [];
      const teeth = [...choices]
        .sort((a, b) => a.tooth - b.tooth)
        .map((c) => {
          const option = optionOf(c.option);
          return {
            tooth: label(c.tooth, notation),
            what: option.name,
            upkeep: option.upkeep,
            price: priceOf(settings.fees, c.option),
            removedMm3: removed(c.tooth, c.option),
          };
        });
      const whole = settings.fees.length > 0 && teeth.every((t) => t.price !== undefined);
      return {
        name,
        followed: name === now,
        teeth,
        ...(whole && { total: teeth.reduce((sum, t) => sum + (t.price as number), 0) }),
        visits: visits.map((v) => ({
          what: VISITS[v.kind],
          minutes: v.minutes,
          day: isoOf(v.booked ?? v.earliest),
          booked: v.booked !== undefined,
        })),
        hours: visits.reduce((sum, v) => sum + v.minutes, 0) / 60,
        ...(plan && { end: isoOf(plan.end) }),
      };
    });
}

/** A plan that is not followed has nothing booked of its own. */
function visitsWith(
  detail: CaseDetail,
  choices: readonly ToothChoice[],
  followed: boolean,
  { settings, bookings, today }: EstimateOrder,
) {
  const { decide, book } = detail.sections;
  const sections = {
    ...detail.sections,
    decide: { data: { ...decide.data, choices: [...choices] } },
    book: { data: followed ? book.data : { ...book.data, visits: [] } },
  };
  try {
    return planVisits(askOf({ ...detail, sections }, settings.clinic, settings.wearDays, bookings, dayOf(today)));
  } catch (error) {
    if (error instanceof Refusal) return undefined;
    throw error;
  }
}

/** What is taken of a tooth, as a patient reads it. */
const tissueWords = (mm3: number | undefined): string =>
  mm3 === undefined
    ? ''
    : mm3 < 0.5
      ? 'nothing of the tooth is removed'
      : `${mm3.toFixed(0)} mm³ of the tooth are removed`;

/** Draws an estimate for the patient on A4, the plans one below the other. */
export async function estimatePdf(
  detail: CaseDetail,
  practice: string,
  plans: readonly PlanEstimate[],
  { settings, today }: EstimateOrder,
): Promise<Buffer> {
  const { doc, done } = newPaper(`${detail.name}: estimate`, 'A4');
  const money = (amount: number | undefined) =>
    amount === undefined
      ? ''
      : `${settings.currency ? `${settings.currency} ` : ''}${amount.toLocaleString('en-GB', { maximumFractionDigits: 2 })}`;
  let y = letterHead(doc, `${detail.name}: estimate`, [practice, date(today)]);
  const right = { width: 60 * MM, align: 'right' } as const;
  const room = (need: number) => {
    y = roomFor(doc, y, need, () => foot(doc));
  };
  for (const p of plans) {
    room(40 * MM);
    const several = plans.length > 1 ? `Plan ${p.name}${p.followed ? ', followed' : ''}` : 'What is planned';
    text(doc, several, LEFT, y, { font: 'serif', size: 15, colour: p.followed ? PLUM : undefined });
    if (p.total !== undefined) text(doc, money(p.total), RIGHT - 60 * MM, y, { font: 'bold', size: 15, ...right });
    y += 8 * MM;
    for (const t of p.teeth) {
      room(10 * MM);
      text(doc, t.tooth, LEFT, y, { font: 'bold', size: 10 });
      text(doc, t.what, LEFT + 14 * MM, y, { size: 10, width: 90 * MM, height: 13 });
      text(doc, money(t.price), RIGHT - 40 * MM, y, { size: 10, width: 40 * MM, align: 'right' });
      text(doc, [tissueWords(t.removedMm3), t.upkeep].filter(Boolean).join('; '), LEFT + 14 * MM, y + 4.4 * MM, {
        size: 8,
        colour: INK_2,
        width: 130 * MM,
        height: 11,
      });
      y += 9.5 * MM;
      doc
        .moveTo(LEFT, y - 1 * MM)
        .lineTo(RIGHT, y - 1 * MM)
        .lineWidth(0.4)
        .strokeColor(HAIR)
        .stroke();
    }
    if (p.total === undefined) {
      text(doc, 'The house has no fee for some of it: no price is told.', LEFT, y, { size: 9, colour: INK_2 });
      y += 5 * MM;
    }
    room(12 * MM + 5 * MM * p.visits.length);
    y += 2 * MM;
    text(
      doc,
      p.visits.length === 0
        ? 'No visits can be told.'
        : `${p.visits.length} visits, ${p.hours.toFixed(1)} hours in the chair${p.end ? `; finished ${date(p.end)} at the earliest` : ''}`,
      LEFT,
      y,
      { font: 'bold', size: 10.5, width: WIDTH, height: 14 },
    );
    y += 6 * MM;
    for (const v of p.visits) {
      text(doc, v.what, LEFT, y, { size: 9.5 });
      text(doc, `${v.minutes} min`, LEFT + 80 * MM, y, { size: 9.5, width: 20 * MM, align: 'right' });
      text(doc, `${v.booked ? '' : 'not before '}${date(v.day)}`, LEFT + 106 * MM, y, { size: 9.5 });
      y += 5 * MM;
    }
    y += 8 * MM;
  }
  foot(doc);
  doc.end();
  return done;
}

const foot = (doc: Doc): void =>
  text(
    doc,
    'An estimate and no offer: what is found in the mouth, and how it heals, may change visits, dates and price. Days are the earliest that the calendar has today. Ask what you do not understand; nothing begins before you agree.',
    LEFT,
    281 * MM,
    { size: 8, colour: INK_2, width: WIDTH, height: 24 },
  );
