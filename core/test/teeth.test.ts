import {
  distalNeighbour,
  fromUniversal,
  isFdi,
  kindOf,
  label,
  mesialNeighbour,
  opposite,
  Refusal,
  sideOf,
  toUniversal,
} from '@radiant/core';

/** ISO 3950 beside the Universal system: the upper right third molar is 1, the lower right one 32 (standard). */
const PAIRS: readonly (readonly [number, number])[] = [
  [18, 1],
  [13, 6],
  [11, 8],
  [21, 9],
  [23, 11],
  [28, 16],
  [38, 17],
  [31, 24],
  [41, 25],
  [48, 32],
];

describe('tooth notation', () => {
  it.each(PAIRS)('FDI %i is Universal %i (ISO 3950)', (fdi, universal) => {
    expect(toUniversal(fdi)).toBe(universal);
    expect(fromUniversal(universal)).toBe(fdi);
  });

  it('carries all 32 permanent teeth there and back', () => {
    const all = Array.from({ length: 32 }, (_, i) => fromUniversal(i + 1));
    expect(new Set(all).size).toBe(32);
    expect(all.every(isFdi)).toBe(true);
    expect(all.map(toUniversal)).toEqual(Array.from({ length: 32 }, (_, i) => i + 1));
  });

  it('knows the neighbour across the midline and none behind the third molar', () => {
    expect(mesialNeighbour(11)).toBe(21);
    expect(mesialNeighbour(23)).toBe(22);
    expect(distalNeighbour(12)).toBe(13);
    expect(distalNeighbour(28)).toBeUndefined();
    expect(opposite(43)).toBe(33);
  });

  it('puts quadrants 1 and 4 on the patient’s right', () => {
    expect([11, 21, 31, 41].map(sideOf)).toEqual(['right', 'left', 'left', 'right']);
    expect(kindOf(12)).toBe('lateral');
    expect(label(11, 'universal')).toBe('8');
  });

  it.each([0, 10, 19, 51, 11.5, Number.NaN])('refuses %p as a permanent tooth', (n) => {
    expect(() => toUniversal(n)).toThrow(Refusal);
  });
});
