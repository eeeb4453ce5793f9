import { viewReadingOf } from '@radiant/contract';
import { type Fdi, isPremolar, isUpper, type NeckSeen, neckSeen } from '@radiant/core';
import { useMemo } from 'react';
import { useCase, useSection, useToothLabel } from '../../data/case-context.js';
import { number } from '../../ui/format.js';

/**
 * Whether the finish line of the chosen tooth will be seen, and what its level means then: by the smile photograph where
 * that tells, else by the kind of tooth.
 */
export function VisibleZone({ belowGumMm }: { belowGumMm: number }) {
  const { tooth } = useCase();
  const { data: read } = useSection('read');
  const name = useToothLabel();
  const seen = useMemo(() => {
    const view = viewReadingOf(read, 'close-smile');
    return view && isUpper(tooth) ? neckSeen(view, tooth) : undefined;
  }, [read, tooth]);
  const words = zoneWords(name(tooth), seen, tooth, belowGumMm);
  return words ? <p className="mt-2 text-tiny text-ink-2">{words}</p> : null;
}

function zoneWords(name: string, seen: NeckSeen | undefined, tooth: Fdi, belowGumMm: number): string | undefined {
  const kinder = 'above the gum is kinder, and easier to keep dry';
  if (seen?.seen) {
    const shown = `In the smile photograph ${number(seen.gumMm.value, 1)} mm of gum shows over ${name}`;
    return belowGumMm < 0
      ? `${shown}: a finish line above the gum will be seen. At the gum for veneers over a light stump; 0.5 to 1 mm below it for crowns and dark stumps.`
      : `${shown}: its neck is in the visible zone.`;
  }
  if (seen)
    return belowGumMm > 0 ? `In the smile photograph the lip covers the neck of ${name}: ${kinder}.` : undefined;
  // Premolars and lower front teeth hardly show their necks.
  return belowGumMm > 0 && (isPremolar(tooth) || !isUpper(tooth))
    ? `The neck of a tooth like ${name} is seldom seen: ${kinder}.`
    : undefined;
}
