import type { Mesh } from '../geometry/mesh.js';
import { length, type Vec3 } from '../geometry/vec.js';
import type { Design } from '../restoration/design.js';
import { TARGET_PLACES, type TargetPlace, type TargetSurface } from './target.js';

/** What a preparation leaves between itself and the teeth across, at one part of it. mm. */
export interface BiteRoom {
  readonly place: Exclude<TargetPlace, 'kept'>;
  /** The thickness that the restoration needs there. */
  readonly wantedMm: number;
  /** The least space in the closed bite and on the way to the front and the sides, but for a hundredth of the places. */
  readonly closedMm: number;
  readonly movedMm: number;
}

/** Fewer places than this say nothing. */
const LEAST_PLACES = 8;
/** Single places of a mesh are noise. */
const WORST_SHARE = 0.01;

/**
 * The room that a preparation leaves in the bite, part by part, as far as teeth stand across it. Space is told across the
 * surface: what is told straight up and down is that much longer on a slope.
 * @param mesh the target in the mouth, vertex for vertex of `t`; `closed` and `moved` the vertical space at each, NaN
 * where no tooth stands across
 */
export function biteRoom(
  t: TargetSurface,
  mesh: Mesh,
  design: Design,
  { closed, moved }: { readonly closed: Float32Array; readonly moved: Float32Array },
): BiteRoom[] {
  const upright = uprightness(mesh);
  return (['edge', 'palatal', 'proximal', 'facial'] as const).flatMap((place): BiteRoom[] => {
    const at = TARGET_PLACES.indexOf(place);
    const own = Array.from(t.covered.keys()).filter((v) => t.covered[v] === at && !Number.isNaN(closed[v] as number));
    if (own.length < LEAST_PLACES) return [];
    const least = (space: Float32Array) => {
      const sorted = own.map((v) => (space[v] as number) * (upright[v] as number)).sort((a, b) => a - b);
      return sorted[Math.floor(WORST_SHARE * sorted.length)] as number;
    };
    return [{ place, wantedMm: wantedAt(design, place), closedMm: least(closed), movedMm: least(moved) }];
  });
}

/** The thickness that a part needs, mm: of a face the least of its thirds. */
function wantedAt({ needs, around, edge }: Design, place: BiteRoom['place']): number {
  const facial = Math.min(needs.cervical, needs.middle, needs.incisal);
  if (place === 'edge') return edge.kind === 'thickness' ? edge.mm : 0;
  if (place === 'facial') return facial;
  return around ? (place === 'palatal' ? around.palatalMm : around.proximalMm) : facial;
}

/** How much each vertex looks up or down: 1 straight, 0 to the side. */
function uprightness({ positions, triangles }: Mesh): Float64Array {
  const sums = new Float64Array(positions.length);
  const at = (v: number) => positions.subarray(3 * v, 3 * v + 3) as unknown as Vec3;
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [triangles[i], triangles[i + 1], triangles[i + 2]] as unknown as [number, number, number];
    const [p, q, r] = [at(a), at(b), at(c)];
    const u = [q[0] - p[0], q[1] - p[1], q[2] - p[2]] as const;
    const w = [r[0] - p[0], r[1] - p[1], r[2] - p[2]] as const;
    const n = [u[1] * w[2] - u[2] * w[1], u[2] * w[0] - u[0] * w[2], u[0] * w[1] - u[1] * w[0]] as const;
    for (const v of [a, b, c])
      for (let k = 0; k < 3; k++) sums[3 * v + k] = (sums[3 * v + k] as number) + (n[k] as number);
  }
  return Float64Array.from({ length: positions.length / 3 }, (_, v) => {
    const n = sums.subarray(3 * v, 3 * v + 3) as unknown as Vec3;
    return Math.abs(n[2]) / (length(n) || 1);
  });
}
