import { Injectable } from '@nestjs/common';
import { DRAFT_KEEPING, type DraftKeeping, type HouseSettings } from '@radiant/contract';
import { SettingRow } from '../database/database.js';

const DRAFTS = (practiceId: string) => `drafts ${practiceId.slice(0, 32)}`;

/** What a practice has set for its house. */
@Injectable()
export class HouseService {
  async of(practiceId: string): Promise<HouseSettings> {
    const row = await SettingRow.findByPk(DRAFTS(practiceId));
    const drafts = DRAFT_KEEPING.find((k) => k === row?.value) ?? ('sealed' satisfies DraftKeeping);
    return { drafts };
  }

  async set(practiceId: string, { drafts }: HouseSettings): Promise<HouseSettings> {
    await SettingRow.upsert({ name: DRAFTS(practiceId), value: drafts });
    return { drafts };
  }
}
