import { Inject, Injectable } from '@nestjs/common';
import {
  check,
  checkSection,
  completed,
  fieldsNotOwn,
  mayWriteSome,
  ownFields,
  SECTION_NAMES,
  SectionChange,
  type SectionHistory,
  type SectionName,
  type SectionState,
  sectionOf,
} from '@radiant/contract';
import { Op, type Sequelize, UniqueConstraintError } from 'sequelize';
import { isLarge } from '../common/body.js';
import { invalid, nothingHere, ProblemException } from '../common/problem.filter.js';
import { CaseRow, FileRow, RevisionRow, SectionRow } from '../database/database.js';
import { DATABASE } from '../database/database.module.js';
import type { Rule, SignedIn } from '../people/session.js';
import { Pool } from '../pool/pool.js';
import { requireFreeChairs } from './bookings.js';
import { describeSection } from './cases.service.js';
import { finishByOf } from './finish-by.js';

/** So many states of a section's history go out at once; each may hold the strokes of a whole contour. House value. */
const STATES_AT_ONCE = 12;

@Injectable()
export class SectionsService {
  constructor(
    @Inject(DATABASE) private readonly db: Sequelize,
    private readonly pool: Pool,
  ) {}

  /**
   * Writes a section and its revision in one transaction, if it still has the version that the change was made on.
   * @param body a `SectionChange`, or the bytes of a large one
   * @throws ProblemException 422 for content that is refused, 409 with the section as it
   *   stands when somebody else was first; nothing is written then
   */
  async change(row: CaseRow, name: SectionName, body: unknown, me: SignedIn): Promise<SectionState> {
    if (!SECTION_NAMES.includes(name)) throw nothingHere();
    const { version, value } = await this.checked(name, body);
    await this.requireSense(row.id, name, value);
    await this.requireOwn(row.id, name, version, value, me);
    for (let tries = 1; ; tries++) {
      try {
        return await this.write(row, name, version, value, me.name);
      } catch (error) {
        // Two first writes at the same moment: the second meets the first one's row.
        if (error instanceof UniqueConstraintError || error instanceof Late) throw await this.late(row.id, name);
        // Or the database lets go of one of them, which may then try again.
        if (!isDeadlock(error) || tries === DEADLOCK_TRIES) throw error;
      }
    }
  }

  /**
   * The states in which a section was saved, the newest first, so many at once.
   * @param before only those with a smaller number; the newest where nothing is said
   * @throws ProblemException 422 for what is no number
   */
  async history(row: CaseRow, name: SectionName, before?: string): Promise<SectionHistory> {
    if (!SECTION_NAMES.includes(name)) throw nothingHere();
    const under = before === undefined ? Number.MAX_SAFE_INTEGER : Number(before);
    if (!Number.isSafeInteger(under) || under < 1)
      throw invalid([{ field: 'before', message: 'Before which state is a whole number from 1.' }]);
    const rows = await RevisionRow.findAll({
      where: { caseId: row.id, section: name, version: { [Op.lt]: under } },
      order: [['version', 'DESC']],
      limit: STATES_AT_ONCE + 1,
    });
    return {
      states: rows.slice(0, STATES_AT_ONCE).map((r) => ({
        name,
        version: r.version,
        data: completed(name, r.data),
        by: r.byName,
        at: r.at.toISOString(),
      })),
      more: rows.length > STATES_AT_ONCE,
    };
  }

  /** A small change is checked here, a large one where it keeps nobody waiting. */
  private async checked(name: SectionName, body: unknown): Promise<{ version: number; value: object }> {
    if (isLarge(body)) {
      const { version, text } = await this.pool.read('readChange', { name, bytes: body });
      return { version, value: JSON.parse(text) as object };
    }
    const { value: change, errors } = check(SectionChange, body);
    if (errors.length > 0) throw invalid(errors);
    const { value, errors: more } = checkSection(name, change.data);
    if (more.length > 0) throw invalid(more);
    return { version: change.version, value };
  }

  /**
   * Who may write some fields alone changes no other; a change of an older version is told as late instead.
   * @throws ProblemException 403
   */
  private async requireOwn(caseId: string, name: SectionName, base: number, data: object, me: SignedIn): Promise<void> {
    const own = ownFields(me.role, name);
    if (own.length === 0) return;
    const current = describeSection(name, await SectionRow.findOne({ where: { caseId, name } }));
    if (current.version !== base || fieldsNotOwn(me.role, name, current.data, data).length === 0) return;
    const { labels } = sectionOf(name);
    throw new ProblemException(
      403,
      'Not allowed',
      `The dentist decides on ${name}; you may write ${own.map((f) => labels[f] ?? f).join(', ')} there.`,
    );
  }

  private async write(
    row: CaseRow,
    name: SectionName,
    base: number,
    data: object,
    byName: string,
  ): Promise<SectionState> {
    const at = new Date();
    const version = base + 1;
    await this.db.transaction(async (transaction) => {
      // The case first: a row below it would hold the case as well, and who then wants to write it waits behind others
      // who want the same, such as a file on its way in: they would wait for each other.
      if (name === 'book') await requireFreeChairs(this.db, row, data, transaction);
      const finishBy = finishByOf(name, data);
      await CaseRow.update(
        { changedAt: at, ...(finishBy !== undefined && { finishBy }) },
        { where: { id: row.id }, transaction },
      );
      if (base === 0) await SectionRow.create({ caseId: row.id, name, version, data, byName, at }, { transaction });
      else {
        const [changed] = await SectionRow.update(
          { version, data, byName, at },
          { where: { caseId: row.id, name, version: base }, transaction },
        );
        if (changed === 0) throw new Late();
      }
      await RevisionRow.create({ caseId: row.id, section: name, version, data, byName, at }, { transaction });
    });
    return { name, version, data: data as SectionState['data'], by: byName, at: at.toISOString() };
  }

  private async late(caseId: string, name: SectionName): Promise<ProblemException> {
    const current = describeSection(name, await SectionRow.findOne({ where: { caseId, name } }));
    return new ProblemException(
      409,
      'Changed meanwhile',
      `${current.by ?? 'Somebody'} changed this meanwhile; nothing was overwritten.`,
      { current },
    );
  }

  /**
   * What the classes alone can't tell: whether what it says fits the case's files. @throws ProblemException 422,
   * Refusal
   */
  async requireSense(caseId: string, name: SectionName, data: object): Promise<void> {
    const section = sectionOf(name);
    const content = completed(name, data);
    const ids = section.files(content).map((f) => f.id);
    const rows = ids.length > 0 ? await FileRow.findAll({ where: { id: ids, caseId } }) : [];
    const errors = section.sense(content, new Map(rows.map((r) => [r.id, r])));
    if (errors.length > 0) throw invalid([...errors]);
  }
}

/** Somebody else was first; what they wrote is read when the transaction is over. */
class Late extends Error {}

const DEADLOCK_TRIES = 4;

/** Whether the database gave up one of two transactions that waited for each other; nothing of it was written. */
function isDeadlock(error: unknown): boolean {
  const code = (error as { parent?: { code?: string } } | undefined)?.parent?.code;
  return code === 'ER_LOCK_DEADLOCK' || code === 'ER_CHECKREAD';
}

/** Who may change which section; asked before the content is read. */
export const writers: Rule = (me, { name }) => {
  if (!SECTION_NAMES.includes(name as SectionName) || mayWriteSome(me.role, name as SectionName)) return undefined;
  return me.role === 'technician'
    ? 'A technician reads and comments; the practice changes the case.'
    : `The dentist decides on ${name}; you may read it.`;
};
