import { hypot } from '../geometry/vec.js';
import { type Fdi, opposite, sideOf } from '../teeth/notation.js';
import type { Figure } from '../working/working.js';
import { type Px, Z95 } from './calibration.js';
import { LANDMARK_KINDS, type LandmarkSet, rollOf } from './landmarks.js';
import { measureCantOfCanines } from './portrait.js';
import { directionDeg, type ViewReading, wrapped } from './reading.js';

/** Which line counts as level in a picture of the teeth. */
export interface Level {
  /**
   * `pupils`: the line of the pupils; `alike`: the teeth's own line, which lies as the pupils do as far as can be told;
   * `scan`: the plane of the scanned row; `teeth`: right against left, themselves.
   */
  readonly by: 'pupils' | 'alike' | 'scan' | 'teeth';
  /** How far the picture is rolled against it, degrees, clockwise positive, and the half-width of its 95 % interval. */
  readonly rollDeg: number;
  readonly pmDeg: number;
}

/** What a level is worth, as a sentence for whoever asks how a figure was made. */
export const LEVEL_NOTE: Readonly<Record<Level['by'], string>> = {
  pupils: 'Level is the line of the pupils: portrait and this view are matched by the tips of the canines.',
  alike:
    'Level is the teeth’s own line, right against left: the portrait tells no cant of it against the pupils beyond the error. That error is in the ±.',
  scan: 'Level is the plane of the scanned row; the face may be canted against it.',
  teeth:
    'Relative to the teeth’s own line, right against left: a cant of all of them together does not show. Mark the pupils and the canines’ tips on the portrait in smile to have the face’s level.',
};

/** How well a pair of landmarks is set, one standard deviation, mm; see `FRONT_SD_MM`. */
const PAIR_SD_MM = 0.08;

/** The teeth's own level: from each landmark on the right to its fellow on the left. Undefined without a pair. */
export function levelOfTeeth(set: LandmarkSet, scale: Figure): Level | undefined {
  const rollDeg = rollOf(set);
  if (rollDeg === undefined) return undefined;
  let [reach, pairs] = [0, 0];
  for (const key of Object.keys(set)) {
    const tooth = Number(key);
    if (sideOf(tooth) !== 'right') continue;
    for (const kind of LANDMARK_KINDS) {
      const [a, b] = [set[tooth]?.[kind], set[opposite(tooth)]?.[kind]];
      if (!a || !b) continue;
      reach += hypot(b[0] - a[0], b[1] - a[1]) * scale.value;
      pairs++;
    }
  }
  // The vectors are summed: their lengths add up, their errors in squares.
  const sd = reach > 0 ? (PAIR_SD_MM * Math.sqrt(2 * pairs)) / reach : 0;
  return { by: 'teeth', rollDeg, pmDeg: (Z95 * sd * 180) / Math.PI };
}

/** Which teeth are marked on both views by the same places. */
const COMMON: readonly [right: Fdi, left: Fdi] = [13, 23];
const TIP_SD_MM = 0.1;

/**
 * The level of the face in a retracted front view: the canines' tips are marked on the portrait too, which says how
 * they lie to the pupils. Where the teeth's own line lies as the pupils do within the error it is taken, so that no
 * plan follows the spread of a hand on the portrait. Undefined while either view lacks the tips.
 */
export function levelOfPupils(set: LandmarkSet, scale: Figure, portrait: ViewReading | undefined): Level | undefined {
  const [right, left] = COMMON.map((t) => set[t]?.edge) as [Px | undefined, Px | undefined];
  const cant = portrait && measureCantOfCanines(portrait);
  if (!right || !left || !cant) return undefined;
  const apart = hypot(left[0] - right[0], left[1] - right[1]) * scale.value;
  const tips = (Z95 * Math.SQRT2 * TIP_SD_MM * 180) / (Math.PI * apart);
  const rollDeg = wrapped(directionDeg(right, left) - cant.value);
  const pmDeg = hypot(cant.pm, tips);
  const own = levelOfTeeth(set, scale);
  return own && Math.abs(wrapped(own.rollDeg - rollDeg)) <= pmDeg
    ? { by: 'alike', rollDeg: own.rollDeg, pmDeg }
    : { by: 'pupils', rollDeg, pmDeg };
}
