import { COMMON_PRACTICE } from '../../working/working.js';
import type { AtVisit } from '../at-visit.js';
import { gate } from '../gates.js';
import type { Rule } from '../step.js';

const C = COMMON_PRACTICE;

export const RECORDS: readonly Rule<AtVisit>[] = [
  {
    id: 'shade-taken',
    does: 'Shade first, while the teeth are wet: tab beside the tooth, or the meter; written down with the time.',
    hand: ['shade tabs or meter', 'grey card'],
    why: 'Teeth dry within minutes and grow lighter.',
    source: C,
  },
  gate('shade-wet'),
  {
    id: 'photographs-before',
    does: 'Photographs: the face at rest and smiling, lips, retracted from three sides, both arches.',
    hand: ['camera', 'retractors, mirrors', 'scale'],
    why: 'What is planned is measured on them.',
    source: C,
  },
  {
    id: 'jaws-scanned',
    does: 'Scan both jaws and the bite, the gum dry, past the last planned tooth.',
    hand: ['scanner', 'air'],
    why: 'Everything that is cut is told against this scan.',
    source: C,
  },
];

export const BLEACHED: readonly Rule<AtVisit>[] = [
  {
    id: 'shade-after-bleaching',
    does: 'Shade of the bleached teeth, wet; written down with the time.',
    hand: ['shade tabs or meter'],
    why: 'It settles for one to two weeks: this is what it is compared with then.',
    source: C,
  },
];
