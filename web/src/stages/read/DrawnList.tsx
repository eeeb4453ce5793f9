import type { useBenchReading } from '../../data/bench-reading.js';
import { useSection } from '../../data/case-context.js';
import { drawnOf } from '../../data/reading.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { AskedValue } from '../../ui/How.js';

/** The lengths and angles that were drawn on a view: their names, values and errors. */
export function DrawnList({ reading }: { reading: ReturnType<typeof useBenchReading> }) {
  const { store } = useSection('read');
  const mayWrite = useMayWrite('read');
  const drawn = drawnOf(reading.drawn, reading.scale);
  if (drawn.length === 0) return null;
  return (
    <section aria-label="Drawn measures" className="mt-6">
      <h2 className="subtitle mb-1">Drawn</h2>
      <ul>
        {drawn.map(({ measure: m, figure }) => (
          <li key={m.id} className="flex items-center gap-2 border-t border-hair py-1">
            <input
              className="field h-7 min-w-0 flex-1"
              aria-label="Name of the measure"
              defaultValue={m.name}
              key={m.name}
              maxLength={60}
              disabled={!mayWrite}
              onBlur={(e) => {
                const name = e.target.value.trim();
                if (name && name !== m.name)
                  reading.change({ drawn: reading.drawn.map((q) => (q.id === m.id ? { ...q, name } : q)) });
                else e.target.value = m.name;
                store.endGroup();
              }}
            />
            <span className="shrink-0">
              <AskedValue figure={figure} what={m.name} digits={1} suffix={figure ? ` ${figure.unit}` : ''} />
            </span>
            {mayWrite && (
              <button
                type="button"
                className="how shrink-0 text-note"
                onClick={() => reading.change({ drawn: reading.drawn.filter((q) => q.id !== m.id) })}
              >
                take away<span className="sr-only"> {m.name}</span>
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
