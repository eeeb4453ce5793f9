import type { SectionName } from '@radiant/contract';
import { type Fdi, UPPER_SIX, UPPER_TEN } from '@radiant/core';

/** The stages that have a screen, in the order of the journey. */
export const STAGES: readonly { readonly name: string; readonly question: string; readonly section?: SectionName }[] = [
  { name: 'meet', question: 'who, what do they want, by when, what must we beware of', section: 'meet' },
  { name: 'read', question: 'what is there, what deviates, would anyone notice', section: 'read' },
  { name: 'propose', question: 'how long, how wide, where is the edge', section: 'propose' },
  { name: 'shape', question: 'what will it look like, what is added, what removed', section: 'shape' },
  { name: 'reduce', question: 'how much where, with which bur, what enamel is left', section: 'reduce' },
  { name: 'keep', question: 'what was decided; hand it over' },
];

/** The teeth that can be chosen on a stage: premolars are shaped, but not measured or prepared. */
export const teethOf = (stage: string): readonly Fdi[] => (stage === 'shape' ? UPPER_TEN : UPPER_SIX);
