import { COMMON_PRACTICE } from '../working/working.js';
import type { MouthNow } from './piece.js';
import { ifSet, type Rule } from './step.js';
import type { GateId } from './words.js';

interface AtGate {
  readonly mouth: MouthNow;
}

const DECIDES = 'The treating clinician decides; local rules go before this.';

/** What is asked at each gate, of whom, and what it is for. */
const ASKED: Readonly<Record<GateId, { readonly ask: string; readonly why: string }>> = {
  contour: {
    ask: 'Has the patient worn, seen and approved this contour?',
    why: 'How deep is cut follows from it: what is cut for another contour can’t be put back.',
  },
  tissue: {
    ask: 'Is the gum healthy: pink, firm, no bleeding on touch?',
    why: 'On bleeding gum nothing is bonded, and no impression is clean.',
  },
  'shade-wet': {
    ask: 'Was the shade taken before the teeth dried?',
    why: 'A dry tooth is lighter within minutes: the shade would be wrong for good.',
  },
  preparation: {
    ask: 'Was the preparation checked with index or scan, and is it right?',
    why: 'What is short now is cut in a minute; a week later it costs a visit.',
  },
  colour: {
    ask: 'Wet and with try-in paste: is the colour right?',
    why: 'After bonding nobody changes it.',
  },
  margins: {
    ask: 'Are the margins seen all round, and mesial and distal, where no explorer comes, on an X-ray?',
    why: 'An open margin that is cemented over leaks.',
  },
  word: {
    ask: 'Has the patient looked, alone and in good light, and said yes?',
    why: 'It is their face, and it is cemented next.',
  },
};

/** A gate as a step. */
export const gate = (id: GateId): Rule<AtGate> => ({
  id: `gate-${id}`,
  does: ASKED[id].ask,
  hand: id === 'colour' ? ['try-in paste', 'water spray', 'mirror'] : id === 'word' ? ['mirror'] : [],
  why: `${ASKED[id].why} ${DECIDES}`,
  source: COMMON_PRACTICE,
  gate: id,
  ...(id === 'tissue' && { beware: ifSet('bleeding', 'Bleeds easily: ask about medicines before anything is cut.') }),
  ...(id === 'margins' && {
    beware: ifSet('pregnancy', 'Pregnant: an X-ray only where it can’t wait, by local rules.'),
  }),
});
