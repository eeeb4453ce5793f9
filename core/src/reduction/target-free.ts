import type { Vec3 } from '../geometry/vec.js';
import { NOTHING_MM } from './removal.js';
import { ANGLES, DIRECTIONS, type Draft, NEAR_FINISH, NECK_ROWS, ROWS, SIDEWAYS } from './target-grid.js';
import { aside, type Ground, wrapTopOf } from './target-ground.js';
import { THINNEST_MM } from './target-rays.js';
import { behindWrap, type InTheWay, inTheWay, type WallPlace, type WayOut, waysOut } from './way-out.js';

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

/** So many directions behind the sides of a way may be covered still: contacts that are broken, a way that is turned. */
const SIDE_ANGLES = 14;

/** Nearer to the axis nothing of a tooth is told well enough to say what has to come out past it, mm. House value. */
const NEEDLE_MM = 0.6;

/** So near the edge nothing is told of it: there a tooth is thin and its corner rounded, mm. House value. */
const OVER_EDGE_MM = 0.6;

/** Where a side is cut further so that all behind it comes out, it is cut further by so much at most, mm. House value. */
const MOST_FREED_MM = 0.25;
/** So many places of the grid may stand in the way before it is told. House value. */
const NOISE_PLACES = 12;
/** Less than this in the way is no reason to look for another way, mm along the wall and in all. House values. */
const LITTLE = { mm: 0.06, sumMm: 4 } as const;
/** The middle of a face is never cut for what lies at its sides: so many directions from each side are. House value. */
const ASIDE_ANGLES = 21;

/** How what is put on comes off again. */
export interface Freed {
  /** In the target's frame. */
  readonly way: Vec3;
  /** By how much its sides still catch on that way, mm along the wall; 0 where they do not. */
  readonly catchesMm: number;
}

/**
 * The way out on which least stands before what is cut behind it, and the sides cut as far as that takes, within bounds:
 * what more would have to go is told and not cut.
 */
export function freeTheSides(g: Ground, d: Draft): Freed {
  const ways = waysOut(g.design, ANGLES);
  const overEdge = ({ place }: InTheWay) => place.z > (g.edge.from[place.vertex % ANGLES] as number) + OVER_EDGE_MM;
  let best: { way: WayOut; found: InTheWay[]; sum: number } | undefined;
  for (const way of ways) {
    const found = [1, -1].flatMap((toFront) => inTheWay(sideColumns(g, d, toFront, way.turn), way, ANGLES));
    const each = found.filter(overEdge).map(({ place, to }) => place.r - to);
    const sum = each.reduce((n, mm) => n + mm, 0);
    if (!best || sum < best.sum) best = { way, found, sum };
    if (sum < LITTLE.sumMm && Math.max(0, ...each) < LITTLE.mm) break;
  }
  const { way, found } = best as NonNullable<typeof best>;
  const left: number[] = [];
  for (const one of found) {
    const { place, to } = one;
    const down = Math.max(THINNEST_MM, to, place.r - MOST_FREED_MM);
    if (overEdge(one)) left.push(down - to);
    if (down < place.r) lowered(d, place.vertex, down, place.u);
  }
  // Single places are noise of the grid.
  left.sort((a, b) => b - a);
  return { way: way.way, catchesMm: left[NOISE_PLACES] ?? 0 };
}

/** The covered places of one side, column by column from the back to the front as a way out sees them. */
function sideColumns(g: Ground, d: Draft, toFront: number, turn: number): WallPlace[][] {
  const wrapTop = wrapTopOf(g);
  // Directions go over the face from the left: a way that is turned to the left has its sides turned with it.
  const first = (toFront === 1 ? 0 : ANGLES / 2 - 1) - turn;
  return Array.from({ length: SIDE_ANGLES + ASIDE_ANGLES }, (_, n): WallPlace[] => {
    const k = (first + toFront * (n - SIDE_ANGLES) + 2 * ANGLES) % ANGLES;
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
