import { hypot } from '../geometry/vec.js';
import { type Fdi, isFdi } from '../teeth/notation.js';
import { frontRow, OWN_ROLES, type Roles } from '../teeth/roles.js';
import type { Figure } from '../working/working.js';
import type { Px } from './calibration.js';
import { ARCH_DEPTH, type ArchForm, usualStand } from './depths.js';
import { frontDepths, isStraight } from './front-depth.js';
import { LANDMARK_KINDS, type LandmarkKind, type LandmarkSet, levelled } from './landmarks.js';
import { type Level, levelOfTeeth } from './level.js';
import type { Marked } from './propagate.js';
import { middleOf } from './reading.js';
import type { CameraStand, ScannedDepth, Sight } from './sight.js';
import { pointSpec, type ViewPoints } from './views.js';

/** What is known of a retracted front view beside its points and scale. */
export interface FrontSeen {
  /** Which line is level; the teeth's own where nothing is said. */
  readonly level?: Level | undefined;
  /** How the camera stood, where the view was matched with a scan. */
  readonly stand?: CameraStand | undefined;
  /** The arch, from a scan or an occlusal view. */
  readonly arch?: ArchForm | undefined;
  /** How far back the scan has the places that are marked. */
  readonly behind?: readonly ScannedDepth[] | undefined;
  /** How well this hand sets each kind of landmark again, where it was tried: one standard deviation, mm. */
  readonly spread?: Readonly<Record<LandmarkKind, number>> | undefined;
}

/** A retracted front view, ready to be measured: its points turned level, each with how far back it lies. */
export interface FrontSight {
  readonly sight: Sight;
  readonly level: Level | undefined;
  readonly arch: ArchForm;
  readonly roles: Roles;
  /** How much further back the scan has a tooth's distal side than its mesial one, mm. */
  readonly turnedBack: (tooth: Fdi) => number | undefined;
  /** The upper teeth that stand in front. */
  readonly row: readonly Fdi[];
  readonly own: (tooth: Fdi, kind: LandmarkKind) => Marked | undefined;
  readonly extra: (id: string) => Marked | undefined;
}

/**
 * How well the kinds of landmark are set again, one standard deviation, mm. A gum margin is soft and rolls over, an
 * edge is sharp, an outline's side lies against its neighbour. Common practice, no source.
 */
export const FRONT_SD_MM: Readonly<Record<LandmarkKind, number>> = {
  zenith: 0.1,
  edge: 0.06,
  mesial: 0.07,
  distal: 0.08,
};

/** How far before the teeth a printed scale is held, mm, and how far that differs: half-width of the 95 % interval. */
const SCALE_BEFORE_MM = { mm: 2, pm: 1.5 } as const;

/** Everything that measuring the retracted front view begins with. */
export function frontSight(
  set: LandmarkSet,
  points: ViewPoints,
  scale: Figure,
  roles: Roles = OWN_ROLES,
  seen: FrontSeen = {},
): FrontSight {
  const level = seen.level ?? levelOfTeeth(set, scale);
  const roll = level?.rollDeg ?? 0;
  const stand = seen.stand ?? usualStand('retracted-front');
  const arch = seen.arch ?? ARCH_DEPTH;
  const turned = (p: Px | undefined): Px | undefined => p && levelled(p, roll);
  const all = Object.values(set).flatMap((m) => LANDMARK_KINDS.map((k) => m?.[k]));
  const middle = middleOf([...all, ...Object.values(points)].map(turned));
  // Both rows are framed with the upper edges half way: how a pitch turns the row shows from there.
  const edges = [11, 21].map((t) => turned(set[t]?.edge)).filter((p) => p !== undefined);
  const about: Px = edges.length === 0 ? middle : [middle[0], edges.reduce((n, p) => n + p[1], 0) / edges.length];
  const mesials = [11, 21].map((t) => turned(set[t]?.mesial)).filter((p) => p !== undefined);
  const midline = mesials.length > 0 ? mesials.reduce((n, p) => n + p[0], 0) / mesials.length : undefined;
  const depthAt = frontDepths({ set, turned, midline, mmPerPx: scale.value, roles, stand, arch, behind: seen.behind });
  const mark = (
    id: string,
    at: Px | undefined,
    sdMm: number,
    kind: string,
    tooth?: Fdi,
    teeth: readonly Fdi[] = tooth === undefined ? [] : [tooth],
  ): Marked | undefined => {
    const p = turned(at);
    const own = p && depthAt(kind, p, tooth, teeth);
    return p && { id, at: p, sdMm, depth: own && { ...own, mm: own.mm + SCALE_BEFORE_MM.mm } };
  };
  const relative = hypot(scale.pm / scale.value, SCALE_BEFORE_MM.pm / stand.distanceMm);
  return {
    sight: {
      view: 'retracted-front',
      scale: { ...scale, pm: scale.value * relative },
      stand,
      about,
      // A scan's level is fitted to these very marks: one that is off takes the level with it, and both do not add up.
      rollPmDeg: level && level.by !== 'scan' ? level.pmDeg : 0,
      archPm: isStraight(stand) ? 0 : arch.pm,
    },
    level,
    arch,
    roles,
    turnedBack: (tooth) => {
      const own = seen.behind?.find((b) => b.tooth === tooth);
      return own && own.distal - own.mesial;
    },
    row: frontRow(roles),
    own: (tooth, kind) => mark(`${tooth} ${kind}`, set[tooth]?.[kind], (seen.spread ?? FRONT_SD_MM)[kind], kind, tooth),
    extra: (id) => {
      const spec = pointSpec('retracted-front', id);
      const [kind = '', ...of] = id.split('-');
      const own = kind === 'neck' ? spec?.tooth : undefined;
      return mark(id, points[id], spec?.sdMm ?? 0.1, kind, own, of.map(Number).filter(isFdi));
    },
  };
}

/** Which share of a front tooth's crown the front shows. */
export interface SeenShare {
  readonly width: number;
  /** Of each tooth by itself, and of all of its kind in one mouth together. */
  readonly widthPm: number;
  readonly mouthPm: number;
  readonly length: number;
  readonly lengthPm: number;
  /** The width's share falls with the depth of the arch to this power. */
  readonly arch: number;
}

/**
 * Share of the crown's width and length that is seen from straight in front, by kind, with half-widths of the 95 %
 * band: teeth turn away round the arch, and are turned and inclined a little each for itself. On a usual arch; worked
 * out on virtual patients (see the test of the same name).
 */
export const SEEN_FROM_FRONT = {
  central: { width: 0.987, widthPm: 0.0225, mouthPm: 0.005, length: 1.01, lengthPm: 0.016, arch: 0.01 },
  lateral: { width: 0.895, widthPm: 0.07, mouthPm: 0.022, length: 1.005, lengthPm: 0.0195, arch: 0.16 },
  canine: { width: 0.807, widthPm: 0.073, mouthPm: 0.03, length: 0.97, lengthPm: 0.0225, arch: 0.15 },
} as const satisfies Readonly<Record<'central' | 'lateral' | 'canine', SeenShare>>;

/**
 * The chord from a crown's mesial to its distal side, as the front shows them, over its own width, with half-widths of
 * the 95 % band: of each tooth by itself, and of all of its kind in one mouth together. Worked out on virtual patients,
 * odd teeth among them.
 */
export const CHORD_SHARE = {
  central: { share: 1.001, pm: 0.004, mouthPm: 0.004 },
  lateral: { share: 0.986, pm: 0.012, mouthPm: 0.01 },
  canine: { share: 0.908, pm: 0.043, mouthPm: 0.052 },
} as const;

/** The share of a width that is seen on an arch of another form: a deeper one turns its sides further away. */
export const widthShare = (kind: keyof typeof SEEN_FROM_FRONT, perMm: number): number =>
  SEEN_FROM_FRONT[kind].width * (ARCH_DEPTH.perMm / perMm) ** SEEN_FROM_FRONT[kind].arch;
