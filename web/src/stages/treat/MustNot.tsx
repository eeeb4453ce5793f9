import { type MustNot as Barred, inRow } from '@radiant/core';
import { useToothLabel } from '../../data/case-context.js';

/** Combinations that must not be: why, and what would do instead. Alike for several teeth, they are told once. */
export function MustNot({ all }: { all: readonly Barred[] }) {
  const name = useToothLabel();
  const by = new Map<string, Barred[]>();
  for (const m of all) by.set(`${m.why} ${m.instead}`, [...(by.get(`${m.why} ${m.instead}`) ?? []), m]);
  if (by.size === 0) return null;
  return (
    <ul className="my-3 space-y-2 first:mt-0" aria-label="What must not be">
      {[...by.values()].map((own) => (
        <li key={own[0]?.why} className="finding" data-weight="stop" role="alert">
          <b>
            {inRow(own.map((m) => m.tooth))
              .map(name)
              .join(', ')}
            :
          </b>{' '}
          {own[0]?.why} Instead: {own[0]?.instead}.{' '}
          <span className="text-tiny text-ink-2">The treating clinician decides.</span>
        </li>
      ))}
    </ul>
  );
}
