import { groove } from '../bur.js';
import { noGroove, type Strategy } from './strategy.js';

/** Through the worn mock-up: it is as thick as the plan adds, so a groove as deep as the need leaves the need. */
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
    return groove(r.needed, where);
  },
} as const satisfies Strategy;
