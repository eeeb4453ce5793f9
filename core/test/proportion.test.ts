import {
  type Figure,
  frontRow,
  gumUpOf,
  LATERAL_EDGE_UP_MM,
  LENGTH_UNWORN,
  type ProposalChoice,
  propose,
  RATIO_UNWORN,
  recurringWidths,
  type ToothMeasure,
  type ToothTarget,
  WIDTH,
} from '@radiant/core';

const mm = (value: number, pm = 0.1): Figure => ({ value, pm, unit: 'mm', working: { formula: '', inputs: [] } });
const LENGTH: Record<number, number> = { 1: 10, 2: 8.5, 3: 9.8 };
const WIDE: Record<number, number> = { 1: 8.6, 2: 6.4, 3: 7.6 };
const teeth = (change: Partial<Record<number, { length?: number; width?: number }>> = {}): ToothMeasure[] =>
  frontRow().map((tooth) => {
    const length = change[tooth]?.length ?? (LENGTH[tooth % 10] as number);
    const width = change[tooth]?.width ?? (WIDE[tooth % 10] as number);
    const up = tooth % 10 === 2 ? 0.6 : 0;
    return {
      tooth,
      length: mm(length),
      width: mm(width),
      frontWidth: mm(width),
      edgeLevel: mm(up),
      zenithLevel: mm(length + up),
      ratio: mm((100 * width) / length),
    };
  });
const choice = (c: Partial<ProposalChoice> = {}): ProposalChoice => ({
  school: 'ratio',
  referenceTooth: 11,
  edgeMm: 0,
  ...c,
});
const sum = (v: readonly number[]) => v.reduce((a, b) => a + b, 0);

describe('the recurring front-view ratio (Ward 2001, Dent Clin North Am 45:143, from memory)', () => {
  // central = W / (2 (1 + k + k²)): for k 0.70 W/4.38, 0.62 W/4.01, 0.80 W/4.88; Ward rounds to 4.4, 4.0, 4.9.
  it.each([
    [0.7, 4.38],
    [0.62, 4.01],
    [0.8, 4.88],
  ])('at %f the central is the width over %f', (k, divisor) => {
    expect(100 / recurringWidths(100, k).central).toBeCloseTo(divisor, 2);
  });

  it('adds up to the width and recurs', () => {
    const w = recurringWidths(36, 0.618);
    expect(2 * (w.central + w.lateral + w.canine)).toBeCloseTo(36, 12);
    expect(w.canine / w.lateral).toBeCloseTo(w.lateral / w.central, 12);
  });
});

describe('the width-to-length school', () => {
  it('gives unworn ratios where the space allows (Magne 2003: 78, 73, 73 %)', () => {
    // Lengths at which the ratios' widths exactly fill the space.
    const measures = teeth();
    const p = propose(measures, choice(), mm(0));
    const wished = sum(
      frontRow().map(
        (t) =>
          ((p?.targets.find((q) => q.tooth === t)?.length.value ?? 0) *
            RATIO_UNWORN[t % 10 === 1 ? 'central' : t % 10 === 2 ? 'lateral' : 'canine'].value) /
          100,
      ),
    );
    const factor = (p?.space.value ?? 0) / wished;
    for (const t of p?.targets ?? []) {
      const norm = RATIO_UNWORN[t.tooth % 10 === 1 ? 'central' : t.tooth % 10 === 2 ? 'lateral' : 'canine'].value;
      expect(t.ratio.value).toBeCloseTo(norm * factor, 6);
    }
  });

  it('fills the space with left and right alike, gaps closed', () => {
    const p = propose(teeth({ 12: { width: 5.4 } }), choice({ edgeMm: 0.5 }), mm(0.9));
    const widths = new Map(p?.targets.map((t) => [t.tooth, t.width.value]));
    expect(sum([...widths.values()])).toBeCloseTo(5.4 + 6.4 + 2 * 8.6 + 2 * 7.6 + 0.9, 9);
    for (const t of [11, 12, 13]) expect(widths.get(t)).toBeCloseTo(widths.get(t + 10) as number, 12);
  });

  it('an edge set down by a millimetre lengthens each central by one, from its own gum line', () => {
    const at = (edgeMm: number) => propose(teeth({ 21: { length: 9.4 } }), choice({ edgeMm }), mm(0))?.targets ?? [];
    const [a, b] = [at(0), at(1)];
    a.forEach((t, i) => {
      expect((b[i]?.length.value ?? 0) - t.length.value).toBeCloseTo(1, 6);
    });
    expect(a.find((t) => t.tooth === 12)?.length.value).toBeCloseTo(8.5 + 0.6 - LATERAL_EDGE_UP_MM, 1);
  });

  it('says which ratio leaves its band', () => {
    expect(propose(teeth(), choice({ edgeMm: 2.5 }), mm(0))?.notes.join(' ')).toMatch(
      /points below the 78 % of whole unworn crowns/,
    );
  });
});

describe('the reference tooth', () => {
  it('keeps its own size and gives it to its fellow', () => {
    const p = propose(teeth({ 21: { length: 9, width: 8.2 } }), choice({ school: 'reference' }), mm(0));
    for (const t of [11, 21]) {
      const own = p?.targets.find((q) => q.tooth === t);
      expect(own?.length.value).toBeCloseTo(10, 9);
      expect(own?.width.value).toBeCloseTo(8.6, 9);
    }
  });

  it('brings the others in the proportion of the norms, and shares what space is left', () => {
    const p = propose(teeth(), choice({ school: 'reference', referenceTooth: 13 }), mm(0));
    const of = (t: number) => p?.targets.find((q) => q.tooth === t);
    expect(of(11)?.length.value).toBeCloseTo((9.8 * LENGTH_UNWORN.central.value) / LENGTH_UNWORN.canine.value, 9);
    expect((of(11)?.width.value ?? 0) / (of(12)?.width.value ?? 1)).toBeCloseTo(
      WIDTH.central.value / WIDTH.lateral.value,
      9,
    );
    expect(sum(p?.targets.map((t) => t.width.value) ?? [])).toBeCloseTo(p?.space.value ?? 0, 9);
    expect(of(23)?.width.value).toBeCloseTo(7.6, 9);
  });

  it('carries its edge too, and says how far the gum of the others moves for their length', () => {
    // All zeniths as they stand; 21 is 1.5 mm short by its edge: its edge comes down, its gum stays.
    const worn = propose(teeth({ 21: { length: 10 } }), choice({ school: 'reference' }), mm(0));
    const gum = (p: typeof worn, t: number) => p?.targets.find((q) => q.tooth === t)?.gumMm as Figure;
    expect(gum(worn, 11).value).toBeCloseTo(0, 9);
    expect(gum(worn, 21).value).toBeCloseTo(0, 9);
    // 21 ends level with 11 but its gum hangs 1 mm lower: for the same length it moves up by that.
    const hanging = teeth({ 21: { length: 9 } });
    const p = propose(hanging, choice({ school: 'reference' }), mm(0));
    expect(gum(p, 21).value).toBeCloseTo(1, 9);
    expect(p?.notes.join(' ')).toMatch(/\{21\}: for this edge and length the gum moves up by 1\.0 ±0\.\d mm/);
    expect(p?.notes.join(' ')).toMatch(/keep about 2\.7 mm to the bone/);
    const target = p?.targets.find((t) => t.tooth === 21);
    expect(target && gumUpOf(target, 0)).toBeCloseTo(1, 9);
    // Smaller than its error nothing is moved, and the other schools leave the gum to the dentist's number.
    const near = propose(teeth({ 21: { length: 9.95 } }), choice({ school: 'reference' }), mm(0));
    expect(gumUpOf(near?.targets.find((t) => t.tooth === 21) as ToothTarget, 0.7)).toBe(0);
    const ratio = propose(hanging, choice(), mm(0))?.targets.find((t) => t.tooth === 21) as ToothTarget;
    expect(gumUpOf(ratio, 0.7)).toBe(0.7);
  });

  it('says how much the wishes exceed the space', () => {
    const p = propose(teeth({ 11: { width: 9.6 } }), choice({ school: 'reference' }), mm(0));
    expect(p?.notes[0]).toMatch(
      /^The wished widths are \d\.\d mm more than the space of \d\d\.\d mm; those not held give way by \d+ %\.$/,
    );
  });
});

it('teeth that grow as gaps close are told how much more length they want', () => {
  const gaps = mm(3, 0.3);
  const short = teeth({ 11: { length: 8.4 }, 21: { length: 8.4 } });
  const notes = propose(short, choice({ school: 'population' }), gaps)?.notes.join(' ') ?? '';
  const said = /\{11\} grows to ([\d.]+) mm as the gaps close: 86 % of living crowns want ([\d.]+) mm more/;
  const [, width, more] = said.exec(notes) ?? [];
  expect(Number(more)).toBeCloseTo(Number(width) / 0.855 - 8.4, 0);
  expect(propose(short, choice({ school: 'population', gaps: 'keep' }), gaps)?.notes.join(' ')).not.toMatch(/grows to/);
});

it('there is no proposal while none of them is measured', () => {
  expect(
    propose(
      teeth().map(({ width: _, ...t }) => t),
      choice(),
      mm(0),
    ),
  ).toBeUndefined();
});

it('every target tells its working with source and mark', () => {
  const p = propose(teeth(), choice({ school: 'reference' }), mm(0));
  for (const t of p?.targets ?? []) {
    expect(t.length.working.inputs.length).toBeGreaterThan(1);
    for (const i of t.length.working.inputs) expect(i.source.mark).toBeTruthy();
    expect(t.length.pm).toBeGreaterThan(0);
  }
});

describe('the space from premolar to premolar', () => {
  const none = mm(0, 0);

  it('is larger by both premolars, and they give way by the same share as the others', () => {
    const narrow = propose(teeth(), choice({ school: 'population' }), none);
    const wide = propose(teeth(), choice({ school: 'population', premolars: { right: 7, left: 7 } }), none);
    expect(wide?.space.value).toBeCloseTo((narrow?.space.value ?? 0) + 14, 9);
    const share = (w: number, wish: number) => w / wish;
    const lambda = share(wide?.premolars?.[0]?.widthMm ?? 0, 7);
    for (const t of wide?.targets ?? []) {
      const wish = WIDTH[t.tooth % 10 === 1 ? 'central' : t.tooth % 10 === 2 ? 'lateral' : 'canine'].value;
      expect(share(t.width.value, wish)).toBeCloseTo(lambda, 6);
    }
    // Eight widths fill the room.
    expect(
      sum((wide?.targets ?? []).map((t) => t.width.value)) + sum((wide?.premolars ?? []).map((p) => p.widthMm)),
    ).toBeCloseTo(wide?.space.value ?? 0, 6);
    // The six have to give way less than alone.
    const central = (p: typeof wide) => p?.targets.find((t) => t.tooth === 11)?.width.value ?? 0;
    const wish = WIDTH.central.value;
    expect(Math.abs(central(wide) - wish)).toBeLessThan(Math.abs(central(narrow) - wish));
  });

  it('keeps unequal premolars apart unless alike is wished, and names them in the working', () => {
    const apart = propose(teeth(), choice({ alike: false, premolars: { right: 7.4, left: 6.6 } }), none);
    expect(apart?.premolars?.map((p) => p.isMm)).toEqual([7.4, 6.6]);
    expect((apart?.premolars?.[0]?.widthMm ?? 0) / (apart?.premolars?.[1]?.widthMm ?? 1)).toBeCloseTo(7.4 / 6.6, 6);
    const alike = propose(teeth(), choice({ premolars: { right: 7.4, left: 6.6 } }), none);
    expect(alike?.premolars?.[0]?.widthMm).toBeCloseTo(alike?.premolars?.[1]?.widthMm ?? 0, 9);
    expect(apart?.space.working.inputs.map((i) => i.name)).toEqual(
      expect.arrayContaining(['width of 14', 'width of 24']),
    );
    expect(propose(teeth(), choice(), none)?.premolars).toBeUndefined();
  });
});
