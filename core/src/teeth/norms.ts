import { published, type Source } from '../working/working.js';
import type { ToothKind } from './notation.js';

/** A norm: the value, the band within which it counts as met, and where it comes from. */
export interface Norm {
  readonly value: number;
  readonly band: number;
  readonly unit: 'mm' | '%';
  readonly source: Source;
}

export type FrontKind = 'central' | 'lateral' | 'canine';

const MAGNE = published('Magne, Gallucci, Belser 2003, J Prosthet Dent 89:453');
const CHU = published('Chu 2007, Pract Proced Aesthet Dent 19:209');
const KOKICH_2006 = published('Kokich, Kokich, Kiyak 2006, Am J Orthod 130:141');
/** How often a papilla fills the space under a contact, by its height over the bone. */
export const TARNOW_PAPILLA = published('Tarnow, Magner, Fletcher 1992, J Periodontol 63:995');
/** Where the zenith lies beside a tooth's axis. */
export const CHU_ZENITH = published('Chu, Tan, Stappert, Tarnow 2009, J Esthet Restor Dent 21:113');
const WARD = published('Ward 2001, Dent Clin North Am 45:143');
const FERRARI = published('Ferrari, Patroni, Balleri 1992, Int J Periodontics Restorative Dent 12:407');

/** The band of ratio norms is common practice: within five percentage points nobody calls a tooth wide or narrow. */
const RATIO_BAND = 5;

const ratio = (value: number): Norm => ({ value, band: RATIO_BAND, unit: '%', source: MAGNE });

const STERRETT = published('Sterrett et al. 1999, J Clin Periodontol 26:153');

/**
 * Crown width over length as it is measured in the mouth, edge to gum, %, of living women and men together: the middle
 * of what was found, and half its breadth beside the usual band. What is read off a photograph or a scan is compared
 * with this and no other: the gum covers a part of the anatomical crown.
 */
export const RATIO_CLINICAL: Readonly<Record<FrontKind, Norm>> = {
  central: { value: 85.5, band: RATIO_BAND + 0.5, unit: '%', source: STERRETT },
  lateral: { value: 77.5, band: RATIO_BAND + 1.5, unit: '%', source: STERRETT },
  canine: { value: 79, band: RATIO_BAND + 2, unit: '%', source: STERRETT },
};

/** Width and length of clinical crowns of living people, mm, by sex. */
export const CLINICAL_CROWN: Readonly<
  Record<'women' | 'men', Readonly<Record<FrontKind, { readonly widthMm: number; readonly lengthMm: number }>>>
> = {
  women: {
    central: { widthMm: 8.06, lengthMm: 9.39 },
    lateral: { widthMm: 6.13, lengthMm: 7.79 },
    canine: { widthMm: 7.15, lengthMm: 8.89 },
  },
  men: {
    central: { widthMm: 8.59, lengthMm: 10.19 },
    lateral: { widthMm: 6.59, lengthMm: 8.7 },
    canine: { widthMm: 7.64, lengthMm: 10.06 },
  },
};

/** Anatomical crown width over length of unworn extracted teeth, edge to cement line, %. */
export const RATIO_UNWORN: Readonly<Record<FrontKind | 'premolar1', Norm>> = {
  central: ratio(78),
  lateral: ratio(73),
  canine: ratio(73),
  premolar1: ratio(84),
};

/** The same of worn teeth, %. */
export const RATIO_WORN: Readonly<Record<FrontKind, Norm>> = {
  central: ratio(87),
  lateral: ratio(79),
  canine: ratio(81),
};

/**
 * By how much a width over length measured in the mouth lies outside what is right, percentage points, and the norm
 * that it misses: over that of living clinical crowns a tooth is short for its width; under that of whole unworn crowns
 * it is narrow, since a clinical crown is no longer than the anatomical one unless the gum has gone back. 0 between the
 * two.
 */
export function ratioOff(kind: FrontKind, percent: number): { readonly off: number; readonly norm: Norm } {
  const [young, living] = [RATIO_UNWORN[kind], RATIO_CLINICAL[kind]];
  if (percent > living.value) return { off: percent - living.value, norm: living };
  return { off: Math.min(0, percent - young.value), norm: young };
}

const magneMm = (value: number): Norm => ({ value, band: 0.5, unit: 'mm', source: MAGNE });

/** Crown length of unworn extracted teeth, mm. */
export const LENGTH_UNWORN: Readonly<Record<FrontKind | 'premolar1', Norm>> = {
  central: magneMm(11.69),
  lateral: magneMm(9.75),
  canine: magneMm(10.83),
  premolar1: magneMm(9.33),
};

/** Crown length of worn extracted teeth, mm. */
export const LENGTH_WORN: Readonly<Record<FrontKind, Norm>> = {
  central: magneMm(10.67),
  lateral: magneMm(9.34),
  canine: magneMm(9.9),
};

/** Individual crown width in the mouth, mm; most people within ±0.5. */
export const WIDTH: Readonly<Record<FrontKind, Norm>> = {
  central: { value: 8.5, band: 0.5, unit: 'mm', source: CHU },
  lateral: { value: 6.5, band: 0.5, unit: 'mm', source: CHU },
  canine: { value: 7.5, band: 0.5, unit: 'mm', source: CHU },
};

/** From where on a difference in crown length of the two sides is noticed, mm. */
export const LENGTH_ASYMMETRY_NOTICED = {
  laypeople: { value: 1.5, source: KOKICH_2006 },
  dentists: { value: 1.0, source: KOKICH_2006 },
  orthodontists: { value: 0.5, source: KOKICH_2006 },
} as const;

/** Zenith distal of the long axis, mm. */
export const ZENITH_DISTAL: Readonly<Record<FrontKind, Norm>> = {
  central: { value: 1.0, band: 0.3, unit: 'mm', source: CHU_ZENITH },
  lateral: { value: 0.4, band: 0.3, unit: 'mm', source: CHU_ZENITH },
  canine: { value: 0, band: 0.3, unit: 'mm', source: CHU_ZENITH },
};

export const RECURRING_RATIO_SOURCE = WARD;

export type FacialThird = 'cervical' | 'middle' | 'incisal';

/** Facial enamel thickness of upper incisors, mm, from..to. */
export const FACIAL_ENAMEL: Readonly<Record<FacialThird, { from: number; to: number; source: Source }>> = {
  cervical: { from: 0.3, to: 0.5, source: FERRARI },
  middle: { from: 0.6, to: 1.0, source: FERRARI },
  incisal: { from: 1.0, to: 2.1, source: FERRARI },
};

/** Whether the kind is one of the six upper front teeth's. */
export function isFrontKind(kind: ToothKind): kind is FrontKind {
  return kind === 'central' || kind === 'lateral' || kind === 'canine';
}
