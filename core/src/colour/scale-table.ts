import { SCALE_LIMITS } from './shade-names.js';
import type { Shade, ShadeScale } from './shades.js';
import { labOf } from './spectrum.js';
import { hasSpectra, labIn, spectrumIn, tableFault, tableOf } from './table.js';

/** A scale as the rows of a table, its head first. */
export const rowsOfScale = ({ shades }: ShadeScale): string[][] => [
  ['shade', 'L', 'a', 'b'],
  ...shades.map(({ name, lab }) => [name, ...[lab.L, lab.a, lab.b].map((v) => String(Math.round(v * 1000) / 1000))]),
];

/**
 * The shades of a table's rows, its head first: `shade` with L, a and b, or with reflectances.
 * @throws Refusal `colour-table` with the line that can't be read
 */
export function shadesOfRows(rows: readonly (readonly string[])[]): Shade[] {
  const table = tableOf(rows, ['shade'], 'a scale of shades');
  const spectra = hasSpectra(table);
  if (!spectra && !(table.has('l') && table.has('a') && table.has('b')))
    throw tableFault('The table has neither the columns L, a and b nor columns of wavelengths.');
  const seen = new Set<string>();
  const shades = table.lines.map(({ line, cell }): Shade => {
    const name = cell('shade');
    if (name === '') throw tableFault('The shade has no name.', line);
    if (name.length > SCALE_LIMITS.shade)
      throw tableFault(`A shade’s name has at most ${SCALE_LIMITS.shade} characters.`, line);
    if (seen.has(name.toLowerCase())) throw tableFault(`The shade ${name} stands twice.`, line);
    seen.add(name.toLowerCase());
    return { name, lab: spectra ? labOf(spectrumIn(table, cell, line)) : labIn(cell, line) };
  });
  if (shades.length > SCALE_LIMITS.shades)
    throw tableFault(`A scale holds at most ${SCALE_LIMITS.shades} shades; the table has ${shades.length}.`);
  return shades;
}
