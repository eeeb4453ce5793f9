import Papa from 'papaparse';

/** The rows of a table as text, CSV after RFC 4180, with or without the mark of UTF-8. */
export const rowsIn = (text: string): string[][] =>
  Papa.parse<string[]>(text.replace(/^\ufeff/, ''), { skipEmptyLines: true }).data;
