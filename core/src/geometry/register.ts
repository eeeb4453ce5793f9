import { type Frame, toParent } from './frame.js';
import { solve } from './solve.js';
import { closestPoints } from './tree/closest.js';
import type { SignedField } from './tree/signed.js';
import { add, cross, length, rotateAbout, scale, sub, type Vec3 } from './vec.js';

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
  for (let i = 0; i < n; i++) world.set(toParent(frame, [local[3 * i], local[3 * i + 1], local[3 * i + 2]]), 3 * i);
  const near = closestPoints(surface.tree, world);
  const ata = Array.from({ length: 6 }, () => new Array<number>(6).fill(0));
  const atb = new Array<number>(6).fill(0);
  let used = 0;
  let squares = 0;
  for (let i = 0; i < n; i++) {
    if (near.distances[i] > o.reachMm) continue;
    const p: Vec3 = [world[3 * i], world[3 * i + 1], world[3 * i + 2]];
    const q: Vec3 = [near.points[3 * i], near.points[3 * i + 1], near.points[3 * i + 2]];
    const f = 3 * near.faces[i];
    const normal: Vec3 = [surface.faceNormals[f], surface.faceNormals[f + 1], surface.faceNormals[f + 2]];
    const d = sub(p, q);
    const residual = normal[0] * d[0] + normal[1] * d[1] + normal[2] * d[2];
    const row = [...cross(sub(p, frame.origin), normal), ...normal];
    for (let r = 0; r < 6; r++) {
      atb[r] = atb[r] - row[r] * residual;
      for (let c = 0; c < 6; c++) (ata[r] as number[])[c] = (ata[r] as number[])[c] + row[r] * row[c];
    }
    used++;
    squares += residual * residual;
  }
  if (used < 6) return { frame, rmsMm: Infinity };
  for (let r = 0; r < 6; r++) (ata[r] as number[])[r] = (ata[r] as number[])[r] + o.hold * (r < 3 ? 25 : 1);
  const x = solve(ata, atb) as [number, number, number, number, number, number];
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
