import { Injectable, Logger, type OnApplicationBootstrap, type OnModuleDestroy } from '@nestjs/common';
import { KEPT_DAYS } from '@radiant/contract';
import { Op } from 'sequelize';
import { CaseRow, FileRow } from '../database/database.js';
import { FilesService } from '../files/files.service.js';
import { CasesService, heldOf } from './cases.service.js';

const HOUR_MS = 3600 * 1000;
const DAY_MS = 24 * HOUR_MS;

/**
 * Forgets cases that were put away longer ago than KEPT_DAYS, with all that they hold. One with a contour that the patient
 * approved stays: how long a record of treatment is kept, local rules say and not the program.
 */
@Injectable()
export class BinService implements OnApplicationBootstrap, OnModuleDestroy {
  private readonly log = new Logger('bin');
  private hourly: NodeJS.Timeout | undefined;

  constructor(
    private readonly cases: CasesService,
    private readonly files: FilesService,
  ) {}

  onApplicationBootstrap(): void {
    const clear = () =>
      void this.forgetOld().catch((error: Error) => this.log.warn(`old cases were not cleared: ${error.message}`));
    clear();
    this.hourly = setInterval(clear, HOUR_MS);
    this.hourly.unref();
  }

  onModuleDestroy(): void {
    clearInterval(this.hourly);
  }

  /** @returns how many were forgotten */
  async forgetOld(now = Date.now()): Promise<number> {
    const due = await CaseRow.findAll({ where: { removedAt: { [Op.lte]: new Date(now - KEPT_DAYS * DAY_MS) } } });
    const held = await heldOf(due.map((c) => c.id));
    const old = due.filter((c) => !held.has(c.id));
    for (const row of old) {
      const files = await FileRow.findAll({ where: { caseId: row.id }, attributes: ['sha256'], raw: true });
      // Sections, history, files, comments and contours go with their case.
      await row.destroy();
      for (const sha256 of new Set(files.map((f) => f.sha256))) await this.files.release(sha256);
    }
    if (old.length > 0) this.cases.counted();
    return old.length;
  }
}
