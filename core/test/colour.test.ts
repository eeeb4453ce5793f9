import {
  deltaE00,
  evenSpectrum,
  type Lab,
  LETTER_SCALE,
  LIGHTS,
  labOf,
  NM,
  nearestShades,
  OBSERVER,
  type Optics,
  opticsFrom,
  over,
  SURFACE,
  shadeOf,
  sheetOf,
  smoothestSpectrum,
  spectrumOf,
  throughSurface,
  underSurface,
  VISIBLE,
  xyzOf,
} from '@radiant/core';
import { random } from '@radiant/standins';
import Color from 'colorjs.io';
import { differenceCiede2000 } from 'culori';
import spectral from 'spectral.js';

const lab = (L: number, a: number, b: number): Lab => ({ L, a, b });

/** Sharma, Wu, Dalal 2005, Color Res Appl 30:21: the 34 pairs and their differences. */
const PAIRS = `
50.0000 2.6772 -79.7751 50.0000 0.0000 -82.7485 2.0425
50.0000 3.1571 -77.2803 50.0000 0.0000 -82.7485 2.8615
50.0000 2.8361 -74.0200 50.0000 0.0000 -82.7485 3.4412
50.0000 -1.3802 -84.2814 50.0000 0.0000 -82.7485 1.0000
50.0000 -1.1848 -84.8006 50.0000 0.0000 -82.7485 1.0000
50.0000 -0.9009 -85.5211 50.0000 0.0000 -82.7485 1.0000
50.0000 0.0000 0.0000 50.0000 -1.0000 2.0000 2.3669
50.0000 -1.0000 2.0000 50.0000 0.0000 0.0000 2.3669
50.0000 2.4900 -0.0010 50.0000 -2.4900 0.0009 7.1792
50.0000 2.4900 -0.0010 50.0000 -2.4900 0.0010 7.1792
50.0000 2.4900 -0.0010 50.0000 -2.4900 0.0011 7.2195
50.0000 2.4900 -0.0010 50.0000 -2.4900 0.0012 7.2195
50.0000 -0.0010 2.4900 50.0000 0.0009 -2.4900 4.8045
50.0000 -0.0010 2.4900 50.0000 0.0010 -2.4900 4.8045
50.0000 -0.0010 2.4900 50.0000 0.0011 -2.4900 4.7461
50.0000 2.5000 0.0000 50.0000 0.0000 -2.5000 4.3065
50.0000 2.5000 0.0000 73.0000 25.0000 -18.0000 27.1492
50.0000 2.5000 0.0000 61.0000 -5.0000 29.0000 22.8977
50.0000 2.5000 0.0000 56.0000 -27.0000 -3.0000 31.9030
50.0000 2.5000 0.0000 58.0000 24.0000 15.0000 19.4535
50.0000 2.5000 0.0000 50.0000 3.1736 0.5854 1.0000
50.0000 2.5000 0.0000 50.0000 3.2972 0.0000 1.0000
50.0000 2.5000 0.0000 50.0000 1.8634 0.5757 1.0000
50.0000 2.5000 0.0000 50.0000 3.2592 0.3350 1.0000
60.2574 -34.0099 36.2677 60.4626 -34.1751 39.4387 1.2644
63.0109 -31.0961 -5.8663 62.8187 -29.7946 -4.0864 1.2630
61.2901 3.7196 -5.3901 61.4292 2.2480 -4.9620 1.8731
35.0831 -44.1164 3.7933 35.0232 -40.0716 1.5901 1.8645
22.7233 20.0904 -46.6940 23.0331 14.9730 -42.5619 2.0373
36.4612 47.8580 18.3852 36.2715 50.5065 21.2231 1.4146
90.8027 -2.0831 1.4410 91.1528 -1.6435 0.0447 1.4441
90.9257 -0.5406 -0.9208 88.6381 -0.8985 -0.7239 1.5381
6.7747 -0.2908 -2.4247 5.8714 -0.0985 -2.2286 0.6377
2.0776 0.0795 -1.1350 0.9033 -0.0636 -0.5514 0.9082`
  .trim()
  .split('\n')
  .map((line) => line.split(' ').map(Number) as [number, number, number, number, number, number, number]);

describe('the difference of two colours, ΔE00', () => {
  it.each(PAIRS)('%d %d %d and %d %d %d: %d, as published (Sharma, Wu, Dalal 2005)', (L1, a1, b1, L2, a2, b2, dE) => {
    expect(deltaE00(lab(L1, a1, b1), lab(L2, a2, b2))).toBeCloseTo(dE, 4);
    expect(deltaE00(lab(L2, a2, b2), lab(L1, a1, b1))).toBeCloseTo(dE, 4);
  });

  it('is what two libraries say, on colours as teeth have them and on any (seed 7)', () => {
    const { next } = random(7);
    const ofCulori = differenceCiede2000();
    for (let n = 0; n < 400; n++) {
      const tooth = n % 2 === 0;
      const any = () =>
        tooth
          ? lab(60 + 25 * next(), -3 + 6 * next(), 5 + 20 * next())
          : lab(100 * next(), 160 * next() - 80, 160 * next() - 80);
      const [p, q] = [any(), any()];
      const own = deltaE00(p, q);
      const culori = ofCulori({ mode: 'lab65', l: p.L, a: p.a, b: p.b }, { mode: 'lab65', l: q.L, a: q.a, b: q.b });
      expect(own).toBeCloseTo(culori, 6);
      const color = ({ L, a, b }: Lab) => new Color('lab', [L, a, b]);
      expect(own).toBeCloseTo(color(p).deltaE(color(q), '2000'), 6);
    }
  });

  it('is seen from 0.8 on and not taken from 1.8 on (Paravina et al. 2015)', () => {
    expect([VISIBLE.seen, VISIBLE.notTaken]).toEqual([0.8, 1.8]);
  });
});

describe('from a spectrum to a colour', () => {
  it('white is white under each light, and grey has no colour', () => {
    for (const light of ['D65', 'A'] as const) {
      expect(labOf(evenSpectrum(1), light).L).toBeCloseTo(100, 9);
      const grey = labOf(evenSpectrum(0.2), light);
      expect(Math.hypot(grey.a, grey.b)).toBeLessThan(1e-9);
      expect(grey.L).toBeCloseTo(116 * Math.cbrt(0.2) - 16, 9);
    }
  });

  it('white of D65 lies where the standard has it, cut at 400 and 700 nm; the observer is the published one', () => {
    const [x, y, z] = xyzOf(evenSpectrum(1));
    expect(y).toBeCloseTo(100, 9);
    // ISO/CIE 11664-2: 95.047, 100, 108.883.
    expect(Math.abs(x - 95.047)).toBeLessThan(0.15);
    expect(Math.abs(z - 108.883)).toBeLessThan(0.35);
    // spectral.js holds the observer weighted by D65 from 380 nm on.
    const whole = LIGHTS.D65.power.reduce((n, p, i) => n + p * (OBSERVER.y[i] as number), 0);
    for (let i = 0; i < NM.count; i++) {
      const { XYZ } = new spectral.Color(Array.from({ length: 38 }, (_, k) => Number(k === i + 2)));
      for (const [c, own] of [OBSERVER.x, OBSERVER.y, OBSERVER.z].entries())
        expect(
          Math.abs(((own[i] as number) * (LIGHTS.D65.power[i] as number)) / whole - (XYZ[c as 0] as number)),
        ).toBeLessThan(3e-4);
    }
  });

  it('CIELAB of XYZ is what colorjs.io makes of it', () => {
    const { next } = random(3);
    for (let n = 0; n < 50; n++) {
      const r = Float64Array.from({ length: NM.count }, () => next());
      const white = xyzOf(evenSpectrum(1));
      // On its own white, so that only the formula is compared.
      const xyz = xyzOf(r).map(
        (v, c) => (v / (white[c as 0] as number)) * ([0.9504559270516716, 1, 1.0890577507598784][c] as number),
      );
      const own = labOf(r);
      const [L, a, b] = new Color('xyz-d65', xyz as [number, number, number]).to('lab-d65').coords;
      expect([own.L, own.a, own.b].map((v, c) => Math.abs(v - ([L, a, b][c] as number)) < 1e-6)).toEqual([
        true,
        true,
        true,
      ]);
    }
  });

  it.each([
    [[1, 2, 3], /has 31 values, from 400 to 700 nm by 10; these are 3/],
    [
      Array.from({ length: 31 }, (_, i) => (i === 4 ? -0.1 : 0.5)),
      /At 440 nm the spectrum reads -0\.1; it lies between 0 and 1\.05/,
    ],
    [Array.from({ length: 31 }, (_, i) => (i === 30 ? 1.2 : 0.5)), /At 700 nm/],
    [Array.from({ length: 31 }, (_, i) => (i === 2 ? Number.NaN : 0.5)), /At 420 nm the spectrum reads NaN/],
  ])('numbers that are no spectrum are refused in a sentence', (values, words) => {
    expect(() => spectrumOf(values)).toThrow(words);
  });

  it('of a colour alone the smoothest spectrum that has it is found, for every shade of the scale', () => {
    for (const { lab: own } of LETTER_SCALE.shades) {
      const r = smoothestSpectrum(own);
      if (!r) throw new Error('none');
      expect(deltaE00(labOf(r), own)).toBeLessThan(1e-4);
      for (const v of r) expect(v).toBeGreaterThan(0);
      for (const v of r) expect(v).toBeLessThan(1);
      // Teeth rise from blue to red, without a peak: no step is larger than a twentieth.
      for (let i = 1; i < r.length; i++) expect(Math.abs((r[i] as number) - (r[i - 1] as number))).toBeLessThan(0.05);
    }
    expect(smoothestSpectrum(lab(50, 300, 0))).toBeUndefined();
  });
});

describe('a layer by two-flux theory (Kubelka 1948)', () => {
  const optics = (k: (nm: number) => number, s: (nm: number) => number): Optics => {
    const nm = Array.from({ length: NM.count }, (_, i) => NM.from + i * NM.step);
    return { K: Float64Array.from(nm, k), S: Float64Array.from(nm, s) };
  };
  const dentin = optics(
    (nm) => 0.6 - 0.0007 * (nm - 400),
    (nm) => 3 - 0.002 * (nm - 400),
  );
  const stump = spectrumOf(Array.from({ length: NM.count }, (_, i) => 0.12 + 0.006 * i));

  it('of no thickness shows what lies behind, of any thickness only itself', () => {
    for (let i = 0; i < NM.count; i++) {
      expect(over(sheetOf(dentin, 0), stump)[i]).toBeCloseTo(stump[i] as number, 12);
      const a = 1 + (dentin.K[i] as number) / (dentin.S[i] as number);
      expect(over(sheetOf(dentin, 200), stump)[i]).toBeCloseTo(a - Math.sqrt(a * a - 1), 9);
    }
  });

  it('two of them together are one of both thicknesses, over anything', () => {
    const both = over(sheetOf(dentin, 0.7), over(sheetOf(dentin, 0.5), stump));
    const one = over(sheetOf(dentin, 1.2), stump);
    for (let i = 0; i < NM.count; i++) expect(both[i]).toBeCloseTo(one[i] as number, 12);
  });

  it('is what the equations themselves give, integrated step by step (Runge–Kutta)', () => {
    const mm = 0.9;
    const own = over(sheetOf(dentin, mm), stump);
    for (let i = 0; i < NM.count; i += 5) {
      const [k, s] = [dentin.K[i] as number, dentin.S[i] as number];
      // How the reflectance of what lies below grows with each slice: dR/dx = S − 2(S + K)R + S·R².
      const slope = (r: number) => s - 2 * (s + k) * r + s * r * r;
      let r = stump[i] as number;
      const steps = 2000;
      const h = mm / steps;
      for (let n = 0; n < steps; n++) {
        const k1 = slope(r);
        const k2 = slope(r + (h / 2) * k1);
        const k3 = slope(r + (h / 2) * k2);
        const k4 = slope(r + h * k3);
        r += (h / 6) * (k1 + 2 * k2 + 2 * k3 + k4);
      }
      expect(own[i]).toBeCloseTo(r, 10);
    }
  });

  it('its constants come back from readings over black and white, to a billionth', () => {
    const ground = { black: evenSpectrum(0.02), white: evenSpectrum(0.9) };
    const { K, S } = opticsFrom(
      over(sheetOf(dentin, 1), ground.black),
      over(sheetOf(dentin, 1), ground.white),
      1,
      ground,
    );
    for (let i = 0; i < NM.count; i++) {
      expect(Math.abs((K[i] as number) - (dentin.K[i] as number))).toBeLessThan(1e-9);
      expect(Math.abs((S[i] as number) - (dentin.S[i] as number))).toBeLessThan(1e-9);
    }
  });

  it('of one that absorbs nothing they come back too, and nothing that goes in is lost', () => {
    const clear = optics(
      () => 0,
      () => 2,
    );
    const { R, T } = sheetOf(clear, 1);
    for (let i = 0; i < NM.count; i++) expect((R[i] as number) + (T[i] as number)).toBeCloseTo(1, 12);
    const ground = { black: evenSpectrum(0), white: evenSpectrum(0.8) };
    const { K, S } = opticsFrom(
      over(sheetOf(clear, 1), ground.black),
      over(sheetOf(clear, 1), ground.white),
      1,
      ground,
    );
    expect(Math.max(...K)).toBeLessThan(1e-6);
    expect(S[10]).toBeCloseTo(2, 6);
  });

  it('readings that are changed round, or tell nothing, are refused in a sentence', () => {
    const ground = { black: evenSpectrum(0.02), white: evenSpectrum(0.9) };
    const [black, white] = [over(sheetOf(dentin, 1), ground.black), over(sheetOf(dentin, 1), ground.white)];
    expect(() => opticsFrom(white, black, 1, ground)).toThrow(
      /At 400 nm it reads no brighter over white than over black/,
    );
    expect(() => opticsFrom(black, black, 1, ground)).toThrow(/too thick to tell/);
  });

  it('its surface turns some light back, and what is seen through it comes back under it', () => {
    const inner = spectrumOf(Array.from({ length: NM.count }, (_, i) => 0.3 + 0.02 * i));
    const seen = throughSurface(inner);
    for (let i = 0; i < NM.count; i++) {
      expect(seen[i]).toBeLessThan(inner[i] as number);
      expect(underSurface(seen)[i]).toBeCloseTo(inner[i] as number, 12);
    }
    // A perfect white stays white but for the mirror of the surface.
    expect(throughSurface(evenSpectrum(1))[0]).toBeCloseTo(1 - SURFACE.outside, 12);
  });
});

describe('shades', () => {
  it('the scale of letters lies where it was measured (O’Brien, Groh, Boenke 1990), and each shade is nearest to itself', () => {
    expect(shadeOf('A3.5').lab).toEqual(lab(72.31, 1.5, 21.81));
    expect(LETTER_SCALE.shades).toHaveLength(16);
    for (const s of LETTER_SCALE.shades) expect(nearestShades(s.lab)[0]).toEqual({ shade: s, dE: 0 });
    expect(() => shadeOf('E1')).toThrow('The scale “letters” has no shade E1.');
  });

  it('A2 and B2 are told apart by the eye, and darker letters are darker', () => {
    expect(deltaE00(shadeOf('A2').lab, shadeOf('B2').lab)).toBeGreaterThan(VISIBLE.seen);
    const L = (n: string) => shadeOf(n).lab.L;
    expect([L('A1') > L('A2'), L('A2') > L('A3'), L('A3') > L('A3.5'), L('A3.5') > L('A4')]).toEqual([
      true,
      true,
      true,
      true,
    ]);
  });
});
