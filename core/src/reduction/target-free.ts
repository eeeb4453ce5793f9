import { hypot, type Vec3 } from '../geometry/vec.js';
import { blockOut } from './block-out.js';
import { NOTHING_MM } from './removal.js';
import { ANGLES, CAP_ROWS, DIRECTIONS, type Draft, NEAR_FINISH, NECK_ROWS, ROWS, SIDEWAYS } from './target-grid.js';
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
      const r = hypot(d.left[3 * i] as number, d.left[3 * i + 1] as number);
      const to = Math.max(THINNEST_MM, behindWrap(above, down, u, r));
      if (to < r) lowered(d, i, to, u);
    }
  }
}

/** Rounds of evening out, each over the places beside, above and below. House value. */
const EVEN_ROUNDS = 6;

/**
 * What is cut behind the edge is told place by place of a wall that lies at a slant to the axis; a bur leaves it even.
 * Only what is cut is evened, and to no less than nothing.
 */
export function evenTheBack(g: Ground, d: Draft): void {
  const top = wrapTopOf(g);
  if (top === undefined) return;
  const radius = (of: Float64Array, i: number) => hypot(of[3 * i] as number, of[3 * i + 1] as number);
  const rows = Array.from({ length: ROWS }, (_, row) => row).filter((row) => row >= NECK_ROWS + NEAR_FINISH.length);
  for (let round = 0; round < EVEN_ROUNDS; round++) {
    const to = new Map<number, number>();
    for (const row of rows)
      for (const [k, u] of DIRECTIONS.entries()) {
        const i = row * ANGLES + k;
        if (u[1] < -SIDEWAYS || (d.left[3 * i + 2] as number) >= top || (d.removedMm[i] as number) <= NOTHING_MM)
          continue;
        const beside = [(k + ANGLES - 1) % ANGLES, (k + 1) % ANGLES].map((n) => row * ANGLES + n);
        const over = [i - ANGLES, ...(row + 1 < ROWS ? [i + ANGLES] : [])];
        const cut = [...beside, ...over].filter((n) => (d.removedMm[n] as number) > NOTHING_MM);
        const mean = cut.reduce((sum, n) => sum + radius(d.left, n), 0) / Math.max(1, cut.length);
        if (cut.length > 1) to.set(i, (radius(d.left, i) + mean) / 2);
      }
    for (const [i, r] of to) {
      const whole = radius(d.now, i);
      lowered(d, i, Math.min(whole, Math.max(THINNEST_MM, r)), DIRECTIONS[i % ANGLES] as Vec3);
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
/** Less than this in the way is no reason to look for another way, mm along the wall and in all. House values. */
const LITTLE = { mm: 0.06, sumMm: 4 } as const;
/** The middle of a face is never cut for what lies at its sides: so many directions from each side are. House value. */
const ASIDE_ANGLES = 21;

/**
 * The way out on which least stands before what is cut behind it, and the sides cut as far as that takes, within bounds:
 * where more would have to go, what lies behind is left standing.
 * @returns the way, in the target's frame
 */
export function freeTheSides(g: Ground, d: Draft): Vec3 {
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
  for (const { place, to } of found) {
    const down = Math.max(THINNEST_MM, to, place.r - MOST_FREED_MM);
    if (down < place.r) lowered(d, place.vertex, down, place.u);
  }
  return way.way;
}

/** The covered places of one side, column by column from the back to the front as a way out sees them. */
function sideColumns(g: Ground, d: Draft, toFront: number, turn: number): WallPlace[][] {
  const wrapTop = wrapTopOf(g);
  // Directions go over the face from the left: a way that is turned to the left has its sides turned with it.
  const first = (toFront === 1 ? 0 : ANGLES / 2 - 1) - Math.round(turn);
  return Array.from({ length: SIDE_ANGLES + ASIDE_ANGLES }, (_, n): WallPlace[] => {
    const k = (first + toFront * (n - SIDE_ANGLES) + 2 * ANGLES) % ANGLES;
    const u = DIRECTIONS[k] as Vec3;
    const places: WallPlace[] = [];
    for (let row = NECK_ROWS + 1; row < ROWS; row++) {
      const vertex = row * ANGLES + k;
      const r = hypot(d.left[3 * vertex] as number, d.left[3 * vertex + 1] as number);
      const z = d.left[3 * vertex + 2] as number;
      if (r < NEEDLE_MM) continue;
      if (aside(g, u, r) <= 0 && !(wrapTop !== undefined && z < wrapTop)) continue;
      places.push({ vertex, u, r, z, cut: (d.removedMm[vertex] as number) > NOTHING_MM });
    }
    return places;
  });
}

/** What of a design is hidden on the way out, and left standing. */
export interface Hidden {
  /** By how much less is cut than asked, mm, single places aside. */
  readonly mm: number;
  /** Of the places that were to be cut, those at which less is. */
  readonly share: number;
  /** Where most of it lies, in the frame of the target; no side where nothing is hidden. */
  readonly side?: 'left' | 'right' | 'behind';
  /** The directions from the axis in which the edge's walls moved. */
  readonly rims: readonly number[];
}

export const NOTHING_HIDDEN: Hidden = { mm: 0, share: 0, rims: [] };

/** So many places of the grid may be left standing before it is told: single ones are noise. House value. */
const NOISE_PLACES = 12;
/** The last row of the walls. */
const RIM = (ROWS - 1) * ANGLES;

/**
 * What would still be hidden on the way out is left standing: there less is cut than the design asks, and where nothing
 * is cut nothing is covered either.
 */
export function leaveHidden(d: Draft, way: Vec3): Hidden {
  const wall = { angles: ANGLES, rows: ROWS + CAP_ROWS - 1, at: d.left, directions: DIRECTIONS };
  const whole = (i: number) => hypot(d.now[3 * i] as number, d.now[3 * i + 1] as number);
  const places = { asked: 0, less: 0, left: 0, right: 0, behind: 0 };
  for (let i = 0; i < ROWS * ANGLES; i++) if ((d.removedMm[i] as number) > NOTHING_MM) places.asked++;
  // The edge's cap lies where its walls end, and moves with them.
  const less = blockOut(wall, (i) => (i < ROWS * ANGLES ? whole(i) : 0), way);
  const each: number[] = [];
  for (const [i, mm] of less) {
    const [ux, uy] = DIRECTIONS[i % ANGLES] as Vec3;
    const was = d.removedMm[i] as number;
    const room = whole(i) - hypot(d.left[3 * i] as number, d.left[3 * i + 1] as number);
    const part = Math.max(0, room) / (room + mm);
    d.removedMm[i] = was * part;
    d.alignMm[i] = Math.min(d.alignMm[i] as number, d.removedMm[i] as number);
    const inLine = Math.max(
      hypot(d.left[3 * i] as number, d.left[3 * i + 1] as number),
      hypot(d.aligned[3 * i] as number, d.aligned[3 * i + 1] as number),
    );
    d.aligned.set([inLine * ux, inLine * uy], 3 * i);
    each.push(was * (1 - part));
    if (was * (1 - part) > NOTHING_MM) {
      places.less++;
      places[uy > SIDEWAYS ? 'behind' : ux > 0 ? 'left' : 'right']++;
    }
    if (room > 1e-6) continue;
    d.place[i] = 0;
    d.covered[i] = 0;
  }
  each.sort((a, b) => b - a);
  const rims = [...less.keys()].filter((i) => i >= RIM).map((i) => i - RIM);
  const sides = (['left', 'right', 'behind'] as const).toSorted((a, b) => places[b] - places[a]);
  return {
    mm: each[NOISE_PLACES] ?? 0,
    share: places.less / Math.max(1, places.asked),
    ...(places.less > 0 && { side: sides[0] as 'left' | 'right' | 'behind' }),
    rims,
  };
}

/** Cuts a place of the wall down to a distance from the axis, mm. */
function lowered(d: Draft, i: number, to: number, [ux, uy]: Vec3): void {
  const from = hypot(d.left[3 * i] as number, d.left[3 * i + 1] as number);
  const whole = hypot(d.now[3 * i] as number, d.now[3 * i + 1] as number);
  const slant = whole - from > 1e-9 ? (d.removedMm[i] as number) / (whole - from) : 1;
  d.removedMm[i] = (d.removedMm[i] as number) + (from - to) * slant;
  d.left.set([to * ux, to * uy], 3 * i);
  if (d.place[i] === 0) d.place[i] = -uy > SIDEWAYS ? 1 : 2;
}
