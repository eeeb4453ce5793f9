import { COMMON_PRACTICE } from '../../working/working.js';
import type { AtVisit } from '../at-visit.js';
import { gate } from '../gates.js';
import { named, type Rule } from '../step.js';

const C = COMMON_PRACTICE;

export const MOCK_UP_IN: readonly Rule<AtVisit>[] = [
  {
    id: 'index-tried',
    does: 'Try the index empty: home on the teeth beside, no rocking.',
    hand: ['mock-up index'],
    why: 'An index that rocks makes a mock-up that is another contour.',
    source: C,
  },
  {
    id: 'mock-up-spot',
    does: ({ teeth }) => `Etch a spot in the middle of the face of ${named(teeth)}, 2 × 2 mm; rinse, bond, cure.`,
    times: [15],
    hand: ['phosphoric acid', 'adhesive', 'lamp'],
    why: 'A spot holds a mock-up for days, and comes off without harm.',
    source: C,
  },
  {
    id: 'mock-up-made',
    does: 'Fill the index from the edge, no air; seat, hold still until it has set.',
    times: [150],
    hand: ['bis-acryl in the wanted shade'],
    why: 'Moved while it sets it is thick and late.',
    source: C,
  },
  {
    id: 'mock-up-trimmed',
    does: 'Flash off, gum embrasures open, contour checked against the plan.',
    hand: ['blade', 'fine diamonds', 'leaf guide'],
    why: 'Flash at the gum bleeds by the next day.',
    source: C,
  },
  {
    id: 'mock-up-bite',
    does: 'Bite, and the slides to the front and the sides; speech: counting from 50 to 60.',
    hand: ['contact paper'],
    why: 'An edge that is too long is heard and felt at once.',
    source: C,
  },
  {
    id: 'mock-up-photographs',
    does: 'Photographs at rest, smiling, speaking.',
    hand: ['camera', 'retractors'],
    why: 'The patient looks again at home.',
    source: C,
  },
];

export const MOCK_UP_OUT: readonly Rule<AtVisit>[] = [
  {
    id: 'word-on-shape',
    does: 'Ask before anything else: what would you change? Write it down in their words.',
    hand: ['contour on the screen', 'mirror'],
    why: 'Who is shown an answer first gives it back.',
    source: C,
  },
  {
    id: 'changes-kept',
    does: 'Scan or photograph what was changed in the mouth.',
    hand: ['scanner or camera'],
    why: 'What is not taken over into the plan is lost with the mock-up.',
    source: C,
  },
  gate('contour'),
  {
    id: 'mock-up-off',
    does: ({ teeth }) => `Mock-up off ${named(teeth)}; spots polished.`,
    hand: ['scaler', 'polisher'],
    why: 'Left spots of bond stain.',
    source: C,
  },
];
