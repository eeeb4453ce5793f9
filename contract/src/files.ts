import 'reflect-metadata';
import { type FrameMatrix, isFrameMatrix, type Jaw } from '@radiant/core';
import {
  IsBoolean,
  IsIn,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  ValidateBy,
  type ValidationOptions,
} from 'class-validator';
import type { FileNature } from './base/file-kinds.js';
import { IsDay } from './base/holds.js';
import type { Lay } from './base/lay.js';
import { CASE_STATES, type CaseState, keysOf, PHOTO_VIEWS, type PhotoView } from './base/records.js';

const words = (what: string) => ({ message: what });
export const JAWS = ['upper', 'lower'] as const satisfies readonly Jaw[];

/** A file of a case. Its name is for people only: what it is and where it comes from is said by the rest. */
export interface CaseFile extends FileNature {
  readonly id: string;
  readonly name: string;
  /** Of the bytes as they came. */
  readonly mime: string;
  readonly bytes: number;
  /** Of the picture as it is shown, px; null for scans. */
  readonly width: number | null;
  readonly height: number | null;
  /** What delivered it: a person's upload or a device, with the word simulated where it is. */
  readonly origin: string;
  readonly at: string;
  /** By the hash of its bytes it is known wherever something was computed from it. */
  readonly sha256: string;
  /** The file that it was made out of, and the matrix that takes that one's points into its own coordinates. */
  readonly parentId: string | null;
  readonly frame: FrameMatrix | null;
  /** Of a photograph: which standard view; null while nobody has said. */
  readonly view: PhotoView | null;
  /** In which state of the mouth it was taken; null while nobody has said. */
  readonly state: CaseState | null;
  /** Calendar date on which it was taken, and by whom. */
  readonly takenOn: string | null;
  readonly takenBy: string;
  /** Of a photograph: how it was put beside the way it came; as it came for scans. */
  readonly lay: Lay;
  /** When it was put away; it can be brought back until `KEPT_DAYS` later. */
  readonly removedAt: string | null;
}

/** How long a file that was put away can be brought back, days. */
export const KEPT_DAYS = 30;

/** What is said of a photograph or a scan. What is left out stays as it is. */
export class FileChange {
  @IsOptional()
  @IsIn(keysOf(PHOTO_VIEWS), words('This view is not known.'))
  view?: PhotoView | null;

  @IsOptional()
  @IsIn(keysOf(CASE_STATES), words('This state is not known.'))
  state?: CaseState | null;

  @IsOptional()
  @IsIn(JAWS as unknown as string[], words('A scan is of the upper or of the lower jaw.'))
  jaw?: Jaw | null;

  @IsOptional()
  @IsDay(words('The date on which it was taken is a calendar date.'))
  takenOn?: string | null;

  @IsOptional()
  @IsString(words('Who took it is text.'))
  @Length(1, 120, words('Who took it has 1 to 120 characters.'))
  takenBy?: string;

  /** How the photograph lies from now on; refused while something stands on it. */
  @IsOptional()
  @IsIn([0, 1, 2, 3], words('A photograph is turned by 0 to 3 quarters.'))
  quarterTurns?: number;

  @IsOptional()
  @IsBoolean(words('Whether a photograph is mirrored is yes or no.'))
  mirrored?: boolean;
}

/** A matrix that turns, moves and measures, as 16 numbers. */
export const IsFrame = (options?: ValidationOptions): PropertyDecorator =>
  ValidateBy(
    {
      name: 'isFrame',
      validator: {
        validate: (v: unknown) => Array.isArray(v) && isFrameMatrix(v),
        defaultMessage: () => 'The frame is 16 numbers that turn, move and measure.',
      },
    },
    options,
  );

/** Out of which file of the case another was made, and how that one's points are taken into its coordinates. */
export class FileOrigin {
  @IsOptional()
  @IsUUID(undefined, words('The file that it was made from has no such number.'))
  parentId?: string | null;

  @IsOptional()
  @IsFrame()
  frame?: number[] | null;
}

/** A file as it was taken in, and whether the case held the same bytes already. */
export interface Delivered extends CaseFile {
  readonly already: boolean;
}
