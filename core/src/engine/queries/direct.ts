import { meshToArch } from '../../contour/arch.js';
import { toothOf } from '../../contour/fit.js';
import { bodyOf } from '../../direct/layers.js';
import type { Missing } from '../../direct/missing.js';
import {
  breakOf,
  type DirectBodies,
  type DirectPlan,
  directBodies,
  directGround,
  directPlan,
  type LayersThrough,
  layersThrough,
  missingTo,
  USUAL_WORK,
} from '../../direct/plan.js';
import { type DirectSettings, type DirectWork, type LayerName, layerWords } from '../../direct/words.js';
import { troughBody } from '../../direct/worn.js';
import { type Mesh, placeMesh } from '../../geometry/mesh.js';
import { type Fdi, jawOf } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';

/** What composite has to fill on a tooth, with sections at places across. */
export interface DirectTold extends DirectPlan {
  readonly sections: readonly LayersThrough[];
  /** How far the planned edge would stand in the teeth across in the closed bite, mm; 0 where it has room. */
  readonly raisesMm: number;
}

/** Where sections are drawn: at the middle and half way to each side, as shares of half the width. */
const AT = [-0.5, 0, 0.5] as const;
/** Less in the closed bite is no more than two scans are off, mm. House value. */
const RAISES_MM = 0.1;

/** What a planned tooth lacks. @throws Refusal `nothing-missing` */
export const missingOn = (engine: CaseEngine, tooth: Fdi): Missing =>
  engine.once(tooth, 'missing', (planned, arch) => missingTo(planned, toothOf(arch, tooth).field.mesh));

/** What is filled on a planned tooth, layer by layer. @throws Refusal `nothing-missing` */
export function bodiesOn(engine: CaseEngine, tooth: Fdi, s: DirectSettings, work: DirectWork): DirectBodies {
  const planned = engine.crown(tooth);
  const own = toothOf(engine.archOf(tooth), tooth).field.mesh;
  // What is filled stays while thicknesses change: only its layers are told anew.
  const missing = missingOn(engine, tooth);
  const key = JSON.stringify([work, s.bevelMm, s.bevelBehindMm, s.troughMm, s.wallMm]);
  const face = engine.once(tooth, `break ${JSON.stringify(work)}`, () => breakOf(planned, own, work, missing));
  const ground = engine.once(tooth, `ground ${key}`, () => directGround(planned, own, s, work, missing, face));
  return directBodies(planned, own, s, work, ground);
}

/**
 * The composite of one planned tooth. @throws Refusal `nothing-missing`; of `CaseEngine.crown`
 */
export function direct(
  engine: CaseEngine,
  tooth: Fdi,
  s: DirectSettings,
  ageYears?: number,
  work: DirectWork = USUAL_WORK,
): DirectTold {
  const bodies = bodiesOn(engine, tooth, s, work);
  const { grid } = bodies.missing;
  const half = ((grid.na - 1) * grid.step) / 2;
  const middle = grid.a0 + half;
  const plan = directPlan(engine.crown(tooth), bodies, s, ageYears);
  const raisesMm = raisedBy(engine, tooth);
  return {
    ...plan,
    raisesMm,
    notes:
      raisesMm > RAISES_MM
        ? [
            {
              state: 'stop',
              says: `{${tooth}}: the plan stands ${raisesMm.toFixed(1)} mm in the teeth across: there is no room, and the bite would be raised. Make room in shape, or plan the height of the bite with the whole mouth first.`,
            },
            ...plan.notes,
          ]
        : plan.notes,
    sections: AT.map((share) => layersThrough(bodies, middle + share * half)),
  };
}

/** By how much more than now a planned tooth stands in those across when the jaws are closed, mm. */
function raisedBy(engine: CaseEngine, tooth: Fdi): number {
  const bite = engine.bite();
  if (!bite) return 0;
  const least = (all: readonly { tooth: Fdi; spaceMm: number }[]) =>
    all.filter((c) => c.tooth === tooth).reduce((n, c) => Math.min(n, c.spaceMm), Infinity);
  const [planned, now] = [least(bite.closed(engine.crowns())), least(bite.closed(undefined))];
  return Number.isFinite(planned) ? Math.max(0, Math.min(0, now) - planned) : 0;
}

/** One of the bodies that are placed, in the mouth's coordinates. */
export interface PlacedBody {
  readonly layer: LayerName | 'core';
  readonly name: string;
  readonly mesh: Mesh;
}

/** The layers of a tooth as closed bodies in the mouth's coordinates, in the order in which they are placed. */
export function directLayers(
  engine: CaseEngine,
  tooth: Fdi,
  s: DirectSettings,
  work: DirectWork = USUAL_WORK,
): PlacedBody[] {
  const { missing, layers, worn } = bodiesOn(engine, tooth, s, work);
  const placed = (layer: LayerName | 'core', mesh: Mesh): PlacedBody => ({
    layer,
    name: layerWords(layer),
    mesh: meshToArch(jawOf(tooth), placeMesh(mesh, engine.crown(tooth).frame)),
  });
  const core = worn && worn.trough.size > 0 ? [placed('core', troughBody(worn))] : [];
  return [...core, ...layers.map((l) => placed(l.name, bodyOf(l, missing)))].filter((b) => b.mesh.triangles.length > 0);
}
