import { ANGLES } from '../reduction/target-grid.js';

/** An end is looked for from this far towards the root of the planned line to so far towards the edge, mm. */
export const LOOKED = { root: 1.5, edge: 2.5 } as const;

/** So far a finish line can be drawn by hand, and in so many directions, one after the other around a tooth. */
export const FINISH_LIMITS = { min: -LOOKED.root, max: LOOKED.edge, directions: ANGLES } as const;

/**
 * What a mill's smallest tool can go round, mm of radius: the usual one (common practice, no source), and within what a
 * house may set its own (house limits).
 */
export const CORNER_LIMITS = { usual: 0.2, min: 0.1, max: 1 } as const;
