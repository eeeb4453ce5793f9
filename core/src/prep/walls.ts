import type { Mesh } from '../geometry/mesh.js';
import { dot, hypot, type Vec3 } from '../geometry/vec.js';
import type { Placed } from './facing.js';

/** The walls of a prepared crown, by where they look. */
export const WALL_SIDES = ['mesial', 'distal', 'facial', 'palatal'] as const;
export type WallSide = (typeof WALL_SIDES)[number];

/** One wall of a prepared crown. */
export interface Wall {
  readonly side: WallSide;
  /** Lean towards the edge, degrees; below 0 where it hangs over on the way out. */
  readonly taperDeg: number;
  /** From the finish line up along the way out, mm. */
  readonly heightMm: number;
  readonly areaMm2: number;
}

/** What walls hold by. */
export interface Walls {
  readonly walls: readonly Wall[];
  /** Both walls of a pair together, degrees. */
  readonly pairs: { readonly sides?: number; readonly faces?: number };
  /** Width at the finish line, mm, from side to side and from front to back. */
  readonly baseMm: { readonly sides: number; readonly faces: number };
}

/** How the die stands: out along its way, with a direction to its front and one to its distal side, all square. */
export interface Stance {
  readonly out: Vec3;
  readonly front: Vec3;
  readonly distal: Vec3;
}

/** A place is of the wall to which its normal looks within this, degrees about the way out. House value. */
const WALL_WITHIN_DEG = 30;
/** What leans further than this is no wall but the edge, a face's second plane or the ledge. House value. */
const WALL_LEAN_DEG = 40;
/** Off the finish line and the edge a wall begins, mm: there run ledge and rounded corner. House values. */
const LEDGE_MM = 0.7;
const CORNER_MM = 0.6;
/**
 * Of a face in two or three planes the one at the gum holds, and behind a front tooth what stands up to the bulge over
 * the gum: shares of the height. House values.
 */
const GUM_PLANE = { facial: 0.5, palatal: 0.4 } as const;
/** A wall with less of it says nothing, mm². House value. */
const LEAST_MM2 = 0.5;

/**
 * Measures the walls of a prepared crown.
 * @param height of each place over the finish line along the way out, mm, and there of the edge
 */
export function wallsOf(
  scan: Mesh,
  { vertex, normals, areaMm2 }: Placed,
  stance: Stance,
  heightOf: (place: Vec3) => number,
): Walls {
  const at = (v: number): Vec3 => [scan.positions[3 * v]!, scan.positions[3 * v + 1]!, scan.positions[3 * v + 2]!];
  const heights = Float64Array.from(vertex, (v) => heightOf(at(v)));
  const top = [...heights].sort((a, b) => a - b)[Math.floor(0.98 * heights.length)] ?? 0;
  const looks: Readonly<Record<WallSide, Vec3>> = {
    mesial: [-stance.distal[0], -stance.distal[1], -stance.distal[2]],
    distal: stance.distal,
    facial: stance.front,
    palatal: [-stance.front[0], -stance.front[1], -stance.front[2]],
  };
  const walls = WALL_SIDES.flatMap((side): Wall[] => {
    const high: number[] = [];
    let [area, up, away] = [0, 0, 0];
    vertex.forEach((_, i) => {
      const n: Vec3 = [normals[3 * i]!, normals[3 * i + 1]!, normals[3 * i + 2]!];
      const [out, aside] = [dot(n, stance.out), hypot(dot(n, stance.front), dot(n, stance.distal))];
      if (Math.abs(Math.atan2(out, aside)) * DEG > WALL_LEAN_DEG) return;
      if (dot(n, looks[side]) < Math.cos(WALL_WITHIN_DEG / DEG) * aside) return;
      const h = heights[i]!;
      if (h > 0) high.push(h);
      if (h < LEDGE_MM || h > (side === 'facial' || side === 'palatal' ? GUM_PLANE[side] * top : top - CORNER_MM))
        return;
      area += areaMm2[i]!;
      up += areaMm2[i]! * out;
      away += areaMm2[i]! * aside;
    });
    if (area < LEAST_MM2) return [];
    high.sort((a, b) => a - b);
    // Of a wall that goes around, the lean is meant, not the directions: their mean would lean more than any.
    const lean = Math.atan2(up, away) * DEG;
    return [{ side, taperDeg: lean, heightMm: high[Math.floor(0.98 * high.length)] ?? 0, areaMm2: area }];
  });
  const of = (side: WallSide) => walls.find((w) => w.side === side)?.taperDeg;
  const pair = (a: WallSide, b: WallSide) => {
    const [p, q] = [of(a), of(b)];
    return p === undefined || q === undefined ? undefined : p + q;
  };
  const [sides, faces] = [pair('mesial', 'distal'), pair('facial', 'palatal')];
  return {
    walls,
    pairs: { ...(sides !== undefined && { sides }), ...(faces !== undefined && { faces }) },
    baseMm: {
      sides: acrossMm(scan, vertex, heights, stance.distal),
      faces: acrossMm(scan, vertex, heights, stance.front),
    },
  };
}

const DEG = 180 / Math.PI;
/** The base is measured on what lies so near over the finish line, mm. */
const BASE_MM = 1;

function acrossMm(scan: Mesh, vertex: Uint32Array, heights: Float64Array, way: Vec3): number {
  let [least, most] = [Infinity, -Infinity];
  vertex.forEach((v, i) => {
    if (heights[i]! > BASE_MM) return;
    const d =
      scan.positions[3 * v]! * way[0] + scan.positions[3 * v + 1]! * way[1] + scan.positions[3 * v + 2]! * way[2];
    least = Math.min(least, d);
    most = Math.max(most, d);
  });
  return Math.max(0, most - least);
}

/** A stance from a target's frame, whose z goes to the root. @param distal 1 where its x goes to the distal side */
export function stanceOf(frame: { readonly x: Vec3; readonly y: Vec3; readonly z: Vec3 }, distal: 1 | -1): Stance {
  const turned = (v: Vec3, k: number): Vec3 => [k * v[0], k * v[1], k * v[2]];
  return { out: turned(frame.z, -1), front: turned(frame.y, -1), distal: turned(frame.x, distal) };
}
