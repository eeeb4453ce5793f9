import type { CaseDetail } from '@radiant/contract';
import { contourPlan, frontOf, mouthOf, photographed, standingOf, standingWords } from '@radiant/contract';
import {
  ask,
  type CaseEngine,
  type ContourPlan,
  type CutFrom,
  type Design,
  type Notation,
  restorationOf,
  rowOf,
  type ToothMeasure,
  type ToothReduction,
  type ToothSection,
} from '@radiant/core';

/** One tooth of the plan with everything that is told of it. */
export interface SheetTooth {
  readonly design: Design;
  readonly reduction: ToothReduction;
  readonly section: ToothSection;
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
 * @returns undefined while no planned tooth stands in a scan
 */
export function planSheet(
  detail: CaseDetail,
  practice: string,
  notation: Notation,
  engine: CaseEngine,
): PlanSheet | undefined {
  const { meet, read, shape, reduce } = detail.sections;
  const plan = contourPlan(shape.data.teeth);
  engine.setPlan(plan);
  const teeth = engine.teeth();
  if (teeth.length === 0) return undefined;
  const { from } = reduce.data;
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
    contourStanding: standingWords(standingOf(shape.data.teeth, detail.contours)),
    from,
    plan,
    measures: photographed(read.data, frontOf(read.data, meet.data, []).roles),
    pages: [
      ...inPages(rowOf('upper').filter((t) => teeth.includes(t))),
      ...inPages([...rowOf('lower')].reverse().filter((t) => teeth.includes(t))),
    ].map((page) =>
      page.map((tooth) => ({
        design: restorationOf(tooth, reduce.data).design,
        reduction: ask(engine, 'reduction', tooth, reduce.data, from, mouthOf(meet.data)),
        section: ask(engine, 'sectionOf', tooth, reduce.data),
      })),
    ),
  };
}

/** A row in equal parts that fit a page each. */
function inPages<T>(row: readonly T[]): T[][] {
  const pages = Math.ceil(row.length / TEETH_A_PAGE);
  const each = Math.ceil(row.length / pages);
  return Array.from({ length: pages }, (_, i) => row.slice(i * each, (i + 1) * each));
}
