import { MEASURED } from '../working/working.js';
import type { Px } from './calibration.js';
import { propagated } from './propagate.js';
import { along, directionDeg, marksOf, sightOf, type ViewFigure, type ViewReading } from './reading.js';

/**
 * Overjet from a side view: how far the upper edge stands in front of the lower incisor, along the plane through the
 * upper canine's and premolar's tips. What the view's own turn from the true side hides is not put back.
 */
export function measureSide(r: ViewReading): ViewFigure[] {
  const marks = marksOf(r, ['plane-front', 'plane-back', 'upper-edge', 'lower-facial']);
  if (!marks) return [];
  const figure = propagated(
    marks,
    sightOf(r),
    'mm',
    {
      formula: 'upper edge to the facial surface of the lower incisor, along the plane of the cusps',
      inputs: [{ name: 'four points', value: 'marked', unit: '', source: MEASURED }],
    },
    ([front, back, upper, lower], mm) => along(upper as Px, lower as Px, directionDeg(back as Px, front as Px))[0] * mm,
  );
  return [{ id: 'overjet', name: 'overjet', figure }];
}
