import type { ByHand, Laid } from '@radiant/core';
import { useEffect, useId, useState } from 'react';
import { useToothLabel } from '../../../data/case-context.js';
import { useLatest } from '../../../data/use-latest.js';
import { number } from '../../../ui/format.js';
import { NumberInput } from '../../../ui/NumberInput.js';

/** What a hand may set at most: more is no bite of these two jaws. House limits. */
const LIMIT: Readonly<Record<keyof ByHand, number>> = { overjetMm: 12, leftMm: 8, turnDeg: 10 };
const REST_MS = 500;
const HAND_FIELDS: readonly (readonly [keyof ByHand, string, string])[] = [
  ['overjetMm', 'overjet', 'mm'],
  ['leftMm', 'to the patient’s left', 'mm'],
  ['turnDeg', 'turned to the left', '°'],
];

/** A lower jaw put on the upper one: where the hand has it, and what it touches once it is closed. */
export function HandBite({
  hand,
  bite,
  busy,
  put,
}: {
  hand: ByHand;
  bite: NonNullable<Laid['bite']>;
  busy: boolean;
  put: (hand: ByHand) => Promise<void>;
}) {
  const name = useToothLabel();
  const base = useId();
  const [own, setOwn] = useState(hand);
  const latest = useLatest({ put });
  // Once the hand rests: closing takes a moment.
  useEffect(() => {
    if (own === hand) return;
    const timer = setTimeout(() => void latest.current.put(own), REST_MS);
    return () => clearTimeout(timer);
  }, [own, hand, latest]);
  return (
    <section aria-label="By hand" className="mb-3 text-note">
      {HAND_FIELDS.map(([key, word, unit]) => (
        <div key={key} className="mb-1.5 flex items-center justify-between">
          <label htmlFor={`${base}${key}`}>{word}</label>
          <span>
            <NumberInput
              id={`${base}${key}`}
              className="field mr-1.5 h-[30px] w-[76px] text-right"
              value={own[key]}
              min={-LIMIT[key]}
              max={LIMIT[key]}
              step={unit === '°' ? 0.5 : 0.1}
              digits={1}
              unit={unit}
              busy={busy}
              onChange={(v) => v !== null && setOwn({ ...own, [key]: v })}
            />
            <span className="inline-block w-[22px]">{unit}</span>
          </span>
        </div>
      ))}
      <p className="text-ink-2" role="status">
        It touches {bite.touching.map(name).join(', ')}; the edges overlap {number(bite.overlapMm, 1)} mm. Compare with
        the mouth or a bite record.
      </p>
    </section>
  );
}
