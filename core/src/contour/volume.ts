import { gridOver, lengthOutside, spans } from '../geometry/columns.js';
import { bounds, type Mesh, meshInFrame } from '../geometry/mesh.js';
import { type ExistingArch, toothOf } from './fit.js';
import type { PlannedTooth } from './plan.js';

/** What a planned crown adds to a tooth and takes from it, mm³. */
export interface VolumeChange {
  readonly addedMm3: number;
  readonly removedMm3: number;
}

const STEP_MM = 0.1;

/**
 * Volume added and removed between the tooth that is there and the planned one, up to the lower of the two zeniths:
 * what lies above is gum or root on one side and nothing on the other. Facio-palatal columns 0.1 mm apart; within 1 %
 * of a solid's difference, or 0.1 mm³.
 */
export function volumeChange(arch: ExistingArch, planned: PlannedTooth): VolumeChange {
  const there = toothOf(arch, planned.tooth);
  const now = meshInFrame(there.field.mesh, planned.frame);
  const then = meshInFrame(planned.mesh, planned.frame);
  const top = Math.min(bounds(now).max[2], bounds(then).max[2]);
  return change(now, then, top);
}

/**
 * Of two closed meshes in one frame: what of the second lies outside the first below `top` in z, and the other way
 * round.
 */
export function change(now: Mesh, then: Mesh, top = Infinity): VolumeChange {
  const [a, b] = [bounds(now), bounds(then)];
  const grid = gridOver(
    [Math.min(a.min[0], b.min[0]), Math.min(a.min[2], b.min[2])],
    [Math.max(a.max[0], b.max[0]), Math.min(top, Math.max(a.max[2], b.max[2]))],
    STEP_MM,
  );
  const axes = [0, 2, 1] as const;
  const [own, other] = [spans(now, axes, grid), spans(then, axes, grid)];
  const none: number[] = [];
  const cell = grid.step * grid.step;
  const under = (column: number) => grid.b0 + Math.floor(column / grid.na) * grid.step <= top;
  let addedMm3 = 0;
  let removedMm3 = 0;
  for (const [column, s] of other) if (under(column)) addedMm3 += cell * lengthOutside(s, own.get(column) ?? none);
  for (const [column, s] of own) if (under(column)) removedMm3 += cell * lengthOutside(s, other.get(column) ?? none);
  return { addedMm3, removedMm3 };
}
