/**
 * What is done inside a piece, on the tooth, and to fix it, row by row against what the trade asks for and forbids.
 * The rows are written from the trade's rules, not from the program's: etch enamel 15 to 20 s, dentin 10 s; adhesive
 * rubbed 20 s, thinned, cured 10 s; silane for glass; a primer with phosphate for zirconia under resin and none under a
 * cement that takes hold of the oxide itself; no phosphoric acid in zirconia; light only where it gets through. All are
 * common practice.
 */
import {
  type AtVisit,
  type Base,
  type CementKind,
  fixing,
  type MouthNow,
  mustNot,
  type Piece,
  protocolOf,
  usualCement,
} from '../src/index.js';

const MOUTH: MouthNow = { gum: 'healthy', dry: true, provisional: true, beware: new Set() };
const piece = (p: Partial<Piece>): Piece => ({
  tooth: 11,
  kind: 'veneer',
  material: 'glass-ceramic',
  thickMm: 0.7,
  cement: 'resin-light',
  bases: ['enamel'],
  ...p,
});
const visit = (pieces: readonly Piece[], mouth: MouthNow = MOUTH): AtVisit => ({
  teeth: pieces.map((p) => p.tooth),
  works: pieces.map((p) => ({ tooth: p.tooth, work: p.kind })),
  cuts: [],
  pieces,
  present: [13, 12, 11, 21, 22, 23],
  oldWorks: [],
  posts: [],
  cord: 'none',
  provisional: 'shells',
  maker: 'laboratory',
  impression: 'same',
  tissue: 'none',
  mouth,
});
const rules = (p: Piece, m: MouthNow = MOUTH) => fixing(visit([p], m)).map((s) => s.rule);

type Row = readonly [
  material: Piece['material'],
  kind: Piece['kind'],
  cement: CementKind,
  bases: readonly Base[],
  must: readonly string[],
  never: readonly string[],
];
const E = ['enamel'] as const;
const D = ['dentin'] as const;
const ED = ['enamel', 'dentin'] as const;
const glassIn = ['inside-etched', 'inside-silane'];
const oxideIn = ['inside-abraded', 'inside-phosphate-off'];
const adhesive = ['tooth-adhesive', 'tooth-thinned', 'tooth-cured'];
const lamp = ['tack', 'peel', 'cure'];
const noGlass = ['inside-etched', 'inside-silane', 'inside-acid-clean'];

const ROWS: readonly Row[] = [
  // Veneers of glass: etched, silanated, bonded, lit.
  [
    'glass-ceramic',
    'veneer',
    'resin-light',
    E,
    [...glassIn, 'tooth-etch-enamel', ...adhesive, ...lamp],
    ['inside-primer', 'inside-abraded', 'tooth-etch-dentin', 'tooth-desensitised', 'set'],
  ],
  [
    'glass-ceramic',
    'veneer',
    'resin-light',
    ED,
    [...glassIn, 'tooth-etch-enamel', 'tooth-etch-dentin', 'tooth-desensitised', ...adhesive],
    ['inside-primer', 'tooth-conditioned'],
  ],
  ['glass-ceramic', 'veneer', 'resin-light', D, ['tooth-etch-dentin', 'tooth-desensitised'], ['tooth-etch-enamel']],
  [
    'glass-ceramic',
    'veneer',
    'resin-dual',
    E,
    [...glassIn, ...adhesive, 'cure'],
    ['inside-primer', 'set-in-dark', 'set'],
  ],
  [
    'glass-ceramic',
    'veneer',
    'resin-dual',
    ['enamel', 'composite'],
    ['tooth-old-composite', 'tooth-etch-enamel'],
    ['tooth-metal-primed'],
  ],
  ['feldspathic', 'veneer', 'resin-light', E, [...glassIn, ...adhesive, ...lamp], ['inside-abraded', 'inside-primer']],
  ['feldspathic', 'veneer', 'resin-light', ED, ['tooth-etch-dentin', 'tooth-desensitised'], ['inside-phosphate-off']],
  ['feldspathic', 'veneer', 'resin-dual', E, [...glassIn, 'cure'], ['set', 'inside-primer']],
  [
    'feldspathic',
    'no-prep veneer',
    'resin-light',
    E,
    [...glassIn, 'seat-held', 'tack'],
    ['tooth-etch-dentin', 'inside-abraded'],
  ],
  ['glass-ceramic', 'no-prep veneer', 'resin-light', E, ['seat-held', 'floss', 'peel'], ['set']],
  ['feldspathic', 'veneer', 'resin-light', ['enamel', 'composite'], ['tooth-old-composite'], ['tooth-metal-covered']],
  [
    'glass-ceramic',
    'veneer',
    'resin-light',
    ['core'],
    ['tooth-old-composite', ...adhesive],
    ['tooth-etch-enamel', 'tooth-etch-dentin'],
  ],
  ['glass-ceramic', 'veneer', 'resin-light', ['enamel', 'metal'], ['tooth-metal-covered'], ['tooth-metal-primed']],
  // Crowns of glass.
  [
    'glass-ceramic',
    'crown',
    'resin-dual',
    D,
    [...glassIn, 'tooth-etch-dentin', 'tooth-desensitised', ...adhesive, 'cure'],
    ['inside-primer', 'inside-abraded', 'tooth-moist'],
  ],
  ['glass-ceramic', 'crown', 'resin-dual', ED, ['tooth-etch-enamel', 'tooth-etch-dentin'], ['tooth-conditioned']],
  ['glass-ceramic', 'crown', 'resin-dual', ['core'], ['tooth-old-composite', ...glassIn], ['tooth-etch-dentin']],
  ['glass-ceramic', 'crown', 'resin-dual', ['dentin', 'metal'], ['tooth-metal-covered'], ['tooth-metal-primed']],
  [
    'glass-ceramic',
    'crown',
    'self-adhesive',
    D,
    ['inside-etched', 'inside-silane', 'tooth-moist', 'tack'],
    ['tooth-adhesive', 'tooth-cured', 'tooth-etch-dentin', 'tooth-desensitised', 'inside-primer'],
  ],
  [
    'glass-ceramic',
    'crown',
    'self-adhesive',
    ED,
    ['tooth-etch-enamel', 'tooth-moist'],
    ['tooth-etch-dentin', 'tooth-adhesive'],
  ],
  ['glass-ceramic', 'crown', 'self-adhesive', ['core'], ['tooth-old-composite'], ['tooth-adhesive']],
  [
    'glass-ceramic',
    'crown',
    'glass-ionomer',
    D,
    ['tooth-conditioned', 'set'],
    ['inside-silane', 'tooth-adhesive', 'tooth-etch-dentin', 'tack', 'cure', 'inside-primer'],
  ],
  [
    'glass-ceramic',
    'crown',
    'calcium-aluminate',
    D,
    ['inside-bare', 'tooth-moist', 'set'],
    ['inside-silane', 'inside-primer', 'tooth-adhesive', 'tooth-etch-dentin', 'tooth-desensitised'],
  ],
  ['feldspathic', 'crown', 'resin-dual', D, [...glassIn, ...adhesive], ['inside-abraded', 'set']],
  ['feldspathic', 'crown', 'resin-light', D, [...glassIn, 'cure'], ['set-in-dark']],
  // Crowns of zirconia: no acid and no silane that does nothing; primer under resin, none where cement meets oxide.
  [
    'zirconia',
    'crown',
    'resin-dual',
    D,
    [...oxideIn, 'inside-primer', 'tooth-etch-dentin', ...adhesive, 'set-in-dark'],
    [...noGlass, 'cure', 'inside-bare', 'inside-has-own'],
  ],
  ['zirconia', 'crown', 'resin-dual', ED, [...oxideIn, 'inside-primer', 'tooth-etch-enamel'], [...noGlass]],
  [
    'zirconia',
    'crown',
    'resin-dual',
    ['core'],
    ['inside-primer', 'tooth-old-composite'],
    [...noGlass, 'tooth-etch-dentin'],
  ],
  [
    'zirconia',
    'crown',
    'resin-dual',
    ['metal'],
    ['inside-primer', 'tooth-metal-primed'],
    [...noGlass, 'tooth-metal-covered'],
  ],
  [
    'zirconia',
    'crown',
    'self-adhesive',
    D,
    [...oxideIn, 'inside-has-own', 'tooth-moist', 'set-in-dark'],
    [...noGlass, 'inside-primer', 'tooth-adhesive', 'tooth-etch-dentin', 'cure'],
  ],
  [
    'zirconia',
    'crown',
    'self-adhesive',
    ED,
    [...oxideIn, 'tooth-etch-enamel'],
    [...noGlass, 'inside-primer', 'tooth-etch-dentin'],
  ],
  ['zirconia', 'crown', 'self-adhesive', ['core'], [...oxideIn, 'tooth-old-composite'], [...noGlass, 'tooth-adhesive']],
  [
    'zirconia',
    'crown',
    'self-adhesive',
    ['metal'],
    [...oxideIn, 'tooth-metal-primed'],
    [...noGlass, 'tooth-metal-covered'],
  ],
  [
    'zirconia',
    'crown',
    'glass-ionomer',
    D,
    [...oxideIn, 'tooth-conditioned', 'set'],
    [...noGlass, 'inside-primer', 'tooth-adhesive', 'tack', 'cure'],
  ],
  [
    'zirconia',
    'crown',
    'glass-ionomer',
    ['metal'],
    [...oxideIn, 'set'],
    ['tooth-conditioned', 'tooth-metal-primed', 'inside-primer'],
  ],
  [
    'zirconia',
    'crown',
    'calcium-aluminate',
    D,
    [...oxideIn, 'inside-bare', 'tooth-moist', 'set'],
    [...noGlass, 'inside-primer', 'inside-has-own', 'tooth-adhesive', 'tooth-etch-dentin', 'tooth-desensitised'],
  ],
  [
    'zirconia',
    'crown',
    'calcium-aluminate',
    ED,
    ['inside-phosphate-off', 'inside-bare'],
    ['inside-primer', 'inside-silane', 'tooth-etch-enamel'],
  ],
  [
    'zirconia',
    'crown',
    'calcium-aluminate',
    ['core'],
    ['inside-bare', 'set'],
    ['inside-primer', 'tooth-old-composite'],
  ],
  [
    'zirconia',
    'crown',
    'temporary',
    D,
    ['inside-abraded', 'set'],
    [...noGlass, 'inside-primer', 'tooth-adhesive', 'tooth-etch-dentin', 'cure'],
  ],
  // Metal-ceramic.
  [
    'metal-ceramic',
    'crown',
    'glass-ionomer',
    D,
    ['inside-abraded', 'tooth-conditioned', 'set'],
    [...noGlass, 'inside-primer', 'tooth-adhesive', 'inside-phosphate-off', 'cure'],
  ],
  [
    'metal-ceramic',
    'crown',
    'resin-dual',
    D,
    ['inside-abraded', 'inside-primer', ...adhesive, 'set-in-dark'],
    [...noGlass, 'cure'],
  ],
  [
    'metal-ceramic',
    'crown',
    'resin-dual',
    ['metal'],
    ['inside-primer', 'tooth-metal-primed'],
    [...noGlass, 'tooth-metal-covered'],
  ],
  [
    'metal-ceramic',
    'crown',
    'self-adhesive',
    D,
    ['inside-abraded', 'inside-has-own', 'tooth-moist'],
    [...noGlass, 'inside-primer', 'tooth-adhesive', 'tooth-etch-dentin'],
  ],
  ['metal-ceramic', 'crown', 'self-adhesive', ['metal'], ['inside-has-own', 'tooth-metal-primed'], ['inside-primer']],
  [
    'metal-ceramic',
    'crown',
    'calcium-aluminate',
    D,
    ['inside-bare', 'set'],
    ['inside-primer', 'inside-has-own', 'tooth-adhesive'],
  ],
  ['metal-ceramic', 'crown', 'temporary', D, ['set'], ['inside-primer', 'tooth-adhesive', 'tooth-conditioned']],
];

const title = ([m, k, c, b]: Row) => `${m} ${k}, ${c}, on ${b.join(' and ')}`;

describe('how a piece is fixed', () => {
  it.each(ROWS.map((r) => [title(r), r] as const))('%s', (_, [material, kind, cement, bases, must, never]) => {
    const done = rules(piece({ material, kind, cement, bases }));
    for (const m of must) expect(done).toContain(m);
    for (const n of never) expect(done).not.toContain(n);
  });

  it('rinses, cleans the tooth and seats, whatever it is, and in this order', () => {
    for (const [material, kind, cement, bases] of ROWS) {
      const done = rules(piece({ material, kind, cement, bases }));
      const at = (r: string) => done.indexOf(r);
      expect(at('inside-rinsed')).toBe(0);
      expect(at('tooth-cleaned')).toBeGreaterThan(at('inside-rinsed'));
      expect(at('seat')).toBeGreaterThan(at('tooth-cleaned'));
      if (at('tooth-adhesive') > 0)
        expect(at('tooth-adhesive')).toBeGreaterThan(Math.max(at('tooth-etch-enamel'), at('tooth-etch-dentin')));
      if (at('inside-silane') > 0 && at('inside-etched') > 0)
        expect(at('inside-silane')).toBeGreaterThan(at('inside-etched'));
      if (at('inside-primer') > 0) expect(at('inside-primer')).toBeGreaterThan(at('inside-abraded'));
      if (at('cure') > 0) expect(at('cure')).toBeGreaterThan(at('tack'));
      expect(new Set(done).size).toBe(done.length);
    }
  });

  it('waits for a dual-cured cement where light does not come through, or nobody knows whether it does', () => {
    const dual = { kind: 'crown', cement: 'resin-dual', bases: D } as const;
    expect(rules(piece({ ...dual, thickMm: 1.2 }))).not.toContain('set-in-dark');
    expect(rules(piece({ ...dual, thickMm: 2 }))).toContain('set-in-dark');
    expect(rules(piece({ ...dual, thickMm: undefined }))).toContain('set-in-dark');
    expect(rules(piece({ ...dual, thickMm: 2 }))).toContain('cure');
  });

  it('etches glass for resin alone, and names the cement that is laid out', () => {
    expect(rules(piece({ kind: 'crown', cement: 'glass-ionomer', bases: D }))).not.toContain('inside-etched');
    const seat = fixing(visit([piece({})])).find((s) => s.rule === 'seat');
    expect(seat?.hand).toContain('cement: resin, light-cured');
  });

  it('keeps the trade’s times', () => {
    const steps = fixing(visit([piece({ bases: ED })]));
    const times = (r: string) => steps.find((s) => s.rule === r)?.times;
    expect(times('tooth-etch-enamel')).toEqual([15]);
    expect(steps.find((s) => s.rule === 'tooth-etch-enamel')?.within).toEqual([15, 20]);
    expect(times('tooth-etch-dentin')).toEqual([10]);
    expect(times('tooth-adhesive')).toEqual([20]);
    expect(times('tooth-cured')).toEqual([10]);
    expect(times('inside-silane')).toEqual([20]);
    expect(times('tooth-desensitised')).toEqual([60, 60]);
    expect(times('tack')).toEqual([2]);
  });

  it('rinses every acid off before anything else comes on the tooth', () => {
    for (const [material, kind, cement, bases] of ROWS) {
      const steps = fixing(visit([piece({ material, kind, cement, bases })]));
      const acids = steps.filter((s) => /^tooth-(etch|conditioned)/.test(s.rule));
      if (acids.length > 0) expect(acids.at(-1)?.does).toMatch(/rinse/);
    }
  });

  it('keeps acid off gum that was under a provisional, and says nothing of it where none was worn', () => {
    const beware = (provisional: boolean) =>
      fixing(visit([piece({})], { ...MOUTH, provisional })).find((s) => s.rule === 'tooth-etch-enamel')?.beware;
    expect(beware(true)).toMatch(/gum that lay under the provisional/);
    expect(beware(false)).toBeUndefined();
  });

  it('cleans glass that the laboratory has etched, and does not etch it again', () => {
    const done = rules(piece({ etched: true }));
    expect(done).toContain('inside-acid-clean');
    expect(done).toContain('inside-silane');
    expect(done).not.toContain('inside-etched');
  });

  it('bonds what is thick under dual-cured resin, as light alone does not come', () => {
    expect(usualCement({ kind: 'crown', material: 'glass-ceramic' })).toBe('resin-dual');
    expect(usualCement({ kind: 'veneer', material: 'glass-ceramic' })).toBe('resin-light');
    expect(usualCement({ kind: 'crown', material: 'zirconia' })).toBe('self-adhesive');
  });
});

type Bar = readonly [words: string, piece: Partial<Piece>, mouth: Partial<MouthNow>, barred: string | undefined];
const CROWN = { kind: 'crown', bases: ['dentin'] } as const;
const BARRED: readonly Bar[] = [
  ['light under zirconia', { ...CROWN, material: 'zirconia', cement: 'resin-light' }, {}, 'light-stopped'],
  ['light under metal', { ...CROWN, material: 'metal-ceramic', cement: 'resin-light' }, {}, 'light-stopped'],
  ['light under a crown of 1.8 mm', { ...CROWN, cement: 'resin-light', thickMm: 1.8 }, {}, 'light-stopped'],
  ['light under low translucency at 1.2 mm', { ceramic: 'glass-low', thickMm: 1.2 }, {}, 'light-stopped'],
  ['light under an opaquer', { ceramic: 'opaquer', thickMm: 0.5 }, {}, 'light-stopped'],
  ['light under high translucency at 1.2 mm', { ceramic: 'glass-high', thickMm: 1.2 }, {}, undefined],
  ['light where nobody knows the thickness', { thickMm: undefined }, {}, 'thickness-unknown'],
  ['dual where nobody knows the thickness', { cement: 'resin-dual', thickMm: undefined }, {}, undefined],
  ['a veneer on glass-ionomer', { cement: 'glass-ionomer' }, {}, 'veneer-only-bonds'],
  ['a veneer on calcium aluminate', { cement: 'calcium-aluminate' }, {}, 'veneer-only-bonds'],
  ['a veneer on self-adhesive resin', { cement: 'self-adhesive' }, {}, 'veneer-only-bonds'],
  ['a veneer on temporary cement', { cement: 'temporary' }, {}, 'veneer-only-bonds'],
  [
    'a feldspathic crown on glass-ionomer',
    { ...CROWN, material: 'feldspathic', cement: 'glass-ionomer' },
    {},
    'glass-only-bonded',
  ],
  [
    'a feldspathic crown on self-adhesive resin',
    { ...CROWN, material: 'feldspathic', cement: 'self-adhesive' },
    {},
    'glass-only-bonded',
  ],
  ['a crown of glass left on temporary cement', { ...CROWN, cement: 'temporary' }, {}, 'temporary-last'],
  ['a zirconia crown on temporary cement', { ...CROWN, material: 'zirconia', cement: 'temporary' }, {}, undefined],
  ['bonding where gum bleeds', {}, { gum: 'bleeds' }, 'bleeding-no-bond'],
  ['a bonded crown where gum bleeds', { ...CROWN, cement: 'resin-dual' }, { gum: 'bleeds' }, 'bleeding-no-bond'],
  [
    'zirconia on glass-ionomer where gum bleeds',
    { ...CROWN, material: 'zirconia', cement: 'glass-ionomer' },
    { gum: 'bleeds' },
    undefined,
  ],
  ['bonding where it can’t be kept dry', {}, { dry: false }, 'wet-no-bond'],
  ['bonding of one tooth that can’t be kept dry', {}, { wet: [11] }, 'wet-no-bond'],
  ['bonding where another tooth can’t be kept dry', {}, { wet: [12] }, undefined],
  [
    'zirconia on calcium aluminate where it is wet',
    { ...CROWN, material: 'zirconia', cement: 'calcium-aluminate' },
    { dry: false },
    undefined,
  ],
  ['bonding five days after bleaching', {}, { bleachedDays: 5 }, 'bleached-too-late'],
  ['bonding a fortnight after bleaching', {}, { bleachedDays: 14 }, undefined],
  [
    'glass-ionomer on walls of 2 mm',
    { ...CROWN, material: 'zirconia', cement: 'glass-ionomer', wallMm: 2 },
    {},
    'short-walls',
  ],
  [
    'glass-ionomer on walls of 4 mm',
    { ...CROWN, material: 'zirconia', cement: 'glass-ionomer', wallMm: 4 },
    {},
    undefined,
  ],
  ['resin on walls of 2 mm', { ...CROWN, material: 'zirconia', cement: 'resin-dual', wallMm: 2 }, {}, undefined],
];

describe('what must not be', () => {
  it.each(BARRED)('%s', (_, p, m, barred) => {
    const all = mustNot(piece(p), { ...MOUTH, ...m });
    if (barred) {
      const found = all.find((a) => a.rule === barred);
      expect(found?.why).toMatch(/\w/);
      expect(found?.instead).toMatch(/\w/);
    } else expect(all).toEqual([]);
  });

  it('names the zirconia crown where bonding can’t be, and never for a veneer', () => {
    const [crown] = mustNot(piece({ ...CROWN, cement: 'resin-dual' }), { ...MOUTH, dry: false });
    const [veneer] = mustNot(piece({}), { ...MOUTH, dry: false });
    expect(crown?.instead).toMatch(/zirconia/);
    expect(veneer?.instead).not.toMatch(/zirconia/);
  });

  it('is told at the visit where it is done, beside the steps', () => {
    const f = visit([piece({})], { ...MOUTH, gum: 'bleeds' });
    expect(protocolOf('seating', f).mustNot.map((m) => m.rule)).toContain('bleeding-no-bond');
    expect(protocolOf('seating', f).steps.length).toBeGreaterThan(10);
    expect(protocolOf('review', f).mustNot).toEqual([]);
  });
});

it('the table has the sixty rows and more that it is meant to have', () => {
  expect(ROWS.length + BARRED.length).toBeGreaterThanOrEqual(60);
});
