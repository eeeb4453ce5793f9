import { afterFace, alignSteps, before, edgeStep, grooveSteps, joinStep } from '../cut-list/steps.js';
import { NOTHING_MM, PROUD_MM } from '../removal.js';
import { intoTooth, noGroove, type Strategy } from './strategy.js';
import { CUT_WAYS } from './words.js';

/**
 * Align, then reduce: what stands proud of the plan is first brought onto its curve as an amount of its own; from there
 * the grooves are as deep as what the ceramic still needs.
 */
export const align = {
  ...CUT_WAYS[1],
  wish: (r, zone) => {
    const proud = r.alignFirst > PROUD_MM;
    const first = proud ? `First ${r.alignFirst.toFixed(2)} mm, to stand in line with the plan.` : undefined;
    return proud && r.remove.value - r.alignFirst <= NOTHING_MM
      ? noGroove('No groove: once it stands in line nothing more has to go.')
      : intoTooth(r, zone, r.least.inLineMm, first);
  },
  order: (t) => [
    ...before(t),
    ...alignSteps(t),
    ...grooveSteps(t, ['cervical', 'middle', 'incisal', 'edge']),
    joinStep(t),
    ...edgeStep(t),
    ...afterFace(t),
  ],
} as const satisfies Strategy;
