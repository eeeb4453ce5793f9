import type { Mesh } from '../../geometry/mesh.js';
import { stripUnder } from './edge-strip.js';
import type { IndexGround } from './ground.js';
import { STEP_MM } from './sheet.js';

/** Where a palatal key ends: in front at the edges, with the face open, or so far before them; behind so far up, mm. */
export const KEY_LIMITS = { frontMm: { usual: 0, min: -1, max: 2 }, upMm: { usual: 4, min: 1, max: 8 } } as const;

/** How a palatal key is made, mm. Thickness: common practice, no source; the rest are house values. */
const SLAB = { thicknessMm: 4, reliefMm: 0.05 } as const;
const REACH = { backMm: 8, upInFrontMm: 0.5 } as const;

/** How a palatal key is trimmed. */
export interface KeyTrim {
  /** How far it goes over the edges to the front, mm; below 0 it ends behind them. */
  readonly frontMm: number;
  /** How far it goes up behind the edges, mm: dam and clamps want room at the gum. */
  readonly upMm: number;
}
export const USUAL_TRIM: KeyTrim = { frontMm: KEY_LIMITS.frontMm.usual, upMm: KEY_LIMITS.upMm.usual };

/**
 * A key in which the palatal shell is made: under the edges and up behind the planned teeth and those that it sits on,
 * with the face open, closed, in the arch's own frame. It is put on from below and behind.
 */
export function palatalKey(ground: IndexGround, { frontMm, upMm }: KeyTrim = USUAL_TRIM): Mesh {
  // A strip reaches by whole steps of its grid.
  const front = Math.round(frontMm / STEP_MM) * STEP_MM;
  return stripUnder(ground, { ...REACH, frontMm: front, upBehindMm: upMm }, SLAB);
}
