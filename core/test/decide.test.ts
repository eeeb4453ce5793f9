import {
  CEMENT_IDS,
  CEMENTS,
  CERAMIC_CLASSES,
  CERAMIC_IDS,
  type Effect,
  LETTER_SCALE,
  NO_FIGURES,
  OPTION_IDS,
  OPTIONS,
  type OptionFigures,
  type OptionId,
  optionOf,
  RULE_IDS,
  RULES,
  ranked,
  SHADE_NAMES,
  type ToothFacts,
} from '@radiant/core';
import { SOUND } from './sound-tooth.js';

const verdict = (id: string, facts: Partial<ToothFacts>, option: OptionId, x: Partial<OptionFigures> = {}) => {
  const rule = RULES.find((r) => r.id === id);
  if (!rule) throw new Error(`There is no rule ${id}.`);
  return rule.speaks({ ...SOUND, ...facts }, optionOf(option), { ...NO_FIGURES, ...x }, rule.limit?.value ?? 0);
};

type Row = [
  rule: string,
  fires: [Partial<ToothFacts>, OptionId, Partial<OptionFigures>, Effect],
  silent: [Partial<ToothFacts>, OptionId, Partial<OptionFigures>],
];
/** Each rule once where it speaks and once, as near as can be, where it does not. */
const TABLE: Row[] = [
  ['additive-first', [{}, 'glass-crown', { removedShare: 0.41 }, 'against'], [{}, 'veneer', { removedShare: 0.39 }]],
  ['broken-down', [{ broken: true }, 'zirconia-crown', {}, 'for'], [{ broken: true }, 'veneer', {}]],
  ['enamel-to-bond', [{}, 'veneer', { enamelShare: 0.49 }, 'against'], [{}, 'veneer', { enamelShare: 0.5 }]],
  ['dry-to-bond', [{ dry: false }, 'veneer', {}, 'against'], [{ dry: true }, 'veneer', {}]],
  [
    'thin-palatal-room',
    [{ palatalRoomMm: 0.9 }, 'zirconia-crown', {}, 'for'],
    [{ palatalRoomMm: 1 }, 'glass-crown', {}],
  ],
  ['bite-lacks', [{}, 'metal-crown', { lacksMm: 0.6 }, 'against'], [{}, 'metal-crown', { lacksMm: 0.5 }]],
  ['dark-stump', [{ dark: true }, 'veneer', { dE: 1.9 }, 'against'], [{}, 'veneer', { dE: 1.8 }]],
  ['no-prep-colour', [{ nowDE: 4.1 }, 'no-prep', {}, 'against'], [{ nowDE: 9 }, 'veneer', {}]],
  ['the-wish', [{ formWished: true }, 'none', {}, 'against'], [{ formWished: true }, 'direct', {}]],
  ['bleach-first', [{ lighter: true }, 'bleach', {}, 'for'], [{ lighter: false }, 'bleach', {}]],
  ['adjustable-stain', [{ bleachLater: true }, 'veneer', {}, 'note'], [{ bleachLater: true }, 'zirconia-crown', {}]],
  [
    'same-centrals',
    [{ otherCentral: 'zirconia-crown' }, 'veneer', {}, 'against'],
    [{ otherCentral: 'none' }, 'veneer', {}],
  ],
  [
    'beside-a-crown',
    [{ neighbours: ['glass-crown'] }, 'veneer', {}, 'for'],
    [{ neighbours: ['veneer'] }, 'veneer', {}],
  ],
  ['grinding', [{ grinding: true }, 'facial', {}, 'against'], [{ grinding: true }, 'none', {}]],
  ['acid', [{ acid: true }, 'direct', {}, 'for'], [{ acid: true }, 'veneer', {}]],
  ['child', [{ ageYears: 17 }, 'veneer', {}, 'reason asked'], [{ ageYears: 18 }, 'veneer', {}]],
  ['gap-schools', [{ gaps: true }, 'direct', {}, 'note'], [{ gaps: true }, 'zirconia-crown', {}]],
  ['came-off', [{ cameOff: true }, 'zirconia-crown', {}, 'against'], [{}, 'zirconia-crown', {}]],
  ['short-walls', [{}, 'zirconia-crown', { wallMm: 2.9 }, 'against'], [{}, 'zirconia-crown', { wallMm: 3 }]],
  [
    'least-thickness',
    [{}, 'veneer', { leastMm: { planned: 0.2, material: 0.3 } }, 'reason asked'],
    [{}, 'veneer', { leastMm: { planned: 0.3, material: 0.3 } }],
  ],
  ['way-out', [{}, 'extended', { hiddenMm: 0.4 }, 'against'], [{}, 'extended', { hiddenMm: 0.3 }]],
  [
    'translucency',
    [
      {},
      'veneer',
      {
        ceramics: [
          { ceramic: 'glass-medium', dE: 2.4 },
          { ceramic: 'glass-low', dE: 1.6 },
        ],
        ceramic: 'glass-low',
        dE: 1.6,
      },
      'note',
    ],
    [
      {},
      'veneer',
      {
        ceramics: [
          { ceramic: 'glass-medium', dE: 3.4 },
          { ceramic: 'glass-low', dE: 2.6 },
        ],
        ceramic: 'glass-low',
        dE: 2.6,
      },
    ],
  ],
  ['permitted-use', [{ dry: false }, 'no-prep', {}, 'reason asked'], [{ dry: false }, 'veneer', {}]],
  [
    'margin-under',
    [{}, 'glass-crown', { margin: { overMm: -0.2, underMm: 0.9 } }, 'against'],
    [{}, 'glass-crown', { margin: { overMm: 0.2, underMm: 0.7 } }],
  ],
];

describe('the rules of the house', () => {
  it('the table tries every rule once', () => {
    expect(TABLE.map(([id]) => id).sort()).toEqual(RULES.map((r) => r.id).sort());
  });

  it.each(TABLE)('%s speaks where it should and is silent where not', (id, [f, o, x, effect], [sf, so, sx]) => {
    const own = verdict(id, f, o, x);
    expect(own?.effect).toBe(effect);
    expect(own?.says).toMatch(/^[A-Z0-9].*[.]$/);
    expect(verdict(id, sf, so, sx)).toBeUndefined();
  });

  it('each has a reason and a source, and a limit lies within what a house may set', () => {
    for (const { reason, source, limit } of RULES) {
      expect(reason.length).toBeGreaterThan(30);
      expect(source.mark).toMatch(/common practice|published|standard/);
      if (limit) expect(limit.value >= limit.min && limit.value <= limit.max).toBe(true);
    }
  });
});

describe('the order of the options', () => {
  const figures = new Map<OptionId, OptionFigures>([
    ['direct', { removedMm3: 0, removedShare: 0 }],
    ['no-prep', { removedMm3: 1, removedShare: 0.01, dE: 6 }],
    ['facial', { removedMm3: 24, removedShare: 0.11, enamelShare: 0.95, dE: 4 }],
    ['veneer', { removedMm3: 40, removedShare: 0.18, enamelShare: 0.9, dE: 5 }],
    ['wrap', { removedMm3: 46, removedShare: 0.2, enamelShare: 0.9, dE: 5 }],
    ['extended', { removedMm3: 50, removedShare: 0.23, enamelShare: 0.85, dE: 5 }],
    ['glass-crown', { removedMm3: 140, removedShare: 0.63, enamelShare: 0.3, dE: 3 }],
    ['zirconia-crown', { removedMm3: 120, removedShare: 0.55, enamelShare: 0.4, dE: 1.2 }],
    ['metal-crown', { removedMm3: 150, removedShare: 0.68, enamelShare: 0.3, dE: 0.2 }],
  ]);
  const order = (facts: Partial<ToothFacts>, own = figures) =>
    ranked({ ...SOUND, ...facts }, own).map((r) => r.option.id as OptionId);
  const before = (all: readonly OptionId[], a: OptionId, b: OptionId) =>
    expect(all.indexOf(a)).toBeLessThan(all.indexOf(b));

  it('holds every option once', () => {
    expect([...order({})].sort()).toEqual(OPTIONS.map((o) => o.id).sort());
  });

  it('on a sound light tooth what is added comes before what is cut, and a veneer before a crown', () => {
    const light = new Map([...figures].map(([id, x]) => [id, { ...x, dE: 0.5 }] as const));
    const all = order({}, light);
    before(all, 'direct', 'veneer');
    before(all, 'veneer', 'glass-crown');
  });

  it('over a dark stump the crown that hides it comes before every veneer that does not', () => {
    const all = order({ dark: true });
    for (const other of ['facial', 'veneer', 'wrap', 'extended', 'direct'] as const)
      before(all, 'zirconia-crown', other);
  });

  it('where it can’t be kept dry what may be cemented comes before what has to be bonded', () => {
    before(order({ dry: false, broken: true }), 'zirconia-crown', 'glass-crown');
  });

  it('a rule that is switched off says nothing, and a limit of the house moves where it turns', () => {
    const off = ranked({ ...SOUND, grinding: true }, figures, { off: ['grinding'], limits: {} });
    expect(off.some((r) => r.said.some((s) => s.rule.id === 'grinding'))).toBe(false);
    const told = (limit: number) =>
      ranked(SOUND, figures, { off: [], limits: { 'dark-stump': limit } })
        .find((r) => r.option.id === 'facial')
        ?.said.some((s) => s.rule.id === 'dark-stump');
    expect([told(3.9), told(4.1)]).toEqual([true, false]);
  });

  it('what asks for a reason says so, and stands behind what does not', () => {
    const child = ranked({ ...SOUND, ageYears: 14 }, figures);
    expect(child.find((r) => r.option.id === 'veneer')?.asksReason).toBe(true);
    expect(child.find((r) => r.option.id === 'direct')?.asksReason).toBe(false);
    before(
      child.map((r) => r.option.id as OptionId),
      'direct',
      'veneer',
    );
  });
});

it('what forms are checked against names the same options, rules, ceramics, cements and shades', () => {
  expect(OPTIONS.map((o) => o.id)).toEqual([...OPTION_IDS]);
  expect(RULES.map((r) => r.id)).toEqual([...RULE_IDS]);
  expect(CERAMIC_CLASSES.map((c) => c.id)).toEqual([...CERAMIC_IDS]);
  expect(CEMENTS.map((c) => c.id)).toEqual([...CEMENT_IDS]);
  expect(LETTER_SCALE.shades.map((s) => s.name)).toEqual([...SHADE_NAMES]);
});
