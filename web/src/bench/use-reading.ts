import type { ThreeEvent } from '@react-three/fiber';
import { type RefObject, useCallback, useEffect } from 'react';

/** How the element that says what lies under the pointer is told: its words, and the place; without words it hides. */
export type TellReading = (words: string, e?: ThreeEvent<PointerEvent>) => void;

/** Writes beside the pointer; a finger hides what lies under it, so that its words stand above and go with the finger. */
export function useReading(reading: RefObject<HTMLElement | null> | undefined): TellReading {
  const tell = useCallback<TellReading>(
    (words, e) => {
      const at = reading?.current;
      if (!at) return;
      at.hidden = words === '';
      at.textContent = words;
      if (!e) return;
      const down = e.pointerType === 'touch' ? -64 : 14;
      at.style.transform = `translate(${e.nativeEvent.offsetX + 14}px, ${e.nativeEvent.offsetY + down}px)`;
    },
    [reading],
  );
  useEffect(() => {
    // A lifted finger is over nothing any more.
    const up = (e: PointerEvent) => e.pointerType === 'touch' && tell('');
    window.addEventListener('pointerup', up);
    return () => window.removeEventListener('pointerup', up);
  }, [tell]);
  return tell;
}
