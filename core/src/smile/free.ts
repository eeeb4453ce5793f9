import { Refusal } from '../errors.js';
import { hypot } from '../geometry/vec.js';
import { COMMON_PRACTICE, type Figure, MEASURED } from '../working/working.js';
import { LANDMARK_SD_MM, type Px, Z95 } from './calibration.js';

/** Points closer together than this give no direction, px. */
const APART_PX = 3;

function requireApart(a: Px, b: Px): void {
  if (!(hypot(a[0] - b[0], a[1] - b[1]) >= APART_PX))
    throw new Refusal('points-coincide', 'Two points of a measure lie at one place.', [a, b]);
}

/**
 * A length that a person draws, in the plane of the scale.
 * @throws Refusal `points-coincide`
 */
export function freeLength(a: Px, b: Px, scale: Figure): Figure {
  requireApart(a, b);
  const px = hypot(a[0] - b[0], a[1] - b[1]);
  return {
    value: px * scale.value,
    pm: hypot(Z95 * Math.SQRT2 * LANDMARK_SD_MM, px * scale.pm),
    unit: 'mm',
    working: {
      formula: 'length = distance in the picture × scale',
      inputs: [
        { name: 'distance in the picture', value: Math.round(px * 10) / 10, unit: 'px', source: MEASURED },
        { name: 'scale', value: scale.value, unit: 'mm/px', source: MEASURED },
        { name: 'repeatability of a point (sd)', value: LANDMARK_SD_MM, unit: 'mm', source: COMMON_PRACTICE },
      ],
      note: 'True in the plane of the scale; what lies further back is larger than it looks.',
    },
  };
}

/**
 * An angle that a person draws at `at` between the arms to `a` and `b`, 0 to 180°. Its error is first order: how far
 * each of the three points turns it, the shorter the arm the more.
 * @throws Refusal `points-coincide`
 */
export function freeAngle(a: Px, at: Px, b: Px, scale: Figure): Figure {
  requireApart(a, at);
  requireApart(b, at);
  const arm = (p: Px) => {
    const [x, y] = [(p[0] - at[0]) * scale.value, (p[1] - at[1]) * scale.value];
    const squared = x * x + y * y;
    // What a shift of the point does to the arm's direction, radians a mm.
    return { direction: Math.atan2(y, x), turn: [-y / squared, x / squared] as const, mm: Math.sqrt(squared) };
  };
  const [p, q] = [arm(a), arm(b)];
  const between = Math.abs(q.direction - p.direction);
  const deg = ((between > Math.PI ? 2 * Math.PI - between : between) * 180) / Math.PI;
  const byVertex = hypot(q.turn[0] - p.turn[0], q.turn[1] - p.turn[1]);
  const sd = LANDMARK_SD_MM * hypot(1 / p.mm, 1 / q.mm, byVertex);
  return {
    value: deg,
    pm: (Z95 * sd * 180) / Math.PI,
    unit: '°',
    working: {
      formula: 'angle between the two arms',
      inputs: [
        { name: 'one arm', value: Math.round(p.mm * 10) / 10, unit: 'mm', source: MEASURED },
        { name: 'other arm', value: Math.round(q.mm * 10) / 10, unit: 'mm', source: MEASURED },
        { name: 'repeatability of a point (sd)', value: LANDMARK_SD_MM, unit: 'mm', source: COMMON_PRACTICE },
      ],
    },
  };
}
