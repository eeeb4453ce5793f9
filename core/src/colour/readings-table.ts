import { isFdi } from '../teeth/notation.js';
import type { Lab } from './lab.js';
import {
  READING_LIGHTS,
  READING_OF,
  READING_ZONES,
  type ReadingLight,
  type ReadingOf,
  type ReadingZone,
} from './reading-words.js';
import { labOf } from './spectrum.js';
import { hasSpectra, labIn, spectrumCells, spectrumIn, tableFault, tableOf, WAVELENGTHS } from './table.js';

/** A colour that was read on a tooth, CIELAB D65, 2°. */
export interface ColourReading extends Lab {
  readonly tooth: number;
  readonly of: ReadingOf;
  readonly zone: ReadingZone;
  readonly wet: boolean;
  /** When, ISO 8601. */
  readonly at: string;
  readonly device?: string | undefined;
  readonly light?: ReadingLight | undefined;
  readonly spectrum?: readonly number[] | undefined;
}

const COLUMNS = ['tooth', 'of', 'zone', 'wet', 'at', 'device', 'light', 'L', 'a', 'b'] as const;
const REQUIRED = ['tooth', 'of', 'zone', 'wet', 'at'];

/** Readings as the rows of a table, its head first: what a shade meter writes and what is handed on. */
export function rowsOfReadings(readings: readonly ColourReading[]): string[][] {
  const spectra = readings.some((r) => r.spectrum);
  return [
    [...COLUMNS, ...(spectra ? WAVELENGTHS.map(String) : [])],
    ...readings.map((r) => [
      String(r.tooth),
      r.of,
      r.zone,
      r.wet ? 'wet' : 'dry',
      r.at,
      r.device ?? '',
      r.light ?? '',
      ...[r.L, r.a, r.b].map((v) => v.toFixed(2)),
      ...(spectra ? (r.spectrum ? spectrumCells(r.spectrum) : WAVELENGTHS.map(() => '')) : []),
    ]),
  ];
}

/**
 * The readings of a table's rows, its head first; columns in any order. A line with reflectances has the colour of
 * them, and what stands under L, a and b is left alone.
 * @throws Refusal `colour-table` with the line that can't be read
 */
export function readingsOfRows(rows: readonly (readonly string[])[]): ColourReading[] {
  const table = tableOf(rows, REQUIRED, 'a table of readings');
  const spectra = hasSpectra(table);
  if (!spectra && !(table.has('l') && table.has('a') && table.has('b')))
    throw tableFault('The table has neither the columns L, a and b nor columns of wavelengths.');
  const readings = table.lines.map(({ line, cell }): ColourReading => {
    const tooth = Number(cell('tooth'));
    if (!isFdi(tooth)) throw tableFault(`“${cell('tooth')}” is no tooth in FDI numbers.`, line);
    const one = <T extends string>(column: string, of: readonly T[]): T => {
      const own = cell(column).toLowerCase() as T;
      if (!of.includes(own))
        throw tableFault(`“${cell(column)}” in the column “${column}”; known are ${of.join(', ')}.`, line);
      return own;
    };
    const at = cell('at');
    if (Number.isNaN(Date.parse(at))) throw tableFault(`“${at}” in the column “at” is no moment (ISO 8601).`, line);
    const written = WAVELENGTHS.some((nm) => cell(String(nm)) !== '');
    const spectrum = spectra && written ? spectrumIn(table, cell, line) : undefined;
    return {
      tooth,
      of: one('of', READING_OF),
      zone: one('zone', READING_ZONES),
      wet: one('wet', ['wet', 'dry']) === 'wet',
      at: new Date(at).toISOString(),
      ...(cell('light') && { light: one('light', READING_LIGHTS) }),
      ...(cell('device') && { device: cell('device').slice(0, 60) }),
      ...(spectrum ? { ...labOf(spectrum), spectrum: [...spectrum] } : labIn(cell, line)),
    };
  });
  const seen = new Map<string, number>();
  for (const [i, r] of readings.entries()) {
    const key = `${r.tooth} ${r.of} ${r.zone}`;
    const { line } = table.lines[i] as { line: number };
    const before = seen.get(key);
    if (before) throw tableFault(`${r.of} ${r.tooth}, ${r.zone} was read in line ${before} already.`, line);
    seen.set(key, line);
  }
  return readings;
}
