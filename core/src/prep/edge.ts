import { toLocal } from '../geometry/frame.js';
import { leastSquares } from '../geometry/solve.js';
import type { Vec3 } from '../geometry/vec.js';
import { inZone, type PrepMap, type PrepTooth, underShare } from './prep-tooth.js';

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

/** Measures the prepared edge; nothing where no edge is cut. @param distal 1 where x goes to the distal side */
export function preparedEdge({ scan, target }: PrepTooth, map: PrepMap, distal: 1 | -1): PreparedEdge | undefined {
  const own = inZone(map, 'edge');
  if (own.length < 12) return undefined;
  const at = (v: number): Vec3 => {
    const [x, y, z] = toLocal(target.frame, scan.mesh.positions.subarray(3 * v, 3 * v + 3) as unknown as Vec3);
    return [distal * x, y, z];
  };
  const places = own.map(at);
  const xs = places.map((p) => p[0]);
  const [least, most] = [Math.min(...xs), Math.max(...xs)];
  const third = (k: number) => {
    const of = own.filter((_, i) => Math.min(2, Math.floor((3 * (xs[i]! - least)) / (most - least))) === k);
    return underShare(map, of, map.shortMm, 0.5);
  };
  return {
    shortMm: [third(0), third(1), third(2)],
    unevenMm: uneven(places),
    wishedUnevenMm: uneven(own.map((v) => toLocal(target.frame, vertexOf(target.mesh.positions, map.near[v]!)))),
  };
}

const vertexOf = (p: ArrayLike<number>, v: number): Vec3 => [p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!];

function uneven(places: readonly Vec3[]): number {
  const [a, b, c] = leastSquares(
    places.map(([x, y]) => [1, x, y]),
    places.map((p) => p[2]),
  ) as [number, number, number];
  const off = places.map(([x, y, z]) => z - a - b * x - c * y).sort((p, q) => p - q);
  return off[Math.floor((1 - TAIL) * off.length)]! - off[Math.floor(TAIL * off.length)]!;
}
