import { type Optics, opticsFrom, underSurface } from '../colour/layer.js';
import { hasSpectra, numberOf, spectrumCells, spectrumIn, tableFault, tableOf, WAVELENGTHS } from '../colour/table.js';
import { Refusal } from '../errors.js';
import type { Ceramic } from './ceramics.js';
import { PLATE_LIMITS, plateId } from './ids.js';

/** What a laboratory reads of a plate of its own ceramic, reflectances with the mirror of the surface left out. */
export const PLATE_READINGS = ['over black', 'over white', 'black ground', 'white ground'] as const;
export type PlateReading = (typeof PLATE_READINGS)[number];

/** A ceramic that a house or its laboratory has read: one material in one shade, as a polished plate. */
export interface MeasuredCeramic {
  /** Its name in the house; generic words, no trade name is asked for. */
  readonly name: string;
  /** Thickness of the plate, mm. */
  readonly mm: number;
  readonly overBlack: readonly number[];
  readonly overWhite: readonly number[];
  readonly blackGround: readonly number[];
  readonly whiteGround: readonly number[];
}

/**
 * How a measured ceramic takes and turns back light. The grounds are taken as read in contact, a drop of fluid between.
 * @throws Refusal `spectrum-wrong` where black reads brighter than white, or the plate is too thick to tell
 */
export function measuredOptics(c: MeasuredCeramic): Optics {
  const inner = (values: readonly number[]) => underSurface(Float64Array.from(values));
  return opticsFrom(inner(c.overBlack), inner(c.overWhite), c.mm, {
    black: inner(c.blackGround),
    white: inner(c.whiteGround),
  });
}

/** A measured ceramic as a candidate: in the shade that the plate has. @throws Refusal as `measuredOptics` */
export function ceramicOfPlate(c: MeasuredCeramic): Ceramic {
  const optics = measuredOptics(c);
  return { id: plateId(c.name), name: c.name, asRead: true, madeIn: () => optics };
}

/** What is wrong with a measured ceramic, one sentence; nothing where it can be used. */
export function plateFault(c: MeasuredCeramic): string | undefined {
  if (c.name.trim() === '') return 'The ceramic has no name.';
  const { min, max } = PLATE_LIMITS.mm;
  if (!(c.mm >= min && c.mm <= max)) return `The plate is ${c.mm} mm thick; it is read from ${min} to ${max} mm.`;
  try {
    const { K, S } = measuredOptics(c);
    const at = S.findIndex((s, i) => !(s > 0 && Number.isFinite(s) && (K[i] as number) >= 0));
    return at < 0
      ? undefined
      : `At ${WAVELENGTHS[at]} nm no layer fits the four readings: look whether they are of the same plate.`;
  } catch (error) {
    if (error instanceof Refusal) return error.message;
    throw error;
  }
}

/** A measured ceramic as the rows of a table, its head first. */
export const rowsOfPlate = (c: MeasuredCeramic): string[][] => [
  ['reading', 'mm', ...WAVELENGTHS.map(String)],
  ...(
    [
      ['over black', c.overBlack],
      ['over white', c.overWhite],
      ['black ground', c.blackGround],
      ['white ground', c.whiteGround],
    ] as const
  ).map(([reading, values]) => [reading, String(c.mm), ...spectrumCells(values)]),
];

/**
 * A measured ceramic of a table's rows, its head first: four lines, one for each reading.
 * @throws Refusal `colour-table` where a reading is missing, stands twice or can't be read; or can't be of one plate
 */
export function plateOfRows(name: string, rows: readonly (readonly string[])[]): MeasuredCeramic {
  const table = tableOf(rows, ['reading', 'mm'], 'a ceramic over black and white');
  if (!hasSpectra(table)) throw tableFault('The table has no columns of wavelengths, 400 to 700 nm.');
  const read = new Map<PlateReading, number[]>();
  let thick: number | undefined;
  for (const { line, cell } of table.lines) {
    const what = cell('reading').toLowerCase() as PlateReading;
    if (!PLATE_READINGS.includes(what))
      throw tableFault(`“${cell('reading')}” is no reading of a plate; known are ${PLATE_READINGS.join(', ')}.`, line);
    if (read.has(what)) throw tableFault(`“${what}” stands twice.`, line);
    const mm = numberOf(cell('mm'), 'mm', line);
    if (thick !== undefined && mm !== thick)
      throw tableFault(`The plate was ${thick} mm thick before, here ${mm}.`, line);
    thick = mm;
    read.set(what, [...spectrumIn(table, cell, line)]);
  }
  const of = (what: PlateReading): number[] => {
    const own = read.get(what);
    if (!own) throw tableFault(`The reading “${what}” is missing: without data nothing is worked out.`);
    return own;
  };
  const plate: MeasuredCeramic = {
    name,
    mm: thick as number,
    overBlack: of('over black'),
    overWhite: of('over white'),
    blackGround: of('black ground'),
    whiteGround: of('white ground'),
  };
  const fault = plateFault(plate);
  if (fault) throw tableFault(fault);
  return plate;
}
