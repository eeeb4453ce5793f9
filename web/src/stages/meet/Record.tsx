import { CAUTIONS, type MeetSection, WISH_TAGS } from '@radiant/contract';
import { useId } from 'react';
import { useSection } from '../../data/case-context.js';
import { ReadOnlyNote, Refused, useMayWrite } from '../../shell/ReadOnlyNote.js';
import { NumberInput } from '../../ui/NumberInput.js';
import { Toggles } from './Toggles.js';

const SEXES = { female: 'female', male: 'male' } as const;

/** A case that takes longer is rare; the year is asked about. House value. */
const LONG_YEARS = 3;

/** What is asked of a day that can hardly be meant. */
function DayAsked({ day }: { day: string }) {
  const now = new Date();
  const today = `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}`;
  const ahead = Number(day.slice(0, 4)) - now.getFullYear();
  const asked =
    day < today
      ? 'This day has passed. Is the year right?'
      : ahead > LONG_YEARS
        ? `That is ${ahead} years from now. Is the year right?`
        : undefined;
  return (
    asked && (
      <p role="alert" className="mt-1 text-note text-removed-ink">
        {asked}
      </p>
    )
  );
}

/** The record: age, sex where a norm needs it, what the patient wants, by when, what to beware of. */
export function Record() {
  const meet = useSection('meet');
  const mayWrite = useMayWrite('meet');
  const { data } = meet;
  const ids = { age: useId(), by: useId(), wish: useId(), note: useId() };
  const change = (part: Partial<MeetSection>, group?: string) => meet.set({ ...data, ...part }, group);
  return (
    <>
      <ReadOnlyNote section="meet" />
      <Refused sentence={meet.refusal?.detail} />
      <h2 className="title mb-3">Record</h2>
      <div className="mb-3 grid grid-cols-[84px_1fr] gap-3">
        <div>
          <label htmlFor={ids.age} className="mb-1 block text-note">
            Age, years
          </label>
          <NumberInput
            id={ids.age}
            className="field"
            value={data.ageYears ?? null}
            min={0}
            max={120}
            step={1}
            digits={0}
            unit="years"
            whole
            empty
            disabled={!mayWrite}
            onChange={(ageYears) => change({ ageYears }, 'age')}
            onDone={() => meet.store.endGroup()}
          />
        </div>
        <div>
          <label htmlFor={ids.by} className="mb-1 block text-note">
            Finish by
          </label>
          <input
            id={ids.by}
            type="date"
            className="field"
            value={data.finishBy ?? ''}
            disabled={!mayWrite}
            onChange={(e) => change({ finishBy: e.target.value || null }, 'by')}
          />
          {data.finishBy && <DayAsked day={data.finishBy} />}
        </div>
      </div>
      <Toggles
        legend="Sex at birth, for norms that need it"
        words={SEXES}
        chosen={data.sexAtBirth ? [data.sexAtBirth] : []}
        disabled={!mayWrite}
        onChange={(all) => change({ sexAtBirth: all.at(-1) ?? null })}
      />
      <label htmlFor={ids.wish} className="subtitle mb-1.5 mt-5 block">
        What the patient wants
      </label>
      <textarea
        id={ids.wish}
        className="field mb-2 h-[64px] py-1.5"
        maxLength={500}
        value={data.wish}
        disabled={!mayWrite}
        onChange={(e) => change({ wish: e.target.value }, 'wish')}
        onBlur={() => meet.store.endGroup()}
      />
      <Toggles
        legend="Wishes in tags"
        quiet
        words={WISH_TAGS}
        chosen={data.wishTags}
        disabled={!mayWrite}
        onChange={(wishTags) => change({ wishTags })}
      />
      <h3 className="subtitle mb-1.5 mt-5">What to beware of</h3>
      <Toggles
        legend="Cautions"
        quiet
        words={CAUTIONS}
        chosen={data.cautions}
        disabled={!mayWrite}
        onChange={(cautions) => change({ cautions })}
      />
      <label htmlFor={ids.note} className="mb-1 mt-2 block text-note">
        Which, and what follows
      </label>
      <textarea
        id={ids.note}
        className="field h-[56px] py-1.5"
        maxLength={500}
        value={data.cautionNote}
        disabled={!mayWrite}
        onChange={(e) => change({ cautionNote: e.target.value }, 'note')}
        onBlur={() => meet.store.endGroup()}
      />
    </>
  );
}
