import 'reflect-metadata';
import { type Jaw, PLANNABLE } from '@radiant/core';
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
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { FILE_KINDS, type FileKind, SCAN_ROLES, type ScanRole } from './base/file-kinds.js';
import { Holds, IsDay, IsMoment } from './base/holds.js';
import { CASE_NAME_MOST, FILE_NAME_MOST } from './base/limits.js';
import { CASE_STATES, type CaseState, keysOf, PHOTO_VIEWS, type PhotoView } from './base/records.js';
import { ROLES, type Role } from './base/role.js';
import { CommentPlace } from './comments.js';
import { ContourApproval, MadeFrom, WornMockUp } from './contours.js';
import { FileOrigin, JAWS } from './files.js';
import {
  COMMENT_STAGES,
  type CommentStage,
  SECTION_NAMES,
  type SectionName,
  StoredSections,
  ToothPlanInput,
} from './sections/index.js';

const words = (what: string) => ({ message: what });

/** The format's name and the newest version that this program reads. */
export const CASE_DOCUMENT_FORMAT = 'radiant-arch-case';
export const CASE_DOCUMENT_VERSION = 10;
/** Most entries of a case file's lists: far beyond any case, and a bound for whoever reads one. */
export const CASE_DOCUMENT_MOST = { files: 5000, comments: 20_000, contours: 2000, history: 500_000 } as const;
/**
 * Older versions that are still read: 1 had no views, states and history of teeth, 2 measured the retracted front view
 * alone, 3 told jaw and role of a scan by its kind, its frame in the file's own head, and of a contour the scan alone, 4
 * had no word on palatal sides, on how a camera stood and on the edge of a worn mock-up, 6 did not check preparations, 7
 * knew no place of a comment, 8 booked no visits, 9 kept nothing of what was done at the chair.
 */
export const CASE_DOCUMENT_READ: readonly number[] = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10];

export class StoredFile extends FileOrigin {
  @IsUUID()
  id!: string;

  @IsIn(FILE_KINDS as unknown as string[])
  kind!: FileKind;

  @IsOptional()
  @IsIn(JAWS as unknown as string[])
  jaw?: Jaw | null;

  /** Told by the bytes when it is read; here for people and other programs. */
  @IsOptional()
  @IsIn(SCAN_ROLES as unknown as string[])
  role?: ScanRole | null;

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

  @IsOptional()
  @ValidateNested()
  @Holds(() => CommentPlace)
  place?: CommentPlace | null;
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

  /** Up to version 3: the upper scan. */
  @IsOptional()
  @IsUUID()
  scanId?: string | null;

  @IsOptional()
  @ValidateNested()
  @Holds(() => MadeFrom)
  madeFrom?: MadeFrom | null;

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

/** What files were called up to version 3, and what they are. */
const OLD_KINDS: Readonly<Record<string, Pick<StoredFile, 'kind' | 'jaw' | 'role'>>> = {
  'lower-scan': { kind: 'scan', jaw: 'lower', role: 'working' },
  'own-scan': { kind: 'scan', jaw: null, role: 'original' },
  scan: { kind: 'scan', jaw: 'upper', role: 'working' },
};

/** A file's entry of any version that is read, as the newest version has it; what is no entry stays what it is. */
export function upgradedFile(entry: unknown): unknown {
  if (typeof entry !== 'object' || entry === null || 'role' in entry) return entry;
  const old = OLD_KINDS[String((entry as { kind?: unknown }).kind)];
  return old ? { ...entry, ...old } : entry;
}

/** How the names of working copies ended up to version 3. */
const PICKED_OUT = ', teeth picked out.ply';

/** Of which of a case's scans as they came a working copy was made, as its name told up to version 3. */
export function parentByName<T extends { readonly name: string }>(
  name: string,
  originals: readonly T[],
): T | undefined {
  if (!name.endsWith(PICKED_OUT)) return undefined;
  const bare = name.slice(0, -PICKED_OUT.length);
  return originals.find((f) => f.name.replace(/\.[a-z]+$/i, '') === bare);
}
