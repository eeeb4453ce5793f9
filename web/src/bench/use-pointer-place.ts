import { type RefObject, useEffect, useState } from 'react';

/** Where the pointer is over an element, px from its top left corner, and how wide that is. */
export interface PointerPlace {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  /** Whether a finger or a pressed button moves it. */
  readonly busy: boolean;
}

/** Follows the pointer over an element; nothing while it is elsewhere. */
export function usePointerPlace(frame: RefObject<HTMLElement | null>): PointerPlace | undefined {
  const [at, setAt] = useState<PointerPlace>();
  useEffect(() => {
    const own = frame.current;
    if (!own) return;
    const move = (e: PointerEvent) => {
      const box = own.getBoundingClientRect();
      const busy = e.pointerType === 'touch' || e.buttons > 0;
      setAt({ x: e.clientX - box.left, y: e.clientY - box.top, w: box.width, busy });
    };
    const leave = () => setAt(undefined);
    own.addEventListener('pointermove', move);
    own.addEventListener('pointerleave', leave);
    return () => {
      own.removeEventListener('pointermove', move);
      own.removeEventListener('pointerleave', leave);
    };
  }, [frame]);
  return at;
}
