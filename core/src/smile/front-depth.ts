import { isFrontKind } from '../teeth/norms.js';
import { type Fdi, isUpper, sideOf } from '../teeth/notation.js';
import { type Roles, roleOf } from '../teeth/roles.js';
import type { Px } from './calibration.js';
import { type ArchForm, frontDepth, usualAcross } from './depths.js';
import { LANDMARK_KINDS, type LandmarkKind, type LandmarkSet } from './landmarks.js';
import type { CameraStand, Depth, ScannedDepth } from './sight.js';

const isLandmark = (kind: string): kind is LandmarkKind => (LANDMARK_KINDS as readonly string[]).includes(kind);

/** Which side of a tooth faces its neighbour. */
const facing = (tooth: Fdi, neighbour: Fdi): LandmarkKind =>
  sideOf(tooth) !== sideOf(neighbour) || tooth % 10 > neighbour % 10 ? 'mesial' : 'distal';

const PLACE = { central: 11, lateral: 12, canine: 13 } as const;

/** A mark and the scan's place are picked in two ways, one standard deviation, mm. House value. */
export const SCANNED_SD_MM = 0.1;

/**
 * How far behind what the scan has a further place lies, and how far that differs, one standard deviation, mm: necks
 * behind the zenith, the others behind the two sides that face each other. House values, from virtual patients.
 */
const BEHIND_SCANNED = {
  neck: { central: -0.05, lateral: -0.35, canine: 0.65, sd: 0.25 },
  papilla: { mm: 0.6, sd: 0.7 },
  contact: { mm: 0.35, sd: 0.4 },
  embrasure: { mm: -0.4, sd: 0.35 },
} as const;

/** What is left of how far mouths differ in depth where the camera is known and no depth, as a share. House value. */
const CAMERA_SHARE = 0.6;

/** What tells how far back the places of a retracted front view lie. */
export interface FrontPlaces {
  readonly set: LandmarkSet;
  /** Turns a place level. */
  readonly turned: (p: Px | undefined) => Px | undefined;
  /** Between the centrals, px across; nothing where neither is marked. */
  readonly midline: number | undefined;
  readonly mmPerPx: number;
  readonly roles: Roles;
  readonly stand: CameraStand;
  readonly arch: ArchForm;
  /** Of the scan that the view was matched with. */
  readonly behind: readonly ScannedDepth[] | undefined;
}

/**
 * How far behind the facial surface of the midline a place lies.
 * @param teeth the teeth that it belongs to, or stands between
 */
export type DepthAt = (kind: string, level: Px, tooth: Fdi | undefined, teeth: readonly Fdi[]) => Depth | undefined;

/** Seen without perspective and turn depth does nothing. */
export const isStraight = ({ distanceMm }: CameraStand): boolean => distanceMm === Number.POSITIVE_INFINITY;

/** How far back the places of a front view lie: as the scan has them where there is one, else as is usual. */
export function frontDepths({ set, turned, midline, mmPerPx, roles, stand, arch, behind }: FrontPlaces): DepthAt {
  // A tooth stands as far back as its place in the row has it, not as it is far from the midline: a narrow arch is deep.
  const acrossAt = (kind: string, p: Px, tooth: Fdi | undefined): number => {
    if (midline === undefined) return usualAcross(placeOf(tooth ?? 11));
    const edge = tooth === undefined || !set[tooth] ? undefined : turned(set[tooth]?.edge);
    if (tooth === undefined || !edge) return (p[0] - midline) * mmPerPx;
    // Zenith and neck lie where the tooth stands, wherever it leans.
    const off = kind === 'mesial' || kind === 'distal' ? (p[0] - edge[0]) * mmPerPx : 0;
    return usualAcross(placeOf(tooth)) + Math.sign(edge[0] - midline) * off;
  };
  const placeOf = (tooth: Fdi): Fdi => {
    const kind = roleOf(roles, tooth);
    return isUpper(tooth) && isFrontKind(kind) ? PLACE[kind] : tooth;
  };
  // The scan tells depths behind the middle of the centrals' edges.
  const edgesMm = frontDepth('edge', usualAcross(11), arch.perMm)?.mm ?? 0;
  const scanned = (tooth: Fdi, kind: LandmarkKind): number | undefined => {
    const own = behind?.find((b) => b.tooth === tooth)?.[kind];
    return own === undefined ? undefined : own + edgesMm;
  };
  const beside = (kind: string, teeth: readonly Fdi[]): Depth | undefined => {
    const [a, b] = teeth;
    if (a === undefined) return undefined;
    if (kind === 'neck') {
      const [own, role] = [scanned(a, 'zenith'), roleOf(roles, a)];
      if (own === undefined || !isFrontKind(role)) return undefined;
      return { mm: own + BEHIND_SCANNED.neck[role], archMm: 0, sdMm: BEHIND_SCANNED.neck.sd };
    }
    if (b === undefined || (kind !== 'papilla' && kind !== 'contact' && kind !== 'embrasure')) return undefined;
    const [one, other] = [scanned(a, facing(a, b)), scanned(b, facing(b, a))];
    if (one === undefined || other === undefined) return undefined;
    const { mm, sd } = BEHIND_SCANNED[kind];
    return { mm: (one + other) / 2 + mm, archMm: 0, sdMm: sd };
  };
  return (kind, p, tooth, teeth) => {
    if (isStraight(stand)) return undefined;
    const own = tooth !== undefined && isLandmark(kind) ? scanned(tooth, kind) : undefined;
    if (own !== undefined) return { mm: own, archMm: 0, sdMm: SCANNED_SD_MM };
    const usual = frontDepth(kind, acrossAt(kind, p, tooth), arch.perMm);
    if (!usual || stand.even) return usual;
    return beside(kind, teeth) ?? { ...usual, sdMm: usual.sdMm * CAMERA_SHARE };
  };
}
