import { STRATEGIES, strategyOf } from '@radiant/core';
import { useSection } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';

/** How the depth is brought into the teeth. */
export function StrategyField() {
  const { data, set } = useSection('reduce');
  const mayWrite = useMayWrite('reduce');
  return (
    <fieldset className="mb-4" disabled={!mayWrite}>
      <legend className="sr-only">Strategy</legend>
      <div className="flex flex-wrap gap-1.5">
        {STRATEGIES.map((s) => (
          <button
            key={s.id}
            type="button"
            className="chip chip-flat"
            aria-pressed={data.from === s.id}
            onClick={() => set({ ...data, from: s.id })}
          >
            {s.name}
          </button>
        ))}
      </div>
      <p className="mt-1.5 text-note text-ink-2">{strategyOf(data.from).meaning}</p>
    </fieldset>
  );
}
