import type { CaseDetail } from '@radiant/contract';
import { contourPlan, landmarkSet, scaleBy, standingOf, standingWords } from '@radiant/contract';
import {
  type ContourPlan,
  type CutFrom,
  designOf,
  type ExistingArch,
  existingArch,
  measureTeeth,
  type Notation,
  plannedTooth,
  readScan,
  type ToothMeasure,
  type ToothReduction,
  type ToothSection,
  toothReduction,
  toothSection,
  UPPER_SIX,
  type VeneerDesign,
} from '@radiant/core';

/** Everything that stands on the plan's one page, computed; the drawing knows nothing of how. */
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
  readonly design: VeneerDesign;
  readonly from: CutFrom;
  readonly plan: ContourPlan;
  readonly measures: readonly ToothMeasure[];
  readonly arch: ExistingArch;
  readonly teeth: readonly { readonly reduction: ToothReduction; readonly section: ToothSection }[];
}

/** @returns undefined while there is no scan or no contour of all six teeth */
export function planSheet(detail: CaseDetail, practice: string, notation: Notation, scan: Uint8Array | undefined): PlanSheet | undefined {
  const { meet, read, shape, reduce } = detail.sections;
  const plan = contourPlan(shape.data.teeth);
  if (!scan || !UPPER_SIX.every((t) => plan[t])) return undefined;
  const arch = existingArch(readScan(scan));
  const design = designOf(reduce.data.design);
  const from = reduce.data.from;
  const scale = scaleBy(read.data.calibration);
  const measures = scale ? measureTeeth(landmarkSet(read.data.landmarks), scale) : [];
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
    design,
    from,
    plan,
    measures,
    arch,
    teeth: UPPER_SIX.map((tooth) => {
      const existing = arch.teeth.get(tooth);
      if (!existing) throw new Error(`The scan lost tooth ${tooth}.`);
      return {
        reduction: toothReduction(arch, plan, tooth, design, from),
        section: toothSection(existing.field.mesh, plannedTooth(arch, plan, tooth), design),
      };
    }),
  };
}
