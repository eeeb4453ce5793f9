import 'reflect-metadata';
import { type MeasuredCeramic, NM, PLATE_LIMITS, SCALE_LIMITS, type ShadeScale } from '@radiant/core';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsNumber,
  IsString,
  Length,
  Max,
  Min,
  ValidateBy,
  ValidateNested,
} from 'class-validator';
import { Holds } from './base/holds.js';
import { LabInput } from './sections/lab.js';
import { FINITE, words } from './sections/words.js';

const SHADE_NAME = words(`A shade has a name of 1 to ${SCALE_LIMITS.shade} characters.`);
const SCALE_NAME = words(`A scale has a name of 1 to ${SCALE_LIMITS.name} characters.`);

/** A shade of a house's own scale. */
export class ShadeInput extends LabInput {
  @IsString(SHADE_NAME)
  @Length(1, SCALE_LIMITS.shade, SHADE_NAME)
  name!: string;
}

/** A scale of shades that a house has read itself. */
export class ScaleInput {
  @IsString(SCALE_NAME)
  @Length(1, SCALE_LIMITS.name, SCALE_NAME)
  name!: string;

  @IsArray(words('The shades of a scale are a list.'))
  @ArrayMinSize(1, words('A scale has at least one shade.'))
  @ArrayMaxSize(SCALE_LIMITS.shades, words(`A scale holds at most ${SCALE_LIMITS.shades} shades.`))
  @ArrayUnique((s: ShadeInput) => s.name?.toLowerCase?.(), words('A scale has a shade twice.'))
  @ValidateNested({ each: true })
  @Holds(() => ShadeInput)
  shades!: ShadeInput[];
}

export const scaleInput = ({ name, shades }: ShadeScale): ScaleInput => ({
  name,
  shades: shades.map((s) => ({ name: s.name, L: s.lab.L, a: s.lab.a, b: s.lab.b })),
});
export const scaleOf = ({ name, shades }: ScaleInput): ShadeScale => ({
  name,
  shades: shades.map((s) => ({ name: s.name, lab: { L: s.L, a: s.a, b: s.b } })),
});

const PLATE_NAME = words(`A ceramic has a name of 1 to ${PLATE_LIMITS.name} characters.`);
const PLATE_MM = words(`A plate is read from ${PLATE_LIMITS.mm.min} to ${PLATE_LIMITS.mm.max} mm of thickness.`);
const REFLECTANCE = { min: 0, max: 1.05 } as const;
const READING = words(
  `A reading has ${NM.count} values, from ${NM.from} to ${NM.to} nm by ${NM.step}, 0 to 1.05 each.`,
);

/** One reading of a plate. */
const IsReading = (): PropertyDecorator =>
  ValidateBy({
    name: 'isReading',
    validator: {
      validate: (v: unknown) =>
        Array.isArray(v) &&
        v.length === NM.count &&
        v.every((r) => typeof r === 'number' && r >= REFLECTANCE.min && r <= REFLECTANCE.max),
      defaultMessage: () => READING.message,
    },
  });

/** A ceramic that a house or its laboratory has read over black and white. */
export class PlateInput {
  @IsString(PLATE_NAME)
  @Length(1, PLATE_LIMITS.name, PLATE_NAME)
  name!: string;

  @IsNumber(FINITE, PLATE_MM)
  @Min(PLATE_LIMITS.mm.min, PLATE_MM)
  @Max(PLATE_LIMITS.mm.max, PLATE_MM)
  mm!: number;

  @ArrayMaxSize(NM.count, READING)
  @IsReading()
  overBlack!: number[];

  @ArrayMaxSize(NM.count, READING)
  @IsReading()
  overWhite!: number[];

  @ArrayMaxSize(NM.count, READING)
  @IsReading()
  blackGround!: number[];

  @ArrayMaxSize(NM.count, READING)
  @IsReading()
  whiteGround!: number[];
}

export const plateInput = (c: MeasuredCeramic): PlateInput => ({
  name: c.name,
  mm: c.mm,
  overBlack: [...c.overBlack],
  overWhite: [...c.overWhite],
  blackGround: [...c.blackGround],
  whiteGround: [...c.whiteGround],
});
