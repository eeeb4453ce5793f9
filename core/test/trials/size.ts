import {
  asSegmented,
  existingArch,
  type Fdi,
  inMouthOf,
  type Jaw,
  laidByShape,
  lookedAnew,
  pickedCrowns,
  pickTeeth,
  repaired,
} from '@radiant/core';
import { makePatient, scatteredRecipe, WHOLE_SCANNER, wholeJaw } from '@radiant/standins';
import { keptJaw } from './kept-jaw.js';

/** What is measured on one picked tooth against what was modelled, mm. */
export interface SizeTrial {
  readonly tooth: Fdi;
  readonly widthOff: number;
  readonly lengthOff: number;
  readonly fitMm: number;
  readonly seenWidthOff: number;
  readonly seenLengthOff: number;
  /** How much the length changes where the jaw is laid seven degrees steeper. */
  readonly tiltedBy: number;
}

export function sizeTrial(jaw: Jaw): SizeTrial[] {
  const patient = makePatient(scatteredRecipe(611));
  const whole = keptJaw(['size', jaw], () => wholeJaw(patient, jaw, { ...WHOLE_SCANNER, seed: 611 }));
  const { mesh } = repaired(whole.mesh);
  const { look } = laidByShape(mesh, jaw);
  const picked = pickTeeth(look, look.teeth);
  const arch = existingArch(asSegmented(inMouthOf(look), picked.triangles, jaw));
  const [s, c] = [Math.sin((7 * Math.PI) / 180), Math.cos((7 * Math.PI) / 180)];
  const tilted = pickedCrowns(
    lookedAnew(look, { origin: [0, 0, 0], x: [1, 0, 0], y: [0, c, s], z: [0, -s, c] }),
    picked.vertices,
  );
  return (jaw === 'upper' ? patient.teeth : patient.lower).map(({ tooth, crown }) => {
    const own = arch.teeth.get(tooth)!;
    const seen = picked.crowns.get(tooth)!;
    return {
      tooth,
      widthOff: own.widthMm - crown.size.widthMm,
      lengthOff: own.lengthMm - crown.size.lengthMm,
      fitMm: own.fitMm,
      seenWidthOff: seen.widthMm - crown.size.widthMm,
      seenLengthOff: seen.lengthMm - crown.size.lengthMm,
      tiltedBy: tilted.get(tooth)!.lengthMm - seen.lengthMm,
    };
  });
}
