import { afterFace, before, cordStep, edgeStep, grooveSteps, joinStep, traceStep } from '../cut-list/steps.js';
import { intoTooth, type Strategy } from './strategy.js';
import { CUT_WAYS } from './words.js';

/**
 * Margin first: a ball traces the finish line, so that everything after it has an end; then edge and face are grooved as
 * deep as what has to go, and joined.
 */
export const margin = {
  ...CUT_WAYS[2],
  wish: (r, zone) => intoTooth(r, zone),
  order: (t) => [
    ...before(t),
    ...cordStep(t),
    ...traceStep(t),
    ...grooveSteps(t, ['edge']),
    ...edgeStep(t),
    ...grooveSteps(t, ['cervical', 'middle', 'incisal']),
    joinStep(t),
    ...afterFace(t, { cordLies: true }),
  ],
} as const satisfies Strategy;
