import { meshToArch } from '../../contour/arch.js';
import { toothOf } from '../../contour/fit.js';
import { columnOf } from '../../direct/missing.js';
import { type DirectBodies, USUAL_WORK } from '../../direct/plan.js';
import type { DirectSettings, DirectWork } from '../../direct/words.js';
import { troughRim } from '../../direct/worn.js';
import { type Mesh, meshInFrame, placeMesh } from '../../geometry/mesh.js';
import { type Fdi, jawOf } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';
import { bodiesOn, directLayers, missingOn, type PlacedBody } from './direct.js';

/** What a place of the tooth is to the work that is done on it. */
export const TOOTH_PLACES = ['tooth', 'worn face', 'dentin that is troughed', 'bevel', 'break', 'dent'] as const;
export type ToothPlace = (typeof TOOTH_PLACES)[number];

/** A tooth as it stands with what composite fills, in the mouth's coordinates. */
export interface DirectView {
  readonly tooth: Fdi;
  /** The tooth as it was scanned, and what each vertex of it is, as a number of `TOOTH_PLACES`. */
  readonly mesh: Mesh;
  readonly places: Uint8Array;
  readonly bodies: readonly PlacedBody[];
  /** The border of the trough on the worn face: two places a stretch, three numbers a place. */
  readonly rim: Float64Array;
  /** The surface of a break that is drawn and that no scan shows. */
  readonly broken?: Mesh;
}

/** Nearer to the tooth's outer surface than this a vertex lies on it, mm. */
const ON_MM = 0.15;
/** A bevel that takes less than this is none, mm. */
const CUT_MM = 0.02;

/** What is worked on a planned tooth, to be looked at. @throws Refusal `nothing-missing`; of `CaseEngine.crown` */
export function directView(
  engine: CaseEngine,
  tooth: Fdi,
  s: DirectSettings,
  work: DirectWork = USUAL_WORK,
): DirectView {
  const { frame } = engine.crown(tooth);
  const jaw = jawOf(tooth);
  const { mesh } = toothOf(engine.archOf(tooth), tooth).field;
  const bodies = bodiesOn(engine, tooth, s, work);
  const { worn, face } = bodies;
  const inMouth = (m: Mesh) => meshToArch(jaw, placeMesh(m, frame));
  const rim = worn ? troughRim(worn).flat() : [];
  return {
    tooth,
    mesh: meshToArch(jaw, mesh),
    places: placesOf(meshInFrame(mesh, frame), bodies, missingOn(engine, tooth)),
    bodies: directLayers(engine, tooth, s, work),
    rim: inMouth({ positions: Float64Array.from(rim), triangles: new Uint32Array() }).positions,
    ...(work.broken && face && { broken: inMouth(face.mesh) }),
  };
}

const PLACE = Object.fromEntries(TOOTH_PLACES.map((name, i) => [name, i])) as Readonly<Record<ToothPlace, number>>;

/**
 * What each vertex of a tooth is.
 * @param own in the crown's own frame
 * @param before what was missing without a bevel
 */
function placesOf(
  own: Mesh,
  { missing, worn, face, dent, work }: DirectBodies,
  before: DirectBodies['missing'],
): Uint8Array {
  const { positions: p } = own;
  const out = new Uint8Array(p.length / 3);
  for (let v = 0; v < out.length; v++) {
    const [x, y, z] = [p[3 * v] as number, p[3 * v + 1] as number, p[3 * v + 2] as number];
    const column = columnOf(missing, x, z);
    const [was, is] = [before.stands.get(column), missing.stands.get(column)];
    const cut =
      was &&
      is &&
      ((y < was.from + ON_MM && is.from - was.from > CUT_MM) || (y > was.to - ON_MM && was.to - is.to > CUT_MM));
    if (cut) out[v] = PLACE.bevel;
    else if (dent?.has(column) && was && y < was.from + ON_MM) out[v] = PLACE.dent;
    if (!worn) continue;
    const above = columnOf(worn, x, y);
    const top = worn.facet.get(above);
    if (top === undefined || z > top + ON_MM) continue;
    out[v] = worn.trough.has(above) ? PLACE['dentin that is troughed'] : PLACE['worn face'];
  }
  // A break that is only drawn is no surface of the scan.
  if (face && !work.broken) for (const v of face.mesh.triangles) out[v] = PLACE.break;
  return out;
}
