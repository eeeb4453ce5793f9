import { BOOK_LIMITS, type BookSection } from '@radiant/contract';
import { type Course, IMPRESSIONS, MAKERS, TISSUE_WORK } from '@radiant/core';
import { useId } from 'react';
import { useSection } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { NumberInput } from '../../ui/NumberInput.js';

/** From what the visits follow, as far as it is not decided elsewhere. */
export function CourseFields({ course }: { course: Course }) {
  const { data, set, store } = useSection('book');
  const mayWrite = useMayWrite('book');
  const change = (next: Partial<BookSection>, group?: string) => set({ ...data, ...next }, group);
  return (
    <details className="mt-3 border-t border-hair pt-3" open>
      <summary className="subtitle mb-2 cursor-pointer">From what the visits follow</summary>
      <fieldset disabled={!mayWrite} className="grid grid-cols-2 gap-2 text-note">
        <Choice label="Gum" words={TISSUE_WORK} value={course.tissue} onChange={(tissue) => change({ tissue })} />
        <Choice
          label="Impression or scan"
          words={IMPRESSIONS}
          value={course.impression}
          onChange={(impression) => change({ impression })}
        />
        <Choice label="Made by" words={MAKERS} value={course.maker} onChange={(maker) => change({ maker })} />
        <div className="text-tiny text-ink-2">
          Laboratory, working days
          <NumberInput
            label="Laboratory, working days"
            className="field mt-0.5 w-full px-2 py-1 text-note"
            value={course.laboratoryDays}
            {...BOOK_LIMITS.laboratoryDays}
            step={1}
            digits={0}
            disabled={!mayWrite || course.maker === 'mill'}
            onChange={(laboratoryDays) => change({ laboratoryDays }, 'laboratory')}
            onDone={() => store.endGroup()}
          />
        </div>
        {course.mockUpDays !== undefined && (
          <div className="text-tiny text-ink-2">
            Mock-up worn, days
            <NumberInput
              label="Mock-up worn, days"
              className="field mt-0.5 w-full px-2 py-1 text-note"
              value={course.mockUpDays}
              {...BOOK_LIMITS.mockUpDays}
              step={1}
              digits={0}
              disabled={!mayWrite}
              onChange={(mockUpDays) => change({ mockUpDays }, 'worn')}
              onDone={() => store.endGroup()}
            />
          </div>
        )}
        <div className="col-span-2 flex gap-1.5">
          <button
            type="button"
            className="chip chip-flat"
            aria-pressed={course.tryIn}
            onClick={() => change({ tryIn: !course.tryIn })}
          >
            a try-in of its own
          </button>
          <button
            type="button"
            className="chip chip-flat"
            aria-pressed={course.guard}
            onClick={() => change({ guard: !course.guard })}
          >
            night guard
          </button>
        </div>
      </fieldset>
      {course.impression === 'same' && (course.tissue !== 'none' || course.inflamed) && (
        <p className="finding mt-2 text-note" data-weight="stop">
          Gum that was worked on, or that bleeds, moves for about two weeks: a margin taken the same day may show. The
          treating clinician decides.
        </p>
      )}
      <DateFields />
      <AwayFields />
    </details>
  );
}

function Choice<K extends string>({
  label,
  words,
  value,
  onChange,
}: {
  label: string;
  words: Readonly<Record<K, string>>;
  value: K;
  onChange: (next: K) => void;
}) {
  const id = useId();
  return (
    <div className="text-tiny text-ink-2">
      <label htmlFor={id}>{label}</label>
      <select
        id={id}
        className="field mt-0.5 w-full px-2 py-1 text-note"
        value={value}
        onChange={(e) => onChange(e.target.value as K)}
      >
        {(Object.keys(words) as K[]).map((k) => (
          <option key={k} value={k}>
            {words[k]}
          </option>
        ))}
      </select>
    </div>
  );
}

/** Days on which the patient is away. */
function AwayFields() {
  const { data, set } = useSection('book');
  const mayWrite = useMayWrite('book');
  return (
    <form
      className="mt-3 text-note"
      aria-label="Patient away"
      onSubmit={(e) => {
        e.preventDefault();
        const f = new FormData(e.currentTarget);
        const [from, to, why] = ['from', 'to', 'why'].map((k) => String(f.get(k) ?? '')) as [string, string, string];
        if (!from) return;
        set({ ...data, away: [...data.away, { from, to: to || from, why: why.trim() }] });
        e.currentTarget.reset();
      }}
    >
      <h3 className="subtitle mb-1">The patient is away</h3>
      <ul className="mb-1.5">
        {data.away.map((a, i) => (
          <li key={`${a.from} ${a.to} ${a.why}`}>
            {a.from === a.to ? a.from : `${a.from} to ${a.to}`}
            {a.why ? `, ${a.why}` : ''}{' '}
            {mayWrite && (
              <button
                type="button"
                className="how"
                onClick={() => set({ ...data, away: data.away.filter((_, k) => k !== i) })}
              >
                no longer
              </button>
            )}
          </li>
        ))}
      </ul>
      <fieldset disabled={!mayWrite} className="grid grid-cols-2 gap-1.5">
        <input type="date" name="from" aria-label="Away from" className="field px-2 py-1 text-note" />
        <input type="date" name="to" aria-label="Away to" className="field px-2 py-1 text-note" />
        <input
          name="why"
          aria-label="Why away"
          placeholder="why"
          maxLength={80}
          className="field px-2 py-1 text-note"
        />
        <button type="submit" className="btn btn-ghost">
          Add
        </button>
      </fieldset>
    </form>
  );
}

/** What is known of the date beside the day that was promised. */
function DateFields() {
  const { data, set, store } = useSection('book');
  const mayWrite = useMayWrite('book');
  return (
    <fieldset disabled={!mayWrite} className="mt-3 grid grid-cols-2 gap-2">
      <label className="text-tiny text-ink-2">
        The patient would be happy by
        <input
          type="date"
          className="field mt-0.5 w-full px-2 py-1 text-note"
          value={data.happyBy ?? ''}
          onChange={(e) => set({ ...data, happyBy: e.target.value || null }, 'happy')}
          onBlur={() => store.endGroup()}
        />
      </label>
      <label className="text-tiny text-ink-2">
        Why the date matters
        <input
          className="field mt-0.5 w-full px-2 py-1 text-note"
          maxLength={200}
          value={data.why ?? ''}
          placeholder="a wedding, leaving for studies"
          onChange={(e) => set({ ...data, why: e.target.value }, 'why')}
          onBlur={() => store.endGroup()}
        />
      </label>
    </fieldset>
  );
}
