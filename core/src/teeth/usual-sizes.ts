import type { Fdi } from './notation.js';

/** A crown's usual size, mm. */
export interface UsualSize {
  readonly widthMm: number;
  readonly lengthMm: number;
}

/**
 * By position from the midline; crowns as they are seen in the mouth. Common practice, no source: for drawing and for
 * telling teeth apart.
 */
const USUAL: Readonly<Record<'upper' | 'lower', readonly UsualSize[]>> = {
  upper: [
    { widthMm: 8.6, lengthMm: 10.6 },
    { widthMm: 6.7, lengthMm: 9.2 },
    { widthMm: 7.6, lengthMm: 10.2 },
    { widthMm: 7, lengthMm: 8.6 },
    { widthMm: 6.8, lengthMm: 7.9 },
  ],
  lower: [
    { widthMm: 5.4, lengthMm: 8.8 },
    { widthMm: 5.9, lengthMm: 9 },
    { widthMm: 6.8, lengthMm: 10 },
    { widthMm: 7, lengthMm: 8.4 },
    { widthMm: 7.1, lengthMm: 7.8 },
  ],
};

/**
 * The usual size of a front tooth or premolar before it has been measured or planned; of one further back that of the
 * last.
 */
export function usualSize(tooth: Fdi): UsualSize {
  const row = USUAL[tooth < 30 ? 'upper' : 'lower'];
  return row[Math.min(row.length, tooth % 10) - 1] as UsualSize;
}
