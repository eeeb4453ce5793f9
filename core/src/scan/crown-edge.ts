import type { Fdi } from '../teeth/notation.js';
import type { PickedCrown } from './picked-crown.js';

/** The course of an edge is compared in so many steps across the crown. */
export const STEPS = 10;

/** How high a crown's edge stands at each step across it, mm; Infinity where a coarse scan has no place. */
export function edgeOf(across: Float64Array, height: Float64Array, widthMm: number): number[] {
  const low = new Array<number>(STEPS).fill(Infinity);
  for (let i = 0; i < across.length; i++) {
    const k = Math.floor((STEPS * across[i]) / widthMm);
    if (k >= 0 && k < STEPS && height[i] < low[k]) low[k] = height[i];
  }
  return low;
}

/** How far a crown's edge stands out over its own sides, mm. */
export function cuspOf({ across, height, widthMm }: PickedCrown): number {
  const low = edgeOf(across, height, widthMm);
  return ((low[1] ?? 0) + (low[STEPS - 2] ?? 0)) / 2 - Math.min(...low);
}

/** The same tooth on the other side. */
export const otherSide = (tooth: Fdi): Fdi => tooth + (Math.floor(tooth / 10) % 2 === 1 ? 10 : -10);
