import { COMMON_PRACTICE } from '../../working/working.js';
import type { AtVisit } from '../at-visit.js';
import { gate } from '../gates.js';
import { pairsOf, untouchedContacts } from '../seat-order.js';
import { named, type Rule } from '../step.js';

const C = COMMON_PRACTICE;
const own = (f: AtVisit) => f.pieces.map((p) => p.tooth);
const outer = (f: AtVisit) => untouchedContacts(own(f), f.present);
const contacts = (pairs: readonly (readonly [number, number])[]) => pairs.map(([a, b]) => `{${a}}–{${b}}`).join(', ');

/** What is tried before anything is fixed. */
export const TRY_IN: readonly Rule<AtVisit>[] = [
  {
    id: 'cement-off',
    when: ({ mouth }) => mouth.provisional,
    does: (f) => `Every trace of provisional cement off ${named(own(f))}; look into the finish line.`,
    hand: ['scaler', 'pumice', 'loupes'],
    why: 'The commonest reason why a piece does not go home.',
    source: C,
  },
  {
    id: 'margins-alone',
    does: (f) => `One at a time: the margins of ${named(own(f))}, each alone.`,
    hand: ['explorer', 'fitting paste'],
    why: 'Two at once hide which of them stands up.',
    source: C,
  },
  {
    id: 'outer-contacts',
    when: (f) => outer(f).length > 0,
    does: (f) => `Contacts to teeth that stay, first: ${contacts(outer(f))}.`,
    hand: ['floss', 'thin paper'],
    why: 'They don’t move: everything else is fitted between them.',
    source: C,
  },
  {
    id: 'pairs-together',
    when: (f) => pairsOf(own(f)).length > 0,
    does: (f) =>
      `Then by pairs: ${contacts(pairsOf(own(f)))}. Home alone and open together: that contact is too tight.`,
    hand: ['thin paper', 'polisher'],
    why: 'Between pieces only the pair shows it.',
    source: C,
  },
  gate('margins'),
  gate('colour'),
  gate('word'),
];

/** A try-in in a visit of its own ends with the provisional back. */
export const PROVISIONAL_BACK: readonly Rule<AtVisit>[] = [
  {
    id: 'provisional-back',
    when: ({ mouth }) => mouth.provisional,
    does: 'Provisional back, on temporary cement without eugenol; clean.',
    times: [240],
    hand: ['temporary cement, no eugenol', 'floss'],
    why: 'Eugenol keeps resin from setting, and resin follows.',
    source: C,
  },
];
