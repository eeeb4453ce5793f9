import type { LaidLater } from '@radiant/core';
import { number } from '../../ui/format.js';

/** How surely the scan lies on the first one, by teeth that were not cut. */
export function LaidLine({ laid, name }: { laid: LaidLater; name: string }) {
  if (laid.doubtful)
    return (
      <p className="finding mb-3 text-note" data-weight="stop">
        {name} is not judged by: teeth that nobody cut lie {number(laid.medianMm, 2)} mm off the first scan. It is of
        another mouth, or laid wrongly. Lay it again in shape.
      </p>
    );
  return (
    <p className="mb-3 text-note text-ink-2">
      {name}.{' '}
      {laid.teeth > 0
        ? `${laid.teeth} teeth that were not cut lie within ${number(laid.medianMm, 2)} mm of the first scan; what follows is sure to ±${number(laid.pmMm, 2)} mm.`
        : `No tooth is in it that was not to be cut, so that nothing says how it lies: ±${number(laid.pmMm, 2)} mm.`}
    </p>
  );
}

/** How surely the provisionals' scan lies, whose thickness proves what was cut. */
export function ProofLine({ laid, name }: { laid: LaidLater; name: string }) {
  return laid.doubtful ? (
    <p className="finding mb-3 text-note" data-weight="watch">
      {name}, with the provisionals, is not judged by: teeth that nobody cut lie {number(laid.medianMm, 2)} mm off.
    </p>
  ) : (
    <p className="mb-3 text-note text-ink-2">
      {name} shows the provisionals in place; their thickness is sure to ±{number(laid.pmMm, 2)} mm.
    </p>
  );
}
