import { css, DIFFERENCE_RANGE_MM, differenceColour, removalColour } from '../src/bench/colour-scale.js';
import { toothOutline } from '../src/bench/tooth-outline.js';
import { STAGES } from '../src/stages/index.js';
import { day, moment, number, signed } from '../src/ui/format.js';

describe('days in words', () => {
  it('a day of the calendar is that day in every zone; what is no day stands as it is', () => {
    const year = new Date().getFullYear();
    expect(day(`${year}-12-18`)).toBe('18 December');
    expect(day('2019-01-01')).toBe('1 January 2019');
    expect(day('2024-W10-3')).toBe('2024-W10-3');
    expect(moment('soon')).toBe('soon');
  });
});

describe('figures in words', () => {
  it('carry a true minus sign', () => {
    expect(number(-0.44, 1)).toBe('−0.4');
    expect(number(10.125, 2)).toBe('10.13');
    expect(number(3, 0)).toBe('3');
  });

  it('that round to nothing have no sign', () => {
    expect(number(-0.02, 1)).toBe('0.0');
    expect(signed(0.02, 1)).toBe('0.0');
    expect(signed(-0.02, 1)).toBe('0.0');
  });

  it('of a difference show which way it goes', () => {
    expect([0.6, -0.6, 0].map((v) => signed(v, 1))).toEqual(['+0.6', '−0.6', '0.0']);
  });
});

describe('dates in words', () => {
  it('are written out, with the year when it is another', () => {
    const year = new Date().getFullYear();
    expect(day(`${year}-12-18T12:00:00`)).toBe('18 December');
    expect(day('2031-02-03T12:00:00')).toBe('3 February 2031');
  });

  it('with the time by the 24-hour clock', () => {
    expect(moment('2031-02-03T14:05:00')).toBe('3 February 2031, 14:05');
  });
});

describe('the colours of added and removed', () => {
  /** Relative luminance (WCAG 2.2, from sRGB). */
  const luminance = (rgb: readonly number[]) =>
    rgb
      .map((v) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4))
      .reduce((sum, v, i) => sum + v * ([0.2126, 0.7152, 0.0722][i] as number), 0);
  /**
   * What a person without red-sensitive cones sees (Viénot, Brettel, Mollon 1999, Color Res Appl 24:243, from memory).
   */
  const protan = ([r, g, b]: readonly [number, number, number]) =>
    [0.11238 * r + 0.88762 * g, 0.11238 * r + 0.88762 * g, 0.00401 * r - 0.00401 * g + b] as const;
  const apart = (a: readonly number[], b: readonly number[]) => Math.hypot(...a.map((v, i) => v - (b[i] as number)));

  it('nothing is porcelain, and so is what a scan can’t tell', () => {
    expect(differenceColour(0)).toEqual(differenceColour(0.03));
    expect(differenceColour(0)).toEqual(differenceColour(-0.03));
    expect(luminance(differenceColour(0))).toBeGreaterThan(0.85);
  });

  it('deepen with the amount on both sides, and end at the scale’s end', () => {
    for (const sign of [1, -1]) {
      const steps = [0.1, 0.3, 0.6, 1].map((mm) => luminance(differenceColour(sign * mm)));
      expect([...steps].sort((a, b) => b - a)).toEqual(steps);
      expect(differenceColour(sign * DIFFERENCE_RANGE_MM)).toEqual(differenceColour(sign * 5));
    }
  });

  it('stay apart for a person who is red-blind', () => {
    for (const mm of [0.3, 0.6, 1])
      expect(apart(protan(differenceColour(mm)), protan(differenceColour(-mm)))).toBeGreaterThan(0.2);
  });

  it('are blue for added and amber for removed, never red against green', () => {
    const [ar, ag, ab] = differenceColour(1);
    const [rr, rg, rb] = differenceColour(-1);
    expect(ab).toBeGreaterThan(Math.max(ar, ag));
    expect(rr).toBeGreaterThan(rg);
    expect(rg).toBeGreaterThan(2 * rb);
  });

  it('a zone where nothing is cut is white; deeper is deeper', () => {
    expect(removalColour(0)).toBe('#ffffff');
    const green = (mm: number) => Number(/rgb\(\d+ (\d+)/.exec(removalColour(mm))?.[1]);
    expect([0.1, 0.3, 0.5, 0.7].map(green)).toEqual([0.1, 0.3, 0.5, 0.7].map(green).sort((a, b) => b - a));
    expect(removalColour(0.7)).toBe(removalColour(1.5));
  });

  it('are written as the browser reads them', () => {
    expect(css([0, 0.5, 1])).toBe('rgb(0 128 255)');
  });
});

describe('a tooth’s outline', () => {
  const size = { widthMm: 8.5, lengthMm: 10.5, facialVolumeMm: 0 };
  const places = (path: string) =>
    [...path.matchAll(/[ML](-?[\d.]+) (-?[\d.]+)/g)].map((m) => [Number(m[1]), Number(m[2])] as const);

  it('is one closed path as wide and long as the tooth', () => {
    const { path, heightMm } = toothOutline(11, size);
    const xs = places(path).map((p) => p[0]);
    expect(path.match(/[MZ]/g)).toEqual(['M', 'Z']);
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(8.5, 1);
    expect(heightMm).toBeCloseTo(10.5, 0);
    expect(Math.min(...places(path).map((p) => p[1]))).toBeCloseTo(-heightMm, 1);
  });

  it('of the other side is its mirror', () => {
    const sum = (t: number) => places(toothOutline(t, size).path).reduce((s, p) => s + p[0], 0);
    expect(sum(21)).toBeCloseTo(-sum(11), 0);
  });

  it('is drawn once for one size, and anew for another', () => {
    expect(toothOutline(11, size)).toBe(toothOutline(11, { ...size }));
    expect(toothOutline(11, { ...size, lengthMm: 11 })).not.toBe(toothOutline(11, size));
  });

  it('that was long not asked for is let go, and comes out the same again', () => {
    const first = toothOutline(22, size);
    for (let i = 0; i < 130; i++) toothOutline(22, { ...size, lengthMm: 9 + i / 100 });
    const again = toothOutline(22, size);
    expect(again).not.toBe(first);
    expect(again).toEqual(first);
  });
});

it('the journey goes from meet to keep, and each stage asks one question', () => {
  expect(STAGES.map((s) => s.name)).toEqual([
    'meet',
    'read',
    'propose',
    'shape',
    'decide',
    'match',
    'direct',
    'reduce',
    'book',
    'treat',
    'verify',
    'keep',
  ]);
  expect(new Set(STAGES.map((s) => s.question)).size).toBe(STAGES.length);
});
