import { type Fdi, jawOf, kindOf } from '../teeth/notation.js';
import { published } from '../working/working.js';
import type { TargetSurface } from './target.js';
import { TARGET_PLACES } from './target-grid.js';

/**
 * How far a pulp chamber lies under the facial surface and over the edge of an adult's sound tooth, mm. Rough house
 * estimates with no source: a radiograph says more.
 */
const PULP_MM = {
  upper: {
    central: { face: 2.6, edge: 5 },
    lateral: { face: 2.3, edge: 4.5 },
    canine: { face: 2.9, edge: 5.5 },
    premolar: { face: 2.6, edge: 4.5 },
  },
  lower: {
    central: { face: 1.9, edge: 4 },
    lateral: { face: 2, edge: 4.2 },
    canine: { face: 2.6, edge: 5 },
    premolar: { face: 2.5, edge: 4.5 },
  },
} as const;
/** The chamber shrinks with age: shares of the adult's distance up to an age. House estimates, no source. */
const BY_AGE = [
  { under: 20, share: 0.75 },
  { under: 30, share: 0.9 },
  { under: 50, share: 1 },
  { under: Infinity, share: 1.15 },
] as const;
/** An estimate is off by so much on one tooth in three, mm. House estimate. */
export const PULP_PM_MM = 0.7;

/** Dentin of less than this over the pulp is where it suffers, mm. */
export const LEAST_OVER_PULP = {
  mm: 0.5,
  source: published('Murray, Smith, Windsor, Mjör 2003, Int Endod J 36:33'),
} as const;

/** What a preparation leaves over the pulp by an estimate, where it comes nearest. */
export interface OverPulp {
  readonly place: 'face' | 'edge';
  /** mm; below 0 where the estimate lies within what is cut. */
  readonly leftMm: number;
}

/** @param ageYears as for an adult of 30 to 50 where it is not known */
export function overPulp(t: TargetSurface, ageYears?: number | null): OverPulp {
  const share = BY_AGE.find((a) => (ageYears ?? 40) < a.under)?.share ?? 1;
  const { face, edge } = distances(t.tooth);
  const deepest = (place: 'facial' | 'edge') => {
    const at = TARGET_PLACES.indexOf(place);
    const own = t.removedMm.filter((_, v) => t.covered[v] === at).sort();
    return own[Math.floor(0.95 * own.length)] ?? 0;
  };
  const [overFace, overEdge] = [share * face - deepest('facial'), share * edge - deepest('edge')];
  return overFace <= overEdge ? { place: 'face', leftMm: overFace } : { place: 'edge', leftMm: overEdge };
}

function distances(tooth: Fdi): { readonly face: number; readonly edge: number } {
  const kind = kindOf(tooth);
  const own = PULP_MM[jawOf(tooth)];
  return kind === 'central' || kind === 'lateral' || kind === 'canine' ? own[kind] : own.premolar;
}
