import {
  type ExistingArch,
  existingArch,
  frontRow,
  LANDMARK_KINDS,
  type LandmarkSet,
  matchCamera,
  type PhotoMark,
  type Px,
  photoMarks,
  photoPoint,
  Refusal,
  readScan,
  toothPlaces,
  type Vec3,
  type ViewPoints,
} from '@radiant/core';
import {
  type CameraSetting,
  handHeld,
  INTRAORAL_SCANNER,
  makePatient,
  type Patient,
  project,
  RECIPES,
  random,
  scan,
  truePoints,
  trueViewPoints,
} from '@radiant/standins';

/** A hand that is off by about a pixel. */
function marked(camera: CameraSetting, seed: number) {
  const hand = random(seed);
  return (p: Vec3): Px => {
    const [x, y] = project(camera, p);
    return [x + hand.normal(0.8), y + hand.normal(0.8)];
  };
}

function marksOn(
  patient: Patient,
  arch: ExistingArch,
  view: 'close-smile' | 'retracted-front',
  camera: CameraSetting,
): PhotoMark[] {
  const at = marked(camera, 7);
  const landmarks: Record<number, Record<string, Px>> = {};
  const points: Record<string, Px> = {};
  if (view === 'retracted-front') {
    for (const t of frontRow()) {
      const own = patient.teeth.find((p) => p.tooth === t);
      if (own) landmarks[t] = Object.fromEntries(LANDMARK_KINDS.map((k) => [k, at(truePoints(own)[k])]));
    }
  } else {
    const truth = trueViewPoints(patient, view, handHeld(patient.recipe, view).expression);
    for (const [id, p] of Object.entries(truth)) if (/^(edge|zenith)-/.test(id)) points[id] = at(p);
  }
  const scaled = truePoints(patient.teeth.find((p) => p.tooth === 21) as Patient['teeth'][number]);
  const width =
    view === 'close-smile' ? { tooth: 21, ends: [at(scaled.distal), at(scaled.mesial)] as const } : undefined;
  return photoMarks(arch, landmarks as LandmarkSet, points as ViewPoints, width);
}

describe.each(['Avocet', 'Plover'] as const)('the camera of %s’s photographs, matched from marks', (name) => {
  const patient = makePatient(RECIPES[name]);
  const arch = existingArch(readScan(scan(patient, INTRAORAL_SCANNER)));

  it.each(['close-smile', 'retracted-front'] as const)(
    '%s: every landmark of the six falls within 2 px of where the camera put it',
    (view) => {
      const base = handHeld(patient.recipe, view).camera;
      // As the hand held it, and rolled and tilted further.
      for (const camera of [base, { ...base, rollDeg: (base.rollDeg ?? 0) + 4, pitchDeg: (base.pitchDeg ?? 0) - 3 }]) {
        const { camera: found, rmsPx } = matchCamera(marksOn(patient, arch, view, camera), [
          camera.widthPx,
          camera.heightPx,
        ]);
        expect(rmsPx).toBeLessThan(2);
        for (const t of frontRow()) {
          const own = truePoints(patient.teeth.find((p) => p.tooth === t) as Patient['teeth'][number]);
          // The landmarks that the view has: a smile’s teeth are marked at edge and zenith alone.
          for (const k of view === 'close-smile' ? (['edge', 'zenith'] as const) : LANDMARK_KINDS) {
            const [a, b] = [project(camera, own[k]), photoPoint(found, own[k])];
            expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeLessThan(2);
          }
        }
      }
    },
  );

  it('finds the scanned tooth’s own places where the model has them', () => {
    for (const t of frontRow()) {
      const found = toothPlaces(arch.teeth.get(t) as NonNullable<ReturnType<typeof arch.teeth.get>>);
      const truth = truePoints(patient.teeth.find((p) => p.tooth === t) as Patient['teeth'][number]);
      expect(Math.abs(found.zenith[2] - truth.zenith[2])).toBeLessThan(0.08);
      expect(Math.abs(found.edge[2] - truth.edge[2])).toBeLessThan(0.08);
      expect(Math.abs(found.mesial[0] - truth.mesial[0])).toBeLessThan(0.1);
      expect(Math.abs(found.distal[0] - truth.distal[0])).toBeLessThan(0.1);
    }
  });
});

describe('the match itself', () => {
  const r = random(31);
  const places = Array.from({ length: 14 }, (): Vec3 => [40 * r.next() - 20, 12 * r.next(), 9 * r.next()]);
  const size: Px = [3000, 2000];

  it.each([
    [0, 0, 0, 420],
    [4, -3, 7, 300],
    [-2, 5, -12, 600],
  ])(
    'of exact marks gives back yaw %i°, pitch %i°, roll %i° at %i mm to a hundredth of a pixel',
    (yawDeg, pitchDeg, rollDeg, distanceMm) => {
      const camera: CameraSetting = {
        widthPx: size[0],
        heightPx: size[1],
        fieldMm: 80,
        distanceMm,
        centreZ: 3,
        centreY: 4,
        yawDeg,
        pitchDeg,
        rollDeg,
      };
      const marks = places.map((at): PhotoMark => ({ at, px: project(camera, at) as Px, sdMm: [0.01, 0.01] }));
      const { camera: found } = matchCamera(marks, size);
      for (const p of places) {
        const [a, b] = [project(camera, p), photoPoint(found, p)];
        expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeLessThan(0.05);
      }
      expect(found.yawDeg).toBeCloseTo(yawDeg, 0);
      expect(found.pitchDeg).toBeCloseTo(pitchDeg, 0);
      expect(found.rollDeg).toBeCloseTo(rollDeg, 1);
    },
  );

  it('is refused in a sentence for too few marks, and for marks in one place', () => {
    const one: PhotoMark = { at: [0, 0, 0], px: [10, 10], sdMm: [0.1, 0.1] };
    expect(() => matchCamera([one, one, one], size)).toThrow(/has 3 marked places of the teeth; at least 4 are needed/);
    expect(() => matchCamera([one, one, one, one], size)).toThrow(Refusal);
  });
});
