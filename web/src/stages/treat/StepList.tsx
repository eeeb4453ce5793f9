import { Check, Minus } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { useSentence } from '../../data/case-context.js';
import { spanWords } from './Timers.js';
import type { Chair } from './use-chair.js';

/** All steps of the visit under their headings: what is done, what comes. */
export function StepList({ chair }: { chair: Chair }) {
  const sentence = useSentence();
  const { steps } = chair.protocol;
  const now = useRef<HTMLLIElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: it follows the step that is done now
  useEffect(() => {
    now.current?.scrollIntoView({ block: 'nearest' });
  }, [chair.current]);
  return (
    <ol className="text-note" aria-label="Steps of the visit">
      {steps.map((s, i) => {
        const done = chair.done.get(s.id);
        const here = chair.held && i === chair.current;
        return (
          <li key={s.id} ref={here ? now : undefined}>
            {steps[i - 1]?.phase !== s.phase && (
              <p className="mt-3 mb-1 text-tiny font-semibold text-ink-2">{sentence(s.phase)}</p>
            )}
            <p
              className={`flex gap-2 rounded px-1.5 py-0.5 ${here ? 'bg-plum-soft font-semibold' : done ? 'text-ink-2' : ''}`}
              aria-current={here ? 'step' : undefined}
            >
              <span className="mt-0.5 w-4 shrink-0 text-plum">
                {done?.leftOut ? (
                  <Minus size={14} aria-label="left out" />
                ) : done ? (
                  <Check size={14} aria-label="done" />
                ) : null}
              </span>
              <span className="min-w-0 flex-1">{sentence(s.does)}</span>
              {s.times && (
                <span className="shrink-0 text-tiny text-ink-2 tabular-nums">{s.times.map(spanWords).join(' + ')}</span>
              )}
            </p>
          </li>
        );
      })}
    </ol>
  );
}
