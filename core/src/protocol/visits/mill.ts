import { COMMON_PRACTICE } from '../../working/working.js';
import type { AtVisit } from '../at-visit.js';
import type { Rule } from '../step.js';

const C = COMMON_PRACTICE;

/** What the house's own mill leaves to do, when the patient is gone. */
export const MILL: readonly Rule<AtVisit>[] = [
  {
    id: 'mill-tried',
    does: 'Try the milled pieces on the printed model: margins, contacts.',
    hand: ['printed model', 'thin paper'],
    why: 'What does not fit here is milled again before the patient comes.',
    source: C,
  },
  {
    id: 'mill-shaped',
    does: 'Mark the line angles with pencil; sharpen them, cut the depressions between the lobes.',
    hand: ['pencil', 'fine diamonds, little pressure'],
    why: 'A mill rounds everything: line angles carry the light, and with it the width.',
    source: C,
  },
  {
    id: 'mill-stained',
    does: 'Stain so thinly that it can be polished back; fire.',
    hand: ['stains', 'furnace'],
    why: 'Colour that is on top is what can still be changed at the try-in.',
    source: C,
  },
  {
    id: 'mill-glazed',
    does: 'Glaze on a support that does not touch the inside; fire; cool slowly.',
    hand: ['glaze', 'support paste, pins', 'furnace'],
    why: 'Glaze inside is a piece that does not go home.',
    source: C,
  },
];
