import 'reflect-metadata';
import { IsNumber, Max, Min } from 'class-validator';
import { FINITE, words } from './words.js';

/** Colours of teeth and stumps lie within these. House limits. */
export const LAB_LIMITS = { L: { min: 20, max: 98 }, a: { min: -15, max: 25 }, b: { min: -10, max: 45 } } as const;
const outside = (c: keyof typeof LAB_LIMITS) =>
  words(`${c}* of a tooth lies between ${LAB_LIMITS[c].min} and ${LAB_LIMITS[c].max}.`);

/** A colour of a tooth, of its stump or of a shade, CIELAB D65, 2°. */
export class LabInput {
  @IsNumber(FINITE, outside('L'))
  @Min(LAB_LIMITS.L.min, outside('L'))
  @Max(LAB_LIMITS.L.max, outside('L'))
  L!: number;

  @IsNumber(FINITE, outside('a'))
  @Min(LAB_LIMITS.a.min, outside('a'))
  @Max(LAB_LIMITS.a.max, outside('a'))
  a!: number;

  @IsNumber(FINITE, outside('b'))
  @Min(LAB_LIMITS.b.min, outside('b'))
  @Max(LAB_LIMITS.b.max, outside('b'))
  b!: number;
}
