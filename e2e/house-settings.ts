import type { PracticeSettings, PracticeSettingsState } from '@radiant/contract';
import { signedIn } from '../server/test/house.js';

/** What the house has set, as the server holds it; changed by a test and put back after it. */
export interface HouseSettings {
  readonly now: () => Promise<PracticeSettingsState>;
  /** Waits until the server holds it. */
  readonly until: (what: (s: PracticeSettings) => boolean) => Promise<void>;
  readonly putBack: () => Promise<void>;
}

export async function houseSettings(): Promise<HouseSettings> {
  const dentist = await signedIn('dentist');
  const now = async () => (await dentist.get<PracticeSettingsState>('/practice/settings')).body;
  const first = await now();
  return {
    now,
    until: async (what) => {
      for (let n = 0; n < 100; n++) {
        if (what((await now()).data)) return;
        await new Promise((r) => setTimeout(r, 100));
      }
      throw new Error(`The server never had it: ${JSON.stringify((await now()).data).slice(0, 400)}`);
    },
    putBack: async () => {
      await dentist.call('PUT', '/practice/settings', { version: (await now()).version, data: first.data });
    },
  };
}
