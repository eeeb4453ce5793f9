import {
  type AtVisit,
  type Base,
  type Beware,
  CERAMIC_IDS,
  type CeramicId,
  type Course,
  type Cut,
  type Day,
  dayOf,
  type Fdi,
  type GateId,
  laidOut,
  type MouthNow,
  OPTIONS,
  optionOf,
  type Piece,
  type PieceMaterial,
  protocolOf,
  type Taken,
  usualCement,
  usualCord,
  type VisitKind,
} from '@radiant/core';
import type { Clinic } from './clinic.js';
import { type BookableCase, courseOf, designAt } from './course.js';
import { directSettings, workOn } from './sections/direct.js';
import type { SectionData } from './sections/index.js';
import type { GateAnswer, StepDone, TreatSection, VisitRun } from './sections/treat.js';
import { ALL_TEETH } from './sections/words.js';

/** A case, as far as the chair goes. */
export interface ChairCase extends Omit<BookableCase, 'sections'> {
  readonly sections: BookableCase['sections'] & {
    readonly [N in 'treat' | 'direct']: { readonly data: SectionData[N] };
  };
}

const BEWARE: readonly Beware[] = ['pressure', 'bleeding', 'allergy', 'pregnancy', 'medicines', 'anxious', 'grinding'];

/** The last of entries that speak of the same. */
const last = <T extends { readonly at: string }>(all: readonly T[]): T | undefined =>
  all.reduce<T | undefined>((a, b) => (a && Date.parse(a.at) > Date.parse(b.at) ? a : b), undefined);

/** The answer that counts at a gate: the last one of this holding of the visit. */
export const answerAt = (
  t: TreatSection,
  run: Pick<VisitRun, 'visit' | 'round'>,
  gate: GateId,
): GateAnswer | undefined =>
  last(t.answers.filter((a) => a.gate === gate && a.visit === run.visit && a.round === run.round));

/** What material a piece is made of: as was decided, else as its design is usually made. */
function madeOf(
  tooth: Fdi,
  sections: ChairCase['sections'],
): { material: PieceMaterial; ceramics: readonly CeramicId[] } {
  const chosen = sections.decide.data.choices.find((c) => c.tooth === tooth)?.option;
  const design = designAt(tooth, sections);
  const option =
    (chosen && optionOf(chosen)) ??
    OPTIONS.find((o) => 'design' in o && o.design === (design.variant?.of ?? design.id));
  const made = option?.made;
  const material: PieceMaterial =
    made === 'feldspathic' || made === 'zirconia' || made === 'metal-ceramic' ? made : 'glass-ceramic';
  return { material, ceramics: (option && 'ceramics' in option && option.ceramics) || [] };
}

/** The pieces of a case, each as it is fixed: as was said, else as is usual. */
export function piecesOf(detail: ChairCase, works: Course['teeth']): Piece[] {
  const { treat, meet, match, decide } = detail.sections;
  return works.flatMap(({ tooth, work }): Piece[] => {
    if (work === 'composite') return [];
    const own = treat.data.pieces.find((p) => p.tooth === tooth);
    const { material, ceramics } = madeOf(tooth, detail.sections);
    const chosen = decide.data.choices.find((c) => c.tooth === tooth);
    const named = chosen?.ceramic ?? match.data.own?.find((o) => o.tooth === tooth)?.ceramic ?? match.data.ceramic;
    const ceramic = ceramics.find((c) => c === named) ?? ceramics[0];
    const { needs } = designAt(tooth, detail.sections);
    // What is only added to is as thick as the plan makes it: that is measured on the piece.
    const designed = Math.max(...Object.values(needs));
    const thickMm = own?.thickMm ?? (designed > 0 ? designed : undefined);
    const past = meet.data.teeth.find((t) => t.tooth === tooth)?.past ?? [];
    const bases: Base[] = [
      work === 'crown' ? 'dentin' : 'enamel',
      ...(past.includes('filling') ? (['composite'] as const) : []),
      ...(past.includes('post') || treat.data.posts?.includes(tooth) ? (['core'] as const) : []),
    ];
    return [
      {
        tooth,
        kind: work,
        material,
        ...(ceramic && (CERAMIC_IDS as readonly string[]).includes(ceramic) && { ceramic }),
        ...(thickMm !== undefined && { thickMm }),
        cement: own?.cement ?? usualCement({ kind: work, material }),
        bases: own?.bases ?? bases,
        ...(own?.wallMm != null && { wallMm: own.wallMm }),
        ...(own?.etched && { etched: true }),
      },
    ];
  });
}

/** Everything from which the steps of a visit follow, as it is known today. */
export function atVisitOf(
  detail: ChairCase,
  clinic: Clinic,
  wearDays: number,
  run: Pick<VisitRun, 'visit' | 'round'>,
  today: Day,
): AtVisit {
  const { meet, decide, match, treat, direct } = detail.sections;
  const course = courseOf(detail, clinic, wearDays);
  const cuts = course.teeth.flatMap(({ tooth, work }): Cut[] =>
    work === 'veneer' || work === 'crown'
      ? [{ tooth, kind: work, belowGum: designAt(tooth, detail.sections).finish.belowGumMm > 0 }]
      : [],
  );
  const seen = answerAt(treat.data, run, 'tissue');
  const gum: MouthNow['gum'] = seen ? (seen.met ? 'healthy' : 'bleeds') : course.inflamed ? 'bleeds' : undefined;
  const bleached = (match.data.bleaching ?? []).flatMap((b) => (b.endedOn ? [today - dayOf(b.endedOn)] : []));
  const missing = new Set(meet.data.teeth.filter((t) => t.past.includes('missing')).map((t) => t.tooth));
  return {
    teeth: course.teeth.map((t) => t.tooth),
    works: course.teeth,
    cuts,
    pieces: piecesOf(detail, course.teeth),
    present: ALL_TEETH.filter((t) => t % 10 <= 7 && !missing.has(t)),
    oldWorks: treat.data.oldWorks,
    posts: treat.data.posts ?? [],
    cord: treat.data.cord ?? usualCord(cuts),
    provisional: treat.data.provisional ?? 'shells',
    maker: course.maker,
    impression: course.impression,
    tissue: course.tissue,
    composite: {
      settings: directSettings(direct.data),
      kinds: course.teeth.map(({ tooth }) => ({ tooth, kind: workOn(direct.data, tooth).kind })),
    },
    mouth: {
      ...(gum && { gum }),
      ...(typeof decide.data.dry === 'boolean' && { dry: decide.data.dry }),
      ...(decide.data.wet && { wet: decide.data.wet }),
      provisional: cuts.length > 0,
      ...(bleached.length > 0 && { bleachedDays: Math.min(...bleached) }),
      beware: new Set(BEWARE.filter((b) => (meet.data.cautions as readonly string[]).includes(b))),
    },
  };
}

/** What is laid out for a visit of a case: what its steps have in hand. */
export const laidOutFor = (
  detail: ChairCase,
  clinic: Clinic,
  wearDays: number,
  visit: VisitKind,
  today: Day,
): readonly string[] => laidOut(protocolOf(visit, atVisitOf(detail, clinic, wearDays, { visit, round: 1 }, today)));

/** A visit as it is or was held: of those that two people began at once, the earlier one. */
export interface Held {
  readonly visit: VisitKind;
  readonly round: number;
  readonly begunAt: string;
  readonly endedAt?: string;
  readonly teeth?: number;
  readonly by: string;
}

/** Every holding of a visit, in the order in which they began. It is over when anybody has said so. */
export function heldVisits({ runs }: Pick<TreatSection, 'runs'>): Held[] {
  const by = new Map<string, Held>();
  for (const { visit, round, begunAt, endedAt, teeth, by: who } of [...runs].sort(
    (a, b) => Date.parse(a.begunAt) - Date.parse(b.begunAt),
  )) {
    const key = `${visit} ${round}`;
    const first = by.get(key) ?? { visit, round, begunAt, by: who };
    by.set(key, { ...first, ...(endedAt && !first.endedAt && { endedAt, ...(teeth != null && { teeth }) }) });
  }
  return [...by.values()];
}

/** The first to say that a step was done, by its id, of one holding of a visit. */
export function doneSteps(
  { done }: Pick<TreatSection, 'done'>,
  run: Pick<Held, 'visit' | 'round'>,
): ReadonlyMap<string, StepDone> {
  const out = new Map<string, StepDone>();
  for (const d of [...done].sort((a, b) => Date.parse(a.at) - Date.parse(b.at)))
    if (d.visit === run.visit && d.round === run.round && !out.has(d.step)) out.set(d.step, d);
  return out;
}

/** A pause of a day is no chair time. House limit. */
const LONGEST_MINUTES = 600;

/** What the visits that are over took, minutes. */
export const takenOf = (treat: Pick<TreatSection, 'runs'>): Taken[] =>
  heldVisits(treat).flatMap(({ visit, begunAt, endedAt, teeth }) => {
    const minutes = endedAt ? (Date.parse(endedAt) - Date.parse(begunAt)) / 60_000 : 0;
    return minutes > 0 && minutes <= LONGEST_MINUTES && teeth !== undefined ? [{ visit, teeth, minutes }] : [];
  });
