import 'reflect-metadata';
import {
  BUR_LIMITS,
  BUR_SHAPES,
  type BurShape,
  GRITS,
  type Grit,
  TOLERANCE_LIMITS,
  TRAY_LIMITS,
  type Tray,
  trayFault,
} from '@radiant/core';
import {
  ArrayMaxSize,
  IsArray,
  IsIn,
  IsNumber,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
  ValidateBy,
  ValidateNested,
  type ValidationOptions,
} from 'class-validator';
import { Holds } from '../base/holds.js';
import { FINITE, words } from './words.js';

const { largestMm, tipMm, lengthMm, shankMm } = BUR_LIMITS;
const between = (what: string, { min, max }: { min: number; max: number }) =>
  words(`The ${what} of a bur lies between ${min} and ${max} mm.`);

/** A bur of a tray. */
export class BurInput {
  @IsIn(Object.keys(BUR_SHAPES), words(`A bur is ${Object.keys(BUR_SHAPES).join(', ')}.`))
  shape!: BurShape;

  @IsNumber(FINITE, between('largest diameter', largestMm))
  @Min(largestMm.min, between('largest diameter', largestMm))
  @Max(largestMm.max, between('largest diameter', largestMm))
  largestMm!: number;

  @IsNumber(FINITE, between('tip', tipMm))
  @Min(tipMm.min, between('tip', tipMm))
  @Max(tipMm.max, between('tip', tipMm))
  tipMm!: number;

  @IsNumber(FINITE, between('working length', lengthMm))
  @Min(lengthMm.min, between('working length', lengthMm))
  @Max(lengthMm.max, between('working length', lengthMm))
  lengthMm!: number;

  @IsNumber(FINITE, between('shank', shankMm))
  @Min(shankMm.min, between('shank', shankMm))
  @Max(shankMm.max, between('shank', shankMm))
  shankMm!: number;

  @IsIn(Object.keys(GRITS), words(`A grit is ${Object.keys(GRITS).join(', ')}.`))
  grit!: Grit;

  /** What the house calls it. */
  @IsOptional()
  @IsString(words('What the house calls a bur is a text.'))
  @MaxLength(80, words('What the house calls a bur has at most 80 characters.'))
  note?: string;
}

/** The burs that lie ready for a case. */
export class TrayInput {
  @IsString(words('A tray has a name.'))
  @MaxLength(TRAY_LIMITS.name, words(`The name of a tray has at most ${TRAY_LIMITS.name} characters.`))
  name!: string;

  @IsArray(words('The burs of a tray are a list.'))
  @ArrayMaxSize(TRAY_LIMITS.burs, words(`A tray holds at most ${TRAY_LIMITS.burs} burs.`))
  @ValidateNested({ each: true })
  @Holds(() => BurInput)
  burs!: BurInput[];
}

/** A tray as it is sent and kept. */
export const trayInput = ({ name, burs }: Tray): TrayInput => ({
  name,
  burs: burs.map((b) => ({ ...b, note: b.note ?? '' })),
});

const looksLikeTray = (v: unknown): v is Tray =>
  typeof v === 'object' &&
  v !== null &&
  typeof (v as Tray).name === 'string' &&
  Array.isArray((v as Tray).burs) &&
  (v as Tray).burs.every((b) => typeof b === 'object' && b !== null && b.shape in BUR_SHAPES && b.grit in GRITS);

/** A tray that can be: burs whose figures go together, none twice, and something that cuts a groove. */
export const CanCut = (options?: ValidationOptions): PropertyDecorator =>
  ValidateBy(
    {
      name: 'canCut',
      validator: {
        // What is no tray at all is told by the checks of its fields.
        validate: (v: unknown) => !looksLikeTray(v) || trayFault(v) === undefined,
        // Of a list all of it is handed over, whichever entry was found wrong.
        defaultMessage: (args) =>
          ([args?.value].flat() as unknown[]).flatMap((v) => (looksLikeTray(v) ? (trayFault(v) ?? []) : [])).join(' '),
      },
    },
    options,
  );

export const TOLERANCE_WORDS = `The tolerance of depths lies between ${TOLERANCE_LIMITS.min} and ${TOLERANCE_LIMITS.max} mm.`;
