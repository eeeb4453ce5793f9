import { Refusal } from '../errors.js';
import { type Spectrum, spectrumOf } from './spectrum.js';
import { NM } from './wavelengths.js';

/** Colours lie within these, CIELAB; teeth lie well inside. House limits. */
export const COLOUR_LIMITS = { L: { min: 0, max: 100 }, a: { min: -60, max: 60 }, b: { min: -60, max: 80 } } as const;

/** The wavelengths of a table's columns, nm. */
export const WAVELENGTHS: readonly number[] = Array.from({ length: NM.count }, (_, i) => NM.from + i * NM.step);

/** A table whose head names its columns, as rows of cells. */
export interface Table {
  /** The number of each line that holds anything, as an editor counts them: the head is line 1. */
  readonly lines: readonly { readonly line: number; readonly cell: (column: string) => string }[];
  readonly has: (column: string) => boolean;
}

const plain = (s: string) => s.trim().toLowerCase().replace(/\s+/g, ' ');

/** What can't be read of a table of colours. */
export const tableFault = (why: string, line?: number): Refusal =>
  new Refusal('colour-table', line === undefined ? why : `Line ${line}: ${why}`, line);

/**
 * The rows of a table by the names of its columns, in any order; others are left alone.
 * @throws Refusal `colour-table` where a column is missing or nothing stands below the head
 */
export function tableOf(rows: readonly (readonly string[])[], required: readonly string[], what: string): Table {
  const [head = [], ...below] = rows;
  const at = new Map(head.map((name, i) => [columnName(name), i]));
  const missing = required.filter((c) => !at.has(c));
  if (missing.length > 0)
    throw tableFault(`The table has no column ${missing.map((c) => `“${c}”`).join(', ')}; ${what} needs it.`);
  const lines = below.flatMap((row, i) =>
    row.every((cell) => cell.trim() === '')
      ? []
      : [{ line: i + 2, cell: (c: string) => (row[at.get(c) ?? -1] ?? '').trim() }],
  );
  if (lines.length === 0) throw tableFault('The table has no line below its head.');
  return { lines, has: (c) => at.has(c) };
}

/** “560 nm” and “560.0” are the column 560. */
const columnName = (name: string): string => {
  const own = plain(name);
  const nm = /^(\d{3})(?:\.0+)?(?: ?nm)?$/.exec(own);
  return nm ? (nm[1] as string) : own;
};

/** A number that was written with a point or a comma. @throws Refusal `colour-table` */
export function numberOf(text: string, column: string, line: number): number {
  const value = text === '' ? Number.NaN : Number(text.replace(',', '.'));
  if (!Number.isFinite(value)) throw tableFault(`“${text}” in the column “${column}” is no number.`, line);
  return value;
}

/** L*, a* and b* of a line. @throws Refusal `colour-table` */
export function labIn(cell: (column: string) => string, line: number): { L: number; a: number; b: number } {
  const of = (c: 'L' | 'a' | 'b') => {
    const value = numberOf(cell(c.toLowerCase()), c, line);
    const { min, max } = COLOUR_LIMITS[c];
    if (value < min || value > max) throw tableFault(`${c}* is ${value}; it lies between ${min} and ${max}.`, line);
    return value;
  };
  return { L: of('L'), a: of('a'), b: of('b') };
}

/** Whether a table has reflectances: one column of a wavelength is enough to say so. */
export const hasSpectra = (table: Table): boolean => WAVELENGTHS.some((nm) => table.has(String(nm)));

/** The reflectance of a line, 0 to 1. @throws Refusal `colour-table` for gaps, a wrong step, values out of range */
export function spectrumIn(table: Table, cell: (column: string) => string, line: number): Spectrum {
  const absent = WAVELENGTHS.filter((nm) => !table.has(String(nm)));
  if (absent.length > 0)
    throw tableFault(
      `A spectrum goes from ${NM.from} to ${NM.to} nm by ${NM.step}; the table has no column ${absent.slice(0, 3).join(', ')}${absent.length > 3 ? ' …' : ''}.`,
    );
  const values = WAVELENGTHS.map((nm) => {
    const text = cell(String(nm));
    if (text === '') throw tableFault(`At ${nm} nm nothing is written: the spectrum has a gap.`, line);
    return numberOf(text, `${nm}`, line);
  });
  if (values.some((v) => v > 2) && values.every((v) => v >= 0 && v <= 105))
    throw tableFault('The reflectances are written in percent; write them from 0 to 1.', line);
  try {
    return spectrumOf(values);
  } catch (error) {
    throw error instanceof Refusal ? tableFault(error.message, line) : error;
  }
}

/** A spectrum as cells. */
export const spectrumCells = (values: ArrayLike<number>): string[] =>
  Array.from(values, (v) => String(Math.round(v * 1e5) / 1e5));
