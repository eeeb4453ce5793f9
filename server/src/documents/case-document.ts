import { createHash, randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import {
  CASE_DOCUMENT_FORMAT,
  CASE_DOCUMENT_VERSION,
  CaseDocument,
  check,
  EMPTY_SECTIONS,
  type FileKind,
  type ReadSection,
  SECTION_CLASSES,
  SECTION_NAMES,
  type SectionName,
  type ShapeSection,
} from '@radiant/contract';
import type { Sequelize, Transaction } from 'sequelize';
import { CasesService } from '../cases/cases.service.js';
import { checkReadAgainst, checkViewsAgainst } from '../cases/sections.service.js';
import { invalid, ProblemException } from '../common/problem.filter.js';
import { CaseRow, CommentRow, ContourRow, FileRow, RevisionRow, SectionRow } from '../database/database.js';
import { DATABASE } from '../database/database.module.js';
import { FilesService } from '../files/files.service.js';
import type { SignedIn } from '../people/session.js';

const refuse = (sentence: string) => new ProblemException(422, 'Not accepted', sentence);

/** Writes a whole case as one JSON document and reads it back as a new case. */
@Injectable()
export class CaseDocumentService {
  constructor(
    @Inject(DATABASE) private readonly db: Sequelize,
    private readonly cases: CasesService,
    private readonly files: FilesService,
  ) {}

  async write(row: CaseRow): Promise<CaseDocument> {
    const detail = await this.cases.detail(row);
    const files = await this.files.list(row.id);
    const history = await this.cases.history(row.id);
    const doc: CaseDocument = {
      format: CASE_DOCUMENT_FORMAT,
      version: CASE_DOCUMENT_VERSION,
      writtenAt: new Date().toISOString(),
      name: row.name,
      sections: Object.fromEntries(SECTION_NAMES.map((n) => [n, detail.sections[n].data])) as unknown as CaseDocument['sections'],
      files: await Promise.all(
        files.map(async (f) => ({
          id: f.id,
          kind: f.kind,
          name: f.name,
          origin: f.origin,
          at: f.at.toISOString(),
          sha256: f.sha256,
          view: f.view ?? null,
          state: f.state ?? null,
          takenOn: f.takenOn ?? null,
          takenBy: f.takenBy ?? '',
          base64: (await this.files.read(f)).toString('base64'),
        })),
      ),
      comments: detail.comments.map(({ stage, body, by, role, at }) => ({ stage, body, by, role, at })),
      contours: detail.contours.map(({ id: _, scanId, worn, approved, ...c }) => ({
        ...c,
        teeth: [...c.teeth],
        ...(scanId && { scanId }),
        ...(worn && { worn }),
        ...(approved && { approved }),
      })),
      history: history.map((h) => ({ section: h.section, version: h.version, data: h.data, by: h.byName, at: h.at.toISOString() })),
    };
    return doc;
  }

  /**
   * Reads a document into a new case of the person's practice: everything or nothing.
   * @throws ProblemException 422 with one sentence
   */
  async read(raw: unknown, me: SignedIn): Promise<CaseRow> {
    requireReadableVersion(raw);
    const { value: doc, errors } = check(CaseDocument, raw);
    if (errors.length > 0) throw invalid(errors);
    requireHistory(doc);
    const bytes = new Map(doc.files.map((f) => [f.id, decode(f.base64, f.sha256, f.name)]));
    // Files get new numbers, since the old ones may live in this house already; sections follow.
    const renamed = new Map(doc.files.map((f) => [f.id, randomUUID()]));
    return this.db.transaction(async (transaction) => {
      const row = await this.cases.insert(doc.name, me.practiceId, transaction);
      for (const f of doc.files) {
        await this.files.keep(
          row.id,
          {
            kind: f.kind,
            name: f.name,
            bytes: bytes.get(f.id) as Buffer,
            origin: f.origin,
            ...(f.view !== undefined && { view: f.view }),
            ...(f.state !== undefined && { state: f.state }),
            takenOn: f.takenOn ?? null,
            takenBy: f.takenBy ?? '',
          },
          { id: renamed.get(f.id) as string, at: new Date(f.at), transaction },
        );
      }
      await this.requireSense(row, doc, renamed, transaction);
      await writeSections(row, doc, renamed, me, transaction);
      for (const c of doc.contours ?? []) {
        await ContourRow.create(
          {
            id: randomUUID(),
            caseId: row.id,
            number: c.number,
            name: c.name,
            why: c.why,
            byName: c.by,
            at: new Date(c.at),
            scanId: (c.scanId && renamed.get(c.scanId)) ?? null,
            teeth: c.teeth,
            worn: c.worn ?? null,
            approvedWord: c.approved?.word ?? null,
            approvedBy: c.approved?.by ?? null,
            approvedAt: c.approved ? new Date(c.approved.at) : null,
          },
          { transaction },
        );
      }
      for (const c of doc.comments) {
        await CommentRow.create(
          { id: randomUUID(), caseId: row.id, stage: c.stage, body: c.body, byName: c.by, role: c.role, at: new Date(c.at) },
          { transaction },
        );
      }
      return row;
    });
  }

  private async requireSense(row: CaseRow, doc: CaseDocument, renamed: ReadonlyMap<string, string>, transaction: Transaction): Promise<void> {
    const { read, shape } = doc.sections;
    const fileOf = async (id: string, kind: FileKind) => FileRow.findOne({ where: { id: renamed.get(id) ?? '', caseId: row.id, kind }, transaction });
    const photo = read.photoId ? await fileOf(read.photoId, 'photo') : null;
    if (read.photoId && !photo) throw refuse('The case file names a photograph that it does not hold.');
    checkReadAgainst(read, photo ? { width: photo.width ?? 0, height: photo.height ?? 0 } : undefined);
    const sizes = new Map<string, { width: number; height: number }>();
    for (const f of doc.files) {
      const own = f.kind === 'photo' ? await fileOf(f.id, 'photo') : null;
      if (own) sizes.set(f.id, { width: own.width ?? 0, height: own.height ?? 0 });
    }
    checkViewsAgainst(read, sizes);
    if (shape.scanId && !(await fileOf(shape.scanId, 'scan'))) throw refuse('The case file names a scan that it does not hold.');
  }
}

function requireReadableVersion(raw: unknown): void {
  const head = (raw ?? {}) as { format?: unknown; version?: unknown };
  if (typeof raw !== 'object' || raw === null || head.format !== CASE_DOCUMENT_FORMAT) throw refuse('This is not a Radiant Arch case file.');
  if (typeof head.version === 'number' && head.version > CASE_DOCUMENT_VERSION) {
    throw refuse(`The case file has version ${head.version}; this program reads up to version ${CASE_DOCUMENT_VERSION}. Update the program first.`);
  }
}

function requireHistory(doc: CaseDocument): void {
  const seen = new Set<string>();
  for (const h of doc.history) {
    const key = `${h.section} ${h.version}`;
    if (seen.has(key)) throw refuse(`The case file holds version ${h.version} of ${h.section} twice.`);
    seen.add(key);
    const { errors } = check<object>(SECTION_CLASSES[h.section], h.data);
    if (errors.length > 0) throw invalid(errors.map((e) => ({ ...e, field: `history.${h.section}.${e.field}` })));
  }
}

function decode(base64: string, sha256: string, name: string): Buffer {
  const bytes = Buffer.from(base64, 'base64');
  if (createHash('sha256').update(bytes).digest('hex') !== sha256) throw refuse(`The file ${name} in the case file is damaged.`);
  return bytes;
}

async function writeSections(row: CaseRow, doc: CaseDocument, renamed: ReadonlyMap<string, string>, me: SignedIn, transaction: Transaction): Promise<void> {
  for (const name of SECTION_NAMES) {
    const history = doc.history.filter((h) => h.section === name).sort((a, b) => a.version - b.version);
    for (const h of history) {
      await RevisionRow.create(
        { caseId: row.id, section: name, version: h.version, data: withFiles(name, h.data, renamed), byName: h.by, at: new Date(h.at) },
        { transaction },
      );
    }
    const data = withFiles(name, doc.sections[name], renamed);
    const last = history.at(-1);
    if (!last && JSON.stringify(data) === JSON.stringify(EMPTY_SECTIONS[name])) continue;
    const version = last?.version ?? 1;
    const by = last?.by ?? me.name;
    const at = last ? new Date(last.at) : new Date();
    if (!last) await RevisionRow.create({ caseId: row.id, section: name, version, data, byName: by, at }, { transaction });
    await SectionRow.create({ caseId: row.id, name, version, data, byName: by, at }, { transaction });
  }
}

/** A section's content with the numbers that its files have here. */
function withFiles(name: SectionName, data: object, renamed: ReadonlyMap<string, string>): object {
  if (name === 'read') {
    const { photoId, views, aligned, ...rest } = data as ReadSection;
    return {
      ...(photoId && { photoId: renamed.get(photoId) ?? null }),
      ...rest,
      ...(views && { views: views.map(({ photoId: own, ...v }) => ({ ...v, ...(own && { photoId: renamed.get(own) ?? null }) })) }),
      ...(aligned && { aligned: aligned.flatMap((a) => (renamed.has(a.photoId) ? [{ ...a, photoId: renamed.get(a.photoId) as string }] : [])) }),
    };
  }
  if (name === 'shape') {
    const { scanId, ...rest } = data as ShapeSection;
    return scanId ? { scanId: renamed.get(scanId) ?? null, ...rest } : data;
  }
  return data;
}
