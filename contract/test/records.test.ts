import {
  CASE_STATES,
  CAUTIONS,
  check,
  completed,
  EMPTY_SECTIONS,
  FileChange,
  keysOf,
  MeetSection,
  PHOTO_VIEWS,
  readFileName,
  TOOTH_PAST,
  WISH_TAGS,
} from '@radiant/contract';

const sentences = <T extends object>(type: new () => T, data: unknown) =>
  check(type, data).errors.map((e) => e.message);
const meet = (over: object) => ({ ...EMPTY_SECTIONS.meet, ...over });

describe('a file’s name', () => {
  it.each([
    ['retracted front, before.jpg', 'retracted-front', 'before'],
    ['Retracted_Right_mockup.JPG', 'retracted-right', 'mock-up'],
    ['left retracted final.png', 'retracted-left', 'final'],
    ['portrait smile.jpg', 'portrait-smile', null],
    ['portrait, at rest, before.jpg', 'portrait-rest', 'before'],
    ['close smile provisional.jpg', 'close-smile', 'provisional'],
    ['lips at rest.jpg', 'close-rest', null],
    ['upper occlusal.jpg', 'upper-occlusal', null],
    ['occlusal lower after.jpg', 'lower-occlusal', 'final'],
    ['12 o-clock.jpg', 'twelve-oclock', null],
    ['DSC_0042.JPG', null, null],
  ])('%s says view %p and state %p', (name, view, state) => {
    expect(readFileName(name)).toEqual({ view, state });
  });

  it('that the program writes itself is read again', () => {
    for (const view of keysOf(PHOTO_VIEWS))
      for (const state of keysOf(CASE_STATES))
        expect(readFileName(`${PHOTO_VIEWS[view]}, ${CASE_STATES[state]}.jpg`)).toEqual({ view, state });
  });
});

describe('the record', () => {
  it('takes every word of its lists', () => {
    expect(
      sentences(
        MeetSection,
        meet({
          sexAtBirth: 'male',
          wishTags: keysOf(WISH_TAGS),
          cautions: keysOf(CAUTIONS),
          cautionNote: 'penicillin',
          teeth: [{ tooth: 48, past: keysOf(TOOTH_PAST), note: 'x' }],
        }),
      ),
    ).toEqual([]);
  });

  it.each<[string, object, string]>([
    ['an unknown wish', { wishTags: ['vampire'] }, 'A tag of the wish is not known.'],
    ['a wish twice', { wishTags: ['even', 'even'] }, 'A tag is set twice.'],
    ['an unknown caution', { cautions: ['tall'] }, 'A caution is not known.'],
    ['another sex', { sexAtBirth: 'x' }, 'The sex at birth is female or male, or left open.'],
    ['a milk tooth', { teeth: [{ tooth: 51, past: [] }] }, 'A tooth of the history is not a permanent tooth.'],
    [
      'a tooth twice',
      { teeth: [11, 11].map((tooth) => ({ tooth, past: ['post'] })) },
      'A tooth stands in the history twice.',
    ],
    ['an unknown past', { teeth: [{ tooth: 11, past: ['haunted'] }] }, 'A point of a tooth’s history is not known.'],
    [
      'a long note',
      { teeth: [{ tooth: 11, past: [], note: 'x'.repeat(301) }] },
      'The note on a tooth has at most 300 characters.',
    ],
  ])('%s is refused in a sentence', (_, over, sentence) => {
    expect(sentences(MeetSection, meet(over))).toEqual([sentence]);
  });

  it('that an older program wrote is completed and valid', () => {
    const old = { wish: 'longer', ageYears: 51 };
    expect(completed('meet', old)).toEqual({ ...EMPTY_SECTIONS.meet, ...old });
    expect(sentences(MeetSection, old)).toEqual([]);
  });
});

describe('what is said of a photograph', () => {
  it('is a known view and state, a date and a name, or nothing', () => {
    expect(sentences(FileChange, {})).toEqual([]);
    expect(
      sentences(FileChange, { view: 'close-smile', state: 'final', takenOn: '2026-11-20', takenBy: 'Sample Knot' }),
    ).toEqual([]);
    expect(sentences(FileChange, { view: null, state: null, takenOn: null })).toEqual([]);
    expect(sentences(FileChange, { view: 'selfie' })).toEqual(['This view is not known.']);
    expect(sentences(FileChange, { state: 'ruined' })).toEqual(['This state is not known.']);
    expect(sentences(FileChange, { takenOn: 'yesterday' })).toEqual([
      'The date on which it was taken is a calendar date.',
    ]);
    expect(sentences(FileChange, { sha256: 'x' })).toEqual(['The field “sha256” does not belong here.']);
  });
});
