import { type AlignedTooth, movedInto, removedBetween } from '../../contour/align-first.js';
import { type CrownTarget, firstContour, type PlannedTooth } from '../../contour/plan.js';
import { proposedCrowns as proposed, type RoomMade } from '../../contour/proposed.js';
import { WORLD } from '../../geometry/frame.js';
import type { Mesh } from '../../geometry/mesh.js';
import { signedField } from '../../geometry/tree/signed.js';
import { proudFace } from '../../reduction/plan.js';
import type { EnamelState } from '../../reduction/removal.js';
import type { Fdi } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';

/** The upper plan with the crowns of a proposal in it; crowns without a target stay as they are. */
export const proposedCrowns = (engine: CaseEngine, targets: readonly (readonly [Fdi, CrownTarget])[]): RoomMade =>
  proposed(engine.arch('upper'), new Map(targets), engine.contour);

/** What moving a tooth first would save, of its volume and of its enamel. */
export interface MovedFirst extends AlignedTooth {
  /** How far it stands proud of the plan on its face, mm, and what bringing it into line leaves of its enamel there. */
  readonly proudMm: number;
  readonly enamel: EnamelState;
  /** The same after it was moved. */
  readonly alignedProudMm: number;
  readonly alignedEnamel: EnamelState;
}

/**
 * What moving the upper teeth first would save: under the contour that there is, or, before there is one, under a first
 * contour for the targets.
 */
export function alignedFirst(engine: CaseEngine, targets?: readonly (readonly [Fdi, CrownTarget])[]): MovedFirst[] {
  const arch = engine.arch('upper');
  return movedInto(arch, targets ? firstContour(arch, new Map(targets)) : engine.contour).map((t): MovedFirst => {
    const [now, aligned] = [
      worstOf(t.tooth, t.stands, t.planned, t.crown),
      worstOf(t.tooth, t.moved, t.plannedMoved, t.crown),
    ];
    return {
      tooth: t.tooth,
      removedMm3: removedBetween(t.stands, t.planned),
      removedAlignedMm3: removedBetween(t.moved, t.plannedMoved),
      proudMm: now.proudMm,
      enamel: now.enamel,
      alignedProudMm: aligned.proudMm,
      alignedEnamel: aligned.enamel,
    };
  });
}

/** What bringing a face into line with the plan takes at its worst place, nothing cut for a restoration. */
const worstOf = (tooth: Fdi, there: Mesh, planned: Mesh, crown: PlannedTooth['crown']) =>
  proudFace(signedField(there), { tooth, crown, frame: WORLD, mesh: planned });
