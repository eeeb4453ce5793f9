import type { Vec3 } from '../geometry/vec.js';
import { NOTHING_MM } from './removal.js';
import { ANGLES, DIRECTIONS, type Draft, NEAR_FINISH, NECK_ROWS, ROWS, SIDEWAYS } from './target-grid.js';
import { aside, type Ground, wrapTopOf } from './target-ground.js';
import { THINNEST_MM } from './target-rays.js';
import { behindWrap, clearWayOut, type WallPlace, wayOut } from './way-out.js';

/** A direction looks to the back from here on: nearer to the sides a wall is no back any more. House value. */
const BACKWARD = 0.1;

/** The back of what goes over the edge is cut as far as its way out takes, row by row towards the edge. */
export function freeTheBack(g: Ground, d: Draft): void {
  const top = wrapTopOf(g);
  if (top === undefined) return;
  const backward = DIRECTIONS.flatMap((u, k) => (u[1] > BACKWARD ? [k] : []));
  const places = (row: number) =>
    backward.map((k) => {
      const v = 3 * (row * ANGLES + k);
      return [d.left[v] as number, d.left[v + 1] as number] as const;
    });
  const heightOf = (row: number) => d.left[3 * (row * ANGLES + (backward[0] as number)) + 2] as number;
  for (let row = NECK_ROWS + NEAR_FINISH.length; row < ROWS; row++) {
    if (heightOf(row) >= top) continue;
    const [above, down] = [places(row - 1), heightOf(row - 1) - heightOf(row)];
    for (const k of backward) {
      const [i, u] = [row * ANGLES + k, DIRECTIONS[k] as Vec3];
      const r = Math.hypot(d.left[3 * i] as number, d.left[3 * i + 1] as number);
      const to = Math.max(THINNEST_MM, behindWrap(above, down, u, r));
      if (to < r) lowered(d, i, to, u);
    }
  }
}

/** So many directions behind the sides may be covered still: contacts that are broken. */
const SIDE_ANGLES = 5;

/** Nearer to the axis nothing of a tooth is told well enough to say what has to come out past it, mm. House value. */
const NEEDLE_MM = 0.6;

/** The walls of both sides are cut as far as the way out of what is put on from the front takes. */
export function freeTheSides(g: Ground, d: Draft): void {
  const wrapTop = wrapTopOf(g);
  for (const toFront of [1, -1]) {
    const first = toFront === 1 ? 0 : ANGLES / 2 - 1;
    const columns = Array.from({ length: SIDE_ANGLES + ANGLES / 4 }, (_, n): WallPlace[] => {
      const k = (first + toFront * (n - SIDE_ANGLES) + ANGLES) % ANGLES;
      const u = DIRECTIONS[k] as Vec3;
      const places: WallPlace[] = [];
      for (let row = NECK_ROWS + 1; row < ROWS; row++) {
        const vertex = row * ANGLES + k;
        const r = Math.hypot(d.left[3 * vertex] as number, d.left[3 * vertex + 1] as number);
        const z = d.left[3 * vertex + 2] as number;
        if (r < NEEDLE_MM) continue;
        if (aside(g, u, r) <= 0 && !(wrapTop !== undefined && z < wrapTop)) continue;
        places.push({ vertex, u, r, z, cut: (d.removedMm[vertex] as number) > NOTHING_MM });
      }
      return places;
    });
    clearWayOut(columns, wayOut(g.design), (p, to) => lowered(d, p.vertex, Math.max(THINNEST_MM, to), p.u));
  }
}

/** Cuts a place of the wall down to a distance from the axis, mm. */
function lowered(d: Draft, i: number, to: number, [ux, uy]: Vec3): void {
  const from = Math.hypot(d.left[3 * i] as number, d.left[3 * i + 1] as number);
  const whole = Math.hypot(d.now[3 * i] as number, d.now[3 * i + 1] as number);
  const slant = whole - from > 1e-9 ? (d.removedMm[i] as number) / (whole - from) : 1;
  d.removedMm[i] = (d.removedMm[i] as number) + (from - to) * slant;
  d.left.set([to * ux, to * uy], 3 * i);
  if (d.place[i] === 0) d.place[i] = -uy > SIDEWAYS ? 1 : 2;
}
