import { Refusal } from '../errors.js';
import type { Px } from './calibration.js';

/** A turn, one enlargement and a shift: x′ = a·x − b·y + tx, y′ = b·x + a·y + ty. */
export interface Similarity {
  readonly a: number;
  readonly b: number;
  readonly tx: number;
  readonly ty: number;
}

/**
 * The similarity that lays two points of one picture onto two of another.
 * @throws Refusal `points-coincide` for two points of a picture at one place
 */
export function alignOnTwo(from: readonly [Px, Px], to: readonly [Px, Px]): Similarity {
  const [px, py] = [from[1][0] - from[0][0], from[1][1] - from[0][1]];
  const [qx, qy] = [to[1][0] - to[0][0], to[1][1] - to[0][1]];
  const l = px * px + py * py;
  if (l < 9 || qx * qx + qy * qy < 9)
    throw new Refusal('points-coincide', 'The two points of a picture lie at one place; set them further apart.', from);
  const a = (px * qx + py * qy) / l;
  const b = (px * qy - py * qx) / l;
  return { a, b, tx: to[0][0] - a * from[0][0] + b * from[0][1], ty: to[0][1] - b * from[0][0] - a * from[0][1] };
}

/** The point where the similarity lays it. */
export const moved = (s: Similarity, p: Px): Px => [s.a * p[0] - s.b * p[1] + s.tx, s.b * p[0] + s.a * p[1] + s.ty];
