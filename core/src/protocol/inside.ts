import { COMMON_PRACTICE } from '../working/working.js';
import { hasGlass, isAdhesive, isResin, type MouthNow, type Piece } from './piece.js';
import type { Rule } from './step.js';

/** Pieces that are treated alike, in one mouth. */
export interface Batch {
  readonly piece: Piece;
  readonly mouth: MouthNow;
  /** What they are called. */
  readonly who: string;
}

const C = COMMON_PRACTICE;
const glass = ({ piece }: Batch) => hasGlass(piece.material);
const zirconia = ({ piece }: Batch) => piece.material === 'zirconia';
const metal = ({ piece }: Batch) => piece.material === 'metal-ceramic';

/** Hydrofluoric acid by the ceramic, seconds. Common practice, no source: the ceramic's own directions go before it. */
const ETCH_S = { 'glass-ceramic': 20, feldspathic: 60 } as const;

/** What is done to the inside of a piece, away from the mouth. */
export const INSIDE: readonly Rule<Batch>[] = [
  {
    id: 'inside-rinsed',
    does: ({ who }) => `Rinse the try-in paste out of ${who}; dry.`,
    hand: ['water spray', 'air'],
    why: 'Paste that stays inside keeps cement off.',
    source: C,
  },
  {
    id: 'inside-abraded',
    when: (b) => zirconia(b) || metal(b),
    does: ({ who }) => `Air-abrade the inside of ${who}, softly.`,
    hand: ['air abrasion, aluminium oxide 50 µm, 1 to 2 bar'],
    why: 'Oxide and metal are not etched by acid: they are roughened.',
    source: C,
  },
  {
    id: 'inside-phosphate-off',
    when: zirconia,
    does: ({ who }) => `Clean saliva’s phosphate off ${who}: cleaner on, rinse, dry. No phosphoric acid.`,
    times: [20],
    hand: ['alkaline cleaner for oxide ceramic'],
    why: 'Saliva leaves phosphate where primer or cement would take hold; phosphoric acid leaves more of it.',
    source: C,
  },
  {
    id: 'inside-etched',
    when: (b) => glass(b) && !b.piece.etched && isResin(b.piece.cement),
    does: ({ who }) => `Etch the inside of ${who} with hydrofluoric acid; rinse long, dry.`,
    times: ({ piece }) => [piece.material === 'feldspathic' ? ETCH_S.feldspathic : ETCH_S['glass-ceramic']],
    hand: ['hydrofluoric acid', 'gloves, goggles, neutraliser'],
    why: 'The acid opens the glass for the bond.',
    source: C,
    beware: () => 'Away from the mouth, with gloves and goggles: the acid burns deep and late.',
  },
  {
    id: 'inside-acid-clean',
    when: (b) => glass(b) && !!b.piece.etched && isResin(b.piece.cement),
    does: ({ who }) => `Phosphoric acid into ${who}, etched by the laboratory: it cleans only; rinse, dry.`,
    times: [30],
    hand: ['phosphoric acid'],
    why: 'Etched glass that was tried in is fouled by saliva; etching it again would weaken it.',
    source: C,
  },
  {
    id: 'inside-silane',
    when: (b) => glass(b) && isResin(b.piece.cement),
    does: ({ who }) => `Silane into ${who}; let it work, dry.`,
    times: [20],
    hand: ['silane, brush'],
    why: 'Silane ties glass to resin.',
    source: C,
  },
  {
    id: 'inside-primer',
    when: (b) => (zirconia(b) || metal(b)) && isAdhesive(b.piece.cement),
    does: ({ who }) => `Primer with phosphate into ${who}; let it work, dry.`,
    times: [20],
    hand: ['primer with phosphate monomer, brush'],
    why: 'Phosphate ties oxide and base metal to resin.',
    source: C,
  },
  {
    id: 'inside-has-own',
    when: (b) => (zirconia(b) || metal(b)) && b.piece.cement === 'self-adhesive',
    does: ({ who }) => `No primer into ${who}: this cement brings its own.`,
    hand: [],
    why: 'A self-adhesive cement carries the phosphate itself; primer under it adds nothing.',
    source: C,
  },
  {
    id: 'inside-bare',
    when: ({ piece }) => piece.cement === 'calcium-aluminate',
    does: ({ who }) => `Nothing more into ${who}: no primer, no silane.`,
    hand: [],
    why: 'This cement takes hold of the oxide itself; a primer between them keeps it off.',
    source: C,
  },
];
