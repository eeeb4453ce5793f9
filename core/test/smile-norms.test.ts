import {
  CORRIDOR_JUDGED,
  corridor,
  DISPLAY_BY_AGE,
  DISPLAY_BY_LIP,
  displayAtRest,
  EDGE_CURVE_SHARE,
  type Figure,
  frontRow,
  LIP_LINE_SHARE,
  lipLine,
  NOTICED_MM,
  noticedBy,
  noticedWords,
  rankReference,
  type ToothMeasure,
} from '@radiant/core';

describe('upper central shown at rest (Vig & Brundo 1978, J Prosthet Dent 39:502, from memory)', () => {
  it.each([
    [18, 3.37, 'up to 29 years'],
    [29, 3.37, 'up to 29 years'],
    [30, 1.58, '30–39 years'],
    [39, 1.58, '30–39 years'],
    [40, 0.95, '40–49 years'],
    [50, 0.46, '50–59 years'],
    [59, 0.46, '50–59 years'],
    [60, -0.04, '60 years and more'],
    [91, -0.04, '60 years and more'],
  ])('at %i years: %f mm', (ageYears, value, row) => {
    expect(displayAtRest({ ageYears })).toEqual([expect.objectContaining({ value, row, unit: 'mm' })]);
  });

  it.each([
    ['female', 3.4],
    ['male', 1.91],
  ] as const)('%s: %f mm', (sex, value) => {
    expect(displayAtRest({ sex })[0]?.value).toBe(value);
  });

  it.each([
    [10, 3.92],
    [15.9, 3.92],
    [16, 3.44],
    [21, 2.18],
    [26, 0.93],
    [31, 0.25],
    [36, 0.25],
  ])('with an upper lip of %f mm: %f mm', (lipMm, value) => {
    expect(displayAtRest({ lipMm })[0]?.value).toBe(value);
  });

  it('a lip outside the table has no norm, and nothing known gives none', () => {
    expect(displayAtRest({ lipMm: 9 })).toEqual([]);
    expect(displayAtRest({ lipMm: 37 })).toEqual([]);
    expect(displayAtRest({ ageYears: null, sex: null })).toEqual([]);
  });

  it('the lower central shows more with age as the upper shows less', () => {
    const upper = DISPLAY_BY_AGE.map((r) => r.upper);
    const lower = DISPLAY_BY_AGE.map((r) => r.lower);
    expect([...upper].sort((a, b) => b - a)).toEqual(upper);
    expect(lower).toEqual([0.51, 0.8, 1.96, 2.44, 2.95]);
  });

  it('the tables leave no year and no millimetre between their rows', () => {
    for (const table of [DISPLAY_BY_AGE, DISPLAY_BY_LIP])
      for (let i = 1; i < table.length; i++) expect(table[i]?.from).toBe(table[i - 1]?.to);
  });
});

describe('lip line and edge curve (Tjan, Miller, The 1984, J Prosthet Dent 51:24, from memory)', () => {
  it.each([
    [100, true, 'high'],
    [100, false, 'average'],
    [75, false, 'average'],
    [74.9, false, 'low'],
    [30, false, 'low'],
  ] as const)('%f %% of the crowns, a band of gum above them: %s, is %s', (share, gum, kind) => {
    expect(lipLine(share, gum).kind).toBe(kind);
  });

  it('shares add up to everybody', () => {
    const sum = (o: Record<string, number>) => Object.values(o).reduce((a, b) => a + b, 0);
    expect(sum(LIP_LINE_SHARE)).toBeCloseTo(100, 9);
    expect(sum(EDGE_CURVE_SHARE)).toBeCloseTo(100, 9);
  });
});

describe('the dark corridor (Moore et al. 2005, Am J Orthod 127:208, from memory)', () => {
  it.each(CORRIDOR_JUDGED.map((c) => [c.share, c.kind] as const))('%f %% was judged as %s', (share, kind) => {
    expect(corridor(share).kind).toBe(kind);
  });

  it.each([
    [0, 'broad'],
    [5.9, 'broad'],
    [6, 'medium broad'],
    [12.4, 'medium broad'],
    [12.5, 'medium'],
    [18.5, 'medium narrow'],
    [25, 'narrow'],
    [40, 'narrow'],
  ])('%f %% counts as %s: the judged share that lies nearest', (share, kind) => {
    expect(corridor(share).kind).toBe(kind);
  });
});

describe('what is noticed (Kokich, Kiyak, Shapiro 1999; Kokich et al. 2006, from memory)', () => {
  it.each([
    // The study's laypeople and dentists did not see even 4 mm; 2 mm of other studies is the house's for laypeople.
    ['midline', 1.9, 'nobody'],
    ['midline', -2, 'people'],
    ['cant', 0.9, 'nobody'],
    ['cant', 1, 'dentists'],
    ['cant', 3, 'people'],
    ['tip', 1.9, 'nobody'],
    ['tip', 2, 'people'],
    ['narrow', 2.9, 'nobody'],
    ['narrow', 3, 'dentists'],
    ['narrow', 4, 'people'],
    ['embrasure', 1.9, 'nobody'],
    ['embrasure', 2, 'orthodontists'],
    ['embrasure', 3, 'people'],
    ['gum', 1.9, 'nobody'],
    ['gum', 2, 'orthodontists'],
    ['gum', 4, 'people'],
  ] as const)('%s of %f mm: %s', (what, mm, who) => {
    expect(noticedBy(what, mm)).toBe(who);
  });

  it('is told with whose eyes they were', () => {
    expect(noticedWords('gum')).toBe('Noticed from 2 mm by orthodontists, 4 mm by dentists and laypeople.');
    expect(noticedWords('midline')).toBe(
      'Noticed from 4 mm by orthodontists, by dentists and laypeople not even there; elsewhere laypeople noticed about 2 mm.',
    );
    expect(NOTICED_MM.midline.house?.source.mark).toBe('house');
  });
});

describe('which tooth comes nearest to the norms', () => {
  const figure = (value: number, pm: number, unit: Figure['unit'] = 'mm'): Figure => ({
    value,
    pm,
    unit,
    working: { formula: '', inputs: [] },
  });
  const tooth = (t: number, width: number, ratio: number, pm = 0.1): ToothMeasure => ({
    tooth: t,
    width: figure(width, pm),
    length: figure((100 * width) / ratio, pm),
    ratio: figure(ratio, 2, '%'),
  });
  const worn = [
    tooth(13, 7.5, 73),
    tooth(12, 5.4, 66),
    tooth(11, 8.6, 86),
    tooth(21, 8.5, 91),
    tooth(22, 6.5, 74),
    tooth(23, 7.7, 78),
  ];

  it('one on both norms stands first, the small and the worn one last', () => {
    const order = rankReference(worn).map((c) => c.tooth);
    expect(order.slice(0, 3).sort()).toEqual([11, 13, 22]);
    expect(order.slice(-2).sort()).toEqual([12, 21]);
  });

  it('is off by nothing on the norm and by one at the end of both bands', () => {
    expect(rankReference([tooth(11, 8.5, 78)])[0]?.off).toBeCloseTo(0, 12);
    expect(rankReference([tooth(11, 8.5, 85.5)])[0]?.off).toBeCloseTo(0, 12);
    expect(rankReference([tooth(11, 9, 73)])[0]?.off).toBeCloseTo(1, 12);
    expect(rankReference([tooth(11, 9, 91)])[0]?.off).toBeCloseTo(1, 12);
  });

  it('tells why, with the norm beside each figure', () => {
    expect(rankReference([tooth(12, 5.4, 66)])[0]?.reasons).toEqual([
      'width to length 66 %, right from 73 (unworn, whole) to 78 (living, clinical)',
      '5.4 mm wide, norm of a lateral incisor 6.5 mm',
    ]);
  });

  it('a tooth that is shorter than its fellow by more than the error steps back', () => {
    const pair = (short: number) =>
      rankReference([tooth(11, 8.5, 78), { ...tooth(21, 8.5, 78), length: figure(8.5 / 0.78 - short, 0.1) }]);
    expect(pair(0.1).map((c) => c.off)).toEqual([0, 0]);
    expect(pair(0.6).find((c) => c.tooth === 21)).toMatchObject({
      off: 1,
      reasons: expect.arrayContaining(['0.6 mm shorter than {11}']),
    });
  });

  it('is as uncertain as its measures', () => {
    const pm = (e: number) => rankReference([tooth(11, 8.5, 78, e)])[0]?.pm ?? 0;
    expect(pm(0.5)).toBeGreaterThan(pm(0.1));
  });

  it('teeth that were not measured are not ranked', () => {
    expect(rankReference(frontRow().map((t) => ({ tooth: t })))).toEqual([]);
  });
});
