import type { Design } from '../restoration/design.js';
import type { FacialThird } from '../teeth/norms.js';
import type { Fdi } from '../teeth/notation.js';

/** At the gum a veneer that is only added ends in a step: over this it is felt and holds plaque, mm. House value. */
export const STEP_FELT_MM = 0.25;
/** Thinner ceramic lets the tooth's own colour through, mm. Common practice, no source. */
const MASKS_MM = 0.5;

/**
 * What a veneer comes to for which nothing is cut: whether the plan leaves room for ceramic in a third, and what its edge
 * at the gum would be.
 * @param room what the plan leaves, mm: but for the thinnest twentieth of the third, and in its middle
 * @param stepMm how thick it would be right at the gum, mm; of the cervical third
 */
export function noPrepSentence(
  tooth: Fdi,
  third: FacialThird,
  { leastMm }: Design,
  room: { readonly thin: number; readonly middle: number },
  stepMm?: number,
): { readonly weight: 'watch' | 'good' | 'stop'; readonly text: string } {
  const name = `{${tooth}}, ${third}:`;
  const step =
    stepMm !== undefined && stepMm > STEP_FELT_MM
      ? ` At the gum its edge would be ${stepMm.toFixed(2)} mm thick: a step that is felt and hard to keep clean; run it out to nothing, or cut a finish line.`
      : '';
  if (room.thin < leastMm - 0.005) {
    const there = Math.max(0, room.thin).toFixed(2);
    return {
      weight: room.middle < leastMm ? 'stop' : 'watch',
      text: `${name} the plan leaves ${there} mm where it is thinnest, and ceramic is made from ${leastMm.toFixed(1)} mm. ${(leastMm - room.thin).toFixed(2)} mm more volume there, or a design that is cut.${step}`,
    };
  }
  if (step) return { weight: 'watch', text: `${name} room enough, ${room.thin.toFixed(2)} mm and more.${step}` };
  const colour = room.middle < MASKS_MM ? ` Under ${MASKS_MM.toFixed(1)} mm the tooth’s own colour shows through.` : '';
  return { weight: 'good', text: `${name} room for ceramic, ${room.thin.toFixed(2)} mm and more.${colour}` };
}
