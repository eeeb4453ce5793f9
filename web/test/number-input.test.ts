import { read, shown } from '../src/ui/NumberInput.js';

describe('what is typed into a number', () => {
  it.each([
    ['1.5', 1.5],
    ['1,5', 1.5],
    ['−0.25', -0.25],
    ['-0.25', -0.25],
    ['.5', 0.5],
    ['10.', 10],
    [' 12 ', 12],
    ['+1', 1],
  ])('%p is %d', (text, value) => expect(read(text)).toEqual({ kind: 'number', value }));

  it.each([
    ['', 'empty'],
    ['  ', 'empty'],
    ['-', 'unfinished'],
    ['−', 'unfinished'],
    ['.', 'unfinished'],
    ['-.', 'unfinished'],
    ['1.5.2', 'wrong'],
    ['1e5', 'wrong'],
    ['0x10', 'wrong'],
    ['ten', 'wrong'],
    ['1 2', 'wrong'],
  ])('%p is %s', (text, kind) => expect(read(text)).toEqual({ kind }));

  it('a number stands as it is kept: with the usual decimals, and more where it has more', () => {
    expect(shown(10, 1)).toBe('10.0');
    expect(shown(10.55, 1)).toBe('10.55');
    expect(shown(-0.25, 1)).toBe('−0.25');
    expect(shown(8.197, 2)).toBe('8.20');
    expect(shown(34, 0)).toBe('34');
    expect(shown(null, 1)).toBe('');
  });
});
