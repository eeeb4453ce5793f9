import {
  existingArch,
  frontRow,
  LANDMARK_KINDS,
  type LandmarkSet,
  laidSmile,
  type Px,
  plannedTooth,
  planOfExisting,
  readScan,
  type Vec3,
} from '@radiant/core';
import { AVOCET, INTRAORAL_SCANNER, makePatient, project, RETRACTED_FRONT, scan, truePoints } from '@radiant/standins';
import { bandsFrom, modelOf, type Rgb } from '../src/bench/smile-colour.js';
import { type CutSetting, planeOf } from '../src/stages/shape/use-cut.js';

const patient = makePatient(AVOCET);
const read = readScan(scan(patient, INTRAORAL_SCANNER));
const arch = existingArch(read);
const plan = planOfExisting(arch);
const landmarks = Object.fromEntries(
  frontRow().map((t) => {
    const own = truePoints(patient.teeth.find((p) => p.tooth === t) as (typeof patient.teeth)[number]);
    return [t, Object.fromEntries(LANDMARK_KINDS.map((k) => [k, project(RETRACTED_FRONT, own[k]) as Px]))];
  }),
) as unknown as LandmarkSet;
const size: Px = [RETRACTED_FRONT.widthPx, RETRACTED_FRONT.heightPx];
const planned = new Map(frontRow().map((t) => [t, plannedTooth(arch, plan, t)] as const));
const laid = (up: ReadonlyMap<number, number> = new Map()) =>
  laidSmile(arch, read.rest, planned, up, { landmarks, points: {}, size });

describe('a plan laid into a photograph', () => {
  const smile = laid();

  it('has its teeth within 2 px of where the camera sees them, all over the front of the mouth', () => {
    for (const t of smile.planned) {
      const mesh = planned.get(t.tooth)?.mesh.positions as Float64Array;
      for (let v = 0; v < t.seen.length; v += 7) {
        if (!t.seen[v]) continue;
        const p: Vec3 = [mesh[3 * v] as number, mesh[3 * v + 1] as number, mesh[3 * v + 2] as number];
        const [x, y] = project(RETRACTED_FRONT, p);
        expect(Math.hypot((t.places[3 * v] as number) - x, (t.places[3 * v + 1] as number) - y)).toBeLessThan(2);
      }
    }
    expect(smile.rmsPx).toBeLessThan(1.5);
  });

  it('is lightest where it faces the lens, and counts heights from the edge to the zenith', () => {
    for (const t of smile.planned) {
      let [seen, hidden, n, m] = [0, 0, 0, 0];
      t.light.forEach((l, v) => {
        expect(l).toBeGreaterThan(0.2);
        expect(l).toBeLessThan(1.1);
        if (t.seen[v]) [seen, n] = [seen + l, n + 1];
        else [hidden, m] = [hidden + l, m + 1];
      });
      expect(seen / n).toBeGreaterThan(hidden / m);
      expect(Math.max(...t.height)).toBe(1);
      expect(Math.min(...t.height)).toBeCloseTo(0, 9);
    }
  });

  it('hides teeth behind gum and behind teeth that stay, and moves the gum up with the zeniths', () => {
    // Gum and four premolars.
    expect(smile.hiding).toHaveLength(1 + 4);
    const up = laid(new Map(frontRow().map((t) => [t, 2] as const)));
    const [before, after] = [smile.hiding[0], up.hiding[0]];
    const moves = Array.from(
      { length: (before?.places.length ?? 0) / 3 },
      (_, v) => (before?.places[3 * v + 1] as number) - (after?.places[3 * v + 1] as number),
    );
    // 25 px a millimetre at the front; behind the premolars the gum stays.
    expect(Math.max(...moves)).toBeGreaterThan(45);
    expect(Math.max(...moves)).toBeLessThan(56);
    expect(Math.min(...moves)).toBeLessThan(1);
  });
});

describe('the colour of a laid crown', () => {
  const many = (c: Rgb): Rgb[] => Array.from({ length: 40 }, () => c);
  // Edge to neck, as a tooth is: greyer at the edge, yellower and a little darker at the neck.
  const tooth = [many([205, 198, 184]), many([214, 204, 184]), many([210, 196, 170]), many([198, 180, 150])];

  it('is the tooth’s own, band by band', () => {
    expect(bandsFrom(tooth)).toEqual(tooth.map(([c]) => c));
  });

  it('has no pink neck where gum glows on it, or the lip’s shadow lies on it', () => {
    const pink = [...tooth.slice(0, 3), many([206, 158, 150])];
    expect(bandsFrom(pink)?.[3]).toEqual([210, 196, 170]);
    expect(bandsFrom([...tooth.slice(0, 3), many([150, 112, 104])])?.[3]).toEqual([210, 196, 170]);
  });

  it('of a band that is hidden is that of the nearest below it; of a tooth that is hidden there is none', () => {
    expect(bandsFrom([tooth[0], tooth[1], [], []] as Rgb[][])?.[3]).toEqual([214, 204, 184]);
    expect(bandsFrom([[], tooth[1], tooth[2], tooth[3]] as Rgb[][])?.[0]).toEqual([214, 204, 184]);
    expect(bandsFrom([[], [], [], []])).toBeUndefined();
  });

  it('of a crown that is planned alone is that of its neighbour of the other side, which it has to match', () => {
    expect(modelOf(21, { planned: [{ tooth: 21 }] })).toBe(11);
    expect(modelOf(12, { planned: [{ tooth: 12 }, { tooth: 22 }] })).toBe(12);
  });
});

describe('the plane of a section', () => {
  const tooth = (planned.get(11) as NonNullable<ReturnType<typeof planned.get>>).frame;
  const dot = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

  it.each([
    ['through', 0, 0],
    ['level', 0, 0],
    ['frontal', 0, 0],
    ['through', 25, -40],
    ['frontal', -70, 15],
  ] as const)(
    '%s, turned by %i° and tilted by %i°, is square, and its middle moves along its normal',
    (kind, turnDeg, tiltDeg) => {
      const setting: CutSetting = { kind, turnDeg, tiltDeg, offsetMm: 0 };
      const p = planeOf(tooth, setting);
      for (const axis of [p.x, p.y, p.z]) expect(dot(axis, axis)).toBeCloseTo(1, 9);
      for (const [a, b] of [
        [p.x, p.y],
        [p.y, p.z],
        [p.z, p.x],
      ] as const)
        expect(dot(a, b)).toBeCloseTo(0, 9);
      const far = planeOf(tooth, { ...setting, offsetMm: 1.5 });
      const by: Vec3 = [far.origin[0] - p.origin[0], far.origin[1] - p.origin[1], far.origin[2] - p.origin[2]];
      expect(dot(by, p.z)).toBeCloseTo(1.5, 9);
      expect(Math.hypot(...by)).toBeCloseTo(1.5, 9);
    },
  );

  it('front to back has the tooth’s width as its normal, level its axis, frontal its depth', () => {
    const along = (kind: CutSetting['kind'], axis: Vec3) =>
      Math.abs(dot(planeOf(tooth, { kind, turnDeg: 0, tiltDeg: 0, offsetMm: 0 }).z, axis));
    expect(along('through', tooth.x)).toBeCloseTo(1, 9);
    expect(along('level', tooth.z)).toBeCloseTo(1, 9);
    expect(along('frontal', tooth.y)).toBeCloseTo(1, 9);
  });
});
