/** What a protocol is asked with, by ids alone: what a form is checked against. */

/** How a piece is fixed. Generic kinds: every product's own directions go before them. */
export const CEMENT_KINDS = {
  'resin-light': 'resin, light-cured',
  'resin-dual': 'resin, dual-cured',
  'self-adhesive': 'resin, self-adhesive',
  'glass-ionomer': 'glass-ionomer',
  'calcium-aluminate': 'calcium aluminate with glass-ionomer',
  temporary: 'temporary',
} as const;
export type CementKind = keyof typeof CEMENT_KINDS;

/** What a piece may be held on. */
export const BASES = {
  enamel: 'enamel',
  dentin: 'dentin',
  composite: 'old composite',
  core: 'composite core',
  metal: 'metal core or post',
} as const;
export type Base = keyof typeof BASES;

/** Old work that comes off first, by its material: that says how. */
export const OLD_WORKS = {
  'metal-ceramic': 'metal-ceramic crown',
  zirconia: 'zirconia crown',
  'glass-ceramic': 'glass-ceramic crown or veneer',
  composite: 'composite',
} as const;
export type OldWork = keyof typeof OLD_WORKS;

/** How gum is kept away while an impression is made. */
export const CORDS = {
  one: 'one cord',
  two: 'two cords',
  paste: 'one cord and paste',
  none: 'none',
} as const;
export type Cord = keyof typeof CORDS;

/** What provisionals are made as. */
export const PROVISIONALS = { shells: 'shells, relined', 'bis-acryl': 'bis-acryl in an index' } as const;
export type Provisional = keyof typeof PROVISIONALS;

/** Where somebody has to say yes before the visit goes on. */
export const GATES = {
  contour: 'the contour is approved',
  tissue: 'the gum is healthy',
  'shade-wet': 'the shade was taken while the teeth were wet',
  preparation: 'the preparation was checked',
  colour: 'the colour is right, wet and with try-in paste',
  margins: 'the margins are seen all round',
  word: 'the patient says yes',
} as const;
export type GateId = keyof typeof GATES;
