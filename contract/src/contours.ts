import 'reflect-metadata';
import { IsISO8601, IsOptional, IsString, Length, MaxLength } from 'class-validator';
import { PLAN_FIELDS, planDefault } from './plan-fields.js';
import type { ToothPlanInput } from './sections.js';

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

/** A version worn in the mouth as a mock-up, and what came of it. */
export class WornMockUp {
  @IsISO8601({ strict: true }, words('The day on which the mock-up was put in is a calendar date.'))
  from!: string;

  @IsOptional()
  @IsISO8601({ strict: true }, words('The day on which the mock-up came out is a calendar date.'))
  until?: string | null;

  @IsString(words('The note on speech is text.'))
  @MaxLength(300, words('The note on speech has at most 300 characters.'))
  speech: string = '';

  @IsString(words('The note on bulk is text.'))
  @MaxLength(300, words('The note on bulk has at most 300 characters.'))
  bulk: string = '';

  @IsString(words('The family’s opinion is text.'))
  @MaxLength(300, words('The family’s opinion has at most 300 characters.'))
  family: string = '';
}

/** The patient's approval of a version, in a word. */
export class ContourApproval {
  @IsString(words('How the patient approved is text.'))
  @Length(1, 300, words('Say in a word how the patient approved.'))
  word!: string;
}

/** A contour that was kept: never changed afterwards. */
export interface ContourVersion {
  readonly id: string;
  /** Counted within the case, from 1. */
  readonly number: number;
  readonly name: string;
  readonly why: string;
  readonly by: string;
  readonly at: string;
  readonly scanId: string | null;
  readonly teeth: readonly ToothPlanInput[];
  readonly worn: WornMockUp | null;
  readonly approved: { readonly word: string; readonly by: string; readonly at: string } | null;
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
