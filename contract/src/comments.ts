import 'reflect-metadata';
import { type Fdi, PLANNABLE, PREP_CHECKS, type PrepCheck } from '@radiant/core';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsNumber,
  IsOptional,
  IsString,
  Length,
  Max,
  Min,
  ValidateNested,
} from 'class-validator';
import { Holds } from './base/holds.js';
import { keysOf } from './base/records.js';
import type { Role } from './base/role.js';
import { COMMENT_STAGES, type CommentStage } from './sections/index.js';
import { FINITE, words } from './sections/words.js';

/** No mouth is larger, mm from its middle. */
const FAR_MM = 200;
const POINT = words(`A point of the surface is three lengths within ${FAR_MM} mm.`);

/** The place that a remark is on: a point of a tooth, or something that was found there. */
export class CommentPlace {
  @IsIn(PLANNABLE as number[], words('A remark lies on a front tooth or premolar, 15 to 25 and 35 to 45.'))
  tooth!: Fdi;

  /** Of something that was found: by which check. */
  @IsOptional()
  @IsIn(keysOf(PREP_CHECKS), words('This check is not known.'))
  check?: PrepCheck;

  @IsString(words('The place is text.'))
  @Length(1, 80, words('The place has 1 to 80 characters.'))
  words!: string;

  /** In the coordinates of the case's mouth, mm. */
  @IsOptional()
  @IsArray(POINT)
  @ArrayMinSize(3, POINT)
  @ArrayMaxSize(3, POINT)
  @IsNumber(FINITE, { ...POINT, each: true })
  @Min(-FAR_MM, { ...POINT, each: true })
  @Max(FAR_MM, { ...POINT, each: true })
  at?: readonly [number, number, number];
}

/** A remark on plan or contour. */
export class NewComment {
  @IsIn(COMMENT_STAGES as unknown as string[], words(`Comments belong to ${COMMENT_STAGES.join(', ')}.`))
  stage!: CommentStage;

  @IsString(words('The comment is text.'))
  @Length(1, 2000, words('A comment has 1 to 2000 characters.'))
  body!: string;

  @IsOptional()
  @ValidateNested()
  @Holds(() => CommentPlace)
  place?: CommentPlace | null;
}

export interface CaseComment {
  readonly id: string;
  readonly stage: CommentStage;
  readonly body: string;
  readonly by: string;
  readonly role: Role;
  readonly at: string;
  /** Where it is on one place. */
  readonly place?: CommentPlace;
}
