import 'reflect-metadata';
import { FORMS_EDITION, type Jaw, PLAN_LIMITS, PLANNABLE, type PlanNumber } from '@radiant/core';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { Holds, IsDay } from './base/holds.js';
import { PLAN_FIELDS, planDefault } from './base/plan-fields.js';
import { keysOf } from './base/records.js';
import { JAWS } from './files.js';
import type { ToothPlanInput } from './sections/index.js';

const words = (what: string) => ({ message: what });

/** What is said of the contour that is kept as a version; the contour itself is the one that stands in shape. */
export class NewContourVersion {
  @IsString(words('A version needs a name.'))
  @Length(1, 60, words('The name of a version has 1 to 60 characters.'))
  name!: string;

  @IsString(words('Why it is kept is text.'))
  @MaxLength(300, words('Why it is kept has at most 300 characters.'))
  why: string = '';
}

/** A change that was asked for after wearing a version: one number of one tooth, by so much. */
export class AskedChange {
  @IsIn(PLANNABLE as number[], words('A change is asked for on a front tooth or premolar, 15 to 25 or 35 to 45.'))
  tooth!: number;

  @IsIn(PLAN_FIELDS.map((f) => f.key) as string[], words('This number of a crown is not known.'))
  key!: PlanNumber;

  @IsNumber({ allowNaN: false, allowInfinity: false }, words('By how much is a number.'))
  @Min(-30, words('A change is at most 30 either way.'))
  @Max(30, words('A change is at most 30 either way.'))
  by!: number;
}

/** How the edge stood when the mock-up was worn. */
export const WORN_EDGES = { right: 'right', long: 'too long', short: 'too short' } as const;
export type WornEdge = keyof typeof WORN_EDGES;

/** Whether the mock-up was measured again when it came out: what was ground or added in the mouth is in no plan. */
export const WORN_MEASURED = {
  same: 'yes, and it is this contour',
  taken: 'yes, and what was changed is in the contour',
  no: 'no',
} as const;
export type WornMeasured = keyof typeof WORN_MEASURED;

/** A version worn in the mouth as a mock-up, and what came of it. */
export class WornMockUp {
  @IsDay(words('The day on which the mock-up was put in is a calendar date.'))
  from!: string;

  @IsOptional()
  @IsDay(words('The day on which the mock-up came out is a calendar date.'))
  until?: string | null;

  /** Where the edge stood against the lower lip, speaking and smiling. */
  @IsOptional()
  @IsIn(keysOf(WORN_EDGES), words('The edge stood right, too long or too short.'))
  edge?: WornEdge | null;

  /** Whether its shape was scanned or copied again as it was worn. */
  @IsOptional()
  @IsIn(keysOf(WORN_MEASURED), words('The worn shape was measured again, or it was not.'))
  measured?: WornMeasured | null;

  @IsString(words('The note on speech is text.'))
  @MaxLength(300, words('The note on speech has at most 300 characters.'))
  speech: string = '';

  @IsString(words('The note on bulk is text.'))
  @MaxLength(300, words('The note on bulk has at most 300 characters.'))
  bulk: string = '';

  @IsString(words('The family’s opinion is text.'))
  @MaxLength(300, words('The family’s opinion has at most 300 characters.'))
  family: string = '';

  @IsOptional()
  @IsArray(words('The changes asked for are a list.'))
  @ArrayMaxSize(60, words('At most 60 changes are asked for.'))
  @ValidateNested({ each: true })
  @Holds(() => AskedChange)
  asked?: AskedChange[];
}

/** For how many days a version was worn: to the day it came out, or to today. Undefined where it never was. */
export function daysWorn(worn: Pick<WornMockUp, 'from' | 'until'> | null, today: string): number | undefined {
  if (!worn?.from) return undefined;
  const days = (Date.parse(worn.until || today) - Date.parse(worn.from)) / 86_400_000;
  return Number.isFinite(days) ? Math.max(0, Math.round(days)) : undefined;
}

/** The version that was worn last, where nobody has said that its shape was measured again. */
export function wornUnmeasured<V extends Pick<ContourVersion, 'worn'>>(versions: readonly V[]): V | undefined {
  const last = versions
    .filter((v) => v.worn?.from)
    .sort((a, b) => (a.worn?.from ?? '').localeCompare(b.worn?.from ?? ''))
    .at(-1);
  return last && (last.worn?.measured ?? 'no') === 'no' ? last : undefined;
}

/** The patient's approval of a version, in a word. */
export class ContourApproval {
  @IsString(words('How the patient approved is text.'))
  @Length(1, 300, words('Say in a word how the patient approved.'))
  word!: string;
}

/** A file that something frozen was computed from. */
export class SourceFile {
  @IsUUID(undefined, words('The number of a source file is broken.'))
  fileId!: string;

  @IsIn(JAWS as unknown as string[], words('A scan is of the upper or of the lower jaw.'))
  jaw!: Jaw;

  @Matches(/^[0-9a-f]{64}$/, words('A hash has 64 digits of 0 to f.'))
  sha256!: string;
}

/**
 * What a frozen thing was computed from, by the hashes of it: whoever opens it later can tell whether it stands on the
 * same ground.
 */
export class MadeFrom {
  /** Scans that the teeth stand on, one of a jaw. */
  @IsArray(words('The source files are a list.'))
  @ArrayMaxSize(JAWS.length, words('A contour stands on one scan of each jaw.'))
  @ArrayUnique((f: SourceFile) => f.jaw, words('A contour stands on one scan of each jaw.'))
  @ValidateNested({ each: true })
  @Holds(() => SourceFile)
  files: SourceFile[] = [];

  /** The edition of the library's forms that drew its crowns; the first where nothing is said. */
  @IsOptional()
  @IsInt(words('The edition of the crown forms is a whole number.'))
  @Min(1, words('The edition of the crown forms is a whole number.'))
  @Max(9999, words('The edition of the crown forms is a whole number.'))
  forms?: number;
}

/** Whether a kept contour was drawn with other crown forms than now: its numbers stand, its surfaces have changed. */
export const formsChanged = ({ madeFrom }: Pick<ContourVersion, 'madeFrom'>): boolean =>
  (madeFrom.forms ?? 1) !== FORMS_EDITION;

/** A contour that was kept: never changed afterwards. */
export interface ContourVersion {
  readonly id: string;
  /** Counted within the case, from 1. */
  readonly number: number;
  readonly name: string;
  readonly why: string;
  readonly by: string;
  readonly at: string;
  readonly madeFrom: MadeFrom;
  readonly teeth: readonly ToothPlanInput[];
  readonly worn: WornMockUp | null;
  /** `claimed`: it stands in a case file that was brought in; nobody of this practice has given it. */
  readonly approved: {
    readonly word: string;
    readonly by: string;
    readonly at: string;
    readonly claimed: boolean;
  } | null;
}

/** The upper scan of a contour that was kept, as the contour in shape names it. */
export function scanOf({ madeFrom }: Pick<ContourVersion, 'madeFrom'>): { readonly scanId?: string } {
  const upper = madeFrom.files.find((f) => f.jaw === 'upper');
  return upper ? { scanId: upper.fileId } : {};
}

/** Whether two contours are the same in every number. */
export function sameContour(a: readonly ToothPlanInput[], b: readonly ToothPlanInput[]): boolean {
  const key = (teeth: readonly ToothPlanInput[]) =>
    JSON.stringify(
      [...teeth]
        .sort((p, q) => p.tooth - q.tooth)
        .map((t) => [
          t.tooth,
          ...PLAN_FIELDS.map((f) => t[f.key] ?? planDefault(f.key)),
          t.character ?? 'even',
          (t.strokes ?? []).map((s) => [s.tool, s.radiusMm, s.amount, s.at]),
        ]),
    );
  return key(a) === key(b);
}

/**
 * A contour with the changes that were asked for made. A change on a tooth that is not planned, or that would leave the
 * limits of its number, is not made and comes back.
 */
export function withAsked(
  teeth: readonly ToothPlanInput[],
  asked: readonly AskedChange[],
): { teeth: ToothPlanInput[]; unmade: AskedChange[] } {
  const out = new Map<number, ToothPlanInput>(teeth.map((t): [number, ToothPlanInput] => [t.tooth, { ...t }]));
  const unmade: AskedChange[] = [];
  for (const a of asked) {
    const own = out.get(a.tooth);
    const limit = PLAN_LIMITS[a.key];
    const next = own && Math.round(((own[a.key] ?? planDefault(a.key)) + a.by) * 1000) / 1000;
    if (!own || next === undefined || next < limit.min || next > limit.max) unmade.push(a);
    else own[a.key] = next;
  }
  return { teeth: [...out.values()], unmade };
}
