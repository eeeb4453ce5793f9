import { type LipContext, measureRest, measureSmile } from './lips.js';
import { measureArch } from './occlusal.js';
import { measurePortrait } from './portrait.js';
import type { ViewFigure, ViewReading } from './reading.js';
import { measureSide } from './side.js';

/** Everything that one view tells, apart from the retracted front view, whose measures have an entry of their own. */
export function measureView(r: ViewReading, context: LipContext = {}): ViewFigure[] {
  switch (r.view) {
    case 'portrait-rest':
    case 'portrait-smile':
      return measurePortrait(r);
    case 'close-rest':
      return measureRest(r);
    case 'close-smile':
      return measureSmile(r, context);
    case 'retracted-right':
    case 'retracted-left':
      return measureSide(r);
    case 'upper-occlusal':
    case 'lower-occlusal':
      return measureArch(r).flatMap((t) => [t.offset, ...(t.rotation ? [t.rotation] : [])]);
    default:
      return [];
  }
}
