import type { PracticeSettings, PracticeSettingsChange, PracticeSettingsState } from '@radiant/contract';
import { useRef, useState } from 'react';
import useSWR from 'swr';
import { api, sentenceOf } from './api.js';

const PATH = '/practice/settings';

/** What the practice has set, as it is shown and as it is changed. */
export interface PracticeSettingsHere {
  /** As the server has it; nothing until it came. */
  readonly state: PracticeSettingsState | undefined;
  /** What is shown: with what was pressed and is on its way. */
  readonly shown: PracticeSettings | undefined;
  /** Why it could not be read. */
  readonly trouble: string | undefined;
  readonly retry: () => void;
  /** Why a change was refused; what was pressed is taken back then. */
  readonly refusal: string | undefined;
  readonly set: (change: Partial<PracticeSettings>) => void;
}

/** @param then what else is to be read anew once a change stands */
export function usePracticeSettings(then: () => Promise<unknown> = async () => undefined): PracticeSettingsHere {
  const { data, error, mutate } = useSWR(PATH, (path: string) => api.get<PracticeSettingsState>(path));
  const [refusal, setRefusal] = useState<string>();
  /** What was pressed and is on its way. */
  const [wished, setWished] = useState<Partial<PracticeSettings>>({});
  const before = useRef(Promise.resolve<PracticeSettingsState | undefined>(undefined));
  // One after the other: what is pressed while another is on its way is a change of what that one made.
  const set = (change: Partial<PracticeSettings>) => {
    if (!data) return;
    setRefusal(undefined);
    setWished((w) => ({ ...w, ...change }));
    const mine = before.current.then(async (last) => {
      const base = last && last.version >= data.version ? last : data;
      const next: PracticeSettingsChange = { version: base.version, data: { ...base.data, ...change } };
      try {
        const now = await mutate(api.put<PracticeSettingsState>(PATH, next), { revalidate: false });
        await then();
        return now;
      } catch (e) {
        setRefusal(sentenceOf(e));
        return mutate();
      } finally {
        if (before.current === mine) setWished({});
      }
    });
    before.current = mine;
  };
  return {
    state: data,
    shown: data && { ...data.data, ...wished },
    trouble: error && !data ? sentenceOf(error) : undefined,
    retry: () => void mutate(),
    refusal,
    set,
  };
}
