import { Refusal } from '../errors.js';
import { hypot } from '../geometry/vec.js';
import type { Px } from '../smile/calibration.js';
import type { FrontSeries } from './schools.js';

/**
 * Borders between the teeth of a smile that is liked, from the distal of one canine to the distal of the other, in
 * order.
 */
export const LIKED_BORDERS: readonly string[] = [
  'distal side of the canine on the left of the picture',
  'canine and lateral',
  'lateral and central',
  'between the centrals',
  'central and lateral',
  'lateral and canine',
  'distal side of the canine on the right of the picture',
];

/**
 * The proportions of a smile from the borders of its six front teeth, both sides together: each tooth's share of the
 * one before it, as seen from the front. No scale is needed, and a picture that is turned or mirrored gives the same.
 * @param borders seven places, px, in the order of LIKED_BORDERS
 * @throws Refusal `landmark-outside` for a wrong count, or borders that do not follow each other along the row
 */
export function likedSeries(borders: readonly Px[]): FrontSeries {
  if (borders.length !== LIKED_BORDERS.length)
    throw new Refusal(
      'landmark-outside',
      `Seven borders are needed, from canine to canine; there are ${borders.length}.`,
      borders.length,
    );
  const [first, last] = [borders[0] as Px, borders.at(-1) as Px];
  const length = hypot(last[0] - first[0], last[1] - first[1]);
  const along = borders.map(
    (p) => ((p[0] - first[0]) * (last[0] - first[0]) + (p[1] - first[1]) * (last[1] - first[1])) / (length || 1),
  );
  const widths = along.slice(1).map((v, i) => v - (along[i] as number));
  if (widths.some((w) => !(w > 0)))
    throw new Refusal('landmark-outside', 'The borders do not follow each other along the row of teeth.', widths);
  const both = (i: number) => (widths[i] as number) + (widths[5 - i] as number);
  return { lateral: both(1) / both(2), canine: both(0) / both(1) };
}
