import { type Figure, type FindingContext, type ViewFigure, viewFindings } from '@radiant/core';

const figure = (value: number, unit: Figure['unit'] = 'mm', pm = 0.1): Figure => ({
  value,
  pm,
  unit,
  working: { formula: '', inputs: [] },
});
const view = (id: string, f: Figure, more: Partial<ViewFigure> = {}): ViewFigure => ({
  id,
  name: id,
  figure: f,
  ...more,
});
const told = (figures: ViewFigure[], context: FindingContext = {}) => viewFindings(figures, context);
const one = (figures: ViewFigure[], context: FindingContext = {}) => {
  const all = told(figures, context);
  if (all.length !== 1) throw new Error(`${all.length} findings: ${all.map((f) => f.title).join('; ')}`);
  return all[0] as (typeof all)[0];
};

/** Kokich, Kiyak, Shapiro 1999 and Kokich et al. 2006, from memory: who notices from how many mm. */
it.each([
  [1.9, 'nobody'],
  [2, 'people'],
  [-4.2, 'people'],
])('a midline %d mm off is noticed by %s', (mm, notice) =>
  expect(one([view('midline', figure(mm), { word: 'to the patient’s left' })]).notice).toBe(notice),
);

it.each([
  [0.9, 'nobody'],
  [1, 'dentists'],
  [2.9, 'dentists'],
  [3, 'people'],
])('a cant of the edges of %d mm is noticed by %s', (mm, notice) =>
  expect(one([view('cant-canine-mm', figure(mm), { word: 'left lower' })]).notice).toBe(notice),
);

it('a cant of the lips is told, but it is nothing that a plan changes', () => {
  expect(one([view('cant-corner-mm', figure(2.5), { word: 'right lower' })])).toMatchObject({
    notice: 'nobody',
    title: 'The corners of the mouth cant 2.5 ±0.1 mm (right lower)',
  });
});

it.each([
  [1.9, undefined],
  [2, 'orthodontists'],
  [3.9, 'orthodontists'],
  [4, 'people'],
])('%d mm of gum: %s', (mm, notice) => expect(told([view('gum', figure(mm))])[0]?.notice).toBe(notice));

it('a deviation that is smaller than its error is no finding', () => {
  for (const f of [
    view('midline', figure(5, 'mm', 6)),
    view('cant-canine-mm', figure(2, 'mm', 2.5)),
    view('gap-12-11', figure(0.5, 'mm', 0.6)),
    view('triangle-11-21', figure(2, 'mm', 2.1)),
  ])
    expect(told([f])).toEqual([]);
});

/** Vig & Brundo 1978, from memory: 3.37 mm up to 29 years, 1.58 in the thirties. */
it('the display at rest is judged by age: 3.4 mm is right at 25 and much at 35', () => {
  const shown = [view('display-11', figure(3.4, 'mm', 0.3), { tooth: 11 })];
  expect(told(shown, { ageYears: 25 })).toEqual([]);
  expect(one(shown, { ageYears: 35, sex: 'female' })).toMatchObject({
    title: '{11} shows 3.4 ±0.3 mm at rest: much for 30–39 years',
    notice: 'dentists',
  });
  const { detail } = one(shown, { ageYears: 35, sex: 'female', lipMm: 18 });
  expect(detail).toMatch(
    /^Usual for 30–39 years 1\.6 mm, which speaks here; beside it women 3\.4 mm, upper lip 16–20 mm 3\.4/,
  );
  expect(one(shown, { ageYears: 35, wish: 'longer' }).detail).toMatch(
    /Longer teeth are wished for: that shows still more/,
  );
  expect(told(shown, {})).toEqual([]);
});

it('a midline that leans is told with what it makes at the edge, and by whose eyes', () => {
  const leaning = (deg: number, pm = 1) =>
    told([view('lean', figure(deg, '°', pm), { word: 'to the patient’s left' })])[0];
  expect(leaning(1.8)).toBeUndefined();
  expect(leaning(6)).toMatchObject({
    title: expect.stringMatching(/leans 6\.0 ±1\.0 ° to the patient’s left/),
    notice: 'nobody',
  });
  // 2 mm over 10 mm: 11.3°.
  expect(leaning(11.4)?.notice).toBe('people');
  expect(leaning(4, 4.5)).toBeUndefined();
});

it('crossbite and edge to edge are told apart by the error', () => {
  const bite = (mm: number, pm = 0.4) => told([view('overjet', figure(mm, 'mm', pm))])[0]?.title;
  expect(bite(-1)).toMatch(/^Crossbite: the upper edge stands 1\.0 ±0\.4 mm behind/);
  expect(bite(-0.2)).toMatch(/^Edge to edge/);
  expect(bite(0.4)).toMatch(/^Edge to edge/);
  expect(bite(1.0)).toMatch(/^The overjet is small/);
  expect(bite(2.5)).toBeUndefined();
});

it('a lip that hangs lower on one side is told for rest and smile apart', () => {
  const lip = (id: string, mm: number) => told([view(id, figure(mm, 'mm', 0.5))])[0]?.title;
  expect(lip('lip-symmetry-smile', 1.6)).toMatch(/hangs 1\.6 ±0\.5 mm lower on the left in the smile/);
  expect(lip('lip-symmetry-rest', -1.2)).toMatch(/lower on the right at rest/);
  expect(lip('lip-symmetry-rest', 0.7)).toBeUndefined();
});

it('of two centrals the longer one is told', () => {
  const both = [view('display-11', figure(0.2), { tooth: 11 }), view('display-21', figure(0.4), { tooth: 21 })];
  expect(one(both, { ageYears: 25 }).title).toMatch(/^\{21\} shows 0\.4/);
});

it('high and low lip lines and what they mean; an average one is no finding', () => {
  const line = (word: string) => told([view('crowns-seen', figure(90, '%'), { word })])[0];
  expect(line('high lip line')).toMatchObject({ title: 'High lip line', notice: 'dentists' });
  expect(line('low lip line')).toMatchObject({ title: 'Low lip line', notice: 'nobody' });
  expect(line('average lip line')).toBeUndefined();
});

/** Moore et al. 2005, from memory: classes judged at 2, 10, 15, 22 and 28 %. */
it('wide corridors are told, and corridors that are unlike', () => {
  const dark = (right: number, left: number) =>
    told([
      view('corridor-right', figure(right, '%')),
      view('corridor-left', figure(left, '%')),
      view('corridor', figure(right + left, '%')),
    ])[0];
  expect(dark(7, 7)).toBeUndefined();
  expect(dark(10, 10)?.title).toMatch(/medium narrow/);
  expect(dark(13, 13)).toMatchObject({ notice: 'people' });
  expect(dark(9, 4)?.title).toBe('The corridors are unlike: right 9 %, left 4 %');
});

it('edges: reverse is seen by people, straight by dentists, parallel is right', () => {
  const course = (word: string) => told([view('edge-curve', figure(0, '%'), { word })])[0]?.notice;
  expect([course('reverse'), course('straight'), course('parallel')]).toEqual(['people', 'dentists', undefined]);
});

/** Morley & Eubank 2001, from memory: contacts of 50, 40 and 30 % of a central's length. */
it('a short contact is judged by its place: 4.1 mm is short between 10 mm centrals? no; 3.9 is', () => {
  const contact = (id: string, mm: number) => told([view(id, figure(mm))], { centralLengthMm: 10 }).length;
  expect(contact('connector-11-21', 4.1)).toBe(0);
  expect(contact('connector-11-21', 3.9)).toBe(1);
  expect(contact('connector-12-11', 3.1)).toBe(0);
  expect(contact('connector-12-11', 2.9)).toBe(1);
  expect(contact('connector-21-22', 2.9)).toBe(1);
  expect(contact('connector-22-23', 1.9)).toBe(1);
  expect(contact('connector-22-23', 2.1)).toBe(0);
  expect(told([view('connector-11-21', figure(1))])).toEqual([]);
});

it('dark triangles, gaps and overlaps', () => {
  expect(one([view('triangle-11-21', figure(2.4))])).toMatchObject({
    title: 'A dark triangle of 2.4 ±0.1 mm between {11} and {21}',
    notice: 'orthodontists',
  });
  expect(one([view('triangle-11-21', figure(3))]).notice).toBe('people');
  expect(told([view('triangle-11-21', figure(0.7))])).toEqual([]);
  expect(one([view('gap-12-11', figure(0.6))])).toMatchObject({
    title: 'A gap of 0.6 ±0.1 mm between {12} and {11}',
    notice: 'people',
  });
  expect(one([view('gap-12-11', figure(-0.4))])).toMatchObject({
    title: '{12} and {11} overlap by 0.4 ±0.1 mm',
    notice: 'dentists',
  });
});

it('an embrasure that is shallower than the one towards the midline', () => {
  const steps = (inner: number, outer: number) =>
    told([view('embrasure-11-21', figure(inner)), view('embrasure-12-11', figure(outer))]).length;
  expect(steps(0.8, 1.4)).toBe(0);
  expect(steps(0.8, 0.75)).toBe(0);
  expect(steps(1.4, 0.8)).toBe(1);
});

/**
 * Chu et al. 2009: the lateral's zenith about 1 mm below its neighbours' line. Preston 1993: 66 and 84 %. From memory.
 */
it('zeniths and widths from the front', () => {
  expect(told([view('zenith-step-12', figure(1.5), { tooth: 12 })])).toEqual([]);
  expect(one([view('zenith-step-12', figure(-0.2), { tooth: 12 })]).title).toMatch(/above its neighbours/);
  expect(told([view('zenith-distal-11', figure(1.2), { tooth: 11 })])).toEqual([]);
  expect(one([view('zenith-distal-11', figure(-0.4), { tooth: 11 })]).title).toMatch(/0\.4 ±0\.1 mm mesial/);
  expect(told([view('series-12', figure(70, '%'), { tooth: 12 })])).toEqual([]);
  expect(one([view('series-12', figure(56, '%'), { tooth: 12 })]).detail).toBe('Natural teeth have about 66 %.');
});

it('how teeth stand, and the bite', () => {
  expect(
    told([view('offset-12', figure(0.4), { tooth: 12 }), view('rotation-12', figure(5, '°'), { tooth: 12 })]),
  ).toEqual([]);
  expect(one([view('offset-12', figure(-0.9), { tooth: 12 })])).toMatchObject({
    title: '{12} stands 0.9 ±0.1 mm behind the arch',
    detail: 'The plan adds there; little or nothing is cut.',
  });
  expect(one([view('rotation-22', figure(9, '°', 2), { tooth: 22 })]).title).toBe(
    '{22} is turned 9 ±2 °, mesial end forward',
  );
  expect(told([view('overjet', figure(2.4)), view('overbite', figure(2.5))])).toEqual([]);
  expect(one([view('overjet', figure(5))]).title).toBe('The overjet is large: 5.0 ±0.1 mm');
  expect(one([view('overbite', figure(0.2, 'mm', 0.3))]).title).toBe('The overbite is small: 0.2 ±0.3 mm');
});
