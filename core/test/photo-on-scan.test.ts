import {
  add,
  distance,
  existingArch,
  frontRow,
  LANDMARK_KINDS,
  type LandmarkSet,
  lineOfSight,
  matchCamera,
  mmAPixelAt,
  type Px,
  photoMarks,
  photoOnScan,
  photoPoint,
  Refusal,
  readScan,
  scale,
  type Vec3,
} from '@radiant/core';
import {
  type CameraSetting,
  handHeld,
  INTRAORAL_SCANNER,
  makePatient,
  project,
  RECIPES,
  random,
  scan,
  truePoints,
} from '@radiant/standins';

/** Landmarks of some teeth as a hand sets them that is off by about a pixel. */
function markedBy(
  patient: ReturnType<typeof makePatient>,
  camera: CameraSetting,
  seed: number,
  teeth: readonly number[],
): LandmarkSet {
  const hand = random(seed);
  const put = (p: Vec3): Px => {
    const [x, y] = project(camera, p);
    return [x + hand.normal(0.8), y + hand.normal(0.8)];
  };
  return Object.fromEntries(
    patient.teeth
      .filter((t) => teeth.includes(t.tooth))
      .map((t) => [t.tooth, Object.fromEntries(LANDMARK_KINDS.map((k) => [k, put(truePoints(t)[k])]))]),
  );
}

describe.each(['Plover', 'Dunlin'] as const)('%s’s retracted photograph matched with the scan', (name) => {
  const patient = makePatient(RECIPES[name]);
  const arch = existingArch(readScan(scan(patient, INTRAORAL_SCANNER)));
  const { camera } = handHeld(patient.recipe, 'retracted-front');
  const held: CameraSetting = { ...camera, rollDeg: (camera.rollDeg ?? 0) + 3, pitchDeg: (camera.pitchDeg ?? 0) - 2 };
  const size: Px = [held.widthPx, held.heightPx];

  it('places of the scan that nobody marked fall where the lens put them, within 0.25 mm', () => {
    // Three teeth are marked; the others' places come from the scan alone.
    const found = photoOnScan(arch, markedBy(patient, held, 3, [11, 21, 13]), {}, size);
    for (const place of found.places) {
      const [x, y] = project(held, place.scanAt);
      expect(Math.hypot(x - place.scanPx[0], y - place.scanPx[1]) / found.camera.pxPerMm).toBeLessThan(0.25);
    }
    expect(found.places.filter((p) => p.markAt).map((p) => p.tooth)).toEqual([
      13, 13, 13, 13, 11, 11, 11, 11, 21, 21, 21, 21,
    ]);
  });

  it('marks of the photograph lie on the scan where the model has them, within 0.3 mm', () => {
    const found = photoOnScan(arch, markedBy(patient, held, 4, frontRow()), {}, size);
    const off: number[] = [];
    for (const { tooth, kind, markAt } of found.places) {
      const own = truePoints(patient.teeth.find((p) => p.tooth === tooth) as (typeof patient.teeth)[number])[kind];
      // An outline is where the surface turns away: along the line of sight its place is loose, across it it is not.
      const [a, b] = [photoPoint(found.camera, markAt as Vec3), photoPoint(found.camera, own)];
      off.push(Math.hypot(a[0] - b[0], a[1] - b[1]) * mmAPixelAt(found.camera, own));
      expect(distance(markAt as Vec3, own)).toBeLessThan(1.5);
    }
    expect(Math.max(...off)).toBeLessThan(0.3);
  });

  it('the length across the centrals gives the scale of the lens, within its error in 19 of 20 hands', () => {
    let within = 0;
    for (let seed = 1; seed <= 20; seed++) {
      const { length } = photoOnScan(arch, markedBy(patient, held, seed, frontRow()), {}, size);
      if (!length) throw new Error('no length');
      expect(length.pmMm / length.mm).toBeLessThan(0.03);
      // What the simulated lens itself makes of a millimetre there.
      const [a, b] = [11, 21].map(
        (t) => truePoints(patient.teeth.find((p) => p.tooth === t) as (typeof patient.teeth)[number]).distal,
      ) as [Vec3, Vec3];
      const [p, q] = [project(held, a), project(held, add(a, [1, 0, 0]))];
      const [r, s] = [project(held, b), project(held, add(b, [1, 0, 0]))];
      const pxAMm = (Math.hypot(q[0] - p[0], q[1] - p[1]) + Math.hypot(s[0] - r[0], s[1] - r[1])) / 2;
      const found = Math.hypot(length.to[0] - length.from[0], length.to[1] - length.from[1]) / length.mm;
      if (Math.abs(found / pxAMm - 1) < length.pmMm / length.mm) within++;
    }
    expect(within).toBeGreaterThanOrEqual(19);
  });
});

test('a line of sight goes through every place that falls where it begins', () => {
  const patient = makePatient(RECIPES.Avocet);
  const arch = existingArch(readScan(scan(patient, INTRAORAL_SCANNER)));
  const { camera: held } = handHeld(patient.recipe, 'retracted-front');
  const size: Px = [held.widthPx, held.heightPx];
  const { camera } = matchCamera(photoMarks(arch, markedBy(patient, held, 9, frontRow()), {}), size);
  for (const px of [
    [10, 20],
    [size[0] / 2, size[1] / 2],
    [size[0] - 5, 70],
  ] as const) {
    const { from, towards } = lineOfSight(camera, px);
    for (const far of [100, 400, 700]) {
      const [x, y] = photoPoint(camera, add(from, scale(towards, far)));
      expect(x).toBeCloseTo(px[0], 6);
      expect(y).toBeCloseTo(px[1], 6);
    }
  }
  expect(() => photoOnScan(arch, markedBy(patient, held, 9, []), {}, size)).toThrow(Refusal);
});
