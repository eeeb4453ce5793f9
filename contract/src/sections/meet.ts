import 'reflect-metadata';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import { Holds, IsDay, IsMoment } from '../base/holds.js';
import {
  CAUTIONS,
  type Caution,
  keysOf,
  TOOTH_PAST,
  type ToothPast,
  WISH_TAGS,
  type WishTag,
} from '../base/records.js';
import { defineSection } from './define.js';
import { by, fields, list, SET } from './parts.js';
import { ALL_TEETH, words } from './words.js';

/** The shade of a tooth as it was taken. */
export class ToothShade {
  /** As the tab is named. */
  @IsString(words('A shade is text.'))
  @MinLength(1, words('A shade has at least one character.'))
  @MaxLength(20, words('A shade has at most 20 characters.'))
  name!: string;

  /** Whether the tooth was wet; left out where nobody said. */
  @IsOptional()
  @IsBoolean(words('A shade is taken wet or dry.'))
  wet?: boolean;

  @IsMoment(words('A shade is taken at a moment with its zone.'))
  at!: string;
}

/** What one tooth has behind it. */
export class ToothHistory {
  @IsIn(ALL_TEETH, words('A tooth of the history is not a permanent tooth.'))
  tooth!: number;

  @IsArray(words('The history of a tooth is a list.'))
  @ArrayMaxSize(keysOf(TOOTH_PAST).length, words('A point of a tooth’s history is named twice.'))
  @ArrayUnique(words('A point of a tooth’s history is named twice.'))
  @IsIn(keysOf(TOOTH_PAST), { each: true, message: 'A point of a tooth’s history is not known.' })
  past: ToothPast[] = [];

  @IsOptional()
  @IsString(words('The note on a tooth is text.'))
  @MaxLength(300, words('The note on a tooth has at most 300 characters.'))
  note?: string;

  @IsOptional()
  @ValidateNested()
  @Holds(() => ToothShade)
  shade?: ToothShade;
}

/** Who, what they want, by when, what to beware of, what the teeth have behind them. */
export class MeetSection {
  @IsOptional()
  @IsInt(words('The age is a whole number of years.'))
  @Min(0, words('The age must lie between 0 and 120 years.'))
  @Max(120, words('The age must lie between 0 and 120 years.'))
  ageYears?: number | null;

  /** For norms that need it, nothing else. */
  @IsOptional()
  @IsIn(['female', 'male'], words('The sex at birth is female or male, or left open.'))
  sexAtBirth?: 'female' | 'male' | null;

  @IsString(words('The wish is text.'))
  @MaxLength(500, words('The wish has at most 500 characters.'))
  wish: string = '';

  @IsArray(words('The tags of the wish are a list.'))
  @ArrayMaxSize(keysOf(WISH_TAGS).length, words('A tag is set twice.'))
  @ArrayUnique(words('A tag is set twice.'))
  @IsIn(keysOf(WISH_TAGS), { each: true, message: 'A tag of the wish is not known.' })
  wishTags: WishTag[] = [];

  @IsOptional()
  @IsDay(words('The date to finish by is a calendar date.'))
  finishBy?: string | null;

  @IsArray(words('The cautions are a list.'))
  @ArrayMaxSize(keysOf(CAUTIONS).length, words('A caution is set twice.'))
  @ArrayUnique(words('A caution is set twice.'))
  @IsIn(keysOf(CAUTIONS), { each: true, message: 'A caution is not known.' })
  cautions: Caution[] = [];

  @IsString(words('The note on cautions is text.'))
  @MaxLength(500, words('The note on cautions has at most 500 characters.'))
  cautionNote: string = '';

  @IsArray(words('The history of the teeth is a list.'))
  @ArrayMaxSize(ALL_TEETH.length, words('A tooth stands in the history twice.'))
  @ArrayUnique((t: ToothHistory) => t.tooth, words('A tooth stands in the history twice.'))
  @ValidateNested({ each: true })
  @Holds(() => ToothHistory)
  teeth: ToothHistory[] = [];
}

export const meet = defineSection({
  name: 'meet',
  type: MeetSection,
  empty: { wish: '', wishTags: [], cautions: [], cautionNote: '', teeth: [] },
  writers: ['assistant'],
  comments: false,
  parts: fields({ wishTags: SET, cautions: SET, teeth: list(by('tooth'), fields({ past: SET })) }),
  labels: {
    wish: 'wish',
    ageYears: 'age, years',
    sexAtBirth: 'sex at birth',
    finishBy: 'to be finished by',
    cautionNote: 'note on cautions',
    note: 'note',
    shade: 'shade',
  },
});
