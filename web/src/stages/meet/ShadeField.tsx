import { isMoment, type ToothShade } from '@radiant/contract';
import { useState } from 'react';

/** A moment as the clock on the wall shows it, for a field of date and time. */
const onTheWall = (iso: string): string => {
  const at = new Date(iso);
  return new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
};

const STATES = [
  [true, 'wet'],
  [false, 'dry'],
] as const;

/** The moment of a field of date and time, undefined while it is none that a case may speak of. */
const momentOf = (field: string): string | undefined => {
  const at = new Date(field);
  const iso = Number.isFinite(at.getTime()) ? at.toISOString() : '';
  return isMoment(iso) ? iso : undefined;
};

/** When it was taken; what is typed stays while it is not yet a moment. */
function Taken({ at, onChange }: { at: string; onChange: (at: string) => void }) {
  const [field, setField] = useState(onTheWall(at));
  return (
    <label className="mt-1.5 flex items-center justify-between gap-2 text-note text-ink-2">
      taken
      <input
        type="datetime-local"
        className="field w-auto"
        value={momentOf(field) ? onTheWall(at) : field}
        onChange={(e) => {
          setField(e.target.value);
          const told = momentOf(e.target.value);
          if (told) onChange(told);
        }}
      />
    </label>
  );
}

/** The shade of a tooth: its tab's name, whether the tooth was wet, when it was taken. */
export function ShadeField({
  shade,
  disabled,
  onChange,
}: {
  shade: ToothShade | undefined;
  disabled: boolean;
  onChange: (shade: ToothShade | undefined, typed: boolean) => void;
}) {
  return (
    <fieldset className="mt-3" disabled={disabled}>
      <legend className="mb-1 text-note">Shade</legend>
      <div className="flex items-center gap-1.5">
        <input
          className="field min-w-0 flex-1"
          aria-label="Shade, as the tab is named"
          placeholder="as the tab is named"
          maxLength={20}
          value={shade?.name ?? ''}
          onChange={(e) => {
            const name = e.target.value;
            onChange(name ? { ...shade, name, at: shade?.at ?? new Date().toISOString() } : undefined, true);
          }}
        />
        {STATES.map(([wet, word]) => (
          <button
            key={word}
            type="button"
            className="chip chip-flat"
            aria-pressed={shade?.wet === wet}
            disabled={!shade}
            onClick={() => shade && onChange({ ...shade, wet }, false)}
          >
            {word}
          </button>
        ))}
      </div>
      {shade && <Taken at={shade.at} onChange={(at) => onChange({ ...shade, at }, true)} />}
      {shade?.wet === false && (
        <p role="status" className="mt-1.5 text-note text-ink-2">
          A dry tooth looks lighter: take it again wet, before anything isolates it.
        </p>
      )}
    </fieldset>
  );
}
