import { type ExistingArch, type ExistingTooth, roomBetween } from '../../contour/fit.js';
import { type ContourPlan, planOfExisting, type ToothPlan, takenIn } from '../../contour/plan.js';
import { toParent } from '../../geometry/frame.js';
import { type Fdi, type Jaw, opposite, sideOf } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';

/** What is measured of a tooth that is there, mm and degrees. */
export interface ExistingSummary {
  readonly tooth: Fdi;
  readonly lengthMm: number;
  readonly widthMm: number;
  readonly wearMm: number;
  readonly rotationDeg: number;
  readonly fitMm: number;
  /**
   * Levels of edge and zenith over the lower central edge of an upper jaw, up positive; in an arch's own frame for a
   * lower one.
   */
  readonly edgeUpMm: number;
  readonly zenithUpMm: number;
  /** How far to the patient's left its edge lies, mm. */
  readonly acrossMm: number;
  /** Room to the next tooth towards the midline, of a left central across it, mm. */
  readonly gapMesialMm?: number;
}

/** The teeth of a jaw as they are measured. @throws Refusal of `CaseEngine.arch` */
export const existing = (engine: CaseEngine, jaw: Jaw): ExistingSummary[] => summary(engine.arch(jaw));

function summary(of: ExistingArch): ExistingSummary[] {
  const levelOf = (t: ExistingTooth, mm: number) => toParent(t.frame, [0, 0, mm])[2];
  const all = [...of.teeth.values()];
  const lowest = Math.min(...all.filter((t) => t.tooth % 10 === 1).map((t) => levelOf(t, 0)));
  return all.map((t) => {
    const { tooth, lengthMm, widthMm, wearMm, rotationDeg, fitMm } = t;
    const [edgeUpMm, zenithUpMm] = [levelOf(t, 0) - lowest, levelOf(t, t.zenithMm) - lowest];
    const gapMesialMm = gapMesial(t, all);
    return {
      tooth,
      lengthMm,
      widthMm,
      wearMm,
      rotationDeg,
      fitMm,
      edgeUpMm,
      zenithUpMm,
      acrossMm: t.frame.origin[0],
      ...(gapMesialMm !== undefined && { gapMesialMm }),
    };
  });
}

/** Room between a tooth and the next one towards the midline that is there, by their middles and widths, mm. */
function gapMesial(t: ExistingTooth, all: readonly ExistingTooth[]): number | undefined {
  const mesial =
    all
      .filter((o) => Math.trunc(o.tooth / 10) === Math.trunc(t.tooth / 10) && o.tooth < t.tooth)
      .sort((a, b) => b.tooth - a.tooth)[0] ??
    (sideOf(t.tooth) === 'left' ? all.find((o) => o.tooth === opposite(t.tooth - (t.tooth % 10) + 1)) : undefined);
  return mesial && roomBetween(t, mesial);
}

/** The upper front teeth as they are, as a contour. */
export const existingPlan = (engine: CaseEngine): ContourPlan => planOfExisting(engine.arch('upper'));

/** A further tooth as it would be taken into the plan, as it stands. */
export const asItStands = (engine: CaseEngine, tooth: Fdi): ToothPlan =>
  takenIn(engine.archOf(tooth), engine.contour, tooth);
