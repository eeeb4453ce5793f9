import { closestPoints } from '../geometry/tree/closest.js';
import { rayCaster } from '../geometry/tree/ray.js';
import type { SignedField } from '../geometry/tree/signed.js';
import { add, hypot, scale, type Vec3 } from '../geometry/vec.js';
import { type Px, Z95 } from '../smile/calibration.js';
import {
  lineOfSight,
  matchCamera,
  mmAPixelAt,
  type PhotoCamera,
  photoPoint,
  photoProjector,
  stoodBy,
} from '../smile/camera-match.js';
import { archDepthFrom, depthsFrom } from '../smile/depths.js';
import { LANDMARK_KINDS, type LandmarkKind, type LandmarkSet } from '../smile/landmarks.js';
import type { CameraStood } from '../smile/sight.js';
import type { ViewPoints } from '../smile/views.js';
import { type Fdi, UPPER_TEN } from '../teeth/notation.js';
import { frontRow } from '../teeth/roles.js';
import type { ExistingArch } from './fit.js';
import { HELD_MM, photoMarks, toothPlaces } from './photo-marks.js';

/** A landmark on both: where the scan has it, and where it is marked. */
export interface SharedPlace {
  readonly tooth: Fdi;
  readonly kind: LandmarkKind;
  /** The scan's own place, mm, and where it falls in the photograph. */
  readonly scanAt: Vec3;
  readonly scanPx: Px;
  /** Where the mark of the photograph lies on the scanned tooth, mm. */
  readonly markAt?: Vec3;
  /** How far a hand's mark lies beside the scan's own place as the photograph sees it, mm. */
  readonly offMm?: number;
}

/** A photograph matched with the scan. */
export interface PhotoOnScan {
  readonly camera: PhotoCamera;
  /** How many marks it was matched from, and how far off they lie, mm root mean square. */
  readonly marks: number;
  readonly rmsMm: number;
  readonly places: readonly SharedPlace[];
  /**
   * A length across the centrals, so that it can stand for a scale: its ends in the photograph, mm, and the 95 %
   * half-width. None where the scan has no central.
   */
  readonly length: { readonly from: Px; readonly to: Px; readonly mm: number; readonly pmMm: number } | undefined;
  /** How the camera stood to the scanned row, and how that row curves back. */
  readonly stood: CameraStood;
}

/**
 * How unsure the distance of the lens stays when marks say little about it, as a share of it. House value, as for
 * `matchCamera`.
 */
const DISTANCE_SHARE = 0.3;

/**
 * Matches a retracted photograph with the scan from the landmarks that are marked on it, and tells where each landmark
 * of the one lies on the other. The scale is that of the plane of the centrals' widest places, as a printed scale held
 * before them has it.
 * @param landmarks marked by hand
 * @param fromScan marked with the scan's help: shown on it, but left out of the match, which they would only confirm
 * @param row the teeth whose landmarks are offered while they are not marked
 * @throws Refusal of `matchCamera`
 */
export function photoOnScan(
  arch: ExistingArch,
  landmarks: LandmarkSet,
  points: ViewPoints,
  size: Px,
  fromScan: LandmarkSet = {},
  row: readonly Fdi[] = frontRow(),
): PhotoOnScan {
  const marks = photoMarks(arch, landmarks, points);
  const match = matchCamera(marks, size);
  const { camera, rmsPx, scaleSd } = match;
  const places: SharedPlace[] = [];
  for (const tooth of UPPER_TEN.filter((t) => row.includes(t) || landmarks[t])) {
    const t = arch.teeth.get(tooth);
    if (!t) continue;
    const own = toothPlaces(t);
    for (const kind of LANDMARK_KINDS) {
      const scanAt = own[kind];
      const scanPx = photoPoint(camera, scanAt);
      const px = landmarks[tooth]?.[kind];
      const shown = px ?? fromScan[tooth]?.[kind];
      const held = HELD_MM[kind];
      const mm = mmAPixelAt(camera, scanAt);
      // An outline's place counts across it, not along it.
      const way = held[0] < held[1] ? 0 : 1;
      places.push({
        tooth,
        kind,
        scanAt,
        scanPx,
        ...(shown && { markAt: onTooth(t.field, camera, shown, scanAt) }),
        ...(px && { offMm: mm * Math.abs(px[way] - scanPx[way]) }),
      });
    }
  }
  const length = acrossCentrals(arch, camera, scaleSd);
  const stood: CameraStood = { ...stoodBy(match), ...depthOf(arch) };
  return { camera, marks: marks.length, rmsMm: rmsPx / camera.pxPerMm, places, length, stood };
}

/** How the scanned row curves back, and how far back each place of it lies that is marked on photographs. */
function depthOf(arch: ExistingArch): Pick<CameraStood, 'archPerMm' | 'behind'> {
  const teeth = UPPER_TEN.flatMap((tooth) => {
    const there = arch.teeth.get(tooth);
    return there ? [{ tooth, at: toothPlaces(there) }] : [];
  });
  const edges = (numbers: readonly Fdi[]) => teeth.filter((t) => numbers.includes(t.tooth)).map((t) => t.at.edge[1]);
  const archPerMm = archDepthFrom(edges([11, 21]), edges([13, 23]));
  const behind = depthsFrom(teeth);
  return { ...(archPerMm !== undefined && { archPerMm }), ...(behind && { behind }) };
}

/**
 * Where the line of sight through a place of the photograph meets a tooth; beside its outline, the nearest place of it.
 */
function onTooth(t: SignedField, camera: PhotoCamera, px: Px, about: Vec3): Vec3 {
  const { from, towards } = lineOfSight(camera, px);
  const hit = rayCaster(t.tree).first(from, towards);
  if (hit) return add(from, scale(towards, hit.distance));
  const out = new Float64Array(3);
  photoProjector(camera)(about[0], about[1], about[2], out);
  const beside = add(from, scale(towards, camera.distanceMm + out[2]));
  const { points } = closestPoints(t.tree, Float64Array.from(beside));
  return [points[0], points[1], points[2]];
}

function acrossCentrals(arch: ExistingArch, camera: PhotoCamera, scaleSd: number): PhotoOnScan['length'] {
  const [right, left] = ([11, 21] as const).map((tooth) => arch.teeth.get(tooth)).map((t) => t && toothPlaces(t));
  const ends =
    right && left
      ? [right.distal, left.distal]
      : right
        ? [right.distal, right.mesial]
        : left
          ? [left.mesial, left.distal]
          : undefined;
  if (!ends) return undefined;
  const [a, b] = ends as [Vec3, Vec3];
  const [from, to] = [photoPoint(camera, a), photoPoint(camera, b)];
  const mmAPx = (mmAPixelAt(camera, a) + mmAPixelAt(camera, b)) / 2;
  const mm = hypot(to[0] - from[0], to[1] - from[1]) * mmAPx;
  // The depth between the marks' middle and this plane carries the unsureness of the distance into the scale.
  const depth = Math.abs(mmAPx * camera.pxPerMm - 1) * DISTANCE_SHARE;
  return { from, to, mm, pmMm: Z95 * mm * hypot(scaleSd, depth) };
}
