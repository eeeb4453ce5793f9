import {
  type CameraStand,
  depthsFrom,
  type Figure,
  type FrontSeen,
  type LandmarkSet,
  measureFrontDetails,
  measureTeeth,
  type Px,
  type Vec3,
} from '@radiant/core';

const rad = Math.PI / 180;
const PX = 20;
const SCALE: Figure = { value: 1 / PX, pm: 0, unit: 'mm/px', working: { formula: 'given', inputs: [] } };
/** The scale is held 2 mm before the facial surface, and the centrals' edges lie about 1 mm behind that. */
const SCALE_Y = -3.075;

/** A pinhole that looks at the middle of the edges from straight in front of it, then turned about it. */
const pinhole =
  (yawDeg: number, pitchDeg: number, distanceMm: number) =>
  ([x, y, z]: Vec3): Px => {
    const [sy, cy, sp, cp] = [yawDeg, pitchDeg].flatMap((a) => [Math.sin(a * rad), Math.cos(a * rad)]) as [
      number,
      number,
      number,
      number,
    ];
    const d = [x, y - SCALE_Y, z] as const;
    const dot = (a: readonly number[]) => d.reduce((sum, v, i) => sum + v * (a[i] as number), 0);
    const away = distanceMm + dot([-sy * cp, cy * cp, -sp]);
    const k = (PX * distanceMm) / away;
    return [1000 + dot([cy, sy, 0]) * k, 1000 - dot([-sy * sp, cy * sp, cp]) * k];
  };

/** Two centrals of 10 by 8 mm that lean: each place so much further back as it lies higher. */
const leaning = (leanDeg: number) =>
  [11, 21].map((tooth) => {
    const side = tooth === 11 ? -1 : 1;
    const at = (x: number, z: number): Vec3 => [side * x, z * Math.tan(leanDeg * rad), z];
    return { tooth, at: { zenith: at(4.4, 10), edge: at(4, 0), mesial: at(0, 3), distal: at(8, 4) } };
  });

const STAND: CameraStand = {
  yawDeg: 0,
  yawPm: 0.3,
  pitchDeg: 0,
  pitchPm: 0.3,
  distanceMm: 420,
  distancePm: 0.05,
  even: false,
};

describe('how far back the scan has the places of a front view', () => {
  const shot = (leanDeg: number, yawDeg: number, pitchDeg: number, withDepths: boolean) => {
    const teeth = leaning(leanDeg);
    const see = pinhole(yawDeg, pitchDeg, 420);
    const set: LandmarkSet = Object.fromEntries(
      teeth.map((t) => [t.tooth, Object.fromEntries(Object.entries(t.at).map(([k, p]) => [k, see(p as Vec3)]))]),
    );
    const seen: FrontSeen = {
      level: { by: 'scan', rollDeg: 0, pmDeg: 0.2 },
      stand: { ...STAND, yawDeg, pitchDeg },
      behind: withDepths ? depthsFrom(teeth) : undefined,
    };
    return { teeth, see, set, seen };
  };
  const centrals = (set: LandmarkSet, seen: FrontSeen) =>
    measureTeeth(set, SCALE, undefined, seen).filter((m) => m.tooth % 10 === 1);
  const lengths = (...of: Parameters<typeof shot>) => {
    const { set, seen } = shot(...of);
    return centrals(set, seen).map((m) => m.length);
  };
  const share = 1.01; // Of a central's crown the front shows so much of its length: see SEEN_FROM_FRONT.

  it('takes out what a tooth that leans looks like from a camera held high or low', () => {
    for (const lean of [-12, 0, 12])
      for (const pitch of [-6, 6])
        for (const length of lengths(lean, 0, pitch, true)) expect(length?.value).toBeCloseTo(10 / share, 2);
    // Without them a usual tooth is taken for it.
    for (const length of lengths(12, 0, 6, false))
      expect(Math.abs((length?.value as number) - 10 / share)).toBeGreaterThan(0.15);
  });

  it('is told against the centrals’ edges, and not without one', () => {
    const [first] = depthsFrom(leaning(10)) ?? [];
    expect(first).toMatchObject({ tooth: 11, edge: 0 });
    expect(first?.zenith).toBeCloseTo(10 * Math.tan(10 * rad), 9);
    expect(depthsFrom(leaning(10).map((t) => ({ ...t, tooth: 12 })))).toBeUndefined();
  });

  it('tells what lies between two teeth by the sides that face each other', () => {
    const { see, set, seen } = shot(12, 6, 0, true);
    // Both ends of the contact upright above each other, where the papilla and the embrasure truly lie.
    const back = (z: number, behind: number): Vec3 => [0, 3 * Math.tan(12 * rad) + behind, z];
    const points = { 'papilla-11-21': see(back(6, 0.6)), 'embrasure-11-21': see(back(1, -0.4)) };
    const lean = (s: FrontSeen) =>
      measureFrontDetails(set, points, SCALE, undefined, s).find((f) => f.id === 'lean')?.figure.value as number;
    expect(lean(seen)).toBeCloseTo(0, 1);
  });

  it('tells the width of a tooth that is turned by the chord from side to side', () => {
    // A central that turns its distal side back by 4 mm over 8 mm across: its chord is √80 mm.
    const turned = leaning(0).map((t) => ({ ...t, at: { ...t.at, distal: [t.at.distal[0], 4, 4] as Vec3 } }));
    const see = pinhole(0, 0, 420);
    const set: LandmarkSet = Object.fromEntries(
      turned.map((t) => [t.tooth, Object.fromEntries(Object.entries(t.at).map(([k, p]) => [k, see(p as Vec3)]))]),
    );
    const level = { by: 'scan', rollDeg: 0, pmDeg: 0 } as const;
    for (const m of centrals(set, { level, stand: STAND, behind: depthsFrom(turned) })) {
      expect(m.width?.value).toBeCloseTo(Math.sqrt(80) / 1.001, 1);
      // From the front alone it would be taken for narrower.
      expect(centrals(set, { level, stand: STAND })[0]?.width?.value).toBeLessThan(8.3);
    }
  });

  it('does not count an error of the scan’s level beside the marks to which it was fitted', () => {
    const { set, seen } = shot(0, 0, 0, true);
    const sure = centrals(set, { ...seen, level: { by: 'scan', rollDeg: 0, pmDeg: 0 } });
    const told = centrals(set, seen);
    expect(told.map((m) => m.edgeLevel?.pm)).toEqual(sure.map((m) => m.edgeLevel?.pm));
    const pupils = centrals(set, { ...seen, level: { by: 'pupils', rollDeg: 0, pmDeg: 2 } });
    expect(pupils[0]?.edgeLevel?.pm).toBeGreaterThan(told[0]?.edgeLevel?.pm as number);
  });
});
