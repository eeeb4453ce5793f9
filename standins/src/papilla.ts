import { type Crown, type Frame, ringVertex, toParent } from '@radiant/core';

/**
 * A papilla's tip lies this share of the crown's length under the facial zeniths of its neighbours (Chu et al. 2009,
 * J Esthet Restor Dent 21:113, from memory: about two fifths).
 */
const HEIGHT_SHARE = 0.43;
/** Between lower incisors, which touch near their edges, about half. House value. */
const LOWER_INCISORS_SHARE = 0.54;
/** It rises out of the necks' ends at least and at most by so much, mm: between spaced teeth it stays low. House values. */
const RISE_MM = { least: 0.1, most: 2.6 } as const;

interface Neighbour {
  readonly crown: Crown;
  readonly frame: Frame;
}

/** Height of the facial zenith over the plane of the edges. */
function zenithUp({ crown, frame }: Neighbour): number {
  const m = crown.mesh.positions;
  let best = Number.NEGATIVE_INFINITY;
  for (let k = 0; k <= crown.ringSize / 2; k++) {
    const v = 3 * ringVertex(crown, 0, k);
    best = Math.max(best, toParent(frame, [m[v], m[v + 1], m[v + 2]])[2]);
  }
  return best;
}

/**
 * How far the papilla between two teeth rises from the ends of their necks towards the edges, mm.
 * @param neckUp mean height of both necks' ends over the plane of the edges
 * @param lostMm how far it has drawn back
 */
export function papillaRise(a: Neighbour, b: Neighbour, neckUp: number, lostMm: number): number {
  const low = [a, b].every(({ crown: { tooth } }) => tooth > 30 && tooth % 10 < 3);
  const share = low ? LOWER_INCISORS_SHARE : HEIGHT_SHARE;
  const tip = (zenithUp(a) + zenithUp(b)) / 2 - (share * (a.crown.size.lengthMm + b.crown.size.lengthMm)) / 2;
  return Math.max(RISE_MM.least, Math.min(RISE_MM.most, neckUp - tip) - lostMm);
}
