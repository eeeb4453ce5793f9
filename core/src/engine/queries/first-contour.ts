import { type AlignedTooth, alignedFirst as aligned } from '../../contour/align-first.js';
import { type ContourPlan, type CrownTarget, firstContour as first } from '../../contour/plan.js';
import type { Fdi } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';

/** A first contour of the upper jaw for the given targets. */
export const firstContour = (engine: CaseEngine, targets: readonly (readonly [Fdi, CrownTarget])[]): ContourPlan =>
  first(engine.arch('upper'), new Map(targets));

/** What moving the upper teeth first would save. */
export const alignedFirst = (engine: CaseEngine): AlignedTooth[] => aligned(engine.arch('upper'), engine.contour);
