import {
  DRAFT_KEEPING,
  type DraftKeeping,
  type PracticeSettings,
  type PracticeSettingsChange,
  type PracticeSettingsState,
} from '@radiant/contract';
import { SCHOOLS, type SchoolId } from '@radiant/core';
import { useId, useState } from 'react';
import useSWR from 'swr';
import { api, sentenceOf } from '../data/api.js';
import { moment } from '../ui/format.js';
import { NumberInput } from '../ui/NumberInput.js';
import { Trouble, Waiting } from '../ui/Waiting.js';
import { useHere } from './Gate.js';

const PATH = '/practice/settings';
const KEEPING: Readonly<Record<DraftKeeping, string>> = {
  sealed: 'stay in the browser, sealed: only the same person can open and send them after signing in again',
  removed: 'are removed from the browser: nothing stays on a shared computer, and what was not sent is lost',
};

/** What the practice has set for itself. What is pressed stands at once, and goes back when it is refused. */
export function PracticeSettingsForm() {
  const { refresh } = useHere();
  const { data, error, mutate } = useSWR(PATH, (path: string) => api.get<PracticeSettingsState>(path));
  const [refusal, setRefusal] = useState<string>();
  const daysId = useId();
  if (!data)
    return error ? (
      <Trouble sentence={sentenceOf(error)} retry={() => void mutate()} />
    ) : (
      <Waiting what="the practice’s settings" />
    );
  const set = async (change: Partial<PracticeSettings>) => {
    setRefusal(undefined);
    const next: PracticeSettingsChange = { version: data.version, data: { ...data.data, ...change } };
    try {
      await mutate(api.put<PracticeSettingsState>(PATH, next), {
        optimisticData: { ...data, data: next.data },
        revalidate: false,
      });
      await refresh();
    } catch (e) {
      setRefusal(sentenceOf(e));
      await mutate();
    }
  };
  return (
    <section aria-label="What the practice has set">
      <h2 className="title mb-3">What holds for the practice</h2>
      <label className="mb-5 block">
        <span className="mb-1 block">A case is proposed by, until another school is chosen in it</span>
        <select
          className="field max-w-[280px]"
          value={data.data.school}
          onChange={(e) => void set({ school: e.target.value as SchoolId })}
        >
          {SCHOOLS.map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
        </select>
        <span className="mt-1 block text-note text-ink-2">
          {SCHOOLS.find((s) => s.id === data.data.school)?.reason}
        </span>
      </label>
      <div className="mb-5">
        <label htmlFor={daysId} className="mb-1 block">
          A mock-up is worn, before a contour is approved, for at least
        </label>
        <NumberInput
          id={daysId}
          className="field w-[76px] text-right"
          value={data.data.wearDays}
          min={0}
          max={60}
          step={1}
          digits={0}
          unit="days"
          onChange={(days) => days !== null && void set({ wearDays: days })}
        />{' '}
        days
        <span className="mt-1 block text-note text-ink-2">
          Fewer are told where the approval is recorded; they do not forbid it.
        </span>
      </div>
      <fieldset>
        <legend className="mb-1.5">When somebody signs out, edits that have not reached the server …</legend>
        {DRAFT_KEEPING.map((k) => (
          <label key={k} className="mb-1.5 flex items-start gap-2">
            <input
              type="radio"
              className="mt-1 accent-plum"
              name="drafts"
              checked={data.data.drafts === k}
              onChange={() => void set({ drafts: k })}
            />
            {KEEPING[k]}
          </label>
        ))}
      </fieldset>
      {data.by && data.at && (
        <p className="mt-2 text-note text-ink-2">
          set by {data.by}, {moment(data.at)}
        </p>
      )}
      {refusal && (
        <p role="alert" className="mt-2 text-stop">
          {refusal}
        </p>
      )}
    </section>
  );
}
