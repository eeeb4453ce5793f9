import type { Jaw } from '@radiant/core';
import { biteColour, CLEAR_MM, css, DIFFERENCE_RANGE_MM, differenceColour } from '../../bench/colour-scale.js';

/** What the colours on the surfaces mean. */
export function Legend({ of, jaw }: { of: 'difference' | 'bite' | 'off'; jaw: Jaw }) {
  const steps = Array.from({ length: 21 }, (_, i) =>
    of === 'bite' ? -0.15 + (i / 20) * (CLEAR_MM + 0.15) : ((i - 10) / 10) * DIFFERENCE_RANGE_MM,
  );
  return (
    <figure className="rounded-xl bg-leaf px-4 py-3 text-fine shadow-lg">
      <div className="flex" aria-hidden="true">
        {steps.map((mm) => (
          <span
            key={mm}
            className="h-2.5 w-[11px]"
            style={{ background: css(of === 'bite' ? biteColour(mm) : differenceColour(mm)) }}
          />
        ))}
      </div>
      {of !== 'bite' ? (
        <>
          <div className="mt-1 flex justify-between">
            <span>−{DIFFERENCE_RANGE_MM.toFixed(1)}</span>
            <span>0</span>
            <span>+{DIFFERENCE_RANGE_MM.toFixed(1)} mm</span>
          </div>
          <figcaption className="mt-0.5 flex justify-between font-semibold">
            <span className="text-removed-ink">{of === 'off' ? 'behind the first scan' : 'tooth removed'}</span>
            <span className="text-added">{of === 'off' ? 'before it' : 'volume added'}</span>
          </figcaption>
        </>
      ) : (
        <>
          <div className="mt-1 flex justify-between">
            <span>touches</span>
            <span>0.7</span>
            <span>{CLEAR_MM.toFixed(1)} mm</span>
          </div>
          <figcaption className="mt-0.5 font-semibold">
            {jaw === 'upper' ? 'space to the lower teeth, straight down' : 'space to the upper teeth, straight up'}
          </figcaption>
        </>
      )}
    </figure>
  );
}
