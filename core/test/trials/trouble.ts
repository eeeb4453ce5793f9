import {
  box,
  type Fdi,
  frameToArch,
  type Jaw,
  laidByShape,
  pickTeeth,
  placeMesh,
  repaired,
  toLocal,
  toParent,
} from '@radiant/core';
import { makePatient, type PatientTooth, WHOLE_SCANNER, wholeJaw } from '@radiant/standins';
import { recipeOf, truthOn } from './jaws.js';
import { keptJaw } from './kept-jaw.js';
import type { Said } from './pick.js';

/** Stands on the middle of a tooth's face: 3.4 mm wide, 3 high, a good millimetre and a half out of it. */
function bracketOn(t: PatientTooth): PatientTooth {
  const p = t.crown.mesh.positions;
  const up = 0.45 * t.crown.size.lengthMm;
  let face = 0;
  for (let v = 0; v < p.length; v += 3)
    if (Math.abs(p[v + 2]! - up) < 0.4 && Math.abs(p[v]!) < 0.5) face = Math.min(face, p[v + 1]!);
  const wide = t.tooth > 40 && t.tooth % 10 < 3 ? 2.8 : 3.4;
  return { ...t, mesh: placeMesh(box(wide, 2.4, 3), { ...t.frame, origin: toParent(t.frame, [0, face - 0.4, up]) }) };
}

/** A tooth whose corner to where x grows, or whose whole edge, is broken off by so many mm. */
function brokenOff(t: PatientTooth, jaw: Jaw, what: 'corner' | 'edge', mm: number): PatientTooth {
  const frame = frameToArch(jaw, t.frame);
  const half = t.crown.size.widthMm / 2;
  const cut = (places: Float64Array) =>
    new Float64Array(places.length / 3).map((_, i) => {
      const [x, , z] = toLocal(frame, [places[3 * i]!, places[3 * i + 1]!, places[3 * i + 2]!]);
      return what === 'edge' ? mm - z + 0.2 * x : (x - z - half + mm) / Math.SQRT2;
    });
  return { ...t, cut };
}

/**
 * How much of a crown is broken off, as a share. A lower lateral that has lost more than two fifths is not picked as a
 * tooth any more: docs/decisions/own-scans.md.
 */
const GONE = 0.4;

export interface TroubleTrial {
  readonly seed: number;
  readonly jaw: Jaw;
  readonly what: 'brackets' | 'broken';
  readonly corner: Fdi;
  readonly half: Fdi;
  readonly doubts: readonly Said[];
  readonly halfIou: number;
}

/**
 * What is said of jaws with brackets from canine to canine, and of jaws with a central's corner and two fifths of a
 * lateral gone.
 */
export function troubleTrials(seed: number, jaw: Jaw): TroubleTrial[] {
  const patient = makePatient(recipeOf(seed));
  const row = jaw === 'upper' ? patient.teeth : patient.lower;
  const corner = jaw === 'upper' ? 11 : 41;
  const lengthOf = (tooth: Fdi) => row.find((t) => t.tooth === tooth)?.crown.size.lengthMm ?? 0;
  // The shorter of the two laterals: what a stump has lost is told beside its fellow, and one that is short itself
  // would hide it.
  const laterals: readonly Fdi[] = jaw === 'upper' ? [12, 22] : [32, 42];
  const half = [...laterals].sort((a, b) => lengthOf(a) - lengthOf(b) || a - b)[0] as Fdi;
  const damage = (t: PatientTooth) =>
    t.tooth === corner
      ? brokenOff(t, jaw, 'corner', 3.2)
      : t.tooth === half
        ? brokenOff(t, jaw, 'edge', GONE * t.crown.size.lengthMm)
        : t;
  const brackets = row.filter((t) => t.tooth % 10 <= 3).map(bracketOn);
  const damaged = { ...patient, [jaw === 'upper' ? 'teeth' : 'lower']: row.map(damage) };
  return [['brackets', patient, brackets] as const, ['broken', damaged, []] as const].map(([what, mouth, over]) => {
    const whole = keptJaw([what, seed, jaw], () => wholeJaw(mouth, jaw, { ...WHOLE_SCANNER, seed }, over));
    const { mesh } = repaired(whole.mesh);
    const { look } = laidByShape(mesh, jaw, undefined, new Set(patient.recipe.missing));
    const { doubts, triangles } = pickTeeth(look, look.teeth);
    const truth = truthOn(mesh, whole);
    let [both, either] = [0, 0];
    triangles.forEach((t, i) => {
      if (t !== half && truth[i] !== half) return;
      either++;
      if (t === truth[i]) both++;
    });
    return { seed, jaw, what, corner, half, doubts, halfIou: both / either };
  });
}
