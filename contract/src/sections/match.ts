import 'reflect-metadata';
import { CEMENT_IDS, CERAMIC_IDS, type CementId, type CeramicId, NM, PLANNABLE, SHADE_NAMES } from '@radiant/core';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsIn,
  IsNumber,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { Holds, IsMoment } from '../base/holds.js';
import { defineSection } from './define.js';
import { by, fields, list } from './parts.js';
import { FINITE, words } from './words.js';

/** Where on a tooth a colour is read. */
export const COLOUR_ZONES = ['gum', 'body', 'edge'] as const;
export type ColourZone = (typeof COLOUR_ZONES)[number];
/** What is read: the tooth before anything is cut, or the stump after. */
export const READ_OF = ['tooth', 'stump'] as const;
export type ReadOf = (typeof READ_OF)[number];

/** Colours of teeth and stumps lie within these. House limits. */
export const LAB_LIMITS = { L: { min: 20, max: 98 }, a: { min: -15, max: 25 }, b: { min: -10, max: 45 } } as const;
const outside = (c: keyof typeof LAB_LIMITS) =>
  words(`${c}* of a tooth lies between ${LAB_LIMITS[c].min} and ${LAB_LIMITS[c].max}.`);
/** A measured white may read a little over it. */
const MOST = 1.05;
const SPECTRUM = words(
  `A spectrum has ${NM.count} values, from ${NM.from} to ${NM.to} nm by ${NM.step}, each between 0 and ${MOST}.`,
);

/** A colour that was read on a tooth. */
export class ColourReadingInput {
  @IsIn(PLANNABLE as number[], words('A colour is read on front teeth and premolars, 15 to 25 and 35 to 45.'))
  tooth!: number;

  @IsIn(READ_OF as unknown as string[], words('A colour is read on the tooth or on its stump.'))
  of!: ReadOf;

  @IsIn(COLOUR_ZONES as unknown as string[], words(`A colour is read at ${COLOUR_ZONES.join(', ')}.`))
  zone!: ColourZone;

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

  /** Reflectance, where a device gave it; the colour is that of it then. */
  @IsOptional()
  @IsArray(SPECTRUM)
  @ArrayMinSize(NM.count, SPECTRUM)
  @ArrayMaxSize(NM.count, SPECTRUM)
  @IsNumber(FINITE, { each: true, ...SPECTRUM })
  @Min(0, { each: true, ...SPECTRUM })
  @Max(MOST, { each: true, ...SPECTRUM })
  spectrum?: number[] | null;

  @IsBoolean(words('A colour is read wet or dry.'))
  wet!: boolean;

  @IsMoment(words('A colour is read at a moment with its zone.'))
  at!: string;

  @IsOptional()
  @IsString(words('A device is text.'))
  @MaxLength(60, words('The name of a device has at most 60 characters.'))
  device?: string | null;
}

/** A ceramic for one tooth where it is another than the case's. */
export class OwnCeramic {
  @IsIn(PLANNABLE as number[], words('A ceramic is chosen for front teeth and premolars, 15 to 25 and 35 to 45.'))
  tooth!: number;

  @IsIn(CERAMIC_IDS as unknown as string[], words('This ceramic is not known.'))
  ceramic!: CeramicId;
}

/** What the colour is to be, and over what. */
export class MatchSection {
  @IsArray(words('The readings are a list.'))
  @ArrayMaxSize(PLANNABLE.length * READ_OF.length * COLOUR_ZONES.length, words('A zone has two readings.'))
  @ArrayUnique((r: ColourReadingInput) => `${r.tooth} ${r.of} ${r.zone}`, words('A zone has two readings.'))
  @ValidateNested({ each: true })
  @Holds(() => ColourReadingInput)
  readings: ColourReadingInput[] = [];

  /** By the letter scale. */
  @IsOptional()
  @IsIn(SHADE_NAMES as unknown as string[], words('The letter scale has no such shade.'))
  wanted?: string | null;

  @IsIn(CERAMIC_IDS as unknown as string[], words('This ceramic is not known.'))
  ceramic: CeramicId = 'glass-medium';

  @IsOptional()
  @IsArray(words('The ceramics of single teeth are a list.'))
  @ArrayMaxSize(PLANNABLE.length, words('A tooth has two ceramics.'))
  @ArrayUnique((o: OwnCeramic) => o.tooth, words('A tooth has two ceramics.'))
  @ValidateNested({ each: true })
  @Holds(() => OwnCeramic)
  own?: OwnCeramic[];

  @IsIn(CEMENT_IDS as unknown as string[], words('This cement is not known.'))
  cement: CementId = 'clear';
}

export const match = defineSection({
  name: 'match',
  type: MatchSection,
  empty: { readings: [], ceramic: 'glass-medium', cement: 'clear' },
  writers: ['assistant'],
  comments: true,
  parts: fields({ readings: list(by('tooth', 'of', 'zone')), own: list(by('tooth')) }),
  labels: {
    readings: 'colours read',
    wanted: 'wanted shade',
    ceramic: 'ceramic',
    own: 'ceramics of single teeth',
    cement: 'cement',
  },
  since: 6,
});
