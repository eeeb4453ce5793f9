import { shift, WORLD } from '../geometry/frame.js';
import { bounds, type Mesh, meshInFrame } from '../geometry/mesh.js';
import { signedField } from '../geometry/tree/signed.js';
import type { Fdi } from '../teeth/notation.js';
import { type ExistingArch, toothOf } from './fit.js';
import { withOwnPalatal } from './own-palatal.js';
import { type ContourPlan, crownZenith, plannedTooth, type ToothPlan } from './plan.js';
import { change } from './volume.js';

/** What moving a tooth before it is restored would leave of it, mm³. */
export interface AlignedTooth {
  readonly tooth: Fdi;
  /** Taken from the tooth where it stands. */
  readonly removedMm3: number;
  /** Taken from it after it was moved to where the plan stands. */
  readonly removedAlignedMm3: number;
}

/**
 * From this saving on it is told, mm³ over all planned teeth. House preference: a row that stands straight comes to
 * about 10 by the scan's error and the fit alone.
 */
export const WORTH_MOVING_MM3 = 15;

/**
 * What of each planned tooth would be cut where it stands, and what if it were first moved bodily to the planned
 * crown's place, its zenith on the planned one's level: the same axis, the same arch, no turn. What the movement itself
 * asks of bone, gum and time is not in the figure.
 */
export function alignedFirst(arch: ExistingArch, plan: ContourPlan): AlignedTooth[] {
  return Object.keys(plan)
    .map(Number)
    .filter((tooth) => arch.teeth.has(tooth))
    .map((tooth) => {
      const planned = plannedTooth(arch, plan, tooth);
      const there = toothOf(arch, tooth);
      const then = meshInFrame(planned.mesh, planned.frame);
      const stands = meshInFrame(there.field.mesh, planned.frame);
      // In its own frame, as if that were the planned one's.
      const moved = meshInFrame(
        there.field.mesh,
        shift(there.frame, [0, 0, there.zenithMm + (plan[tooth]?.zenithUpMm ?? 0) - crownZenith(planned.crown)[2]]),
      );
      // A palatal surface that stays the tooth's own moves with it.
      const own = plan[tooth] as ToothPlan;
      const form = plannedTooth(arch, { ...plan, [tooth]: { ...own, palatal: undefined } }, tooth);
      const thenMoved =
        own.palatal === 'own'
          ? withOwnPalatal(meshInFrame(form.mesh, form.frame), form.crown, WORLD, signedField(moved))
          : then;
      const removed = (now: Mesh, planned: Mesh) =>
        change(now, planned, Math.min(bounds(now).max[2], bounds(planned).max[2])).removedMm3;
      return { tooth, removedMm3: removed(stands, then), removedAlignedMm3: removed(moved, thenMoved) };
    });
}
