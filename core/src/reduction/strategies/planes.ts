import { afterFace, before, edgeStep, grooveSteps, planeStep } from '../cut-list/steps.js';
import { intoTooth, noGroove, type Strategy } from './strategy.js';
import { CUT_WAYS } from './words.js';

/**
 * Planes with a guide: the incisal half and the cervical half of the face are each grooved and cut flat by themselves, following
 * the curve, and read with the index; where they meet there is no groove.
 */
export const planes = {
  ...CUT_WAYS[3],
  wish: (r, zone) => {
    if (zone === 'middle' && r.remove.value > 0)
      return noGroove(`No groove: the two planes meet here; read ${r.remove.value.toFixed(2)} mm with the index.`);
    return intoTooth(r, zone);
  },
  order: (t) => [
    ...before(t),
    ...grooveSteps(t, ['edge']),
    ...edgeStep(t),
    ...grooveSteps(t, ['incisal']),
    planeStep(t, 'incisal half'),
    ...grooveSteps(t, ['cervical']),
    planeStep(t, 'cervical half'),
    ...afterFace(t),
  ],
} as const satisfies Strategy;
