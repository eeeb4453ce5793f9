import type { Frame } from './frame.js';
import { solve } from './solve.js';
import { closestPoints } from './tree/closest.js';
import type { SignedField } from './tree/signed.js';
import { add, length, rotateAbout, scale, type Vec3 } from './vec.js';

export interface AlignOptions {
  readonly iterations: number;
  /** Points further from the surface than this take no part, mm. */
  readonly reachMm: number;
  /** Weight against moving: how many points' worth of pull holds each freedom back (rotations per 5 mm). */
  readonly hold: number;
}

/**
 * Moves a frame so that points fixed in it come to lie on a surface: point-to-plane steps (Chen & Medioni 1992,
 * Image Vision Comput 10:145, from memory), least squares over the points within reach.
 * @param local x, y, z of the points in the frame, mm
 * @returns the moved frame and the root mean square distance left, mm
 */
export function alignFrame(
  local: Float64Array,
  start: Frame,
  surface: SignedField,
  options: AlignOptions,
): { frame: Frame; rmsMm: number } {
  let frame = start;
  let rmsMm = Infinity;
  for (let k = 0; k < options.iterations; k++) {
    const step = oneStep(local, frame, surface, options);
    frame = step.frame;
    rmsMm = step.rmsMm;
  }
  return { frame, rmsMm };
}

function oneStep(
  local: Float64Array,
  frame: Frame,
  surface: SignedField,
  o: AlignOptions,
): { frame: Frame; rmsMm: number } {
  const n = local.length / 3;
  const world = new Float64Array(local.length);
  const { origin: at, x: ex, y: ey, z: ez } = frame;
  for (let i = 0; i < 3 * n; i += 3) {
    const u = local[i];
    const v = local[i + 1];
    const w = local[i + 2];
    for (let k = 0; k < 3; k++) world[i + k] = at[k as 0] + u * ex[k as 0] + v * ey[k as 0] + w * ez[k as 0];
  }
  const near = closestPoints(surface.tree, world);
  // The lower triangle of the normal equations, row by row, in flat arrays: this runs some thousand times a scan.
  const sums = new Float64Array(36);
  const right = new Float64Array(6);
  const row = new Float64Array(6);
  let used = 0;
  let squares = 0;
  for (let i = 0; i < n; i++) {
    if (near.distances[i] > o.reachMm) continue;
    const j = 3 * i;
    const f = 3 * near.faces[i];
    const a = surface.faceNormals[f];
    const b = surface.faceNormals[f + 1];
    const c = surface.faceNormals[f + 2];
    const residual =
      a * (world[j] - near.points[j]) +
      b * (world[j + 1] - near.points[j + 1]) +
      c * (world[j + 2] - near.points[j + 2]);
    const u = world[j] - at[0];
    const v = world[j + 1] - at[1];
    const w = world[j + 2] - at[2];
    row[0] = v * c - w * b;
    row[1] = w * a - u * c;
    row[2] = u * b - v * a;
    row[3] = a;
    row[4] = b;
    row[5] = c;
    for (let r = 0; r < 6; r++) {
      right[r] = right[r] - row[r] * residual;
      for (let q = 0; q <= r; q++) sums[6 * r + q] = sums[6 * r + q] + row[r] * row[q];
    }
    used++;
    squares += residual * residual;
  }
  if (used < 6) return { frame, rmsMm: Infinity };
  const ata = Array.from({ length: 6 }, (_, r) =>
    Array.from(
      { length: 6 },
      (_, q) => sums[6 * Math.max(r, q) + Math.min(r, q)] + (r === q ? o.hold * (r < 3 ? 25 : 1) : 0),
    ),
  );
  const x = solve(ata, [...right]) as [number, number, number, number, number, number];
  return { frame: moved(frame, [x[0], x[1], x[2]], [x[3], x[4], x[5]]), rmsMm: Math.sqrt(squares / used) };
}

function moved(f: Frame, turn: Vec3, by: Vec3): Frame {
  const angle = length(turn);
  const origin = add(f.origin, by);
  if (angle === 0) return { ...f, origin };
  const axis = scale(turn, 1 / angle);
  const deg = (angle * 180) / Math.PI;
  return { origin, x: rotateAbout(f.x, axis, deg), y: rotateAbout(f.y, axis, deg), z: rotateAbout(f.z, axis, deg) };
}
