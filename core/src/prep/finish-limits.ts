import { ANGLES } from '../reduction/target-grid.js';

/** An end is looked for from this far towards the root of the planned line to so far towards the edge, mm. */
export const LOOKED = { root: 1.5, edge: 2.5 } as const;

/** So far a finish line can be drawn by hand, and in so many directions, one after the other around a tooth. */
export const FINISH_LIMITS = { min: -LOOKED.root, max: LOOKED.edge, directions: ANGLES } as const;
