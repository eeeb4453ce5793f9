/** Rows as CSV after RFC 4180, with a mark by which spreadsheet programs know UTF-8; a minus sign becomes one that they read as such. */
export function csvOf(rows: readonly (readonly string[])[]): string {
  const cell = (s: string) => {
    const plain = s
      .trim()
      .replace(/\s+/g, ' ')
      .replace(/−(?=\d)/g, '-');
    return /[",\r\n]/.test(plain) ? `"${plain.replaceAll('"', '""')}"` : plain;
  };
  return `\ufeff${rows.map((r) => r.map(cell).join(',')).join('\r\n')}\r\n`;
}

/** What a table on the page says, row by row. */
export function rowsOf(table: HTMLTableElement): string[][] {
  return [...table.rows].map((r) => [...r.cells].map((c) => c.textContent ?? ''));
}
