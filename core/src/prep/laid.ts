import { MADE } from '../contour/scan.js';
import { vertexCount } from '../geometry/mesh.js';
import { hypot } from '../geometry/vec.js';
import { SCAN_PM_MM } from '../working/accuracy.js';
import { madeAround, type SeenField, seenDistances } from './seen.js';

/** How surely a later scan lies on the first one, by teeth that nobody cut. */
export interface Laid {
  readonly teeth: number;
  /** What half of their surface and 95 % of it stay within, mm. */
  readonly medianMm: number;
  readonly mostMm: number;
  /** Half-width of the error of whatever is measured between the two scans, mm. */
  readonly pmMm: number;
  /** It lies too far off to be judged by. */
  readonly doubtful: boolean;
}

/** Beyond this the two scans show two mouths, or one is laid wrongly, mm: half of the surface. House value. */
const DOUBTFUL_MM = 0.12;
/** Without a tooth that was left as it is nothing says how it lies; the error is then taken as, mm. House value. */
const UNKNOWN_PM_MM = 0.15;

/**
 * Judges how a later scan lies.
 * @param pairs teeth that were not to be cut, in both scans
 * @param seen which vertices of the first scan's tooth count
 */
export function laidOn(
  pairs: readonly {
    readonly before: SeenField;
    readonly after: SeenField;
    readonly seen: (v: number) => boolean;
  }[],
): Laid {
  const off: number[] = [];
  for (const { before, after, seen } of pairs) {
    const d = seenDistances(after, before.mesh.positions);
    const made = madeAround(before);
    for (let v = 0; v < vertexCount(before.mesh); v++)
      if (made[v] === MADE.seen && seen(v) && !Number.isNaN(d[v])) off.push(Math.abs(d[v] as number));
  }
  const own = Math.SQRT2 * SCAN_PM_MM;
  if (off.length === 0)
    return {
      teeth: 0,
      medianMm: Number.NaN,
      mostMm: Number.NaN,
      pmMm: hypot(own, UNKNOWN_PM_MM),
      doubtful: false,
    };
  off.sort((a, b) => a - b);
  const [medianMm, mostMm] = [
    off[Math.floor(0.5 * off.length)] as number,
    off[Math.floor(0.95 * off.length)] as number,
  ];
  return {
    teeth: pairs.length,
    medianMm,
    mostMm,
    pmMm: hypot(own, medianMm),
    doubtful: medianMm > DOUBTFUL_MM,
  };
}
