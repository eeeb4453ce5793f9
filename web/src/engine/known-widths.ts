import { type Fdi, SCANNED_SIZE_PM_MM } from '@radiant/core';
import { useMemo } from 'react';
import { useReading } from '../data/reading.js';
import { useContour } from './use-contour.js';

/** A tooth's crown width as it is known from elsewhere in the case. */
export interface KnownWidth {
  readonly tooth: Fdi;
  readonly widthMm: number;
  readonly pmMm: number;
  readonly origin: 'scan' | 'front view';
}

/**
 * The widths that the scan tells, then those of the retracted front view; a width of the front view itself is no check
 * of it.
 */
export function useKnownWidths(): readonly KnownWidth[] {
  const contour = useContour();
  const { measures } = useReading();
  return useMemo(() => {
    const scan =
      contour.state === 'ready'
        ? contour.arch.existing.map(
            (t): KnownWidth => ({ tooth: t.tooth, widthMm: t.widthMm, pmMm: SCANNED_SIZE_PM_MM, origin: 'scan' }),
          )
        : [];
    const photo = measures.flatMap((m): KnownWidth[] =>
      m.width ? [{ tooth: m.tooth, widthMm: m.width.value, pmMm: m.width.pm, origin: 'front view' }] : [],
    );
    return [...scan, ...photo];
  }, [contour, measures]);
}
