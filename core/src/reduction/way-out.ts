import type { Vec3 } from '../geometry/vec.js';
import type { Design } from '../restoration/design.js';

/** What goes over the edge comes off so far from the axis to the front, degrees. Common practice, no source. */
const WRAP_DEG = 8;
const WRAP = { sin: Math.sin((WRAP_DEG * Math.PI) / 180), cos: Math.cos((WRAP_DEG * Math.PI) / 180) };

/** A veneer whose edge is cut comes off so far from the front to the edge, degrees. Common practice, no source. */
const EDGE_DEG = 30;
const EDGE = { sin: Math.sin((EDGE_DEG * Math.PI) / 180), cos: Math.cos((EDGE_DEG * Math.PI) / 180) };

/**
 * The way on which a restoration comes off its tooth, in the target's frame: a crown along the axis, a veneer to the
 * front, one whose edge is cut to the front and the edge, and one that goes over the edge down and a little to the
 * front. Common practice, no source.
 */
export const wayOut = ({ kind, wrap, edge }: Design): Vec3 =>
  kind === 'crown'
    ? [0, 0, -1]
    : wrap
      ? [0, -WRAP.sin, -WRAP.cos]
      : edge.kind === 'thickness'
        ? [0, -EDGE.cos, -EDGE.sin]
        : [0, -1, 0];

/** Lean of the sides of a veneer towards its way out: the tangent of 3°. House value. */
const SIDE_LEAN = Math.tan((3 * Math.PI) / 180);

/** How much a wall falls away backward on the way out of what goes over the edge, mm for each mm along the axis. */
const WRAP_LEAN = WRAP.sin / WRAP.cos;

/**
 * How much a wall has to lean in a direction from the axis, or what goes over the edge would not come off; below 0 it
 * may lean out by so much.
 */
export const wrapLean = ([, y]: Vec3): number => SIDE_LEAN + WRAP_LEAN * y;

/**
 * The same of the flat back of a tooth, whose wall leans backward whatever the direction from the axis: how far from it
 * a place may stand under the row above.
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
 * what is cut behind it on the same way out, between the places too. It is cut as far as that takes.
 * @param columns of one side from the back to the front, each from the neck to the edge
 * @param lowered takes a place and how far from the axis it is to stand, mm
 */
export function clearWayOut(
  columns: readonly (readonly WallPlace[])[],
  way: Vec3,
  lowered: (place: WallPlace, to: number) => void,
): void {
  // Places on one line of the way share a level.
  const tilt = way[2] / way[1];
  const limit = new Float64Array(LEVELS).fill(Infinity);
  for (const column of columns) {
    const own = column.map((p) => {
      const across = Math.max(1e-9, Math.abs(p.u[0]) - SIDE_LEAN * p.u[1]);
      const level = (p.z - p.r * p.u[1] * tilt - LOWEST_MM) / LEVEL_MM;
      const most = Math.min(limit[Math.floor(level)] as number, limit[Math.ceil(level)] as number);
      return { p, across, level, x: Math.min(p.r * across, most) };
    });
    for (let n = 1; n < own.length; n++) {
      const [a, b] = [own[n - 1], own[n]] as [(typeof own)[0], (typeof own)[0]];
      // Levels fall from the neck to the edge.
      let over = 0;
      between(b, a, (at, x) => {
        over = Math.max(over, x - (limit[at] as number));
      });
      a.x -= over;
      b.x -= over;
    }
    for (const { p, across, x } of own) if (x < p.r * across - 1e-9) lowered(p, x / across);
    const kept = own.map((q) => ({ level: q.level, x: q.p.cut || q.x < q.p.r * q.across - 1e-9 ? q.x : Infinity }));
    for (let n = 1; n < kept.length; n++)
      between(kept[n] as Kept, kept[n - 1] as Kept, (at, x) => {
        limit[at] = Math.min(limit[at] as number, x);
      });
  }
}

interface Kept {
  readonly level: number;
  readonly x: number;
}

/** Every level between a place and the one over it, with how far out the wall stands there. */
function between(low: Kept, high: Kept, tell: (level: number, x: number) => void): void {
  for (let at = Math.ceil(low.level - 1e-9); at < high.level; at++) {
    const t = (at - low.level) / (high.level - low.level);
    // Beside a place at which nothing is cut the other one holds alone.
    const alone = !Number.isFinite(low.x) || !Number.isFinite(high.x);
    tell(at, alone ? Math.min(low.x, high.x) : low.x + t * (high.x - low.x));
  }
}
