import { csvOf } from '../src/shell/csv.js';

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
});
