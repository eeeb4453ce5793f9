import { frameToArch, meshToArch } from '../../contour/arch.js';
import { toothOf } from '../../contour/fit.js';
import { inMouth } from '../../contour/plan.js';
import type { Frame } from '../../geometry/frame.js';
import type { Mesh } from '../../geometry/mesh.js';
import { type SectionLine, section } from '../../geometry/section.js';
import type { Vec3 } from '../../geometry/vec.js';
import { type BiteRoom, biteRoom } from '../../reduction/bite-room.js';
import type { HandChoice } from '../../reduction/burs/choose.js';
import { DEPTH_TOLERANCE_MM, FIRST_TRAY, type Tray } from '../../reduction/burs/tray.js';
import { cutLists, type ToothCutList } from '../../reduction/cut-list/cut-list.js';
import { reductionUnder, type ToothReduction, type UngroovedReduction, withGrooves } from '../../reduction/plan.js';
import type { Mouth } from '../../reduction/removal.js';
import { AT_AXIS, type SectionPlace, sectionPlane, type ToothSection, toothSection } from '../../reduction/section.js';
import type { CutFrom } from '../../reduction/strategies/words.js';
import { spanOf, type TargetSurface, targetOf } from '../../reduction/target.js';
import { type TargetTold, targetTold } from '../../reduction/target-zones.js';
import type { Zone } from '../../reduction/zones.js';
import { type Design, designKey } from '../../restoration/design.js';
import { type DesignChoice, restorationOf } from '../../restoration/restoration.js';
import { type Fdi, type Jaw, jawOf } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';

/** How a case's teeth are cut: the strategy, the tray, and what was chosen by hand for a place. */
export interface CutChoice extends DesignChoice {
  readonly from: CutFrom;
  /** The first tray where none is named. */
  readonly tray?: Tray | null | undefined;
  readonly toleranceMm?: number | null | undefined;
  /** What the house's mill can go round, mm of radius. */
  readonly cornerMm?: number | null | undefined;
  readonly grooves?: readonly (HandChoice & { readonly tooth: Fdi; readonly zone: Zone })[] | null | undefined;
}

/** Reduction targets of every planned tooth of either jaw that stands in its scan. */
export function reductions(engine: CaseEngine, choice: CutChoice, mouth: Mouth = {}): ToothReduction[] {
  const { from, tray, toleranceMm, grooves } = choice;
  return withGrooves(
    engine.teeth().map((tooth) => zonesOf(engine, tooth, choice, mouth)),
    from,
    { burs: (tray ?? FIRST_TRAY).burs, toleranceMm: toleranceMm ?? DEPTH_TOLERANCE_MM },
    (tooth, zone) => grooves?.find((g) => g.tooth === tooth && g.zone === zone),
  );
}

/** The zones of one planned tooth. @throws Refusal of `CaseEngine.crown` */
export function zonesOf(engine: CaseEngine, tooth: Fdi, choice: DesignChoice, mouth: Mouth): UngroovedReduction {
  const { design } = restorationOf(tooth, choice);
  const history = `${mouth.acid ? 'acid' : ''} ${mouth.grinding ? 'grinding' : ''}`;
  const surface = surfaceOf(engine, tooth, design);
  return engine.once(tooth, `zones ${designKey(design)} ${history}`, (planned, arch) => {
    const there = toothOf(arch, tooth);
    return reductionUnder(surface, there.field, planned, design, spanOf(there, planned), mouth);
  });
}

/** What is done to each tooth in which order, and with which burs. */
export function cutList(engine: CaseEngine, choice: CutChoice, mouth: Mouth = {}): ToothCutList[] {
  const teeth = reductions(engine, choice, mouth).map((reduction) => {
    const { design } = restorationOf(reduction.tooth, choice);
    return { design, reduction, told: targetTold(surfaceOf(engine, reduction.tooth, design), mouth) };
  });
  return cutLists(teeth, choice.from, (choice.tray ?? FIRST_TRAY).burs);
}

/** The section of one planned tooth with the target of its preparation. @throws Refusal of `CaseEngine.crown` */
export function sectionOf(
  engine: CaseEngine,
  tooth: Fdi,
  choice: DesignChoice,
  place: SectionPlace = AT_AXIS,
): ToothSection {
  const { design } = restorationOf(tooth, choice);
  const surface = surfaceOf(engine, tooth, design);
  const own = engine.once(tooth, `section ${designKey(design)} ${place.turnDeg} ${place.besideMm}`, (planned, arch) =>
    toothSection(toothOf(arch, tooth).field.mesh, planned, surface, place),
  );
  return { ...own, across: acrossIn(engine, tooth, sectionPlane(engine.crown(tooth), place)) };
}

/** Lines of the teeth that stand across a tooth in a plane of its own arch. */
function acrossIn(engine: CaseEngine, tooth: Fdi, plane: Frame): SectionLine[] {
  const [own, other]: readonly [Jaw, Jaw] = jawOf(tooth) === 'upper' ? ['upper', 'lower'] : ['lower', 'upper'];
  if (!engine.has(other)) return [];
  const inPlane = frameToArch(own, plane);
  const crowns = engine.crowns();
  return [...engine.scan(other).teeth].flatMap(([t, mesh]) => {
    const crown = crowns.get(t);
    return section(crown ? inMouth(crown).mesh : mesh, inPlane);
  });
}

/** A target preparation, remembered by crown and design. @throws Refusal of `CaseEngine.crown` */
export const surfaceOf = (engine: CaseEngine, tooth: Fdi, design: Design): TargetSurface =>
  engine.once(tooth, `target ${designKey(design)}`, (planned, arch) =>
    targetOf(toothOf(arch, tooth), planned, design, (axis, make) =>
      engine.once(tooth, `target rays ${JSON.stringify(axis)}`, make),
    ),
  );

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
  const surface = surfaceOf(engine, tooth, design);
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

/**
 * The room that a planned tooth's preparation leaves in the bite, against the thickness that is needed there; nothing
 * without a lower jaw. @throws Refusal of `CaseEngine.crown`
 */
export function roomInBite(engine: CaseEngine, tooth: Fdi, choice: DesignChoice): BiteRoom[] | undefined {
  const bite = engine.bite();
  if (!bite) return undefined;
  const { design } = restorationOf(tooth, choice);
  const surface = surfaceOf(engine, tooth, design);
  const jaw = jawOf(tooth);
  const mesh = jaw === 'upper' ? surface.mesh : meshToArch(jaw, surface.mesh);
  return biteRoom(surface, design, bite.room(tooth, mesh, engine.crowns()));
}
