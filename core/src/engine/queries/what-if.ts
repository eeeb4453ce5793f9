import { movedTooth } from '../../contour/align-first.js';
import { toothOf } from '../../contour/fit.js';
import { PLAN_LIMITS } from '../../contour/parameters.js';
import { type PlannedTooth, plannedTooth, type ToothPlan } from '../../contour/plan.js';
import { WORLD } from '../../geometry/frame.js';
import { signedField } from '../../geometry/tree/signed.js';
import type { Mouth } from '../../reduction/removal.js';
import { targetBetween, targetOf } from '../../reduction/target.js';
import { type TargetTold, targetTold } from '../../reduction/target-zones.js';
import { onlyAdded } from '../../restoration/design.js';
import { CHOSEN_DESIGNS, type DesignId } from '../../restoration/designs.js';
import { inMaterial, type MaterialId, materialsFor } from '../../restoration/material.js';
import { type DesignChoice, restorationOf } from '../../restoration/restoration.js';
import type { Fdi } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';
import { surfaceOf, target } from './reduction.js';

/** The plan of a tooth made otherwise by so much, mm. House values: what one would try first. */
const FORWARD_MM = 0.1;
const LONGER_MM = 0.5;

/** What a preparation would come to, were one thing otherwise. */
export interface WhatIf {
  /** What is otherwise: a design, a material for the chosen one, the contour, or the tooth's place. */
  readonly kind: 'design' | 'material' | 'contour' | 'place';
  readonly id: DesignId | MaterialId | 'forward' | 'longer' | 'moved';
  /** In words. */
  readonly words: string;
  readonly told: Omit<TargetTold, 'zones'>;
}

/** The preparation of one tooth by every design, and by the chosen one in other materials, contours and places. */
export function whatIf(engine: CaseEngine, tooth: Fdi, choice: DesignChoice, mouth: Mouth = {}): WhatIf[] {
  const sums = ({ zones: _, ...told }: TargetTold) => told;
  const designs = CHOSEN_DESIGNS.map((d): WhatIf => {
    const { thickness } = choice;
    const own = { design: d.id as DesignId, ...(thickness && { thickness }) };
    const { told } = target(engine, tooth, own, mouth);
    const { design } = restorationOf(tooth, own);
    return { kind: 'design', id: design.id as DesignId, words: design.name, told: sums(told) };
  });
  const { design } = restorationOf(tooth, choice);
  const materials = (onlyAdded(design) ? [] : materialsFor(design.kind)).map((m): WhatIf => {
    const told = targetTold(surfaceOf(engine, tooth, inMaterial(design, m)), mouth);
    return { kind: 'material', id: m.id as MaterialId, words: m.name, told: sums(told) };
  });
  const own = engine.contour[tooth];
  if (!own) return [...designs, ...materials];
  const arch = engine.archOf(tooth);
  const under = (planned: PlannedTooth) => sums(targetTold(targetOf(toothOf(arch, tooth), planned, design), mouth));
  const otherwise = (id: 'forward' | 'longer', words: string, by: Partial<ToothPlan>): WhatIf => ({
    kind: 'contour',
    id,
    words,
    told: under(plannedTooth(arch, { ...engine.contour, [tooth]: { ...own, ...by } }, tooth)),
  });
  const { forwardMm, lengthMm } = PLAN_LIMITS;
  const [forward, longer] = [(own.forwardMm ?? 0) + FORWARD_MM, own.lengthMm + LONGER_MM];
  const moved = movedTooth(arch, engine.contour, tooth);
  const inPlace = { tooth, crown: moved.crown, frame: WORLD, mesh: moved.plannedMoved };
  return [
    ...designs,
    ...materials,
    ...(forward <= forwardMm.max
      ? [otherwise('forward', `${FORWARD_MM.toFixed(1)} mm further to the front`, { forwardMm: forward })]
      : []),
    ...(longer <= lengthMm.max
      ? [otherwise('longer', `edge ${LONGER_MM.toFixed(1)} mm longer`, { lengthMm: longer })]
      : []),
    {
      kind: 'place',
      id: 'moved',
      words: `by ${moved.byMm.toFixed(1)} mm, turned ${moved.byDeg.toFixed(0)}°`,
      told: sums(targetTold(targetBetween(signedField(moved.moved), inPlace, design, moved.movedSpan), mouth)),
    },
  ];
}
