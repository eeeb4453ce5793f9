import { type Frame, toLocal } from '../geometry/frame.js';
import type { Mesh } from '../geometry/mesh.js';
import { leastSquares } from '../geometry/solve.js';
import type { Vec3 } from '../geometry/vec.js';
import { inZone, type PrepMap, type PrepTooth } from './prep-tooth.js';

/** The prepared edge against the planned one, mm. */
export interface PreparedEdge {
  /** Still to cut, in the mesial, middle and distal third of the edge. */
  readonly shortMm: readonly [number, number, number];
  /** How far the edge lies off a plane, from its lowest to its highest but for the last twentieths. */
  readonly unevenMm: number;
  /** The same of the target's own. */
  readonly wishedUnevenMm: number;
}

const TAIL = 0.05;
/** The edge is what lies so near to the tip, mm, and its height that of so many places in each third. House values. */
const NEAR_TIP_MM = 0.8;
const PLACES = 8;

/**
 * Measures the prepared edge by how high scan and target reach along the axis, third by third: a thin edge may have no
 * surface of its own that could be measured across. Nothing where no edge is cut.
 * @param distal 1 where x goes to the distal side
 */
export function preparedEdge({ scan, target }: PrepTooth, map: PrepMap, distal: 1 | -1): PreparedEdge | undefined {
  const [is, wished] = [tips(scan.mesh, target.frame, distal), tips(target.mesh, target.frame, distal)];
  const least = wished.reduce((z, p) => Math.min(z, p[2]), Infinity);
  const xs = wished.filter((p) => p[2] < least + NEAR_TIP_MM).map((p) => p[0]);
  const [from, to] = [Math.min(...xs), Math.max(...xs)];
  const reach = (all: readonly Vec3[], k: number) => {
    const own = all
      .filter((p) => p[0] >= from + ((to - from) * k) / 3 && p[0] <= from + ((to - from) * (k + 1)) / 3)
      .map((p) => p[2])
      .sort((p, q) => p - q)
      .slice(0, PLACES);
    return own.length < PLACES ? undefined : own.reduce((sum, z) => sum + z, 0) / own.length;
  };
  const short = [0, 1, 2].map((k) => {
    const [z, zWished] = [reach(is, k), reach(wished, k)];
    return z === undefined || zWished === undefined ? undefined : zWished - z;
  });
  if (short.some((mm) => mm === undefined)) return undefined;
  const own = inZone(map, 'edge');
  const level = (positions: ArrayLike<number>, of: readonly number[]) =>
    of.length < PLACES ? 0 : uneven(of.map((v) => toLocal(target.frame, vertexOf(positions, v))));
  return {
    shortMm: short as [number, number, number],
    unevenMm: level(scan.mesh.positions, own),
    wishedUnevenMm: level(
      target.mesh.positions,
      own.map((v) => map.near[v]!),
    ),
  };
}

/** Places in the target's frame, x to the distal side, no further from the edge than anybody cuts. */
function tips({ positions }: Mesh, frame: Frame, distal: 1 | -1): Vec3[] {
  const out: Vec3[] = [];
  for (let v = 0; v < positions.length / 3; v++) {
    const [x, y, z] = toLocal(frame, vertexOf(positions, v));
    if (z < FAR_MM) out.push([distal * x, y, z]);
  }
  return out;
}

const FAR_MM = 5;

const vertexOf = (p: ArrayLike<number>, v: number): Vec3 => [p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!];

function uneven(places: readonly Vec3[]): number {
  const [a, b, c] = leastSquares(
    places.map(([x, y]) => [1, x, y]),
    places.map((p) => p[2]),
  ) as [number, number, number];
  const off = places.map(([x, y, z]) => z - a - b * x - c * y).sort((p, q) => p - q);
  return off[Math.floor((1 - TAIL) * off.length)]! - off[Math.floor(TAIL * off.length)]!;
}
