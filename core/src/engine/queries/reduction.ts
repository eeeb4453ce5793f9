import { toothOf } from '../../contour/fit.js';
import { reductionOf, type ToothReduction } from '../../reduction/plan.js';
import type { Mouth } from '../../reduction/removal.js';
import { type ToothSection, toothSection } from '../../reduction/section.js';
import type { CutFrom } from '../../reduction/strategies/index.js';
import { type DesignChoice, restorationOf } from '../../restoration/restoration.js';
import type { Fdi } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';

/** Reduction targets of every planned tooth of either jaw that stands in its scan. */
export const reductions = (
  engine: CaseEngine,
  choice: DesignChoice,
  from: CutFrom,
  mouth: Mouth = {},
): ToothReduction[] => engine.teeth().map((tooth) => reduction(engine, tooth, choice, from, mouth));

/** Reduction targets of one planned tooth. @throws Refusal of `CaseEngine.crown` */
export function reduction(
  engine: CaseEngine,
  tooth: Fdi,
  choice: DesignChoice,
  from: CutFrom,
  mouth: Mouth = {},
): ToothReduction {
  const { design } = restorationOf(tooth, choice);
  const history = `${mouth.acid ? 'acid' : ''} ${mouth.grinding ? 'grinding' : ''}`;
  return engine.once(tooth, `reduction ${design.id} ${from} ${history}`, (planned, arch) =>
    reductionOf(toothOf(arch, tooth), planned, design, from, mouth),
  );
}

/** The section of one planned tooth with the target of its preparation. @throws Refusal of `CaseEngine.crown` */
export function sectionOf(engine: CaseEngine, tooth: Fdi, choice: DesignChoice): ToothSection {
  const { design } = restorationOf(tooth, choice);
  return engine.once(tooth, `section ${design.id}`, (planned, arch) =>
    toothSection(toothOf(arch, tooth).field.mesh, planned, design),
  );
}
