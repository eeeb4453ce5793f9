/** The steps of each visit, its gates and cautions; times, clocks, lots. */
import {
  type AtVisit,
  type Beware,
  type DirectKind,
  GATES,
  leftMs,
  lookAgain,
  lotOf,
  type OldWork,
  ownTimes,
  protocolOf,
  startClock,
  stockFromRows,
  timeOf,
  USUAL_DIRECT,
  usualCord,
  VISIT_KINDS,
} from '../src/index.js';

const at = (over: Partial<AtVisit> = {}, beware: readonly Beware[] = []): AtVisit => ({
  teeth: [12, 11, 21, 22],
  works: [12, 11, 21, 22].map((tooth) => ({ tooth, work: 'veneer' })),
  cuts: [12, 11, 21, 22].map((tooth) => ({ tooth, kind: 'veneer', belowGum: false })),
  pieces: [],
  present: [],
  oldWorks: [],
  posts: [],
  cord: 'one',
  provisional: 'shells',
  maker: 'laboratory',
  impression: 'same',
  tissue: 'gum',
  ...over,
  mouth: { provisional: true, beware: new Set(beware), ...over.mouth },
});
const done = (visit: Parameters<typeof protocolOf>[0], f: AtVisit) => protocolOf(visit, f).steps;
const rules = (visit: Parameters<typeof protocolOf>[0], f: AtVisit) => done(visit, f).map((s) => s.rule);

it('every visit has steps, each with a reason and a source, and no two with one name', () => {
  for (const visit of VISIT_KINDS) {
    const steps = done(visit, at());
    expect(steps.length).toBeGreaterThan(0);
    expect(new Set(steps.map((s) => s.id)).size).toBe(steps.length);
    for (const s of steps) {
      expect(s.why.length).toBeGreaterThan(10);
      expect(s.source.mark).toBe('common practice');
      for (const t of s.times ?? []) expect(t).toBeGreaterThan(0);
    }
  }
});

it('every gate stands before what it guards', () => {
  const before = (visit: Parameters<typeof protocolOf>[0], gate: keyof typeof GATES, rule: string, f = at()) => {
    const all = rules(visit, f);
    expect(all.indexOf(`gate-${gate}`)).toBeGreaterThanOrEqual(0);
    expect(all.indexOf(rule)).toBeGreaterThan(all.indexOf(`gate-${gate}`));
  };
  before('preparation', 'contour', 'cut-by-list');
  before('preparation', 'tissue', 'cut-by-list');
  before('preparation', 'shade-wet', 'numb');
  before('preparation', 'preparation', 'impression-made');
  before('impression', 'tissue', 'impression-made');
  before('tissue', 'contour', 'gum-cut');
  const piece = {
    tooth: 11,
    kind: 'veneer',
    material: 'glass-ceramic',
    thickMm: 0.7,
    cement: 'resin-light',
    bases: ['enamel'],
  } as const;
  for (const gate of ['tissue', 'margins', 'colour', 'word'] as const)
    before('seating', gate, 'seat', at({ pieces: [piece] }));
  // The colour is judged before anything is isolated: isolated teeth dry.
  before('seating', 'colour', 'tooth-isolated', at({ pieces: [piece] }));
});

describe('the preparation visit', () => {
  it.each([
    ['metal-ceramic', /one cut.*twist/],
    ['zirconia', /several burs.*its time/],
    ['composite', /grooves down to tooth/],
    ['glass-ceramic', /grooves to the cement/],
  ] as readonly (readonly [OldWork, RegExp])[])('takes %s off by its material, before anything is cut', (work, how) => {
    const steps = done('preparation', at({ oldWorks: [{ tooth: 11, work }] }));
    const off = steps.find((s) => s.rule === `off-${work}`);
    expect(off?.does).toMatch(how);
    expect(steps.indexOf(off as (typeof steps)[0])).toBeLessThan(steps.findIndex((s) => s.rule === 'cut-by-list'));
  });

  it('leaves stops where a whole arch is cut, and only there', () => {
    const crowns = (n: number) =>
      [13, 12, 11, 21, 22, 23].slice(0, n).map((tooth) => ({ tooth, kind: 'crown', belowGum: true }) as const);
    expect(rules('preparation', at({ cuts: crowns(6) }))).toContain('stops-left');
    expect(rules('preparation', at({ cuts: crowns(4) }))).not.toContain('stops-left');
  });

  it('checks a post in the bite before it is cured', () => {
    const post = done('preparation', at({ posts: [11] })).find((s) => s.rule === 'post-in');
    expect(post?.does).toMatch(/bite closed before it is cured/);
    expect(rules('preparation', at())).not.toContain('post-in');
  });

  it('takes the impression the same day only where that is decided', () => {
    expect(rules('preparation', at({ impression: 'same' }))).toContain('impression-made');
    expect(rules('preparation', at({ impression: 'healed' }))).not.toContain('impression-made');
  });
});

describe('cords', () => {
  it('are two for crowns and below the gum, one for veneers at it, none where nothing is cut', () => {
    expect(usualCord([{ tooth: 11, kind: 'crown', belowGum: false }])).toBe('two');
    expect(usualCord([{ tooth: 11, kind: 'veneer', belowGum: true }])).toBe('two');
    expect(usualCord([{ tooth: 11, kind: 'veneer', belowGum: false }])).toBe('one');
    expect(usualCord([])).toBe('none');
  });

  it('carry no epinephrine where blood pressure is a caution', () => {
    const cord = (beware: Beware[]) => done('impression', at({}, beware)).find((s) => s.rule === 'cord-first');
    expect(cord(['pressure'])?.beware).toMatch(/no epinephrine/);
    expect(cord(['pressure'])?.hand.join()).toMatch(/no epinephrine/);
    expect(cord([])?.beware).toBeUndefined();
  });

  it('work for 8 to 10 min under caps, and ferric agents come last: they stain the front', () => {
    const steps = done('impression', at({ cord: 'two' }));
    expect(steps.find((s) => s.rule === 'cord-works')?.within).toEqual([480, 600]);
    expect(steps.find((s) => s.rule === 'bleeding-controlled')?.why).toMatch(/stain/);
    expect(steps.map((s) => s.rule)).toContain('cord-second');
  });

  it('the bite is recorded over prepared teeth only', () => {
    expect(done('impression', at()).find((s) => s.rule === 'bite-over-prepared')?.does).toMatch(
      /\{12\}, \{11\}, \{21\}, \{22\} only/,
    );
  });
});

describe('provisionals', () => {
  it('of veneers are bonded on a spot of 2 × 2 mm, of crowns cemented without eugenol', () => {
    expect(done('preparation', at()).find((s) => s.rule === 'spot-etched')?.does).toMatch(/2 × 2 mm/);
    const crown = done('preparation', at({ cuts: [{ tooth: 11, kind: 'crown', belowGum: true }] }));
    expect(crown.map((s) => s.rule)).not.toContain('spot-etched');
    expect(crown.find((s) => s.rule === 'provisional-cemented')?.does).toMatch(/without eugenol/);
  });

  it('are relined and pumped, or made in an index and wiggled; the dentin has two coats of 60 s before', () => {
    expect(rules('preparation', at())).toContain('shells-relined');
    expect(rules('preparation', at({ provisional: 'bis-acryl' }))).not.toContain('shells-relined');
    expect(rules('preparation', at({ provisional: 'bis-acryl' }))).toContain('bis-acryl-made');
    expect(done('preparation', at()).find((s) => s.rule === 'provisional-desensitised')?.times).toEqual([60, 60]);
  });

  it('have their contacts pencilled before they are trimmed, and come off with a cut and a twist', () => {
    const all = rules('preparation', at());
    expect(all.indexOf('contacts-pencilled')).toBeLessThan(all.indexOf('embrasures-open'));
    expect(done('impression', at()).find((s) => s.rule === 'provisional-off')?.does).toMatch(
      /stump shines through, then a twist/,
    );
  });
});

describe('composite', () => {
  const composite = (kind: DirectKind, seconds = USUAL_DIRECT.seconds) =>
    at({
      works: [{ tooth: 11, work: 'composite' }],
      composite: { settings: { ...USUAL_DIRECT, seconds }, kinds: [{ tooth: 11, kind }] },
    });

  it('is shaded wet before it is isolated, built from the palate forward, and lit as long as the case says', () => {
    const f = composite('gap', 12);
    const all = rules('composite', f);
    const order = [
      'gate-shade-wet',
      'composite-isolated',
      'composite-roughen',
      'composite-etch-enamel',
      'composite-adhesive',
      'composite-shell',
      'composite-sides',
      'composite-layers',
      'composite-contour',
      'composite-polished',
    ];
    expect(order.map((r) => all.indexOf(r))).toEqual(order.map((r) => all.indexOf(r)).sort((a, b) => a - b));
    expect(all.indexOf(order[0] as string)).toBeGreaterThanOrEqual(0);
    expect(done('composite', f).find((s) => s.rule === 'composite-layers')?.times).toEqual([12]);
    expect(done('composite', at()).find((s) => s.rule === 'composite-layers')?.times).toEqual([20]);
  });

  it('is bevelled where a tooth broke and nowhere else, troughed where one is worn, and ground before it is only added', () => {
    const own = (kind: DirectKind) =>
      rules('composite', composite(kind)).filter((r) => /bevel|trough|core|ground|roughen|sides/.test(r));
    expect(own('corner')).toEqual(['composite-bevel', 'composite-sides']);
    expect(own('worn')).toEqual(['composite-trough', 'composite-roughen', 'composite-core']);
    expect(own('gap')).toEqual(['composite-roughen', 'composite-sides']);
    expect(own('addition')).toEqual(['composite-ground', 'composite-roughen', 'composite-sides']);
    expect(done('composite', composite('worn')).find((s) => s.rule === 'composite-trough')?.does).toMatch(
      /\{11\} 1\.2 mm deep; enamel walls of 0\.8 mm stay/,
    );
  });

  it('fills a dent at the neck without shell, index or sides: dry first, from its side at the edge', () => {
    const all = rules('composite', composite('neck'));
    expect(all.filter((r) => /isolated|shell|sides|layers|roughen|bevel/.test(r))).toEqual([]);
    expect(all.indexOf('composite-neck')).toBeLessThan(all.indexOf('composite-etch-enamel'));
    expect(all.indexOf('composite-adhesive-cured')).toBeLessThan(all.indexOf('composite-dent'));
    expect(done('composite', composite('neck')).find((s) => s.rule === 'composite-neck')?.does).toMatch(
      /brush, grinding or acid.*edge 1\.0 mm, none at the gum/,
    );
  });
});

it('the house’s own mill adds its work only where it makes the pieces', () => {
  expect(rules('impression', at({ maker: 'mill' }))).toContain('mill-glazed');
  expect(rules('impression', at())).not.toContain('mill-glazed');
});

describe('times', () => {
  it('a timer is right to the millisecond after an hour, whatever the screen did meanwhile', () => {
    const started = Date.UTC(2026, 2, 29, 0, 30);
    expect(leftMs({ startedMs: started, seconds: 3600 }, started + 3_600_000)).toBe(0);
    expect(leftMs({ startedMs: started, seconds: 480 }, started + 100_000)).toBe(380_000);
    expect(leftMs({ startedMs: started, seconds: 20, stoppedMs: started + 5000 }, started + 60_000)).toBe(15_000);
  });

  it('a clock that is set back under a running timer does not give time back, and it is said', () => {
    let c = startClock({ wallMs: 1_000_000, steadyMs: 0 });
    c = lookAgain(c, { wallMs: 1_010_000, steadyMs: 10_000 });
    expect(timeOf(c)).toBe(1_010_000);
    // An hour back.
    c = lookAgain(c, { wallMs: 1_020_000 - 3_600_000, steadyMs: 20_000 });
    expect(timeOf(c)).toBe(1_020_000);
    expect(c.setBackMs).toBe(3_600_000);
    c = lookAgain(c, { wallMs: 1_030_000 - 3_600_000, steadyMs: 30_000 });
    expect(timeOf(c)).toBe(1_030_000);
  });

  it('that it was set back is said also where the server answers before anybody looked', () => {
    const c = startClock({ wallMs: 1_000_000, steadyMs: 0 }, 1_000_500);
    const after = lookAgain(c, { wallMs: 1_010_000 - 3_600_000, steadyMs: 10_000 }, 1_010_500);
    expect(timeOf(after)).toBe(1_010_500);
    expect(after.setBackMs).toBe(3_600_000);
    const later = lookAgain(after, { wallMs: 1_011_000 - 3_600_000, steadyMs: 11_000 }, 1_011_500);
    expect(timeOf(later)).toBe(1_011_500);
    expect(later.setBackMs).toBe(3_600_000);
  });

  it('sleep passes as time, though the steady clock rests in it', () => {
    const c = lookAgain(startClock({ wallMs: 0, steadyMs: 0 }), { wallMs: 600_000, steadyMs: 5000 });
    expect(timeOf(c)).toBe(600_000);
    expect(c.setBackMs).toBeUndefined();
  });

  it('two devices whose clocks differ show the same time once the server was asked', () => {
    const a = startClock({ wallMs: 50_000, steadyMs: 1 }, 100_000);
    const b = startClock({ wallMs: 900_000, steadyMs: 7 }, 100_000);
    expect(timeOf(a)).toBe(timeOf(b));
  });
});

describe('what visits truly took', () => {
  const taken = (teeth: number, minutes: number) => ({ visit: 'seating', teeth, minutes }) as const;

  it('is a line through them, exact where they lie on one', () => {
    expect(ownTimes([taken(2, 44), taken(4, 60), taken(6, 76)])).toEqual([
      { visit: 'seating', visits: 3, minutes: 28, perTooth: 8 },
    ]);
  });

  it('is not bent by one visit that went wrong', () => {
    const [own] = ownTimes([taken(2, 44), taken(4, 60), taken(6, 76), taken(8, 92), taken(4, 240)]);
    expect(own?.perTooth).toBeGreaterThanOrEqual(6);
    expect(own?.perTooth).toBeLessThanOrEqual(10);
    expect(own?.visits).toBe(5);
  });

  it('is not said of two visits, and is one number where all had as many teeth', () => {
    expect(ownTimes([taken(2, 44), taken(4, 60)])).toEqual([]);
    expect(ownTimes([taken(4, 50), taken(4, 60), taken(4, 90)])).toEqual([
      { visit: 'seating', visits: 3, minutes: 60, perTooth: 0 },
    ]);
  });
});

describe('what a hand scanner types', () => {
  // The example of the GS1 General Specifications, from memory: item, expiry, batch.
  it('reads item, expiry and lot, with brackets and run together', () => {
    const want = { item: '09506000134352', lot: 'ABC123', expiry: '2028-02-29' };
    expect(lotOf('(01)09506000134352(17)280229(10)ABC123', '2026-11-28')).toEqual(want);
    expect(lotOf('010950600013435217280229' + '10ABC123', '2026-11-28')).toEqual(want);
    expect(lotOf(']d20109506000134352' + '10ABC123\u001d17280229', '2026-11-28')).toEqual(want);
  });

  it('takes day 00 for the month’s last, and the century that is nearest', () => {
    expect(lotOf('(17)280200(10)L', '2026-11-28')?.expiry).toBe('2028-02-29');
    expect(lotOf('(17)991231(10)L', '2026-11-28')?.expiry).toBe('1999-12-31');
    expect(lotOf('(17)751231(10)L', '2026-11-28')?.expiry).toBe('2075-12-31');
  });

  it('leaves alone what is no label', () => {
    for (const typed of ['etch gel', '1234', '(17)281301(10)L', '(17)280230', '', '0109506'])
      expect(lotOf(typed, '2026-11-28')).toBeUndefined();
  });
});

describe('a stock list', () => {
  const HEAD = ['Name', 'GTIN', 'Batch', 'Expires'];
  it('is read by the heads of its columns, in any order', () => {
    expect(stockFromRows([HEAD, ['etch gel', '09506000134352', 'A1', '2028-02-29']])).toEqual([
      { name: 'etch gel', item: '09506000134352', lot: 'A1', expiry: '2028-02-29' },
    ]);
    expect(
      stockFromRows([
        ['lot', 'name'],
        ['A1', 'silane'],
      ]),
    ).toEqual([{ name: 'silane', lot: 'A1' }]);
  });

  it.each([
    [[['what', 'where']], /has the columns name, item, lot and expiry/],
    [[HEAD, ['', '', 'A1', '']], /Row 2: a material has a name/],
    [[HEAD, ['etch gel', '', 'A1', '29.2.2028']], /Row 2: “29\.2\.2028” is no day/],
    [[HEAD, ['etch gel', '12', 'A1', '']], /Row 2: “12” is no item number/],
    [[HEAD, ['etch gel', '', 'A1', ''], ['etch gel', '', 'A1', '']], /Row 3: etch gel, lot A1, stands twice/],
  ] as const)('refuses %j', (rows, sentence) => {
    expect(() => stockFromRows(rows)).toThrow(sentence);
  });
});
