import { COMMON_PRACTICE, type Figure, MEASURED, type Working } from '../working/working.js';
import { type Px, Z95 } from './calibration.js';

/** A place in a photograph and how well the same hand sets it again, one standard deviation in mm. */
export interface Marked {
  readonly at: Px;
  readonly sdMm: number;
}

/** How far a point is moved to see what a figure does, px. */
const STEP_PX = 0.5;
const STEP_SCALE = 1e-3;

/**
 * A figure that follows from points and the scale, with its error to first order: every coordinate is moved a little and the
 * scale changed a little, and what that does to the figure is added up in squares (law of propagation, JCGM 100:2008).
 * @param of the figure from the points, px, and the scale, mm a pixel
 * @param more further independent half-widths of 95 % intervals, in the figure's unit
 */
export function propagated(
  marks: readonly Marked[],
  scale: Figure,
  unit: Figure['unit'],
  working: Working,
  of: (points: readonly Px[], mmPerPx: number) => number,
  more: readonly number[] = [],
): Figure {
  const points = marks.map((m): [number, number] => [m.at[0], m.at[1]]);
  const value = of(points, scale.value);
  let squares = 0;
  marks.forEach((m, i) => {
    const own = points[i] as [number, number];
    const sdPx = m.sdMm / scale.value;
    for (const k of [0, 1] as const) {
      const kept = own[k];
      own[k] = kept + STEP_PX;
      const slope = (of(points, scale.value) - value) / STEP_PX;
      own[k] = kept;
      squares += (Z95 * slope * sdPx) ** 2;
    }
  });
  const byScale = (of(points, scale.value * (1 + STEP_SCALE)) - value) / STEP_SCALE;
  squares += (byScale * (scale.pm / scale.value)) ** 2;
  for (const pm of more) squares += pm * pm;
  return {
    value,
    pm: Math.sqrt(squares),
    unit,
    working: {
      ...working,
      inputs: [
        ...working.inputs,
        { name: 'scale', value: Math.round(scale.value * 1e5) / 1e5, unit: 'mm/px', source: MEASURED },
        { name: 'repeatability of its points (sd)', value: [...new Set(marks.map((m) => m.sdMm))].sort().join(', '), unit: 'mm', source: COMMON_PRACTICE },
      ],
    },
  };
}
