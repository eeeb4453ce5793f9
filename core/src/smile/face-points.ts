import type { Px } from './calibration.js';

/** Points of a face as the model numbers them: x and y of each in a row, px. The last ten are the irises. */
export type FaceMesh = Float32Array;

/** As many as the model gives with the irises. */
const POINTS = 478;

/**
 * Which points of the model stand for the places that are marked on a portrait. The numbers are those of the model's
 * published map of a face; the patient's right is at the picture's left.
 */
const PLACES: readonly (readonly [string, readonly number[]])[] = [
  ['pupil-right', [468]],
  ['pupil-left', [473]],
  // Between the inner ends of the brows.
  ['glabella', [8]],
  ['nose-base', [2]],
  // Between the chin's lowest point and the one over it.
  ['chin', [152, 175]],
  ['corner-right', [61]],
  ['corner-left', [291]],
];

/** Where the model sees the places of a portrait; nothing where it gave no whole face. */
export function facePoints(mesh: FaceMesh): { readonly id: string; readonly px: Px }[] {
  if (mesh.length < 2 * POINTS) return [];
  return PLACES.map(([id, from]) => {
    const mean = (k: 0 | 1) => from.reduce((s, i) => s + (mesh[2 * i + k] as number), 0) / from.length;
    return { id, px: [mean(0), mean(1)] };
  });
}
