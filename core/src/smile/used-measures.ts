import { type Fdi, isUpper } from '../teeth/notation.js';
import { SCANNED, SCANNED_SIZE_PM_MM } from '../working/accuracy.js';
import type { Figure } from '../working/working.js';
import { linked, type Sided } from './linked.js';
import { ratioFigure, type ToothMeasure } from './measures.js';

/** What a scan tells of one tooth, mm. */
export interface ScannedTooth {
  readonly tooth: Fdi;
  readonly widthMm: number;
  readonly lengthMm: number;
  /** Levels of edge and zenith over the lower central edge, up positive. */
  readonly edgeUpMm: number;
  readonly zenithUpMm: number;
  /** Room to the next tooth towards the midline, or across it; none at the first of a row. About ±0.3. */
  readonly gapMesialMm?: number;
}

/** A length of the scan with the one error that such lengths have. */
export const scannedSize = (mm: number): Sided => ({ value: mm, pm: SCANNED_SIZE_PM_MM });

/**
 * The measures that planning goes by: of each width and length the scan's wherever there is one, since it leans on no
 * scale and no perspective (see `linked`); levels from the photograph, or from the scan where the photograph does not
 * have them of every tooth.
 */
export function usedMeasures(photo: readonly ToothMeasure[], scan: readonly ScannedTooth[]): ToothMeasure[] {
  const teeth = [
    ...photo.map((m) => m.tooth),
    ...scan.map((s) => s.tooth).filter((t) => isUpper(t) && !photo.some((m) => m.tooth === t)),
  ];
  const scanOf = (t: Fdi) => scan.find((s) => s.tooth === t);
  const photoOf = (t: Fdi) => photo.find((m) => m.tooth === t);
  // Two levels of one row must be over the same line.
  const front = teeth.filter((t) => t % 10 <= 3 && (scanOf(t) || photoOf(t)?.length));
  const byPhoto = front.every((t) => photoOf(t)?.edgeLevel && photoOf(t)?.zenithLevel);
  return teeth.map((tooth): ToothMeasure => {
    const [seen, scanned] = [photoOf(tooth), scanOf(tooth)];
    const width = used(seen?.width, scanned?.widthMm, 'width');
    const length = used(seen?.length, scanned?.lengthMm, 'length');
    const level = (which: 'edge' | 'zenith') => {
      const own = which === 'edge' ? seen?.edgeLevel : seen?.zenithLevel;
      if (byPhoto && own) return own;
      return (
        scanned && scannedFigure(which === 'edge' ? scanned.edgeUpMm : scanned.zenithUpMm, `level of the ${which}`)
      );
    };
    const [edgeLevel, zenithLevel] = [level('edge'), level('zenith')];
    return {
      tooth,
      ...(seen?.frontWidth && { frontWidth: seen.frontWidth }),
      ...(width && { width }),
      ...(length && { length }),
      ...(width && length && { ratio: ratioFigure(width, length) }),
      ...(edgeLevel && { edgeLevel }),
      ...(zenithLevel && { zenithLevel }),
    };
  });
}

function used(photo: Figure | undefined, scanMm: number | undefined, what: string): Figure | undefined {
  const by = linked(scanMm === undefined ? undefined : scannedSize(scanMm), photo);
  return by.used === 'scan' && scanMm !== undefined ? scannedFigure(scanMm, `crown ${what}`) : photo;
}

const scannedFigure = (mm: number, name: string): Figure => ({
  value: mm,
  pm: SCANNED_SIZE_PM_MM,
  unit: 'mm',
  working: {
    formula: `${name}, read off the scan`,
    inputs: [{ name, value: Math.round(mm * 100) / 100, unit: 'mm', source: SCANNED }],
  },
});
