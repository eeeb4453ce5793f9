import 'reflect-metadata';
import {
  FINISH_LIMITS,
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
  IsInt,
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

const DRAWN = words(
  `A finish line is drawn within ${-FINISH_LIMITS.min} mm to the root and ${FINISH_LIMITS.max} mm to the edge.`,
);

/** Where somebody has drawn the finish line in one direction of a tooth. */
export class DrawnFinish {
  @IsIn(PLANNABLE as number[], TEETH)
  tooth!: number;

  @IsInt(words('A direction around a tooth is a whole number.'))
  @Min(0, words('A direction around a tooth is a whole number from 0.'))
  @Max(FINISH_LIMITS.directions - 1, words(`There are ${FINISH_LIMITS.directions} directions around a tooth.`))
  at!: number;

  @IsNumber(FINITE, DRAWN)
  @Min(FINISH_LIMITS.min, DRAWN)
  @Max(FINISH_LIMITS.max, DRAWN)
  mm!: number;
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

  /** Finish lines as they were drawn where the scan shows them to an eye and not to the program. */
  @IsOptional()
  @IsArray(words('Drawn finish lines are a list.'))
  @ArrayMaxSize(PLANNABLE.length * FINISH_LIMITS.directions, words('A finish line is drawn twice.'))
  @ArrayUnique((l: DrawnFinish) => `${l.tooth} ${l.at}`, words('A finish line is drawn twice.'))
  @ValidateNested({ each: true })
  @Holds(() => DrawnFinish)
  lines?: DrawnFinish[];
}

export const verify = defineSection({
  name: 'verify',
  type: VerifySection,
  empty: { readings: [], accepted: [] },
  writers: [],
  // Who holds the mirror types; what is taken as it is, and by which scan is judged, the dentist decides.
  fieldWriters: { readings: ['assistant'] },
  comments: true,
  parts: fields({
    readings: list(by('tooth', 'way', 'place')),
    accepted: list(by('tooth', 'check', 'place')),
    lines: list(by('tooth', 'at')),
  }),
  labels: {
    scanId: 'scan of the prepared teeth',
    readings: 'readings by hand',
    accepted: 'taken as it is',
    lines: 'finish lines drawn',
  },
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
