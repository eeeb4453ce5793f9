import { Refusal } from '../errors.js';
import { type Fdi, isFdi, opposite, sideOf } from '../teeth/notation.js';
import type { Px } from './calibration.js';

export type LandmarkKind = 'zenith' | 'edge' | 'mesial' | 'distal';

/** The order in which a tooth's landmarks are set. */
export const LANDMARK_KINDS: readonly LandmarkKind[] = ['zenith', 'edge', 'mesial', 'distal'];

export type ToothLandmarks = Readonly<Partial<Record<LandmarkKind, Px>>>;

/** Landmarks by FDI number. */
export type LandmarkSet = Readonly<Partial<Record<Fdi, ToothLandmarks>>>;

/**
 * Checks that every landmark lies in the picture and no two of one tooth at one place.
 * @throws Refusal `number-invalid`, `landmark-outside`, `points-coincide`, `tooth-unknown`
 */
export function requireLandmarks(set: LandmarkSet, widthPx: number, heightPx: number): void {
  for (const [key, marks] of Object.entries(set)) {
    const tooth = Number(key);
    if (!isFdi(tooth)) throw new Refusal('tooth-unknown', `${key} is not a permanent tooth in FDI notation.`, key);
    const seen = new Map<string, string>();
    for (const [kind, p] of Object.entries(marks ?? {}) as [LandmarkKind, Px][]) {
      if (!p.every(Number.isFinite))
        throw new Refusal('number-invalid', `The ${kind} point of ${tooth} is not a number.`, p);
      if (p[0] < 0 || p[1] < 0 || p[0] > widthPx || p[1] > heightPx) {
        throw new Refusal('landmark-outside', `The ${kind} point of ${tooth} lies outside the picture.`, p);
      }
      const at = `${p[0]},${p[1]}`;
      const other = seen.get(at);
      if (other)
        throw new Refusal('points-coincide', `The ${other} and ${kind} points of ${tooth} lie at one place.`, p);
      seen.set(at, kind);
    }
  }
}

/**
 * Roll of the picture in degrees, clockwise positive: the mean direction from each landmark on the patient's right to
 * its fellow on the left. Undefined while no pair is complete.
 */
export function rollOf(set: LandmarkSet): number | undefined {
  let dx = 0;
  let dy = 0;
  for (const key of Object.keys(set)) {
    const tooth = Number(key);
    if (sideOf(tooth) !== 'right') continue;
    for (const kind of LANDMARK_KINDS) {
      const a = set[tooth]?.[kind];
      const b = set[opposite(tooth)]?.[kind];
      if (!a || !b) continue;
      // Pairs far apart say more about the direction; summing the vectors weighs them so.
      dx += b[0] - a[0];
      dy += b[1] - a[1];
    }
  }
  return dx === 0 && dy === 0 ? undefined : (Math.atan2(dy, dx) * 180) / Math.PI;
}

/** A point turned back by the picture's roll, about the picture's origin. */
export function levelled(p: Px, rollDeg: number): Px {
  const t = (-rollDeg * Math.PI) / 180;
  return [p[0] * Math.cos(t) - p[1] * Math.sin(t), p[0] * Math.sin(t) + p[1] * Math.cos(t)];
}
