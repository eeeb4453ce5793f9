import {
  CASE_DOCUMENT_FORMAT,
  CASE_DOCUMENT_READ,
  CASE_DOCUMENT_VERSION,
  CaseDocument,
  check,
  EMPTY_SECTIONS,
  FirstAccount,
  NewCase,
  NewComment,
  NewPerson,
  SignIn,
} from '@radiant/contract';

const sentences = <T extends object>(type: new () => T, data: unknown) =>
  check(type, data).errors.map((e) => e.message);

describe('signing in', () => {
  it('wants an address and a password, and tells in a sentence which is missing', () => {
    expect(sentences(SignIn, { email: 'a@b.example', password: 'x' })).toEqual([]);
    expect(sentences(SignIn, { email: 'nobody', password: 'x' })).toEqual(['Write the e-mail address in full.']);
    expect(sentences(SignIn, { email: 'a@b.example', password: '' })).toEqual(['Write the password.']);
    expect(sentences(SignIn, {})).toHaveLength(2);
  });
});

describe('a new person', () => {
  const person = { name: 'Sample Dunlin', email: 'dunlin@estuary.example', password: 'ten letters', role: 'assistant' };
  it('has a name, an address, a password of ten characters and one of three roles', () => {
    expect(sentences(NewPerson, person)).toEqual([]);
    expect(sentences(NewPerson, { ...person, password: 'ninechars' })).toEqual([
      'The password needs at least 10 characters.',
    ]);
    expect(sentences(NewPerson, { ...person, role: 'owner' })).toEqual([
      'The role is dentist, assistant or technician.',
    ]);
    expect(sentences(NewPerson, { ...person, name: '' })).toEqual(['Write a name of 1 to 120 characters.']);
  });

  it('gains nothing by naming a practice of its own', () => {
    expect(sentences(NewPerson, { ...person, practiceId: '1' })).toEqual([
      'The field “practiceId” does not belong here.',
    ]);
  });

  it('is the first of a practice with its name', () => {
    const { role: _, ...rest } = person;
    expect(sentences(FirstAccount, { ...rest, practice: 'Mudflat (sample)' })).toEqual([]);
    expect(sentences(FirstAccount, { ...rest, practice: '' })).toEqual([
      'Write the practice’s name, 1 to 120 characters.',
    ]);
  });
});

describe('a new case', () => {
  it('has a name of up to 80 characters, and may bring what the patient wants', () => {
    expect(sentences(NewCase, { name: 'Dunlin' })).toEqual([]);
    expect(sentences(NewCase, { name: 'Dunlin', meet: { wish: 'close the triangles', ageYears: 51 } })).toEqual([]);
    expect(sentences(NewCase, { name: '' })).toEqual(['The name has 1 to 80 characters.']);
    expect(sentences(NewCase, { name: 'x'.repeat(81) })).toEqual(['The name has 1 to 80 characters.']);
    expect(sentences(NewCase, { name: 'Dunlin', meet: { wish: '', ageYears: 200 } })).toEqual([
      'The age must lie between 0 and 120 years.',
    ]);
  });
});

describe('a comment', () => {
  it('belongs to plan or contour and says something', () => {
    expect(sentences(NewComment, { stage: 'shape', body: 'softer' })).toEqual([]);
    expect(sentences(NewComment, { stage: 'read', body: 'x' })).toEqual([
      'Comments belong to propose, shape, decide, match, direct, reduce, book, treat, verify.',
    ]);
    expect(sentences(NewComment, { stage: 'shape', body: '' })).toEqual(['A comment has 1 to 2000 characters.']);
  });

  it('of a comment may name a place: a finding, or a point of the surface', () => {
    const on = (place: object) => sentences(NewComment, { stage: 'verify', body: 'x', place });
    expect(on({ tooth: 11, check: 'edge', words: 'edge, mesial third' })).toEqual([]);
    expect(on({ tooth: 11, words: 'a point of its surface', at: [1, -2.5, 3] })).toEqual([]);
    expect(on({ tooth: 18, words: 'x' })).toEqual([
      'A remark lies on a front tooth or premolar, 15 to 25 and 35 to 45.',
    ]);
    expect(on({ tooth: 11, check: 'luck', words: 'x' })).toEqual(['This check is not known.']);
    for (const at of [[1, 2], [1, 2, 900], [1, 2, 'x'], 'here'])
      expect(on({ tooth: 11, words: 'x', at })[0]).toBe('A point of the surface is three lengths within 200 mm.');
  });
});

describe('a case file', () => {
  const file = {
    format: CASE_DOCUMENT_FORMAT,
    version: CASE_DOCUMENT_VERSION,
    writtenAt: '2026-11-25T08:00:00.000Z',
    name: 'Plover',
    sections: EMPTY_SECTIONS,
    files: [],
    comments: [],
    history: [],
  };
  it('is read when it is ours, of this version and whole', () => {
    expect(sentences(CaseDocument, file)).toEqual([]);
  });

  it.each<[string, object, string]>([
    ['another program’s', { ...file, format: 'something-else' }, 'This is not a Radiant Arch case file.'],
    [
      'a newer one',
      { ...file, version: CASE_DOCUMENT_VERSION + 1 },
      `This program reads case files of versions ${CASE_DOCUMENT_READ.join(', ')}.`,
    ],
    ['one with a foreign field', { ...file, insurance: 'yes' }, 'The field “insurance” does not belong here.'],
    [
      'one whose section has a foreign field',
      { ...file, sections: { ...EMPTY_SECTIONS, reduce: { ...EMPTY_SECTIONS.reduce, depth: 2 } } },
      'The field “sections.reduce.depth” does not belong here.',
    ],
  ])('%s is refused in one sentence', (_, data, sentence) => {
    expect(sentences(CaseDocument, data)).toEqual([sentence]);
  });

  it('with a file whose checksum is no checksum is refused', () => {
    const stored = {
      id: '8a2b4c1e-0d7f-4a53-9a39-6f1f6a0f7b11',
      kind: 'photo',
      name: 'a.jpg',
      origin: 'x',
      at: file.writtenAt,
      sha256: 'abc',
      base64: '',
    };
    expect(check(CaseDocument, { ...file, files: [stored] }).errors.map((e) => e.field)).toEqual(['files.0.sha256']);
  });
});
