import { crown } from '../../contour/crown.js';
import { crownSize } from '../../contour/plan.js';
import { mirroredStroke, requireStroke, type Stroke } from '../../contour/sculpt.js';
import { Refusal } from '../../errors.js';
import type { Fdi } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';

/** Whether a stroke can be taken. @throws Refusal `tooth-missing`, `stroke-not-possible` with the reason */
export function strokeFits(engine: CaseEngine, tooth: Fdi, stroke: Stroke): true {
  const own = engine.contour[tooth];
  if (!own) throw new Refusal('tooth-missing', 'This tooth is not in the plan.', tooth);
  requireStroke(crown(tooth, crownSize(own)), own.strokes ?? [], stroke);
  return true;
}

/** The vertices of a crown are numbered alike whatever its size. */
const ANY_SIZE = { lengthMm: 10, widthMm: 8, facialVolumeMm: 0 };

/** The stroke for the tooth of the other side. */
export const strokeMirrored = (_: CaseEngine, tooth: Fdi, stroke: Stroke): Stroke =>
  mirroredStroke(crown(tooth, ANY_SIZE), stroke);
