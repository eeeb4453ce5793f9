import { meshToArch } from '../contour/arch.js';
import { acrossOf, neighbourhoodOf, openLoops, trianglesAround } from '../geometry/adjacency.js';
import { type Mesh, meshInFrame } from '../geometry/mesh.js';
import type { Jaw } from '../teeth/notation.js';
import { smoothed } from './concavity.js';
import { glimpse } from './glimpse.js';
import { type MouthProposal, mouthFrame } from './mouth-frame.js';
import { insideOut } from './repair.js';
import { rowCurve, rowSight } from './row.js';
import { likeliestRow } from './row-path.js';

/** What a scan looks like at a glimpse. */
export interface JawLike {
  readonly jaw: Jaw;
  /** What was looked at, about as it lies in the mouth; none of what is no jaw, or seen from behind. */
  readonly seen?: Mesh;
}

/** A palate covers the room within the arch; a lower jaw leaves it to the tongue. House limit. */
const PALATE_SHARE = 0.6;
const WHOLE_PALATE = 0.9;
/** Rows of teeth that are so nearly as likely for one jaw as for the other tell nothing. House value. */
const UNSURE_COST = 4;

/**
 * Tells which jaw it is, and about how it lies, by a coarse copy of it. Where it lies is found once more by the whole:
 * scanners leave teeth finer than cheeks, and a coarse copy makes both alike. @param m in mm, mended or not
 */
export function jawLike(m: Mesh): JawLike {
  try {
    const coarse = glimpse(m);
    const { jaw, found } = foundIn(coarse);
    const seen =
      !insideOut(coarse, openLoops(coarse, { across: acrossOf(coarse) })) && meshInFrame(coarse, found.frame);
    return { jaw, ...(seen && { seen }) };
  } catch {
    return { jaw: 'upper' };
  }
}

function foundIn(m: Mesh): { readonly jaw: Jaw; readonly found: MouthProposal } {
  const upper = mouthFrame(m, 'upper');
  return upper.covered > WHOLE_PALATE || isUpperBy(m, upper)
    ? { jaw: 'upper', found: upper }
    : { jaw: 'lower', found: mouthFrame(m, 'lower') };
}

/**
 * Whether a jaw without a whole palate, which is none of a lower jaw, is an upper one: the teeth say it, whose widths
 * from the middle out are those of one jaw and not of the other; and where they can't be told, the palate again.
 */
function isUpperBy(m: Mesh, { frame, covered }: MouthProposal): boolean {
  const mesh = meshToArch('upper', meshInFrame(m, frame));
  const smooth = smoothed(mesh, neighbourhoodOf(mesh, trianglesAround(mesh)));
  const sight = rowSight(smooth.mesh, smooth.normals, rowCurve(smooth.mesh));
  // Turned over it is the same row from its other end, and as likely.
  const cost = (jaw: Jaw) => likeliestRow(sight, jaw, new Set()).cost;
  const by = cost('lower') - cost('upper');
  return Math.abs(by) > UNSURE_COST ? by > 0 : covered > PALATE_SHARE;
}
