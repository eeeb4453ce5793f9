import { COMMON_PRACTICE } from '../working/working.js';
import type { Batch } from './inside.js';
import { isResin } from './piece.js';
import { lightReaches, lightThroughMm } from './refuse.js';
import type { Rule } from './step.js';
import { CEMENT_KINDS } from './words.js';

const C = COMMON_PRACTICE;
const resin = ({ piece }: Batch) => isResin(piece.cement);
const lit = ({ piece }: Batch) => isResin(piece.cement) && lightThroughMm(piece) > 0;

/** Pieces that are seated together, with what nobody but the order knows. */
export interface Seating extends Batch {
  /** Those of them that have no stop of their own. */
  readonly noStop: readonly number[];
}

const SETS_S = { 'glass-ionomer': 300, 'calcium-aluminate': 360, temporary: 240 } as const;
/** A dual-cured cement sets by itself where light does not come, seconds. */
const DARK_S = 300;

/** From the cement to the clean margin. */
export const FIXING: readonly Rule<Seating>[] = [
  {
    id: 'seat',
    does: ({ who }) => `Cement into ${who}; seat with a rod, slowly, until it stands still.`,
    hand: ({ piece }) => [`cement: ${CEMENT_KINDS[piece.cement]}`, 'seating rod'],
    why: 'Pressed home quickly it springs back.',
    source: C,
  },
  {
    id: 'seat-held',
    when: ({ noStop }) => noStop.length > 0,
    does: ({ noStop }) =>
      `Hold ${noStop.map((t) => `{${t}}`).join(', ')}: no stop. Don’t let it slide towards the gum.`,
    hand: ['finger, seating rod'],
    why: 'A piece that was cut for nowhere has nothing that says where home is.',
    source: C,
  },
  {
    id: 'tack',
    when: resin,
    does: ({ who }) => `Tack ${who} at the middle of the face, away from the margin.`,
    times: [2],
    hand: ['lamp, small tip'],
    why: 'Two seconds make a gel that peels; more, and it must be cut.',
    source: C,
  },
  {
    id: 'peel',
    when: resin,
    does: ({ who }) => `Peel the gel off the margins of ${who}.`,
    hand: ['scaler, brush'],
    why: 'Set cement at the gum keeps it inflamed.',
    source: C,
  },
  {
    id: 'floss',
    when: resin,
    does: ({ who }) => `Floss both sides of ${who}, pulled out to the front, the piece held.`,
    hand: ['floss'],
    why: 'Pulled back up, floss lifts a piece that is only tacked.',
    source: C,
  },
  {
    id: 'cure',
    when: lit,
    does: ({ who }) => `Gel over the margins of ${who}; cure in front, behind, at both sides.`,
    times: [20, 20, 20, 20],
    hand: ['glycerine gel', 'lamp'],
    why: 'Resin under air does not set at its surface; ceramic takes light, so every side has its own.',
    source: C,
  },
  {
    id: 'set-in-dark',
    when: (b) => resin(b) && b.piece.cement !== 'resin-light' && !lightReaches(b.piece),
    does: ({ who }) => `Light the margins of ${who}; then leave it until it has set by itself.`,
    times: [20, DARK_S],
    hand: ['glycerine gel', 'lamp'],
    why: 'Where no light comes, or nobody knows whether it does, the cement sets by itself, slowly.',
    source: C,
  },
  {
    id: 'set',
    when: ({ piece }) => !isResin(piece.cement),
    does: ({ who }) => `Let the patient bite on cotton; clean ${who} while it is like rubber, then wait.`,
    times: ({ piece }) => [SETS_S[piece.cement as keyof typeof SETS_S]],
    hand: ['cotton roll', 'scaler', 'floss with a knot'],
    why: 'Too early it smears, too late it must be cut.',
    source: C,
  },
];
