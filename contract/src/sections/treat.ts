import 'reflect-metadata';
import {
  BASES,
  type Base,
  CEMENT_KINDS,
  type CementKind,
  CORDS,
  type Cord,
  GATES,
  type GateId,
  OLD_WORKS,
  type OldWork,
  PLANNABLE,
  PROVISIONALS,
  type Provisional,
  VISITS,
  type VisitKind,
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
  IsUUID,
  Length,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { Holds, IsDay, IsMoment } from '../base/holds.js';
import { keysOf } from '../base/records.js';
import { defineSection } from './define.js';
import { by, fields, list } from './parts.js';
import { FINITE, words } from './words.js';

/** Limits of what is kept of a treatment. House limits. */
export const TREAT_LIMITS = {
  rounds: 9,
  entries: 3000,
  timers: 1000,
  used: 400,
  thickMm: { min: 0.1, max: 6 },
  wallMm: { min: 0, max: 12 },
  seconds: { min: 1, max: 7200 },
  words: 400,
} as const;

const { thickMm: THICK, wallMm: WALL, seconds: SECONDS } = TREAT_LIMITS;
const TEETH = words('Pieces are fixed on front teeth and premolars, 15 to 25 and 35 to 45.');
const ROUND = words(`A visit is held for the first to the ${TREAT_LIMITS.rounds}th time.`);
const MOMENT = words('When it was done is a moment with its zone.');
const NAME = words('A name has at most 120 characters.');
const WORDS = words(`A note has at most ${TREAT_LIMITS.words} characters.`);
const THICK_WORDS = words(`A piece is ${THICK.min} to ${THICK.max} mm thick.`);
const WALL_WORDS = words(`A wall is ${WALL.min} to ${WALL.max} mm high.`);
const SECONDS_WORDS = words(`A timer runs for ${SECONDS.min} to ${SECONDS.max} s.`);

/** How a piece is fixed, where it is not as usual. */
export class PieceInput {
  @IsIn(PLANNABLE as number[], TEETH)
  tooth!: number;

  @IsOptional()
  @IsIn(keysOf(CEMENT_KINDS), words('This cement is not known.'))
  cement?: CementKind | null;

  /** Where it is thickest over the face, measured on the piece, mm. */
  @IsOptional()
  @IsNumber(FINITE, THICK_WORDS)
  @Min(THICK.min, THICK_WORDS)
  @Max(THICK.max, THICK_WORDS)
  thickMm?: number | null;

  /** Of the lowest wall, mm. */
  @IsOptional()
  @IsNumber(FINITE, WALL_WORDS)
  @Min(WALL.min, WALL_WORDS)
  @Max(WALL.max, WALL_WORDS)
  wallMm?: number | null;

  @IsOptional()
  @IsArray(words('What a piece is held on is a list.'))
  @ArrayMinSize(1, words('A piece is held on something.'))
  @ArrayMaxSize(keysOf(BASES).length, words('What a piece is held on is named twice.'))
  @ArrayUnique(words('What a piece is held on is named twice.'))
  @IsIn(keysOf(BASES), { each: true, message: 'What a piece is held on is not known.' })
  bases?: Base[] | null;

  @IsOptional()
  @IsBoolean(words('The laboratory has etched it or not.'))
  etched?: boolean | null;
}

/** Work that comes off a tooth first. */
export class OldWorkInput {
  @IsIn(PLANNABLE as number[], TEETH)
  tooth!: number;

  @IsIn(keysOf(OLD_WORKS), words('This old work is not known.'))
  work!: OldWork;
}

/** Which visit, and for the how manyth time it is held. */
class AtVisitInput {
  @IsIn(keysOf(VISITS), words('This visit is not known.'))
  visit!: VisitKind;

  @IsInt(ROUND)
  @Min(1, ROUND)
  @Max(TREAT_LIMITS.rounds, ROUND)
  round!: number;

  @IsString(words('Who did it is text.'))
  @MaxLength(120, NAME)
  by!: string;
}

/** A visit that is held. Two people may begin it at once: the earlier one counts. */
export class VisitRun extends AtVisitInput {
  @IsMoment(MOMENT)
  begunAt!: string;

  @IsOptional()
  @IsMoment(MOMENT)
  endedAt?: string | null;

  /** On how many teeth was worked, told when it ends with all its steps done: only then its time says something. */
  @IsOptional()
  @IsInt(words('Teeth are counted.'))
  @Min(0, words('Teeth are counted from 0.'))
  @Max(32, words('Nobody has more than 32 teeth.'))
  teeth?: number | null;
}

/** A step that was done; the first to say so counts. */
export class StepDone extends AtVisitInput {
  @IsString(words('A step is text.'))
  @Length(1, 120, words('A step has 1 to 120 characters.'))
  step!: string;

  @IsMoment(MOMENT)
  at!: string;

  /** As it was asked for then: the plan may change. */
  @IsString(words('What was done is text.'))
  @MaxLength(TREAT_LIMITS.words, WORDS)
  did!: string;

  /** Left out, and why; done where there is nothing. */
  @IsOptional()
  @IsString(words('Why a step was left out is text.'))
  @Length(1, TREAT_LIMITS.words, words(`Say why it is left out, in 1 to ${TREAT_LIMITS.words} characters.`))
  leftOut?: string | null;

  /** What was done otherwise, or seen. */
  @IsOptional()
  @IsString(words('A note is text.'))
  @MaxLength(TREAT_LIMITS.words, WORDS)
  note?: string | null;
}

/** An answer at a gate. The last one counts; all stand in the record. */
export class GateAnswer extends AtVisitInput {
  @IsIn(keysOf(GATES), words('This gate is not known.'))
  gate!: GateId;

  @IsBoolean(words('A gate is met or not.'))
  met!: boolean;

  /** Who says so: the patient, or who treats. */
  @IsString(words('Who says so is text.'))
  @Length(1, 120, words('Say who says so, in 1 to 120 characters.'))
  saidBy!: string;

  @IsMoment(MOMENT)
  at!: string;

  /** Why it goes on all the same. */
  @IsOptional()
  @IsString(words('A reason is text.'))
  @Length(1, TREAT_LIMITS.words, words(`Say why it goes on, in 1 to ${TREAT_LIMITS.words} characters.`))
  because?: string | null;
}

/** A time that is kept. */
export class StepTimer extends AtVisitInput {
  @IsUUID(undefined, words('A timer’s number is broken.'))
  id!: string;

  @IsString(words('A step is text.'))
  @Length(1, 120, words('A step has 1 to 120 characters.'))
  step!: string;

  @IsString(words('What a timer is for is text.'))
  @MaxLength(120, NAME)
  label!: string;

  @IsInt(SECONDS_WORDS)
  @Min(SECONDS.min, SECONDS_WORDS)
  @Max(SECONDS.max, SECONDS_WORDS)
  seconds!: number;

  @IsMoment(MOMENT)
  startedAt!: string;

  @IsOptional()
  @IsMoment(MOMENT)
  stoppedAt?: string | null;
}

/** A material that was used. */
export class MaterialUsed extends AtVisitInput {
  @IsUUID(undefined, words('The number of a material is broken.'))
  id!: string;

  @IsString(words('A material has a name.'))
  @Length(1, 120, words('A material’s name has 1 to 120 characters.'))
  name!: string;

  @IsString(words('A lot is text.'))
  @MaxLength(60, words('A lot has at most 60 characters.'))
  lot: string = '';

  @IsOptional()
  @IsDay(words('An expiry is a calendar date.'))
  expiry?: string | null;

  @IsMoment(MOMENT)
  at!: string;
}

/** Pieces that were tried together, and whether they went home; the last try of a set counts. */
export class SeatTrial extends AtVisitInput {
  @IsArray(words('Pieces that were tried are a list.'))
  @ArrayMinSize(1, words('A try has a piece.'))
  @ArrayMaxSize(PLANNABLE.length, words('A piece is tried twice at once.'))
  @ArrayUnique(words('A piece is tried twice at once.'))
  @IsIn(PLANNABLE as number[], { each: true, ...TEETH })
  teeth!: number[];

  @IsBoolean(words('It goes home or not.'))
  home!: boolean;

  @IsMoment(MOMENT)
  at!: string;
}

export const LOOKED_AT = {
  clean: 'cement off',
  contactsPass: 'contacts pass',
  past: 'slid past its place',
  spotInside: 'a spot inside',
  onDie: 'home on the die',
} as const;
export type LookedAt = keyof typeof LOOKED_AT;

/** What was looked at on a piece that stands up; the last answer counts. */
export class SeatLook extends AtVisitInput {
  @IsIn(PLANNABLE as number[], TEETH)
  tooth!: number;

  @IsIn(keysOf(LOOKED_AT), words('What was looked at is not known.'))
  look!: LookedAt;

  @IsBoolean(words('An answer is yes or no.'))
  yes!: boolean;

  @IsMoment(MOMENT)
  at!: string;
}

const entries = (what: string) => words(`${what} are a list.`);
const most = words(`At most ${TREAT_LIMITS.entries} steps are kept.`);

/** What is done at the chair, and what was done. */
export class TreatSection {
  @IsArray(entries('Pieces'))
  @ArrayMaxSize(PLANNABLE.length, words('A tooth has two pieces.'))
  @ArrayUnique((p: PieceInput) => p.tooth, words('A tooth has two pieces.'))
  @ValidateNested({ each: true })
  @Holds(() => PieceInput)
  pieces: PieceInput[] = [];

  @IsArray(entries('Old works'))
  @ArrayMaxSize(PLANNABLE.length, words('A tooth has two old works.'))
  @ArrayUnique((o: OldWorkInput) => o.tooth, words('A tooth has two old works.'))
  @ValidateNested({ each: true })
  @Holds(() => OldWorkInput)
  oldWorks: OldWorkInput[] = [];

  @IsOptional()
  @IsArray(entries('Teeth that get a post'))
  @ArrayUnique(words('A tooth gets two posts.'))
  @IsIn(PLANNABLE as number[], { each: true, ...TEETH })
  posts?: number[] | null;

  /** As it follows from what is cut where left out. */
  @IsOptional()
  @IsIn(keysOf(CORDS), words('This cord is not known.'))
  cord?: Cord | null;

  @IsOptional()
  @IsIn(keysOf(PROVISIONALS), words('This provisional is not known.'))
  provisional?: Provisional | null;

  @IsArray(entries('Visits'))
  @ArrayMaxSize(400, words('At most 400 beginnings of visits are kept.'))
  @ValidateNested({ each: true })
  @Holds(() => VisitRun)
  runs: VisitRun[] = [];

  @IsArray(entries('Steps'))
  @ArrayMaxSize(TREAT_LIMITS.entries, most)
  @ValidateNested({ each: true })
  @Holds(() => StepDone)
  done: StepDone[] = [];

  @IsArray(entries('Answers'))
  @ArrayMaxSize(TREAT_LIMITS.entries, most)
  @ValidateNested({ each: true })
  @Holds(() => GateAnswer)
  answers: GateAnswer[] = [];

  @IsArray(entries('Timers'))
  @ArrayMaxSize(TREAT_LIMITS.timers, words(`At most ${TREAT_LIMITS.timers} timers are kept.`))
  @ArrayUnique((t: StepTimer) => t.id, words('A timer stands twice.'))
  @ValidateNested({ each: true })
  @Holds(() => StepTimer)
  timers: StepTimer[] = [];

  @IsArray(entries('Materials'))
  @ArrayMaxSize(TREAT_LIMITS.used, words(`At most ${TREAT_LIMITS.used} materials are kept.`))
  @ArrayUnique((m: MaterialUsed) => m.id, words('A material stands twice.'))
  @ValidateNested({ each: true })
  @Holds(() => MaterialUsed)
  used: MaterialUsed[] = [];

  @IsArray(entries('Tries'))
  @ArrayMaxSize(TREAT_LIMITS.entries, most)
  @ValidateNested({ each: true })
  @Holds(() => SeatTrial)
  trials: SeatTrial[] = [];

  @IsArray(entries('Looks'))
  @ArrayMaxSize(TREAT_LIMITS.entries, most)
  @ValidateNested({ each: true })
  @Holds(() => SeatLook)
  looks: SeatLook[] = [];
}

export const treat = defineSection({
  name: 'treat',
  type: TreatSection,
  empty: { pieces: [], oldWorks: [], runs: [], done: [], answers: [], timers: [], used: [], trials: [], looks: [] },
  writers: ['assistant'],
  comments: true,
  // What was done is told as it happens, by whoever is at the chair: two people never have to choose between them.
  parts: fields({
    pieces: list(by('tooth'), fields({})),
    oldWorks: list(by('tooth')),
    runs: list(by('visit', 'round', 'begunAt', 'by'), fields({})),
    done: list(by('visit', 'round', 'step', 'at', 'by'), fields({})),
    answers: list(by('visit', 'round', 'gate', 'at', 'by')),
    timers: list(by('id'), fields({})),
    used: list(by('id'), fields({})),
    trials: list(by('visit', 'round', 'teeth', 'at', 'by')),
    looks: list(by('visit', 'round', 'tooth', 'look', 'at', 'by')),
  }),
  labels: {
    pieces: 'how pieces are fixed',
    oldWorks: 'old work that comes off',
    posts: 'posts',
    cord: 'cord',
    provisional: 'provisional',
    runs: 'visits held',
    done: 'steps done',
    answers: 'answers at gates',
    timers: 'timers',
    used: 'materials used',
    trials: 'what was tried in',
    looks: 'what was looked at',
    cement: 'cement',
    thickMm: 'thickness of the piece',
    wallMm: 'height of the lowest wall',
    bases: 'what it is held on',
    etched: 'etched by the laboratory',
    note: 'note',
    stoppedAt: 'stopped',
    endedAt: 'ended',
  },
  sense: ({ runs }) =>
    runs.flatMap((r, i) =>
      r.endedAt && Date.parse(r.endedAt) < Date.parse(r.begunAt)
        ? [{ field: `runs.${i}.endedAt`, message: 'A visit ends after it begins.' }]
        : [],
    ),
  since: 10,
});
