import {
  bounds,
  CROWN_CHARACTERS,
  CROWN_LIMITS,
  type Crown,
  type CrownSize,
  crown,
  facialOutline,
  inspectMesh,
  LOWER_TEN,
  PLAN_DEFAULTS,
  PLAN_LIMITS,
  type PlanExtra,
  Refusal,
  ringVertex,
  section,
  UPPER_TEN,
  volume,
} from '@radiant/core';
import { random } from '@radiant/standins';

const usual: CrownSize = { lengthMm: 10.5, widthMm: 8.5, facialVolumeMm: 0 };
const at = (c: Crown, v: number) =>
  [0, 1, 2].map((k) => c.mesh.positions[3 * v + k] as number) as [number, number, number];

/** Caliper length: facial zenith to the lowest point, in the sagittal plane. */
function caliper(c: Crown): number {
  let zenith = at(c, 0);
  for (let k = 0; k <= c.ringSize / 2; k++)
    if (at(c, ringVertex(c, 0, k))[2] > zenith[2]) zenith = at(c, ringVertex(c, 0, k));
  let edge = zenith;
  for (let v = 0; v < c.mesh.positions.length / 3; v++) if (at(c, v)[2] < edge[2]) edge = at(c, v);
  return Math.hypot(zenith[1] - edge[1], zenith[2] - edge[2]);
}

/** Width of the facial outline at a height, mm. */
function widthAt(c: Crown, z: number): number {
  const outline = facialOutline(c);
  let [left, right] = [Infinity, -Infinity];
  for (let i = 0; i < outline.length; i += 2) {
    if (Math.abs((outline[i + 1] as number) - z) > 0.25) continue;
    left = Math.min(left, outline[i] as number);
    right = Math.max(right, outline[i] as number);
  }
  return right - left;
}

/** Front and back of the sagittal section through the axis at a height, y in mm. */
function thicknessAt(c: Crown, z: number): { front: number; back: number } {
  let [front, back] = [Infinity, -Infinity];
  for (const line of section(c.mesh, { origin: [0, 0, z], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] })) {
    for (let i = 0; i < line.points.length; i += 2) {
      if (Math.abs(line.points[i] as number) > 0.35) continue;
      front = Math.min(front, line.points[i + 1] as number);
      back = Math.max(back, line.points[i + 1] as number);
    }
  }
  return { front, back };
}

/** Height of the edge near a lateral place, mm. */
function edgeAt(c: Crown, x: number): number {
  let low = Infinity;
  for (let k = 0; k < c.ringSize; k++) {
    const p = at(c, ringVertex(c, c.rings - 1, k));
    if (Math.abs(p[0] - x) < 0.2) low = Math.min(low, p[2]);
  }
  return low;
}

describe('three characters of a central', () => {
  const [soft, even, square] = CROWN_CHARACTERS.map((character) => crown(11, { ...usual, character })) as [
    Crown,
    Crown,
    Crown,
  ];

  it('corners are roundest in soft and sharpest in square', () => {
    // On the patient's right the distal corner lies at −x.
    const corner = (c: Crown) => edgeAt(c, -3.7) - edgeAt(c, 0);
    expect(corner(soft)).toBeGreaterThan(corner(even) + 0.15);
    expect(corner(even)).toBeGreaterThan(corner(square) + 0.15);
  });

  it('necks are narrowest in soft and widest in square, the greatest width is the same', () => {
    expect(widthAt(soft, 9)).toBeLessThan(widthAt(even, 9) - 0.1);
    expect(widthAt(square, 9)).toBeGreaterThan(widthAt(even, 9) + 0.15);
    for (const c of [soft, even, square]) {
      const b = bounds(c.mesh);
      expect(Math.abs(b.max[0] - b.min[0] - usual.widthMm)).toBeLessThan(0.02);
    }
  });

  it('line angles turn later in square: its face is flatter towards the borders', () => {
    const fall = (c: Crown) => {
      const near = (x: number) => {
        let best: [number, number, number] = [99, 99, 99];
        for (let r = 20; r < 34; r++)
          for (let k = 0; k <= c.ringSize / 2; k++) {
            const p = at(c, ringVertex(c, r, k));
            if (Math.hypot(p[0] - x, p[2] - 4) < Math.hypot(best[0] - x, best[2] - 4)) best = p;
          }
        return best[1];
      };
      return near(3.4) - near(0);
    };
    expect(fall(soft)).toBeGreaterThan(fall(even));
    expect(fall(even)).toBeGreaterThan(fall(square));
  });

  it.each([...UPPER_TEN, ...LOWER_TEN])('%i is a closed solid in each', (tooth) => {
    for (const character of CROWN_CHARACTERS) {
      const c = crown(tooth, { lengthMm: 9, widthMm: 6.8, facialVolumeMm: 0.1, character });
      expect(inspectMesh(c.mesh)).toEqual({ ok: true, defects: new Map() });
    }
  });
});

describe('what one number does', () => {
  const even = crown(11, usual);
  const one = (change: Partial<CrownSize>) => crown(11, { ...usual, ...change });

  it('the cervical volume comes forward at the neck and not at the edge, the incisal one the other way round', () => {
    const neck = one({ neckVolumeMm: 0.4 });
    const edge = one({ edgeVolumeMm: 0.4 });
    const forward = (c: Crown, z: number) => thicknessAt(even, z).front - thicknessAt(c, z).front;
    expect(forward(neck, 8.6)).toBeGreaterThan(0.25);
    expect(Math.abs(forward(neck, 1.5))).toBeLessThan(0.06);
    expect(forward(edge, 1.5)).toBeGreaterThan(0.25);
    expect(Math.abs(forward(edge, 8.6))).toBeLessThan(0.06);
    expect(volume(neck.mesh)).toBeGreaterThan(volume(even.mesh));
  });

  it('a thicker edge grows backward by about as much, the face stays', () => {
    const thick = one({ edgeThicknessMm: 0.5 });
    expect(thicknessAt(thick, 1).back - thicknessAt(even, 1).back).toBeGreaterThan(0.35);
    expect(Math.abs(thicknessAt(thick, 1).front - thicknessAt(even, 1).front)).toBeLessThan(0.05);
    expect(Math.abs(thicknessAt(thick, 7).back - thicknessAt(even, 7).back)).toBeLessThan(0.05);
  });

  it('a curved edge rises to both borders, a rounder corner on its own side only', () => {
    const curved = one({ edgeCurveMm: 0.8 });
    expect(edgeAt(curved, 3) - edgeAt(even, 3)).toBeGreaterThan(0.25);
    expect(edgeAt(curved, -3) - edgeAt(even, -3)).toBeGreaterThan(0.25);
    const round = one({ mesialCornerMm: 0.8 });
    // Where the side wall ends at the borders: mesial at +x on the patient's right.
    const border = (c: Crown, k: number) => at(c, ringVertex(c, c.rings - 1, k))[2];
    expect(border(round, 0) - border(even, 0)).toBeGreaterThan(0.6);
    expect(Math.abs(border(round, even.ringSize / 2) - border(even, even.ringSize / 2))).toBeLessThan(0.06);
  });

  it('a wider neck is wider by as much near the gum, and the contact keeps its width', () => {
    const wide = one({ neckWidthMm: 0.8 });
    expect(widthAt(wide, 9.4) - widthAt(even, 9.4)).toBeGreaterThan(0.45);
    expect(Math.abs(widthAt(wide, 2.5) - widthAt(even, 2.5))).toBeLessThan(0.03);
  });

  it('the zenith goes distal by about as much', () => {
    const zenith = (c: Crown) => {
      let best = at(c, 0);
      for (let k = 0; k <= c.ringSize / 2; k++)
        if (at(c, ringVertex(c, 0, k))[2] > best[2]) best = at(c, ringVertex(c, 0, k));
      return best[0];
    };
    expect(zenith(one({ zenithDistalMm: 0.8 }))).toBeLessThan(zenith(even) - 0.4);
    expect(zenith(one({ zenithDistalMm: -0.8 }))).toBeGreaterThan(zenith(even) + 0.4);
  });

  it('texture at 0 leaves a smooth face, at 2 deeper grooves', () => {
    const rough = (c: Crown) => {
      // Unevenness across the face at one height: second differences along a ring.
      let sum = 0;
      for (let k = 14; k < c.ringSize / 2 - 14; k++) {
        const [a, b, d] = [
          at(c, ringVertex(c, 30, k - 1)),
          at(c, ringVertex(c, 30, k)),
          at(c, ringVertex(c, 30, k + 1)),
        ];
        sum += Math.abs(a[1] - 2 * b[1] + d[1]);
      }
      return sum;
    };
    expect(rough(one({ textureShare: 0 }))).toBeLessThan(rough(even));
    expect(rough(one({ textureShare: 2 }))).toBeGreaterThan(rough(even));
  });
});

it.each([11, 22, 13, 24, 31, 43])(
  '%i measures its length and width within 0.02 mm whatever else is set, seeds 1–8',
  (tooth) => {
    for (let seed = 1; seed <= 8; seed++) {
      const r = random(seed * 100 + tooth);
      const extras = Object.fromEntries(
        Object.entries(CROWN_LIMITS)
          .filter(([key]) => key in PLAN_DEFAULTS)
          .map(([key, l]) => [key, l.min + (l.max - l.min) * r.next()]),
      );
      const size = {
        lengthMm: 8.5 + 3 * r.next(),
        widthMm: 6.4 + 2.5 * r.next(),
        facialVolumeMm: 0.5 * r.next(),
        ...extras,
      } as CrownSize;
      const c = crown(tooth, { ...size, character: CROWN_CHARACTERS[seed % 3] as CrownSize['character'] });
      const b = bounds(c.mesh);
      expect(inspectMesh(c.mesh).ok).toBe(true);
      expect(Math.abs(b.max[0] - b.min[0] - size.widthMm)).toBeLessThan(0.02);
      expect(Math.abs(caliper(c) - size.lengthMm)).toBeLessThan(0.02);
    }
  },
);

it.each(Object.keys(PLAN_DEFAULTS).filter((k) => k in CROWN_LIMITS) as PlanExtra[])(
  '%s outside its limits is refused with its name',
  (key) => {
    const { max } = PLAN_LIMITS[key];
    expect(() => crown(11, { ...usual, [key]: max + 0.1 })).toThrow(Refusal);
    expect(() => crown(11, { ...usual, [key]: max + 0.1 })).toThrow(new RegExp(key));
    expect(() => crown(11, { ...usual, [key]: Number.NaN })).toThrow(Refusal);
  },
);
