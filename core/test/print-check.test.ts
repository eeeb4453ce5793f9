import { box, type Mesh, mergeMeshes, printCheck, type Vec3 } from '@radiant/core';

/** A box of a size about a middle, mm. */
const at = (size: Vec3, [x, y, z]: Vec3): Mesh => {
  const b = box(...size);
  return { ...b, positions: b.positions.map((v, i) => v + ([x, y, z][i % 3] as number)) };
};

describe('what a printer would say', () => {
  it('of a block: its wall, its height, nothing to support', () => {
    const c = printCheck(at([20, 6, 10], [0, 0, 5]));
    expect(c.pieces).toBe(1);
    expect(c.volumeMm3).toBeCloseTo(1200, 6);
    expect(c.thinnestMm).toBeCloseTo(6, 1);
    expect([c.thinMm2, c.overhangMm2, c.islands]).toEqual([0, 0, 0]);
    // 10 mm at a tenth of a millimetre and nine seconds is a quarter of an hour; lying on its front it is 6 mm high.
    expect(c.minutes).toBeCloseTo((c.heightMm / 0.1) * 0.15, 9);
  });

  it('of a sheet of 0.8 mm: that it is thin, and over which area', () => {
    const c = printCheck(at([20, 0.8, 10], [0, 0, 5]));
    expect(c.thinnestMm).toBeCloseTo(0.8, 1);
    expect(c.thinMm2).toBeCloseTo(2 * 200, -1);
  });

  it('of two blocks apart, one over the other: two pieces, an overhang of its area, an island by any side', () => {
    // Beside and above: whichever side lies down, one of them begins in the air.
    const c = printCheck(mergeMeshes([at([10, 10, 10], [0, 0, 0]), at([8, 8, 8], [14, 14, 14])]));
    expect(c.pieces).toBe(2);
    expect(c.overhangMm2).toBeCloseTo(64, 6);
    expect(c.islands).toBe(1);
  });

  it('lays a table on its plate', () => {
    // A plate of 20 × 20 × 2 on a leg of 4 × 4 × 10: upside down nothing hangs over.
    const c = printCheck(mergeMeshes([at([20, 20, 2], [0, 0, 11]), at([4, 4, 10], [0, 0, 5])]));
    expect(c.lie).toBe('gum side down');
    expect(c.overhangMm2).toBeLessThan(17);
  });
});
