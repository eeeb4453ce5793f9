import 'reflect-metadata';
import { CROWN_LIMITS, EDGE_LIMITS, GUM_LIMITS, SCHOOLS, type SchoolId, UPPER_TEN } from '@radiant/core';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsIn,
  IsNumber,
  IsOptional,
  Max,
  Min,
  ValidateNested,
} from 'class-validator';
import { Holds } from '../base/holds.js';
import { defineSection } from './define.js';
import { by, fields, list, SET } from './parts.js';
import { FINITE, words } from './words.js';

/** A width that is set by hand. */
export class LockedWidth {
  @IsIn(UPPER_TEN as number[], words('Widths are set on upper front teeth and those in their places, 15 to 25.'))
  tooth!: number;

  @IsNumber(FINITE, words('The width is not a number.'))
  @Min(CROWN_LIMITS.widthMm.min, words('The width must be at least 3 mm.'))
  @Max(CROWN_LIMITS.widthMm.max, words('The width must be at most 14 mm.'))
  widthMm!: number;
}

/** Front-view widths of a smile that the patient likes, each over the tooth before it. */
export class LikedSmile {
  @IsNumber(FINITE, words('The lateral’s share is not a number.'))
  @Min(0.3, words('A lateral is between 0.3 and 1.2 of its central.'))
  @Max(1.2, words('A lateral is between 0.3 and 1.2 of its central.'))
  lateral!: number;

  @IsNumber(FINITE, words('The canine’s share is not a number.'))
  @Min(0.3, words('A canine is between 0.3 and 1.5 of its lateral.'))
  @Max(1.5, words('A canine is between 0.3 and 1.5 of its lateral.'))
  canine!: number;
}

/** First premolars that share the space, by their widths. */
export class SharingPremolars {
  @IsNumber(FINITE, words('The width of the right first premolar is not a number.'))
  @Min(3, words('A premolar is 3 to 14 mm wide.'))
  @Max(14, words('A premolar is 3 to 14 mm wide.'))
  right!: number;

  @IsNumber(FINITE, words('The width of the left first premolar is not a number.'))
  @Min(3, words('A premolar is 3 to 14 mm wide.'))
  @Max(14, words('A premolar is 3 to 14 mm wide.'))
  left!: number;
}

/** How targets are set. */
export class ProposeSection {
  @IsIn(SCHOOLS.map((s) => s.id) as string[], words('This school of proportion is not known.'))
  school: SchoolId = 'ratio';

  @IsIn(UPPER_TEN as number[], words('The reference tooth is an upper front tooth or one in its place, 15 to 25.'))
  referenceTooth: number = 11;

  @IsNumber(FINITE, words('The edge level is not a number.'))
  @Min(EDGE_LIMITS.min, words('The edge can be set at most 3 mm up.'))
  @Max(EDGE_LIMITS.max, words('The edge can be set at most 4 mm down.'))
  edgeMm: number = 0;

  /** Gum line of the six teeth moved up. */
  @IsOptional()
  @IsNumber(FINITE, words('The gum level is not a number.'))
  @Min(GUM_LIMITS.min, words('The gum is moved up by 0 to 4 mm.'))
  @Max(GUM_LIMITS.max, words('The gum is moved up by 0 to 4 mm.'))
  gumMm?: number;

  /** Ratio of the recurring school. */
  @IsOptional()
  @IsNumber(FINITE, words('The recurring ratio is not a number.'))
  @Min(0.5, words('The recurring ratio lies between 0.5 and 1.'))
  @Max(1, words('The recurring ratio lies between 0.5 and 1.'))
  ratio?: number;

  @IsOptional()
  @ValidateNested()
  @Holds(() => LikedSmile)
  liked?: LikedSmile | null;

  @IsOptional()
  @IsIn(['close', 'keep'], words('Gaps are closed or kept.'))
  gaps?: 'close' | 'keep';

  /** The room goes from first premolar to first premolar; from canine to canine where nothing is said. */
  @IsOptional()
  @ValidateNested()
  @Holds(() => SharingPremolars)
  premolars?: SharingPremolars | null;

  /** The teeth that are changed; all that are measured where nothing is said. */
  @IsOptional()
  @IsArray(words('The teeth in the plan are a list.'))
  @ArrayMaxSize(UPPER_TEN.length, words('A tooth is in the plan twice.'))
  @ArrayUnique(words('A tooth is in the plan twice.'))
  @IsIn(UPPER_TEN as number[], {
    each: true,
    message: 'Targets are set for upper front teeth and those in their places, 15 to 25.',
  })
  planned?: number[];

  /** Left and right alike; so where nothing is said. */
  @IsOptional()
  @IsBoolean(words('Whether left and right are alike is yes or no.'))
  alike?: boolean;

  @IsOptional()
  @IsArray(words('The widths set by hand are a list.'))
  @ArrayMaxSize(UPPER_TEN.length, words('A width is set twice.'))
  @ArrayUnique((l: LockedWidth) => l.tooth, words('A width is set twice.'))
  @ValidateNested({ each: true })
  @Holds(() => LockedWidth)
  locked?: LockedWidth[];
}

export const propose = defineSection({
  name: 'propose',
  type: ProposeSection,
  empty: { school: 'ratio', referenceTooth: 11, edgeMm: 0 },
  writers: [],
  comments: true,
  parts: fields({ locked: list(by('tooth')), planned: SET }),
  labels: {
    gumMm: 'gum moved up, mm',
    ratio: 'recurring ratio',
    gaps: 'gaps',
    alike: 'left and right alike',
    premolars: 'premolars in the space',
    liked: 'smile that is liked',
    edgeMm: 'edge level, mm',
    referenceTooth: 'reference tooth',
    school: 'school',
  },
});
