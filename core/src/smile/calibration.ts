import { Refusal } from '../errors.js';
import { hypot } from '../geometry/vec.js';
import { COMMON_PRACTICE, type Figure, MEASURED } from '../working/working.js';

/** A place in a photograph: px from the left and from the top of the upright picture. */
export type Px = readonly [number, number];

/** Two points on a scale reference and the millimetres between them. */
export interface Calibration {
  readonly from: Px;
  readonly to: Px;
  readonly mm: number;
}

/** How well a point is set again by the same hand, one standard deviation, mm. Common practice, no source. */
export const LANDMARK_SD_MM = 0.05;

/** Half-width of a 95 % interval in standard deviations. */
export const Z95 = 1.96;

/**
 * The scale of a photograph, mm a pixel, with its error.
 * @throws Refusal `calibration-zero` for a length that is not positive, `points-coincide` for points less than 10 px
 *   apart, `number-invalid` for coordinates that are no numbers
 */
export function scaleOf(c: Calibration): Figure {
  const numbers = [...c.from, ...c.to, c.mm];
  if (!numbers.every(Number.isFinite))
    throw new Refusal('number-invalid', 'A calibration point or length is not a number.', c);
  if (!(c.mm > 0)) throw new Refusal('calibration-zero', 'The length of the scale must be more than 0 mm.', c.mm);
  const px = hypot(c.to[0] - c.from[0], c.to[1] - c.from[1]);
  if (px < 10)
    throw new Refusal('points-coincide', 'The two points of the scale lie at one place; set them further apart.', c);
  const value = c.mm / px;
  // Each end is off by LANDMARK_SD_MM along the scale.
  const relative = (Z95 * Math.SQRT2 * LANDMARK_SD_MM) / c.mm;
  return {
    value,
    pm: value * relative,
    unit: 'mm/px',
    working: {
      formula: 'scale = length ÷ distance of the two points',
      inputs: [
        { name: 'length on the scale', value: c.mm, unit: 'mm', source: MEASURED },
        { name: 'distance in the picture', value: Math.round(px * 10) / 10, unit: 'px', source: MEASURED },
        { name: 'repeatability of a point (sd)', value: LANDMARK_SD_MM, unit: 'mm', source: COMMON_PRACTICE },
      ],
      note: '± covers 95 in 100: 1.96 · √2 · repeatability over the length.',
    },
  };
}
