import 'reflect-metadata';
import {
  IMPRESSIONS,
  type Impression,
  MAKERS,
  type Maker,
  TISSUE_WORK,
  type TissueWork,
  VISITS,
  type VisitKind,
} from '@radiant/core';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Length,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { Holds, IsDay } from '../base/holds.js';
import { keysOf } from '../base/records.js';
import { defineSection } from './define.js';
import { by, fields, list } from './parts.js';
import { words } from './words.js';

/** Limits of what is booked. House limits. */
export const BOOK_LIMITS = {
  laboratoryDays: { min: 1, max: 60 },
  mockUpDays: { min: 0, max: 60 },
  minutes: { min: 5, max: 600 },
  away: 60,
} as const;

const { laboratoryDays: LAB, mockUpDays: WORN, minutes: MINUTES } = BOOK_LIMITS;
const LAB_WORDS = words(`The laboratory takes ${LAB.min} to ${LAB.max} working days.`);
const WORN_WORDS = words(`A mock-up is worn for ${WORN.min} to ${WORN.max} days.`);
const MINUTE = words('A time of day is told in minutes from midnight.');
const LONG = words(`A visit takes ${MINUTES.min} to ${MINUTES.max} minutes.`);
const DAY = words('A day is a calendar date.');

/** Days on which somebody is away, both ends within. */
export class DaysAway {
  @IsDay(DAY)
  from!: string;

  @IsDay(DAY)
  to!: string;

  @IsString(words('Why somebody is away is text.'))
  @MaxLength(80, words('Why somebody is away has at most 80 characters.'))
  why: string = '';
}

/** A visit that is booked. */
export class BookedVisit {
  @IsIn(keysOf(VISITS), words('This visit is not known.'))
  kind!: VisitKind;

  @IsDay(DAY)
  day!: string;

  /** Minutes from midnight, by the practice's own clock. */
  @IsInt(MINUTE)
  @Min(0, MINUTE)
  @Max(1439, MINUTE)
  from!: number;

  @IsInt(LONG)
  @Min(MINUTES.min, LONG)
  @Max(MINUTES.max, LONG)
  minutes!: number;

  @IsString(words('A chair has a name.'))
  @Length(1, 40, words('A chair’s name has 1 to 40 characters.'))
  chair!: string;

  /** Who treats. */
  @IsOptional()
  @IsString(words('Who treats has a name.'))
  @MaxLength(60, words('A name has at most 60 characters.'))
  by?: string | null;
}

/** Two visits that want the same chair, or the same person, at the same time. */
export const overlap = (a: BookedVisit, b: BookedVisit): boolean =>
  a.day === b.day &&
  (a.chair === b.chair || (!!a.by && a.by === b.by)) &&
  a.from < b.from + b.minutes &&
  b.from < a.from + a.minutes;

/** When the visits of a case are, and what they follow from where it is not said elsewhere. */
export class BookSection {
  /** The patient would be happy with this day, though a later one was promised. */
  @IsOptional()
  @IsDay(words('The day that would please is a calendar date.'))
  happyBy?: string | null;

  /** Why the date matters. */
  @IsOptional()
  @IsString(words('The reason of the date is text.'))
  @MaxLength(200, words('The reason of the date has at most 200 characters.'))
  why?: string;

  /** As the house has it where left out. */
  @IsOptional()
  @IsInt(WORN_WORDS)
  @Min(WORN.min, WORN_WORDS)
  @Max(WORN.max, WORN_WORDS)
  mockUpDays?: number | null;

  @IsOptional()
  @IsIn(keysOf(TISSUE_WORK), words('What is done to the gum is not known.'))
  tissue?: TissueWork;

  /** As it follows from margins and gum where left out. */
  @IsOptional()
  @IsIn(keysOf(IMPRESSIONS), words('When the impression is made is not known.'))
  impression?: Impression | null;

  @IsOptional()
  @IsIn(keysOf(MAKERS), words('Who makes it is not known.'))
  maker?: Maker;

  @IsOptional()
  @IsInt(LAB_WORDS)
  @Min(LAB.min, LAB_WORDS)
  @Max(LAB.max, LAB_WORDS)
  laboratoryDays?: number | null;

  @IsOptional()
  @IsBoolean(words('There is a try-in of its own or not.'))
  tryIn?: boolean;

  /** As it follows from the cautions where left out. */
  @IsOptional()
  @IsBoolean(words('There is a guard or not.'))
  guard?: boolean | null;

  @IsArray(words('The days away are a list.'))
  @ArrayMaxSize(BOOK_LIMITS.away, words(`At most ${BOOK_LIMITS.away} absences are kept.`))
  @ValidateNested({ each: true })
  @Holds(() => DaysAway)
  away: DaysAway[] = [];

  @IsArray(words('The visits are a list.'))
  @ArrayMaxSize(keysOf(VISITS).length, words('A visit is booked twice.'))
  @ArrayUnique((v: BookedVisit) => v.kind, words('A visit is booked twice.'))
  @ValidateNested({ each: true })
  @Holds(() => BookedVisit)
  visits: BookedVisit[] = [];
}

export const book = defineSection({
  name: 'book',
  type: BookSection,
  empty: { away: [], visits: [] },
  writers: ['assistant'],
  comments: true,
  parts: fields({ visits: list(by('kind')), away: list(by('from', 'to')) }),
  labels: {
    happyBy: 'the day that would please',
    why: 'why the date matters',
    mockUpDays: 'days a mock-up is worn',
    tissue: 'gum',
    impression: 'impression',
    maker: 'who makes it',
    laboratoryDays: 'working days of the laboratory',
    tryIn: 'a try-in of its own',
    guard: 'night guard',
    away: 'days the patient is away',
    visits: 'visits booked',
  },
  sense: ({ away, visits }) => [
    ...away.flatMap((a, i) =>
      a.to < a.from ? [{ field: `away.${i}.to`, message: 'An absence ends after it begins.' }] : [],
    ),
    ...visits.flatMap((v, i) => {
      const other = visits.slice(0, i).find((o) => overlap(o, v));
      return other
        ? [
            {
              field: `visits.${i}`,
              message: `${VISITS[other.kind]} and ${VISITS[v.kind]} are both booked on ${v.day} at that time.`,
            },
          ]
        : [];
    }),
  ],
  since: 9,
});
