import 'reflect-metadata';
import {
  CEMENT_IDS,
  CERAMIC_IDS,
  type CementId,
  isPlateId,
  NM,
  PLANNABLE,
  PLATE_LIMITS,
  READING_LIGHTS,
  READING_OF,
  READING_ZONES,
  type ReadingLight,
  type ReadingOf,
  type ReadingZone,
  SCALE_LIMITS,
  SHADE_NAMES,
} from '@radiant/core';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
  ValidateBy,
  ValidateNested,
} from 'class-validator';
import { Holds, IsDay, IsMoment } from '../base/holds.js';
import { defineSection } from './define.js';
import { LabInput } from './lab.js';
import { by, fields, list } from './parts.js';
import { FINITE, words } from './words.js';

export { LAB_LIMITS } from './lab.js';

/** How long colour is left to settle after bleaching, days: one to two weeks. Common practice, no source. */
export const BLEACH_WAIT = { usual: 14, min: 0, max: 60 } as const;
export const TRANSLUCENCIES = ['low', 'medium', 'high'] as const;
export type EdgeTranslucency = (typeof TRANSLUCENCIES)[number];
export const TEXTURES = ['smooth', 'light', 'marked'] as const;
export type SurfaceTexture = (typeof TEXTURES)[number];

/** A measured white may read a little over it. */
const MOST = 1.05;
const SPECTRUM = words(
  `A spectrum has ${NM.count} values, from ${NM.from} to ${NM.to} nm by ${NM.step}, each between 0 and ${MOST}.`,
);

/** A colour that was read on a tooth. */
export class ColourReadingInput extends LabInput {
  @IsIn(PLANNABLE as number[], words('A colour is read on front teeth and premolars, 15 to 25 and 35 to 45.'))
  tooth!: number;

  @IsIn(READING_OF as unknown as string[], words('A colour is read on the tooth or on its stump.'))
  of!: ReadingOf;

  @IsIn(READING_ZONES as unknown as string[], words(`A colour is read at ${READING_ZONES.join(', ')}.`))
  zone!: ReadingZone;

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

  /** In which light it was read, where a device does not bring its own. */
  @IsOptional()
  @IsIn(READING_LIGHTS as unknown as string[], words(`A colour is read in ${READING_LIGHTS.join(', ')}.`))
  light?: ReadingLight | null;

  /** From a photograph with a grey card: near enough to talk, not to choose by. */
  @IsOptional()
  @IsBoolean(words('A reading is rough or not.'))
  rough?: boolean | null;
}

/** A shade of the letter scale, or of a house's whose colour is kept beside it. */
const IsKnownShade = (): PropertyDecorator =>
  ValidateBy({
    name: 'isKnownShade',
    validator: {
      validate: (v: unknown, args) =>
        Boolean((args?.object as MatchSection | undefined)?.wantedColour) ||
        (SHADE_NAMES as readonly unknown[]).includes(v),
      defaultMessage: () => 'The letter scale has no such shade.',
    },
  });

/** A ceramic: a generic class, or a plate of the house's own by its name. */
export const IsCeramic = (): PropertyDecorator =>
  ValidateBy({
    name: 'isCeramic',
    validator: {
      validate: (v: unknown) =>
        typeof v === 'string' &&
        ((CERAMIC_IDS as readonly string[]).includes(v) || (isPlateId(v) && v.length <= PLATE_LIMITS.name + 10)),
      defaultMessage: () => 'This ceramic is not known.',
    },
  });

/** A ceramic for one tooth where it is another than the case's. */
export class OwnCeramic {
  @IsIn(PLANNABLE as number[], words('A ceramic is chosen for front teeth and premolars, 15 to 25 and 35 to 45.'))
  tooth!: number;

  @IsCeramic()
  ceramic!: string;
}

/** A colour of a house's scale, kept with the case: the scale may change. */
export class WantedColour extends LabInput {
  @IsString(words('The name of a scale is text.'))
  @MaxLength(SCALE_LIMITS.name, words(`The name of a scale has at most ${SCALE_LIMITS.name} characters.`))
  scale!: string;
}

const WAIT = words(`Colour settles for ${BLEACH_WAIT.min} to ${BLEACH_WAIT.max} days after bleaching.`);

/** A tooth that is bleached before it is restored. */
export class Bleaching {
  @IsIn(PLANNABLE as number[], words('Bleaching is planned for front teeth and premolars, 15 to 25 and 35 to 45.'))
  tooth!: number;

  @IsIn(SHADE_NAMES as unknown as string[], words('The letter scale has no such shade.'))
  to!: string;

  @IsInt(WAIT)
  @Min(BLEACH_WAIT.min, WAIT)
  @Max(BLEACH_WAIT.max, WAIT)
  waitDays!: number;

  /** The last day of it; left out while it goes on. */
  @IsOptional()
  @IsDay(words('Bleaching ends on a calendar date.'))
  endedOn?: string | null;
}

/** What a technician is told of a tooth beside its shade. */
export class ToothCharacter {
  @IsIn(PLANNABLE as number[], words('A tooth is described from 15 to 25 and 35 to 45.'))
  tooth!: number;

  @IsOptional()
  @IsIn(TRANSLUCENCIES as unknown as string[], words('An edge is of low, medium or high translucency.'))
  translucency?: EdgeTranslucency | null;

  @IsOptional()
  @IsIn(TEXTURES as unknown as string[], words('A surface is smooth, lightly or markedly textured.'))
  texture?: SurfaceTexture | null;

  @IsOptional()
  @IsString(words('A note is text.'))
  @MaxLength(300, words('A note on a tooth has at most 300 characters.'))
  note?: string | null;
}

/** What the colour is to be, and over what. */
export class MatchSection {
  @IsArray(words('The readings are a list.'))
  @ArrayMaxSize(PLANNABLE.length * READING_OF.length * READING_ZONES.length, words('A zone has two readings.'))
  @ArrayUnique((r: ColourReadingInput) => `${r.tooth} ${r.of} ${r.zone}`, words('A zone has two readings.'))
  @ValidateNested({ each: true })
  @Holds(() => ColourReadingInput)
  readings: ColourReadingInput[] = [];

  /** By the letter scale, or by the house's that `wantedColour` names. */
  @IsOptional()
  @IsString(words('A shade is text.'))
  @MaxLength(SCALE_LIMITS.shade, words(`A shade’s name has at most ${SCALE_LIMITS.shade} characters.`))
  @IsKnownShade()
  wanted?: string | null;

  @IsOptional()
  @ValidateNested()
  @Holds(() => WantedColour)
  wantedColour?: WantedColour | null;

  /** The tooth that the others are to look like, zone by zone, where it was read. */
  @IsOptional()
  @IsIn(PLANNABLE as number[], words('A tooth is matched with one from 15 to 25 or 35 to 45.'))
  like?: number | null;

  @IsCeramic()
  ceramic: string = 'glass-medium';

  @IsOptional()
  @IsArray(words('The ceramics of single teeth are a list.'))
  @ArrayMaxSize(PLANNABLE.length, words('A tooth has two ceramics.'))
  @ArrayUnique((o: OwnCeramic) => o.tooth, words('A tooth has two ceramics.'))
  @ValidateNested({ each: true })
  @Holds(() => OwnCeramic)
  own?: OwnCeramic[];

  @IsIn(CEMENT_IDS as unknown as string[], words('This cement is not known.'))
  cement: CementId = 'clear';

  @IsOptional()
  @IsArray(words('Bleachings are a list.'))
  @ArrayMaxSize(PLANNABLE.length, words('A tooth is bleached twice.'))
  @ArrayUnique((b: Bleaching) => b.tooth, words('A tooth is bleached twice.'))
  @ValidateNested({ each: true })
  @Holds(() => Bleaching)
  bleaching?: Bleaching[];

  @IsOptional()
  @IsArray(words('What is told of the teeth is a list.'))
  @ArrayMaxSize(PLANNABLE.length, words('A tooth is described twice.'))
  @ArrayUnique((c: ToothCharacter) => c.tooth, words('A tooth is described twice.'))
  @ValidateNested({ each: true })
  @Holds(() => ToothCharacter)
  character?: ToothCharacter[];
}

export const match = defineSection({
  name: 'match',
  type: MatchSection,
  empty: { readings: [], ceramic: 'glass-medium', cement: 'clear' },
  writers: ['assistant'],
  comments: true,
  parts: fields(
    {
      readings: list(by('tooth', 'of', 'zone')),
      own: list(by('tooth')),
      bleaching: list(by('tooth')),
      character: list(by('tooth')),
    },
    ['wanted', 'wantedColour'],
  ),
  labels: {
    readings: 'colours read',
    wanted: 'wanted shade',
    wantedColour: 'colour of the wanted shade',
    like: 'the tooth to look like',
    bleaching: 'bleaching first',
    character: 'what the technician is told of the teeth',
    ceramic: 'ceramic',
    own: 'ceramics of single teeth',
    cement: 'cement',
  },
  since: 6,
});
