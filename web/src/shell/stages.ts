import type { SectionName } from '@radiant/contract';
import { type Fdi, isUpper, LOWER_TEN, UPPER_SIX, UPPER_TEN } from '@radiant/core';

/** The stages that have a screen, in the order of the journey. */
export const STAGES: readonly { readonly name: string; readonly question: string; readonly section?: SectionName }[] = [
  { name: 'meet', question: 'who, what do they want, by when, what must we beware of', section: 'meet' },
  { name: 'read', question: 'what is there, what deviates, would anyone notice', section: 'read' },
  { name: 'propose', question: 'how long, how wide, where is the edge', section: 'propose' },
  { name: 'shape', question: 'what will it look like, what is added, what removed', section: 'shape' },
  { name: 'reduce', question: 'how much where, with which bur, what enamel is left', section: 'reduce' },
  { name: 'keep', question: 'what was decided; hand it over' },
];

/** The teeth that can be chosen on a stage beside the chosen one: premolars and lower teeth are shaped, but not measured or prepared. */
export const teethOf = (stage: string, tooth: Fdi): readonly Fdi[] => (stage !== 'shape' ? UPPER_SIX : isUpper(tooth) ? UPPER_TEN : LOWER_TEN);

/** The tooth of the other jaw that stands across. */
export const acrossFrom = (tooth: Fdi): Fdi => (tooth < 20 ? tooth + 30 : tooth < 30 ? tooth + 10 : tooth < 40 ? tooth - 10 : tooth - 30);
