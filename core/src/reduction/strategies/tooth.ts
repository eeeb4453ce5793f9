import { groove } from '../bur.js';
import { noGroove, type Strategy } from './strategy.js';

/** From the bare tooth: the groove is as deep as what has to go. */
export const tooth = {
  id: 'tooth',
  name: 'from the tooth',
  meaning: 'Groove depth is the removal, cut into the bare tooth.',
  groove: (r, where) => (r.remove.value === 0 ? noGroove('Nothing to cut.') : groove(r.remove.value, where)),
} as const satisfies Strategy;
