import type { Fdi } from '../teeth/notation.js';

// By themselves, since every page that keeps a case knows them.

/** How a thickness is read without a scanner, and what its reading is sure of, mm: a hand and a probe. House values. */
export const HAND_WAYS = {
  index: { words: 'index or leaf guide, and a probe', pmMm: 0.15 },
  provisional: { words: 'caliper on the provisional', pmMm: 0.1 },
} as const;
export type HandWay = keyof typeof HAND_WAYS;

/** Where it is read, in the order in which one goes round a tooth. */
export const HAND_PLACES = ['cervical', 'middle', 'incisal', 'edge', 'palatal'] as const;
export type HandPlace = (typeof HAND_PLACES)[number];
/** A thickness beyond these is a slip of the key, mm. */
export const HAND_LIMITS = { min: 0, max: 5 } as const;

/** A thickness read by hand: the room under the index, or the provisional's own; 0 is a hole. */
export interface HandReading {
  readonly tooth: Fdi;
  readonly way: HandWay;
  readonly place: HandPlace;
  readonly mm: number;
}
