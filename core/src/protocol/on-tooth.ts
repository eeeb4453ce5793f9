import { COMMON_PRACTICE } from '../working/working.js';
import type { Batch } from './inside.js';
import { isAdhesive, isResin } from './piece.js';
import { ifSet, type Rule } from './step.js';
import type { Base } from './words.js';

const C = COMMON_PRACTICE;
const on = ({ piece }: Batch, b: Base) => piece.bases.includes(b);
const bonded = ({ piece }: Batch) => isAdhesive(piece.cement);
const resin = ({ piece }: Batch) => isResin(piece.cement);

/** What is done to the tooth, in the mouth. */
export const ON_TOOTH: readonly Rule<Batch>[] = [
  {
    id: 'tooth-isolated',
    when: resin,
    does: ({ who }) => `Isolate ${who}; strips against the teeth beside.`,
    hand: ['dam or cotton rolls', 'strips'],
    why: 'Acid and adhesive on the neighbour glue the two together.',
    source: C,
    beware: ifSet('allergy', 'Allergy: a dam and gloves without latex, and ask about resins.'),
  },
  {
    id: 'tooth-cleaned',
    does: ({ who, mouth }) =>
      mouth.provisional ? `Every trace of provisional cement off ${who}; pumice without oil.` : `Pumice ${who}; rinse.`,
    hand: ['scaler', 'pumice, brush'],
    why: 'What is left of temporary cement holds the piece up and keeps the bond off.',
    source: C,
  },
  {
    id: 'tooth-metal-covered',
    when: (b) => on(b, 'metal') && b.piece.material !== 'metal-ceramic' && b.piece.material !== 'zirconia',
    does: ({ who }) => `Cover the metal that shows on ${who}: abrade, metal primer, opaque resin, cure.`,
    hand: ['air abrasion', 'metal primer', 'opaque resin'],
    why: 'Metal shows grey through glass.',
    source: C,
  },
  {
    id: 'tooth-old-composite',
    when: (b) => resin(b) && (on(b, 'composite') || on(b, 'core')),
    does: ({ who }) => `Roughen the composite on ${who}, silane on it, dry.`,
    times: [20],
    hand: ['air abrasion or a coarse diamond', 'silane'],
    why: 'Old composite has no free bonds left: it is roughened and silanated.',
    source: C,
  },
  {
    id: 'tooth-metal-primed',
    when: (b) =>
      resin(b) && on(b, 'metal') && (b.piece.material === 'metal-ceramic' || b.piece.material === 'zirconia'),
    does: ({ who }) => `Abrade the metal on ${who}; metal primer, dry.`,
    hand: ['air abrasion', 'metal primer'],
    why: 'Metal gives resin nothing to hold without it.',
    source: C,
  },
  {
    id: 'tooth-etch-enamel',
    when: (b) => resin(b) && on(b, 'enamel'),
    does: ({ who, piece }) =>
      piece.cement === 'self-adhesive'
        ? `Etch the enamel of ${who}, and only that; rinse.`
        : piece.bases.includes('dentin')
          ? `Etch the enamel of ${who}.`
          : `Etch the enamel of ${who}; rinse, dry: it is white like frost.`,
    times: [15],
    within: [15, 20],
    hand: ['phosphoric acid'],
    why: 'Enamel is etched for 15 to 20 s.',
    source: C,
    beware: ({ mouth }) =>
      mouth.provisional ? 'Keep the acid off gum that lay under the provisional: it bleeds.' : undefined,
  },
  {
    id: 'tooth-etch-dentin',
    when: (b) => bonded(b) && on(b, 'dentin'),
    does: ({ who, piece }) =>
      piece.bases.includes('enamel')
        ? `The acid onto the dentin of ${who} too; rinse.`
        : `Etch the dentin of ${who}; rinse.`,
    times: [10],
    hand: ['phosphoric acid', 'water spray'],
    why: 'Dentin is etched for 10 s: longer takes the fibres out of it.',
    source: C,
    beware: ({ mouth }) =>
      mouth.provisional ? 'Keep the acid off gum that lay under the provisional: it bleeds.' : undefined,
  },
  {
    id: 'tooth-conditioned',
    when: ({ piece }) =>
      piece.cement === 'glass-ionomer' && (piece.bases.includes('dentin') || piece.bases.includes('enamel')),
    does: ({ who }) => `Mild acid on ${who}; rinse, leave moist.`,
    times: [10],
    hand: ['polyacrylic acid'],
    why: 'Glass-ionomer ties to tooth that is clean and not dried out.',
    source: C,
  },
  {
    id: 'tooth-desensitised',
    when: (b) => bonded(b) && on(b, 'dentin'),
    does: ({ who }) => `Desensitiser on the dentin of ${who}: two coats; blot, don’t dry.`,
    times: [60, 60],
    hand: ['desensitiser, brush'],
    why: 'It closes the dentin against pain, and leaves it as moist as the adhesive wants it.',
    source: C,
    beware: ifSet('allergy', 'Allergy: ask about aldehydes before the desensitiser.'),
  },
  {
    id: 'tooth-adhesive',
    when: bonded,
    does: ({ who }) => `Rub adhesive into ${who}.`,
    times: [20],
    hand: ['adhesive, brush'],
    why: 'Rubbed for 20 s it goes in; painted on it lies on top.',
    source: C,
    beware: ifSet('allergy', 'Allergy: ask about resins before the adhesive.'),
  },
  {
    id: 'tooth-thinned',
    when: bonded,
    does: ({ who }) => `Thin it on ${who} with air until it stands still.`,
    hand: ['air'],
    why: 'A pool of it holds the piece up.',
    source: C,
  },
  {
    id: 'tooth-cured',
    when: bonded,
    does: ({ who }) => `Cure it on ${who}, where the adhesive’s directions want that before seating.`,
    times: [10],
    hand: ['lamp'],
    why: 'Adhesives are cured for 10 s; some are left uncured under a veneer, as their directions say.',
    source: C,
  },
  {
    id: 'tooth-moist',
    when: ({ piece }) => piece.cement === 'self-adhesive' || piece.cement === 'calcium-aluminate',
    does: ({ who }) => `Blot ${who}; leave it moist. No adhesive.`,
    hand: ['cotton'],
    why: 'This cement takes hold of tooth itself; an adhesive or dried-out dentin keeps it off.',
    source: C,
  },
];
