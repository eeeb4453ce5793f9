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
const KOKICH = published('Kokich, Kiyak, Shapiro 1999, J Esthet Dent 11:311; Kokich et al. 2006, Am J Orthod 130:141');
const CHU_ZENITH = published('Chu, Tan, Stappert, Tarnow 2009, J Esthet Restor Dent 21:113');
const WARD = published('Ward 2001, Dent Clin North Am 45:143');
const FERRARI = published('Ferrari, Patroni, Balleri 1992, Int J Periodontics Restorative Dent 12:407');

/** The band of ratio norms is common practice: within five percentage points nobody calls a tooth wide or narrow. */
const RATIO_BAND = 5;

const ratio = (value: number): Norm => ({ value, band: RATIO_BAND, unit: '%', source: MAGNE });

/** Crown width over length of unworn teeth, %. */
export const RATIO_UNWORN: Readonly<Record<FrontKind | 'premolar1', Norm>> = {
  central: ratio(78),
  lateral: ratio(73),
  canine: ratio(73),
  premolar1: ratio(84),
};

/** Crown width over length of worn teeth, %. */
export const RATIO_WORN: Readonly<Record<FrontKind, Norm>> = {
  central: ratio(87),
  lateral: ratio(79),
  canine: ratio(81),
};

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
  laypeople: { value: 1.5, source: KOKICH },
  dentists: { value: 1.0, source: KOKICH },
  orthodontists: { value: 0.5, source: KOKICH },
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
