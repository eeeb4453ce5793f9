import { CONTACT_LIMITS, DRAFT_KEEPING, type DraftKeeping } from '@radiant/contract';
import {
  CHOSEN_DESIGNS,
  CUT_WAYS,
  type DesignId,
  designOf,
  FLOSS_MM,
  NOTATION_NAMES,
  type Notation,
  SCHOOLS,
  type SchoolId,
} from '@radiant/core';
import { useId } from 'react';
import { Link } from 'react-router';
import { usePracticeSettings } from '../data/use-practice-settings.js';
import { moment } from '../ui/format.js';
import { NumberOnceDone } from '../ui/NumberOnceDone.js';
import { Trouble, Waiting } from '../ui/Waiting.js';
import { useHere } from './Gate.js';

const KEEPING: Readonly<Record<DraftKeeping, string>> = {
  sealed: 'stay in the browser, sealed: only the same person can open and send them after signing in again',
  removed: 'are removed from the browser: nothing stays on a shared computer, and what was not sent is lost',
};

/** What the practice has set for itself. What is pressed stands at once, and goes back when it is refused. */
export function PracticeSettingsForm() {
  const { refresh } = useHere();
  const { state: data, shown, trouble, retry, refusal, set } = usePracticeSettings(refresh);
  const daysId = useId();
  if (!data || !shown)
    return trouble ? <Trouble sentence={trouble} retry={retry} /> : <Waiting what="the practice’s settings" />;
  return (
    <section aria-label="What the practice has set">
      <h2 className="title mb-3">What holds for the practice</h2>
      <label className="mb-5 block">
        <span className="mb-1 block">A case is proposed by, until another school is chosen in it</span>
        <select
          className="field max-w-[280px]"
          value={shown.school}
          onChange={(e) => set({ school: e.target.value as SchoolId })}
        >
          {SCHOOLS.map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
        </select>
        <span className="mt-1 block text-note text-ink-2">{SCHOOLS.find((s) => s.id === shown.school)?.reason}</span>
      </label>
      <label className="mb-5 block">
        <span className="mb-1 block">Teeth are restored with, until another design is chosen in the case</span>
        <select
          className="field max-w-[280px]"
          value={shown.design}
          onChange={(e) => set({ design: e.target.value as DesignId })}
        >
          {CHOSEN_DESIGNS.map((d) => (
            <option key={d.id} value={d.id}>
              {d.name}
            </option>
          ))}
        </select>
        <span className="mt-1 block text-note text-ink-2">{designOf(shown.design).reason}</span>
      </label>
      <fieldset className="mb-5">
        <legend className="mb-1.5">Teeth are prepared, until another way is chosen in the case</legend>
        <span className="flex flex-wrap gap-x-5 gap-y-1">
          {CUT_WAYS.map((s) => (
            <label key={s.id} className="flex items-center gap-2">
              <input
                type="radio"
                className="accent-plum"
                name="cut-from"
                checked={shown.cutFrom === s.id}
                onChange={() => set({ cutFrom: s.id })}
              />
              {s.name}
            </label>
          ))}
        </span>
      </fieldset>
      <p className="mb-5">
        Burs and thicknesses of the house:{' '}
        <Link className="how" to="/trays">
          trays and thicknesses
        </Link>
      </p>
      <div className="mb-5">
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="accent-plum"
            checked={shown.contactsMm !== null}
            onChange={(e) => set({ contactsMm: e.target.checked ? FLOSS_MM : null })}
          />
          Contacts of a new contour are kept when a width changes, at
        </label>
        <span className="mt-1 block pl-6">
          <NumberOnceDone
            label="Tightness of contacts, mm"
            className="field w-[76px] text-right disabled:opacity-50"
            value={shown.contactsMm ?? FLOSS_MM}
            min={CONTACT_LIMITS.min}
            max={CONTACT_LIMITS.max}
            step={0.01}
            digits={2}
            unit="mm"
            disabled={shown.contactsMm === null}
            onTaken={(mm) => set({ contactsMm: mm })}
          />{' '}
          mm tight
        </span>
      </div>
      <fieldset className="mb-5">
        <legend className="mb-1.5">Teeth are numbered, until somebody chooses otherwise in their browser, by</legend>
        <span className="flex gap-5">
          {(Object.keys(NOTATION_NAMES) as Notation[]).map((n) => (
            <label key={n} className="flex items-center gap-2">
              <input
                type="radio"
                className="accent-plum"
                name="notation"
                checked={shown.notation === n}
                onChange={() => set({ notation: n })}
              />
              {NOTATION_NAMES[n].long}
            </label>
          ))}
        </span>
      </fieldset>
      <div className="mb-5">
        <label htmlFor={daysId} className="mb-1 block">
          A mock-up is worn, before a contour is approved, for at least
        </label>
        <NumberOnceDone
          id={daysId}
          className="field w-[76px] text-right"
          value={shown.wearDays}
          min={0}
          max={60}
          step={1}
          digits={0}
          whole
          unit="days"
          onTaken={(days) => set({ wearDays: days })}
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
              checked={shown.drafts === k}
              onChange={() => set({ drafts: k })}
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
