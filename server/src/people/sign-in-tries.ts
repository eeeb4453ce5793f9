import { Inject, Injectable } from '@nestjs/common';
import { QueryTypes, type Sequelize } from 'sequelize';
import { DATABASE } from '../database/database.module.js';

/** Wrong tries for one name from one address before the door closes until the window ends. */
const TRIES = 5;
const WINDOW_MS = 5 * 60 * 1000;

/**
 * Counts wrong sign-ins in the database, so that every server in front of it counts the same ones.
 * The usual package for this writes statements that the MariaDB connector does not take (docs/decisions).
 */
@Injectable()
export class SignInTries {
  constructor(@Inject(DATABASE) private readonly db: Sequelize) {}

  /** How long to wait before the next try, ms; 0 when the door is open. */
  async waitMs(key: string): Promise<number> {
    const [row] = await this.db.query<{ failures: number; ends: Date }>('SELECT failures, window_ends AS ends FROM sign_in_tries WHERE name = ?', {
      replacements: [key],
      type: QueryTypes.SELECT,
    });
    return row && row.failures >= TRIES ? Math.max(0, row.ends.getTime() - Date.now()) : 0;
  }

  /** Counts one more; one statement, so that tries at the same moment are all counted. */
  async failed(key: string): Promise<void> {
    const now = new Date();
    await this.db.query(
      `INSERT INTO sign_in_tries (name, failures, window_ends) VALUES (:key, 1, :ends)
       ON DUPLICATE KEY UPDATE failures = IF(window_ends < :now, 1, failures + 1), window_ends = IF(window_ends < :now, :ends, window_ends)`,
      { replacements: { key, now, ends: new Date(now.getTime() + WINDOW_MS) } },
    );
  }

  async forget(key: string): Promise<void> {
    await this.db.query('DELETE FROM sign_in_tries WHERE name = ?', { replacements: [key] });
  }
}
