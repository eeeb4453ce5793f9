import { toothOf } from '../../contour/fit.js';
import { PLAN_LIMITS } from '../../contour/parameters.js';
import { plannedTooth, type ToothPlan } from '../../contour/plan.js';
import type { Mouth } from '../../reduction/removal.js';
import { targetOf } from '../../reduction/target.js';
import { type TargetTold, targetTold } from '../../reduction/target-zones.js';
import { DESIGN_IDS, type DesignId } from '../../restoration/design.js';
import { type DesignChoice, restorationOf } from '../../restoration/restoration.js';
import type { Fdi } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';
import { target } from './reduction.js';

/** The plan of a tooth made otherwise by so much, mm. House values: what one would try first. */
const FORWARD_MM = 0.2;
const LONGER_MM = 0.5;

/** What a preparation would come to, were one thing otherwise. */
export interface WhatIf {
  /** Another design, or the same one under another contour. */
  readonly what: DesignId | 'forward' | 'longer';
  readonly told: Omit<TargetTold, 'zones'>;
}

/** What the changes of a contour are, in words. */
export const WHAT_IF_WORDS = {
  forward: `contour ${FORWARD_MM.toFixed(1)} mm further to the front`,
  longer: `edge ${LONGER_MM.toFixed(1)} mm longer`,
} as const;

/** The preparation of one tooth by every design, and by the chosen one were its contour otherwise. */
export function whatIf(engine: CaseEngine, tooth: Fdi, choice: DesignChoice, mouth: Mouth = {}): WhatIf[] {
  const sums = ({ zones: _, ...told }: TargetTold) => told;
  const designs = DESIGN_IDS.map((what): WhatIf => {
    const { thickness } = choice;
    const { told } = target(engine, tooth, { design: what, ...(thickness && { thickness }) }, mouth);
    return { what, told: sums(told) };
  });
  const { design } = restorationOf(tooth, choice);
  const own = engine.contour[tooth];
  if (!own) return designs;
  const otherwise = (what: 'forward' | 'longer', by: Partial<ToothPlan>): WhatIf => {
    const arch = engine.archOf(tooth);
    const planned = plannedTooth(arch, { ...engine.contour, [tooth]: { ...own, ...by } }, tooth);
    return { what, told: sums(targetTold(targetOf(toothOf(arch, tooth), planned, design), mouth)) };
  };
  const { forwardMm, lengthMm } = PLAN_LIMITS;
  const [forward, longer] = [(own.forwardMm ?? 0) + FORWARD_MM, own.lengthMm + LONGER_MM];
  return [
    ...designs,
    ...(forward <= forwardMm.max ? [otherwise('forward', { forwardMm: forward })] : []),
    ...(longer <= lengthMm.max ? [otherwise('longer', { lengthMm: longer })] : []),
  ];
}
