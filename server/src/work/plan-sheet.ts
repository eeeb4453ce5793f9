import type { CaseDetail, MeetSection } from '@radiant/contract';
import {
  CAUTIONS,
  contourPlan,
  frontOf,
  mouthOf,
  photographed,
  standingOf,
  standingWords,
  TOOTH_PAST,
} from '@radiant/contract';
import {
  ask,
  type CaseEngine,
  type ContourPlan,
  type CutFrom,
  type Design,
  type Fdi,
  label,
  type Notation,
  restorationOf,
  rowOf,
  type ToothCutList,
  type ToothMeasure,
  type ToothReduction,
  type ToothSection,
} from '@radiant/core';
import type { Tell } from './tell.js';

/** One tooth of the plan with everything that is told of it. */
export interface SheetTooth {
  readonly design: Design;
  readonly reduction: ToothReduction;
  readonly section: ToothSection;
  readonly list: ToothCutList;
}

/** Everything that stands on the plan's pages, computed; the drawing knows nothing of how. */
export interface PlanSheet {
  readonly name: string;
  readonly practice: string;
  /** In which teeth are named on the page. */
  readonly notation: Notation;
  readonly ageYears: number | null;
  readonly wish: string;
  readonly finishBy: string | null;
  readonly contourVersion: number;
  readonly contourBy: string | null;
  readonly contourAt: string | null;
  /** What to beware of, and what the planned teeth have been through, each in a line. */
  readonly beware: readonly string[];
  /** When the patient approved the contour as it stands. */
  readonly approvedAt: string | null;
  /** Whether the contour is one that was kept or approved by the patient, in words. */
  readonly contourStanding: string;
  readonly from: CutFrom;
  readonly plan: ContourPlan;
  readonly measures: readonly ToothMeasure[];
  /** What stands on each page, patient's right first: never teeth of both jaws. */
  readonly pages: readonly (readonly SheetTooth[])[];
}

/** Teeth on one page: as many columns as stay readable. */
const TEETH_A_PAGE = 6;

/**
 * @param engine holds the scans of the jaws that there are
 * @param tell hears which tooth is being worked out
 * @returns undefined while no planned tooth stands in a scan
 */
export function planSheet(
  detail: CaseDetail,
  practice: string,
  notation: Notation,
  engine: CaseEngine,
  tell: Tell = () => undefined,
): PlanSheet | undefined {
  const { meet, read, shape, reduce } = detail.sections;
  const plan = contourPlan(shape.data.teeth);
  engine.setPlan(plan);
  const teeth = engine.teeth();
  if (teeth.length === 0) return undefined;
  const { from } = reduce.data;
  const mouth = mouthOf(meet.data);
  teeth.forEach((tooth, i) => {
    tell(`Working out ${label(tooth, notation)}`, 0.2 + (0.7 * i) / teeth.length);
    ask(engine, 'target', tooth, reduce.data, mouth);
  });
  // Burs are chosen for the whole case, so its teeth are told together.
  const reductions = new Map(ask(engine, 'reductions', reduce.data, mouth).map((r) => [r.tooth, r]));
  const lists = new Map(ask(engine, 'cutList', reduce.data, mouth).map((l) => [l.tooth, l]));
  const standing = standingOf(shape.data.teeth, detail.contours);
  return {
    name: detail.name,
    practice,
    notation,
    ageYears: meet.data.ageYears ?? null,
    wish: meet.data.wish,
    finishBy: meet.data.finishBy ?? null,
    contourVersion: shape.version,
    contourBy: shape.by,
    contourAt: shape.at,
    contourStanding: standingWords(standing),
    approvedAt: (standing.kind === 'approved' && standing.version.approved?.at) || null,
    beware: bewareOf(meet.data, teeth, notation),
    from,
    plan,
    measures: photographed(read.data, frontOf(read.data, meet.data, []).roles),
    pages: [
      ...inPages(rowOf('upper').filter((t) => teeth.includes(t))),
      ...inPages([...rowOf('lower')].reverse().filter((t) => teeth.includes(t))),
    ].map((page) =>
      page.map((tooth) => ({
        design: restorationOf(tooth, reduce.data).design,
        reduction: reductions.get(tooth) as ToothReduction,
        section: ask(engine, 'sectionOf', tooth, reduce.data),
        list: lists.get(tooth) as ToothCutList,
      })),
    ),
  };
}

/** The cautions of the record, and the histories of planned teeth. */
function bewareOf(meet: MeetSection, teeth: readonly Fdi[], notation: Notation): string[] {
  const cautions = [...meet.cautions.map((c) => CAUTIONS[c]), meet.cautionNote].filter(Boolean).join(', ');
  const histories = meet.teeth.flatMap(({ tooth, past, note }) => {
    const said = [...past.map((p) => TOOTH_PAST[p]), note].filter(Boolean).join(', ');
    return said && teeth.includes(tooth) ? [`${label(tooth, notation)}: ${said}`] : [];
  });
  return [cautions, histories.join(' · ')].filter(Boolean);
}

/** A row in equal parts that fit a page each. */
function inPages<T>(row: readonly T[]): T[][] {
  const pages = Math.ceil(row.length / TEETH_A_PAGE);
  const each = Math.ceil(row.length / pages);
  return Array.from({ length: pages }, (_, i) => row.slice(i * each, (i + 1) * each));
}
