import { Refusal } from '../errors.js';

/** A permanent tooth in two-digit FDI notation (ISO 3950): quadrant 1–4, position 1–8. */
export type Fdi = number;

export type Notation = 'fdi' | 'universal';
/**
 * How a notation is called: one number means different teeth in the two, so whatever leaves the screen says which it
 * is.
 */
export const NOTATION_NAMES: Readonly<Record<Notation, { readonly short: string; readonly long: string }>> = {
  fdi: { short: 'FDI', long: 'FDI (ISO 3950)' },
  universal: { short: 'Universal', long: 'Universal (1–32)' },
};
export type Side = 'right' | 'left';
export type Jaw = 'upper' | 'lower';
export type ToothKind = 'central' | 'lateral' | 'canine' | 'premolar1' | 'premolar2' | 'molar1' | 'molar2' | 'molar3';

const KINDS: readonly ToothKind[] = [
  'central',
  'lateral',
  'canine',
  'premolar1',
  'premolar2',
  'molar1',
  'molar2',
  'molar3',
];
const KIND_NAMES: Record<ToothKind, string> = {
  central: 'central incisor',
  lateral: 'lateral incisor',
  canine: 'canine',
  premolar1: 'first premolar',
  premolar2: 'second premolar',
  molar1: 'first molar',
  molar2: 'second molar',
  molar3: 'third molar',
};

/** Whether a number names a permanent tooth in FDI notation. */
export function isFdi(n: number): n is Fdi {
  const quadrant = Math.trunc(n / 10);
  const position = n - quadrant * 10;
  return Number.isInteger(n) && quadrant >= 1 && quadrant <= 4 && position >= 1 && position <= 8;
}

function need(tooth: number): void {
  if (!isFdi(tooth)) throw new Refusal('tooth-unknown', `${tooth} is not a permanent tooth in FDI notation.`, tooth);
}

/**
 * FDI (ISO 3950) to Universal 1–32. Universal counts from the upper right third molar to the upper left one (1–16),
 * then from the lower left third molar to the lower right one (17–32).
 * @throws Refusal `tooth-unknown`
 */
export function toUniversal(tooth: Fdi): number {
  need(tooth);
  const position = tooth % 10;
  switch (Math.trunc(tooth / 10)) {
    case 1:
      return 9 - position;
    case 2:
      return 8 + position;
    case 3:
      return 25 - position;
    default:
      return 24 + position;
  }
}

/**
 * Universal 1–32 to FDI (ISO 3950).
 * @throws Refusal `tooth-unknown`
 */
export function fromUniversal(n: number): Fdi {
  if (!Number.isInteger(n) || n < 1 || n > 32)
    throw new Refusal('tooth-unknown', `${n} is not a tooth in Universal notation (1–32).`, n);
  if (n <= 8) return 10 + (9 - n);
  if (n <= 16) return 20 + (n - 8);
  if (n <= 24) return 30 + (25 - n);
  return 40 + (n - 24);
}

/** The tooth's number as written in the chosen notation. */
export function label(tooth: Fdi, notation: Notation): string {
  return notation === 'fdi' ? String(tooth) : String(toUniversal(tooth));
}

/** @throws Refusal `tooth-unknown` */
export function kindOf(tooth: Fdi): ToothKind {
  need(tooth);
  return KINDS[(tooth % 10) - 1] as ToothKind;
}

/** Whether a tooth bites with cusps and not with an edge. @throws Refusal `tooth-unknown` */
export const isPremolar = (tooth: Fdi): boolean => kindOf(tooth).startsWith('premolar');

/** The kind in words, e.g. "lateral incisor". */
export function kindName(tooth: Fdi): string {
  return KIND_NAMES[kindOf(tooth)];
}

/** The patient's side on which the tooth stands. */
export function sideOf(tooth: Fdi): Side {
  need(tooth);
  const quadrant = Math.trunc(tooth / 10);
  return quadrant === 1 || quadrant === 4 ? 'right' : 'left';
}

export function isUpper(tooth: Fdi): boolean {
  need(tooth);
  return tooth < 30;
}

/** @throws Refusal `tooth-unknown` */
export const jawOf = (tooth: Fdi): Jaw => (isUpper(tooth) ? 'upper' : 'lower');

/** The same tooth on the other side of the midline. */
export function opposite(tooth: Fdi): Fdi {
  need(tooth);
  const quadrant = Math.trunc(tooth / 10);
  const mirrored = [2, 1, 4, 3][quadrant - 1] as number;
  return mirrored * 10 + (tooth % 10);
}

/** The neighbour towards the midline; across the midline for centrals. */
export function mesialNeighbour(tooth: Fdi): Fdi {
  need(tooth);
  return tooth % 10 === 1 ? opposite(tooth) : tooth - 1;
}

/** The neighbour away from the midline, or undefined behind the third molar. */
export function distalNeighbour(tooth: Fdi): Fdi | undefined {
  need(tooth);
  return tooth % 10 === 8 ? undefined : tooth + 1;
}

/** The tooth of the other jaw that stands across: 11 and 41. */
export function across(tooth: Fdi): Fdi {
  need(tooth);
  const quadrant = Math.trunc(tooth / 10);
  return tooth + ([30, 10, -10, -30][quadrant - 1] as number);
}

/** The upper front teeth and premolars in the order in which they stand, patient's right first. */
export const UPPER_TEN: readonly Fdi[] = [15, 14, 13, 12, 11, 21, 22, 23, 24, 25];
/** The lower teeth below them, patient's right first. */
export const LOWER_TEN: readonly Fdi[] = [45, 44, 43, 42, 41, 31, 32, 33, 34, 35];

/** The teeth that can be planned, upper ones first. */
export const PLANNABLE: readonly Fdi[] = [...UPPER_TEN, ...LOWER_TEN];
