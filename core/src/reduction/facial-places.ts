import { crownZenith, type PlannedTooth, plannedField } from '../contour/plan.js';
import { directionToParent, toLocal, toParent } from '../geometry/frame.js';
import { rayCaster } from '../geometry/tree/ray.js';
import { type SignedField, signedDistances } from '../geometry/tree/signed.js';
import type { Vec3 } from '../geometry/vec.js';
import type { Design } from '../restoration/design.js';
import { neededAt } from '../restoration/thickness.js';
import { median } from '../working/middle.js';
import type { CrownSpan } from './target.js';

const STEP_MM = 0.4;
/** How far to the sides the middle of a face reaches, as a share of half its width, and how far it faces outward. */
export const MIDDLE = { width: 0.72, facing: 0.45 };
/** Beyond this a surface is the tooth's side and not its face any more, line angles included. House value. */
const FACE_FACING = 0.25;

/** One place of the facial surface that is there, and what is asked of it. */
export interface FacialPlace {
  /** In the arch's own frame, mm. */
  readonly at: Vec3;
  /** Share of the planned crown's height, 0 at its edge, 1 at its zenith. */
  readonly share: number;
  /** The same of the tooth's own crown, by which its enamel is judged; beyond 1 it is root. */
  readonly toothShare: number;
  readonly neededMm: number;
  /** Planned contour in front of (+) or behind (−) the tooth. */
  readonly gapMm: number;
  readonly areaMm2: number;
  /** Whether it lies in the middle of the face, by which a zone is named, and not about a line angle. */
  readonly middle: boolean;
}

/**
 * Places over the facial surface that is there, from line angle to line angle, and at each the thickness needed and the
 * gap to the planned contour.
 */
export function facialPlaces(
  existing: SignedField,
  planned: PlannedTooth,
  design: Design,
  own: CrownSpan = { edge: 0, zenith: crownZenith(planned.crown)[2] },
): FacialPlace[] {
  const before = known.get(planned);
  const at =
    before?.existing === existing && before.own.edge === own.edge && before.own.zenith === own.zenith
      ? before
      : { existing, own, places: placesUnder(existing, planned, own) };
  known.set(planned, at);
  return at.places.map((p) => ({ ...p, neededMm: neededAt(design, p.share) }));
}

/** Where a face stands beside its plan is the same for every design. */
const known = new WeakMap<
  PlannedTooth,
  { readonly existing: SignedField; readonly own: CrownSpan; readonly places: readonly Omit<FacialPlace, 'neededMm'>[] }
>();

function placesUnder(existing: SignedField, planned: PlannedTooth, own: CrownSpan): Omit<FacialPlace, 'neededMm'>[] {
  const { frame, crown } = planned;
  const zenith = crownZenith(crown)[2];
  const cast = rayCaster(existing.tree);
  const back = directionToParent(frame, [0, 1, 0]);
  const points: Vec3[] = [];
  const info: { share: number; toothShare: number; areaMm2: number; middle: boolean }[] = [];
  const half = crown.size.widthMm / 2;
  for (let z = STEP_MM / 2; z < zenith - 0.3; z += STEP_MM) {
    for (let x = STEP_MM / 2 - half; x < half; x += STEP_MM) {
      const origin = toParent(frame, [x, -12, z]);
      const hit = cast.first(origin, back, 14);
      if (!hit) continue;
      const n = 3 * hit.face;
      const facing = -(
        (existing.faceNormals[n] as number) * back[0] +
        (existing.faceNormals[n + 1] as number) * back[1] +
        (existing.faceNormals[n + 2] as number) * back[2]
      );
      // Where the surface has turned away it is the edge or the side, not the face.
      if (facing < FACE_FACING) continue;
      points.push([
        origin[0] + back[0] * hit.distance,
        origin[1] + back[1] * hit.distance,
        origin[2] + back[2] * hit.distance,
      ]);
      const middle = facing >= MIDDLE.facing && Math.abs(x) <= MIDDLE.width * half;
      const toothShare = (z - own.edge) / (own.zenith - own.edge);
      info.push({ share: z / zenith, toothShare, areaMm2: (STEP_MM * STEP_MM) / facing, middle });
    }
  }
  const d = signedDistances(plannedField(planned), Float64Array.from(points.flat()));
  return info.map((p, i) => ({ ...p, at: points[i] as Vec3, gapMm: -(d[i] as number) }));
}

/**
 * Existing edge over the planned one, along the planned axis, mm: median of three places across; + where the plan
 * lengthens.
 */
export function edgeGap(existing: SignedField, planned: PlannedTooth): number | undefined {
  const before = knownGaps.get(planned);
  if (before?.existing === existing) return before.gap;
  const gap = edgeGapUnder(existing, planned);
  knownGaps.set(planned, { existing, gap });
  return gap;
}

const knownGaps = new WeakMap<PlannedTooth, { readonly existing: SignedField; readonly gap: number | undefined }>();

function edgeGapUnder(existing: SignedField, planned: PlannedTooth): number | undefined {
  const lowest = (positions: Float64Array): number[] => {
    const low = [Infinity, Infinity, Infinity];
    const w = planned.crown.size.widthMm;
    for (let i = 0; i < positions.length; i += 3) {
      const p = toLocal(planned.frame, [
        positions[i] as number,
        positions[i + 1] as number,
        positions[i + 2] as number,
      ]);
      const slab = Math.round((p[0] / w) * 5) + 1;
      if (slab < 0 || slab > 2) continue;
      if (p[2] < (low[slab] as number)) low[slab] = p[2];
    }
    return low;
  };
  // The planned surface as it was brushed, not the crown before.
  const plan = lowest(planned.mesh.positions);
  const now = lowest(existing.mesh.positions);
  const gaps = now.map((z, i) => z - (plan[i] as number)).filter(Number.isFinite);
  return gaps.length > 0 ? median(gaps) : undefined;
}
