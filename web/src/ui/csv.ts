import { saveFile } from './save-file.js';

/** What begins so is a formula to spreadsheet programs, which then run it. */
const FORMULA = /^[=+@\-−\t\r]/;
/** A signed number, with a unit or ± behind it: nothing in it can be run. */
const FIGURE = /^[-+−]\d[\d.,±%°× a-zµ²³]*$/i;

/**
 * Rows as CSV after RFC 4180, with a mark by which spreadsheet programs know UTF-8; a minus sign becomes one that they
 * read as such. What they would take for a formula gets an apostrophe in front and is text.
 */
export function csvOf(rows: readonly (readonly string[])[]): string {
  const cell = (s: string) => {
    const plain = s.trim().replace(/\s+/g, ' ');
    const safe = FORMULA.test(plain) && !FIGURE.test(plain) ? `'${plain}` : plain.replace(/−(?=\d)/g, '-');
    return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
  };
  return `\ufeff${rows.map((r) => r.map(cell).join(',')).join('\r\n')}\r\n`;
}

/** What a table on the page says, row by row. */
export function rowsOf(table: HTMLTableElement): string[][] {
  return [...table.rows].map((r) => [...r.cells].map((c) => c.textContent ?? ''));
}

/** Lets the browser save rows as a table. */
export function saveCsv(rows: readonly (readonly string[])[], name: string): void {
  const url = URL.createObjectURL(new Blob([csvOf(rows)], { type: 'text/csv' }));
  saveFile(url, name);
  URL.revokeObjectURL(url);
}
