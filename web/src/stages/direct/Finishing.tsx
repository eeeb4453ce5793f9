import { FINISHING_STEPS } from '@radiant/core';

/** From the last cure to the shine, in the order in which it is done. */
export function Finishing() {
  return (
    <ol className="max-w-4xl px-6 pt-4 pb-6" aria-label="Finishing">
      {FINISHING_STEPS.map((s, i) => (
        <li key={s.id} className="grid grid-cols-[2rem_1fr_15rem] gap-x-4 border-b border-hair py-3 last:border-0">
          <span className="text-head font-semibold text-plum tabular-nums">{i + 1}</span>
          <span>
            {s.does}
            <span className="block text-note text-ink-2">{s.why}</span>
          </span>
          <span className="text-note">
            {s.with}
            <span className="block text-ink-2">{s.speed}</span>
          </span>
        </li>
      ))}
    </ol>
  );
}
