import type { Px } from './calibration.js';
import { FRONT_SD_MM } from './front-sight.js';
import { LANDMARK_KINDS, type LandmarkKind } from './landmarks.js';

/** One landmark that the same hand has set twice. */
export interface Repeat {
  readonly kind: LandmarkKind;
  readonly first: Px;
  readonly second: Px;
}

/** The usual spread counts as so many repeats of one's own. House value. */
const USUAL_COUNTS = 8;

/** How well a hand sets each kind of landmark again, one standard deviation, mm. */
export type Spread = Readonly<Record<LandmarkKind, number>>;

/**
 * The spread of a hand from landmarks that it has set twice, by kind. Two settings differ by √2 of the spread each way
 * (Dahlberg 1940, from memory: s² = Σd² ÷ 2n), so across and down together s² = Σ(dx² + dy²) ÷ 4n; what is usual counts
 * as eight repeats more, so that a few do not say too much.
 * @param mmPerPx the picture's scale
 */
export function spreadLearned(repeats: readonly Repeat[], mmPerPx: number): Spread {
  const out = { ...FRONT_SD_MM } as Record<LandmarkKind, number>;
  for (const kind of LANDMARK_KINDS) {
    const own = repeats.filter((r) => r.kind === kind);
    const squares = own.reduce(
      (sum, { first, second }) => sum + ((first[0] - second[0]) ** 2 + (first[1] - second[1]) ** 2) * mmPerPx ** 2,
      0,
    );
    out[kind] = Math.sqrt((USUAL_COUNTS * FRONT_SD_MM[kind] ** 2 + squares / 4) / (USUAL_COUNTS + own.length));
  }
  return out;
}
