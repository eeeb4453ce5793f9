import { Controller, Get, Inject, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import type { Sequelize } from 'sequelize';
import { DATABASE } from '../database/database.module.js';
import { Public } from '../people/session.js';

@ApiTags('health')
@Controller('health')
export class HealthController {
  constructor(@Inject(DATABASE) private readonly db: Sequelize) {}

  /** Whether the server runs and the database answers; 503 when it does not. */
  @Public()
  @Get()
  async health(@Res({ passthrough: true }) response: Response): Promise<{ server: 'up'; database: 'up' | 'away' }> {
    const database = await this.db.authenticate().then(
      () => 'up' as const,
      () => 'away' as const,
    );
    if (database === 'away') response.status(503);
    return { server: 'up', database };
  }
}
