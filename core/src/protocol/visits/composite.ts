import { DIRECT_LIMITS } from '../../direct/words.js';
import { COMMON_PRACTICE } from '../../working/working.js';
import type { AtVisit } from '../at-visit.js';
import { ifSet, named, type Rule } from '../step.js';

const C = COMMON_PRACTICE;
const teeth = (f: AtVisit) => f.works.filter((w) => w.work === 'composite').map((w) => w.tooth);

/** Direct composite, as far as it is alike in all of it. */
export const COMPOSITE: readonly Rule<AtVisit>[] = [
  {
    id: 'composite-isolated',
    does: (f) => `Isolate ${named(teeth(f))}; the index tried again over the dam.`,
    hand: ['dam, clamps', 'palatal index'],
    why: 'An index that is held up by a clamp makes an edge that is too long.',
    source: C,
    beware: ifSet('allergy', 'Allergy: a dam and gloves without latex, and ask about resins.'),
  },
  {
    id: 'composite-etch-enamel',
    does: (f) => `Etch the enamel of ${named(teeth(f))}.`,
    times: [15],
    within: [15, 20],
    hand: ['phosphoric acid', 'strips'],
    why: 'Enamel is etched for 15 to 20 s.',
    source: C,
  },
  {
    id: 'composite-etch-dentin',
    does: 'Onto the dentin where it shows; rinse, leave moist.',
    times: [10],
    hand: ['phosphoric acid', 'water spray'],
    why: 'Dentin is etched for 10 s.',
    source: C,
  },
  {
    id: 'composite-adhesive',
    does: 'Rub the adhesive in.',
    times: [20],
    hand: ['adhesive, brush'],
    why: 'Rubbed for 20 s it goes in.',
    source: C,
  },
  {
    id: 'composite-adhesive-cured',
    does: 'Thin it with air; cure.',
    times: [10],
    hand: ['air', 'lamp'],
    why: 'A pool of it shows as a grey line.',
    source: C,
  },
  {
    id: 'composite-layers',
    does: 'Palatal shell in the index, then dentin, lobes, enamel: no layer thicker than the lamp cures.',
    times: ({ lampSeconds }) => [lampSeconds ?? DIRECT_LIMITS.seconds.usual],
    hand: ['composites of the map', 'instruments', 'lamp'],
    why: 'Two millimetres are cured through, an opaque one through one.',
    source: C,
  },
  {
    id: 'composite-finished',
    does: 'Contour: line angles, lobes, texture; discs from coarse to superfine, rubber under water; strips.',
    hand: ['discs, strips', 'rubber, water', 'thin paper'],
    why: 'Rubber that runs dry heats the tooth and drags the surface.',
    source: C,
  },
];
