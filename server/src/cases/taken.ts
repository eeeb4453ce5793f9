import type { VisitRun } from '@radiant/contract';
import { takenOf } from '@radiant/contract/chair';
import type { Taken } from '@radiant/core';
import { QueryTypes, type Sequelize } from 'sequelize';

/** What the visits of a practice truly took; those of cases that were put away are let go. */
export async function takenIn(db: Sequelize, practiceId: string): Promise<Taken[]> {
  const rows = await db.query<{ runs: string | VisitRun[] | null }>(
    `SELECT JSON_EXTRACT(s.data, '$.runs') AS runs FROM case_sections s JOIN cases c ON c.id = s.case_id
     WHERE s.name = 'treat' AND c.practice_id = :practiceId AND c.removed_at IS NULL`,
    { replacements: { practiceId }, type: QueryTypes.SELECT },
  );
  return rows.flatMap(({ runs }) =>
    takenOf({ runs: typeof runs === 'string' ? (JSON.parse(runs) as VisitRun[]) : (runs ?? []) }),
  );
}
