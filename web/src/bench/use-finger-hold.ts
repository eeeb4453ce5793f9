import { type RefObject, useEffect, useRef, useState } from 'react';
import type { PointerPlace } from './use-pointer-place.js';

/** A finger that rests so long aims, ms: as long as a long press usually is. */
const HOLD_MS = 450;
/** One that goes further before that moves the picture, px. */
const SLIP_PX = 8;

/**
 * A finger that is held on an element aims: the place goes with it, nothing else moves, and it counts when the finger is
 * lifted. A second finger, or something that lies on the element and is taken hold of itself, calls it off.
 * @param onLift the place where the finger was lifted, px from the element's top left corner
 * @returns where the finger aims, and whether it does so just now: what is held moves nothing else
 */
export function useFingerHold(
  frame: RefObject<HTMLElement | null>,
  onLift: (x: number, y: number) => void,
): { readonly at: PointerPlace | undefined; readonly holds: RefObject<boolean> } {
  const [at, setAt] = useState<PointerPlace>();
  const holds = useRef(false);
  const lift = useRef(onLift);
  useEffect(() => {
    lift.current = onLift;
  }, [onLift]);
  useEffect(() => {
    const own = frame.current;
    if (!own) return;
    let finger: { id: number; x: number; y: number } | undefined;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const place = (e: { clientX: number; clientY: number }): PointerPlace => {
      const box = own.getBoundingClientRect();
      return { x: e.clientX - box.left, y: e.clientY - box.top, w: box.width, busy: true };
    };
    const off = () => {
      clearTimeout(timer);
      finger = undefined;
      setAt(undefined);
      // The gesture that hears of the same lift must still know of it.
      setTimeout(() => {
        holds.current = false;
      });
    };
    const down = (e: PointerEvent) => {
      if (e.pointerType !== 'touch') return;
      if (finger || (e.target as Element | null)?.closest('[data-mark]')) return off();
      const begun = { id: e.pointerId, x: e.clientX, y: e.clientY };
      finger = begun;
      timer = setTimeout(() => {
        holds.current = true;
        setAt(place({ clientX: begun.x, clientY: begun.y }));
      }, HOLD_MS);
    };
    const move = (e: PointerEvent) => {
      if (e.pointerId !== finger?.id) return;
      if (holds.current) setAt(place(e));
      else if (Math.hypot(e.clientX - finger.x, e.clientY - finger.y) > SLIP_PX) off();
    };
    const up = (e: PointerEvent) => {
      if (e.pointerId !== finger?.id) return;
      const { x, y } = place(e);
      if (holds.current) lift.current(x, y);
      off();
    };
    own.addEventListener('pointerdown', down, true);
    own.addEventListener('pointermove', move, true);
    own.addEventListener('pointerup', up, true);
    own.addEventListener('pointercancel', off, true);
    return () => {
      clearTimeout(timer);
      own.removeEventListener('pointerdown', down, true);
      own.removeEventListener('pointermove', move, true);
      own.removeEventListener('pointerup', up, true);
      own.removeEventListener('pointercancel', off, true);
    };
  }, [frame]);
  return { at, holds };
}
