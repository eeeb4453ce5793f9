import type { Fdi } from '../teeth/notation.js';
import { madeRoom, type NarrowedSide, setContacts } from './contacts.js';
import type { ExistingArch } from './fit.js';
import { type ContourPlan, type CrownTarget, firstContour } from './plan.js';

/** So tight crowns stand at most after room was made, mm: floss goes through. House value. */
export const FLOSS_MM = 0.02;

/** A crown further out moves with the widths of those before it, and is looked at again. Rows of a side: three at most. */
const PASSES = 3;

/** A plan without crowns that pass into their neighbours, and what narrowing came to. */
export interface RoomMade {
  readonly plan: ContourPlan;
  readonly narrowed: readonly NarrowedSide[];
}

/**
 * Slides crowns outward where one presses into its mesial neighbour, and narrows a row whose last crown would pass into a
 * tooth that stays. Gaps stay as they are.
 */
export function roomAmong(arch: ExistingArch, asked: ContourPlan): RoomMade {
  let plan = asked;
  const taken = { right: 0, left: 0 };
  for (let pass = 0; pass < PASSES; pass++) {
    const made = madeRoom(arch, setContacts(arch, plan, FLOSS_MM, 'pressed').plan, FLOSS_MM);
    plan = made.plan;
    for (const n of made.narrowed) taken[n.side] += n.takenMm;
    if (made.narrowed.length === 0) break;
  }
  const sides = (['right', 'left'] as const).filter((side) => taken[side] > 0);
  return { plan, narrowed: sides.map((side) => ({ side, takenMm: taken[side] })) };
}

/**
 * The crowns of a proposal: a first contour for the targets, with room made among them. The widths add up to the room of
 * the row, but crowns that are fuller than the teeth under them meet their neighbours before it is used up.
 * @param beside crowns that stay in the plan as they are; those of teeth with a target are replaced
 */
export const proposedCrowns = (
  arch: ExistingArch,
  targets: ReadonlyMap<Fdi, CrownTarget>,
  beside: ContourPlan = {},
): RoomMade => roomAmong(arch, { ...beside, ...firstContour(arch, targets) });
