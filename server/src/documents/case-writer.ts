import { createReadStream } from 'node:fs';
import { CASE_DOCUMENT_FORMAT, CASE_DOCUMENT_VERSION, type CaseDetail, SECTION_NAMES } from '@radiant/contract';
import { type FileRow, RevisionRow } from '../database/database.js';
import { nameOf } from '../files/store.js';

/** Base64 is written in pieces of so many bytes, a multiple of three. */
const PIECE = 3 * 128 * 1024;
/** Revisions are fetched so many at a time. */
const ROWS = 50;

/** Where the bytes of a case's files come from. */
export interface Source {
  pathOf(file: FileRow): string;
  /** As they are handed on. */
  read(file: FileRow): Promise<Buffer>;
}

/** A whole case as the text of one JSON document, piece by piece; no piece is larger than one entry. */
export async function* caseText(detail: CaseDetail, files: readonly FileRow[], source: Source): AsyncGenerator<string> {
  const head = {
    format: CASE_DOCUMENT_FORMAT,
    version: CASE_DOCUMENT_VERSION,
    writtenAt: new Date().toISOString(),
    name: detail.name,
    sections: Object.fromEntries(SECTION_NAMES.map((n) => [n, detail.sections[n].data])),
  };
  yield `${JSON.stringify(head).slice(0, -1)},"files":[`;
  for (const [i, f] of files.entries()) yield* fileText(f, source, i === 0 ? '' : ',');
  yield `],"comments":${JSON.stringify(detail.comments.map(({ stage, body, by, role, at }) => ({ stage, body, by, role, at })))}`;
  yield ',"contours":[';
  for (const [i, { id: _, scanId, worn, approved, ...c }] of detail.contours.entries()) {
    const { claimed: _claimed, ...said } = approved ?? { claimed: false };
    yield `${i === 0 ? '' : ','}${JSON.stringify({ ...c, ...(scanId && { scanId }), ...(worn && { worn }), ...(approved && { approved: said }) })}`;
  }
  yield '],"history":[';
  // What is written while this goes on is not of this file.
  const most = new Map(SECTION_NAMES.map((n) => [n, detail.sections[n].version]));
  let first = true;
  for (let offset = 0; ; offset += ROWS) {
    const rows = await RevisionRow.findAll({ where: { caseId: detail.id }, order: ['section', 'version'], offset, limit: ROWS });
    for (const h of rows) {
      if (h.version > (most.get(h.section) ?? 0)) continue;
      yield `${first ? '' : ','}${JSON.stringify({ section: h.section, version: h.version, data: h.data, by: h.byName, at: h.at.toISOString() })}`;
      first = false;
    }
    if (rows.length < ROWS) break;
  }
  yield ']}';
}

async function* fileText(f: FileRow, source: Source, before: string): AsyncGenerator<string> {
  const clean = f.kind === 'photo' ? await source.read(f) : undefined;
  const about = {
    id: f.id,
    kind: f.kind,
    name: f.name,
    origin: f.origin,
    at: f.at.toISOString(),
    sha256: clean ? nameOf(clean) : f.sha256,
    view: f.view ?? null,
    state: f.state ?? null,
    takenOn: f.takenOn ?? null,
    takenBy: f.takenBy ?? '',
  };
  yield `${before}${JSON.stringify(about).slice(0, -1)},"base64":"`;
  if (clean) for (let at = 0; at < clean.length; at += PIECE) yield clean.subarray(at, at + PIECE).toString('base64');
  else {
    let rest: Buffer = Buffer.alloc(0);
    for await (const chunk of createReadStream(source.pathOf(f), { highWaterMark: PIECE }) as AsyncIterable<Buffer>) {
      const all = rest.length > 0 ? Buffer.concat([rest, chunk]) : chunk;
      const whole = all.length - (all.length % 3);
      yield all.subarray(0, whole).toString('base64');
      rest = all.subarray(whole);
    }
    yield rest.toString('base64');
  }
  yield '"}';
}
