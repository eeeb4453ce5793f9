import { type Frame, toParent } from '../geometry/frame.js';
import type { Mesh } from '../geometry/mesh.js';
import { section } from '../geometry/section.js';

/** The face of a tooth between its line angles: what throws light at the eye, and what makes a tooth look wide. */
export interface ReflectingFace {
  /** From line angle to line angle across the tooth, mm, and how far off it may be. */
  readonly widthMm: number;
  readonly pm: number;
  /** Line angles beside the tooth's axis, mm: to the patient's right (negative) and left. */
  readonly rightMm: number;
  readonly leftMm: number;
}

/**
 * A line angle is where the surface has turned so far away from the front. It has no sharp border; the tooth is held
 * to one definition, so that sides and plans can be compared. House definition, no source: light from beside the lens
 * leaves the eye at about this slope.
 */
export const LINE_ANGLE_DEG = 30;
/** By how much a scan's slope over a stretch of surface may be off, degrees: 0.05 mm over a millimetre. */
const SLOPE_PM_DEG = 3;
/** Levels of the crown at which it is taken, shares of its height from the edge: the middle third, where it is looked at. */
const LEVELS = [0.4, 0.5, 0.6] as const;
/** The slope is taken over so much of the surface, mm: fine ridges are no line angles. */
const OVER_MM = 0.8;
const STEP_MM = 0.05;

/**
 * The width of the face between the line angles, as a mean over the middle third.
 * @param mesh of the tooth, in the coordinates that `frame` is in
 * @param frame of the tooth: x across, y backwards, z from its edge towards the root
 * @returns nothing where the surface turns nowhere so far, or no face is there
 */
export function reflectingFace(mesh: Mesh, frame: Frame, lengthMm: number): ReflectingFace | undefined {
  const faces = LEVELS.flatMap((share) => {
    const front = facialOutline(mesh, frame, share * lengthMm);
    const found = (deg: number) => front && lineAngles(front, deg);
    const [own, narrow, wide] = [
      found(LINE_ANGLE_DEG),
      found(LINE_ANGLE_DEG - SLOPE_PM_DEG),
      found(LINE_ANGLE_DEG + SLOPE_PM_DEG),
    ];
    return own && narrow && wide ? [{ own, pm: (wide[1] - wide[0] - (narrow[1] - narrow[0])) / 2 }] : [];
  });
  if (faces.length === 0) return undefined;
  const mean = (of: (f: (typeof faces)[number]) => number) => faces.reduce((s, f) => s + of(f), 0) / faces.length;
  const [rightMm, leftMm] = [mean((f) => f.own[0]), mean((f) => f.own[1])];
  return {
    widthMm: leftMm - rightMm,
    pm: Math.max(
      STEP_MM,
      mean((f) => f.pm),
    ),
    rightMm,
    leftMm,
  };
}

interface Outline {
  readonly from: number;
  /** Depth at every step across, mm; the facial side is the smaller. */
  readonly depth: readonly number[];
}

/** The facial surface of one level, as depth over the way across. */
function facialOutline(mesh: Mesh, frame: Frame, up: number): Outline | undefined {
  const plane: Frame = { ...frame, origin: toParent(frame, [0, 0, up]) };
  const lines = section(mesh, plane);
  let [from, to] = [Infinity, -Infinity];
  for (const { points } of lines)
    for (let i = 0; i < points.length; i += 2) {
      from = Math.min(from, points[i] as number);
      to = Math.max(to, points[i] as number);
    }
  const steps = Math.floor((to - from) / STEP_MM);
  if (!(steps > 2 * (OVER_MM / STEP_MM))) return undefined;
  const depth = new Array<number>(steps).fill(Infinity);
  for (const { points, closed } of lines) {
    const n = points.length / 2;
    for (let i = 0; i < (closed ? n : n - 1); i++) {
      const j = (i + 1) % n;
      let [ax, ay, bx, by] = [points[2 * i], points[2 * i + 1], points[2 * j], points[2 * j + 1]] as number[] as [
        number,
        number,
        number,
        number,
      ];
      if (ax > bx) [ax, ay, bx, by] = [bx, by, ax, ay];
      const first = Math.max(0, Math.ceil((ax - from) / STEP_MM - 0.5));
      const last = Math.min(steps - 1, Math.floor((bx - from) / STEP_MM - 0.5));
      for (let k = first; k <= last; k++) {
        const x = from + (k + 0.5) * STEP_MM;
        const y = bx === ax ? Math.min(ay, by) : ay + ((by - ay) * (x - ax)) / (bx - ax);
        depth[k] = Math.min(depth[k] as number, y);
      }
    }
  }
  return { from, depth };
}

/** Where the face has turned by so much on both sides of its middle, mm across. */
function lineAngles({ from, depth }: Outline, deg: number): readonly [number, number] | undefined {
  const reach = Math.round(OVER_MM / STEP_MM / 2);
  const slope = (k: number): number => {
    const [a, b] = [depth[k - reach], depth[k + reach]];
    return a === undefined || b === undefined || !Number.isFinite(a) || !Number.isFinite(b)
      ? Number.NaN
      : (Math.atan2(b - a, 2 * reach * STEP_MM) * 180) / Math.PI;
  };
  const all = depth.map((_, k) => slope(k));
  // The face's own middle is where it looks straight ahead, nearest to the middle of the tooth.
  const centre = Math.floor(depth.length / 2);
  const sideFrom = (step: -1 | 1): number | undefined => {
    for (let k = centre; k >= 0 && k < all.length; k += step) {
      const [own, before] = [(all[k] as number) * step, (all[k - step] as number) * step];
      if (!(own >= deg)) continue;
      // Between two steps, where it is just reached.
      const part = before < deg ? (own - deg) / (own - before) : 0;
      return from + (k + 0.5 - step * part) * STEP_MM;
    }
    return undefined;
  };
  const [right, left] = [sideFrom(-1), sideFrom(1)];
  return right === undefined || left === undefined ? undefined : [right, left];
}
