import { statfs } from 'node:fs/promises';
import { Controller, Get, Inject, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { createConnection } from 'mariadb';
import { CONFIG, type Config } from '../common/config.js';
import { Public } from '../people/session.js';

export interface Health {
  readonly server: 'up';
  readonly database: 'up' | 'away';
  /** `full`: there is hardly room left for files and for the database. */
  readonly disk: 'room' | 'full';
}

/** A database that is silent for so long is away, ms. */
const SILENT_MS = 1500;
/** Everybody who asks within this time gets one answer, ms. */
const SAME_MS = 300;
/** Less than this is a full disk, bytes: the database needs some of it to go on at all. */
const LEAST_ROOM = 200 * 1024 * 1024;

@ApiTags('health')
@Controller('health')
export class HealthController {
  private last: { at: number; health: Promise<Health> } | undefined;

  constructor(@Inject(CONFIG) private readonly config: Config) {}

  /** Whether the server runs, the database answers (503 when it does not), and the disk has room. */
  @Public()
  @Get()
  async health(@Res({ passthrough: true }) response: Response): Promise<Health> {
    if (!this.last || Date.now() - this.last.at > SAME_MS) this.last = { at: Date.now(), health: this.look() };
    const health = await this.last.health;
    if (health.database === 'away') response.status(503);
    return health;
  }

  /** The server's clock, ms since 1970: by it the clocks of all devices at a chair agree. */
  @Public()
  @Get('clock')
  clock(): { readonly now: number } {
    return { now: Date.now() };
  }

  private async look(): Promise<Health> {
    const [database, disk] = await Promise.all([this.database(), this.disk()]);
    return { server: 'up', database, disk };
  }

  /** Asked by a connection of its own: a pool that is busy says nothing of the database. */
  private async database(): Promise<Health['database']> {
    const { port, user, password, name } = this.config.database;
    const asked = createConnection({
      host: '127.0.0.1',
      port,
      user,
      password,
      database: name,
      connectTimeout: SILENT_MS,
      socketTimeout: SILENT_MS,
    }).then(async (c) => {
      await c.ping();
      void c.end().catch(() => undefined);
      return 'up' as const;
    });
    const silent = new Promise<'away'>((done) => setTimeout(() => done('away'), SILENT_MS).unref());
    return Promise.race([asked.catch(() => 'away' as const), silent]);
  }

  private async disk(): Promise<Health['disk']> {
    const { bavail, bsize } = await statfs(this.config.dataDir);
    return bavail * bsize < LEAST_ROOM ? 'full' : 'room';
  }
}
