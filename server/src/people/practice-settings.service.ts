import { Injectable } from '@nestjs/common';
import {
  completedSettings,
  type PracticeSettings,
  type PracticeSettingsChange,
  type PracticeSettingsState,
} from '@radiant/contract';
import { plateFault } from '@radiant/core';
import { UniqueConstraintError } from 'sequelize';
import { invalid, ProblemException } from '../common/problem.filter.js';
import { PracticeSettingsRow } from '../database/database.js';
import type { SignedIn } from './session.js';

/** What a practice has set for itself. Every version that was ever set is kept. */
@Injectable()
export class PracticeSettingsService {
  async of(practiceId: string): Promise<PracticeSettings> {
    return (await this.state(practiceId)).data;
  }

  async state(practiceId: string): Promise<PracticeSettingsState> {
    const row = await PracticeSettingsRow.findOne({ where: { practiceId }, order: [['version', 'DESC']] });
    return {
      version: row?.version ?? 0,
      data: completedSettings(row?.data ?? {}),
      by: row?.byName ?? null,
      at: row?.at.toISOString() ?? null,
    };
  }

  /**
   * Sets them anew, if they still have the version that the change was made on.
   * @throws ProblemException 409 when somebody else was first; 422 for a plate whose readings do not go together
   */
  async set({ version, data }: PracticeSettingsChange, me: SignedIn): Promise<PracticeSettingsState> {
    const { practiceId } = me;
    for (const [i, plate] of data.plates.entries()) {
      const fault = plateFault(plate);
      if (fault) throw invalid([{ field: `data.plates.${i}`, message: `${plate.name}: ${fault}` }]);
    }
    const before = await this.state(practiceId);
    if (before.version !== version) throw late(before);
    try {
      await PracticeSettingsRow.create({ practiceId, version: version + 1, data, byName: me.name, at: new Date() });
    } catch (error) {
      if (error instanceof UniqueConstraintError) throw late(await this.state(practiceId));
      throw error;
    }
    return this.state(practiceId);
  }
}

const late = (current: PracticeSettingsState) =>
  new ProblemException(
    409,
    'Changed meanwhile',
    `${current.by ?? 'Somebody'} changed the practice’s settings meanwhile; nothing was overwritten.`,
  );
