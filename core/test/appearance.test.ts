import {
  beneath,
  CERAMIC_CLASSES,
  type CeramicId,
  ceramicIn,
  ceramicOf,
  ceramicOfClass,
  colourOver,
  deeper,
  deltaE00,
  evenSpectrum,
  hidesFrom,
  type Lab,
  LETTER_SCALE,
  layersOf,
  NM,
  over,
  overThickness,
  type Spectrum,
  shadeOf,
  sheetOf,
  smoothestSpectrum,
  stumpAfter,
  stumpFrom,
  THICKNESSES,
  TISSUES,
  translucency,
  VISIBLE,
} from '@radiant/core';

const lab = (L: number, a: number, b: number): Lab => ({ L, a, b });
const stump = (own: Lab): Spectrum => stumpFrom(smoothestSpectrum(own) as Spectrum);
const A1 = shadeOf('A1').lab;
const usual = stump(shadeOf('A3').lab);
const dark = stump(lab(55, 6, 22));
const made = (id: CeramicId, shade = A1) => ceramicOfClass(ceramicOf(id)).madeIn(shade);

describe('a ceramic of a class in a shade', () => {
  it.each(LETTER_SCALE.shades.map((s) => [s.name, s.lab] as const))('in %s a thick block has the shade', (_, shade) => {
    for (const id of ['glass-high', 'zirconia-strong'] as const)
      expect(deltaE00(colourOver(layersOf(made(id, shade), 60), dark), shade)).toBeLessThan(0.05);
  });

  it('the classes stand from clear to opaque; tissues are as translucent as measured (Yu, Ahn, Lee 2009, rough)', () => {
    const at = (own: ReturnType<typeof made>) => translucency(own, 1);
    const all = CERAMIC_CLASSES.map((c) => at(made(c.id)));
    expect([...all].sort((p, q) => q - p)).toEqual(all);
    expect(Math.abs(at(ceramicIn(TISSUES.enamel, A1)) - 18)).toBeLessThan(2);
    expect(Math.abs(at(ceramicIn(TISSUES.dentin, shadeOf('A3').lab)) - 16)).toBeLessThan(2);
  });

  it('thicker is less translucent, by nothing at all it is all there is', () => {
    const optics = made('glass-medium');
    const tp = [0.3, 0.6, 1, 1.5].map((mm) => translucency(optics, mm));
    expect([...tp].sort((p, q) => q - p)).toEqual(tp);
    // Nothing between: white against black through the surface.
    expect(translucency(optics, 0)).toBeGreaterThan(95);
  });

  it('a colour that no body has is refused in a sentence', () => {
    expect(() => ceramicIn(ceramicOf('glass-high'), lab(50, 300, 0))).toThrow('No body has the colour 50 300 0');
  });
});

describe('a ceramic in layers', () => {
  it('of one material all through is that material: layers add up', () => {
    const one = made('glass-medium');
    if (!('K' in one)) throw new Error('A glass-ceramic is one material.');
    const two = [
      { optics: one, share: 0.3 },
      { optics: one, share: 0.7 },
    ];
    for (const mm of [0.4, 1, 1.7])
      expect(deltaE00(colourOver(layersOf(two, mm), dark), colourOver(layersOf(one, mm), dark))).toBeLessThan(1e-6);
    const curves = [overThickness(one, [], dark, A1), overThickness(two, [], dark, A1)];
    curves[0]?.forEach((p, i) => {
      expect(curves[1]?.[i]?.dE).toBeCloseTo(p.dE, 6);
    });
  });

  it('enamel over dentin hides more than enamel and less than dentin alone', () => {
    const dE = (id: CeramicId) => deltaE00(colourOver(layersOf(made(id), 1), dark), A1);
    expect(dE('layered')).toBeLessThan(dE('enamel-porcelain'));
    expect(dE('layered')).toBeGreaterThan(dE('dentin-porcelain'));
  });
});

describe('over a stump', () => {
  it('thicker always comes nearer to the ceramic’s own shade, and a dark stump shows more', () => {
    for (const id of ['glass-medium', 'zirconia-translucent'] as const) {
      const over = (s: Spectrum) => overThickness(made(id), [], s, A1).map((t) => t.dE);
      const [ofDark, ofUsual] = [over(dark), over(usual)];
      for (let i = 1; i < ofDark.length; i++) expect(ofDark[i]).toBeLessThan(ofDark[i - 1] as number);
      expect(ofDark.every((dE, i) => dE > (ofUsual[i] as number))).toBe(true);
      expect(ofDark).toHaveLength(THICKNESSES.length);
    }
  });

  it('from the thickness on that is told the stump is no more seen, just before it is; opaque hides sooner', () => {
    const mm = (id: CeramicId) => hidesFrom(made(id), [], dark, usual);
    const medium = mm('glass-low') as number;
    const seen = (at: number) =>
      deltaE00(colourOver(layersOf(made('glass-low'), at), dark), colourOver(layersOf(made('glass-low'), at), usual));
    expect(seen(medium)).toBeLessThanOrEqual(VISIBLE.notTaken);
    expect(seen(medium - 0.05)).toBeGreaterThan(VISIBLE.notTaken);
    expect(mm('zirconia-strong')).toBeLessThan(medium);
    expect(mm('enamel-porcelain')).toBeUndefined();
    // Where nobody at all is to see it, it must be thicker.
    expect(hidesFrom(made('glass-low'), [], dark, usual, VISIBLE.seen)).toBeGreaterThan(medium);
  });

  it('an opaque cement is a layer of its own: it hides some of the stump', () => {
    const cement = layersOf(made('opaquer', shadeOf('A2').lab), 0.08);
    const thin = (under: Parameters<typeof colourOver>[0]) =>
      deltaE00(colourOver([...layersOf(made('glass-medium'), 0.5), ...under], dark), A1);
    expect(thin(cement)).toBeLessThan(thin([]) - 2);
  });

  it('under a warm lamp two bodies that match in daylight need not match', () => {
    // The same colour under D65 by another spectrum: a wave that sums to nothing in daylight.
    const own = colourOver([...layersOf(made('glass-medium'), 1)], dark);
    const flat = stumpFrom(smoothestSpectrum(own) as Spectrum);
    const [day, lamp] = (['D65', 'A'] as const).map((light) =>
      deltaE00(colourOver([...layersOf(made('glass-medium'), 1)], dark, light), colourOver([], flat, light)),
    ) as [number, number];
    expect(day).toBeLessThan(1e-3);
    expect(lamp).toBeGreaterThan(day);
  });
});

describe('the circle of a dark stump', () => {
  const enamel = ceramicIn(TISSUES.enamel, lab(76, 0, 14));

  it('what lies beneath a layer comes back from what both look like', () => {
    const both = over(sheetOf(enamel, 0.8), usual);
    const back = beneath(both, enamel, 0.8);
    for (let i = 0; i < NM.count; i++) expect(back[i]).toBeCloseTo(usual[i] as number, 9);
  });

  it('a stump that is not cut is the tooth; with the enamel gone it is the dentin and gets no darker', () => {
    const surface = over(sheetOf(enamel, 0.8), dark);
    const tooth = { surface, enamel, enamelMm: 0.8 };
    const [whole, bare, deep] = [0, 0.8, 1.4].map((cut) => stumpAfter(tooth, cut)) as [Spectrum, Spectrum, Spectrum];
    for (let i = 0; i < NM.count; i++) {
      expect(whole[i]).toBeCloseTo(surface[i] as number, 9);
      expect(bare[i]).toBeCloseTo(dark[i] as number, 9);
      expect(deep[i]).toBe(bare[i]);
    }
    const half = stumpAfter(tooth, 0.4);
    expect(half[15]).toBeLessThan(whole[15] as number);
    expect(half[15]).toBeGreaterThan(bare[15] as number);
  });

  it('under a clear ceramic cutting deeper into enamel makes it worse, and where it turns is told; an opaque one never turns', () => {
    const tooth = { surface: stump(lab(66, 3, 20)), enamel, enamelMm: 0.9 };
    const clear = deeper(tooth, made('glass-high'), [], A1, 0.3, 1.2);
    expect(clear.turnsAt?.cutMm).toBe(0);
    const at = (d: typeof clear, mm: number) => d.curve.find((c) => Math.abs(c.cutMm - mm) < 1e-9)?.dE as number;
    expect(at(clear, 0.8)).toBeGreaterThan(at(clear, 0) + 3);
    const strong = deeper(tooth, made('zirconia-strong'), [], A1, 0.3, 1.2);
    expect(strong.turnsAt).toBeUndefined();
    expect(strong.best.dE).toBeLessThan(VISIBLE.seen);
    for (const { cutMm, ceramicMm } of clear.curve) expect(ceramicMm - cutMm).toBeCloseTo(0.3, 12);
  });

  it('over a light tooth it never turns: the ceramic alone decides', () => {
    const tooth = { surface: stump(shadeOf('A1').lab), enamel: ceramicIn(TISSUES.enamel, A1), enamelMm: 0.9 };
    const d = deeper(tooth, made('glass-medium'), [], A1, 0.3, 1);
    expect(d.turnsAt).toBeUndefined();
    expect(d.best.dE).toBeLessThan(VISIBLE.seen);
    expect(evenSpectrum(0.5)).toHaveLength(NM.count);
  });
});
