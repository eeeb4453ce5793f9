import { useToothLabel } from '../../data/case-context.js';
import type { usePins } from './use-pins.js';

/** Puts the next comment on a point of the surface. */
export function PinField({ pins }: { pins: ReturnType<typeof usePins> }) {
  const name = useToothLabel();
  return (
    <p className="mb-1.5 text-note text-ink-2">
      {pins.place ? (
        <>
          on {name(pins.place.tooth)}, {pins.place.words}{' '}
          <button type="button" className="how" onClick={pins.drop}>
            not on it
          </button>
        </>
      ) : pins.asking ? (
        'Press the point on the tooth.'
      ) : (
        <button type="button" className="how" onClick={pins.ask}>
          put it on a point of a tooth
        </button>
      )}
    </p>
  );
}
