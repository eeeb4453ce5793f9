import { smoothstep } from '../geometry/curve.js';
import { hypot } from '../geometry/vec.js';
import type { FinishForm, FinishLine } from '../restoration/design.js';

/** The radius that a round-end diamond leaves at a chamfer, mm. Common practice, no source. */
const CHAMFER_MM = 0.3;
/** Inner radius of a rounded shoulder, mm. Common practice, no source. */
const SHOULDER_RADIUS_MM = 0.4;
/** Width of a shoulder's bevel, mm. Common practice, no source. */
const BEVEL_MM = 0.3;
/** Over so much a preparation without a ledge runs out, mm. House value. */
const NO_LEDGE_MM = 2;
/** The tangent of the steepest neck that a finish line is cut square to. House value. */
const STEEPEST = 1.2;
/** Further from the finish line than this its profile has ended, mm. */
const NEAR_END_MM = 3;

/** Halvings of a depth: to a thousandth of a millimetre and less. */
const HALVINGS = 12;

/** Where a place lies: mm below the finish line along the axis, mm from the end at the sides, and how its neck falls away. */
export interface BesideFinish {
  readonly below: number;
  readonly side: number;
  /** Tangent of the angle between the surface and the axis, above 0 where it falls away towards the root. */
  readonly slope: number;
}

/** How a surface falls away whose normal looks so much to the root. */
export const slopeOf = (axial: number): number =>
  Math.max(0, Math.min(STEEPEST, axial / Math.sqrt(Math.max(1e-6, 1 - axial ** 2))));

/**
 * The depth that is cut at a place, ended at the finish line with its form, mm. Where the neck falls away the finish line
 * is cut square to it, as a bur does, and not to the axis: what lies deeper is told from further along it.
 * @param full where nothing ends, mm across the axis
 */
export function endedDepth(form: FinishForm, full: number, { below, side, slope }: BesideFinish): number {
  if (full === 0 || form === 'none') return full;
  const cos = 1 / hypot(1, slope);
  if (slope < 0.02 || below > NEAR_END_MM) return full * profile(form, endedAt(below, side), full);
  const across = full * cos;
  let [low, high] = [0, across];
  for (let i = 0; i < HALVINGS; i++) {
    const p = (low + high) / 2;
    const along = Math.max(1e-6, below / cos - p * slope);
    if (across * profile(form, endedAt(along, side), across) > p) low = p;
    else high = p;
  }
  return low / cos;
}

/**
 * The same where a finish line has other forms at the sides and behind: one runs into the next.
 * @param front how much the place looks to the front, 1 straight, −1 backward
 */
export function endedAround(finish: FinishLine, front: number, full: number, at: BesideFinish): number {
  const { form, sides = form, behind = form } = finish;
  if (sides === form && behind === form) return endedDepth(form, full, at);
  const other = front >= 0 ? form : behind;
  const part = smoothstep(RUNS_OVER.from, RUNS_OVER.to, Math.abs(front));
  const [side, end] = [part < 1 ? endedDepth(sides, full, at) : 0, part > 0 ? endedDepth(other, full, at) : 0];
  return side + part * (end - side);
}

/** Where the sides' form runs into that of front and back: the sine of how far a place looks there. House values. */
const RUNS_OVER = { from: 0.2, to: 0.6 } as const;

/** mm from where the covered part ends, below the finish line and beside the contacts, without a corner between. */
function endedAt(below: number, side: number): number {
  const [near, far] = below < side ? [below, side] : [side, below];
  // Where the other end is far off it makes less than a ten-thousandth.
  if (far > 8 * near) return near;
  // (below⁻⁴ + side⁻⁴)⁻¹ᐟ⁴ without powers, which take most of the time here.
  const [b, s] = [below * below, side * side];
  return Math.sqrt((b * s) / Math.sqrt(b * b + s * s));
}

/** How much of the depth there is at a distance from the finish line, by its form. */
function profile(form: FinishForm, s: number, depth: number): number {
  if (form === 'none') return 1;
  if (form === 'no ledge') return smoothstep(0, NO_LEDGE_MM, s);
  // Up to the bevel's width it goes in as far as it goes on; behind it the shoulder begins.
  if (form === 'bevelled shoulder') {
    const bevel = Math.min(BEVEL_MM, depth / 2);
    return s < bevel
      ? s / depth
      : bevel / depth + (1 - bevel / depth) * profile('rounded shoulder', s - bevel, depth - bevel);
  }
  if (form === 'rounded chamfer') return quarter(s / Math.max(CHAMFER_MM, depth));
  const radius = Math.min(depth, SHOULDER_RADIUS_MM);
  return 1 - radius / depth + (radius / depth) * quarter(s / radius);
}

/** A quarter of a circle from 0 to 1. */
const quarter = (t: number): number => (t >= 1 ? 1 : Math.sqrt(1 - (1 - t) ** 2));
