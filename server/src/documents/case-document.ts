import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { unlink } from 'node:fs/promises';
import { dirname } from 'node:path';
import { createInterface } from 'node:readline';
import { Inject, Injectable } from '@nestjs/common';
import {
  type CaseDetail,
  completed,
  EMPTY_SECTIONS,
  type MadeFrom,
  SECTION_NAMES,
  type SectionName,
  type StoredComment,
  type StoredContour,
  type StoredRevision,
  sectionOf,
} from '@radiant/contract';
import type { Sequelize } from 'sequelize';
import { CasesService } from '../cases/cases.service.js';
import { finishByOf } from '../cases/finish-by.js';
import { CONFIG, type Config } from '../common/config.js';
import { ProblemException } from '../common/problem.filter.js';
import { CaseRow, CommentRow, ContourRow, RevisionRow, SectionRow } from '../database/database.js';
import { DATABASE } from '../database/database.module.js';
import { FilesService, layOf } from '../files/files.service.js';
import type { SignedIn } from '../people/session.js';
import { Pool } from '../pool/pool.js';
import type { FoundCase } from '../work/case-reader.js';

/** Rows that go into the database with one statement. */
const ROWS = 40;

/** Writes a whole case as one JSON document and reads it back as a new case. */
@Injectable()
export class CaseDocumentService {
  constructor(
    @Inject(DATABASE) private readonly db: Sequelize,
    @Inject(CONFIG) private readonly config: Config,
    private readonly cases: CasesService,
    private readonly files: FilesService,
    private readonly pool: Pool,
  ) {}

  /**
   * Writes the document among the drafts. Returns where it lies; whoever asks takes it away. @throws ProblemException
   * 413, 503, 507
   */
  async write(row: CaseRow): Promise<string> {
    const [detail, files] = await this.db.transaction(
      async (): Promise<[CaseDetail, Awaited<ReturnType<FilesService['needed']>>]> => [
        await this.cases.detail(row),
        await this.files.needed(row.id),
      ],
    );
    const path = await this.files.draft();
    await this.pool.writeCase({
      detail,
      files: files.map((f) => ({
        id: f.id,
        kind: f.kind,
        jaw: f.jaw ?? null,
        role: f.role ?? null,
        parentId: f.parentId ?? null,
        frame: f.frame ?? null,
        name: f.name,
        origin: f.origin,
        at: f.at.toISOString(),
        sha256: f.sha256,
        view: f.view ?? null,
        state: f.state ?? null,
        takenOn: f.takenOn ?? null,
        takenBy: f.takenBy ?? '',
        mime: f.mime,
        lay: layOf(f),
        path: this.files.pathOf(f),
      })),
      database: this.config.database,
      path,
    });
    return path;
  }

  /**
   * Reads a document into a new case of the person's practice: everything or nothing. Who brought it in and when is
   * kept with it; approvals in it are what the file claims.
   * @param path of the document, on the disk
   * @throws ProblemException 413, 422 with one sentence
   */
  async read(path: string, me: SignedIn): Promise<CaseRow> {
    const dir = dirname(await this.files.draft());
    const found = await this.pool.readCase({ path, dir, prefix: `${randomUUID()}-` });
    try {
      const drafts = found.files.map((f) => ({ path: f.path, sha256: f.stored.sha256 }));
      const row = await this.files.placed(drafts, () => this.db.transaction(() => this.insert(found, me)));
      this.cases.counted();
      return row;
    } finally {
      for (const p of [found.commentsPath, found.contoursPath, found.historyPath])
        await unlink(p).catch(() => undefined);
    }
  }

  private async insert(found: FoundCase, me: SignedIn): Promise<CaseRow> {
    // Files get new numbers, since the old ones may live in this house already; sections follow.
    const renamed = new Map(found.files.map((f) => [f.stored.id, randomUUID() as string]));
    const row = await this.cases.insert(found.name, me.practiceId, {
      finishBy: finishByOf('meet', found.sections.meet) ?? null,
      importedBy: me.name,
      importedAt: new Date(),
      writtenAt: new Date(found.writtenAt),
    });
    for (const { stored, seen } of found.files) {
      const { view, state, takenOn, takenBy, jaw, frame, parentId } = stored;
      await this.files.record(
        row.id,
        seen,
        {
          kind: stored.kind,
          name: stored.name,
          origin: stored.origin,
          ...(view !== undefined && { view }),
          ...(state !== undefined && { state }),
          jaw: jaw ?? null,
          frame: frame ?? null,
          parentId: (parentId && renamed.get(parentId)) ?? null,
          takenOn: takenOn ?? null,
          takenBy: takenBy ?? '',
        },
        { id: renamed.get(stored.id) as string, at: new Date(stored.at) },
      );
    }
    const last = await this.history(row, found, renamed);
    await this.sections(row, found, renamed, last, me);
    await inRows<StoredContour>(found.contoursPath, (rows) =>
      ContourRow.bulkCreate(
        rows.map((c) => ({
          id: randomUUID(),
          caseId: row.id,
          number: c.number,
          name: c.name,
          why: c.why,
          byName: c.by,
          at: new Date(c.at),
          madeFrom: groundOf(c, found, renamed),
          teeth: c.teeth,
          worn: c.worn ?? null,
          approvedWord: c.approved?.word ?? null,
          approvedBy: c.approved?.by ?? null,
          approvedAt: c.approved ? new Date(c.approved.at) : null,
          claimed: !!c.approved,
        })),
      ),
    );
    await inRows<StoredComment>(found.commentsPath, (rows) =>
      CommentRow.bulkCreate(
        rows.map((c) => ({
          id: randomUUID(),
          caseId: row.id,
          stage: c.stage,
          body: c.body,
          byName: c.by,
          role: c.role,
          at: new Date(c.at),
          place: c.place ?? null,
        })),
      ),
    );
    return row;
  }

  /** Writes the revisions. Returns the newest of each section. */
  private async history(
    row: CaseRow,
    found: FoundCase,
    renamed: ReadonlyMap<string, string>,
  ): Promise<Map<SectionName, Omit<StoredRevision, 'data'>>> {
    const last = new Map<SectionName, Omit<StoredRevision, 'data'>>();
    await inRows<StoredRevision>(found.historyPath, async (rows) => {
      for (const { data: _, ...h } of rows) if (h.version > (last.get(h.section)?.version ?? 0)) last.set(h.section, h);
      await RevisionRow.bulkCreate(
        rows.map((h) => ({
          caseId: row.id,
          section: h.section,
          version: h.version,
          data: withFiles(h.section, h.data, renamed),
          byName: h.by,
          at: new Date(h.at),
        })),
      );
    });
    return last;
  }

  private async sections(
    row: CaseRow,
    found: FoundCase,
    renamed: ReadonlyMap<string, string>,
    newest: ReadonlyMap<SectionName, Omit<StoredRevision, 'data'>>,
    me: SignedIn,
  ): Promise<void> {
    const begun = await this.cases.begun(me.practiceId);
    for (const name of SECTION_NAMES) {
      const data = withFiles(name, found.sections[name], renamed);
      const last = newest.get(name);
      // What nobody has written yet is here as this practice begins a case.
      const asBegun = [EMPTY_SECTIONS[name], begun(name)].some((own) => JSON.stringify(data) === JSON.stringify(own));
      if (!last && asBegun) continue;
      const version = last?.version ?? 1;
      const byName = last?.by ?? me.name;
      const at = last ? new Date(last.at) : new Date();
      if (!last) await RevisionRow.create({ caseId: row.id, section: name, version, data, byName, at });
      await SectionRow.create({ caseId: row.id, name, version, data, byName, at });
    }
  }
}

/** Reads a file of one JSON line a row, some rows at a time. */
async function inRows<T>(path: string, take: (rows: T[]) => Promise<unknown>): Promise<void> {
  let rows: T[] = [];
  let characters = 0;
  for await (const line of createInterface({ input: createReadStream(path), crlfDelay: Number.POSITIVE_INFINITY })) {
    rows.push(JSON.parse(line) as T);
    characters += line.length;
    if (rows.length < ROWS && characters < 4_000_000) continue;
    await take(rows);
    [rows, characters] = [[], 0];
  }
  if (rows.length > 0) await take(rows);
}

/** A section's content with the numbers that its files have here. */
const withFiles = (name: SectionName, data: object, renamed: ReadonlyMap<string, string>): object =>
  sectionOf(name).withFiles(completed(name, data), (id) => renamed.get(id));

/**
 * The files that a contour was made from, with the numbers that they have here. @throws ProblemException 422 where the
 * case file does not hold them as they were
 */
function groundOf(c: StoredContour, found: FoundCase, renamed: ReadonlyMap<string, string>): MadeFrom {
  const by = new Map(found.files.map((f) => [f.stored.id, f]));
  const older = c.scanId ? by.get(c.scanId) : undefined;
  const told = older ? [{ fileId: older.stored.id, jaw: 'upper' as const, sha256: older.stored.sha256 }] : [];
  return {
    files: (c.madeFrom?.files ?? told).map(({ fileId, jaw, sha256 }) => {
      const scan = by.get(fileId);
      if (scan?.seen.sha256 !== sha256 || scan.seen.jaw !== jaw)
        throw new ProblemException(
          422,
          'Not accepted',
          `The contour “${c.name}” stands on another scan of the ${jaw} jaw than the case file holds.`,
        );
      return { fileId: renamed.get(fileId) as string, jaw, sha256 };
    }),
    ...(c.madeFrom?.forms !== undefined && { forms: c.madeFrom.forms }),
  };
}
