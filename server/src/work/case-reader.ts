import { createHash } from 'node:crypto';
import { closeSync, createReadStream, openSync, writeSync } from 'node:fs';
import { readFile, unlink } from 'node:fs/promises';
import { join } from 'node:path';
import {
  CASE_DOCUMENT_FORMAT,
  CASE_DOCUMENT_MOST,
  CASE_DOCUMENT_READ,
  CASE_DOCUMENT_VERSION,
  CASE_NAME_MOST,
  check,
  checkSection,
  completed,
  isMoment,
  megabytes,
  parentByName,
  SCAN_MOST_BYTES,
  SECTION_NAMES,
  StoredComment,
  StoredContour,
  StoredFile,
  StoredRevision,
  StoredSections,
  sectionOf,
  upgradedFile,
  upgradedSections,
} from '@radiant/contract';
import { frameInHead, matrixInto } from '@radiant/core';
import { parser } from 'stream-json';
import { invalid, ProblemException } from '../common/problem.filter.js';
import { inspectFile, type Seen } from './inspect.js';
import { type Extent, JsonValue, type Token } from './json-value.js';

export interface CaseInput {
  /** The case file. */
  readonly path: string;
  /** Where the files in it, and lists of its rows, are laid. */
  readonly dir: string;
  /** What their names begin with; whoever asks takes them away. */
  readonly prefix: string;
}

/** A file of the case as it was found and looked at. */
export interface FoundFile {
  readonly stored: StoredFile;
  readonly seen: Seen;
  readonly path: string;
}

/** A case file, checked. Its long lists lie in files of one JSON line a row. */
export interface FoundCase {
  readonly name: string;
  readonly writtenAt: string;
  readonly sections: StoredSections;
  readonly files: readonly FoundFile[];
  readonly commentsPath: string;
  readonly contoursPath: string;
  readonly historyPath: string;
}

/** One entry of a list, or one section. */
const ENTRY: Extent = { values: 700_000, characters: 16 * 1024 * 1024, depth: 16 };
/** Base64 is decoded in pieces of so many characters, a multiple of four. */
const PIECE = 65_536;

type ListName = keyof typeof CASE_DOCUMENT_MOST;
const LISTS = Object.keys(CASE_DOCUMENT_MOST) as ListName[];

const refuse = (sentence: string) => new ProblemException(422, 'Not accepted', sentence);
const NO_CASE_FILE = 'This is not a Radiant Arch case file.';

/**
 * Reads a case file from the disk, in any order of its fields, without ever holding more of it than one entry: the
 * files in it are decoded to the disk piece by piece, everything else is checked entry by entry.
 * @throws ProblemException 422 with one sentence, Refusal
 */
export async function readCaseFile(input: CaseInput): Promise<FoundCase> {
  const reading = new Reading(input);
  try {
    return await reading.run();
  } catch (error) {
    await reading.abandon();
    throw error;
  }
}

class Reading {
  private readonly head: Record<string, unknown> = {};
  private sections: StoredSections | undefined;
  private readonly files: { stored: StoredFile; path: string; bytes: number }[] = [];
  private readonly counts: Record<ListName, number> = { files: 0, comments: 0, contours: 0, history: 0 };
  private readonly versions = new Set<string>();
  private readonly rows: Record<Exclude<ListName, 'files'>, Rows>;
  private readonly laid: string[] = [];

  /** Depth of objects and lists around the next token; the field of the case file that is being read. */
  private depth = 0;
  private field: string | undefined;
  private value: JsonValue | undefined;
  private ended = false;
  /** The file whose content is being decoded. */
  private content: Content | undefined;
  private inContent = false;

  constructor(private readonly input: CaseInput) {
    const rows = (name: string) => new Rows(this.place(name));
    this.rows = { comments: rows('comments'), contours: rows('contours'), history: rows('history') };
  }

  private place(name: string): string {
    const path = join(this.input.dir, `${this.input.prefix}${name}`);
    this.laid.push(path);
    return path;
  }

  async abandon(): Promise<void> {
    this.content?.close();
    for (const r of Object.values(this.rows)) r.close();
    for (const path of this.laid) await unlink(path).catch(() => undefined);
  }

  async run(): Promise<FoundCase> {
    const tokens = createReadStream(this.input.path, { highWaterMark: 1 << 18 }).pipe(
      parser.asStream({
        packKeys: true,
        streamKeys: false,
        packStrings: false,
        streamStrings: true,
        packNumbers: true,
        streamNumbers: false,
      }),
    );
    try {
      for await (const token of tokens as AsyncIterable<Token>) this.take(token);
    } catch (error) {
      if (error instanceof ProblemException) throw error;
      if (this.depth === 0 && !this.ended) throw refuse(NO_CASE_FILE);
      throw refuse('The case file is not valid JSON; it may be cut short.');
    }
    if (!this.ended)
      throw refuse(this.depth === 0 ? NO_CASE_FILE : 'The case file is not valid JSON; it may be cut short.');
    for (const r of Object.values(this.rows)) r.close();
    return this.found();
  }

  private take(token: Token): void {
    if (this.value) this.within(token);
    else if (token.name === 'keyValue') this.field = String(token.value);
    else if (token.name === 'endArray') this.depth = 1;
    else if (token.name === 'endObject') {
      this.depth = 0;
      this.ended = true;
    } else if (token.name === 'startObject' && this.depth === 0 && !this.ended) this.depth = 1;
    else if (token.name === 'startArray' && this.depth === 1 && LISTS.includes(this.field as ListName)) this.depth = 2;
    else this.begin(token);
  }

  /** A value begins: a field of the case file or an entry of one of its lists. */
  private begin(token: Token): void {
    if (this.depth === 0) throw refuse(NO_CASE_FILE);
    if (this.depth === 2) {
      const list = this.field as ListName;
      if (++this.counts[list] > CASE_DOCUMENT_MOST[list])
        throw refuse(`The case file holds more than ${CASE_DOCUMENT_MOST[list]} ${list}.`);
    }
    this.value = new JsonValue(ENTRY);
    this.within(token);
  }

  private within(token: Token): void {
    const value = this.value as JsonValue;
    // The content of a file never becomes a text: it goes to the disk as it comes.
    if (this.depth === 2 && this.field === 'files') {
      if (token.name === 'keyValue') this.inContent = token.value === 'base64' && value.depth === 1;
      else if (this.inContent && token.name === 'startString') {
        this.content?.close();
        this.content = new Content(this.place(`file-${this.counts.files}`));
      } else if (this.inContent && this.content && token.name === 'stringChunk') {
        this.content.add(String(token.value));
        return;
      } else if (token.name === 'endString') this.inContent = false;
    }
    if (!value.take(token)) return;
    this.value = undefined;
    this.whole(value.result);
  }

  private whole(value: unknown): void {
    if (this.depth === 1) this.ownField(this.field ?? '', value);
    else if (this.field === 'files') this.file(value);
    else if (this.field === 'comments') this.row('comments', checked(StoredComment, value, 'comments'));
    else if (this.field === 'contours') this.row('contours', checked(StoredContour, value, 'contours'));
    else this.revision(checked(StoredRevision, value, 'history'));
  }

  private revision(revision: StoredRevision): void {
    const key = `${revision.section} ${revision.version}`;
    if (this.versions.has(key))
      throw refuse(`The case file holds version ${revision.version} of ${revision.section} twice.`);
    this.versions.add(key);
    const { value, errors } = checkSection(revision.section, revision.data, `history.${revision.section}`);
    if (errors.length > 0) throw invalid(errors);
    this.row('history', { ...revision, data: value });
  }

  private ownField(field: string, value: unknown): void {
    if (field === 'sections') this.sections = checked(StoredSections, upgradedSections(value), 'sections');
    else if (['format', 'version', 'writtenAt', 'name'].includes(field)) this.head[field] = value;
    else if (LISTS.includes(field as ListName) && value !== null)
      throw refuse(`In the case file “${field}” is not a list.`);
    else throw refuse(this.head.format ? `The field “${field.slice(0, 60)}” does not belong here.` : NO_CASE_FILE);
    if (field === 'format' && value !== CASE_DOCUMENT_FORMAT) throw refuse(NO_CASE_FILE);
    if (field === 'version') requireVersion(value);
  }

  private file(value: unknown): void {
    const stored = checked(StoredFile, upgradedFile(value), 'files');
    const content = this.content;
    this.content = undefined;
    if (!content) throw refuse(`The file ${stored.name} in the case file has no content.`);
    const { sha256, bytes, path } = content.end();
    if (sha256 !== stored.sha256) throw refuse(`The file ${stored.name} in the case file is damaged.`);
    this.files.push({ stored, path, bytes });
  }

  private row(list: Exclude<ListName, 'files'>, entry: object): void {
    this.rows[list].add(entry);
  }

  private async found(): Promise<FoundCase> {
    const { format, version, writtenAt, name } = this.head;
    if (format !== CASE_DOCUMENT_FORMAT) throw refuse(NO_CASE_FILE);
    requireVersion(version);
    if (!isMoment(writtenAt)) throw refuse('The case file does not say when it was written.');
    if (typeof name !== 'string' || name.length < 1 || name.length > CASE_NAME_MOST)
      throw refuse(`The case in the file needs a name of 1 to ${CASE_NAME_MOST} characters.`);
    if (!this.sections) throw refuse('The case file has no sections.');
    const files: FoundFile[] = [];
    for (const { stored, path, bytes } of this.files) {
      const content = await readFile(path);
      const seen = await inspectFile(stored.kind, content);
      const mouth = stored.frame === undefined && seen.role === 'working' ? frameInHead(content) : undefined;
      files.push({
        stored: { ...stored, ...(mouth && { frame: [...matrixInto(mouth)] }) },
        path,
        seen: { ...seen, sha256: stored.sha256, bytes },
      });
    }
    requireSense(this.sections, files);
    return {
      name,
      writtenAt,
      sections: this.sections,
      files: files.map((f) => ({ ...f, stored: { ...f.stored, parentId: parentOf(f, files)?.stored.id ?? null } })),
      commentsPath: this.rows.comments.path,
      contoursPath: this.rows.contours.path,
      historyPath: this.rows.history.path,
    };
  }
}

/** The file that another was made of: as its entry says, and up to version 3 as its name did. */
function parentOf({ stored, seen }: FoundFile, files: readonly FoundFile[]): FoundFile | undefined {
  if (seen.role !== 'working') return undefined;
  const originals = files.filter((f) => f.seen.role === 'original');
  if (stored.parentId !== undefined) return originals.find((f) => f.stored.id === stored.parentId);
  const named = parentByName(
    stored.name,
    originals.map((f) => ({ name: f.stored.name, of: f })),
  );
  return named?.of;
}

function checked<T extends object>(type: new () => T, value: unknown, field: string): T {
  const { value: made, errors } = check(type, value, field);
  if (errors.length > 0) throw invalid(errors);
  return made;
}

function requireVersion(version: unknown): void {
  if (typeof version === 'number' && version > CASE_DOCUMENT_VERSION)
    throw refuse(
      `The case file has version ${version}; this program reads up to version ${CASE_DOCUMENT_VERSION}. Update the program first.`,
    );
  if (!CASE_DOCUMENT_READ.includes(version as number))
    throw refuse(`This program reads case files of versions ${CASE_DOCUMENT_READ.join(', ')}.`);
}

/** Whether sections name only files that are there, and points lie within their photographs. */
function requireSense(sections: StoredSections, files: readonly FoundFile[]): void {
  const known = new Map(
    files.map(({ stored, seen }) => {
      const picture = seen.kind === 'photo' ? seen : { width: null, height: null };
      const { kind, jaw, role } = seen;
      return [stored.id, { kind, jaw, role, width: picture.width, height: picture.height }] as const;
    }),
  );
  // Older programs let a photograph be put away that was laid over another, and wrote the file without it.
  const read = { ...sections.read, aligned: (sections.read.aligned ?? []).filter((a) => known.has(a.photoId)) };
  for (const name of SECTION_NAMES) {
    const section = sectionOf(name);
    const content = completed(name, name === 'read' ? read : (sections[name] ?? {}));
    for (const f of section.files(content))
      if (known.get(f.id)?.kind !== f.kind)
        throw refuse(`The case file names a ${f.kind === 'photo' ? 'photograph' : 'scan'} that it does not hold.`);
    const errors = section.sense(content, known);
    if (errors.length > 0) throw invalid([...errors]);
  }
}

/** Rows on their way to the disk, one JSON line each. */
class Rows {
  private readonly file: Draft;

  constructor(readonly path: string) {
    this.file = new Draft(path);
  }

  add(row: object): void {
    // A reader of lines takes these two characters for ends of lines; JSON may write them as numbers.
    this.file.write(
      Buffer.from(
        `${JSON.stringify(row).replace(/[\u2028\u2029]/g, (c) => (c === '\u2028' ? '\\u2028' : '\\u2029'))}\n`,
      ),
    );
  }

  close(): void {
    this.file.close();
  }
}

/** A new file that is written in this thread, which has nothing else to do, and closed once. */
class Draft {
  private file: number | undefined;

  constructor(path: string) {
    this.file = openSync(path, 'wx', 0o600);
  }

  write(bytes: Buffer): void {
    if (this.file !== undefined) writeSync(this.file, bytes);
  }

  close(): void {
    if (this.file !== undefined) closeSync(this.file);
    this.file = undefined;
  }
}

/** A file's content on its way from base64 to the disk. */
class Content {
  private readonly file: Draft;
  private readonly hash = createHash('sha256');
  private text = '';
  private bytes = 0;

  constructor(private readonly path: string) {
    this.file = new Draft(path);
  }

  add(chunk: string): void {
    this.text += chunk;
    if (this.text.length >= PIECE) this.flush(this.text.length - (this.text.length % 4));
  }

  private flush(characters: number): void {
    const bytes = Buffer.from(this.text.slice(0, characters), 'base64');
    this.text = this.text.slice(characters);
    this.bytes += bytes.length;
    // Not larger than one that is put in by hand.
    if (this.bytes > SCAN_MOST_BYTES)
      throw refuse(`A file in the case file is larger than ${megabytes(SCAN_MOST_BYTES)}.`);
    this.hash.update(bytes);
    this.file.write(bytes);
  }

  end(): { sha256: string; bytes: number; path: string } {
    this.flush(this.text.length);
    this.close();
    return { sha256: this.hash.digest('hex'), bytes: this.bytes, path: this.path };
  }

  close(): void {
    this.file.close();
  }
}
