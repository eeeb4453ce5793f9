import type { FacialThird } from '../teeth/norms.js';
import type { Design } from './design.js';

/**
 * The thirds from the edge upward: where each begins and ends as a share of the crown's height, 0 at the edge, 1 at the
 * zenith.
 */
export const THIRDS: Readonly<
  Record<FacialThird, { readonly from: number; readonly to: number; readonly middle: number }>
> = {
  incisal: { from: 0, to: 1 / 3, middle: 1 / 6 },
  middle: { from: 1 / 3, to: 2 / 3, middle: 1 / 2 },
  cervical: { from: 2 / 3, to: 1, middle: 5 / 6 },
};

/** The third of the planned crown in which a height lies. */
export const thirdAt = (share: number): FacialThird =>
  share > THIRDS.cervical.from ? 'cervical' : share > THIRDS.middle.from ? 'middle' : 'incisal';

/** One value for each third in its middle, the straight line between them, and what is outermost beyond. */
export function overThirds(values: Readonly<Record<FacialThird, number>>, share: number): number {
  const { incisal, middle, cervical } = THIRDS;
  if (share <= incisal.middle) return values.incisal;
  const [from, to, low, high] =
    share < middle.middle
      ? [incisal.middle, middle.middle, values.incisal, values.middle]
      : [middle.middle, cervical.middle, values.middle, values.cervical];
  return share >= cervical.middle ? values.cervical : low + ((high - low) * (share - from)) / (to - from);
}

/**
 * The thickness that a restoration needs across the planned facial surface at a height of the planned crown, mm: the
 * one answer that maps, sections, volumes, documents and the simulated preparation read.
 * @param share of the planned crown's height, 0 at its edge, 1 at its zenith
 */
export const neededAt = (design: Design, share: number): number => overThirds(design.needs, share);

/** A lengthened edge is flattened down to this much of the tooth at most, mm. Common practice, no source. */
export const FLATTEN_MM = 0.3;

/**
 * Where the preparation's edge stands, mm over the planned edge along the planned crown's axis.
 * @param edgeMm where the tooth's own edge stands; below 0 it lies beyond the planned one
 */
export function preparedEdge(design: Design, edgeMm: number): number {
  if (design.edge.kind === 'thickness') return Math.max(edgeMm, design.edge.mm);
  // What stands beyond the plan goes; a longer plan asks for a flat ground at most.
  if (design.edge.kind === 'left') return Math.max(edgeMm, 0);
  return Math.max(edgeMm, Math.min(edgeMm + FLATTEN_MM, FLATTEN_MM));
}
