import { afterFace, before, edgeStep, grooveSteps, joinStep, mockUpOff, mockUpOn } from '../cut-list/steps.js';
import { PROUD_MM } from '../removal.js';
import { grooveOf, intoTooth, noGroove, type Strategy } from './strategy.js';
import { CUT_WAYS } from './words.js';

/**
 * Through the worn mock-up: it is as thick as the plan adds, so a groove as deep as the need leaves the need. Over a
 * tooth that stands proud of the plan there is none: there the groove is cut into the tooth, as deep as what has to go.
 */
export const mockUp = {
  ...CUT_WAYS[0],
  wish: (r, zone) => {
    if (r.remove.value === 0) return noGroove('No groove: one of the needed depth would stay within the mock-up.');
    if (r.needed === 0)
      return noGroove(
        `No groove: bring the tooth ${r.alignFirst.toFixed(2)} mm into line with the plan and check with the index.`,
      );
    if (r.alignFirst <= PROUD_MM) return grooveOf(r.needed, zone);
    return intoTooth(
      r,
      zone,
      r.least.removedMm,
      `The tooth stands ${r.alignFirst.toFixed(2)} mm proud of the plan: no mock-up covers it, so this groove is cut from the tooth itself.`,
    );
  },
  order: (t) => [
    ...before(t),
    mockUpOn(t),
    ...grooveSteps(t, ['cervical', 'middle', 'incisal', 'edge']),
    mockUpOff(),
    joinStep(t),
    ...edgeStep(t),
    ...afterFace(t),
  ],
} as const satisfies Strategy;
