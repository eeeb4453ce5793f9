import { type ContourVersion, sameContour, standingOf, standingWords, type ToothPlanInput } from '@radiant/contract';

const teeth = (lengthMm: number): ToothPlanInput[] => [
  { tooth: 11, lengthMm, widthMm: 8.5, facialVolumeMm: 0.2, rotationDeg: 0 },
  { tooth: 21, lengthMm, widthMm: 8.5, facialVolumeMm: 0.2, rotationDeg: 0 },
];
const version = (number: number, lengthMm: number, approved: boolean | 'claimed' = false): ContourVersion => ({
  id: String(number),
  number,
  name: `v${number}`,
  why: '',
  by: 'x',
  at: '2026-11-20T00:00:00.000Z',
  madeFrom: { files: [] },
  teeth: teeth(lengthMm),
  worn: null,
  approved: approved ? { word: 'yes', by: 'x', at: '2026-11-21T00:00:00.000Z', claimed: approved === 'claimed' } : null,
});

it('two contours are the same whatever the order of their teeth, and with a zenith of nothing', () => {
  expect(sameContour(teeth(10), [...teeth(10)].reverse())).toBe(true);
  expect(
    sameContour(
      teeth(10),
      teeth(10).map((t) => ({ ...t, zenithUpMm: 0 })),
    ),
  ).toBe(true);
  expect(sameContour(teeth(10), teeth(10.05))).toBe(false);
  expect(sameContour(teeth(10), teeth(10).slice(1))).toBe(false);
});

it.each([
  ['nothing kept', [], 10, 'not approved yet'],
  ['kept and not approved', [version(1, 10)], 10, 'as kept in “v1”, not approved yet'],
  ['kept, and gone on from', [version(1, 10)], 10.5, 'not approved yet'],
  ['approved', [version(1, 10), version(2, 10.5, true)], 10.5, 'as kept in “v2”, approved by the patient'],
  [
    'approved by the word of a file',
    [version(1, 10, 'claimed')],
    10,
    'as kept in “v1”, approved by the word of the case it came from alone',
  ],
  ['approved by the word of a file, and changed since', [version(1, 10, 'claimed')], 10.5, 'not approved yet'],
  [
    'approved by the word of a file, and here',
    [version(1, 10, 'claimed'), version(2, 10, true)],
    10,
    'as kept in “v2”, approved by the patient',
  ],
  ['approved, and changed since', [version(1, 10, true), version(2, 10.5)], 10.5, 'changed since “v1” was approved'],
  [
    'approved, kept again as another, and back to it',
    [version(1, 10, true), version(2, 10)],
    10,
    'as kept in “v1”, approved by the patient',
  ],
])('%s', (_, versions, lengthMm, words) => expect(standingWords(standingOf(teeth(lengthMm), versions))).toBe(words));
