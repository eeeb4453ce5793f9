import { RULES } from '@radiant/core';
import { useSection } from '../../data/case-context.js';
import { usePracticeSettings } from '../../data/use-practice-settings.js';

/** Rules that do not speak: those of this case can be let speak again, those of the house are named. */
export function RulesOff({ mayWrite }: { mayWrite: boolean }) {
  const { data, set } = useSection('decide');
  const house = usePracticeSettings().shown?.rulesOff ?? [];
  const off = data.rulesOff ?? [];
  if (off.length + house.length === 0) return null;
  return (
    <>
      <h2 className="subtitle mt-5 mb-1">Rules switched off</h2>
      <ul className="text-note">
        {RULES.filter((r) => off.includes(r.id) || house.includes(r.id)).map((r) => (
          <li key={r.id} className="flex justify-between gap-2">
            {r.title}
            {house.includes(r.id) ? (
              <span className="text-ink-2">in the house</span>
            ) : (
              mayWrite && (
                <button
                  type="button"
                  className="how"
                  onClick={() => set({ ...data, rulesOff: off.filter((id) => id !== r.id) })}
                >
                  let it speak
                </button>
              )
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
