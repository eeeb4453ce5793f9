import { shift, WORLD } from '../geometry/frame.js';
import { bounds, type Mesh, meshInFrame } from '../geometry/mesh.js';
import { signedField } from '../geometry/tree/signed.js';
import type { Fdi } from '../teeth/notation.js';
import type { Crown } from './crown.js';
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

/** A tooth and its planned crown, where it stands and after it was moved, all in the planned crown's own frame. */
export interface BeforeAndAfter {
  readonly tooth: Fdi;
  readonly stands: Mesh;
  readonly planned: Mesh;
  readonly moved: Mesh;
  /** The planned crown over the moved tooth: a palatal surface that stays the tooth's own moves with it. */
  readonly plannedMoved: Mesh;
  readonly crown: Crown;
}

/**
 * Each planned tooth where it stands, and moved bodily to the planned crown's place, its zenith on the planned one's
 * level: the same axis, the same arch, no turn.
 */
export function movedInto(arch: ExistingArch, plan: ContourPlan): BeforeAndAfter[] {
  return Object.keys(plan)
    .map(Number)
    .filter((tooth) => arch.teeth.has(tooth))
    .map((tooth) => {
      const planned = plannedTooth(arch, plan, tooth);
      const there = toothOf(arch, tooth);
      const then = meshInFrame(planned.mesh, planned.frame);
      // In its own frame, as if that were the planned one's.
      const moved = meshInFrame(
        there.field.mesh,
        shift(there.frame, [0, 0, there.zenithMm + (plan[tooth]?.zenithUpMm ?? 0) - crownZenith(planned.crown)[2]]),
      );
      const own = plan[tooth] as ToothPlan;
      const form = plannedTooth(arch, { ...plan, [tooth]: { ...own, palatal: undefined } }, tooth);
      return {
        tooth,
        stands: meshInFrame(there.field.mesh, planned.frame),
        planned: then,
        moved,
        plannedMoved:
          own.palatal === 'own'
            ? withOwnPalatal(meshInFrame(form.mesh, form.frame), form.crown, WORLD, signedField(moved))
            : then,
        crown: planned.crown,
      };
    });
}

/**
 * What of each planned tooth would be cut where it stands, and what if it were first moved to the planned crown's
 * place. What the movement itself asks of bone, gum and time is not in the figure.
 */
export function alignedFirst(arch: ExistingArch, plan: ContourPlan): AlignedTooth[] {
  return movedInto(arch, plan).map(({ tooth, stands, planned, moved, plannedMoved }) => ({
    tooth,
    removedMm3: removedBetween(stands, planned),
    removedAlignedMm3: removedBetween(moved, plannedMoved),
  }));
}

/** What a planned crown takes off a tooth as far as both reach, mm³. */
export const removedBetween = (now: Mesh, planned: Mesh): number =>
  change(now, planned, Math.min(bounds(now).max[2], bounds(planned).max[2])).removedMm3;
