import { groove } from '../bur.js';
import { NOTHING_MM } from '../removal.js';
import { noGroove, type Strategy } from './strategy.js';

/**
 * Through the worn mock-up: it is as thick as the plan adds, so a groove as deep as the need leaves the need. Over a
 * tooth that stands proud of the plan there is none: there the groove is cut into the tooth, as deep as what has to go.
 */
export const mockUp = {
  id: 'mock-up',
  name: 'through the mock-up',
  meaning: 'Groove depth is the needed thickness, cut through the worn mock-up.',
  groove: (r, where) => {
    if (r.remove.value === 0) return noGroove('No groove: one of the needed depth would stay within the mock-up.');
    if (r.needed === 0)
      return noGroove(
        `No groove: bring the tooth ${r.alignFirst.toFixed(2)} mm into line with the plan and check with the index.`,
      );
    if (r.alignFirst <= NOTHING_MM) return groove(r.needed, where);
    const own = groove(r.remove.value, where);
    const first = `The tooth stands ${r.alignFirst.toFixed(2)} mm proud of the plan: no mock-up covers it, so this groove is cut from the tooth itself.`;
    return own.kind === 'cut' ? { ...own, first } : { ...own, why: `${first} ${own.why}` };
  },
} as const satisfies Strategy;
