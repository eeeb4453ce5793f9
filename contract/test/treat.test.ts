import {
  check,
  EMPTY_SECTIONS,
  FIRST_CLINIC,
  FIRST_SETTINGS,
  mayWrite,
  PracticeSettings,
  SECTIONS,
  TreatSection,
  type VisitRun,
} from '@radiant/contract';
import { answerAt, atVisitOf, type ChairCase, doneSteps, heldVisits, takenOf } from '@radiant/contract/chair';
import { treatRecord } from '@radiant/contract/treat-record';
import { protocolOf } from '@radiant/core';

const at = (minute: number) => new Date(Date.UTC(2026, 10, 28, 9, minute)).toISOString();
const who = { visit: 'seating', round: 1, by: 'Dr Gull' } as const;
const treat = (over: Partial<TreatSection> = {}): TreatSection => ({ ...EMPTY_SECTIONS.treat, ...over });
const sentences = (data: object) =>
  check(TreatSection, { ...EMPTY_SECTIONS.treat, ...data }).errors.map((e) => e.message);

describe('what is kept of a treatment', () => {
  it('takes what is done, and refuses what is none', () => {
    expect(sentences({})).toEqual([]);
    expect(
      sentences({
        runs: [{ ...who, begunAt: at(0), endedAt: at(60), teeth: 6 }],
        done: [{ ...who, step: 'seat:11-21', at: at(5), did: 'Seat 11, 21.' }],
        answers: [{ ...who, gate: 'word', met: true, saidBy: 'the patient', at: at(4) }],
        pieces: [{ tooth: 11, cement: 'resin-dual', thickMm: 0.8, bases: ['enamel', 'dentin'] }],
      }),
    ).toEqual([]);
  });

  it.each<[string, object, string]>([
    [
      'a gate that is none',
      { answers: [{ ...who, gate: 'door', met: true, saidBy: 'x', at: at(0) }] },
      'This gate is not known.',
    ],
    [
      'an answer of nobody',
      { answers: [{ ...who, gate: 'word', met: true, saidBy: '', at: at(0) }] },
      'Say who says so, in 1 to 120 characters.',
    ],
    [
      'a step left out for no reason',
      { done: [{ ...who, step: 's', at: at(0), did: 'x', leftOut: '' }] },
      'Say why it is left out, in 1 to 400 characters.',
    ],
    [
      'a moment without its zone',
      { runs: [{ ...who, begunAt: '2026-11-28T09:00:00' }] },
      'When it was done is a moment with its zone.',
    ],
    ['a cement that is none', { pieces: [{ tooth: 11, cement: 'glue' }] }, 'This cement is not known.'],
    ['a piece held on nothing', { pieces: [{ tooth: 11, bases: [] }] }, 'A piece is held on something.'],
    ['a piece of no thickness', { pieces: [{ tooth: 11, thickMm: 0 }] }, 'A piece is 0.1 to 6 mm thick.'],
    [
      'a timer of no time',
      {
        timers: [
          { ...who, id: '4b6c1bb8-31a8-4a39-8a3f-0c4fd53e6d33', step: 's', label: 'x', seconds: 0, startedAt: at(0) },
        ],
      },
      'A timer runs for 1 to 7200 s.',
    ],
    [
      'the tenth time',
      { runs: [{ ...who, round: 10, begunAt: at(0) }] },
      'A visit is held for the first to the 9th time.',
    ],
  ])('refuses %s', (_, over, sentence) => {
    expect(sentences(over)).toEqual([sentence]);
  });

  it('says where a visit ends before it begins', () => {
    const runs: VisitRun[] = [{ ...who, begunAt: at(30), endedAt: at(10) }];
    expect(SECTIONS.treat.sense(treat({ runs }), new Map())).toEqual([
      { field: 'runs.0.endedAt', message: 'A visit ends after it begins.' },
    ]);
  });

  it('is written by whoever is at the chair, not by the laboratory', () => {
    expect([mayWrite('dentist', 'treat'), mayWrite('assistant', 'treat'), mayWrite('technician', 'treat')]).toEqual([
      true,
      true,
      false,
    ]);
  });
});

describe('a visit', () => {
  it('that two people began at once is one: the earlier beginning, and over when either says so', () => {
    const runs: VisitRun[] = [
      { ...who, by: 'Tern', begunAt: at(1) },
      { ...who, begunAt: at(0) },
    ];
    expect(heldVisits({ runs })).toEqual([{ visit: 'seating', round: 1, begunAt: at(0), by: 'Dr Gull' }]);
    const over = runs.map((r) => (r.by === 'Tern' ? { ...r, endedAt: at(50), teeth: 6 } : r));
    expect(heldVisits({ runs: over })[0]).toMatchObject({ begunAt: at(0), endedAt: at(50), teeth: 6 });
  });

  it('has each step done once, by the first who said so', () => {
    const done = [
      { ...who, step: 's', at: at(3), did: 'late' },
      { ...who, step: 's', at: at(2), did: 'first' },
      { ...who, round: 2, step: 'other', at: at(1), did: 'x' },
    ];
    const map = doneSteps({ done }, who);
    expect([map.size, map.get('s')?.did]).toEqual([1, 'first']);
  });

  it('goes by the last answer at a gate', () => {
    const answers = [
      { ...who, gate: 'tissue', met: false, saidBy: 'Dr Gull', at: at(1) },
      { ...who, gate: 'tissue', met: true, saidBy: 'Dr Gull', at: at(9) },
    ] as const;
    expect(answerAt(treat({ answers: [...answers].reverse() }), who, 'tissue')?.met).toBe(true);
    expect(answerAt(treat({ answers: [...answers] }), who, 'word')).toBeUndefined();
  });

  it('that ended before all its steps were done says nothing of how long its kind takes', () => {
    expect(takenOf({ runs: [{ ...who, begunAt: at(0), endedAt: at(4) }] })).toEqual([]);
  });

  it('took from its beginning to its end; what is open, or lay open over night, took nothing that counts', () => {
    const runs: VisitRun[] = [
      { ...who, begunAt: at(0), endedAt: at(75), teeth: 6 },
      { ...who, round: 2, begunAt: at(0) },
      { ...who, visit: 'review', begunAt: at(0), endedAt: new Date(Date.UTC(2026, 10, 29, 9)).toISOString(), teeth: 6 },
    ];
    expect(takenOf({ runs })).toEqual([{ visit: 'seating', teeth: 6, minutes: 75 }]);
  });
});

it('the record tells everything in the order in which it happened, with what was not met and left out', () => {
  const [v] = treatRecord(
    treat({
      runs: [{ ...who, begunAt: at(0), endedAt: at(61) }],
      done: [
        { ...who, step: 'b', at: at(20), did: 'Floss 11.', leftOut: 'tacked too long' },
        { ...who, step: 'a', at: at(10), did: 'Etch 11.', note: 'a little longer' },
      ],
      answers: [
        { ...who, gate: 'colour', met: false, saidBy: 'the patient', at: at(5), because: 'she likes it lighter' },
      ],
      timers: [
        {
          ...who,
          id: 'x',
          step: 'a',
          label: 'Etch 11',
          seconds: 15,
          startedAt: at(9),
          stoppedAt: new Date(Date.parse(at(9)) + 21_000).toISOString(),
        },
      ],
      used: [{ ...who, id: 'y', name: 'etch gel', lot: 'A1', expiry: '2028-02-29', at: at(8) }],
    }),
  );
  expect(v).toMatchObject({ title: 'seating', minutes: 61 });
  expect(v?.lines.map((l) => [l.kind, l.words, l.note])).toEqual([
    [
      'not met',
      'the colour is right, wet and with try-in paste: no, says the patient',
      'goes on because she likes it lighter',
    ],
    ['material', 'etch gel, lot A1, use by 2028-02-29', undefined],
    ['time', 'Etch 11: 15 s asked for, stopped after 21 s', undefined],
    ['step', 'Etch 11.', 'a little longer'],
    ['left out', 'Floss 11.', 'tacked too long'],
  ]);
});

describe('from what the steps follow', () => {
  const crown = { lengthMm: 10, widthMm: 8, facialVolumeMm: 0, rotationDeg: 0 };
  const kase = (over: object = {}): ChairCase => {
    const data = { ...EMPTY_SECTIONS, shape: { teeth: [11, 21].map((tooth) => ({ ...crown, tooth })) }, ...over };
    const sections = Object.fromEntries(Object.entries(data).map(([k, v]) => [k, { data: v }]));
    return { id: 'a', contours: [], files: [], sections } as never;
  };
  const now = (over: object = {}, visit: VisitRun['visit'] = 'seating') =>
    atVisitOf(kase(over), FIRST_CLINIC, 1, { visit, round: 1 }, 20_000);

  it('pieces are made of what was decided, and fixed as is usual until somebody says otherwise', () => {
    const choices = [
      { tooth: 11, option: 'zirconia-crown' },
      { tooth: 21, option: 'veneer', ceramic: 'glass-low' },
    ];
    const usual = now({ decide: { choices } }).pieces;
    expect(usual[0]).toMatchObject({
      tooth: 11,
      kind: 'crown',
      material: 'zirconia',
      cement: 'self-adhesive',
      bases: ['dentin'],
    });
    expect(usual[1]).toMatchObject({
      tooth: 21,
      kind: 'veneer',
      material: 'glass-ceramic',
      ceramic: 'glass-low',
      cement: 'resin-light',
    });
    const own = treat({ pieces: [{ tooth: 21, cement: 'resin-dual', thickMm: 1.4, bases: ['enamel', 'core'] }] });
    expect(now({ decide: { choices }, treat: own }).pieces[1]).toMatchObject({
      cement: 'resin-dual',
      thickMm: 1.4,
      bases: ['enamel', 'core'],
    });
  });

  it('a piece that is only added to has no thickness until it is measured', () => {
    const choices = [{ tooth: 11, option: 'no-prep' }];
    const [piece] = now({ decide: { choices } }).pieces;
    expect([piece?.kind, piece?.thickMm]).toEqual(['no-prep veneer', undefined]);
    expect(protocolOf('seating', now({ decide: { choices } })).mustNot.map((m) => m.rule)).toContain(
      'thickness-unknown',
    );
  });

  it('a filling and a post under a piece are something that it is held on', () => {
    const meet = { ...EMPTY_SECTIONS.meet, teeth: [{ tooth: 11, past: ['filling', 'post'] }] };
    expect(now({ meet }).pieces[0]?.bases).toEqual(['enamel', 'composite', 'core']);
  });

  it('gum bleeds where the gate says so, and where it was inflamed until somebody has looked', () => {
    const meet = { ...EMPTY_SECTIONS.meet, teeth: [{ tooth: 11, past: ['inflamed'] }] };
    expect(now().mouth.gum).toBeUndefined();
    expect(now({ meet }).mouth.gum).toBe('bleeds');
    const answers = [{ ...who, gate: 'tissue', met: true, saidBy: 'x', at: at(1) }] as TreatSection['answers'];
    expect(now({ meet, treat: treat({ answers }) }).mouth.gum).toBe('healthy');
  });

  it('days since bleaching, cautions and missing neighbours come from where they are told', () => {
    const meet = {
      ...EMPTY_SECTIONS.meet,
      cautions: ['pressure', 'straightened'],
      teeth: [{ tooth: 12, past: ['missing'] }],
    };
    const match = {
      ...EMPTY_SECTIONS.match,
      bleaching: [{ tooth: 11, to: 'A1', waitDays: 14, endedOn: '2024-09-30' }],
    };
    const { mouth, present } = now({ meet, match });
    // Day 20,000 is 4 October 2024.
    expect(mouth.bleachedDays).toBe(4);
    expect([...mouth.beware]).toEqual(['pressure']);
    expect([present.includes(12), present.includes(13)]).toEqual([false, true]);
  });
});

it('a stock list of the house is kept, and a lot twice is refused', () => {
  const of = (stock: object[]) => check(PracticeSettings, { ...FIRST_SETTINGS, stock }).errors.map((e) => e.message);
  const gel = { name: 'etch gel', item: '09506000134352', lot: 'A1', expiry: '2028-02-29' };
  expect(of([gel, { ...gel, lot: 'A2' }])).toEqual([]);
  expect(of([gel, gel])).toEqual(['A lot stands twice.']);
  expect(of([{ ...gel, item: '12' }])).toEqual(['An item number has 8 to 14 digits.']);
});
