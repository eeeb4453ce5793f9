import { createHash } from 'node:crypto';
import { Inject, Injectable, type OnApplicationBootstrap, type OnModuleDestroy } from '@nestjs/common';
import { QueryTypes, type Sequelize } from 'sequelize';
import { DATABASE } from '../database/database.module.js';

/** So many tries within a while before the door closes until the while is over. */
interface Door {
  readonly tries: number;
  readonly windowMs: number;
}

const MINUTE_MS = 60_000;
/**
 * One name from one address; one name from anywhere, so that many addresses don't help; one address with any names, so
 * that many names don't help. The second is wider: nobody should be able to lock a colleague out with a handful of
 * tries.
 */
const DOORS = {
  both: { tries: 5, windowMs: 5 * MINUTE_MS },
  account: { tries: 30, windowMs: 15 * MINUTE_MS },
  address: { tries: 60, windowMs: 5 * MINUTE_MS },
} as const satisfies Record<string, Door>;
type DoorName = keyof typeof DOORS;

const SWEEP_MS = 60 * MINUTE_MS;

/** A try that was counted; forgotten when it turns out to have been right. */
export interface CountedTry {
  readonly keys: Readonly<Record<DoorName, string>>;
  /** How long to wait, ms; 0 when the door is open. */
  readonly waitMs: number;
}

/**
 * Counts sign-ins in the database, so that every server in front of it counts the same ones. A try is counted before
 * anything is looked at: tries at the same moment can't pass together. What is counted is kept under a hash, without
 * names. The usual package for this writes statements that the MariaDB connector does not take (docs/decisions).
 */
@Injectable()
export class SignInTries implements OnApplicationBootstrap, OnModuleDestroy {
  private timer: NodeJS.Timeout | undefined;

  constructor(@Inject(DATABASE) private readonly db: Sequelize) {}

  onApplicationBootstrap(): void {
    const sweep = () => void this.sweep().catch(() => undefined);
    sweep();
    this.timer = setInterval(sweep, SWEEP_MS);
    this.timer.unref();
  }

  onModuleDestroy(): void {
    clearInterval(this.timer);
  }

  async count(account: string, address: string): Promise<CountedTry> {
    const keys = {
      both: keyOf('both', account, address),
      account: keyOf('account', account),
      address: keyOf('address', address),
    };
    let waitMs = 0;
    for (const door of Object.keys(DOORS) as DoorName[])
      waitMs = Math.max(waitMs, await this.countOne(keys[door], DOORS[door]));
    return { keys, waitMs };
  }

  /** One more, in one statement; then how many there are. */
  private async countOne(key: string, { tries, windowMs }: Door): Promise<number> {
    const now = new Date();
    await this.db.query(
      `INSERT INTO sign_in_tries (name, failures, window_ends) VALUES (:key, 1, :ends)
       ON DUPLICATE KEY UPDATE failures = IF(window_ends < :now, 1, failures + 1), window_ends = IF(window_ends < :now, :ends, window_ends)`,
      { replacements: { key, now, ends: new Date(now.getTime() + windowMs) } },
    );
    const [row] = await this.db.query<{ failures: number; ends: Date }>(
      'SELECT failures, window_ends AS ends FROM sign_in_tries WHERE name = ?',
      {
        replacements: [key],
        type: QueryTypes.SELECT,
      },
    );
    return row && row.failures > tries ? Math.max(1, row.ends.getTime() - now.getTime()) : 0;
  }

  /** The try was right: it counts nowhere, and the name from this address begins anew. */
  async right({ keys }: CountedTry): Promise<void> {
    await this.db.query('DELETE FROM sign_in_tries WHERE name = ?', { replacements: [keys.both] });
    await this.db.query('UPDATE sign_in_tries SET failures = GREATEST(failures - 1, 0) WHERE name IN (?)', {
      replacements: [[keys.account, keys.address]],
    });
  }

  /** Forgets what no longer counts. */
  async sweep(): Promise<void> {
    await this.db.query('DELETE FROM sign_in_tries WHERE window_ends < ?', { replacements: [new Date()] });
  }
}

const keyOf = (...parts: string[]) => createHash('sha256').update(parts.join('\0')).digest('hex');
