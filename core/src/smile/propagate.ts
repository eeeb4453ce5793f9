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
 * A figure that follows from points and the scale, with its error to first order: every coordinate is moved a little
 * and the scale changed a little, and what that does to the figure is added up in squares (law of propagation, JCGM
 * 100:2008).
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
    working: explained(working, marks, scale),
  };
}

/**
 * Figures that share most of their points, each with one point of its own, with errors as `propagated` gives them: the
 * shared points are moved once for all.
 * @param shared points that every figure depends on
 * @param own the point of each figure
 * @param of from the shared points, px, what turns an own point into its figure
 */
export function propagatedEach(
  shared: readonly Marked[],
  own: readonly Marked[],
  scale: Figure,
  unit: Figure['unit'],
  working: Working,
  of: (points: readonly Px[], mmPerPx: number) => (p: Px) => number,
): Figure[] {
  const points = shared.map((m): [number, number] => [m.at[0], m.at[1]]);
  const still = of(points, scale.value);
  const values = own.map((m) => still(m.at));
  const squares = own.map((m, i) => {
    const value = values[i] as number;
    const sdPx = m.sdMm / scale.value;
    const bySide = still([m.at[0] + STEP_PX, m.at[1]]) - value;
    const byHeight = still([m.at[0], m.at[1] + STEP_PX]) - value;
    return ((Z95 * sdPx) / STEP_PX) ** 2 * (bySide * bySide + byHeight * byHeight);
  });
  const add = (moved: (p: Px) => number, weight: number) =>
    own.forEach((m, i) => {
      squares[i] = (squares[i] as number) + (weight * (moved(m.at) - (values[i] as number))) ** 2;
    });
  shared.forEach((m, j) => {
    const p = points[j] as [number, number];
    for (const k of [0, 1] as const) {
      const kept = p[k];
      p[k] = kept + STEP_PX;
      add(of(points, scale.value), (Z95 * m.sdMm) / scale.value / STEP_PX);
      p[k] = kept;
    }
  });
  add(of(points, scale.value * (1 + STEP_SCALE)), scale.pm / scale.value / STEP_SCALE);
  const told = explained(working, [...shared, ...own], scale);
  return own.map((_, i) => ({ value: values[i] as number, pm: Math.sqrt(squares[i] as number), unit, working: told }));
}

function explained(working: Working, marks: readonly Marked[], scale: Figure): Working {
  return {
    ...working,
    inputs: [
      ...working.inputs,
      { name: 'scale', value: Math.round(scale.value * 1e5) / 1e5, unit: 'mm/px', source: MEASURED },
      {
        name: 'repeatability of its points (sd)',
        value: [...new Set(marks.map((m) => m.sdMm))].sort().join(', '),
        unit: 'mm',
        source: COMMON_PRACTICE,
      },
    ],
  };
}
