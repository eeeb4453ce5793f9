import 'reflect-metadata';
import { type Calendar, dayOf, requireHours, VISITS, type VisitKind } from '@radiant/core';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  Min,
  ValidateBy,
  ValidateNested,
} from 'class-validator';
import { Holds } from './base/holds.js';
import { keysOf } from './base/records.js';
import { BOOK_LIMITS, DaysAway } from './sections/book.js';
import { words } from './sections/words.js';

const MINUTE = words('Hours are told in minutes from midnight, within one day.');
const WEEKDAY = words('A day of the week is 0, Monday, to 6, Sunday.');

/** Hours that recur on a day of the week. */
export class WeekHoursInput {
  @IsInt(WEEKDAY)
  @Min(0, WEEKDAY)
  @Max(6, WEEKDAY)
  weekday!: number;

  @IsInt(MINUTE)
  @Min(0, MINUTE)
  @Max(1440, MINUTE)
  from!: number;

  @IsInt(MINUTE)
  @Min(0, MINUTE)
  @Max(1440, MINUTE)
  to!: number;
}

const faultOf = (hours: unknown): string | undefined => {
  try {
    requireHours(hours as WeekHoursInput[]);
    return undefined;
  } catch (error) {
    return (error as Error).message;
  }
};

/** Hours that don't overlap and end after they begin; the sentence says which do not. */
const DontOverlap = (): PropertyDecorator =>
  ValidateBy({
    name: 'dontOverlap',
    validator: {
      validate: (v: unknown) => Array.isArray(v) && faultOf(v) === undefined,
      defaultMessage: (args) => faultOf(args?.value) ?? 'The hours are a list.',
    },
  });

const zoneExists = (v: unknown): boolean => {
  try {
    return typeof v === 'string' && new Intl.DateTimeFormat('en', { timeZone: v }) !== undefined;
  } catch {
    return false;
  }
};

/** How long a visit takes in this house. */
export class VisitMinutes {
  @IsIn(keysOf(VISITS), words('This visit is not known.'))
  visit!: VisitKind;

  @IsInt(words('Minutes are a whole number.'))
  @Min(0, words('A visit takes 0 to 600 minutes before its teeth.'))
  @Max(600, words('A visit takes 0 to 600 minutes before its teeth.'))
  minutes!: number;

  @IsInt(words('Minutes are a whole number.'))
  @Min(0, words('A tooth takes 0 to 240 minutes.'))
  @Max(240, words('A tooth takes 0 to 240 minutes.'))
  perTooth!: number;
}

const MOST = { hours: 42, chairs: 20, people: 40, away: 400 } as const;

/** When the house and its laboratory work. */
export class Clinic {
  @IsArray(words('The hours are a list.'))
  @ArrayMaxSize(MOST.hours, words(`At most ${MOST.hours} stretches of hours are kept.`))
  @ValidateNested({ each: true })
  @Holds(() => WeekHoursInput)
  @DontOverlap()
  hours!: WeekHoursInput[];

  @IsArray(words('The chairs are a list.'))
  @ArrayMinSize(1, words('A house has at least one chair.'))
  @ArrayMaxSize(MOST.chairs, words(`A house has at most ${MOST.chairs} chairs.`))
  @ArrayUnique(words('Two chairs have the same name.'))
  @IsString({ each: true, message: 'A chair has a name.' })
  @Length(1, 40, { each: true, message: 'A chair’s name has 1 to 40 characters.' })
  @Matches(/\S/, { each: true, message: 'A chair has a name.' })
  chairs!: string[];

  /** Who treats: nobody is in two chairs at one time. */
  @IsArray(words('The people who treat are a list.'))
  @ArrayMaxSize(MOST.people, words(`At most ${MOST.people} people are kept.`))
  @ArrayUnique(words('Two people have the same name.'))
  @IsString({ each: true, message: 'Who treats has a name.' })
  @Length(1, 60, { each: true, message: 'A name has 1 to 60 characters.' })
  people!: string[];

  /** How long visits take here; as their steps say where one is not named. */
  @IsArray(words('The minutes of visits are a list.'))
  @ArrayMaxSize(keysOf(VISITS).length, words('A visit has two lengths.'))
  @ArrayUnique((v: VisitMinutes) => v.visit, words('A visit has two lengths.'))
  @ValidateNested({ each: true })
  @Holds(() => VisitMinutes)
  minutes!: VisitMinutes[];

  /** Holidays and courses. */
  @IsArray(words('The days closed are a list.'))
  @ArrayMaxSize(MOST.away, words(`At most ${MOST.away} closed stretches are kept.`))
  @ValidateNested({ each: true })
  @Holds(() => DaysAway)
  away!: DaysAway[];

  /** Working days that the laboratory takes, from the scan that is sent to the work that is back. */
  @IsInt(words('The laboratory’s days are a whole number.'))
  @Min(BOOK_LIMITS.laboratoryDays.min, words('The laboratory takes at least one working day.'))
  @Max(
    BOOK_LIMITS.laboratoryDays.max,
    words(`The laboratory takes at most ${BOOK_LIMITS.laboratoryDays.max} working days.`),
  )
  laboratoryDays!: number;

  /** On which days of the week it works. */
  @IsArray(words('The laboratory’s days of the week are a list.'))
  @ArrayMaxSize(7, words('A week has seven days.'))
  @ArrayUnique(words('A day of the week stands twice.'))
  @IsInt({ ...WEEKDAY, each: true })
  @Min(0, { ...WEEKDAY, each: true })
  @Max(6, { ...WEEKDAY, each: true })
  laboratoryWeek!: number[];

  /** Until when on its days it fetches, minutes from midnight; any time where left out. */
  @IsOptional()
  @IsInt(MINUTE)
  @Min(0, MINUTE)
  @Max(1440, MINUTE)
  laboratoryPickUp?: number | null;

  @IsArray(words('The laboratory’s days closed are a list.'))
  @ArrayMaxSize(MOST.away, words(`At most ${MOST.away} closed stretches are kept.`))
  @ValidateNested({ each: true })
  @Holds(() => DaysAway)
  laboratoryAway!: DaysAway[];

  /** Where the clock on the wall hangs; a name of the zone database. */
  @ValidateBy({
    name: 'isZone',
    validator: { validate: zoneExists, defaultMessage: () => 'This time zone is not known.' },
  })
  timeZone!: string;
}

const weekdays = [0, 1, 2, 3, 4];

/** What holds until a house sets its own: five days, two stretches. House value. */
export const FIRST_CLINIC: Clinic = {
  hours: weekdays.flatMap((weekday) => [
    { weekday, from: 8 * 60, to: 12 * 60 },
    { weekday, from: 13 * 60, to: 17 * 60 },
  ]),
  chairs: ['chair 1'],
  people: [],
  minutes: [],
  away: [],
  laboratoryDays: 10,
  laboratoryWeek: weekdays,
  laboratoryAway: [],
  timeZone: 'UTC',
};

const daysOf = (away: readonly DaysAway[]): Calendar['away'] =>
  away.map((a) => ({ from: dayOf(a.from), to: dayOf(a.to), why: a.why }));

/** When the clinic works. @throws Refusal `day-invalid` */
export const clinicCalendar = ({ hours, away }: Clinic): Calendar => ({ hours, away: daysOf(away) });

/** When the laboratory works: whole days. @throws Refusal `day-invalid` */
export const laboratoryCalendar = ({ laboratoryWeek, laboratoryAway }: Clinic): Calendar => ({
  hours: laboratoryWeek.map((weekday) => ({ weekday, from: 0, to: 1440 })),
  away: daysOf(laboratoryAway),
});

export const patientAway = daysOf;
