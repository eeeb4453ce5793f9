import {
  check,
  completedSettings,
  DecideSection,
  isSettled,
  MatchSection,
  PracticeSettings,
  readColour,
  rulesIn,
  settledOn,
  wantedAt,
} from '@radiant/contract';
import { shadeOf } from '@radiant/core';

const reading = (
  tooth: number,
  of: 'tooth' | 'stump',
  zone: 'gum' | 'body' | 'edge',
  L: number,
  at = '2026-11-20',
) => ({
  tooth,
  of,
  zone,
  L,
  a: 1,
  b: 18,
  wet: true,
  at: `${at}T09:10:00.000Z`,
});
const section = (more: Partial<MatchSection>): MatchSection => ({
  readings: [reading(11, 'tooth', 'body', 76), reading(21, 'tooth', 'body', 61), reading(21, 'tooth', 'gum', 58)],
  ceramic: 'glass-medium',
  cement: 'clear',
  wanted: 'A2',
  ...more,
});

describe('what is wanted at a zone of a tooth', () => {
  it('is the shade; of a scale of the house the colour that the case keeps; and like another tooth where that was read', () => {
    expect(wantedAt(section({}), 21, 'body')).toEqual(shadeOf('A2').lab);
    const own = { scale: 'tabs', L: 77, a: 0, b: 15 };
    expect(wantedAt(section({ wanted: 'mine', wantedColour: own }), 21, 'body')).toEqual({ L: 77, a: 0, b: 15 });
    expect(wantedAt(section({ like: 11 }), 21, 'body')?.L).toBe(76);
    expect(wantedAt(section({ like: 11 }), 21, 'gum')).toEqual(shadeOf('A2').lab);
    // A tooth is not like itself.
    expect(wantedAt(section({ like: 21 }), 21, 'body')).toEqual(shadeOf('A2').lab);
    expect(wantedAt(section({ wanted: null }), 21, 'body')).toBeUndefined();
  });
});

describe('bleaching first', () => {
  const bleaching = [{ tooth: 21, to: 'A1', waitDays: 14, endedOn: '2026-11-10' }];

  it('a colour has settled so many days after the last one', () => {
    expect(settledOn({ tooth: 21, to: 'A1', waitDays: 14, endedOn: '2026-02-20' })).toBe('2026-03-06');
    expect(settledOn({ tooth: 21, to: 'A1', waitDays: 14, endedOn: '2028-02-20' })).toBe('2028-03-05');
    expect(settledOn({ tooth: 21, to: 'A1', waitDays: 14 })).toBeUndefined();
  });

  it('before that what was read is not used, and the hoped-for shade stands for it; after that it counts', () => {
    const early = section({ bleaching });
    expect(isSettled(early.readings[1] as never, bleaching[0])).toBe(false);
    expect(readColour(early, 21, 'body')?.tooth).toEqual(shadeOf('A1').lab);
    const late = section({ bleaching, readings: [reading(21, 'tooth', 'body', 70, '2026-11-24')] });
    expect(readColour(late, 21, 'body')?.tooth?.L).toBe(70);
    // Of other teeth nothing changes.
    expect(readColour(early, 11, 'body')?.tooth?.L).toBe(76);
  });

  it('without a reading, a shade or bleaching nothing is known', () => {
    expect(readColour(section({}), 12, 'body')).toBeNull();
    expect(readColour(section({ wanted: null }), 21, 'body')).toBeNull();
  });

  it('a rough reading says so', () => {
    const rough = section({ readings: [{ ...reading(21, 'tooth', 'body', 61), rough: true }] });
    expect(readColour(rough, 21, 'body')?.rough).toBe(true);
    expect(readColour(section({}), 21, 'body')?.rough).toBeUndefined();
  });
});

const faults = (type: new () => object, v: object) =>
  check(type, v)
    .errors.map((e) => e.message)
    .join(' | ');

describe('what a case and a house may say of colour and of deciding', () => {
  it('a match section', () => {
    const ok = section({
      bleaching: [{ tooth: 21, to: 'A1', waitDays: 14 }],
      character: [{ tooth: 21, translucency: 'high', texture: 'light', note: 'a halo' }],
      ceramic: 'plate:our own',
      like: 11,
    });
    expect(faults(MatchSection, ok)).toBe('');
    expect(faults(MatchSection, section({ wanted: 'mine', wantedColour: { scale: 's', L: 70, a: 0, b: 12 } }))).toBe(
      '',
    );
    expect(faults(MatchSection, section({ wanted: 'mine' }))).toMatch(/no such shade/);
    expect(faults(MatchSection, section({ ceramic: 'gold' }))).toMatch(/ceramic is not known/);
    expect(faults(MatchSection, section({ bleaching: [{ tooth: 21, to: 'A1', waitDays: 90 }] }))).toMatch(
      /0 to 60 days/,
    );
    expect(faults(MatchSection, section({ like: 17 }))).toMatch(/15 to 25/);
  });

  it('two plans', () => {
    const own = { choices: [{ tooth: 11, option: 'veneer' }], other: [{ tooth: 11, option: 'none' }], plan: 'B' };
    expect(faults(DecideSection, { ...own, wet: [11] })).toBe('');
    expect(faults(DecideSection, { ...own, plan: 'C' })).toMatch(/A plan is A or B/);
    expect(faults(DecideSection, { ...own, wet: [11, 11] })).toMatch(/named twice/);
  });

  const settings = (more: object) => ({ ...completedSettings({}), ...more });
  const flat = (v: number) => Array.from({ length: 31 }, () => v);
  const plate = {
    name: 'own',
    mm: 1,
    overBlack: flat(0.3),
    overWhite: flat(0.5),
    blackGround: flat(0.02),
    whiteGround: flat(0.6),
  };

  it('ceramics, scales, rules and fees of a house', () => {
    const scale = { name: 'tabs', shades: [{ name: '1', L: 75, a: 0, b: 15 }] };
    const good = settings({
      plates: [plate],
      scales: [scale],
      rulesOff: ['acid'],
      ruleLimits: [{ rule: 'child', value: 16 }],
      fees: [{ option: 'veneer', fee: 900 }],
      currency: 'EUR',
    });
    expect(faults(PracticeSettings, good)).toBe('');
    expect(faults(PracticeSettings, settings({ plates: [{ ...plate, overBlack: flat(2) }] }))).toMatch(
      /0 to 1.05 each/,
    );
    expect(faults(PracticeSettings, settings({ plates: [plate, plate] }))).toMatch(/Two ceramics have the same name/);
    expect(faults(PracticeSettings, settings({ scales: [{ name: 'empty', shades: [] }] }))).toMatch(
      /at least one shade/,
    );
    expect(faults(PracticeSettings, settings({ ruleLimits: [{ rule: 'child', value: 40 }] }))).toMatch(
      /between 12 and 25 years/,
    );
    expect(faults(PracticeSettings, settings({ ruleLimits: [{ rule: 'acid', value: 1 }] }))).toMatch(
      /turns on no number/,
    );
    expect(faults(PracticeSettings, settings({ fees: [{ option: 'veneer', fee: -1 }] }))).toMatch(/A fee lies between/);
  });

  it('rules of the house and of the case speak together', () => {
    const house = { rulesOff: ['acid'] as const, ruleLimits: [{ rule: 'child' as const, value: 16 }] };
    expect(rulesIn(house, ['grinding'])).toEqual({ off: ['acid', 'grinding'], limits: { child: 16 } });
    expect(rulesIn(undefined)).toEqual({ off: [], limits: {} });
  });
});
