import type { Fdi } from '../teeth/notation.js';
import type { Figure } from '../working/working.js';
import type { Px } from './calibration.js';
import { ARCH_DEPTH, depthOf, scaleDepth, usualStand } from './depths.js';
import type { Marked } from './propagate.js';
import type { CameraStand, Sight } from './sight.js';
import { pointSpec, type ViewId, type ViewPoints } from './views.js';

/** What one photograph holds for measuring. */
export interface ViewReading {
  readonly view: ViewId;
  readonly points: ViewPoints;
  /** mm a pixel; without it nothing is measured. */
  readonly scale: Figure;
  /** The tooth by whose width it is scaled: the scale holds where that one stands. */
  readonly scaleTooth?: Fdi | undefined;
  /** How the camera stood, where it is known; held by hand where nothing is said. */
  readonly stand?: CameraStand | undefined;
}

/** One answer for each reading. */
const sights = new WeakMap<ViewReading, Sight>();

/** How a view is looked at. Its line of sight goes through the middle of what is marked. */
export function sightOf(r: ViewReading): Sight {
  let sight = sights.get(r);
  if (!sight) {
    sight = sightAnew(r);
    sights.set(r, sight);
  }
  return sight;
}

function sightAnew(r: ViewReading): Sight {
  return {
    view: r.view,
    scale: r.scale,
    stand: r.stand ?? usualStand(r.view),
    about: middleOf(Object.values(r.points)),
    rollPmDeg: 0,
    archPm: ARCH_DEPTH.pm,
  };
}

/** Half way between the outermost of some points, px. */
export function middleOf(points: readonly (Px | undefined)[]): Px {
  const [from, to] = [
    [Infinity, Infinity],
    [-Infinity, -Infinity],
  ] as [[number, number], [number, number]];
  for (const p of points) {
    if (!p) continue;
    for (const k of [0, 1] as const) {
      from[k] = Math.min(from[k], p[k]);
      to[k] = Math.max(to[k], p[k]);
    }
  }
  return from[0] <= to[0] ? [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2] : [0, 0];
}

/** A figure read from a view. */
export interface ViewFigure {
  readonly id: string;
  /** In words; a tooth stands as `{11}`. */
  readonly name: string;
  readonly figure: Figure;
  /** Its class in words, where it has one. */
  readonly word?: string;
  readonly tooth?: Fdi;
}

/** The marked points by their ids, or undefined while one is missing. */
export function marksOf(r: ViewReading, ids: readonly string[]): Marked[] | undefined {
  const out: Marked[] = [];
  const behind = scaleDepth(r.view, r.scaleTooth);
  for (const id of ids) {
    const at = r.points[id];
    const spec = pointSpec(r.view, id);
    if (!at || !spec) return undefined;
    out.push({ id, at, sdMm: spec.sdMm, depth: depthOf(r.view, id, behind) });
  }
  return out;
}

/** Direction of the line from one point to another, degrees, clockwise in the picture. */
export const directionDeg = (a: Px, b: Px): number => (Math.atan2(b[1] - a[1], b[0] - a[0]) * 180) / Math.PI;

/** An angle brought to −180…180°. */
export const wrapped = (deg: number): number => ((((deg + 180) % 360) + 360) % 360) - 180;

/** A point in a frame with its origin at `at` whose x axis runs along `deg`, px; y is down across it. */
export function along(p: Px, at: Px, deg: number): Px {
  const t = (-deg * Math.PI) / 180;
  const x = p[0] - at[0];
  const y = p[1] - at[1];
  return [x * Math.cos(t) - y * Math.sin(t), x * Math.sin(t) + y * Math.cos(t)];
}
