import type { Mesh } from '../geometry/mesh.js';
import type { Vec3 } from '../geometry/vec.js';
import type { Fdi, Jaw } from '../teeth/notation.js';
import type { HeightField } from './heights.js';

/** How near a tooth comes to those of the other jaw along the vertical. */
export interface ToothClearance {
  readonly tooth: Fdi;
  /** The tooth of the other jaw that it comes nearest to. */
  readonly against: Fdi;
  /** Least vertical space, mm; negative: the teeth would pass into one another by this. */
  readonly spaceMm: number;
  /** Where, on the upper tooth. */
  readonly at: Vec3;
}

/** Where the lower jaw is carried from the closed bite, mm, in the mouth's coordinates. */
export type JawShift = Vec3;

/**
 * The vertical space between the rows, tooth by tooth of one of them, with the lower jaw carried by `shift` (rounded to
 * whole columns in the plane). Teeth that do not stand across from one of the other row are left out.
 */
export function clearances(
  upper: HeightField,
  lower: HeightField,
  shift: JawShift,
  of: Jaw = 'upper',
): ToothClearance[] {
  const { grid } = upper;
  const di = Math.round(shift[0] / grid.step);
  const dj = Math.round(shift[1] / grid.step);
  const best = new Map<Fdi, { space: number; column: number; against: Fdi }>();
  for (let j = Math.max(0, dj); j < Math.min(grid.nb, grid.nb + dj); j++) {
    for (let i = Math.max(0, di); i < Math.min(grid.na, grid.na + di); i++) {
      const column = j * grid.na + i;
      const from = column - dj * grid.na - di;
      const space = upper.z[column] - lower.z[from] - shift[2];
      if (Number.isNaN(space)) continue;
      const [above, below] = [upper.tooth[column], lower.tooth[from]];
      const [tooth, against] = of === 'upper' ? [above, below] : [below, above];
      const own = best.get(tooth);
      if (!own || space < own.space) best.set(tooth, { space, column, against });
    }
  }
  return [...best].map(([tooth, { space, column, against }]) => ({
    tooth,
    against,
    spaceMm: space,
    at: [grid.a0 + (column % grid.na) * grid.step, grid.b0 + Math.floor(column / grid.na) * grid.step, upper.z[column]],
  }));
}

/**
 * Vertical space under each vertex of an upper surface with the lower jaw carried by `shift`, mm; NaN over no lower
 * tooth.
 */
export function spaceOver(lower: HeightField, upper: Mesh, shift: JawShift): Float32Array {
  return across(lower, upper, [-shift[0], -shift[1]], (own, other) => own - shift[2] - other);
}

/** Vertical space over each vertex of a lower surface that is carried by `shift`, mm; NaN under no upper tooth. */
export function spaceUnder(upper: HeightField, lower: Mesh, shift: JawShift): Float32Array {
  return across(upper, lower, [shift[0], shift[1]], (own, other) => other - own - shift[2]);
}

function across(
  field: HeightField,
  mesh: Mesh,
  by: readonly [number, number],
  space: (own: number, other: number) => number,
): Float32Array {
  const { a0, b0, step, na, nb } = field.grid;
  const out = new Float32Array(mesh.positions.length / 3).fill(Number.NaN);
  for (let v = 0; v < out.length; v++) {
    const i = Math.round((mesh.positions[3 * v] + by[0] - a0) / step);
    const j = Math.round((mesh.positions[3 * v + 1] + by[1] - b0) / step);
    if (i >= 0 && i < na && j >= 0 && j < nb) out[v] = space(mesh.positions[3 * v + 2], field.z[j * na + i]);
  }
  return out;
}

export type Direction = 'forward' | 'right' | 'left';

/** Unit step of a movement in the plane, in the mouth's coordinates (x to the patient's left, y backward). */
const STEPS: Readonly<Record<Direction, readonly [number, number]>> = {
  forward: [0, -1],
  right: [-1, 0],
  left: [1, 0],
};

/** The unit step of a movement. */
export const stepTo = (direction: Direction): readonly [number, number] => STEPS[direction];

/** One place of the lower jaw on its way. */
export interface MovementStep {
  /** Way from the closed bite in the plane, mm. */
  readonly alongMm: number;
  /** How far the jaw opens there, mm. */
  readonly dropMm: number;
  /** Where the jaw is carried, from the scanned closed bite. */
  readonly shift: JawShift;
  readonly teeth: readonly ToothClearance[];
}

export interface Movement {
  readonly direction: Direction;
  readonly steps: readonly MovementStep[];
  /** Slope of the way from the first to the last step against the plane, degrees. */
  readonly angleDeg: number;
}

/**
 * The lower jaw carried along a guidance angle that is set: at each step which teeth would touch or be in the way.
 * The jaw is carried without turning; what a jaw's joints add to it is not in this figure.
 * @param angleDeg below the plane, 0–80
 */
export function alongAngle(
  upper: HeightField,
  lower: HeightField,
  direction: Direction,
  angleDeg: number,
  toMm: number,
  stepMm = 0.5,
): Movement {
  const slope = Math.tan((angleDeg * Math.PI) / 180);
  const start = closing(upper, lower);
  return movement(upper, lower, direction, toMm, stepMm, (along) => start - slope * along);
}

/**
 * The lower jaw carried so that its teeth glide on the upper ones: it opens as far as the first tooth that is met asks.
 */
export function onTheTeeth(
  upper: HeightField,
  lower: HeightField,
  direction: Direction,
  toMm: number,
  stepMm = 0.5,
): Movement {
  return movement(upper, lower, direction, toMm, stepMm, (along) => {
    const [a, b] = STEPS[direction];
    return leastSpace(clearances(upper, lower, [a * along, b * along, 0]));
  });
}

/**
 * How far the lower jaw can still close straight up until the first teeth meet, mm; negative where they already pass
 * into each other.
 */
export function closing(upper: HeightField, lower: HeightField): number {
  return leastSpace(clearances(upper, lower, [0, 0, 0]));
}

const leastSpace = (teeth: readonly ToothClearance[]): number =>
  teeth.reduce((least, t) => Math.min(least, t.spaceMm), Infinity);

function movement(
  upper: HeightField,
  lower: HeightField,
  direction: Direction,
  toMm: number,
  stepMm: number,
  height: (along: number) => number,
): Movement {
  const [a, b] = STEPS[direction];
  const steps: MovementStep[] = [];
  const first = height(0);
  for (let n = 0; n * stepMm <= toMm + 1e-9; n++) {
    const alongMm = n * stepMm;
    const z = height(alongMm);
    const shift: JawShift = [a * alongMm, b * alongMm, z];
    steps.push({ alongMm, dropMm: first - z, shift, teeth: clearances(upper, lower, shift) });
  }
  const last = steps.at(-1) as MovementStep;
  return { direction, steps, angleDeg: last.alongMm > 0 ? (Math.atan2(last.dropMm, last.alongMm) * 180) / Math.PI : 0 };
}

/** Nearer than this teeth count as touching, mm: the scans' error on both sides. House limit. */
export const TOUCH_MM = 0.05;

/** What leads a step of a movement. */
export interface Lead {
  /** Upper teeth that touch or are in the way, the nearest first. */
  readonly touching: readonly Fdi[];
  /** Least space under all other teeth; undefined when there are none over a lower tooth. */
  readonly othersMm: number | undefined;
  /** To a side: the canine of that side touches alone and lifts the others off. Forward: only incisors touch. */
  readonly lifts: boolean;
}

/** Which teeth lead at a step. */
export function leadOf(direction: Direction, step: MovementStep): Lead {
  const sorted = [...step.teeth].sort((p, q) => p.spaceMm - q.spaceMm);
  const touching = sorted.filter((t) => t.spaceMm <= TOUCH_MM).map((t) => t.tooth);
  const others = sorted.filter((t) => t.spaceMm > TOUCH_MM);
  const wanted = direction === 'forward' ? [11, 12, 21, 22] : [direction === 'right' ? 13 : 23];
  return {
    touching,
    othersMm: others[0]?.spaceMm,
    lifts: touching.length > 0 && touching.every((t) => wanted.includes(t)),
  };
}
