import {
  differs,
  type Figure,
  findings,
  frontRow,
  gapsBetween,
  type LandmarkSet,
  LENGTH_ASYMMETRY_NOTICED,
  measureTeeth,
  RATIO_UNWORN,
  RATIO_WORN,
  Refusal,
  requireLandmarks,
  rollOf,
  SEEN_FROM_FRONT,
  STRAIGHT,
  scaleOf,
  type ToothMeasure,
  WIDTH,
} from '@radiant/core';
import {
  AVOCET,
  makePatient,
  project,
  RETRACTED_FRONT,
  scalePoints,
  scatteredRecipe,
  truePoints,
} from '@radiant/standins';

const codeOf = (act: () => unknown) => {
  try {
    act();
  } catch (e) {
    return (e as Refusal).code;
  }
  return 'accepted';
};

const landmarksOf = (recipe: Parameters<typeof makePatient>[0], camera = RETRACTED_FRONT): LandmarkSet =>
  Object.fromEntries(
    makePatient(recipe)
      .teeth.filter((t) => frontRow().includes(t.tooth))
      .map((t) => [
        t.tooth,
        Object.fromEntries(Object.entries(truePoints(t)).map(([kind, p]) => [kind, project(camera, p)])),
      ]),
  );

const figure = (value: number, pm = 0): Figure => ({ value, pm, unit: 'mm', working: { formula: '', inputs: [] } });

describe('calibration', () => {
  it('is millimetres over pixels, less certain the shorter the scale', () => {
    const long = scaleOf({ from: [0, 0], to: [300, 400], mm: 20 });
    expect(long.value).toBeCloseTo(0.04, 12);
    const short = scaleOf({ from: [0, 0], to: [30, 40], mm: 2 });
    expect(short.pm / short.value).toBeCloseTo((10 * long.pm) / long.value, 9);
  });

  it.each<[string, () => unknown, string]>([
    ['0 mm', () => scaleOf({ from: [0, 0], to: [100, 0], mm: 0 }), 'calibration-zero'],
    ['a negative length', () => scaleOf({ from: [0, 0], to: [100, 0], mm: -5 }), 'calibration-zero'],
    ['two points at one place', () => scaleOf({ from: [7, 7], to: [7, 7], mm: 10 }), 'points-coincide'],
    ['NaN', () => scaleOf({ from: [Number.NaN, 0], to: [100, 0], mm: 10 }), 'number-invalid'],
    [
      'a landmark outside the picture',
      () => requireLandmarks({ 11: { edge: [1500.1, 3] } }, 1500, 1000),
      'landmark-outside',
    ],
    [
      'a landmark that is no number',
      () => requireLandmarks({ 11: { edge: [Number.NaN, 3] } }, 1500, 1000),
      'number-invalid',
    ],
    [
      'two landmarks of a tooth at one place',
      () => requireLandmarks({ 11: { edge: [5, 3], zenith: [5, 3] } }, 1500, 1000),
      'points-coincide',
    ],
    ['landmarks on no tooth', () => requireLandmarks({ 99: { edge: [5, 3] } }, 1500, 1000), 'tooth-unknown'],
  ])('refuses %s', (_, act, code) => {
    expect(codeOf(act)).toBe(code);
  });
});

describe('measures on a photograph whose millimetres are known', () => {
  const camera = RETRACTED_FRONT;
  const measures = (recipe: Parameters<typeof makePatient>[0], c = camera) =>
    measureTeeth(landmarksOf(recipe, c), scaleOf(scalePoints(c)));

  it.each([0, 3, -6])('centrals come within 0.1 mm in length and width at a roll of %i°', (rollDeg) => {
    const truth = new Map(makePatient(AVOCET).teeth.map((t) => [t.tooth, t.crown.size]));
    const found = measures(AVOCET, { ...camera, rollDeg });
    expect(Math.abs((rollOf(landmarksOf(AVOCET, { ...camera, rollDeg })) ?? 0) - rollDeg)).toBeLessThan(0.6);
    for (const m of found.filter((q) => q.tooth % 10 === 1)) {
      const t = truth.get(m.tooth);
      expect(Math.abs((m.width?.value ?? 0) - (t?.widthMm ?? 0))).toBeLessThan(0.1);
      expect(Math.abs((m.length?.value ?? 0) - (t?.lengthMm ?? 0))).toBeLessThan(0.27);
    }
  });

  it('the truth lies within the ± of every tooth of scattered patients about 95 times in 100', () => {
    let inside = 0;
    let all = 0;
    for (let seed = 11; seed < 27; seed++) {
      const truth = new Map(makePatient(scatteredRecipe(seed)).teeth.map((t) => [t.tooth, t.crown.size]));
      for (const m of measures(scatteredRecipe(seed))) {
        const t = truth.get(m.tooth);
        for (const [f, v] of [
          [m.width, t?.widthMm],
          [m.length, t?.lengthMm],
        ] as const) {
          all++;
          if (f && v && Math.abs(f.value - v) <= f.pm) inside++;
        }
      }
    }
    expect(all).toBe(192);
    expect(inside / all).toBeGreaterThan(0.93);
  });

  it('the shares seen from the front are the means of virtual patients', () => {
    const seen: Record<string, { width: number[]; length: number[] }> = {};
    for (let seed = 51; seed < 63; seed++) {
      const patient = makePatient(scatteredRecipe(seed));
      for (const t of patient.teeth.filter((q) => frontRow().includes(q.tooth))) {
        const kind = t.crown.tooth % 10 === 1 ? 'central' : t.crown.tooth % 10 === 2 ? 'lateral' : 'canine';
        const p = truePoints(t);
        seen[kind] ??= { width: [], length: [] };
        seen[kind].width.push(Math.abs(p.mesial[0] - p.distal[0]) / t.crown.size.widthMm);
        seen[kind].length.push((p.zenith[2] - p.edge[2]) / t.crown.size.lengthMm);
      }
    }
    const mean = (v: number[]) => v.reduce((a, b) => a + b, 0) / v.length;
    for (const [kind, s] of Object.entries(SEEN_FROM_FRONT)) {
      expect(Math.abs(mean(seen[kind]?.width ?? []) - s.width)).toBeLessThan(0.025);
      expect(Math.abs(mean(seen[kind]?.length ?? []) - s.length)).toBeLessThan(0.015);
    }
  });

  it('a gap beside the small lateral is found, and none where teeth touch', () => {
    // A gap that can be told from none, and only the one: the small one on its other side is closed.
    const alone: Parameters<typeof makePatient>[0] = {
      ...AVOCET,
      traits: {
        ...AVOCET.traits,
        13: { ...AVOCET.traits[13], gapMesialMm: 0 },
        12: { ...AVOCET.traits[12], gapMesialMm: 1.1 },
      },
    };
    const set = landmarksOf(alone);
    const gaps = gapsBetween(set, scaleOf(scalePoints(camera)));
    const [lateral, central] = [12, 11].map((t) => makePatient(alone).teeth.find((q) => q.tooth === t));
    if (!lateral || !central) throw new Error('Avocet has lost a tooth.');
    const open = truePoints(central).distal[0] - truePoints(lateral).mesial[0];
    expect(Math.abs(gaps.value - open)).toBeLessThan(gaps.pm);
    expect(gaps.working.inputs[0]?.value).toBe(1);
  });

  it('a tooth without all its landmarks has just the figures that these allow', () => {
    const only = measureTeeth(
      { 11: { mesial: [100, 50], distal: [300, 50] } },
      scaleOf({ from: [0, 0], to: [500, 0], mm: 20 }),
      undefined,
      { stand: STRAIGHT },
    );
    const m = only.find((q) => q.tooth === 11) as ToothMeasure;
    expect(m.frontWidth?.value).toBeCloseTo(8, 9);
    expect(m.length).toBeUndefined();
    expect(m.ratio).toBeUndefined();
  });
});

describe('findings', () => {
  const tooth = (t: number, length: number, width: number, pm = 0.1): ToothMeasure => ({
    tooth: t,
    length: figure(length, pm),
    width: figure(width, pm),
    frontWidth: figure(width, pm),
    ratio: { ...figure((100 * width) / length, 2), unit: '%' },
  });
  const even = frontRow().map((t) =>
    t % 10 === 1 ? tooth(t, 10.9, 8.5) : t % 10 === 2 ? tooth(t, 8.9, 6.5) : tooth(t, 10.3, 7.5),
  );
  const withLength = (t: number, length: number) =>
    even.map((m) => (m.tooth === t ? { ...m, length: figure(length, 0.1), ratio: undefined as never } : m));

  it('an even smile within the norms has none', () => {
    expect(findings(even)).toEqual([]);
  });

  // Kokich, Kiyak, Shapiro 1999; Kokich et al. 2006 (from memory): orthodontists 0.5, dentists 1.0, laypeople 1.5 mm.
  it.each([
    [0.45, 'nobody'],
    [0.55, 'orthodontists'],
    [1.05, 'dentists'],
    [1.4, 'dentists'],
    [1.55, 'people'],
  ])('a central shorter by %f mm is noticed by %s', (by, who) => {
    const f = findings(withLength(21, 10.9 - by)).find((q) => q.id === 'length-11');
    expect(f?.notice).toBe(who);
    expect(f?.teeth).toEqual([21, 11]);
  });

  it('a difference smaller than its error is no difference', () => {
    expect(findings(withLength(21, 10.9 - 0.13)).some((f) => f.id === 'length-11')).toBe(false);
    expect(differs({ value: 1, pm: 0.3 }, { value: 1.4, pm: 0.3 })).toBe(false);
    expect(differs({ value: 1, pm: 0.2 }, { value: 1.4, pm: 0.2 })).toBe(true);
  });

  it('a canine shorter than its lateral is told, one that may be as long is not', () => {
    expect(findings(withLength(13, 8.7)).map((f) => f.id)).toContain('canine-13');
    expect(findings(withLength(13, 8.85)).map((f) => f.id)).not.toContain('canine-13');
  });

  const level = (t: number, length: number, edge: number): ToothMeasure => ({
    ...(even.find((m) => m.tooth === t) as ToothMeasure),
    length: figure(length, 0.1),
    edgeLevel: figure(edge, 0.1),
    zenithLevel: figure(edge + length, 0.1),
    ratio: undefined as never,
  });
  const levels = (own: readonly ToothMeasure[]) => findings(even.map((m) => own.find((o) => o.tooth === m.tooth) ?? m));

  it('a difference in length says whether it lies at the edge or at the gum', () => {
    const detail = (own: readonly ToothMeasure[]) => levels(own).find((f) => f.id === 'length-11')?.detail;
    expect(detail([level(11, 10.9, 0), level(21, 9.9, 1)])).toMatch(
      /The edge of \{21\} stands 1\.0 ±0\.1 mm higher\.$/,
    );
    expect(detail([level(11, 10.9, 0), level(21, 9.9, 0)])).toMatch(/The gum of \{11\} stands 1\.0 ±0\.1 mm higher\.$/);
  });

  it('two teeth as long at unlike heights have unlike gum levels', () => {
    const found = levels([level(11, 10.9, 0), level(21, 10.9, 0.9)]);
    expect(found.map((f) => f.id)).toEqual(['gum-level-11']);
    expect(found[0]?.title).toMatch(/^The gum of \{21\} stands 0\.9 ±0\.1 mm higher than that of \{11\}$/);
    expect(levels([level(11, 10.9, 0), level(21, 10.9, 0.3)])).toEqual([]);
  });

  it('edges at unlike heights are told where neither length nor gum tells it', () => {
    const [right, left] = [level(11, 10.9, 0), level(21, 10.3, 0.7)].map((m) => ({ ...m, length: figure(10.6, 0.6) }));
    const found = levels([right, left] as ToothMeasure[]);
    expect(found.map((f) => f.id)).toEqual(['edge-level-11']);
    expect(found[0]?.title).toMatch(/^The edge of \{21\} stands 0\.7 ±0\.1 mm higher than that of \{11\}$/);
    expect(found[0]?.teeth).toEqual([21, 11]);
    const nearly = { ...left, edgeLevel: figure(0.45, 0.1) } as ToothMeasure;
    expect(levels([right as ToothMeasure, nearly])).toEqual([]);
  });

  it('a lateral longer than its central is told: the centrals lead', () => {
    expect(findings(withLength(12, 11.3)).map((f) => f.id)).toContain('dominance-12');
    expect(findings(withLength(12, 10.95)).map((f) => f.id)).not.toContain('dominance-12');
  });

  it('a small lateral is narrow by its own norm and beside its fellow', () => {
    const ids = findings(even.map((m) => (m.tooth === 12 ? tooth(12, 8.9, 5.4) : m))).map((f) => f.id);
    expect(ids).toEqual(expect.arrayContaining(['width-12', 'size-12', 'ratio-12']));
  });

  it('the most visible stands first, and each carries its source', () => {
    const all = findings(even.map((m) => (m.tooth === 21 ? tooth(21, 8.9, 8.5) : m)));
    expect(all[0]?.notice).toBe('people');
    expect(all.every((f) => f.source.text.length > 0)).toBe(true);
  });
});

it('norms stand as published, from memory', () => {
  // Magne, Gallucci, Belser 2003, J Prosthet Dent 89:453; Chu 2007, Pract Proced Aesthet Dent 19:209.
  expect(Object.values(RATIO_UNWORN).map((n) => n.value)).toEqual([78, 73, 73, 84]);
  expect(Object.values(RATIO_WORN).map((n) => n.value)).toEqual([87, 79, 81]);
  expect(Object.values(WIDTH).map((n) => [n.value, n.band])).toEqual([
    [8.5, 0.5],
    [6.5, 0.5],
    [7.5, 0.5],
  ]);
  expect(LENGTH_ASYMMETRY_NOTICED.laypeople.value).toBe(1.5);
  for (const n of [...Object.values(RATIO_UNWORN), ...Object.values(WIDTH)])
    expect(n.source).toMatchObject({ mark: 'published', text: expect.stringContaining('from memory') });
});
