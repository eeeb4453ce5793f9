import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { QueryTypes, type Sequelize } from 'sequelize';
import { CaseRow, FileRow } from '../database/database.js';
import { DATABASE } from '../database/database.module.js';
import { FilesService } from '../files/files.service.js';
import { CasesService } from './cases.service.js';

/** Revisions that one statement copies: a long history must not hold the database up. */
const BATCH = 200;

/**
 * Makes a second case out of one: for another plan, or to try something. The files' bytes are shared, everything else
 * is its own.
 */
/** The fields of treat that say what happened. */
const DONE = ['runs', 'done', 'answers', 'timers', 'used', 'trials', 'looks'] as const;

@Injectable()
export class DuplicateService {
  constructor(
    @Inject(DATABASE) private readonly db: Sequelize,
    private readonly cases: CasesService,
    private readonly files: FilesService,
  ) {}

  /**
   * Copies sections with their history, files, comments and kept contours. Approvals are told as what the first case
   * says.
   */
  async duplicate(from: CaseRow, name: string): Promise<CaseRow> {
    const made = await this.db.transaction(async () => {
      const row = await this.cases.insert(name, from.practiceId, { finishBy: from.finishBy ?? null });
      const renamed = await this.copyFiles(from.id, row.id);
      await this.copyContent(from.id, row.id, renamed);
      return row;
    });
    this.cases.counted();
    return made;
  }

  /** @returns the copies' numbers by those of the first case's files */
  private async copyFiles(from: string, to: string): Promise<ReadonlyMap<string, string>> {
    const renamed = new Map<string, string>();
    const rows = await this.files.needed(from);
    for (const f of rows) renamed.set(f.id, randomUUID());
    await FileRow.bulkCreate(
      rows.map((f) => ({
        ...(f.get({ plain: true }) as FileRow),
        id: renamed.get(f.id) as string,
        caseId: to,
        parentId: (f.parentId && renamed.get(f.parentId)) ?? null,
      })),
    );
    return renamed;
  }

  private async copyContent(from: string, to: string, renamed: ReadonlyMap<string, string>): Promise<void> {
    const numbers: Record<string, string> = { from, to };
    let data = 'data';
    let ground = 'made_from';
    // A file's number stands nowhere else, so it can be taken as text wherever it stands.
    [...renamed].forEach(([before, after], i) => {
      numbers[`b${i}`] = before;
      numbers[`a${i}`] = after;
      data = `REPLACE(${data}, :b${i}, :a${i})`;
      ground = `REPLACE(${ground}, :b${i}, :a${i})`;
    });
    const run = (sql: string, more: object = {}) => this.db.query(sql, { replacements: { ...numbers, ...more } });
    await run(
      `INSERT INTO case_sections (case_id, name, version, data, by_name, at)
       SELECT :to, name, version, ${data}, by_name, at FROM case_sections WHERE case_id = :from`,
    );
    // A chair has one patient at a time: what is booked stays with the first case.
    await run(
      `UPDATE case_sections SET data = JSON_SET(data, '$.visits', JSON_ARRAY()) WHERE case_id = :to AND name = 'book'`,
    );
    // What was done at the chair was done once.
    await run(
      `UPDATE case_sections SET data = JSON_SET(data, ${DONE.map((f) => `'$.${f}', JSON_ARRAY()`).join(', ')})
       WHERE case_id = :to AND name = 'treat'`,
    );
    const histories = await this.db.query<{ section: string; most: number }>(
      'SELECT section, MAX(version) AS most FROM revisions WHERE case_id = :from GROUP BY section',
      { replacements: { from }, type: QueryTypes.SELECT },
    );
    for (const { section, most } of histories)
      for (let first = 1; first <= most; first += BATCH)
        await run(
          `INSERT INTO revisions (case_id, section, version, data, by_name, at)
           SELECT :to, section, version, ${data}, by_name, at FROM revisions
           WHERE case_id = :from AND section = :section AND version BETWEEN :first AND :last`,
          { section, first, last: first + BATCH - 1 },
        );
    await run(
      `INSERT INTO contours (id, case_id, number, name, why, by_name, at, made_from, teeth, worn, approved_word, approved_by, approved_at, claimed)
       SELECT UUID(), :to, number, name, why, by_name, at, ${ground}, teeth, worn, approved_word, approved_by, approved_at, approved_at IS NOT NULL
       FROM contours WHERE case_id = :from`,
    );
    await run(
      `INSERT INTO comments (id, case_id, stage, body, by_name, role, at, place)
       SELECT UUID(), :to, stage, body, by_name, role, at, place FROM comments WHERE case_id = :from`,
    );
  }
}
