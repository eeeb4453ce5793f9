import { csvOf } from '../src/ui/csv.js';

// RFC 4180: fields with commas, quotes or breaks are quoted, quotes doubled, lines end in CRLF.
describe('CSV', () => {
  const lines = (rows: string[][]) => csvOf(rows).slice(1).split('\r\n');

  it('begins with the mark of UTF-8 and ends each line as the standard says', () => {
    const text = csvOf([
      ['mm', '11'],
      ['length', '10.5'],
    ]);
    expect(text.charCodeAt(0)).toBe(0xfeff);
    expect(text.slice(1)).toBe('mm,11\r\nlength,10.5\r\n');
  });

  it('quotes what must be quoted and nothing else', () => {
    expect(lines([['a, b', 'say "so"', 'plain', 'two\nlines']])[0]).toBe('"a, b","say ""so""",plain,two lines');
  });

  it('a minus before a number is one that programs read; one between words stays', () => {
    expect(lines([['−0.25', 'width − length', '+1.0']])[0]).toBe('-0.25,width − length,+1.0');
  });

  // What spreadsheet programs take for a formula (OWASP, “CSV Injection”, from memory).
  it.each([
    '=1+1',
    '=cmd|calc',
    '@SUM(A1)',
    '+1+cmd|calc',
    '-1-1',
    '−2+3',
    '-A1',
    '+HYPERLINK("x")',
    '=HYPERLINK("http://elsewhere.example","x")',
  ])('%p is made text', (cell) => {
    const row = lines([[cell, 'x']])[0] as string;
    expect(row.replace(/^"/, '').startsWith("'")).toBe(true);
  });

  it.each([
    ['−0.25', '-0.25'],
    ['+1.0', '+1.0'],
    ['−0.25 ±0.05 mm', '-0.25 ±0.05 mm'],
    ['-12 %', '-12 %'],
    ['+0.4 mm', '+0.4 mm'],
  ])('the figure %p stays one', (cell, wanted) => expect(lines([[cell, 'x']])[0]).toBe(`${wanted},x`));
});
