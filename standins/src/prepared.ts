import {
  closestPoints,
  crownZenith,
  type Design,
  type DesignChoice,
  neededAt,
  restorationOf,
  signedDistances,
  signedField,
  toLocal,
} from '@radiant/core';
import type { Patient, PatientTooth } from './patient.js';

/** The chamfer begins so far off the gum and is as deep as it gets there, mm. */
const CHAMFER_MM = { from: 0.4, full: 1.1 } as const;
/** Where a surface begins to face forward, and where it does so fully: share of its normal. */
const FACES = { from: 0, full: 0.3 } as const;
/**
 * Where a surface does not face forward nothing is taken, however far the tooth stands out of its final contour, mm.
 */
const LEFT_MM = 3;

const ramp = (v: number, from: number, to: number): number => {
  const k = Math.max(0, Math.min(1, (v - from) / (to - from)));
  return k * k * (3 - 2 * k);
};

/** Without a word of the case all teeth are prepared for the first design. */
const GRADUATED: DesignChoice = { design: 'graduated' };

/**
 * The patient's upper teeth with those of the front that are restored later prepared on the face and at the edge as
 * their designs ask: from the final contour inward, so that where the plan adds enough nothing is taken. Their meshes
 * are as they were; `cut` says what is gone.
 * @param later the same patient with the final contour
 */
export function prepared(patient: Patient, later: Patient, choice: DesignChoice = GRADUATED): PatientTooth[] {
  const restored = Object.keys(patient.recipe.planned?.traits ?? {}).map(Number);
  return patient.teeth.map((t) => {
    const final = later.teeth.find((l) => l.tooth === t.tooth);
    return final && t.tooth % 10 <= 3 && restored.includes(t.tooth)
      ? { ...t, cut: cutOf(t, final, restorationOf(t.tooth, choice).design) }
      : t;
  });
}

function cutOf(t: PatientTooth, final: PatientTooth, design: Design): (places: Float64Array) => Float64Array {
  const field = signedField(final.mesh);
  const { faceNormals } = field;
  const zenith = crownZenith(final.crown)[2];
  const edgeMm = design.edge.kind === 'thickness' ? design.edge.mm : 0;
  return (places) => {
    const outside = signedDistances(field, places);
    const { faces } = closestPoints(field.tree, places);
    return outside.map((off, i) => {
      const p = [places[3 * i], places[3 * i + 1], places[3 * i + 2]] as const;
      const at = toLocal(final.frame, p);
      const f = 3 * faces[i];
      const looks = toLocal({ ...final.frame, origin: [0, 0, 0] }, [
        faceNormals[f],
        faceNormals[f + 1],
        faceNormals[f + 2],
      ]);
      const facial =
        ramp(-looks[1], FACES.from, FACES.full) *
        ramp(t.crown.size.lengthMm - toLocal(t.frame, p)[2], CHAMFER_MM.from, CHAMFER_MM.full);
      const face = neededAt(design, at[2] / zenith) * facial + off - LEFT_MM * (1 - facial);
      // The edge is cut level, as far below the final one as its ceramic is thick.
      return Math.max(face, edgeMm - at[2]);
    });
  };
}
