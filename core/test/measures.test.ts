import {
  difference,
  differs,
  type Errors,
  EVEN,
  type Figure,
  frontRow,
  gapsBetween,
  type LandmarkSet,
  levelled,
  measureTeeth,
  OWN_ROLES,
  rollOf,
  SEEN_FROM_FRONT,
  STRAIGHT,
  scaleOf,
  together,
} from '@radiant/core';
import { random } from '@radiant/standins';

/** Ten pixels a millimetre, drawn level; widths and lengths as the front view shows them, mm. */
const PX = 10;
const SCALE = scaleOf({ from: [0, 0], to: [200, 0], mm: 20 });
const SHOWN: Readonly<Record<number, readonly [width: number, length: number]>> = {
  13: [6, 10],
  12: [5.6, 9],
  11: [8.4, 10.5],
  21: [8.4, 10.1],
  22: [5.7, 9],
  23: [6, 10],
};

/**
 * Teeth side by side from the patient's right, their gum lines at one height, with a gap before a tooth where asked.
 */
function drawn(gapBefore: Readonly<Record<number, number>> = {}): LandmarkSet {
  let x = 30;
  const out: Record<number, LandmarkSet[number]> = {};
  for (const t of frontRow()) {
    const [w, l] = SHOWN[t] as readonly [number, number];
    x += (gapBefore[t] ?? 0) * PX;
    const [left, right] = [x, x + w * PX];
    out[t] = {
      zenith: [x + (w * PX) / 2, 100],
      edge: [x + (w * PX) / 2, 100 + l * PX],
      mesial: [t < 20 ? right : left, 160],
      distal: [t < 20 ? left : right, 160],
    };
    x = right;
  }
  return out;
}

/** The whole picture turned about its origin, clockwise positive as the screen shows it, then enlarged and moved. */
function seenThrough(set: LandmarkSet, deg: number, enlarge = 1, by: readonly [number, number] = [0, 0]): LandmarkSet {
  const turned = (p: readonly [number, number]) =>
    levelled(p, -deg).map((v, k) => v * enlarge + (by[k] as number)) as [number, number];
  return Object.fromEntries(
    Object.entries(set).map(([t, marks]) => [
      t,
      Object.fromEntries(Object.entries(marks ?? {}).map(([kind, p]) => [kind, turned(p as [number, number])])),
    ]),
  );
}
/** Teeth on squared paper: there is no camera that could be turned, and nothing lies behind. */
const PAPER = { stand: STRAIGHT };
const measured = (set: LandmarkSet, scale = SCALE) => measureTeeth(set, scale, OWN_ROLES, PAPER);
const of = (set: LandmarkSet, tooth: number, scale = SCALE) => measured(set, scale).find((m) => m.tooth === tooth);
const gapsOf = (set: LandmarkSet) => gapsBetween(set, SCALE, frontRow(), OWN_ROLES, PAPER);

describe('a tooth drawn at ten pixels a millimetre', () => {
  it.each(frontRow().map((t) => [t] as const))(
    '%i is as wide and long as it was drawn, enlarged by the share that a front view shows',
    (tooth) => {
      const [width, length] = SHOWN[tooth] as readonly [number, number];
      const kind = (['', 'central', 'lateral', 'canine'] as const)[tooth % 10] as keyof typeof SEEN_FROM_FRONT;
      const m = of(drawn(), tooth);
      // The uneven central edges tip the level line by a hundredth of a degree or so.
      expect(m?.frontWidth?.value).toBeCloseTo(width, 4);
      expect(m?.width?.value).toBeCloseTo(width / SEEN_FROM_FRONT[kind].width, 4);
      expect(m?.length?.value).toBeCloseTo(length / SEEN_FROM_FRONT[kind].length, 2);
      expect(m?.ratio?.value).toBeCloseTo((100 * (m?.width?.value ?? 0)) / (m?.length?.value ?? 1), 9);
    },
  );

  it('levels are counted from the lower central edge, up positive', () => {
    const set = drawn();
    expect(of(set, 11)?.edgeLevel?.value).toBeCloseTo(0, 9);
    expect(Math.abs((of(set, 21)?.edgeLevel?.value ?? 0) - 0.4)).toBeLessThan(0.02);
    expect(Math.abs((of(set, 12)?.edgeLevel?.value ?? 0) - 1.5)).toBeLessThan(0.02);
    expect(Math.abs((of(set, 11)?.zenithLevel?.value ?? 0) - 10.5)).toBeLessThan(0.02);
  });

  it.each([2, -4, 7.5])('a picture rolled by %f° measures the same', (deg) => {
    const set = seenThrough(drawn(), deg);
    expect(rollOf(set)).toBeCloseTo(deg, 0);
    expect(Math.abs((of(set, 12)?.frontWidth?.value ?? 0) - 5.6)).toBeLessThan(0.02);
    expect(Math.abs((of(set, 22)?.frontWidth?.value ?? 0) - 5.7)).toBeLessThan(0.02);
  });

  it('so does one that is moved, or larger with its scale', () => {
    const moved = seenThrough(drawn(), 0, 1, [123.5, -41]);
    const large = seenThrough(drawn(), 0, 3);
    const largeScale = scaleOf({ from: [0, 0], to: [600, 0], mm: 20 });
    for (const t of frontRow()) {
      expect(of(moved, t)?.length?.value).toBeCloseTo(of(drawn(), t)?.length?.value ?? 0, 9);
      expect(of(large, t, largeScale)?.length?.value).toBeCloseTo(of(drawn(), t)?.length?.value ?? 0, 9);
    }
  });
});

describe('the error of a measure', () => {
  it('is that of two points set by hand when the scale is certain', () => {
    const certain: Figure = { ...SCALE, pm: 0 };
    // 1.96 · √(0.07² + 0.08²) mm: a mesial and a distal border. The level's own error turns it by nothing to speak of.
    expect(of(drawn(), 11, certain)?.frontWidth?.pm).toBeCloseTo(0.2083, 3);
  });

  it('grows with an uncertain scale, and more so for the longer length', () => {
    const short = scaleOf({ from: [0, 0], to: [50, 0], mm: 5 });
    const wide = (s: Figure) => of(drawn(), 11, s)?.frontWidth?.pm ?? 0;
    expect(wide(short)).toBeGreaterThan(1.4 * wide(SCALE));
    const m = of(drawn(), 11, short);
    expect(m?.length?.pm).toBeGreaterThan(m?.frontWidth?.pm ?? 9);
  });

  it('of a side tooth holds that nobody knows how far it turns away', () => {
    const relative = (t: number) => {
      const w = of(drawn(), t)?.width;
      return (w?.pm ?? 0) / (w?.value ?? 1);
    };
    expect(relative(13)).toBeGreaterThan(2 * relative(11));
  });

  it('of a difference is the root of the squares', () => {
    const f = (value: number, pm: number): Figure => ({ ...SCALE, value, pm, unit: 'mm' });
    const d = difference(f(10, 0.3), f(9, 0.4));
    expect(d).toMatchObject({ value: 1, unit: 'mm' });
    expect(d.pm).toBeCloseTo(0.5, 9);
  });

  it('of a difference leaves out what both have in common', () => {
    const f = (value: number, errors: Errors): Figure => ({
      ...SCALE,
      value,
      pm: together(errors),
      unit: 'mm',
      errors,
    });
    const [a, b] = [f(10, { scale: 0.4, a: 0.3 }), f(9, { scale: 0.36, b: 0.4 })];
    expect(a.pm).toBeCloseTo(0.5, 9);
    expect(difference(a, b).pm).toBeCloseTo(Math.hypot(0.04, 0.3, 0.4), 6);
    expect(differs(a, b)).toBe(true);
    // What pulls them apart adds up, root of squares or not.
    expect(difference(f(1, { tilt: 0.3 }), f(1, { tilt: -0.3 })).pm).toBeCloseTo(0.6, 9);
  });

  it('of a tooth against its fellow is less than both have by themselves', () => {
    const short = scaleOf({ from: [0, 0], to: [30, 0], mm: 3 });
    const [a, b] = [of(drawn(), 12, short)?.frontWidth, of(drawn(), 22, short)?.frontWidth] as [Figure, Figure];
    expect(a.pm).toBeGreaterThan(0.3);
    expect(difference(a, b).pm).toBeLessThan(0.32);
  });

  // By sampling: the sum of an evenly spread error and a normal one, each known by 1.96 of its standard deviations.
  it.each([0.3, 0.6, 0.8, 0.95, 1])(
    'holds 95 in 100 where an evenly spread cause has %f of the variance (seed 31)',
    (share) => {
      const r = random(31);
      const [even, normal] = [Math.sqrt(share), Math.sqrt(1 - share)];
      const pm = together({ [`${EVEN}turn`]: 1.96 * even, hand: 1.96 * normal });
      let held = 0;
      for (let i = 0; i < 40_000; i++)
        if (Math.abs(even * Math.sqrt(3) * (2 * r.next() - 1) + r.normal(normal)) <= pm) held++;
      expect(Math.abs(held / 40_000 - 0.95)).toBeLessThan(0.008);
    },
  );

  it('of a ratio leaves out the scale, which width and length share', () => {
    const [short, long] = [
      scaleOf({ from: [0, 0], to: [30, 0], mm: 3 }),
      scaleOf({ from: [0, 0], to: [400, 0], mm: 40 }),
    ];
    const pm = (s: Figure) => of(drawn(), 11, s)?.ratio?.pm ?? 0;
    expect(pm(short) / pm(long)).toBeLessThan(1.02);
  });
});

describe('gaps', () => {
  it('between teeth that touch there are none', () => {
    expect(gapsOf(drawn())).toMatchObject({ value: 0 });
  });

  it('a gap is found along the arch: a little more than the front view shows of it', () => {
    const gap = gapsOf(drawn({ 11: 0.8 })).value;
    expect(gap).toBeGreaterThan(0.8);
    expect(gap).toBeLessThan(0.95);
  });

  it('add up, and an overlap takes nothing from them', () => {
    const both = gapsOf(drawn({ 12: 0.5, 23: 0.5 }));
    const one = gapsOf(drawn({ 12: 0.5 }));
    expect(both.value).toBeCloseTo(2 * one.value, 1);
    expect(gapsOf(drawn({ 12: 0.5, 22: -0.6 })).value).toBeCloseTo(one.value, 6);
  });

  it('smaller than a point can be set again count as none', () => {
    expect(gapsOf(drawn({ 21: 0.09 })).value).toBe(0);
  });
});

describe('what is missing', () => {
  it('without a pair of points no roll is claimed', () => {
    expect(rollOf({ 11: { edge: [10, 10] } })).toBeUndefined();
    expect(rollOf({})).toBeUndefined();
  });

  it('a tooth without points has no figures, and nothing is made up', () => {
    const { 12: _, ...rest } = drawn() as Record<number, LandmarkSet[number]>;
    expect(of(rest, 12)).toEqual({ tooth: 12 });
  });

  it('levels need a central’s edge to count from', () => {
    const set = drawn() as Record<number, LandmarkSet[number]>;
    const without = { ...set, 11: { zenith: set[11]?.zenith }, 21: { zenith: set[21]?.zenith } } as LandmarkSet;
    expect(of(without, 12)?.edgeLevel).toBeUndefined();
    expect(of(without, 12)?.length?.value).toBeCloseTo(9, 1);
  });

  it('every figure tells its formula, and every input its source', () => {
    for (const m of measureTeeth(drawn(), SCALE)) {
      const figures = Object.values(m).filter((f): f is Figure => typeof f === 'object');
      expect(figures.length).toBe(6);
      for (const f of figures) {
        expect(f.working.formula).not.toBe('');
        expect(f.working.inputs.every((i) => i.source.text.length > 0)).toBe(true);
      }
    }
  });
});
