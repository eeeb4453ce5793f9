import { COMMON_PRACTICE } from '../../working/working.js';
import type { AtVisit } from '../at-visit.js';
import { ifSet, type Rule } from '../step.js';

const C = COMMON_PRACTICE;

/** When everything is fixed. */
export const FINISHING: readonly Rule<AtVisit>[] = [
  {
    id: 'cement-looked-for',
    does: 'Look for cement all round: sulcus, between, behind.',
    hand: ['scaler', 'loupes', 'floss'],
    why: 'What stays is the red gum of next month.',
    source: C,
  },
  {
    id: 'bite-checked',
    does: 'Bite closed, to the front, to the sides; what was cut is polished.',
    hand: ['contact paper', 'fine diamond, water', 'polishers'],
    why: 'Only now: a piece that is not yet bonded breaks when it is bitten on.',
    source: C,
    beware: ifSet('grinding', 'Clenches or grinds: a guard over the finished teeth.'),
  },
  {
    id: 'photographs-after',
    does: 'Photographs; how to clean, what will feel odd, when to call.',
    hand: ['camera', 'floss'],
    why: 'What is said now is asked for tomorrow.',
    source: C,
  },
];

export const REVIEW: readonly Rule<AtVisit>[] = [
  {
    id: 'review-colour',
    does: 'Colour, a week after: the teeth are wet again.',
    hand: ['camera', 'shade tabs'],
    why: 'Teeth dry out in the chair; at a week one sees what it is.',
    source: C,
  },
  {
    id: 'review-gum',
    does: 'Gum: papillae, bleeding on touch, cement that was missed.',
    hand: ['probe', 'scaler'],
    why: 'A margin that bleeds at a week has something in it.',
    source: C,
  },
  {
    id: 'review-bite',
    does: 'Bite and floss: what has settled is polished.',
    hand: ['contact paper', 'floss', 'polishers'],
    why: 'Patients bite where they didn’t while they were numb.',
    source: C,
  },
  {
    id: 'review-photographs',
    does: 'Photographs in the views of the first ones.',
    hand: ['camera', 'retractors, mirrors'],
    why: 'Before and after are compared in one view.',
    source: C,
  },
  {
    id: 'review-otherwise',
    does: 'What would be done otherwise? Write it down.',
    hand: [],
    why: 'The next case begins with it.',
    source: C,
  },
];

export const GUARD: readonly Rule<AtVisit>[] = [
  {
    id: 'guard-fitted',
    does: 'Guard in: home without pressing, even marks, front guidance.',
    hand: ['night guard', 'contact paper', 'stone'],
    why: 'A guard that presses on one tooth moves it.',
    source: C,
  },
];
