import { align } from './align.js';
import { margin } from './margin.js';
import { mockUp } from './mock-up.js';
import { planes } from './planes.js';
import type { Strategy } from './strategy.js';
import type { CutFrom } from './words.js';

/** The strategies, in the order of CUT_WAYS; the first is the default (common practice). */
export const STRATEGIES = [mockUp, align, margin, planes] as const;

/** A strategy by its id. */
export const strategyOf = (id: CutFrom): Strategy => STRATEGIES.find((s) => s.id === id) ?? mockUp;
