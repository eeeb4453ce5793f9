import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import {
  type CaseComment,
  type CaseDetail,
  type CasePage,
  type CaseQuery,
  type CaseSort,
  completed,
  EMPTY_SECTIONS,
  type NewCase,
  type NewComment,
  type PhotoView,
  type PracticeSettings,
  type PutAway,
  SECTION_NAMES,
  type SectionName,
  type SectionState,
} from '@radiant/contract';
import { literal, Op, type Order, QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { ContoursService } from '../contours/contours.service.js';
import { CaseRow, CommentRow, ContourRow, FileRow, OpeningRow, RevisionRow, SectionRow } from '../database/database.js';
import { DATABASE } from '../database/database.module.js';
import { describeFile, FilesService } from '../files/files.service.js';
import { PracticeSettingsService } from '../people/practice-settings.service.js';
import type { SignedIn } from '../people/session.js';
import { finishByOf } from './finish-by.js';

/**
 * A total is counted anew after so long, ms: counting ten thousand rows at every look costs more than the page itself.
 */
const TOTAL_MS = 3000;
/** Totals of so many searches are remembered. */
const TOTALS = 200;

/** How many cases there are, counted now and then. A case that is made here is counted at once. */
class Totals {
  private readonly known = new Map<string, { readonly at: number; readonly total: Promise<number> }>();

  of(key: string, count: () => Promise<number>): Promise<number> {
    const before = this.known.get(key);
    if (before && Date.now() - before.at < TOTAL_MS) return before.total;
    if (this.known.size >= TOTALS) this.known.clear();
    const total = count();
    total.catch(() => this.known.delete(key));
    this.known.set(key, { at: Date.now(), total });
    return total;
  }

  forget(): void {
    this.known.clear();
  }
}

/** Cases on one page of the list. */
export const CASES_A_PAGE = 24;

/** How the list of cases is sorted; what has no day to finish by comes last. */
const ORDERS: Readonly<Record<Exclude<CaseSort, 'opened'>, Order>> = {
  changed: [['changedAt', 'DESC']],
  name: [['name', 'ASC']],
  finish: [literal('finish_sort'), ['changedAt', 'DESC']],
};

/** Views that stand for a case in the list, the best first. */
const COVER_VIEWS: PhotoView[] = ['close-smile', 'retracted-front'];

@Injectable()
export class CasesService {
  private readonly totals = new Totals();

  constructor(
    @Inject(DATABASE) private readonly db: Sequelize,
    private readonly files: FilesService,
    private readonly contours: ContoursService,
    private readonly settings: PracticeSettingsService,
  ) {}

  /** What a section of this practice's cases holds before anyone has written it. */
  async begun(practiceId: string): Promise<(name: SectionName) => SectionState['data']> {
    const settings = await this.settings.of(practiceId);
    return (name) => firstContent(name, settings);
  }

  /** One page of the practice's cases. */
  async list(
    me: Pick<SignedIn, 'id' | 'practiceId'>,
    { search = '', sort = 'changed', page = 0, bin = false }: CaseQuery,
  ): Promise<CasePage> {
    const where = {
      practiceId: me.practiceId,
      removedAt: bin ? { [Op.ne]: null } : null,
      ...(search.trim() && { name: { [Op.like]: `%${search.trim().replace(/[\\%_]/g, (c) => `\\${c}`)}%` } }),
    };
    const [cases, count, binned] = await Promise.all([
      CaseRow.findAll({
        where,
        order: sort === 'opened' ? this.openedBy(me.id) : ORDERS[sort],
        limit: CASES_A_PAGE,
        offset: page * CASES_A_PAGE,
      }),
      this.totals.of(`${me.practiceId} ${bin} ${search.trim()}`, () => CaseRow.count({ where })),
      this.totals.of(`${me.practiceId} bin`, () =>
        CaseRow.count({ where: { practiceId: me.practiceId, removedAt: { [Op.ne]: null } } }),
      ),
    ]);
    const ids = cases.map((c) => c.id);
    const [sections, covers, held, openings] = await Promise.all([
      this.glances(ids),
      this.covers(ids),
      bin ? heldOf(ids) : new Set<string>(),
      OpeningRow.findAll({ where: { personId: me.id, caseId: ids }, raw: true }),
    ]);
    return {
      total: count,
      page,
      binned,
      pages: Math.max(1, Math.ceil(count / CASES_A_PAGE)),
      cases: cases.map((c) => {
        const own = sections.filter((s) => s.caseId === c.id);
        const meet = own.find((s) => s.name === 'meet');
        return {
          id: c.id,
          name: c.name,
          updatedAt: c.changedAt.toISOString(),
          ageYears: meet?.age ? Number(meet.age) : null,
          wish: meet?.wish ?? '',
          finishBy: c.finishBy ?? null,
          stagesBegun: own.map((s) => s.name),
          coverId: covers.get(c.id) ?? null,
          importedBy: c.importedBy ?? null,
          leftAt: openings.find((o) => o.caseId === c.id)?.stage ?? null,
          removed: putAwayOf(c, held.has(c.id)),
        };
      }),
    };
  }

  /**
   * What the list shows of the sections: their names, and two fields of the record; their contents stay where they are.
   */
  private async glances(
    ids: string[],
  ): Promise<{ caseId: string; name: SectionName; age: string | null; wish: string | null }[]> {
    if (ids.length === 0) return [];
    const of = (field: string) => `IF(name = 'meet', JSON_VALUE(data, '$.${field}'), NULL)`;
    return this.db.query(
      `SELECT case_id AS caseId, name, ${of('ageYears')} AS age, ${of('wish')} AS wish FROM case_sections WHERE case_id IN (:ids)`,
      {
        replacements: { ids },
        type: QueryTypes.SELECT,
      },
    );
  }

  /** A photograph of each case that stands for it. */
  private async covers(ids: string[]): Promise<Map<string, string>> {
    const files = await FileRow.findAll({
      where: { caseId: ids, kind: 'photo', view: COVER_VIEWS, removedAt: null },
      attributes: ['id', 'caseId', 'view'],
      order: [['at', 'DESC']],
      raw: true,
    });
    const out = new Map<string, string>();
    for (const view of COVER_VIEWS)
      for (const f of files) if (f.view === view && !out.has(f.caseId)) out.set(f.caseId, f.id);
    return out;
  }

  async create(input: NewCase, me: Pick<SignedIn, 'practiceId' | 'name'>): Promise<CaseRow> {
    const made = await this.db.transaction(async (transaction) => {
      const row = await this.insert(input.name, me.practiceId, {
        finishBy: (input.meet && finishByOf('meet', input.meet)) ?? null,
      });
      if (input.meet) await this.writeFirst(row.id, 'meet', input.meet, me.name, transaction);
      return row;
    });
    this.counted();
    return made;
  }

  /** A case has come: totals are counted anew. */
  counted(): void {
    this.totals.forget();
  }

  /** A bare case row; within a transaction where one is open. */
  insert(
    name: string,
    practiceId: string,
    more: Pick<CaseRow, 'finishBy'> & Partial<Pick<CaseRow, 'importedBy' | 'importedAt' | 'writtenAt'>>,
  ): Promise<CaseRow> {
    const now = new Date();
    return CaseRow.create({ id: randomUUID(), practiceId, name, openedAt: now, changedAt: now, ...more });
  }

  private async writeFirst(
    caseId: string,
    name: SectionName,
    data: object,
    byName: string,
    transaction: Transaction,
  ): Promise<void> {
    const at = new Date();
    await SectionRow.create({ caseId, name, version: 1, data, byName, at }, { transaction });
    await RevisionRow.create({ caseId, section: name, version: 1, data, byName, at }, { transaction });
  }

  async detail(row: CaseRow): Promise<CaseDetail> {
    const [sections, files, removed, comments, contours, settings] = await Promise.all([
      SectionRow.findAll({ where: { caseId: row.id } }),
      this.files.list(row.id),
      this.files.removed(row.id),
      CommentRow.findAll({ where: { caseId: row.id }, order: [['at', 'ASC']] }),
      this.contours.list(row.id),
      this.settings.of(row.practiceId),
    ]);
    const states = Object.fromEntries(
      SECTION_NAMES.map((name) => [
        name,
        describeSection(
          name,
          sections.find((s) => s.name === name),
          settings,
        ),
      ]),
    );
    return {
      id: row.id,
      name: row.name,
      putAway: putAwayOf(
        row,
        contours.some((c) => c.approved),
      ),
      imported: row.importedAt
        ? {
            by: row.importedBy ?? '',
            at: row.importedAt.toISOString(),
            writtenAt: row.writtenAt?.toISOString() ?? null,
          }
        : null,
      sections: states as unknown as CaseDetail['sections'],
      files: files.map(describeFile),
      removed: removed.map(describeFile),
      comments: comments.map(describeComment),
      contours,
    };
  }

  /** The cases that a person opened last come first; those that they never opened, as they were changed. */
  private openedBy(personId: string): Order {
    const at = `(SELECT o.at FROM openings o WHERE o.case_id = \`CaseRow\`.id AND o.person_id = ${this.db.escape(personId)})`;
    return [
      [literal(at), 'DESC'],
      ['changedAt', 'DESC'],
    ];
  }

  /** Notes that a person has the case open. */
  async opened(row: CaseRow, stage: string, me: Pick<SignedIn, 'id'>): Promise<void> {
    await OpeningRow.upsert({ personId: me.id, caseId: row.id, stage, at: new Date() });
  }

  /** Puts a case away; it can be brought back for KEPT_DAYS. What it holds stays as it is. */
  async putAway(row: CaseRow, me: Pick<SignedIn, 'name'>): Promise<void> {
    await row.update({ removedAt: new Date(), removedBy: me.name });
    this.counted();
  }

  async bringBack(row: CaseRow): Promise<void> {
    await row.update({ removedAt: null, removedBy: null });
    this.counted();
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
      place: input.place ?? null,
    });
    return describeComment(made);
  }
}

const putAwayOf = (row: CaseRow, held: boolean): PutAway | null =>
  row.removedAt ? { at: row.removedAt.toISOString(), by: row.removedBy ?? '', held } : null;

/** Those of the cases that are part of a record of treatment: a patient approved a contour, here or elsewhere. */
export async function heldOf(caseIds: readonly string[]): Promise<Set<string>> {
  const approved = await ContourRow.findAll({
    where: { caseId: [...caseIds], approvedAt: { [Op.ne]: null } },
    attributes: ['caseId'],
    raw: true,
  });
  return new Set(approved.map((c) => c.caseId));
}

/** @param settings what the practice has set, for a section that nobody has written yet */
export function describeSection(
  name: SectionName,
  row: SectionRow | null | undefined,
  settings?: PracticeSettings,
): SectionState {
  if (!row) return { name, version: 0, data: firstContent(name, settings), by: null, at: null };
  return { name, version: row.version, data: completed(name, row.data), by: row.byName, at: row.at.toISOString() };
}

/** What a section holds before anyone has written it, by what the practice has set. */
function firstContent(name: SectionName, settings: PracticeSettings | undefined): SectionState['data'] {
  if (!settings) return EMPTY_SECTIONS[name];
  const { school, design, cutFrom: from, contactsMm, thickness, trays, toleranceMm, cornerMm } = settings;
  if (name === 'propose') return { ...EMPTY_SECTIONS.propose, school };
  if (name === 'direct') return { ...EMPTY_SECTIONS.direct, ...settings.composite };
  if (name === 'reduce') {
    const [tray = null] = trays;
    return {
      ...EMPTY_SECTIONS.reduce,
      design,
      from,
      tray,
      toleranceMm,
      cornerMm,
      ...(thickness.length > 0 && { thickness }),
    };
  }
  if (name === 'shape' && contactsMm !== null) return { ...EMPTY_SECTIONS.shape, contactsMm };
  return EMPTY_SECTIONS[name];
}

function describeComment(c: CommentRow): CaseComment {
  const { id, stage, body, byName: by, role, at, place } = c;
  return { id, stage, body, by, role, at: at.toISOString(), ...(place && { place }) };
}
