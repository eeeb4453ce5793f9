import type { FileKind, FileNature } from '../base/file-kinds.js';
import type { Role } from '../base/role.js';
import type { FieldError } from '../base/validation.js';
import type { Parts } from './parts.js';

/** A file on which a section stands, and why it can't be put away as long. */
export interface FileUse {
  readonly id: string;
  readonly kind: FileKind;
  readonly sentence: string;
}

/** A file of the case, as far as a section's sense goes. px; null where it is no picture. */
export interface KnownFile extends FileNature {
  readonly width: number | null;
  readonly height: number | null;
}

/** Everything that is to be known of a section of a case, in one place; all that is central is derived from it. */
export interface SectionDefinition<N extends string = string, T extends object = object> {
  readonly name: N;
  /** What its content is checked against. */
  readonly type: new () => T;
  /** What it holds before anyone has written it. */
  readonly empty: T;
  /** Who may write it beside the dentist, who may write all. */
  readonly writers: readonly Role[];
  /** Fields that others may write, though not the rest of it. */
  readonly fieldWriters?: Readonly<Record<string, readonly Role[]>>;
  /** Whether people comment on it. */
  readonly comments: boolean;
  /** How two changes of it are put together. */
  readonly parts: Parts;
  /** What its fields are called where two changes are laid beside each other. */
  readonly labels: Readonly<Record<string, string>>;
  /** The files on which it stands. */
  readonly files: (data: T) => readonly FileUse[];
  /** The same with other numbers for its files, as when a case is brought in; a file without one is no longer named. */
  readonly withFiles: (data: T, numberOf: (id: string) => string | undefined) => T;
  /** What of it makes no sense beside the case's files. @throws Refusal of core */
  readonly sense: (data: T, files: ReadonlyMap<string, KnownFile>) => readonly FieldError[];
  /** Content of any form that it ever had, as it is now; what is no content of it stays what it is. */
  readonly upgraded: (data: object) => object;
  /** The version of the case file from which on it is there; older ones are read without it. */
  readonly since?: number;
}

type Told<N extends string, T extends object> = Omit<
  SectionDefinition<N, T>,
  'files' | 'withFiles' | 'sense' | 'upgraded'
> &
  Partial<Pick<SectionDefinition<N, T>, 'files' | 'withFiles' | 'sense' | 'upgraded'>>;

/** Declares a section; one that stands on no files says nothing of them. */
export function defineSection<N extends string, T extends object>(told: Told<N, T>): SectionDefinition<N, T> {
  return { files: () => [], withFiles: (data) => data, sense: () => [], upgraded: (data) => data, ...told };
}
