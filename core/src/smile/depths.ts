import type { Vec3 } from '../geometry/vec.js';
import type { Fdi } from '../teeth/notation.js';
import { LANDMARK_KINDS, type LandmarkKind } from './landmarks.js';
import { type CameraStand, type Depth, heldByHand, type ScannedDepth } from './sight.js';
import type { ViewId } from './views.js';

// How far back the places lie that are marked on photographs, and how far one mouth differs from another. A photograph
// does not say; without it no ± is honest. Common practice, no source: rounded from what faces and arches usually have.

/** How an arch curves back, where it is known better than of arches in general. */
export interface ArchForm {
  /** Depth = `perMm` · x², 1/mm. */
  readonly perMm: number;
  /** Half-width of its 95 % interval, as a share. */
  readonly pm: number;
}

/** How an upper arch curves back from its front: depth = `perMm` · x², and how far arches differ, as a share. */
export const ARCH_DEPTH = { perMm: 0.027, pm: 0.25 } as const;

/** How far from the midline the edge of a tooth lies, by its place in the row, mm. */
const ACROSS_MM = [5, 11.5, 16.8, 23, 27] as const;

export const usualAcross = (tooth: Fdi): number => ACROSS_MM[Math.min(tooth % 10, ACROSS_MM.length) - 1] as number;

const depth = (mm: number, sdMm: number, archMm = 0): Depth => ({ mm: mm + archMm, archMm, sdMm });

/** Depth at a distance from the midline. */
const onArch = (xMm: number, offMm: number, sdMm: number, perMm: number = ARCH_DEPTH.perMm): Depth =>
  depth(offMm, sdMm, perMm * xMm * xMm);

/**
 * The depth of an arch from how far back the edges of its centrals and canines lie, mm: undefined without both, or
 * where the canines do not stand behind.
 */
export function archDepthFrom(centrals: readonly number[], canines: readonly number[]): number | undefined {
  if (centrals.length === 0 || canines.length === 0) return undefined;
  const mean = (v: readonly number[]) => v.reduce((a, b) => a + b, 0) / v.length;
  const behind = mean(canines) - mean(centrals);
  return behind > 0 ? behind / (usualAcross(13) ** 2 - usualAcross(11) ** 2) : undefined;
}

/**
 * How far back a scan has the places that are marked on photographs, from their places in the mouth: y grows backward.
 * @returns undefined without a central, against whose edge all are told
 */
export function depthsFrom(
  teeth: readonly { readonly tooth: Fdi; readonly at: Readonly<Record<LandmarkKind, Vec3>> }[],
): ScannedDepth[] | undefined {
  const centrals = teeth.filter((t) => t.tooth === 11 || t.tooth === 21);
  if (centrals.length === 0) return undefined;
  const front = centrals.reduce((sum, t) => sum + t.at.edge[1], 0) / centrals.length;
  return teeth.map(({ tooth, at }) => {
    const [zenith, edge, mesial, distal] = LANDMARK_KINDS.map((k) => at[k][1] - front);
    return { tooth, zenith, edge, mesial, distal } as ScannedDepth;
  });
}

/** Behind the facial surface at its place in the arch, by the kind of point, and how far that differs, mm. */
const ON_TOOTH = {
  zenith: { off: -1, sd: 0.85 },
  edge: { off: 0.4, sd: 0.6 },
  mesial: { off: 0, sd: 0.57 },
  distal: { off: 0, sd: 0.65 },
  neck: { off: -1.1, sd: 0.7 },
  papilla: { off: 0, sd: 0.7 },
  contact: { off: 0, sd: 0.8 },
  embrasure: { off: -0.15, sd: 0.6 },
} as const;

type OnTooth = keyof typeof ON_TOOTH;
const isOnTooth = (kind: string): kind is OnTooth => kind in ON_TOOTH;

/** A place of a tooth or between two, seen from the front so far from the midline. */
export function frontDepth(kind: string, xMm: number, perMm: number): Depth | undefined {
  // The margin of the lower centrals lies behind the upper edge by the overjet.
  if (kind === 'lower') return depth(2.5, 1.5);
  if (!isOnTooth(kind)) return undefined;
  const off = ON_TOOTH[kind].off + turnedAway(kind, Math.abs(xMm));
  return onArch(xMm, off, ON_TOOTH[kind].sd, perMm);
}

/** A tooth turns away at its distal side, the more the further back it stands, and an embrasure opens to the front. */
const turnedAway = (kind: OnTooth, xMm: number): number =>
  kind === 'distal' ? -0.0055 * xMm * xMm : kind === 'embrasure' ? -0.08 * xMm : 0;

/** A smile draws the lips back to the teeth, and the lower one lies a little behind the upper. */
const LIP_ACROSS = { rest: [0.7, -3.3, -5, -3.3, 0.7], smile: [1.5, -2.6, -4.8, -2.6, 1.5] } as const;
const LOWER_LIP_MM = 0.4;

/** Of the lips, teeth and nose seen from the front. A smile draws the corners back. */
function mouthDepth(id: string, smiling: boolean): Depth | undefined {
  const [kind, ...rest] = id.split('-');
  const last = Number(rest.at(-1));
  if (kind === 'corner') return depth(smiling ? 12 : 5, 4.2);
  if (kind === 'upper' || kind === 'lower') {
    const across = LIP_ACROSS[smiling ? 'smile' : 'rest'][last - 1] ?? -4;
    return depth(across + (kind === 'lower' ? LOWER_LIP_MM : 0), 1.3);
  }
  if (kind === 'edge' || kind === 'zenith') return onArch(usualAcross(last), ON_TOOTH[kind].off, ON_TOOTH[kind].sd);
  if (kind === 'outer') return depth(18.5, 4);
  return kind === 'nose' ? depth(-8, 3) : undefined;
}

/** Of the face, behind the plane of the pupils. */
const FACE: Readonly<Record<string, Depth>> = {
  'pupil-right': depth(0, 0.5),
  'pupil-left': depth(0, 0.5),
  glabella: depth(-10, 2),
  'nose-base': depth(-12, 3),
  chin: depth(-6, 5),
  'corner-right': depth(4, 4),
  'corner-left': depth(4, 4),
  'midline-edge': depth(-2, 3),
  'canine-right': depth(2, 3),
  'canine-left': depth(2, 3),
};

/** From the side what lies across is depth; the midline is 0. */
function sideDepth(id: string): Depth | undefined {
  if (id === 'plane-front') return depth(-usualAcross(13), 1);
  if (id === 'plane-back') return depth(-usualAcross(15), 1.5);
  return depth(-1.5, 0.6);
}

/** Seen from below what lies high is depth. */
const ARCH_FROM_BELOW = depth(0, 0.4);

/** How far a view's place lies behind the plane of its scale; the retracted front view's see `frontDepth`. */
export function depthOf(view: ViewId, id: string, scaleDepthMm = 0): Depth | undefined {
  const own = ownDepth(view, id);
  return own && scaleDepthMm !== 0 ? { ...own, mm: own.mm - scaleDepthMm } : own;
}

function ownDepth(view: ViewId, id: string): Depth | undefined {
  switch (view) {
    case 'portrait-rest':
    case 'portrait-smile':
      return FACE[id];
    case 'close-rest':
    case 'close-smile':
      return mouthDepth(id, view === 'close-smile');
    case 'retracted-right':
    case 'retracted-left':
      return sideDepth(id);
    case 'upper-occlusal':
    case 'lower-occlusal':
      return ARCH_FROM_BELOW;
    default:
      return undefined;
  }
}

/** How far back the tooth stands by whose width a view is scaled, mm. */
export function scaleDepth(view: ViewId, tooth: Fdi | undefined): number {
  if (tooth === undefined) return 0;
  if (view === 'retracted-right' || view === 'retracted-left') return -usualAcross(tooth);
  return view === 'close-rest' || view === 'close-smile' ? ARCH_DEPTH.perMm * usualAcross(tooth) ** 2 : 0;
}

/** A lens at arm's length, and that of a portrait, mm. */
const NEAR_MM = 420;
const PORTRAIT_MM = 1500;
/** Cheeks keep a camera from standing square to the side: usually so many degrees towards the front. */
const SIDE_TURN = { deg: 8, pm: 7 } as const;

/** How a camera usually stands for a view. */
export function usualStand(view: ViewId): CameraStand {
  if (view.startsWith('portrait')) return heldByHand(PORTRAIT_MM);
  if (view !== 'retracted-right' && view !== 'retracted-left') return heldByHand(NEAR_MM);
  const sign = view === 'retracted-right' ? 1 : -1;
  return { ...heldByHand(NEAR_MM), yawDeg: sign * SIDE_TURN.deg, yawPm: SIDE_TURN.pm };
}
