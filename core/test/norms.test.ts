import {
  CLINICAL_CROWN,
  FACIAL_ENAMEL,
  type Figure,
  findings,
  isFrontKind,
  kindName,
  LENGTH_ASYMMETRY_NOTICED,
  LENGTH_UNWORN,
  LENGTH_WORN,
  propose,
  RATIO_CLINICAL,
  RATIO_UNWORN,
  RATIO_WORN,
  ratioFigure,
  recurringWidths,
  WIDTH,
  ZENITH_DISTAL,
} from '@radiant/core';

/** Published tables as typed from memory in the project's reference values; each row names its publication. */
describe('crown sizes (Magne, Gallucci, Belser 2003, J Prosthet Dent 89:453, from memory)', () => {
  it.each([
    ['central', 11.69, 10.67, 78, 87],
    ['lateral', 9.75, 9.34, 73, 79],
    ['canine', 10.83, 9.9, 73, 81],
  ] as const)(
    '%s: %f mm long unworn, %f mm worn; width/length %f and %f %%',
    (kind, unworn, worn, ratio, ratioWorn) => {
      expect(LENGTH_UNWORN[kind].value).toBe(unworn);
      expect(LENGTH_WORN[kind].value).toBe(worn);
      expect(RATIO_UNWORN[kind].value).toBe(ratio);
      expect(RATIO_WORN[kind].value).toBe(ratioWorn);
    },
  );

  it('premolars: 9.33 mm, 84 %', () => {
    expect([LENGTH_UNWORN.premolar1.value, RATIO_UNWORN.premolar1.value]).toEqual([9.33, 84]);
  });

  it('wear shortens every kind and makes it look wider', () => {
    for (const kind of ['central', 'lateral', 'canine'] as const) {
      expect(LENGTH_WORN[kind].value).toBeLessThan(LENGTH_UNWORN[kind].value);
      expect(RATIO_WORN[kind].value).toBeGreaterThan(RATIO_UNWORN[kind].value);
    }
  });

  it('length times ratio gives the published width of 9.10 to 9.24 mm for centrals and 7.07 to 7.38 for laterals', () => {
    const width = (kind: 'central' | 'lateral') => (LENGTH_UNWORN[kind].value * RATIO_UNWORN[kind].value) / 100;
    expect(width('central')).toBeGreaterThan(9.05);
    expect(width('central')).toBeLessThan(9.25);
    expect(width('lateral')).toBeGreaterThan(7.05);
    expect(width('lateral')).toBeLessThan(7.4);
  });
});

/** Sterrett et al. 1999, J Clin Periodontol 26:153, from memory: clinical crowns of living people. */
describe('clinical crowns', () => {
  const kinds = ['central', 'lateral', 'canine'] as const;

  it.each([
    ['men', [8.59, 6.59, 7.64], [10.19, 8.7, 10.06]],
    ['women', [8.06, 6.13, 7.15], [9.39, 7.79, 8.89]],
  ] as const)('of %s: %j mm wide, %j long', (who, widths, lengths) => {
    expect(kinds.map((k) => CLINICAL_CROWN[who][k].widthMm)).toEqual(widths);
    expect(kinds.map((k) => CLINICAL_CROWN[who][k].lengthMm)).toEqual(lengths);
  });

  it('are 85–86, 76–79 and 77–81 % as wide as long', () => {
    const ranges = { central: [85, 86], lateral: [76, 79], canine: [77, 81] } as const;
    for (const k of kinds) {
      const [from, to] = ranges[k];
      expect(RATIO_CLINICAL[k].value).toBe((from + to) / 2);
    }
  });

  it.each(['men', 'women'] as const)(
    'published living %s have no short, narrow or small tooth among their means',
    (who) => {
      const mm = (value: number): Figure => ({ value, pm: 0.1, unit: 'mm', working: { formula: '', inputs: [] } });
      const six = [13, 12, 11, 21, 22, 23].map((tooth) => {
        const { widthMm, lengthMm } = CLINICAL_CROWN[who][kinds[(tooth % 10) - 1] as (typeof kinds)[number]];
        return { tooth, width: mm(widthMm), length: mm(lengthMm), ratio: ratioFigure(mm(widthMm), mm(lengthMm)) };
      });
      expect(findings(six).map((f) => f.title)).toEqual([]);
    },
  );
});

it('individual widths: 8.5, 6.5, 7.5 mm, most people within half a millimetre (Chu 2007, from memory)', () => {
  expect([WIDTH.central, WIDTH.lateral, WIDTH.canine].map((n) => [n.value, n.band])).toEqual([
    [8.5, 0.5],
    [6.5, 0.5],
    [7.5, 0.5],
  ]);
});

it('the zenith stands 1.0, 0.4 and 0 mm distal of the long axis (Chu, Tan, Stappert, Tarnow 2009, from memory)', () => {
  expect([ZENITH_DISTAL.central.value, ZENITH_DISTAL.lateral.value, ZENITH_DISTAL.canine.value]).toEqual([1, 0.4, 0]);
});

it('a length asymmetry is noticed by orthodontists first, then dentists, then laypeople (Kokich 1999, 2006, from memory)', () => {
  const { orthodontists, dentists, laypeople } = LENGTH_ASYMMETRY_NOTICED;
  expect([orthodontists.value, dentists.value, laypeople.value]).toEqual([0.5, 1, 1.5]);
});

it('enamel thickens from the gum to the edge: 0.3–0.5, 0.6–1.0, 1.0–2.1 mm (Ferrari 1992, from memory)', () => {
  const { cervical, middle, incisal } = FACIAL_ENAMEL;
  expect([cervical, middle, incisal].map((z) => [z.from, z.to])).toEqual([
    [0.3, 0.5],
    [0.6, 1],
    [1, 2.1],
  ]);
});

describe('front-view widths', () => {
  // Ward 2001, Dent Clin North Am 45:143, from memory: W/4.4 at 70 %, W/4.0 at 62 %, W/4.9 at 80 %.
  it.each([
    [0.7, 4.38],
    [0.62, 4.01],
    [0.8, 4.88],
  ])('at a recurring ratio of %f the central is the whole over %f', (k, divisor) => {
    expect(44 / recurringWidths(44, k).central).toBeCloseTo(divisor, 2);
  });

  // Ward 2001, from memory: tall teeth want a small ratio, short ones a large one, the central 78 % of its height.
  it('by the height of the teeth the ratio makes the central 78 % as wide as high', () => {
    const measures = (heightMm: number) =>
      [13, 12, 11, 21, 22, 23].map((tooth) => {
        const mm = (value: number): Figure => ({ value, pm: 0, unit: 'mm', working: { formula: '', inputs: [] } });
        const width = mm(tooth % 10 === 2 ? 6.9 : tooth % 10 === 1 ? 8.8 : 7.4);
        return { tooth, width, length: mm(heightMm), edgeLevel: mm(0), zenithLevel: mm(heightMm) };
      });
    const proposal = (heightMm: number) =>
      propose(
        measures(heightMm),
        { school: 'recurring', referenceTooth: 11, edgeMm: 0 },
        { value: 0, pm: 0, unit: 'mm', working: { formula: '', inputs: [] } },
      );
    const central = (heightMm: number) => proposal(heightMm)?.targets.find((t) => t.tooth === 11)?.width.value ?? 0;
    expect(central(11.4) / 11.4).toBeCloseTo(0.78, 2);
    expect(central(11.8) / 11.8).toBeCloseTo(0.78, 2);
    const ratio = (heightMm: number) => proposal(heightMm)?.recurring ?? 0;
    expect(ratio(11.8)).toBeLessThan(ratio(11.4));
    expect([ratio(7), ratio(16)]).toEqual([0.8, 0.62]);
  });

  it('at the golden ratio the whole over the central is 2(1 + φ⁻¹ + φ⁻²) = 4 (Levin 1978, from memory)', () => {
    const phi = (1 + Math.sqrt(5)) / 2;
    expect(44 / recurringWidths(44, 1 / phi).central).toBeCloseTo(4, 12);
  });
});

it('every norm says where it comes from and that it was typed from memory', () => {
  const all = [
    RATIO_UNWORN,
    RATIO_WORN,
    LENGTH_UNWORN,
    LENGTH_WORN,
    WIDTH,
    ZENITH_DISTAL,
    FACIAL_ENAMEL,
    LENGTH_ASYMMETRY_NOTICED,
  ].flatMap((table) => Object.values(table) as { source: { mark: string; text: string } }[]);
  expect(all.length).toBeGreaterThan(25);
  for (const { source } of all) {
    expect(source.mark).toBe('published');
    expect(source.text).toMatch(/\d{4}.*from memory$/);
  }
});

it('front kinds are the six upper front teeth’s, named as the trade names them', () => {
  expect((['central', 'lateral', 'canine'] as const).every(isFrontKind)).toBe(true);
  expect((['premolar1', 'molar3'] as const).some(isFrontKind)).toBe(false);
  expect([11, 22, 13, 24, 15, 36, 47, 48].map(kindName)).toEqual([
    'central incisor',
    'lateral incisor',
    'canine',
    'first premolar',
    'second premolar',
    'first molar',
    'second molar',
    'third molar',
  ]);
});
