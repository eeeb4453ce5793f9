import 'reflect-metadata';
import {
  IsBoolean,
  IsDefined,
  IsIn,
  IsInt,
  IsObject,
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
import type { FileKind } from './base/file-kinds.js';
import { Holds } from './base/holds.js';
import { CASE_NAME_MOST } from './base/limits.js';
import { keysOf } from './base/records.js';
import type { CaseComment } from './comments.js';
import type { ContourVersion } from './contours.js';
import { type CaseFile, FileChange } from './files.js';
import { MeetSection, type SectionData, type SectionName } from './sections/index.js';

const words = (what: string) => ({ message: what });

/** A new case. */
export class NewCase {
  @IsString(words('The case needs a name.'))
  @Length(1, CASE_NAME_MOST, words(`The name has 1 to ${CASE_NAME_MOST} characters.`))
  name!: string;

  @IsOptional()
  @ValidateNested()
  @Holds(() => MeetSection)
  meet?: MeetSection;
}

/** How a case is called from now on, or a second one made out of it. */
export class CaseCopy {
  @IsString(words('The case needs a name.'))
  @Length(1, CASE_NAME_MOST, words(`The name has 1 to ${CASE_NAME_MOST} characters.`))
  name!: string;
}

/** A change of one section: the version it was read at and its whole new content. */
export class SectionChange {
  @IsInt(words('The version is a whole number.'))
  @Min(0, words('The version is a whole number from 0.'))
  version!: number;

  @IsDefined(words('The section’s content is missing.'))
  @IsObject(words('The section’s content is missing.'))
  data!: object;
}

/** How the list of cases can be sorted. */
export const CASE_SORTS = {
  changed: 'changed last',
  opened: 'opened last by you',
  name: 'name',
  finish: 'to be finished first',
} as const;
export type CaseSort = keyof typeof CASE_SORTS;

/** Which part of the list of cases is asked for. */
export class CaseQuery {
  @IsOptional()
  @IsString(words('What is looked for is text.'))
  @MaxLength(CASE_NAME_MOST, words(`What is looked for has at most ${CASE_NAME_MOST} characters.`))
  search?: string;

  @IsOptional()
  @IsIn(keysOf(CASE_SORTS), words('Cases are sorted by changed, opened, name or finish.'))
  sort?: CaseSort;

  @IsOptional()
  @IsInt(words('The page is a whole number.'))
  @Min(0, words('The page is a whole number from 0.'))
  @Max(1_000_000, words('There is no such page.'))
  page?: number;

  /** The cases that were put away, instead of those that are there. */
  @IsOptional()
  @IsBoolean(words('Whether the bin is asked for is yes or no.'))
  bin?: boolean;
}

/** That a person has a case open, and at which stage. */
export class CaseOpened {
  @IsString(words('The stage is text.'))
  @Matches(/^[a-z]{1,20}$/, words('There is no such stage.'))
  stage!: string;
}

/** What the list shows of a case. */
export interface CaseSummary {
  readonly id: string;
  readonly name: string;
  readonly updatedAt: string;
  readonly ageYears: number | null;
  readonly wish: string;
  readonly finishBy: string | null;
  readonly stagesBegun: readonly SectionName[];
  /** Number of a photograph that shows the smile, if there is one. */
  readonly coverId: string | null;
  /** Who brought the case in as a file, if it came so. */
  readonly importedBy: string | null;
  /** The stage at which whoever asks left it; null where they have not opened it. */
  readonly leftAt: string | null;
  /** When it was put away and by whom. */
  readonly removed: PutAway | null;
}

export interface PutAway {
  readonly at: string;
  readonly by: string;
  /**
   * A patient approved a contour of the case: it is part of a record of treatment, and is not forgotten. Any other can be
   * brought back until `KEPT_DAYS` later.
   */
  readonly held: boolean;
}

/** One page of the list of cases. */
export interface CasePage {
  readonly cases: readonly CaseSummary[];
  /** Cases in all that were found. */
  readonly total: number;
  /** From 0. */
  readonly page: number;
  readonly pages: number;
  /** How many cases were put away and can be brought back. */
  readonly binned: number;
}

/** A section as the server keeps it. Version 0 has never been written. */
export interface SectionState<N extends SectionName = SectionName> {
  readonly name: N;
  readonly version: number;
  readonly data: SectionData[N];
  readonly by: string | null;
  readonly at: string | null;
}

/** Some states in which a section was saved, the newest first. */
export interface SectionHistory<N extends SectionName = SectionName> {
  readonly states: readonly SectionState<N>[];
  /** Whether there are older ones. */
  readonly more: boolean;
}

export type ArrivalState = 'taken' | 'held' | 'tray' | 'refused';

/** What a device laid into the watched folder, and what became of it. */
export interface Arrived {
  readonly id: string;
  readonly name: string;
  readonly kind: FileKind | null;
  readonly bytes: number;
  readonly state: ArrivalState;
  /** Why it waits or was refused. */
  readonly sentence: string;
  readonly origin: string;
  readonly at: string;
  readonly caseId: string | null;
  readonly caseName: string | null;
}

/** Which case a file of the tray belongs to, and what it shows. */
export class TrayDecision extends FileChange {
  @IsUUID(undefined, words('Choose a case for the file.'))
  caseId!: string;
}

export interface CaseDetail {
  readonly id: string;
  readonly name: string;
  /** Where it was put away: then it is read only. */
  readonly putAway: PutAway | null;
  /** Of a case that came in as a file: who brought it in, when, and when the file says that it was written. */
  readonly imported: { readonly by: string; readonly at: string; readonly writtenAt: string | null } | null;
  readonly sections: { readonly [K in SectionName]: SectionState<K> };
  readonly files: readonly CaseFile[];
  /** Put away, and can still be brought back. */
  readonly removed: readonly CaseFile[];
  readonly comments: readonly CaseComment[];
  /** Contours that were kept, the oldest first. */
  readonly contours: readonly ContourVersion[];
}
