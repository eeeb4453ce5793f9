import { bestWay, facingOf, type Mesh, spread, tippingLimitDeg, undercutMm2, type Vec3, wayCone } from '@radiant/core';
import * as THREE from 'three';
import { signedField } from '../src/geometry/tree/signed.js';
import { tightCorners, turnRadii } from '../src/prep/corners.js';
import { facingWhere } from '../src/prep/facing.js';
import { laidOn } from '../src/prep/laid.js';
import { nicks } from '../src/prep/nicks.js';
import { stanceOf, wallsOf } from '../src/prep/walls.js';
import { prepTrial, prepTrials } from './trials/faulty-preps.js';
import { rotating } from './trials/rotating.js';

/** A cone's side without its ends: radius at the foot, height, taper of each wall; narrower at the top, which is +z. */
function coneSide(foot: number, height: number, taperDeg: number, around = 360, rows = 60): Mesh {
  const positions: number[] = [];
  const triangles: number[] = [];
  const shrink = Math.tan((taperDeg * Math.PI) / 180);
  for (let j = 0; j <= rows; j++)
    for (let i = 0; i < around; i++) {
      const [h, a] = [(j / rows) * height, (2 * Math.PI * i) / around];
      const r = foot - h * shrink;
      positions.push(r * Math.cos(a), r * Math.sin(a), h);
    }
  for (let j = 0; j < rows; j++)
    for (let i = 0; i < around; i++) {
      const [a, b] = [j * around + i, j * around + ((i + 1) % around)];
      triangles.push(a, b, b + around, a, b + around, a + around);
    }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}

const turned = (m: Mesh, deg: number): Mesh => {
  const a = (deg * Math.PI) / 180;
  const p = m.positions.slice();
  for (let i = 0; i < p.length; i += 3) {
    const [x, z] = [p[i] as number, p[i + 2] as number];
    [p[i], p[i + 2]] = [x * Math.cos(a) + z * Math.sin(a), -x * Math.sin(a) + z * Math.cos(a)];
  }
  return { positions: p, triangles: m.triangles };
};

const angleDeg = (a: Vec3, b: Vec3) =>
  (Math.acos(Math.min(1, a[0] * b[0] + a[1] * b[1] + a[2] * b[2])) * 180) / Math.PI;

describe('ways out of bodies in closed form', () => {
  it('nothing of a cone hangs as far as its walls lean, and half of it does beyond a cylinder’s axis', () => {
    const cone = facingOf(coneSide(3, 4, 8));
    const lean = (deg: number): Vec3 => [Math.sin((deg * Math.PI) / 180), 0, Math.cos((deg * Math.PI) / 180)];
    expect(undercutMm2(cone, lean(0))).toBe(0);
    expect(undercutMm2(cone, lean(7.9), 0)).toBe(0);
    expect(undercutMm2(cone, lean(8.2), 0)).toBeGreaterThan(0);
    const cylinder = facingOf(coneSide(3, 4, 0));
    // Of a cylinder that is tilted at all the half away from the tilt hangs: π·r·h.
    expect(undercutMm2(cylinder, lean(5), 0)).toBeCloseTo(Math.PI * 3 * 4, 0);
  });

  it('the cone of ways of a cone is as wide as its walls lean, and of an oval one wider along it', () => {
    const own = wayCone(facingOf(coneSide(3, 4, 12)), [0, 0, 1], [1, 0, 0], 0);
    // A scan's roughness is allowed beside it: 1.5°.
    for (const deg of own.leanDeg) expect(Math.abs(deg - 13)).toBeLessThanOrEqual(1);
  });

  it('finds the axis of a tilted cone, and of two the middle between them, as a search through 10,000 directions', () => {
    for (const deg of [0, 11, 24]) {
      const own = bestWay(facingOf(turned(coneSide(3, 4, 6), deg)), [0, 0, 1]);
      expect(own.undercutMm2).toBe(0);
      expect(angleDeg(own.way, [Math.sin((deg * Math.PI) / 180), 0, Math.cos((deg * Math.PI) / 180)])).toBeLessThan(1);
    }
    const both = [facingOf(turned(coneSide(3, 4, 5), -12)), facingOf(turned(coneSide(3, 4, 5), 12))];
    const together = {
      normals: Float64Array.from(both.flatMap((f) => [...f.normals])),
      areaMm2: Float64Array.from(both.flatMap((f) => [...f.areaMm2])),
    };
    const own = bestWay(together, [0, 0, 1]);
    const brute = spread(10_000)
      .filter((w) => w[2] > 0.5)
      .reduce((least, w) => Math.min(least, undercutMm2(together, w)), Infinity);
    expect(own.undercutMm2).toBeLessThanOrEqual(brute + 1e-9);
    expect(own.undercutMm2).toBeGreaterThan(0);
  });
});

describe('walls and tipping', () => {
  it.each([2, 4, 8, 15])('a cone with %i° of taper each wall is measured within 0.2°', (deg) => {
    const m = coneSide(4, 5, deg);
    const own = wallsOf(
      m,
      facingWhere(m, () => true),
      stanceOf({ x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, -1] }, 1),
      (p) => p[2],
    );
    expect(own.walls.map((w) => w.side).sort()).toEqual(['distal', 'facial', 'mesial', 'palatal']);
    for (const w of own.walls) expect(Math.abs(w.taperDeg - deg)).toBeLessThan(0.2);
    expect(Math.abs((own.pairs.sides ?? 0) - 2 * deg)).toBeLessThan(0.4);
    expect(own.baseMm.sides).toBeCloseTo(8, 1);
    for (const w of own.walls) expect(Math.abs(w.heightMm - 5)).toBeLessThan(0.15);
  });

  it('the limit of tipping is that of a die turned about its far margin step by step', () => {
    // The trapezoid of base b, height h and walls that lean by α, turned about (b, 0): a place of the near wall resists
    // when its way about that point goes into the wall.
    const resists = (h: number, b: number, alphaDeg: number): boolean => {
      const t = Math.tan((alphaDeg * Math.PI) / 180);
      for (let k = 0; k <= 2000; k++) {
        const y = (h * k) / 2000;
        const [x, step] = [y * t, 1e-5];
        const [dx, dy] = [x - b, y];
        // Turned so that the near side lifts.
        const at = [b + dx * Math.cos(step) + dy * Math.sin(step), -dx * Math.sin(step) + dy * Math.cos(step)] as const;
        // Of the near wall, x = y·tan α, the crown lies on the outside; it meets the die where it moves inside.
        if (at[0] > at[1] * t + 1e-12) return true;
      }
      return false;
    };
    for (const [h, b] of [
      [2, 8],
      [3, 8],
      [3, 7],
      [1.5, 6],
    ] as const) {
      const limit = tippingLimitDeg(h, b) as number;
      expect(resists(h, b, limit - 0.3)).toBe(true);
      expect(resists(h, b, limit + 0.3)).toBe(false);
    }
    expect(tippingLimitDeg(4, 8)).toBeUndefined();
  });
});

describe('corners', () => {
  /** A box's corner along x, rounded with a radius: a quarter of a cylinder between two planes. */
  const fillet = (radius: number, stepMm = 0.03): Mesh => {
    const profile: [number, number][] = [];
    for (let s = 2; s > radius; s -= 0.1) profile.push([0, s]);
    const parts = Math.max(3, Math.ceil((radius * Math.PI) / 2 / stepMm));
    for (let k = 0; k <= parts; k++) {
      const a = (Math.PI / 2) * (k / parts);
      profile.push([radius - radius * Math.cos(a), radius - radius * Math.sin(a)]);
    }
    for (let s = radius + 0.1; s <= 2; s += 0.1) profile.push([s, 0]);
    const positions: number[] = [];
    const triangles: number[] = [];
    const rows = 60;
    for (let j = 0; j <= rows; j++) for (const [y, z] of profile) positions.push(j * 0.1, y, z);
    const n = profile.length;
    for (let j = 0; j < rows; j++)
      for (let i = 0; i + 1 < n; i++) {
        const a = j * n + i;
        triangles.push(a, a + n, a + n + 1, a, a + n + 1, a + 1);
      }
    return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
  };

  it.each([0.15, 0.25, 0.4])('a fillet of %d mm is measured within 0.01 mm in its middle', (radius) => {
    const m = fillet(radius);
    const own = turnRadii(m);
    const middle = Array.from(own.keys()).filter((v) => {
      const [x, y, z] = [m.positions[3 * v]!, m.positions[3 * v + 1]!, m.positions[3 * v + 2]!];
      return x > 1 && x < 5 && y > 0.15 * radius && z > 0.15 * radius && y < 0.7 * radius && z < 0.7 * radius;
    });
    expect(middle.length).toBeGreaterThan(10);
    for (const v of middle) expect(Math.abs(Math.abs(own[v]!) - radius)).toBeLessThan(0.01);
  });

  it('tells one that is too tight for a mill and none that is wide enough', () => {
    expect(tightCorners(fillet(0.1), () => true, 0.2)).toHaveLength(1);
    expect(tightCorners(fillet(0.1), () => true, 0.2)[0]?.lengthMm).toBeGreaterThan(5);
    expect(tightCorners(fillet(0.35), () => true, 0.2)).toEqual([]);
  });
});

describe('two scans of one tooth', () => {
  const ball = (radius: number, dent?: (v: THREE.Vector3) => number): Mesh => {
    const g = new THREE.IcosahedronGeometry(radius, 24);
    const p = g.getAttribute('position');
    const index = new Map<string, number>();
    const positions: number[] = [];
    const triangles: number[] = [];
    for (let i = 0; i < p.count; i++) {
      const v = new THREE.Vector3().fromBufferAttribute(p, i);
      if (dent) v.multiplyScalar(1 - dent(v) / radius);
      const key = [v.x, v.y, v.z].map((c) => c.toFixed(5)).join();
      const own = index.get(key) ?? index.size;
      if (!index.has(key)) positions.push(v.x, v.y, v.z);
      index.set(key, own);
      triangles.push(own);
    }
    return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
  };
  const plain = signedField(ball(4));

  it('tells a nick with its depth, and none where nothing was touched', () => {
    const nicked = ball(4, (v) => 0.3 * Math.exp(-(v.distanceToSquared(new THREE.Vector3(0, -4, 0)) / 0.5)));
    const own = nicks(plain, signedField(nicked), 0.17, () => true);
    expect(own).toHaveLength(1);
    expect(Math.abs((own[0]?.deepMm ?? 0) - 0.3)).toBeLessThan(0.02);
    expect(nicks(plain, plain, 0.17, () => true)).toEqual([]);
  });

  it('says how a later scan lies, and doubts one that lies off', () => {
    const seen = () => true;
    expect(laidOn([{ before: plain, after: signedField(ball(4.02)), seen }]).doubtful).toBe(false);
    const off = laidOn([{ before: plain, after: signedField(ball(4.2)), seen }]);
    expect(off.doubtful).toBe(true);
    expect(off.medianMm).toBeCloseTo(0.2, 2);
    expect(laidOn([]).pmMm).toBeGreaterThan(0.15);
  });
});

describe('what a simulated dentist did wrong is found', () => {
  const TRIED = rotating(prepTrials(200), 3);
  const results = TRIED.map(prepTrial);

  it('of today’s preparations no fault stays unseen', () => {
    const missed = results.flatMap((r) => r.missed);
    expect(missed).toEqual([]);
  });

  it('and where nothing is wrong at most two things are said to be', () => {
    for (const r of results) expect(r.false.map((f) => f.says).slice(2)).toEqual([]);
  });
});
