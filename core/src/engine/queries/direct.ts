import { toothOf } from '../../contour/fit.js';
import { compositeLayers } from '../../direct/layers.js';
import { type DirectPlan, directPlan, type LayersThrough, layersThrough, missingTo } from '../../direct/plan.js';
import type { DirectSettings } from '../../direct/words.js';
import type { Fdi } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';

/** What composite has to fill on a tooth, with sections at places across. */
export interface DirectTold extends DirectPlan {
  readonly sections: readonly LayersThrough[];
}

/** Where sections are drawn: at the middle and half way to each side, as shares of half the width. */
const AT = [-0.5, 0, 0.5] as const;

/**
 * The composite of one planned tooth. @throws Refusal `nothing-missing`; of `CaseEngine.crown`
 */
export function direct(engine: CaseEngine, tooth: Fdi, s: DirectSettings, ageYears?: number): DirectTold {
  const planned = engine.crown(tooth);
  // What is missing stays while thicknesses change: only its layers are told anew.
  const missing = engine.once(tooth, 'missing', (own, arch) => missingTo(own, toothOf(arch, tooth).field.mesh));
  const bodies = { missing, layers: compositeLayers(missing, s) };
  const { grid } = bodies.missing;
  const half = ((grid.na - 1) * grid.step) / 2;
  const middle = grid.a0 + half;
  return {
    ...directPlan(planned, bodies, s, ageYears),
    sections: AT.map((share) => layersThrough(bodies, middle + share * half)),
  };
}
