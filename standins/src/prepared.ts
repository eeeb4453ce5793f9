import { closestPoints, designOf, signedDistances, signedField, toLocal } from '@radiant/core';
import type { Patient, PatientTooth } from './patient.js';

// Taken once: a global looked up in an inner loop is slow wherever the engine runs the code in a context of its own.
const { max, min } = Math;

/** Prepared as the graduated design asks for, measured from the final contour. */
const { needs, edge } = designOf('graduated');
const EDGE_MM = edge.kind === 'thickness' ? edge.mm : 0;
/** The chamfer begins so far off the gum and is as deep as it gets there, mm. */
const CHAMFER_MM = { from: 0.4, full: 1.1 } as const;
/** Where a surface begins to face forward, and where it does so fully: share of its normal. */
const FACES = { from: 0, full: 0.3 } as const;
/** Where a surface does not face forward nothing is taken, however far the tooth stands out of its final contour, mm. */
const LEFT_MM = 3;

const ramp = (v: number, from: number, to: number): number => {
  const k = max(0, min(1, (v - from) / (to - from)));
  return k * k * (3 - 2 * k);
};

/** What the ceramic needs at a share of the crown's height from edge (0) to zenith (1), mm: each third's own in its middle. */
function needAt(share: number): number {
  if (share < 1 / 6) return needs.incisal;
  if (share < 1 / 2) return needs.incisal + (needs.middle - needs.incisal) * ((share - 1 / 6) * 3);
  if (share < 5 / 6) return needs.middle + (needs.cervical - needs.middle) * ((share - 1 / 2) * 3);
  return needs.cervical;
}

/**
 * The patient's upper teeth with those of the front that are restored later prepared for veneers: from the final contour inward, so that where
 * the plan adds enough nothing is taken. Their meshes are as they were; `cut` says what is gone.
 * @param later the same patient with the final contour
 */
export function prepared(patient: Patient, later: Patient): PatientTooth[] {
  const restored = Object.keys(patient.recipe.planned?.traits ?? {}).map(Number);
  return patient.teeth.map((t) => {
    const final = later.teeth.find((l) => l.tooth === t.tooth);
    return final && t.tooth % 10 <= 3 && restored.includes(t.tooth) ? { ...t, cut: cutOf(t, final) } : t;
  });
}

function cutOf(t: PatientTooth, final: PatientTooth): (places: Float64Array) => Float64Array {
  const field = signedField(final.mesh);
  const { faceNormals } = field;
  const long = final.crown.size.lengthMm;
  return (places) => {
    const outside = signedDistances(field, places);
    const { faces } = closestPoints(field.tree, places);
    return outside.map((off, i) => {
      const p = [places[3 * i] as number, places[3 * i + 1] as number, places[3 * i + 2] as number] as const;
      const at = toLocal(final.frame, p);
      const f = 3 * (faces[i] as number);
      const looks = toLocal({ ...final.frame, origin: [0, 0, 0] }, [faceNormals[f] as number, faceNormals[f + 1] as number, faceNormals[f + 2] as number]);
      const facial = ramp(-looks[1], FACES.from, FACES.full) * ramp(t.crown.size.lengthMm - toLocal(t.frame, p)[2], CHAMFER_MM.from, CHAMFER_MM.full);
      const face = needAt(at[2] / long) * facial + off - LEFT_MM * (1 - facial);
      // The edge is cut level, as far below the final one as its ceramic is thick.
      return max(face, EDGE_MM - at[2]);
    });
  };
}
