import {
  CEMENTS,
  type CeramicId,
  ceramicOf,
  ceramicOfClass,
  cuttingDeeper,
  deltaE00,
  dentinUnder,
  ENAMEL_IN_THE_MOUTH,
  type EnamelGuess,
  type Lab,
  labOf,
  MATCH_PM,
  type MatchQuestion,
  matched,
  over,
  screenRgb,
  shadeOf,
  sheetOf,
  smoothestSpectrum,
  throughSurface,
  underCements,
  VISIBLE,
} from '@radiant/core';
import { converter } from 'culori';

const A1 = shadeOf('A1').lab;
const made = (id: CeramicId) => ceramicOfClass(ceramicOf(id));
const DARK: Lab = { L: 56, a: 4, b: 19 };
const ask = (more: Partial<MatchQuestion> = {}): MatchQuestion => ({
  stump: shadeOf('A3').lab,
  wanted: A1,
  cement: 'clear',
  enamelMm: 0.8,
  cutMm: 0.5,
  ceramicMm: 0.7,
  ...more,
});
const GUESSES = Object.keys(ENAMEL_IN_THE_MOUTH) as EnamelGuess[];

describe('the dentin that is taken for under a tooth', () => {
  it.each([
    ['A2', shadeOf('A2').lab],
    ['C4', shadeOf('C4').lab],
    ['a dark, root-filled tooth', DARK],
  ] as const)('with its enamel is as light as the tooth was read: %s', (_, seen) => {
    for (const guess of GUESSES) {
      const { dentin, enamel } = dentinUnder(seen, 0.8, guess);
      const whole = labOf(throughSurface(over(sheetOf(enamel, 0.8), dentin)));
      expect(Math.abs(whole.L - seen.L)).toBeLessThan(0.5);
    }
  });

  it('is brown or yellow and never blue or violet, and darker under a darker tooth', () => {
    // A fact of the trade: discoloured dentin is brown to grey.
    const dentinOf = (seen: Lab) => labOf(throughSurface(dentinUnder(seen, 0.8, 'middle').dentin));
    const shades = [shadeOf('A1').lab, shadeOf('A3').lab, shadeOf('C4').lab, DARK];
    const all = shades.map(dentinOf);
    for (const d of all) {
      expect(d.b).toBeGreaterThan(8);
      expect(d.a).toBeLessThan(12);
    }
    for (let i = 1; i < all.length; i++) expect(all[i]?.L).toBeLessThanOrEqual((all[i - 1]?.L ?? 0) + 1e-6);
  });

  it('clearer enamel needs no darker dentin to look as dark', () => {
    const L = GUESSES.map((g) => labOf(throughSurface(dentinUnder(shadeOf('A4').lab, 0.8, g).dentin)).L);
    expect([...L].sort((a, b) => b - a)).toEqual(L);
  });
});

describe('ceramics over a stump', () => {
  it('over a stump of the wanted colour each is it, whatever its thickness', () => {
    for (const c of matched(ask({ stump: A1 })).candidates) {
      expect(c.planned.dE).toBeLessThan(VISIBLE.notTaken);
      expect(c.hidesFromMm).toBe(0.2);
    }
  });

  it('the more opaque, the nearer over a dark stump; zirconia of high strength hides it where medium glass does not', () => {
    // Common practice: a dark stump asks for an opaque core.
    const { candidates } = matched(ask({ stump: DARK }));
    const dE = candidates.map((c) => c.planned.dE);
    expect([...dE].sort((a, b) => b - a)).toEqual(dE);
    const of = (id: string) => candidates.find((c) => c.ceramic === id);
    expect(of('glass-medium')?.planned.dE).toBeGreaterThan(VISIBLE.notTaken);
    expect(of('zirconia-strong')?.planned.dE).toBeLessThan(VISIBLE.notTaken);
  });

  it('the cut stump is taken where it was read; else it is worked out from the tooth, and said so', () => {
    const read = matched(ask({ tooth: shadeOf('C4').lab, stump: DARK }));
    expect(read.stumpRead).toBe(true);
    for (const c of ['L', 'a', 'b'] as const) expect(read.stump[c]).toBeCloseTo(DARK[c], 4);
    const guessed = matched(ask({ tooth: shadeOf('C4').lab, stump: undefined }));
    expect(guessed.stumpRead).toBe(false);
    // Enamel has gone: what is left is darker than the tooth was.
    expect(guessed.stump.L).toBeLessThan(shadeOf('C4').lab.L);
    expect(() => matched(ask({ stump: undefined }))).toThrow(
      'Read the tooth before it is cut, or the stump after, wet.',
    );
  });

  it('where nothing is cut the stump is the tooth as it was read', () => {
    const own = matched(ask({ tooth: shadeOf('C4').lab, stump: undefined, cutMm: 0 }));
    expect(deltaE00(own.stump, shadeOf('C4').lab)).toBeLessThan(0.05);
  });

  it('the band covers what is true when reading and thickness are off by their errors, in 93 to 100 of 100', () => {
    // A fixed row of numbers between −1 and 1, as even as chance.
    let seed = 7;
    const next = () => {
      seed = (seed * 16807) % 2147483647;
      return seed / 2147483647;
    };
    const normal = () => Math.sqrt(-2 * Math.log(next() || 0.5)) * Math.cos(2 * Math.PI * next());
    let [within, all] = [0, 0];
    for (let i = 0; i < 60; i++) {
      const truth: Lab = { L: 55 + 20 * next(), a: 5 * next(), b: 14 + 10 * next() };
      const mm = 0.5 + next();
      const c = made('glass-medium');
      const [real] = matched(ask({ stump: truth, ceramicMm: mm }), [c]).candidates;
      const half = MATCH_PM.lab / 1.96;
      const stump = { L: truth.L + half * normal(), a: truth.a + half * normal(), b: truth.b + half * normal() };
      const told = matched(ask({ stump, ceramicMm: mm + (MATCH_PM.mm / 1.96) * normal() }), [c]).candidates[0];
      all++;
      if ((real?.planned.dE ?? 0) >= (told?.from ?? 9) && (real?.planned.dE ?? 9) <= (told?.to ?? 0)) within++;
    }
    expect(within / all).toBeGreaterThanOrEqual(0.93);
  });

  it('a reading by wavelengths is taken as it is; a colour alone as the smoothest body that has it', () => {
    const smooth = smoothestSpectrum(DARK) as Float64Array;
    const same = matched(ask({ stump: DARK, stumpSpectrum: [...smooth] }));
    const plain = matched(ask({ stump: DARK }));
    same.candidates.forEach((c, i) => {
      expect(c.planned.dE).toBeCloseTo(plain.candidates[i]?.planned.dE ?? -1, 9);
    });
  });
});

describe('cements and depth', () => {
  it('the cements are told from the nearest on; a covering one hides more of a dark stump than a clear one', () => {
    const told = underCements(ask({ stump: DARK }), made('glass-high'));
    expect(told).toHaveLength(CEMENTS.length);
    expect(told.map((c) => c.dE)).toEqual(told.map((c) => c.dE).sort((a, b) => a - b));
    const of = (id: string) => told.find((c) => c.cement === id)?.dE ?? 0;
    expect(of('opaque')).toBeLessThan(of('clear'));
  });

  it('cutting deeper through enamel brings less than the same ceramic added in front', () => {
    const q = ask({ tooth: DARK, stump: undefined });
    const own = cuttingDeeper(q, made('glass-medium'));
    const at = (mm: number) => own?.middle.curve.find((p) => Math.abs(p.cutMm - mm) < 0.01)?.dE ?? 0;
    const cut = at(0.4) - at(0.7);
    const dE = (ceramicMm: number) =>
      matched({ ...q, cutMm: 0.4, ceramicMm }, [made('glass-medium')]).candidates[0]?.planned.dE ?? 0;
    expect(cut).toBeLessThan(dE(0.6) - dE(0.9));
    expect(cuttingDeeper(ask(), made('glass-medium'))).toBeUndefined();
  });
});

it('a colour on the screen is what culori shows for it', () => {
  const rgb = converter('rgb');
  for (const s of [A1, DARK, shadeOf('B4').lab]) {
    const own = screenRgb(s);
    const theirs = rgb({ mode: 'lab65', l: s.L, a: s.a, b: s.b });
    [theirs?.r, theirs?.g, theirs?.b].forEach((v, i) => {
      expect(Math.abs((v ?? 9) - (own[i] as number))).toBeLessThan(0.002);
    });
  }
});
