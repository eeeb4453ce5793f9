import { align } from './align.js';
import { margin } from './margin.js';
import { mockUp } from './mock-up.js';
import { planes } from './planes.js';
import type { Strategy } from './strategy.js';

/** The strategies; the first is the default: depth through the mock-up keeps the most enamel (common practice). */
export const STRATEGIES = [mockUp, align, margin, planes] as const;
export type CutFrom = (typeof STRATEGIES)[number]['id'];

/** A strategy by its id. */
export const strategyOf = (id: CutFrom): Strategy => STRATEGIES.find((s) => s.id === id) ?? mockUp;
