import { cross, dot, normalize, rotateAbout, type Vec3 } from '../geometry/vec.js';

/**
 * A surface that a restoration has to come off, as pieces that each look one way: unit normals, three numbers a piece,
 * and areas, mm².
 */
export interface Facing {
  readonly normals: Float64Array;
  readonly areaMm2: Float64Array;
}

/** What turns away from a way out by less than this is taken for a scan's own roughness, degrees. House value. */
export const TURNED_DEG = 1.5;

/** The area that turns away from a way out, mm²: what comes off along it hangs there. @param way a unit vector */
export function undercutMm2({ normals, areaMm2 }: Facing, way: Vec3, turnedDeg = TURNED_DEG): number {
  const limit = -Math.sin((turnedDeg * Math.PI) / 180);
  let sum = 0;
  for (let i = 0; i < areaMm2.length; i++)
    if (normals[3 * i]! * way[0] + normals[3 * i + 1]! * way[1] + normals[3 * i + 2]! * way[2] < limit)
      sum += areaMm2[i]!;
  return sum;
}

/** How well a way out does, less is better: the area that hangs, and where none does the least lean of any piece. */
function badness({ normals, areaMm2 }: Facing, way: Vec3, limit: number): { area: number; lean: number } {
  let [area, lean] = [0, 1];
  for (let i = 0; i < areaMm2.length; i++) {
    const d = normals[3 * i]! * way[0] + normals[3 * i + 1]! * way[1] + normals[3 * i + 2]! * way[2];
    if (d < limit) area += areaMm2[i]!;
    if (d < lean) lean = d;
  }
  return { area, lean };
}

/** The way out that leaves least hanging. */
export interface BestWay {
  readonly way: Vec3;
  readonly undercutMm2: number;
}

/** The first look goes over the sphere in so many directions. */
const FIRST_LOOK = 900;
/** Then about the best of them, each time closer. Degrees. */
const CLOSER = [6, 3, 1.5, 0.7, 0.3] as const;
const AROUND = 12;
/** So many of the first look are followed. */
const FOLLOWED = 6;

/**
 * The way out that leaves least hanging of all pieces, found over the sphere within an angle of a given one.
 * @param facing of one tooth, or of all that must come off together
 * @param near a unit vector; `withinDeg` how far from it is looked
 */
export function bestWay(facing: Facing, near: Vec3, withinDeg = 60, turnedDeg = TURNED_DEG): BestWay {
  const limit = -Math.sin((turnedDeg * Math.PI) / 180);
  const cos = Math.cos((withinDeg * Math.PI) / 180);
  const tried = (way: Vec3) => ({ way, ...badness(facing, way, limit) });
  const better = (a: ReturnType<typeof tried>, b: ReturnType<typeof tried>) => a.area - b.area || b.lean - a.lean;
  const first = [near, ...spread(FIRST_LOOK).filter((w) => dot(w, near) >= cos)].map(tried).sort(better);
  const best = first.slice(0, FOLLOWED).map((start) => {
    let own = start;
    for (const deg of CLOSER)
      for (let moved = true; moved; ) {
        const next = ring(own.way, deg, AROUND)
          .filter((w) => dot(w, near) >= cos)
          .map(tried)
          .sort(better)[0];
        moved = next !== undefined && better(next, own) < 0;
        if (moved && next) own = next;
      }
    return own;
  });
  const { way, area } = best.sort(better)[0] as ReturnType<typeof tried>;
  return { way, undercutMm2: area };
}

/** How far a way may lean from another in each direction about it before more than an area hangs, degrees. */
export interface WayCone {
  readonly axis: Vec3;
  /** A direction across the axis from which the others are counted, and the one a quarter turn on. */
  readonly across: Vec3;
  readonly onward: Vec3;
  /** From `across` on, evenly around. */
  readonly leanDeg: readonly number[];
}

const CONE_MOST_DEG = 60;
const CONE_STEP_DEG = 1;

/**
 * The cone of ways on which no more than an area hangs, from one that is allowed itself.
 * @param across a direction from which is counted; its part along the axis is left out
 */
export function wayCone(facing: Facing, axis: Vec3, across: Vec3, allowedMm2: number, around = 24): WayCone {
  const onward = normalize(cross(axis, across));
  const first = normalize(cross(onward, axis));
  const leanDeg = Array.from({ length: around }, (_, k) => {
    const aside = rotateAbout(first, axis, (360 * k) / around);
    const about = normalize(cross(axis, aside));
    let deg = 0;
    while (
      deg < CONE_MOST_DEG &&
      undercutMm2(facing, rotateAbout(axis, about, deg + CONE_STEP_DEG)) <= allowedMm2 + 1e-9
    )
      deg += CONE_STEP_DEG;
    return deg;
  });
  return { axis, across: first, onward, leanDeg };
}

/** Directions evenly over the sphere (Fibonacci's spiral). */
export function spread(n: number): Vec3[] {
  const golden = Math.PI * (3 - Math.sqrt(5));
  return Array.from({ length: n }, (_, i): Vec3 => {
    const z = 1 - (2 * i + 1) / n;
    const r = Math.sqrt(1 - z * z);
    return [r * Math.cos(golden * i), r * Math.sin(golden * i), z];
  });
}

function ring(way: Vec3, deg: number, n: number): Vec3[] {
  const aside = normalize(cross(way, Math.abs(way[2]) < 0.9 ? [0, 0, 1] : [1, 0, 0]));
  const leaned = rotateAbout(way, aside, deg);
  return Array.from({ length: n }, (_, k) => rotateAbout(leaned, way, (360 * k) / n));
}
