import { type Frame, shift, toLocal, toParent, WORLD } from '../geometry/frame.js';
import { bounds, type Mesh, meshInFrame } from '../geometry/mesh.js';
import { signedField } from '../geometry/tree/signed.js';
import { distance, dot } from '../geometry/vec.js';
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
  /** From where to where the moved tooth's own crown reaches along the axis, over the planned edge, mm. */
  readonly movedSpan: { readonly edge: number; readonly zenith: number };
  /** How far the middle of the crown moves, mm, and by how much the tooth turns in all, degrees. */
  readonly byMm: number;
  readonly byDeg: number;
}

/** Each planned tooth where it stands, and moved. */
export const movedInto = (arch: ExistingArch, plan: ContourPlan): BeforeAndAfter[] =>
  Object.keys(plan)
    .map(Number)
    .filter((tooth) => arch.teeth.has(tooth))
    .map((tooth) => movedTooth(arch, plan, tooth));

/**
 * A planned tooth where it stands, and moved bodily to the planned crown's place, its zenith on the planned one's level:
 * the same axis, the same arch, no turn. @throws Refusal `tooth-missing` where the plan or the scan does not have it
 */
export function movedTooth(arch: ExistingArch, plan: ContourPlan, tooth: Fdi): BeforeAndAfter {
  const planned = plannedTooth(arch, plan, tooth);
  const there = toothOf(arch, tooth);
  const own = plan[tooth] as ToothPlan;
  const then = meshInFrame(planned.mesh, planned.frame);
  // In its own frame, as if that were the planned one's.
  const up = there.zenithMm + (own.zenithUpMm ?? 0) - crownZenith(planned.crown)[2];
  const ownPlace = shift(there.frame, [0, 0, up]);
  const moved = meshInFrame(there.field.mesh, ownPlace);
  const form = plannedTooth(arch, { ...plan, [tooth]: { ...own, palatal: undefined } }, tooth);
  const middle = toParent(there.frame, [0, 0, there.lengthMm / 2]);
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
    movedSpan: { edge: -up, zenith: there.lengthMm - up },
    byMm: distance(toLocal(planned.frame, middle), toLocal(ownPlace, middle)),
    byDeg: turnBetween(planned.frame, there.frame),
  };
}

/** The angle of the turn that takes one frame's axes to another's, degrees: by the trace of its matrix. */
function turnBetween(a: Frame, b: Frame): number {
  const trace = dot(a.x, b.x) + dot(a.y, b.y) + dot(a.z, b.z);
  return (Math.acos(Math.max(-1, Math.min(1, (trace - 1) / 2))) * 180) / Math.PI;
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
