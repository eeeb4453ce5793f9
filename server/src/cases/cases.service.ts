import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import {
  type CaseComment,
  type CaseDetail,
  type CaseSummary,
  completed,
  EMPTY_SECTIONS,
  type NewCase,
  type NewComment,
  type PhotoView,
  SECTION_NAMES,
  type SectionName,
  type SectionState,
} from '@radiant/contract';
import { Op, type Sequelize, type Transaction } from 'sequelize';
import { ProblemException } from '../common/problem.filter.js';
import { ContoursService } from '../contours/contours.service.js';
import { CaseRow, CommentRow, FileRow, RevisionRow, SectionRow } from '../database/database.js';
import { DATABASE } from '../database/database.module.js';
import { describeFile, FilesService } from '../files/files.service.js';
import type { SignedIn } from '../people/session.js';

/** Views that stand for a case in the list, the best first. */
const COVER_VIEWS: PhotoView[] = ['close-smile', 'retracted-front'];

@Injectable()
export class CasesService {
  constructor(
    @Inject(DATABASE) private readonly db: Sequelize,
    private readonly files: FilesService,
    private readonly contours: ContoursService,
  ) {}

  /** A case of the person's own practice. @throws ProblemException 404 alike for another practice's and for none */
  async own(id: string, me: Pick<SignedIn, 'practiceId'>): Promise<CaseRow> {
    const row = await CaseRow.findOne({ where: { id, practiceId: me.practiceId } });
    if (!row) throw new ProblemException(404, 'Not found', 'There is nothing here that you may see.');
    return row;
  }

  async list(me: SignedIn): Promise<CaseSummary[]> {
    const cases = await CaseRow.findAll({ where: { practiceId: me.practiceId }, order: [['changedAt', 'DESC']] });
    const sections = await SectionRow.findAll({ where: { caseId: { [Op.in]: cases.map((c) => c.id) } } });
    const covers = await FileRow.findAll({
      where: { caseId: { [Op.in]: cases.map((c) => c.id) }, kind: 'photo', view: { [Op.in]: COVER_VIEWS }, removedAt: null },
      attributes: ['id', 'caseId', 'view'],
      order: [['at', 'DESC']],
    });
    return cases.map((c) => {
      const cover = COVER_VIEWS.map((v) => covers.find((f) => f.caseId === c.id && f.view === v)).find((f) => f);
      const own = sections.filter((s) => s.caseId === c.id);
      const meet = completed('meet', own.find((s) => s.name === 'meet')?.data ?? {});
      return { id: c.id, name: c.name, updatedAt: c.changedAt.toISOString(), meet, stagesBegun: own.map((s) => s.name), coverId: cover?.id ?? null };
    });
  }

  async create(input: NewCase, me: Pick<SignedIn, 'practiceId' | 'name'>): Promise<CaseRow> {
    return this.db.transaction(async (transaction) => {
      const row = await this.insert(input.name, me.practiceId, transaction);
      if (input.meet) await this.writeFirst(row.id, 'meet', input.meet, me.name, transaction);
      return row;
    });
  }

  /** A bare case row, inside a transaction. */
  insert(name: string, practiceId: string, transaction: Transaction): Promise<CaseRow> {
    const now = new Date();
    return CaseRow.create({ id: randomUUID(), practiceId, name, openedAt: now, changedAt: now }, { transaction });
  }

  private async writeFirst(caseId: string, name: SectionName, data: object, byName: string, transaction: Transaction): Promise<void> {
    const at = new Date();
    await SectionRow.create({ caseId, name, version: 1, data, byName, at }, { transaction });
    await RevisionRow.create({ caseId, section: name, version: 1, data, byName, at }, { transaction });
  }

  async detail(row: CaseRow): Promise<CaseDetail> {
    const [sections, files, removed, comments, contours] = await Promise.all([
      SectionRow.findAll({ where: { caseId: row.id } }),
      this.files.list(row.id),
      this.files.removed(row.id),
      CommentRow.findAll({ where: { caseId: row.id }, order: [['at', 'ASC']] }),
      this.contours.list(row.id),
    ]);
    const states = Object.fromEntries(
      SECTION_NAMES.map((name) => [
        name,
        describeSection(
          name,
          sections.find((s) => s.name === name),
        ),
      ]),
    );
    return {
      id: row.id,
      name: row.name,
      sections: states as unknown as CaseDetail['sections'],
      files: files.map(describeFile),
      removed: removed.map(describeFile),
      comments: comments.map(describeComment),
      contours,
    };
  }

  async comment(row: CaseRow, input: NewComment, me: SignedIn): Promise<CaseComment> {
    const made = await CommentRow.create({
      id: randomUUID(),
      caseId: row.id,
      stage: input.stage,
      body: input.body,
      byName: me.name,
      role: me.role,
      at: new Date(),
    });
    return describeComment(made);
  }

  async history(caseId: string): Promise<RevisionRow[]> {
    return RevisionRow.findAll({ where: { caseId }, order: [['at', 'ASC']] });
  }

  async comments(caseId: string): Promise<CommentRow[]> {
    return CommentRow.findAll({ where: { caseId }, order: [['at', 'ASC']] });
  }

  async fileRows(caseId: string): Promise<FileRow[]> {
    return this.files.list(caseId);
  }
}

export function describeSection(name: SectionName, row: SectionRow | null | undefined): SectionState {
  if (!row) return { name, version: 0, data: EMPTY_SECTIONS[name], by: null, at: null };
  return { name, version: row.version, data: completed(name, row.data), by: row.byName, at: row.at.toISOString() };
}

function describeComment(c: CommentRow): CaseComment {
  return { id: c.id, stage: c.stage, body: c.body, by: c.byName, role: c.role, at: c.at.toISOString() };
}
