import 'reflect-metadata';
import { PLANNABLE } from '@radiant/core';
import {
  ArrayMaxSize,
  Equals,
  IsArray,
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
import { FILE_KINDS, type FileKind } from './base/file-kinds.js';
import { Holds, IsDay, IsMoment } from './base/holds.js';
import { CASE_NAME_MOST, FILE_NAME_MOST } from './base/limits.js';
import { CASE_STATES, type CaseState, keysOf, PHOTO_VIEWS, type PhotoView } from './base/records.js';
import { ROLES, type Role } from './base/role.js';
import { ContourApproval, type ContourVersion, WornMockUp } from './contours.js';
import {
  COMMENT_STAGES,
  type CommentStage,
  MeetSection,
  SECTION_NAMES,
  type SectionData,
  type SectionName,
  StoredSections,
  ToothPlanInput,
} from './sections/index.js';

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

/** How a second case made out of one is called. */
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

/** A remark on plan or contour. */
export class NewComment {
  @IsIn(COMMENT_STAGES as unknown as string[], words(`Comments belong to ${COMMENT_STAGES.join(', ')}.`))
  stage!: CommentStage;

  @IsString(words('The comment is text.'))
  @Length(1, 2000, words('A comment has 1 to 2000 characters.'))
  body!: string;
}

/** How the list of cases can be sorted. */
export const CASE_SORTS = { changed: 'changed last', name: 'name', finish: 'to be finished first' } as const;
export type CaseSort = keyof typeof CASE_SORTS;

/** Which part of the list of cases is asked for. */
export class CaseQuery {
  @IsOptional()
  @IsString(words('What is looked for is text.'))
  @MaxLength(CASE_NAME_MOST, words(`What is looked for has at most ${CASE_NAME_MOST} characters.`))
  search?: string;

  @IsOptional()
  @IsIn(keysOf(CASE_SORTS), words('Cases are sorted by changed, name or finish.'))
  sort?: CaseSort;

  @IsOptional()
  @IsInt(words('The page is a whole number.'))
  @Min(0, words('The page is a whole number from 0.'))
  @Max(1_000_000, words('There is no such page.'))
  page?: number;
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
}

/** One page of the list of cases. */
export interface CasePage {
  readonly cases: readonly CaseSummary[];
  /** Cases in all that were found. */
  readonly total: number;
  /** From 0. */
  readonly page: number;
  readonly pages: number;
}

/** A section as the server keeps it. Version 0 has never been written. */
export interface SectionState<N extends SectionName = SectionName> {
  readonly name: N;
  readonly version: number;
  readonly data: SectionData[N];
  readonly by: string | null;
  readonly at: string | null;
}

export interface CaseFile {
  readonly id: string;
  readonly kind: FileKind;
  readonly name: string;
  readonly mime: string;
  readonly bytes: number;
  /** Of the upright picture, px; null for scans. */
  readonly width: number | null;
  readonly height: number | null;
  /** What delivered it: a person's upload or a device, with the word simulated where it is. */
  readonly origin: string;
  readonly at: string;
  /** Of a photograph: which standard view, in which state of the mouth; null while nobody has said. */
  readonly view: PhotoView | null;
  readonly state: CaseState | null;
  /** Calendar date on which it was taken, and by whom. */
  readonly takenOn: string | null;
  readonly takenBy: string;
  /** When it was put away; it can be brought back until `KEPT_DAYS` later. */
  readonly removedAt: string | null;
}

/** How long a file that was put away can be brought back, days. */
export const KEPT_DAYS = 30;

/** What is said of a photograph. What is left out stays as it is. */
export class FileChange {
  @IsOptional()
  @IsIn(keysOf(PHOTO_VIEWS), words('This view is not known.'))
  view?: PhotoView | null;

  @IsOptional()
  @IsIn(keysOf(CASE_STATES), words('This state is not known.'))
  state?: CaseState | null;

  @IsOptional()
  @IsDay(words('The date on which it was taken is a calendar date.'))
  takenOn?: string | null;

  @IsOptional()
  @IsString(words('Who took it is text.'))
  @Length(1, 120, words('Who took it has 1 to 120 characters.'))
  takenBy?: string;
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

/** A file as it was taken in, and whether the case held the same bytes already. */
export interface Delivered extends CaseFile {
  readonly already: boolean;
}

export interface CaseComment {
  readonly id: string;
  readonly stage: CommentStage;
  readonly body: string;
  readonly by: string;
  readonly role: Role;
  readonly at: string;
}

export interface CaseDetail {
  readonly id: string;
  readonly name: string;
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

/** The format's name and the newest version that this program reads. */
export const CASE_DOCUMENT_FORMAT = 'radiant-arch-case';
export const CASE_DOCUMENT_VERSION = 3;
/** Most entries of a case file's lists: far beyond any case, and a bound for whoever reads one. */
export const CASE_DOCUMENT_MOST = { files: 5000, comments: 20_000, contours: 2000, history: 500_000 } as const;
/**
 * Older versions that are still read: 1 had no views, states and history of teeth, 2 measured the retracted front view
 * alone.
 */
export const CASE_DOCUMENT_READ: readonly number[] = [1, 2, 3];

export class StoredFile {
  @IsUUID()
  id!: string;

  @IsIn(FILE_KINDS as unknown as string[])
  kind!: FileKind;

  @IsString()
  @MaxLength(FILE_NAME_MOST)
  name!: string;

  @IsString()
  @MaxLength(120)
  origin!: string;

  @IsMoment()
  at!: string;

  @Matches(/^[0-9a-f]{64}$/)
  sha256!: string;

  @IsString()
  base64!: string;

  @IsOptional()
  @IsIn(keysOf(PHOTO_VIEWS))
  view?: PhotoView | null;

  @IsOptional()
  @IsIn(keysOf(CASE_STATES))
  state?: CaseState | null;

  @IsOptional()
  @IsDay()
  takenOn?: string | null;

  @IsOptional()
  @IsString()
  @MaxLength(120)
  takenBy?: string;
}

export class StoredComment {
  @IsIn(COMMENT_STAGES as unknown as string[])
  stage!: CommentStage;

  @IsString()
  @Length(1, 2000)
  body!: string;

  @IsString()
  @MaxLength(120)
  by!: string;

  @IsIn(ROLES as unknown as string[])
  role!: Role;

  @IsMoment()
  at!: string;
}

export class StoredRevision {
  @IsIn(SECTION_NAMES as unknown as string[])
  section!: SectionName;

  @IsInt()
  @Min(1)
  version!: number;

  @IsObject()
  data!: object;

  @IsString()
  @MaxLength(120)
  by!: string;

  @IsMoment()
  at!: string;
}

class StoredApproval extends ContourApproval {
  @IsString()
  @MaxLength(120)
  by!: string;

  @IsMoment()
  at!: string;
}

export class StoredContour {
  @IsInt()
  @Min(1)
  number!: number;

  @IsString()
  @Length(1, 60)
  name!: string;

  @IsString()
  @MaxLength(300)
  why!: string;

  @IsString()
  @MaxLength(120)
  by!: string;

  @IsMoment()
  at!: string;

  @IsOptional()
  @IsUUID()
  scanId?: string | null;

  @IsArray()
  @ArrayMaxSize(PLANNABLE.length)
  @ValidateNested({ each: true })
  @Holds(() => ToothPlanInput)
  teeth!: ToothPlanInput[];

  @IsOptional()
  @ValidateNested()
  @Holds(() => WornMockUp)
  worn?: WornMockUp | null;

  @IsOptional()
  @ValidateNested()
  @Holds(() => StoredApproval)
  approved?: StoredApproval | null;
}

/** A whole case as one JSON file: sections, every revision of them, files and comments. */
export class CaseDocument {
  @Equals(CASE_DOCUMENT_FORMAT, words('This is not a Radiant Arch case file.'))
  format!: typeof CASE_DOCUMENT_FORMAT;

  @IsIn(
    CASE_DOCUMENT_READ as number[],
    words(`This program reads case files of versions ${CASE_DOCUMENT_READ.join(', ')}.`),
  )
  version!: number;

  @IsMoment()
  writtenAt!: string;

  @IsString()
  @Length(1, CASE_NAME_MOST)
  name!: string;

  @IsDefined(words('The case file has no sections.'))
  @ValidateNested()
  @Holds(() => StoredSections)
  sections!: StoredSections;

  @IsArray()
  @ArrayMaxSize(CASE_DOCUMENT_MOST.files)
  @ValidateNested({ each: true })
  @Holds(() => StoredFile)
  files!: StoredFile[];

  @IsArray()
  @ArrayMaxSize(CASE_DOCUMENT_MOST.comments)
  @ValidateNested({ each: true })
  @Holds(() => StoredComment)
  comments!: StoredComment[];

  @IsArray()
  @ArrayMaxSize(CASE_DOCUMENT_MOST.history)
  @ValidateNested({ each: true })
  @Holds(() => StoredRevision)
  history!: StoredRevision[];

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(CASE_DOCUMENT_MOST.contours)
  @ValidateNested({ each: true })
  @Holds(() => StoredContour)
  contours?: StoredContour[];
}
