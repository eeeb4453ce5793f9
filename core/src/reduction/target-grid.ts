import type { Vec3 } from '../geometry/vec.js';

/** Of a vertex: what of the preparation it lies on. */
export const TARGET_PLACES = ['kept', 'facial', 'proximal', 'palatal', 'edge'] as const;
export type TargetPlace = (typeof TARGET_PLACES)[number];
export const ANGLES = 128;
/** Rows below the finish line, mm from it: close where the profile turns. The last ones are spread to the edge. */
export const NEAR_FINISH = [0, 0.015, 0.05, 0.1, 0.17, 0.25, 0.35, 0.5, 0.7, 0.95] as const;
export const WALL_ROWS = 30;
export const NECK_ROWS = 4;
export const ROWS = NECK_ROWS + NEAR_FINISH.length + WALL_ROWS;
export const CAP_ROWS = 10;
/** The grid of every target: rows from the neck to the edge, each once around, then the cap's rows to its tip. */
export const GRID = { angles: ANGLES, neckRows: NECK_ROWS, rows: ROWS, capRows: CAP_ROWS } as const;
/** Parts of the way from the axis: the first row stands close inside the walls, so that these go down to the edge. */
export const CAP_PARTS = Array.from({ length: CAP_ROWS - 1 }, (_, c) => (c === 0 ? 0.985 : 1 - (c + 1) / CAP_ROWS));
export const TIP = ROWS * ANGLES + (CAP_ROWS - 1) * ANGLES;
export const NECK = TIP + 1;
export const COUNT = NECK + 1;

/** Directions across the axis, from the left over the face to the right and back behind. */
export const DIRECTIONS = Array.from({ length: ANGLES }, (_, k): Vec3 => {
  const a = (2 * Math.PI * (k + 0.5)) / ANGLES;
  return [Math.cos(a), -Math.sin(a), 0];
});
/** A direction that looks forward less than this is to the side: the sine of 20°. House value. */
export const SIDEWAYS = 0.35;
/** Facial, proximal or palatal, by where a direction across the axis looks. */
export const placeOf = (u: Vec3): number => (-u[1] > SIDEWAYS ? 1 : -u[1] > -SIDEWAYS ? 2 : 3);

/** mm below the finish line of a row; below 0 above it. @param wrapMm where a design that goes over the edge ends */
export function belowFinish(row: number, allMm: number, wrapMm?: number): number {
  if (row < NECK_ROWS) return row - NECK_ROWS;
  const squeeze = Math.min(1, allMm / 2);
  const near = NEAR_FINISH[row - NECK_ROWS];
  if (near !== undefined) return near * squeeze;
  const from = (NEAR_FINISH.at(-1) as number) * squeeze;
  if (wrapMm !== undefined && wrapMm > from && wrapMm < allMm) {
    // Two thirds of the rows down to where the design ends behind the edge, and close ones beyond, as at the gum.
    const n = row - NECK_ROWS - NEAR_FINISH.length + 1;
    const down = (2 * WALL_ROWS) / 3;
    if (n <= down) return from + ((wrapMm - from) * n) / down;
    const t = (n - down) / (WALL_ROWS - down);
    return wrapMm + (allMm - wrapMm) * t ** 1.6;
  }
  return from + ((allMm - from) * (row - NECK_ROWS - NEAR_FINISH.length + 1)) / WALL_ROWS;
}

/** Vertices as they are made, in the frame of the rays. */
export interface Draft {
  readonly now: Float64Array;
  readonly left: Float64Array;
  readonly aligned: Float64Array;
  readonly removedMm: Float64Array;
  readonly alignMm: Float64Array;
  readonly share: Float64Array;
  readonly toothShare: Float64Array;
  readonly place: Uint8Array;
  readonly covered: Uint8Array;
  /** The tooth as the same thickness would leave it without a plan. */
  readonly bare: Float64Array;
}

/** Rows once around, a cap of rows to one tip, and the neck closed to one middle; the same for every tooth. */
export const TRIANGLES = ((): Uint32Array => {
  const out: number[] = [];
  const next = (k: number) => (k + 1) % ANGLES;
  for (let row = 0; row + 1 < ROWS + CAP_ROWS - 1; row++)
    for (let k = 0; k < ANGLES; k++) {
      const [a, b] = [row * ANGLES, (row + 1) * ANGLES];
      out.push(a + k, b + next(k), b + k, a + k, a + next(k), b + next(k));
    }
  const inmost = (ROWS + CAP_ROWS - 2) * ANGLES;
  for (let k = 0; k < ANGLES; k++) out.push(inmost + k, inmost + next(k), TIP, k, NECK, next(k));
  return Uint32Array.from(out);
})();
