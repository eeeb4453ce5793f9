import type { ExistingArch } from '../../contour/fit.js';
import { type ContourPlan, planOfExisting, type ToothPlan, takenIn } from '../../contour/plan.js';
import type { Fdi, Jaw } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';

/** What is measured of a tooth that is there, mm and degrees. */
export interface ExistingSummary {
  readonly tooth: Fdi;
  readonly lengthMm: number;
  readonly widthMm: number;
  readonly wearMm: number;
  readonly rotationDeg: number;
  readonly fitMm: number;
}

/** The teeth of a jaw as they are measured. @throws Refusal of `CaseEngine.arch` */
export const existing = (engine: CaseEngine, jaw: Jaw): ExistingSummary[] => summary(engine.arch(jaw));

function summary(of: ExistingArch): ExistingSummary[] {
  return [...of.teeth.values()].map(({ tooth, lengthMm, widthMm, wearMm, rotationDeg, fitMm }) => ({ tooth, lengthMm, widthMm, wearMm, rotationDeg, fitMm }));
}

/** The upper front teeth as they are, as a contour. */
export const existingPlan = (engine: CaseEngine): ContourPlan => planOfExisting(engine.arch('upper'));

/** A further tooth as it would be taken into the plan, as it stands. */
export const asItStands = (engine: CaseEngine, tooth: Fdi): ToothPlan => takenIn(engine.archOf(tooth), engine.contour, tooth);
