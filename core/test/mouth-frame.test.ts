import {
  dot,
  frameFromClicks,
  frameInHead,
  inMouthOf,
  inverse,
  isFrameMatrix,
  type LaidByShape,
  laidByClicks,
  laidByShape,
  matrixInto,
  meshInFrame,
  mouthBy,
  mouthFrame,
  placeMesh,
  repaired,
  sphere,
  toLocal,
  toParent,
  turn,
  type Vec3,
  vectorArea,
  writePly,
} from '@radiant/core';
import { AVOCET, makePatient, WHOLE_SCANNER, wholeJaw } from '@radiant/standins';

const ELSEWHERE = turn(
  turn({ origin: [30, -50, 12] as Vec3, x: [1, 0, 0] as Vec3, y: [0, 1, 0] as Vec3, z: [0, 0, 1] as Vec3 }, 'x', 140),
  'z',
  70,
);
const patient = makePatient(AVOCET);
const coarse = { ...WHOLE_SCANNER, stepMm: 0.5 };
const jaws = (['upper', 'lower'] as const).map((jaw) => ({
  jaw,
  ...repaired(placeMesh(wholeJaw(patient, jaw, coarse).mesh, ELSEWHERE)),
}));
const degrees = (a: Vec3, b: Vec3) => (Math.acos(Math.min(1, dot(a, b))) * 180) / Math.PI;
const sentence = (make: () => unknown): string => {
  try {
    make();
    return 'made';
  } catch (error) {
    return (error as Error).message;
  }
};

describe.each(jaws)('a whole $jaw jaw anywhere in space', ({ jaw, mesh }) => {
  let laid: LaidByShape;
  beforeAll(() => {
    laid = laidByShape(mesh, jaw);
  });

  it('is laid into the mouth: left and right within 2°, the plane of the edges within 5°, the middle within 3 mm', () => {
    const { frame, symmetry } = mouthFrame(mesh, jaw);
    expect(degrees(frame.x, ELSEWHERE.x)).toBeLessThan(2);
    expect(degrees(frame.z, ELSEWHERE.z)).toBeLessThan(5);
    expect(degrees(frame.y, ELSEWHERE.y)).toBeLessThan(5);
    expect(Math.hypot(...toLocal(ELSEWHERE, frame.origin))).toBeLessThan(4);
    expect(Math.abs(toLocal(ELSEWHERE, frame.origin)[0])).toBeLessThan(1);
    expect(symmetry).toBeGreaterThan(0.8);
  });

  it('the rooms of its teeth bring the middle between the centrals: 0.3 mm across, 0.6 mm in height', () => {
    const { frame, look } = laid;
    const centrals = (jaw === 'upper' ? patient.teeth : patient.lower).filter((t) => t.tooth % 10 === 1);
    // The patient's own middle between both, and the edge of the longer one.
    const middle = centrals.reduce((s, t) => s + t.frame.origin[0] / 2, 0);
    const at = toLocal(ELSEWHERE, frame.origin);
    expect(Math.abs(at[0] - middle)).toBeLessThan(0.3);
    const heights = centrals.map((t) => t.frame.origin[2]);
    expect(Math.abs(at[2] - (jaw === 'upper' ? Math.min(...heights) : Math.max(...heights)))).toBeLessThan(0.6);
    expect(degrees(frame.x, ELSEWHERE.x)).toBeLessThan(2);
    expect(degrees(frame.z, ELSEWHERE.z)).toBeLessThan(5);
    expect(look.teeth.size).toBe(10);
    // The jaw as it was looked at is the scan in that frame.
    const own = meshInFrame(mesh, frame).positions;
    inMouthOf(look).positions.forEach((v, i) => {
      if (Math.abs(v - (own[i] as number)) > 1e-9) throw new Error(`vertex ${i} lies elsewhere`);
    });
  });

  it.each<[string, Vec3, boolean]>([
    ['beside the middle', [0.6, 0, 0], false],
    ['too low and behind', [0, 1.2, -0.9], false],
    ['elsewhere', [3, 0, 0], true],
    ['at the neck', [0, 0, 3], true],
  ])(
    'a middle clicked %s is brought to the teeth’s own, unless it was meant; the edges give the plane',
    (_, off, meant) => {
      const { frame } = laid;
      const tip = (x: number) => toParent(frame, [x, 8, 0]);
      const found = laidByClicks(mesh, jaw, [toParent(frame, off), tip(-17), tip(17)]).frame;
      expect(Math.abs(toLocal(frame, found.origin)[0] - (meant ? off[0] : 0))).toBeLessThan(0.25);
      // Three millimetres higher would tip it about the sides by some twenty degrees.
      expect(degrees(frame.z, found.z)).toBeLessThan(1.5);
    },
  );

  it('places that say something quite different from the edges stand', () => {
    const { frame } = laid;
    const [middle, right, left] = (
      [
        [0, 0, 7.5],
        [-17, 8, 0],
        [17, 8, 0],
      ] as Vec3[]
    ).map((p) => toParent(frame, p));
    const found = laidByClicks(mesh, jaw, [middle!, right!, left!]).frame;
    expect(degrees(frame.z, found.z)).toBeGreaterThan(30);
  });

  it('a palate tells the jaws apart', () => {
    const { covered } = mouthFrame(mesh, 'upper');
    if (jaw === 'upper') expect(covered).toBeGreaterThan(0.8);
    else expect(covered).toBeLessThan(0.6);
  });

  it('three places lay it exactly, and say when right and left are changed over', () => {
    const [middle, right, left] = (
      [
        [0, 0, 0],
        [-17, 8, 0],
        [17, 8, 0],
      ] as Vec3[]
    ).map((p) => toParent(ELSEWHERE, p)) as [Vec3, Vec3, Vec3];
    const f = frameFromClicks(middle, right, left, jaw, vectorArea(mesh));
    for (const a of ['x', 'y', 'z'] as const) expect(degrees(f[a], ELSEWHERE[a])).toBeLessThan(1e-4);
    expect(sentence(() => frameFromClicks(middle, left, right, jaw, vectorArea(mesh)))).toMatch(
      /^Right and left are changed over/,
    );
    expect(sentence(() => frameFromClicks(middle, middle, left, jaw, vectorArea(mesh)))).toMatch(
      /^The three places lie too near/,
    );
  });
});

describe('what is no jaw', () => {
  it.each<[string, () => unknown, RegExp]>([
    ['a ball', () => mouthFrame(sphere(20), 'upper'), /closes in itself/],
    [
      'a jaw in metres',
      () =>
        mouthFrame(
          {
            ...(jaws[0] as (typeof jaws)[0]).mesh,
            positions: (jaws[0] as (typeof jaws)[0]).mesh.positions.map((v) => v * 10),
          },
          'upper',
        ),
      /wide; a jaw in millimetres is 25 to 110/,
    ],
  ])('%s is refused in a sentence', (_, make, words) => {
    expect(sentence(make)).toMatch(words);
  });
});

describe('the frame that is kept with a working copy', () => {
  const applied = (m: readonly number[], p: Vec3) =>
    [0, 4, 8].map((r) =>
      [0, 1, 2].reduce((sum, k) => sum + (m[r + k] as number) * (p[k] as number), m[r + 3] as number),
    );

  it.each([1, 10, 25.4])('takes points of a file of %f mm a unit to where the frame has them', (unitMm) => {
    const m = matrixInto(ELSEWHERE, unitMm);
    const mouth: Vec3 = [3, -4, 5];
    const inFile = toParent(ELSEWHERE, mouth).map((v) => v / unitMm) as unknown as Vec3;
    for (const [k, v] of applied(m, inFile).entries()) expect(v).toBeCloseTo(mouth[k as 0], 9);
    const back = mouthBy(m);
    for (const a of ['origin', 'x', 'y', 'z'] as const)
      for (const k of [0, 1, 2] as const) expect(back?.[a][k]).toBeCloseTo(ELSEWHERE[a][k], 9);
  });

  it('what bends, mirrors, flattens or is no number is no frame', () => {
    const good = matrixInto(ELSEWHERE, 2);
    const spoilt = (...changes: [number, number][]) => {
      const out = [...good];
      for (const [i, v] of changes) out[i] = v;
      return out;
    };
    expect(isFrameMatrix(good)).toBe(true);
    expect(isFrameMatrix(good.slice(1))).toBe(false);
    expect(isFrameMatrix(spoilt([0, Number.NaN]))).toBe(false);
    expect(isFrameMatrix(spoilt([0, (good[0] as number) + 0.01]))).toBe(false);
    expect(isFrameMatrix(good.map((v, i) => (i < 4 ? -v : v)))).toBe(false);
    expect(isFrameMatrix(good.map((v, i) => (i < 4 ? 0 : v)))).toBe(false);
    expect(isFrameMatrix(spoilt([12, 0.1]))).toBe(false);
    expect(mouthBy(new Array(16).fill(0))).toBeUndefined();
  });

  it('is read out of the head of an older working copy; a file without it says nothing', () => {
    const words = [ELSEWHERE.origin, ELSEWHERE.x, ELSEWHERE.y, ELSEWHERE.z].flat().map((v) => v.toFixed(9));
    const bytes = writePly(sphere(2, 6), undefined, `upper jaw, mm; mouth in the scan: ${words.join(' ')}`);
    const back = frameInHead(bytes);
    for (const a of ['origin', 'x', 'y', 'z'] as const)
      for (const k of [0, 1, 2] as const) expect(back?.[a][k]).toBeCloseTo(ELSEWHERE[a][k], 8);
    expect(frameInHead(writePly(sphere(2, 6)))).toBeUndefined();
  });

  it('turned about leads back', () => {
    const back = inverse(ELSEWHERE);
    const p: Vec3 = [3, -4, 5];
    toParent(back, toParent(ELSEWHERE, p)).forEach((v, k) => {
      expect(v).toBeCloseTo(p[k as 0], 9);
    });
  });
});
