import type { DecideSection } from '@radiant/contract';
import type { Fdi } from '@radiant/core';

/** What was found at the chair that bears on the choice. */
export function Found({
  data,
  set,
  tooth,
  disabled,
  name,
}: {
  data: DecideSection;
  set: (next: DecideSection) => void;
  tooth: Fdi;
  disabled: boolean;
  name: string;
}) {
  const cameOff = data.cameOff ?? [];
  const wet = data.wet ?? [];
  return (
    <fieldset className="flex flex-col gap-1.5 text-note" disabled={disabled}>
      <legend className="mb-1">Found</legend>
      <label className="flex items-center justify-between gap-2">
        the field is kept dry
        <select
          aria-label="Kept dry"
          className="field h-8 w-40 px-2"
          value={data.dry === true ? 'yes' : data.dry === false ? 'no' : ''}
          onChange={(e) => set({ ...data, dry: e.target.value === '' ? null : e.target.value === 'yes' })}
        >
          <option value="">not tried yet</option>
          <option value="yes">can be</option>
          <option value="no">can’t be</option>
        </select>
      </label>
      {data.dry !== false && (
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="accent-plum"
            checked={wet.includes(tooth)}
            onChange={(e) => set({ ...data, wet: e.target.checked ? [...wet, tooth] : wet.filter((t) => t !== tooth) })}
          />
          but {name} can’t be
        </label>
      )}
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="accent-plum"
          checked={data.bleachLater ?? false}
          onChange={(e) => set({ ...data, bleachLater: e.target.checked })}
        />
        may bleach later
      </label>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="accent-plum"
          checked={cameOff.includes(tooth)}
          onChange={(e) =>
            set({ ...data, cameOff: e.target.checked ? [...cameOff, tooth] : cameOff.filter((t) => t !== tooth) })
          }
        />
        the splinted provisional of {name} came off
      </label>
    </fieldset>
  );
}
