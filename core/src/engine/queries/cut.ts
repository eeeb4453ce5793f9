import { frameToArch } from '../../contour/arch.js';
import { inMouth } from '../../contour/plan.js';
import type { Frame } from '../../geometry/frame.js';
import type { Mesh } from '../../geometry/mesh.js';
import { type SectionLine, section } from '../../geometry/section.js';
import { type Fdi, jawOf } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';

/** Lines of one plane through everything, in the plane's own coordinates, mm. */
export interface CutView {
  readonly existing: readonly SectionLine[];
  readonly planned: readonly SectionLine[];
  readonly lower: readonly SectionLine[];
}

/** Everything that a plane in the mouth's coordinates meets. */
export function cut(engine: CaseEngine, plane: Frame): CutView {
  const lines = (meshes: Iterable<Mesh>) => [...meshes].flatMap((m) => section(m, plane));
  return {
    existing: lines([...engine.arch('upper').teeth.values()].map((t) => t.field.mesh)),
    planned: lines([...engine.crowns().values()].map((p) => inMouth(p).mesh)),
    lower: engine.has('lower') ? lines(engine.scan('lower').teeth.values()) : [],
  };
}

/** Frame of a tooth as planned, or as it stands, in the mouth's coordinates. */
export function frameOf(engine: CaseEngine, tooth: Fdi): Frame | undefined {
  const frame =
    engine.crowns().get(tooth)?.frame ??
    (engine.isMeasured(jawOf(tooth)) ? engine.archOf(tooth).teeth.get(tooth)?.frame : undefined);
  return frame && frameToArch(jawOf(tooth), frame);
}
