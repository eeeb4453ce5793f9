import { type Fdi, isUpper } from '../teeth/notation.js';
import { SCANNED, SCANNED_SIZE_PM_MM } from '../working/accuracy.js';
import { type Figure, MEASURED, together } from '../working/working.js';
import { LEVEL_NOTE } from './level.js';
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
  /** How far to the patient's left its edge lies, mm. */
  readonly acrossMm: number;
  /** Room to the next tooth towards the midline, or across it; none at the first of a row. About ±0.3. */
  readonly gapMesialMm?: number;
}

/** A length of the scan with the one error that such lengths have. */
export const scannedSize = (mm: number): Sided => ({ value: mm, pm: SCANNED_SIZE_PM_MM });

/**
 * The measures that planning goes by: of each width and length the scan's wherever there is one, since it leans on no
 * scale and no perspective (see `linked`); the levels too from the scan where it has all of the front, else from the
 * photograph.
 * @param cant how the line of the canines' tips lies against the pupils, degrees, the left one lower positive: the
 *   scan's levels are told against the pupils then, else against the plane of its own row
 */
export function usedMeasures(
  photo: readonly ToothMeasure[],
  scan: readonly ScannedTooth[],
  cant?: Figure,
): ToothMeasure[] {
  const teeth = [
    ...photo.map((m) => m.tooth),
    ...scan.map((s) => s.tooth).filter((t) => isUpper(t) && !photo.some((m) => m.tooth === t)),
  ];
  const scanOf = (t: Fdi) => scan.find((s) => s.tooth === t);
  const photoOf = (t: Fdi) => photo.find((m) => m.tooth === t);
  // Two levels of one row must be over the same line.
  const front = teeth.filter((t) => t % 10 <= 3 && (scanOf(t) || photoOf(t)?.length));
  const levels = front.length > 0 && front.every(scanOf) ? scannedLevels(scan, cant) : undefined;
  return teeth.map((tooth): ToothMeasure => {
    const [seen, scanned] = [photoOf(tooth), scanOf(tooth)];
    const width = used(seen?.width, scanned?.widthMm, 'width');
    const length = used(seen?.length, scanned?.lengthMm, 'length');
    const { edge: edgeLevel, zenith: zenithLevel } = levels
      ? (levels.get(tooth) ?? {})
      : { edge: seen?.edgeLevel, zenith: seen?.zenithLevel };
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

const SCAN_ALIKE =
  'Level is the plane of the scanned row: the portrait tells no cant of it against the pupils beyond the error. That error is in the ±.';

interface Levels {
  readonly edge?: Figure;
  readonly zenith?: Figure;
}

/**
 * Edges and zeniths over the lowest central edge. Level is the line of the pupils where the portrait says that the
 * canines lie canted to it: the scanned row is turned until its own canines lie so.
 */
function scannedLevels(scan: readonly ScannedTooth[], cant: Figure | undefined): ReadonlyMap<Fdi, Levels> {
  const upper = scan.filter((s) => isUpper(s.tooth));
  const [right, left] = [13, 23].map((t) => upper.find((s) => s.tooth === t));
  const known = cant && right && left;
  // In the scan's own plane the line of the canines' tips already falls to one side.
  const own = known ? Math.atan2(right.edgeUpMm - left.edgeUpMm, left.acrossMm - right.acrossMm) : 0;
  const canted = known && Math.abs((cant.value * Math.PI) / 180 - own) > (cant.pm * Math.PI) / 180;
  const turn = canted ? Math.tan((cant.value * Math.PI) / 180 - own) : 0;
  const turnPm = known ? (cant.pm * Math.PI) / 180 : 0;
  const upOf = (s: ScannedTooth, mm: number) => mm - s.acrossMm * turn;
  const centrals = upper.filter((s) => s.tooth % 10 === 1);
  if (centrals.length === 0) return new Map();
  const lowest = centrals.reduce((a, b) => (upOf(b, b.edgeUpMm) < upOf(a, a.edgeUpMm) ? b : a));
  const level = (s: ScannedTooth, mm: number, what: string): Figure => {
    const errors = {
      [`scanned ${what} of ${s.tooth}`]: SCANNED_SIZE_PM_MM,
      'scan against the pupils': (lowest.acrossMm - s.acrossMm) * turnPm,
    };
    const value = upOf(s, mm) - upOf(lowest, lowest.edgeUpMm);
    return {
      ...scannedFigure(value, `level of the ${what}`),
      pm: together(errors),
      errors,
      working: {
        formula: `level of the ${what} over the lowest central edge, read off the scan`,
        inputs: [
          { name: `level of the ${what}`, value: Math.round(value * 100) / 100, unit: 'mm', source: SCANNED },
          ...(known
            ? [
                {
                  name: 'line of the canines’ tips against the pupils',
                  value: `${cant.value.toFixed(1)} ±${cant.pm.toFixed(1)}`,
                  unit: '°',
                  source: MEASURED,
                },
              ]
            : []),
        ],
        note: canted ? LEVEL_NOTE.pupils : known ? SCAN_ALIKE : LEVEL_NOTE.scan,
      },
    };
  };
  return new Map(
    upper.map((s) => [s.tooth, { edge: level(s, s.edgeUpMm, 'edge'), zenith: level(s, s.zenithUpMm, 'zenith') }]),
  );
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
