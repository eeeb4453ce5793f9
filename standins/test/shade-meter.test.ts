import { deltaE00, labOf, readingsOfRows, rowsOfReadings, shadeOf, smoothestSpectrum } from '@radiant/core';
import { dried, metered, SHADE_METER, shadeReadings } from '@radiant/standins';

const AT = '2026-11-20T09:10:00.000Z';

describe('the simulated shade meter', () => {
  it('gives the same table each time, spectra whole, and it is read back', () => {
    const own = shadeReadings('Sandpiper', 'tooth', AT);
    expect(own).toEqual(shadeReadings('Sandpiper', 'tooth', AT));
    const back = readingsOfRows(rowsOfReadings(own));
    expect(back).toHaveLength(12);
    back.forEach((r, i) => {
      expect(deltaE00(r, own[i] ?? r)).toBeLessThan(0.01);
    });
  });

  it('errs as it says: readings of one truth scatter with its deviation and no further', () => {
    const truth = smoothestSpectrum(shadeOf('A2').lab) as Float64Array;
    const off = Array.from(
      { length: 400 },
      (_, i) => (metered(truth, i + 1)[15] as number) / (truth[15] as number) - 1,
    );
    const sd = Math.sqrt(off.reduce((s, v) => s + v * v, 0) / off.length);
    // At 550 nm the reflectance is about a half: the part of each wavelength counts double there.
    const told = Math.hypot(SHADE_METER.whole, SHADE_METER.each / (truth[15] as number));
    expect(sd / told).toBeGreaterThan(0.85);
    expect(sd / told).toBeLessThan(1.15);
    for (let i = 1; i <= 200; i++) expect(deltaE00(labOf(metered(truth, i)), shadeOf('A2').lab)).toBeLessThan(1.5);
  });

  it('a dry tooth reads lighter and less full: a fact of the trade', () => {
    for (const name of ['A1', 'A3', 'C4']) {
      const { lab } = shadeOf(name);
      const dry = labOf(dried(smoothestSpectrum(lab) as Float64Array));
      expect(dry.L).toBeGreaterThan(lab.L + 0.8);
      expect(Math.hypot(dry.a, dry.b)).toBeLessThan(Math.hypot(lab.a, lab.b));
    }
    const stumps = shadeReadings('Sandpiper', 'stump', AT, [22]);
    expect(stumps.filter((r) => !r.wet).map((r) => r.tooth)).toEqual([22, 22, 22]);
  });
});
