import { type ReflectingFace, reflectingFace } from '../../contour/reflecting-face.js';
import type { Fdi, Jaw } from '../../teeth/notation.js';
import { jawOf } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';

/** What the eye takes for a tooth's width, as it is and as planned. */
export interface FaceOfTooth {
  readonly tooth: Fdi;
  readonly now?: ReflectingFace;
  /** Of teeth that are planned. */
  readonly planned?: ReflectingFace;
}

/** The reflecting faces of a jaw's teeth. @throws Refusal of `CaseEngine.arch` */
export function faces(engine: CaseEngine, jaw: Jaw): FaceOfTooth[] {
  const crowns = engine.crowns();
  return [...engine.arch(jaw).teeth.values()]
    .filter((t) => t.tooth % 10 <= 3)
    .map((t) => {
      const now = reflectingFace(t.field.mesh, t.frame, t.lengthMm);
      const crown = crowns.get(t.tooth);
      const planned =
        crown && jawOf(t.tooth) === jaw
          ? reflectingFace(crown.mesh, crown.frame, engine.contour[t.tooth]?.lengthMm ?? t.lengthMm)
          : undefined;
      return { tooth: t.tooth, ...(now && { now }), ...(planned && { planned }) };
    });
}
