import { COMMON_PRACTICE } from '../../working/working.js';
import type { AtVisit } from '../at-visit.js';
import { gate } from '../gates.js';
import { ifSet, type Rule } from '../step.js';

const C = COMMON_PRACTICE;

/** Numbing, wherever something is cut. */
export const NUMB: Rule<AtVisit> = {
  id: 'numb',
  does: 'Anaesthesia; wait until it is there.',
  times: [300],
  hand: ['anaesthetic'],
  why: 'A patient at rest keeps still.',
  source: C,
  beware: (f) =>
    [
      ifSet<AtVisit>('pressure', 'Blood pressure or heart: as little epinephrine as will do, or none.')(f),
      ifSet<AtVisit>('pregnancy', 'Pregnant: what can wait, waits; by local rules.')(f),
      ifSet<AtVisit>('medicines', 'Takes medicines: look at the record before.')(f),
      ifSet<AtVisit>('allergy', 'Allergy: look at the record before.')(f),
    ]
      .filter((s) => s !== undefined)
      .join(' ') || undefined,
};

export const TISSUE: readonly Rule<AtVisit>[] = [
  gate('contour'),
  NUMB,
  {
    id: 'bone-sounded',
    does: 'Sound the bone with a probe at three places of each tooth; note each.',
    hand: ['probe'],
    why: 'Gum that is cut nearer to bone than about 3 mm grows back or stays red.',
    source: C,
  },
  {
    id: 'new-line-marked',
    does: 'Guide or index in: mark the new line, highest where the plan has it.',
    hand: ['gum guide', 'marker'],
    why: 'A line by eye follows the old one.',
    source: C,
  },
  {
    id: 'gum-cut',
    when: ({ tissue }) => tissue === 'gum',
    does: 'Contour the gum to the line, bevelled; the papilla stays.',
    hand: ['laser, blade or electrosurgery'],
    why: 'A papilla that is cut does not come back.',
    source: C,
    beware: (f) =>
      [
        ifSet<AtVisit>('bleeding', 'Bleeds easily: ask about medicines before anything is cut.')(f),
        ifSet<AtVisit>('pressure', 'Heart: no electrosurgery where something electric is implanted.')(f),
      ]
        .filter((s) => s !== undefined)
        .join(' ') || undefined,
  },
  {
    id: 'bone-cut',
    when: ({ tissue }) => tissue === 'bone',
    does: 'Flap; bone to about 3 mm from the line that is wanted; sutures.',
    hand: ['surgical tray, sutures'],
    why: 'The attachment wants its room: without it the gum comes back.',
    source: C,
    beware: ifSet('bleeding', 'Bleeds easily: ask about medicines before anything is cut.'),
  },
];
