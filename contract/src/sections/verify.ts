import 'reflect-metadata';
import {
  HAND_LIMITS,
  HAND_PLACES,
  HAND_WAYS,
  type HandPlace,
  type HandWay,
  PLANNABLE,
  PREP_CHECKS,
  type PrepCheck,
} from '@radiant/core';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsIn,
  IsISO8601,
  IsNumber,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { Holds } from '../base/holds.js';
import { keysOf } from '../base/records.js';
import { defineSection } from './define.js';
import { by, fields, list } from './parts.js';
import { FINITE, words } from './words.js';

const MM = `A thickness that is read by hand lies between ${HAND_LIMITS.min} and ${HAND_LIMITS.max} mm.`;
const TEETH = words('Front teeth and premolars are checked, 15 to 25 and 35 to 45.');

/** A thickness read by hand at one place of a tooth. */
export class HandReadingInput {
  @IsIn(PLANNABLE as number[], TEETH)
  tooth!: number;

  @IsIn(keysOf(HAND_WAYS), words('This way of reading is not known.'))
  way!: HandWay;

  @IsIn(HAND_PLACES as unknown as string[], words(`A thickness is read at one of ${HAND_PLACES.join(', ')}.`))
  place!: HandPlace;

  @IsNumber(FINITE, words(MM))
  @Min(HAND_LIMITS.min, words(MM))
  @Max(HAND_LIMITS.max, words(MM))
  mm!: number;
}

/** Something that falls short and is taken as it is, by whom, when and why. */
export class AcceptedFinding {
  @IsIn(PLANNABLE as number[], TEETH)
  tooth!: number;

  @IsIn(keysOf(PREP_CHECKS), words('This check is not known.'))
  check!: PrepCheck;

  @IsString(words('The place is text.'))
  @Length(1, 80, words('The place has 1 to 80 characters.'))
  place!: string;

  @IsString(words('A reason is text.'))
  @Length(1, 500, words('Say why it is taken as it is, in 1 to 500 characters.'))
  reason!: string;

  @IsString(words('Who accepts is text.'))
  @MaxLength(120, words('A name has at most 120 characters.'))
  by!: string;

  @IsISO8601({}, words('When it was accepted is a date with its time.'))
  at!: string;

  /** What was found then, as it was told: a later scan may find another amount. */
  @IsString(words('What was found is text.'))
  @MaxLength(300, words('What was found has at most 300 characters.'))
  found!: string;
}

const MOST_ACCEPTED = 400;

/** The preparation as it was checked: which scan, what was read by hand, and what was taken as it is. */
export class VerifySection {
  /** The scan of the prepared teeth that is judged; the newest where none is named. */
  @IsOptional()
  @IsUUID(undefined, words('The scan’s number is broken.'))
  scanId?: string | null;

  @IsArray(words('Readings are a list.'))
  @ArrayMaxSize(PLANNABLE.length * HAND_PLACES.length * keysOf(HAND_WAYS).length, words('A place is read twice.'))
  @ArrayUnique((r: HandReadingInput) => `${r.tooth} ${r.way} ${r.place}`, words('A place is read twice.'))
  @ValidateNested({ each: true })
  @Holds(() => HandReadingInput)
  readings: HandReadingInput[] = [];

  @IsArray(words('What was accepted is a list.'))
  @ArrayMaxSize(MOST_ACCEPTED, words(`At most ${MOST_ACCEPTED} findings are accepted.`))
  @ArrayUnique((a: AcceptedFinding) => `${a.tooth} ${a.check} ${a.place}`, words('A finding is accepted twice.'))
  @ValidateNested({ each: true })
  @Holds(() => AcceptedFinding)
  accepted: AcceptedFinding[] = [];
}

export const verify = defineSection({
  name: 'verify',
  type: VerifySection,
  empty: { readings: [], accepted: [] },
  writers: [],
  // Who holds the mirror types; what is taken as it is, and by which scan is judged, the dentist decides.
  fieldWriters: { readings: ['assistant'] },
  comments: true,
  parts: fields({ readings: list(by('tooth', 'way', 'place')), accepted: list(by('tooth', 'check', 'place')) }),
  labels: { scanId: 'scan of the prepared teeth', readings: 'readings by hand', accepted: 'taken as it is' },
  files: ({ scanId }) =>
    scanId
      ? [
          {
            id: scanId,
            kind: 'scan' as const,
            sentence: 'The preparation is judged by this scan; choose another in verify first.',
          },
        ]
      : [],
  withFiles: ({ scanId, ...data }, numberOf) => ({ ...data, ...(scanId && { scanId: numberOf(scanId) ?? null }) }),
  sense: ({ scanId }, files) => {
    if (!scanId) return [];
    const scan = files.get(scanId);
    if (scan?.kind !== 'scan') return [{ field: 'scanId', message: 'The scan does not belong to this case.' }];
    return scan.role === 'working'
      ? []
      : [{ field: 'scanId', message: 'A preparation is judged by a scan whose teeth are told apart.' }];
  },
  since: 7,
});
