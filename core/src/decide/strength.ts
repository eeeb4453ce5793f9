import { type Source, standard } from '../working/working.js';
import type { Option } from './options.js';

/** A class of dental ceramics by flexural strength, with what the standard lets it be used for. */
export interface StrengthClass {
  readonly number: 1 | 2 | 3 | 4 | 5;
  /** At least so much, MPa. */
  readonly mpa: number;
  readonly uses: string;
  /** May only be bonded, never cemented without a bond. */
  readonly bondOnly: boolean;
}

/** ISO 6872:2015, Dentistry: ceramic materials, table of classes; from memory, local editions govern. */
export const STRENGTH_SOURCE: Source = standard('ISO 6872:2015, from memory');
export const STRENGTH_CLASSES: readonly StrengthClass[] = [
  {
    number: 1,
    mpa: 50,
    uses: 'veneers, inlays and single crowns of front teeth, bonded; layers on a core',
    bondOnly: true,
  },
  { number: 2, mpa: 100, uses: 'single crowns of front and back teeth, bonded', bondOnly: true },
  {
    number: 3,
    mpa: 300,
    uses: 'single crowns, and bridges of three units without a molar, bonded or cemented',
    bondOnly: false,
  },
  { number: 4, mpa: 500, uses: 'bridges of three units with a molar, bonded or cemented', bondOnly: false },
  { number: 5, mpa: 800, uses: 'bridges of four units and more, bonded or cemented', bondOnly: false },
];

/** The class that a strength reaches; nothing below the first. @param mpa flexural strength, MPa */
export const strengthClassOf = (mpa: number): StrengthClass | undefined =>
  [...STRENGTH_CLASSES].reverse().find((c) => mpa >= c.mpa);

/** The class that the generic material of an option is made to; composite and metal have none. House values. */
const CLASS_OF: Readonly<Partial<Record<Option['made'], StrengthClass['number']>>> = {
  feldspathic: 1,
  'glass-ceramic': 3,
  zirconia: 4,
};

/** The class of the ceramic of an option; nothing where it is of none. */
export const strengthOf = ({ made }: Option): StrengthClass | undefined =>
  STRENGTH_CLASSES.find((c) => c.number === CLASS_OF[made]);
