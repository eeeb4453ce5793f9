import {
  check,
  checkSection,
  completed,
  contourPlan,
  DecideSection,
  EMPTY_SECTIONS,
  fieldsNotOwn,
  frontLandmarks,
  frontScale,
  landmarkSet,
  MatchSection,
  MeetSection,
  mayWrite,
  mayWriteField,
  mayWriteSome,
  ownFields,
  ProposeSection,
  planInputs,
  ReadSection,
  ReduceSection,
  ROLES,
  SECTION_CLASSES,
  SECTION_NAMES,
  SECTIONS,
  SectionChange,
  type SectionName,
  ShapeSection,
  scaleBy,
} from '@radiant/contract';
import {
  type Bur,
  burId,
  CROWN_LIMITS,
  DESIGN_IDS,
  FIRST_TRAY,
  frontRow,
  LANDMARK_KINDS,
  PLAN_LIMITS,
  STRATEGIES,
} from '@radiant/core';

const sentences = <T extends object>(type: new () => T, data: unknown) =>
  check(type, data).errors.map((e) => `${e.field}: ${e.message}`);
const fine = <T extends object>(type: new () => T, data: unknown) => expect(sentences(type, data)).toEqual([]);
const refused = <T extends object>(type: new () => T, data: unknown, sentence: RegExp) => {
  const all = sentences(type, data);
  expect(all).toHaveLength(1);
  expect(all[0]).toMatch(sentence);
};

/** The retracted front view alone. */
const front = (over: object) => ({ views: [{ view: 'retracted-front', points: [], drawn: [], ...over }] });
const SCALE = { from: { x: 1, y: 2 }, to: { x: 101, y: 2 }, mm: 20 };
const tooth = (over: object = {}) => ({
  tooth: 11,
  lengthMm: 10.5,
  widthMm: 8.5,
  facialVolumeMm: 0,
  rotationDeg: 0,
  ...over,
});

describe('what an untouched section holds', () => {
  it.each(SECTION_NAMES.map((n) => [n] as const))('%s is valid as it is', (name) => {
    fine(SECTION_CLASSES[name] as new () => object, EMPTY_SECTIONS[name]);
  });

  it('is what its class begins with', () => {
    for (const name of SECTION_NAMES) expect({ ...new SECTION_CLASSES[name]() }).toMatchObject(EMPTY_SECTIONS[name]);
  });
});

describe('a field that does not belong', () => {
  it.each(SECTION_NAMES.map((n) => [n] as const))('is refused by name in %s, never dropped in silence', (name) => {
    refused(
      SECTION_CLASSES[name] as new () => object,
      { ...EMPTY_SECTIONS[name], colour: 'A2' },
      /^colour: The field “colour” does not belong here\.$/,
    );
  });

  it('is named with its path when it lies deeper', () => {
    refused(
      ReadSection,
      front({ calibration: { ...SCALE, unit: 'inch' } }),
      /^views\.0\.calibration\.unit: The field “views\.0\.calibration\.unit” does not belong/,
    );
    refused(ShapeSection, { teeth: [tooth({ gloss: 1 })] }, /^teeth\.0\.gloss:/);
  });
});

describe('meet', () => {
  it.each([0, 34, 120, null, undefined])('an age of %p years is possible', (ageYears) =>
    fine(MeetSection, { wish: '', ageYears }),
  );
  it.each([-1, 121])('an age of %p years is not', (ageYears) =>
    refused(MeetSection, { wish: '', ageYears }, /between 0 and 120/),
  );
  it.each([33.5, '34', Number.NaN])('an age of %p is not a whole number', (ageYears) =>
    refused(MeetSection, { wish: '', ageYears }, /whole number/),
  );
  it.each(['2026-12-18', '2028-02-29'])('%s is a date', (finishBy) => fine(MeetSection, { wish: '', finishBy }));
  it.each(['2026-02-30', '18.12.2026', 'soon', 20261218])('%p is none', (finishBy) =>
    refused(MeetSection, { wish: '', finishBy }, /calendar date/),
  );
  it('the wish has room for 500 characters', () => {
    fine(MeetSection, { wish: 'x'.repeat(500) });
    refused(MeetSection, { wish: 'x'.repeat(501) }, /at most 500/);
    refused(MeetSection, { wish: 7 }, /is text/);
  });
});

describe('read', () => {
  it('takes all four landmarks of all six teeth', () => {
    const landmarks = frontRow().flatMap((t) => LANDMARK_KINDS.map((kind, i) => ({ tooth: t, kind, x: t + i, y: i })));
    fine(ReadSection, front({ landmarks, calibration: SCALE, photoId: '8a2b4c1e-0d7f-4a53-9a39-6f1f6a0f7b11' }));
    expect(landmarks).toHaveLength(24);
  });

  it.each<[string, object, RegExp]>([
    ['0 mm', { ...SCALE, mm: 0 }, /more than 0 mm/],
    ['a negative length', { ...SCALE, mm: -3 }, /more than 0 mm/],
    ['half a metre and more', { ...SCALE, mm: 501 }, /at most 500 mm/],
    ['NaN', { ...SCALE, mm: Number.NaN }, /not a number/],
    ['infinity', { ...SCALE, mm: Number.POSITIVE_INFINITY }, /not a number/],
    ['a word for a coordinate', { ...SCALE, from: { x: 'left', y: 2 } }, /across is not a number/],
    ['a missing coordinate', { ...SCALE, to: { x: 2 } }, /down is not a number/],
  ])('a scale with %s is refused', (_, calibration, sentence) =>
    refused(ReadSection, front({ calibration }), sentence),
  );

  it.each<[string, object, RegExp]>([
    ['a molar', { tooth: 16, kind: 'edge', x: 1, y: 1 }, /15 to 25/],
    ['an unknown kind', { tooth: 11, kind: 'cusp', x: 1, y: 1 }, /zenith, edge, mesial or distal/],
    ['no place', { tooth: 11, kind: 'edge', x: 1 }, /down is not a number/],
  ])('a landmark on %s is refused', (_, mark, sentence) =>
    refused(ReadSection, front({ landmarks: [mark] }), sentence),
  );

  it('a landmark comes once', () => {
    const edge = { tooth: 11, kind: 'edge', x: 1, y: 1 };
    refused(ReadSection, front({ landmarks: [edge, { ...edge, x: 5 }] }), /set twice/);
    fine(ReadSection, front({ landmarks: [edge, { ...edge, tooth: 21 }, { ...edge, kind: 'mesial' }] }));
  });

  it('a landmark says where it comes from only if from the scan', () => {
    const edge = { tooth: 11, kind: 'edge', x: 1, y: 2 };
    fine(
      ReadSection,
      front({
        landmarks: [{ ...edge, from: 'scan' }],
        calibration: { ...SCALE, way: 'scan', pmMm: 0.2, origin: 'scan' },
      }),
    );
    refused(ReadSection, front({ landmarks: [{ ...edge, from: 'a guess' }] }), /set by hand or comes from the scan/);
  });

  it('a length by the scan carries the scan’s own error, one of a printed scale that of its ends', () => {
    const by = (way: 'scan' | 'scale') => scaleBy({ ...SCALE, way, pmMm: 0.4 });
    expect((by('scan')?.pm ?? 0) / (by('scan')?.value ?? 1)).toBeCloseTo(0.02, 6);
    expect((by('scale')?.pm ?? 0) / (by('scale')?.value ?? 1)).toBeCloseTo((1.96 * Math.SQRT2 * 0.05) / 20, 6);
  });

  it.each<[string, object, RegExp]>([
    ['one point', { points: [{ x: 1, y: 1 }] }, /two points, an angle three/],
    ['four points', { points: [1, 2, 3, 4].map((x) => ({ x, y: 1 })) }, /two points, an angle three/],
    ['no name', { name: '' }, /1 to 60 characters/],
    ['a number of its own making', { id: 'mine' }, /number is broken/],
  ])('a drawn measure with %s is refused', (_, over, sentence) => {
    const measure = {
      id: '8a2b4c1e-0d7f-4a53-9a39-6f1f6a0f7b11',
      name: 'gap',
      points: [1, 9].map((x) => ({ x, y: 1 })),
    };
    fine(ReadSection, front({ drawn: [measure] }));
    refused(ReadSection, front({ drawn: [{ ...measure, ...over }] }), sentence);
  });

  it('a finding is judged once, one way or the other', () => {
    fine(ReadSection, { verdicts: [{ id: 'ratio-11', verdict: 'accepted', word: 'yes' }] });
    refused(ReadSection, { verdicts: [{ id: 'ratio-11', verdict: 'perhaps' }] }, /accepted or dismissed/);
    refused(ReadSection, { verdicts: [1, 2].map(() => ({ id: 'ratio-11', verdict: 'accepted' })) }, /judged twice/);
  });

  it('the photograph is named by its number', () =>
    refused(ReadSection, front({ photoId: '../../etc' }), /number is broken/));
});

describe('propose', () => {
  const base = EMPTY_SECTIONS.propose;
  it.each([-3, 0, 0.55, 4])('the edge can stand at %f mm', (edgeMm) => fine(ProposeSection, { ...base, edgeMm }));
  it('and no further', () => {
    refused(ProposeSection, { ...base, edgeMm: -3.1 }, /at most 3 mm up/);
    refused(ProposeSection, { ...base, edgeMm: 4.1 }, /at most 4 mm down/);
    refused(ProposeSection, { ...base, edgeMm: Number.NaN }, /not a number/);
  });
  it('a school must be known and the reference tooth in the front', () => {
    refused(ProposeSection, { ...base, school: 'mine' }, /not known/);
    refused(ProposeSection, { ...base, referenceTooth: 31 }, /15 to 25/);
  });
});

describe('shape', () => {
  it.each([
    ['lengthMm', CROWN_LIMITS.lengthMm],
    ['widthMm', CROWN_LIMITS.widthMm],
    ['facialVolumeMm', PLAN_LIMITS.facialVolumeMm],
    ['rotationDeg', PLAN_LIMITS.rotationDeg],
  ] as const)('%s is taken up to the limits that the crown form has, and not beyond', (field, { min, max }) => {
    for (const v of [min, max]) fine(ShapeSection, { teeth: [tooth({ [field]: v })] });
    for (const v of [min - 0.01, max + 0.01, Number.NaN])
      expect(sentences(ShapeSection, { teeth: [tooth({ [field]: v })] })).toHaveLength(1);
  });

  it('a tooth is planned once, and six at most', () => {
    refused(ShapeSection, { teeth: [tooth(), tooth()] }, /planned twice/);
    fine(ShapeSection, { teeth: frontRow().map((t) => tooth({ tooth: t })) });
  });

  it('goes into core’s form and comes back in the order of the teeth', () => {
    const teeth = [23, 11, 13].map((t) => tooth({ tooth: t, lengthMm: t / 2 }));
    const back = planInputs(contourPlan(teeth));
    expect(back.map((t) => t.tooth)).toEqual([13, 11, 23]);
    expect(back.find((t) => t.tooth === 23)).toEqual(tooth({ tooth: 23, lengthMm: 11.5 }));
  });
});

describe('reduce', () => {
  it('takes the designs and strategies that there are, and no others', () => {
    for (const design of DESIGN_IDS) for (const { id: from } of STRATEGIES) fine(ReduceSection, { design, from });
    refused(ReduceSection, { design: 'crown', from: 'margin' }, /design is not known/);
    refused(ReduceSection, { design: 'even', from: 'air' }, /through the mock-up, or align, then reduce/);
  });

  it('what was once cut from the tooth is margin first', () => {
    const old = SECTIONS.reduce.upgraded({ design: 'even', from: 'tooth' });
    expect(old).toEqual({ design: 'even', from: 'margin' });
    expect(SECTIONS.reduce.upgraded({ design: 'even', from: 'planes' })).toMatchObject({ from: 'planes' });
  });

  it('takes a tray that can be, and grooves by hand once for a zone', () => {
    const whole = { design: 'even', from: 'mock-up' };
    const tray = { name: FIRST_TRAY.name, burs: FIRST_TRAY.burs };
    const groove = { tooth: 11, zone: 'middle', bur: burId(tray.burs[0] as Bur), how: 'tip buried' };
    fine(ReduceSection, { ...whole, tray, toleranceMm: 0.1, grooves: [groove, { ...groove, zone: 'edge' }] });
    fine(ReduceSection, { ...whole, tray: null, toleranceMm: null });
    refused(ReduceSection, { ...whole, tray: { ...tray, burs: [] } }, /is empty: put a bur in/);
    refused(
      ReduceSection,
      { ...whole, tray: { name: 'x', burs: [{ ...tray.burs[0], tipMm: 3 }] } },
      /wider than the bur/,
    );
    const thick = { design: 'graduated', cervical: 0.3, middle: 0.5, incisal: 0.7 };
    fine(ReduceSection, { ...whole, thickness: [{ ...thick, edgeSlopeDeg: 20 }] });
    refused(ReduceSection, { ...whole, thickness: [{ ...thick, edgeSlopeDeg: 50 }] }, /rises between 0 and 45 degrees/);
    fine(ReduceSection, { ...whole, ways: [{ tooth: 11, downDeg: 40, turnDeg: -10 }] });
    refused(
      ReduceSection,
      { ...whole, ways: [{ tooth: 11, downDeg: 95, turnDeg: 0 }] },
      /between 0 and 85 degrees down/,
    );
    refused(ReduceSection, { ...whole, ways: [{ tooth: 18, downDeg: 40, turnDeg: 0 }] }, /front teeth and premolars/);
    fine(ReduceSection, { ...whole, room: [{ tooth: 11, place: 'palatal', moreMm: 0.3 }] });
    refused(ReduceSection, { ...whole, room: [{ tooth: 11, place: 'facial', moreMm: 0.3 }] }, /at the edge or palatal/);
    refused(ReduceSection, { ...whole, room: [{ tooth: 11, place: 'edge', moreMm: 2 }] }, /0 to 1\.5 mm more/);
    refused(ReduceSection, { ...whole, grooves: [groove, groove] }, /two grooves/);
    refused(ReduceSection, { ...whole, grooves: [{ ...groove, how: 'thrown' }] }, /not sunk like that/);
    refused(ReduceSection, { ...whole, toleranceMm: 5 }, /tolerance of depths lies between/);
  });
});

describe('a front view that stood at the top of the section, as older programs wrote it', () => {
  const landmarks = [{ tooth: 11, kind: 'edge', x: 1, y: 2 }];
  const measure = { id: '8a2b4c1e-0d7f-4a53-9a39-6f1f6a0f7b11', name: 'gap', points: [1, 9].map((x) => ({ x, y: 1 })) };
  const smile = { view: 'close-smile', points: [], drawn: [] };
  const photoId = '5f0e5d1c-6a5e-4a53-8b6d-0f4f6b1d2c3a';

  it('is a view like the others, with the points that lay beside it', () => {
    const beside = {
      view: 'retracted-front',
      photoId,
      points: [{ id: 'neck-11', x: 5, y: 6 }],
      drawn: [],
      check: SCALE,
    };
    const old = { photoId, calibration: SCALE, landmarks, drawn: [measure], views: [smile, beside], verdicts: [] };
    const now = completed('read', old);
    expect(now).toEqual({
      ...EMPTY_SECTIONS.read,
      views: [smile, { ...beside, calibration: SCALE, landmarks, drawn: [measure] }],
    });
    fine(ReadSection, now);
    expect(frontLandmarks(now)).toEqual(landmarks);
    expect(frontScale(now)?.value).toBeCloseTo(0.2, 9);
    expect(completed('read', now)).toEqual(now);
  });

  it('comes among the views where there was nothing beside it, and is no view where there was nothing', () => {
    expect(completed('read', { photoId, landmarks }).views).toEqual([
      { view: 'retracted-front', photoId, points: [], landmarks, drawn: [] },
    ]);
    expect(completed('read', { landmarks: [], drawn: [], verdicts: [], views: [smile] })).toEqual({
      ...EMPTY_SECTIONS.read,
      views: [smile],
    });
  });

  it.each([[{ landmarks: 5 }], [{ views: 'all', photoId }], [{ views: [null], landmarks }], [{ drawn: { a: 1 } }]])(
    'what never was one, %j, is refused and not guessed at',
    (data) => expect(checkSection('read', data).errors.length).toBeGreaterThan(0),
  );
});

it('landmarks go into core’s form tooth by tooth', () => {
  expect(
    landmarkSet([
      { tooth: 11, kind: 'edge', x: 1, y: 2 },
      { tooth: 11, kind: 'zenith', x: 3, y: 4 },
      { tooth: 22, kind: 'mesial', x: 5, y: 6 },
    ]),
  ).toEqual({ 11: { edge: [1, 2], zenith: [3, 4] }, 22: { mesial: [5, 6] } });
});

describe('match and decide', () => {
  const reading = {
    tooth: 11,
    of: 'tooth',
    zone: 'body',
    L: 70,
    a: 1,
    b: 18,
    wet: true,
    at: '2026-11-20T09:10:00.000Z',
  };
  const whole = { readings: [reading], ceramic: 'glass-medium', cement: 'clear' };
  const spectrum = Array.from({ length: 31 }, () => 0.5);

  it('take colours that a tooth can have, one to a zone, and spectra whole', () => {
    fine(MatchSection, { ...whole, wanted: 'A3.5', own: [{ tooth: 12, ceramic: 'opaquer' }] });
    fine(MatchSection, { ...whole, readings: [reading, { ...reading, of: 'stump', spectrum }] });
    refused(MatchSection, { ...whole, readings: [reading, reading] }, /A zone has two readings/);
    refused(MatchSection, { ...whole, readings: [{ ...reading, L: 120 }] }, /L\* of a tooth lies between 20 and 98/);
    refused(MatchSection, { ...whole, readings: [{ ...reading, b: -40 }] }, /b\* of a tooth lies between/);
    refused(MatchSection, { ...whole, readings: [{ ...reading, tooth: 16 }] }, /front teeth and premolars/);
    refused(MatchSection, { ...whole, wanted: 'E9' }, /no such shade/);
    refused(MatchSection, { ...whole, ceramic: 'gold' }, /ceramic is not known/);
    for (const wrong of [spectrum.slice(1), [...spectrum.slice(1), -0.1], [...spectrum.slice(1), 1.06]])
      refused(MatchSection, { ...whole, readings: [{ ...reading, spectrum: wrong }] }, /A spectrum has 31 values/);
  });

  it('take one known option a tooth, with a reason, and known rules', () => {
    fine(DecideSection, { choices: [{ tooth: 11, option: 'veneer', reason: 'asked for' }], rulesOff: ['acid'] });
    refused(DecideSection, { choices: [{ tooth: 11, option: 'gold' }] }, /option is not known/);
    const twice = [1, 2].map(() => ({ tooth: 11, option: 'none' }));
    refused(DecideSection, { choices: twice }, /A tooth has two choices/);
    refused(DecideSection, { choices: [], rulesOff: ['luck'] }, /rule is not known/);
  });

  it('are added to case files of older versions as they are at first', () => {
    expect(completed('match', {})).toEqual(EMPTY_SECTIONS.match);
    expect(completed('decide', {})).toEqual({ choices: [] });
  });
});

describe('who may write what', () => {
  const may: Record<(typeof ROLES)[number], readonly SectionName[]> = {
    dentist: ['meet', 'read', 'propose', 'shape', 'decide', 'match', 'direct', 'reduce', 'book', 'treat', 'verify'],
    assistant: ['meet', 'read', 'match', 'book', 'treat'],
    technician: [],
  };
  it.each(ROLES.map((r) => [r] as const))('%s', (role) => {
    expect(SECTION_NAMES.filter((s) => mayWrite(role, s))).toEqual(may[role]);
  });
});

describe('fields that others may write', () => {
  const before = { ...EMPTY_SECTIONS.verify, scanId: null };
  it('are the readings of verify, the assistant’s', () => {
    expect(SECTION_NAMES.flatMap((s) => ownFields('assistant', s).map((f) => `${s} ${f}`))).toEqual([
      'verify readings',
    ]);
    expect(SECTION_NAMES.filter((s) => mayWriteSome('technician', s))).toEqual([]);
    expect(mayWriteField('assistant', 'verify', 'accepted')).toBe(false);
    expect(mayWriteField('dentist', 'verify', 'accepted')).toBe(true);
  });
  it('are told apart from those that were changed beside them', () => {
    const reading = { tooth: 11, way: 'index', place: 'edge', mm: 1.2 };
    const accepted = { tooth: 11, check: 'room', place: 'edge', reason: 'x', by: 'y', at: 'z', found: 'w' };
    const changed = (more: object) => fieldsNotOwn('assistant', 'verify', before, { ...before, ...more });
    expect(changed({ readings: [reading] })).toEqual([]);
    // Absent and null say the same.
    expect(changed({ scanId: undefined })).toEqual([]);
    expect(changed({ readings: [reading], accepted: [accepted] })).toEqual(['accepted']);
    expect(changed({ scanId: 'another' })).toEqual(['scanId']);
    expect(fieldsNotOwn('dentist', 'verify', before, { ...before, accepted: [accepted] })).toEqual([]);
  });
});

describe('a change', () => {
  it('names the version that it began from', () => {
    fine(SectionChange, { version: 0, data: {} });
    refused(SectionChange, { version: -1, data: {} }, /whole number from 0/);
    refused(SectionChange, { version: 1.5, data: {} }, /whole number/);
    refused(SectionChange, { version: 1 }, /content is missing/);
  });
});

describe('the views', () => {
  const id = '5f0e5d1c-6a5e-4a53-8b6d-0f4f6b1d2c3a';
  const view = { view: 'close-smile', photoId: id, points: [{ id: 'corner-right', x: 10, y: 20 }], drawn: [] };
  const with_ = (over: object) => ({ views: [{ ...view, ...over }] });

  it('hold points by their ids, a scale of any kind and a second length', () => {
    const length = { from: { x: 0, y: 0 }, to: { x: 90, y: 0 }, mm: 8.4 };
    fine(
      ReadSection,
      with_({
        calibration: { ...length, way: 'tooth', tooth: 11, pmMm: 0.2, origin: 'scan' },
        check: { ...length, way: 'pupils', origin: 'mean' },
      }),
    );
    fine(ReadSection, { aligned: [{ photoId: id, first: { x: 1, y: 2 }, second: { x: 3, y: 4 } }] });
  });

  it.each([
    ['an unknown view', { view: 'from behind' }, /view is not known/],
    ['an unknown point', { points: [{ id: 'ear', x: 1, y: 1 }] }, /point of a view is not known/],
    ['a point that is no number', { points: [{ id: 'corner-right', x: Number.NaN, y: 1 }] }, /not a number/],
    ['a point twice', { points: [view.points[0], view.points[0]] }, /set twice/],
    ['a photograph without number', { photoId: 'that one' }, /number is broken/],
    [
      'a length by a hunch',
      { calibration: { from: { x: 0, y: 0 }, to: { x: 9, y: 0 }, mm: 1, way: 'hunch' } },
      /scale, a tooth, the pupils or the scan/,
    ],
    ['a negative ±', { calibration: { from: { x: 0, y: 0 }, to: { x: 9, y: 0 }, mm: 1, pmMm: -1 } }, /at least 0 mm/],
  ])('%s is refused', (_, over, sentence) => refused(ReadSection, with_(over), sentence));

  it('the same view or photograph stands once', () => {
    refused(ReadSection, { views: [view, view] }, /read twice/);
    const a = { photoId: id, first: { x: 1, y: 2 }, second: { x: 3, y: 4 } };
    refused(ReadSection, { aligned: [a, a] }, /aligned twice/);
  });
});

describe('what a proposal rests on', () => {
  const base = { school: 'recurring', referenceTooth: 11, edgeMm: 0 };
  it('ratio, gum, gaps, a liked smile and widths set by hand', () =>
    fine(ProposeSection, {
      ...base,
      ratio: 0.62,
      gumMm: 1,
      gaps: 'keep',
      alike: false,
      liked: { lateral: 0.7, canine: 0.9 },
      locked: [{ tooth: 11, widthMm: 9 }],
    }));
  it.each([
    ['a ratio above one', { ratio: 1.2 }, /between 0\.5 and 1/],
    ['a gum moved down', { gumMm: -1 }, /0 to 4 mm/],
    ['gaps by halves', { gaps: 'half' }, /closed or kept/],
    ['a lateral wider than it can be', { liked: { lateral: 2, canine: 0.9 } }, /between 0\.3 and 1\.2/],
    [
      'a width twice',
      {
        locked: [
          { tooth: 11, widthMm: 9 },
          { tooth: 11, widthMm: 8 },
        ],
      },
      /set twice/,
    ],
    ['a width of a molar', { locked: [{ tooth: 16, widthMm: 7 }] }, /15 to 25/],
  ])('%s is refused', (_, over, sentence) => refused(ProposeSection, { ...base, ...over }, sentence));
});
