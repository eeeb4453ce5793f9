import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { open, readFile, unlink } from 'node:fs/promises';
import {
  CASE_DOCUMENT_FORMAT,
  CASE_DOCUMENT_VERSION,
  type CaseDetail,
  type FileNature,
  isAsItCame,
  type Lay,
  SECTION_NAMES,
  type SectionName,
} from '@radiant/contract';
import type { FrameMatrix } from '@radiant/core';
import { createConnection } from 'mariadb';
import type { Config } from '../common/config.js';
import { decodedHeic } from './heic.js';
import { shownPicture } from './picture.js';

/** Base64 is written in pieces of so many bytes, a multiple of three. */
const PIECE = 3 * 128 * 1024;
/** What is written is handed to the disk when it has come to so many characters. */
const HANDFUL = 1 << 20;

/** A file as it goes into the document. */
export interface WrittenFile extends FileNature {
  readonly id: string;
  readonly parentId: string | null;
  readonly frame: FrameMatrix | null;
  readonly name: string;
  readonly origin: string;
  readonly at: string;
  readonly sha256: string;
  readonly view: string | null;
  readonly state: string | null;
  readonly takenOn: string | null;
  readonly takenBy: string;
  readonly mime: string;
  readonly lay: Lay;
  /** Where its bytes lie. */
  readonly path: string;
}

export interface CaseOutput {
  readonly detail: CaseDetail;
  readonly files: readonly WrittenFile[];
  readonly database: Config['database'];
  /** The document, made anew. */
  readonly path: string;
}

/**
 * Writes a whole case as one JSON document, piece by piece; no piece is larger than one entry. Nothing is left when it
 * fails.
 */
export async function writeCaseFile({ detail, files, database, path }: CaseOutput): Promise<void> {
  const out = await open(path, 'wx', 0o600);
  try {
    let handful = '';
    for await (const text of caseText(detail, files, database)) {
      handful += text;
      if (handful.length < HANDFUL) continue;
      await out.write(handful);
      handful = '';
    }
    await out.write(handful);
  } catch (error) {
    await unlink(path).catch(() => undefined);
    throw error;
  } finally {
    await out.close();
  }
}

async function* caseText(
  detail: CaseDetail,
  files: readonly WrittenFile[],
  database: Config['database'],
): AsyncGenerator<string> {
  const head = {
    format: CASE_DOCUMENT_FORMAT,
    version: CASE_DOCUMENT_VERSION,
    writtenAt: new Date().toISOString(),
    name: detail.name,
    sections: Object.fromEntries(SECTION_NAMES.map((n) => [n, detail.sections[n].data])),
  };
  yield `${JSON.stringify(head).slice(0, -1)},"files":[`;
  for (const [i, f] of files.entries()) yield* fileText(f, i === 0 ? '' : ',');
  yield `],"comments":${JSON.stringify(detail.comments.map(({ id: _, ...c }) => c))}`;
  yield ',"contours":[';
  for (const [i, { id: _, worn, approved, ...c }] of detail.contours.entries()) {
    const { claimed: _claimed, ...said } = approved ?? { claimed: false };
    yield `${i === 0 ? '' : ','}${JSON.stringify({ ...c, ...(worn && { worn }), ...(approved && { approved: said }) })}`;
  }
  yield '],"history":[';
  // What is written while this goes on is not of this file.
  const most = new Map(SECTION_NAMES.map((n) => [n, detail.sections[n].version]));
  let before = '';
  for await (const h of revisions(detail.id, database)) {
    if (h.version > (most.get(h.section) ?? 0)) continue;
    const about = { section: h.section, version: h.version, by: h.by, at: h.at.toISOString() };
    // The content stands in the database as the very text.
    yield `${before}${JSON.stringify(about).slice(0, -1)},"data":${h.data}}`;
    before = ',';
  }
  yield ']}';
}

interface Revision {
  readonly section: SectionName;
  readonly version: number;
  readonly data: string;
  readonly by: string;
  readonly at: Date;
}

/** The revisions of a case, one by one, by a connection of this thread's own. */
async function* revisions(
  caseId: string,
  { port, user, password, name }: Config['database'],
): AsyncGenerator<Revision> {
  const db = await createConnection({
    host: '127.0.0.1',
    port,
    user,
    password,
    database: name,
    timezone: 'Z',
    autoJsonMap: false,
  });
  try {
    const rows = db.queryStream(
      'SELECT section, version, data, by_name AS `by`, at FROM revisions WHERE case_id = ? ORDER BY section, version',
      [caseId],
    );
    for await (const row of rows as unknown as AsyncIterable<Revision>) yield row;
  } finally {
    await db.end().catch(() => undefined);
  }
}

async function* fileText({ path, mime, lay, ...f }: WrittenFile, before: string): AsyncGenerator<string> {
  const clean = f.kind === 'photo' ? await handedOn(await readFile(path), mime, lay) : undefined;
  const about = { ...f, ...(clean && { sha256: createHash('sha256').update(clean).digest('hex') }) };
  yield `${before}${JSON.stringify(about).slice(0, -1)},"base64":"`;
  if (clean) {
    const bytes = Buffer.from(clean.buffer, clean.byteOffset, clean.byteLength);
    for (let at = 0; at < bytes.length; at += PIECE) yield bytes.subarray(at, at + PIECE).toString('base64');
  } else {
    let rest: Buffer = Buffer.alloc(0);
    for await (const chunk of createReadStream(path, { highWaterMark: PIECE }) as AsyncIterable<Buffer>) {
      const all = rest.length > 0 ? Buffer.concat([rest, chunk]) : chunk;
      const whole = all.length - (all.length % 3);
      yield all.subarray(0, whole).toString('base64');
      rest = all.subarray(whole);
    }
    yield rest.toString('base64');
  }
  yield '"}';
}

/** A photograph as it is shown: whoever reads the case sees what was measured on. */
const handedOn = async (bytes: Buffer, mime: string, lay: Lay): Promise<Uint8Array> =>
  mime === 'image/heic'
    ? shownPicture(await decodedHeic(bytes), isAsItCame(lay) ? 'image/jpeg' : '', lay)
    : shownPicture(bytes, mime, lay);
