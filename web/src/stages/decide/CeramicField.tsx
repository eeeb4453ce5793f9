import { ceramicOf, type Ranked } from '@radiant/core';
import { number } from '../../ui/format.js';

/** In which of its ceramics an option is made; match and the laboratory's sheet go on with it. */
export function CeramicField({
  ranked: { option, figures },
  ceramic,
  choose,
}: {
  ranked: Ranked;
  /** As match has it for this tooth. */
  ceramic: string;
  choose: ((ceramic: string) => void) | undefined;
}) {
  const all = option.ceramics ?? [];
  if (all.length === 0) return null;
  const known = all.some((c) => c === ceramic);
  return (
    <label className="mb-3 flex items-center gap-2 text-note">
      in
      <select
        aria-label="Ceramic of this tooth"
        className="field h-8 min-w-0 flex-1 px-2"
        value={ceramic}
        disabled={!choose}
        onChange={(e) => choose?.(e.target.value)}
      >
        {!known && <option value={ceramic}>another: {ceramic.replace(/^plate:/, '')}</option>}
        {all.map((c) => {
          const told = figures.ceramics?.find((x) => x.ceramic === c);
          return (
            <option key={c} value={c}>
              {ceramicOf(c).name}
              {told ? `: ΔE00 ${number(told.dE, 1)}` : ''}
            </option>
          );
        })}
      </select>
    </label>
  );
}
