import { meshToArch } from '../../contour/arch.js';
import { toothOf } from '../../contour/fit.js';
import type { Mesh } from '../../geometry/mesh.js';
import type { Vec3 } from '../../geometry/vec.js';
import { reductionOf, type ToothReduction } from '../../reduction/plan.js';
import type { Mouth } from '../../reduction/removal.js';
import { type ToothSection, toothSection } from '../../reduction/section.js';
import type { CutFrom } from '../../reduction/strategies/index.js';
import { type TargetSurface, targetOf } from '../../reduction/target.js';
import { type TargetTold, targetTold } from '../../reduction/target-zones.js';
import { designKey } from '../../restoration/design.js';
import { type DesignChoice, restorationOf } from '../../restoration/restoration.js';
import { type Fdi, jawOf } from '../../teeth/notation.js';
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
  return engine.once(tooth, `reduction ${designKey(design)} ${from} ${history}`, (planned, arch) =>
    reductionOf(toothOf(arch, tooth), planned, design, from, mouth),
  );
}

/** The section of one planned tooth with the target of its preparation. @throws Refusal of `CaseEngine.crown` */
export function sectionOf(engine: CaseEngine, tooth: Fdi, choice: DesignChoice): ToothSection {
  const { design } = restorationOf(tooth, choice);
  return engine.once(tooth, `section ${designKey(design)}`, (planned, arch) =>
    toothSection(toothOf(arch, tooth).field.mesh, planned, design),
  );
}

/** A target preparation in the mouth's coordinates, and what it comes to. */
export interface ToldTarget {
  readonly surface: TargetSurface;
  /** The tooth as it is and as it is to be prepared, vertex for vertex; of an upper one those of the surface. */
  readonly before: Mesh;
  readonly mesh: Mesh;
  readonly finishLine: readonly Vec3[];
  readonly told: TargetTold;
}

/** The target preparation of one planned tooth that stands in its scan. @throws Refusal of `CaseEngine.crown` */
export function target(engine: CaseEngine, tooth: Fdi, choice: DesignChoice, mouth: Mouth = {}): ToldTarget {
  const { design } = restorationOf(tooth, choice);
  const surface = engine.once(tooth, `target ${designKey(design)}`, (planned, arch) =>
    targetOf(toothOf(arch, tooth), planned, design, ({ height }, make) =>
      engine.once(tooth, `target rays ${height}`, make),
    ),
  );
  const jaw = jawOf(tooth);
  const inMouth = (m: Mesh) => (jaw === 'upper' ? m : meshToArch(jaw, m));
  const line = inMouth({ positions: Float64Array.from(surface.finishLine.flat()), triangles: new Uint32Array() });
  return {
    surface,
    before: inMouth(surface.before),
    mesh: inMouth(surface.mesh),
    finishLine: surface.finishLine.map((_, i) => line.positions.subarray(3 * i, 3 * i + 3) as unknown as Vec3),
    told: targetTold(surface, mouth),
  };
}
