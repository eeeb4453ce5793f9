import type { Fdi, Vec3 } from '@radiant/core';
import { type RefObject, useEffect, useMemo } from 'react';
import type { ToothHand } from './arch-surfaces.js';
import { useReading } from './use-reading.js';

/**
 * A hand that chooses a tooth, and says beside the pointer what is known of the place under it.
 * @param reading the element in which it is said
 * @param of what is known, by tooth
 * @param wordsAt what is said of a vertex; nothing where it is empty. One function for as long as the page lives.
 * @param showing what is drawn: of something else nothing is said any more
 */
export function useTellingHand<V>(
  reading: RefObject<HTMLElement | null>,
  of: ReadonlyMap<Fdi, V>,
  wordsAt: (own: V | undefined, vertex: number) => string,
  showing: unknown,
  press: (tooth: Fdi, at: Vec3) => void,
): ToothHand {
  const tell = useReading(reading);
  // What was under the pointer is another thing now.
  // biome-ignore lint/correctness/useExhaustiveDependencies: each change of what is shown
  useEffect(() => tell(''), [showing, of, tell]);
  return useMemo<ToothHand>(
    () => ({
      press,
      move: (tooth, vertex, e) => tell(wordsAt(of.get(tooth), vertex), e),
      out: () => tell(''),
    }),
    [of, wordsAt, press, tell],
  );
}
