import { slowPatterns } from '../pattern-rule.mjs';

describe('the rule against ambiguous patterns', () => {
  // The textbook examples of catastrophic backtracking (OWASP, “Regular expression Denial of Service”, from memory).
  it.each(['/^(a+)+$/', '/^([a-zA-Z]+)*$/', '/^(a|aa)+$/', '/^(a|a?)+$/'])('%s grows exponentially', (pattern) => {
    expect(slowPatterns(`export const p = ${pattern};`)).toContainEqual(
      expect.objectContaining({ pattern, how: 'exponentially' }),
    );
  });

  it('stars that take each other’s characters grow with the square, also within a component', () => {
    expect(slowPatterns('const a = <b title={x.replace(/\\s+\\s+$/, "")} />;', true)).toContainEqual(
      expect.objectContaining({ how: 'with the square' }),
    );
  });

  it.each(['/^\\d{4}-\\d\\d-\\d\\d$/', '/[",\\r\\n]/', '/^v[ \\t]+[-+.\\d]/'])('%s is not ambiguous', (pattern) => {
    expect(slowPatterns(`export const p = ${pattern};`)).toEqual([]);
  });
});
