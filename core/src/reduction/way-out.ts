import { hypot, type Vec3 } from '../geometry/vec.js';
import type { Design } from '../restoration/design.js';

/** Angles of ways out, degrees from straight to the front down to the edge, the first tried first. House values. */
const TILTS = {
  /** The edge stays: to the front. */
  face: [0, 30],
  /** The edge is cut: to the front and the edge. */
  edge: [30, 60],
  /** Over the edge and down behind it: nearly along the axis. */
  wrap: [68],
} as const;
/** Turns of a way out about the axis that are tried, in steps of the directions about it. House values. */
const TURNS = [0, 6, -6] as const;

/** A way on which a restoration comes off its tooth. */
export interface WayOut {
  /** In the target's frame, a unit vector. */
  readonly way: Vec3;
  /** By how many of the directions about the axis it is turned from straight to the front. */
  readonly turn: number;
}

const tilted = (deg: number, turn: number, angles: number): WayOut => {
  const [t, a] = [(deg * Math.PI) / 180, (2 * Math.PI * turn) / angles];
  return { way: [Math.cos(t) * Math.sin(a), -Math.cos(t) * Math.cos(a), -Math.sin(t)], turn };
};

/**
 * The ways on which a restoration may come off its tooth, the usual one first: a crown along the axis, a veneer to the
 * front, one whose edge is cut to the front and the edge, one that goes over it nearly along the axis; a single unit may
 * be turned as it needs. Common practice, no source. One that is set by hand is the only one.
 * @param angles of a whole turn
 */
export function waysOut({ kind, wrap, edge, way }: Design, angles: number): readonly [WayOut, ...WayOut[]] {
  if (way) return [tilted(way.downDeg, (way.leftDeg * angles) / 360, angles)];
  if (kind === 'crown') return [{ way: [0, 0, -1], turn: 0 }];
  const tilts = wrap ? TILTS.wrap : edge.kind === 'thickness' ? TILTS.edge : TILTS.face;
  const [first, ...others] = tilts.flatMap((deg) => TURNS.map((turn) => tilted(deg, turn, angles)));
  return [first as WayOut, ...others];
}

/** A way out in degrees: from straight to the front down to the edge, and to the distal side. */
export interface WayTold {
  readonly downDeg: number;
  readonly turnDeg: number;
}

/** @param distal 1 where x of its frame goes to the tooth's distal side, −1 where to the mesial one */
export const wayTold = ([x, y, z]: Vec3, distal: 1 | -1): WayTold => ({
  downDeg: (Math.asin(Math.max(-1, Math.min(1, -z))) * 180) / Math.PI,
  turnDeg: (distal * Math.atan2(x, -y) * 180) / Math.PI,
});

/** A way out in words. */
export function wayWords({ downDeg, turnDeg }: WayTold): string {
  if (downDeg > 89) return 'along the axis';
  const way = downDeg < 1 ? 'straight to the front' : `${downDeg.toFixed(0)}° from the front down to the edge`;
  const side = turnDeg > 0 ? 'distal' : 'mesial';
  return Math.abs(turnDeg) < 1 ? way : `${way}, turned ${Math.abs(turnDeg).toFixed(0)}° to the ${side} side`;
}

/** Lean of the sides of a veneer towards its way out: the tangent of 3°. House value. */
const SIDE_LEAN = Math.tan((3 * Math.PI) / 180);

/** How much a wall falls away backward on the way out of what goes over the edge, mm for each mm along the axis. */
const WRAP_LEAN = Math.tan(((90 - TILTS.wrap[0]) * Math.PI) / 180);

/**
 * How far from the axis a place behind the edge may stand under the row above, so that what goes over the edge comes off:
 * the back of a tooth is flat, and its wall has to lean backward whatever the direction from the axis.
 * @param above the back of that row, from one side to the other: x and y of each place; `down` how far it lies above, mm
 */
export function behindWrap(above: readonly (readonly [number, number])[], down: number, u: Vec3, r: number): number {
  const back = (x: number): number | undefined => {
    for (let i = 1; i < above.length; i++) {
      const [[x0, y0], [x1, y1]] = [above[i - 1], above[i]] as [readonly [number, number], readonly [number, number]];
      if ((x0 - x) * (x1 - x) <= 0 && x0 !== x1) return y0 + ((y1 - y0) * (x - x0)) / (x1 - x0);
    }
    return undefined;
  };
  const over = (at: number): boolean => {
    const y = back(at * u[0]);
    return y !== undefined && at * u[1] > y - (WRAP_LEAN + BACK_SPARE) * down;
  };
  if (!over(r)) return r;
  let [low, high] = [0, r];
  for (let i = 0; i < 16; i++) {
    const middle = (low + high) / 2;
    if (over(middle)) high = middle;
    else low = middle;
  }
  return low;
}

/** A little more than just parallel to the way out: the tangent of 2°. House value. */
const BACK_SPARE = Math.tan((2 * Math.PI) / 180);

/** A place of a wall: mm from the axis in a direction across it, at a height. */
export interface WallPlace {
  readonly vertex: number;
  readonly u: Vec3;
  readonly r: number;
  readonly z: number;
  /** Where nothing is cut nothing lies behind that would have to come out. */
  readonly cut: boolean;
}

/** Levels on which what lies behind is kept, mm apart. */
const LEVEL_MM = 0.02;
/** The levels begin so far below, mm, and there are so many. */
const LOWEST_MM = -30;
const LEVELS = 4000;

/**
 * What is put on from the front must not hang over at the sides: every place of a side stands a little less far out than
 * what is cut behind it on the same way out, between the places too.
 * @param columns of one side from the back to the front, each from the neck to the edge
 * @returns the places that stand too far out, and how far from the axis each may stand, mm
 */
export function inTheWay(
  columns: readonly (readonly WallPlace[])[],
  { way, turn }: WayOut,
  angles: number,
): InTheWay[] {
  // Told in the way's own directions. Places on one line of it share a level.
  const a = (2 * Math.PI * turn) / angles;
  const [cos, sin] = [Math.cos(a), Math.sin(a)];
  const tilt = way[2] / -hypot(way[0], way[1]);
  const limit = new Float64Array(LEVELS).fill(Infinity);
  const found: InTheWay[] = [];
  for (const column of columns) {
    const own = column.map((p) => {
      const [ux, uy] = [cos * p.u[0] + sin * p.u[1], cos * p.u[1] - sin * p.u[0]];
      const across = Math.max(1e-9, Math.abs(ux) - SIDE_LEAN * uy);
      const level = (p.z - p.r * uy * tilt - LOWEST_MM) / LEVEL_MM;
      const most = Math.min(limit[Math.floor(level)] as number, limit[Math.ceil(level)] as number);
      return { p, across, level, x: Math.min(p.r * across, most) };
    });
    for (let n = 1; n < own.length; n++) {
      const [high, low] = [own[n - 1], own[n]] as [(typeof own)[0], (typeof own)[0]];
      // Levels fall from the neck to the edge.
      const over = mostOver(low, high, limit);
      high.x -= over;
      low.x -= over;
    }
    for (const { p, across, x } of own) if (x < p.r * across - 1e-9) found.push({ place: p, to: x / across });
    const kept = own.map((q) => ({ level: q.level, x: q.p.cut || q.x < q.p.r * q.across - 1e-9 ? q.x : Infinity }));
    for (let n = 1; n < kept.length; n++) lower(limit, kept[n] as Kept, kept[n - 1] as Kept);
  }
  return found;
}

/** A place that stands in the way of what lies behind it. */
export interface InTheWay {
  readonly place: WallPlace;
  readonly to: number;
}

interface Kept {
  readonly level: number;
  readonly x: number;
}

// Both go over every level between a place and the one over it, with how far out the wall stands there: from `x`, so
// much further at each level. Beside a place at which nothing is cut the other one holds alone.
const alone = (low: Kept, high: Kept) => !Number.isFinite(low.x) || !Number.isFinite(high.x);
const slopeOf = (low: Kept, high: Kept) => (alone(low, high) ? 0 : (high.x - low.x) / (high.level - low.level));
const startOf = (low: Kept, high: Kept) => (alone(low, high) ? Math.min(low.x, high.x) : low.x);

/** How far the wall between two places stands over the limit at most. */
function mostOver(low: Kept, high: Kept, limit: Float64Array): number {
  const [slope, start] = [slopeOf(low, high), startOf(low, high)];
  let over = 0;
  for (let at = Math.ceil(low.level - 1e-9); at < high.level; at++) {
    const own = start + slope * (at - low.level) - (limit[at] as number);
    if (own > over) over = own;
  }
  return over;
}

/** Takes the limit down to the wall between two places. */
function lower(limit: Float64Array, low: Kept, high: Kept): void {
  const [slope, start] = [slopeOf(low, high), startOf(low, high)];
  for (let at = Math.ceil(low.level - 1e-9); at < high.level; at++) {
    const x = start + slope * (at - low.level);
    if (x < (limit[at] as number)) limit[at] = x;
  }
}
