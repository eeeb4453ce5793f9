import {
  type CalibrationInput,
  type CaseFile,
  EMPTY_SECTIONS,
  knownLength,
  type ReadSection,
  readingOf,
  scaleBy,
  type ViewReadingInput,
} from '@radiant/contract';
import { frontRow, LANDMARK_KINDS, PUPILS_MM } from '@radiant/core';
import { newestOf, readBench, withReading } from '../src/data/bench-reading.js';
import { drawnOf, readAll } from '../src/data/reading.js';

const photo = (id: string, over: Partial<CaseFile> = {}): CaseFile => ({
  id,
  kind: 'photo',
  jaw: null,
  role: null,
  sha256: '0'.repeat(64),
  parentId: null,
  frame: null,
  name: `${id}.jpg`,
  mime: 'image/jpeg',
  bytes: 1,
  width: 1000,
  height: 700,
  origin: 'test',
  at: '2026-11-01T10:00:00.000Z',
  view: null,
  state: null,
  takenOn: null,
  takenBy: '',
  lay: { quarterTurns: 0, mirrored: false },
  removedAt: null,
  ...over,
});
const length = (mm: number, over: Partial<CalibrationInput> = {}): CalibrationInput => ({
  from: { x: 100, y: 600 },
  to: { x: 500, y: 600 },
  mm,
  ...over,
});
const empty = (): ReadSection => structuredClone(EMPTY_SECTIONS.read);
const points = [
  { id: 'corner-right', x: 200, y: 300 },
  { id: 'corner-left', x: 800, y: 300 },
];

describe('a view’s reading', () => {
  it('of the front view is one like the others, with the outlines of teeth', () => {
    let read = withReading(empty(), 'retracted-front', { photoId: 'a', calibration: length(40) });
    read = withReading(read, 'retracted-front', { points: [{ id: 'neck-11', x: 5, y: 6 }], check: length(8) });
    const landmarks = [{ tooth: 11, kind: 'edge' as const, x: 1, y: 2 }];
    read = withReading(read, 'retracted-front', { landmarks });
    expect(read.views).toHaveLength(1);
    const bench = readBench(read, 'retracted-front', [photo('a')]);
    expect(bench).toMatchObject({
      photo: { id: 'a' },
      calibration: { mm: 40 },
      check: { mm: 8 },
      points: [{ id: 'neck-11' }],
      landmarks,
    });
    expect(bench.scale?.value).toBeCloseTo(0.1, 9);
    expect(readBench(read, 'close-smile', []).landmarks).toEqual([]);
  });

  it('of any other view lies under its name and leaves the rest alone', () => {
    const before = withReading(empty(), 'retracted-front', { photoId: 'a', calibration: length(40) });
    const read = withReading(before, 'close-smile', {
      photoId: 'b',
      points,
      calibration: length(20, { way: 'tooth', pmMm: 0.2 }),
    });
    expect(readingOf(read, 'retracted-front')).toEqual(before.views[0]);
    expect(readBench(read, 'close-smile', [photo('b')])).toMatchObject({ photo: { id: 'b' }, points });
    const again = withReading(read, 'close-smile', { points: [] });
    expect(again.views.filter((v) => v.view === 'close-smile')).toHaveLength(1);
    expect(again.views.find((v) => v.view === 'close-smile')).toMatchObject({
      photoId: 'b',
      points: [],
      calibration: { way: 'tooth' },
    });
  });

  it('shows the newest photograph of its view from before until one is chosen, the front view’s too; what is marked on one is never shown on another', () => {
    const files = [
      photo('old', { view: 'close-smile', state: 'before' }),
      photo('new', { view: 'close-smile', state: 'before' }),
      photo('final', { view: 'close-smile', state: 'final' }),
      photo('front', { view: 'retracted-front', state: 'before' }),
    ];
    expect(newestOf(files, 'close-smile')?.id).toBe('new');
    expect(newestOf(files.slice(2), 'close-smile')?.id).toBe('final');
    expect(newestOf(files, 'portrait-rest')).toBeUndefined();
    expect(readBench(empty(), 'close-smile', files).photo?.id).toBe('new');
    expect(readBench(empty(), 'retracted-front', files).photo?.id).toBe('front');
    for (const view of ['retracted-front', 'close-smile'] as const)
      expect(readBench(withReading(empty(), view, { photoId: 'put-away' }), view, files).photo).toBeUndefined();
  });
});

describe('what a calibration means', () => {
  it('without a word it is a printed scale; a tooth and the pupils bring their own ±', () => {
    expect(knownLength(length(40))).toMatchObject({ way: 'scale', pmMm: 0 });
    expect(knownLength(length(8, { way: 'tooth', pmMm: 0.3 }))).toMatchObject({ way: 'tooth', pmMm: 0.3 });
    expect(knownLength(length(63, { way: 'pupils', pmMm: 1 })).sdMm).toBeGreaterThan(knownLength(length(63)).sdMm);
    const [scale, mean] = [
      scaleBy(length(63.4)),
      scaleBy(length(63.4, { way: 'pupils', origin: 'mean', pmMm: PUPILS_MM.pm })),
    ];
    expect(mean?.value).toBeCloseTo(scale?.value ?? 0, 12);
    expect(mean?.pm).toBeGreaterThan((scale?.pm ?? 1) * 20);
    expect(scaleBy(null)).toBeUndefined();
  });
});

describe('all that the photographs tell', () => {
  const meet = { ...structuredClone(EMPTY_SECTIONS.meet), ageYears: 28 };
  /** Six teeth side by side, 80 px wide and 100 long. */
  const landmarks = frontRow().flatMap((tooth, i) => {
    const left = 200 + i * 82;
    const [mesial, distal] = tooth < 20 ? [left + 80, left] : [left, left + 80];
    const at = {
      zenith: [left + 40, 200],
      edge: [left + 40, 300],
      mesial: [mesial, 250],
      distal: [distal, 250],
    } as const;
    return LANDMARK_KINDS.map((kind) => ({ tooth, kind, x: at[kind][0], y: at[kind][1] }));
  });
  const smile = (shift = 0) => ({
    view: 'close-smile' as const,
    photoId: 'b',
    calibration: length(40),
    drawn: [],
    points: [...points, { id: 'outer-right', x: 300 + shift, y: 300 }, { id: 'outer-left', x: 700, y: 300 }],
  });

  const front = (over: Partial<ViewReadingInput> = {}): ViewReadingInput => ({
    view: 'retracted-front',
    photoId: 'a',
    calibration: length(40),
    landmarks,
    points: [],
    drawn: [],
    ...over,
  });

  it('without a scale there are no measures, and nothing is made up', () => {
    const all = readAll({ ...empty(), views: [front({ calibration: null })] }, meet, []);
    expect(all.measures).toEqual([]);
    expect(all.findings).toEqual([]);
  });

  it('findings of all views stand in one list, the most visible first', () => {
    const read = { ...empty(), views: [front(), smile()] };
    const all = readAll(read, meet, [photo('a'), photo('b')]);
    expect(all.figures['close-smile']?.map((f) => f.id)).toEqual(expect.arrayContaining(['smile-width', 'corridor']));
    const titles = all.findings.map((f) => f.title);
    expect(titles.some((t) => /of the smile is dark/.test(t))).toBe(true);
    expect(all.findings.some((f) => f.id.startsWith('size-'))).toBe(true);
    const rank = { people: 0, dentists: 1, orthodontists: 2, nobody: 3 };
    const ranks = all.findings.map((f) => rank[f.notice]);
    expect(ranks).toEqual([...ranks].sort());
  });

  it('a view whose reading has not changed is not measured again, one that has is', () => {
    const read = { ...empty(), views: [front(), smile()] };
    const first = readAll(read, meet, []);
    const off = landmarks.map((m, i) => (i === 2 ? { ...m, x: m.x + 1 } : m));
    const moved = { ...read, views: [front({ landmarks: off }), read.views[1] as ViewReadingInput] };
    expect(readAll(moved, meet, []).figures['close-smile']).toBe(first.figures['close-smile']);
    const other = readAll({ ...read, views: [front(), smile(30)] }, meet, []);
    expect(other.figures['close-smile']).not.toBe(first.figures['close-smile']);
    const corridor = (r: typeof first) =>
      r.figures['close-smile']?.find((f) => f.id === 'corridor-right')?.figure.value ?? 0;
    // A border 5 % of the smile's width further in, seen a little smaller than the corners for lying further back.
    expect(corridor(other) - corridor(first)).toBeCloseTo(5, 0);
  });

  it('of what two views tell alike the surer one counts', () => {
    const portrait = (view: 'portrait-rest' | 'portrait-smile', pmMm: number, lower: number) => ({
      view,
      photoId: 'c',
      calibration: { from: { x: 300, y: 100 }, to: { x: 700, y: 100 }, mm: 63, way: 'pupils' as const, pmMm },
      drawn: [],
      points: [
        { id: 'pupil-right', x: 300, y: 100 },
        { id: 'pupil-left', x: 700, y: 100 },
        { id: 'corner-right', x: 350, y: 500 },
        { id: 'corner-left', x: 650, y: 500 + lower },
      ],
    });
    const read = { ...empty(), views: [portrait('portrait-rest', 7.5, 40), portrait('portrait-smile', 0.5, 30)] };
    const cants = readAll(read, meet, []).findings.filter((f) => f.id === 'cant-corner-mm');
    expect(cants).toHaveLength(1);
    expect(cants[0]?.figure?.value).toBeCloseTo((30 * 63) / 400, 1);
  });

  it('drawn measures have values with a scale and none without, or while their points lie on each other', () => {
    const scale = scaleBy(length(40));
    const at = (...p: [number, number][]) => ({ id: '1', name: 'x', points: p.map(([x, y]) => ({ x, y })) });
    expect(drawnOf([at([0, 0], [100, 0])], scale)[0]?.figure?.value).toBeCloseTo(10, 9);
    expect(drawnOf([at([0, 0], [100, 0], [100, 100])], scale)[0]?.figure?.unit).toBe('°');
    expect(drawnOf([at([0, 0], [100, 0])], undefined)[0]?.figure).toBeUndefined();
    expect(drawnOf([at([5, 5], [5, 5])], scale)[0]?.figure).toBeUndefined();
  });
});
