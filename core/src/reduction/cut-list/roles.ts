import type { Design } from '../../restoration/design.js';
import { type Bur, type BurShape, burId, type Grit } from '../burs/bur.js';
import { type Engagement, engagements } from '../burs/engagement.js';
import { finishes } from '../burs/tray.js';

/**
 * The bur for what is no groove: of those in the tray the one that is in the hand already, or else the first of its
 * shape. Nothing where the tray has none.
 */
export interface Roles {
  /** Joins grooves and cuts planes and walls. */
  readonly join?: Bur | undefined;
  /** Shapes the finish line. */
  readonly finishLine?: Bur | undefined;
  /** Traces the finish line to a depth by its shank. */
  readonly trace?: Engagement | undefined;
  /** Hollows what lies behind. */
  readonly behind?: Bur | undefined;
  readonly contact?: Bur | undefined;
  /** Finishes walls and finish line. */
  readonly smooth?: Bur | undefined;
}

/** Grits to finish with, the finest that is usual first: about 30 µm. Common practice, no source. */
const FINISHING: readonly Grit[] = ['extra-fine', 'fine', 'ultra-fine'];

/**
 * @param inHand burs that the tooth's grooves are cut with, in order
 * @param neckMm what goes at the neck: no groove that traces the finish line is deeper
 */
export function rolesOf(burs: readonly Bur[], inHand: readonly Bur[], design: Design, neckMm: number): Roles {
  const cutting = burs.filter((b) => !finishes(b));
  const known = new Set(inHand.map(burId));
  const first = (shape: BurShape, among: readonly Bur[] = cutting) =>
    among.filter((b) => b.shape === shape).sort((a, b) => Number(known.has(burId(b))) - Number(known.has(burId(a))))[0];
  const join = first('round-end') ?? first('flat-end');
  const finishLine = design.finish.form === 'rounded shoulder' ? (first('flat-end', longOnes(cutting)) ?? join) : join;
  const fine = FINISHING.map((grit) => burs.filter((b) => b.grit === grit)).find((own) =>
    own.some((b) => b.shape === finishLine?.shape),
  );
  return {
    join,
    finishLine,
    trace: cutting
      .filter((b) => b.shape === 'ball')
      .flatMap(engagements)
      .filter((e) => e.depthMm <= neckMm + 1e-9)
      .sort((a, b) => b.depthMm - a.depthMm)[0],
    behind: first('egg'),
    contact: first('needle'),
    smooth: fine?.find((b) => b.shape === finishLine?.shape),
  };
}

/** A short fissure bur cuts no wall. */
const longOnes = (burs: readonly Bur[]) => burs.filter((b) => b.lengthMm > 4);
