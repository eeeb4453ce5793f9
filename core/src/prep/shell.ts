import { dot, type Vec3 } from '../geometry/vec.js';
import { type TargetZone, ZONE_ORDER } from '../reduction/target-zones.js';
import type { Placed } from './facing.js';
import { PREP_LIMITS } from './limits.js';
import { type PrepMap, underShare } from './prep-tooth.js';

/** How thick the wall of a preformed provisional may be, mm. House limits. */
export const SHELL_LIMITS = { min: 0.2, max: 1.5 } as const;
/** The usual one. Common practice, no source. */
export const SHELL_WALL_MM = 0.6;

/** Where a shell meets the tooth before it is home. */
export interface ShellBind {
  readonly zone: TargetZone;
  /** How far its wall stands in the tooth at home, but for a twentieth of the zone, mm. */
  readonly deepMm: number;
  /** Tooth is cut only where the plan asks for more cutting anyway; else the shell is ground. */
  readonly cut: 'tooth' | 'shell';
  /** The vertex of the scan where it stands deepest. */
  readonly at: number;
}

/** A shell tried on one prepared tooth. */
export interface ShellOn {
  /** Deepest first; empty where it goes home. */
  readonly binds: readonly ShellBind[];
  /** How far from home it stops on its way, mm: where a wall is steep a little too thick holds it far off. */
  readonly offMm: number;
}

/** A wall that stands in the tooth by less is pressed home, mm. House value. */
const PRESSED_MM = 0.05;
const TAIL = 0.05;
/** A wall along the way is taken to meet at least as steeply as this, the sine of 3°. House value. */
const STEEPEST = Math.sin((3 * Math.PI) / 180);

/**
 * Tries a shell on: the planned contour less its wall, at home in the plan. It binds where there is less room than its
 * wall; one that stands d deep at a place whose normal leans by a towards the way out stops d / sin a before it is
 * home.
 * @param on the places where it has its wall: at its own edge it is trimmed thin
 * @param out the way out, a unit vector in the same frame
 */
export function shellOn(map: PrepMap, facing: Placed, on: readonly number[], out: Vec3, wallMm: number): ShellOn {
  const counts = new Set(on);
  const deep = map.nearMm.map((room) => wallMm - room);
  const binds = ZONE_ORDER.flatMap((zone, z): ShellBind[] => {
    const own = on.filter((v) => map.zone[v] === z);
    if (own.length < 12) return [];
    const deepMm = underShare(map, own, deep, 1 - TAIL);
    if (!(deepMm > PRESSED_MM)) return [];
    const at = own.reduce((a, b) => (Math.abs(deep[b]! - deepMm) < Math.abs(deep[a]! - deepMm) ? b : a));
    return [{ zone, deepMm, cut: map.shortMm[at]! > PREP_LIMITS.short.value ? 'tooth' : 'shell', at }];
  });
  let offMm = 0;
  const holds = new Set(binds.map((b) => ZONE_ORDER.indexOf(b.zone)));
  facing.vertex.forEach((v, i) => {
    if (!counts.has(v) || !holds.has(map.zone[v]!) || deep[v]! <= PRESSED_MM) return;
    const n: Vec3 = [facing.normals[3 * i]!, facing.normals[3 * i + 1]!, facing.normals[3 * i + 2]!];
    offMm = Math.max(offMm, Math.min(MOST_OFF_MM, deep[v]! / Math.max(STEEPEST, dot(n, out))));
  });
  return { binds: binds.sort((a, b) => b.deepMm - a.deepMm), offMm };
}

/** Further off than this it does not go on at all, mm. */
const MOST_OFF_MM = 5;
