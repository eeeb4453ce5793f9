import { type BookedVisit, type Booking, type BookSection, completed } from '@radiant/contract';
import { clashOf } from '@radiant/contract/course';
import { VISITS } from '@radiant/core';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { invalid } from '../common/problem.filter.js';
import { type CaseRow, SectionRow } from '../database/database.js';

/** The visits of a practice's cases between two days, both within; those of cases that were put away are let go. */
export async function bookingsOf(
  db: Sequelize,
  practiceId: string,
  { from, to }: { readonly from: string; readonly to: string },
  transaction?: Transaction,
): Promise<Booking[]> {
  const rows = await db.query<{ caseId: string; caseName: string; visits: string | BookedVisit[] | null }>(
    `SELECT c.id AS caseId, c.name AS caseName, JSON_EXTRACT(s.data, '$.visits') AS visits
     FROM case_sections s JOIN cases c ON c.id = s.case_id
     WHERE s.name = 'book' AND c.practice_id = :practiceId AND c.removed_at IS NULL`,
    { replacements: { practiceId }, type: QueryTypes.SELECT, ...(transaction && { transaction }) },
  );
  return rows.flatMap(({ caseId, caseName, visits }) => {
    const own = typeof visits === 'string' ? (JSON.parse(visits) as BookedVisit[]) : (visits ?? []);
    return own.filter((v) => from <= v.day && v.day <= to).map((v): Booking => ({ ...v, caseId, caseName }));
  });
}

/**
 * Refuses visits that want a chair or a person that another case has. The practice is held from before anything is read:
 * of two who want one at the same moment the second waits, and reads what the first has written.
 * @throws ProblemException 422
 */
export async function requireFreeChairs(
  db: Sequelize,
  { id: caseId, practiceId }: Pick<CaseRow, 'id' | 'practiceId'>,
  after: Partial<BookSection>,
  transaction: Transaction,
): Promise<void> {
  await db.query('SELECT id FROM practices WHERE id = :practiceId FOR UPDATE', {
    replacements: { practiceId },
    type: QueryTypes.SELECT,
    transaction,
  });
  const row = await SectionRow.findOne({ where: { caseId, name: 'book' }, transaction });
  const stood = new Set((completed('book', row?.data ?? {}) as BookSection).visits.map((v) => JSON.stringify(v)));
  const changed = (after.visits ?? []).filter((v) => !stood.has(JSON.stringify(v)));
  if (changed.length === 0) return;
  const days = changed.map((v) => v.day).sort();
  const range = { from: days[0] as string, to: days.at(-1) as string };
  const others = (await bookingsOf(db, practiceId, range, transaction)).filter((b) => b.caseId !== caseId);
  for (const v of changed) {
    const clash = clashOf(v, others);
    if (clash)
      throw invalid([
        {
          field: 'data.visits',
          message: `${clash.chair === v.chair ? v.chair : v.by} has “${clash.caseName}” for ${VISITS[clash.kind]} on ${v.day} then.`,
        },
      ]);
  }
}
