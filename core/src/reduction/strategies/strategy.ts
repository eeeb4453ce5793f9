import type { GrooveWish } from '../burs/choose.js';
import type { CutStep, ToothCut } from '../cut-list/steps.js';
import { NOTHING_MM, type Removal } from '../removal.js';
import type { Zone } from '../zones.js';

/** A way of bringing the depth into the tooth. One file each; a new one is its file and a line in `index.ts`. */
export interface Strategy {
  readonly id: string;
  /** What is chosen on the screen and named on paper. */
  readonly name: string;
  /** What it means for whoever cuts, in a sentence. */
  readonly meaning: string;
  /** The groove of a zone. */
  readonly wish: (r: Removal, zone: Zone) => GrooveWish;
  /** What is done to a tooth, from the first cut to the polish. */
  readonly order: (t: ToothCut) => readonly CutStep[];
}

/** No groove, and why. */
export const noGroove = (why: string): GrooveWish => ({ kind: 'none', why });

/** A groove of a depth in a zone. */
export const grooveOf = (depthMm: number, zone: Zone, first?: string): GrooveWish => ({
  kind: 'cut',
  depthMm,
  where: zone === 'cervical' || zone === 'edge' ? zone : 'facial',
  ...(first && { first }),
});

/**
 * A groove that is cut into the tooth itself, as deep as what goes at least across the zone: where one side of a tooth has
 * to lose more than the other, one depth for all of its grooves would stay in the shallow side. The rest goes when they
 * are joined.
 */
export function intoTooth(r: Removal, zone: Zone, leastMm = r.least.removedMm, first?: string): GrooveWish {
  if (r.remove.value === 0) return noGroove('Nothing to cut.');
  if (leastMm <= NOTHING_MM)
    return noGroove(
      `No groove: one side has nothing to lose; bring the other ${r.remove.value.toFixed(2)} mm down by the index.`,
    );
  return grooveOf(leastMm, zone, first);
}
