import {
  bounds,
  type Crown,
  type CrownSize,
  crown,
  crownFace,
  facialOutline,
  inspectMesh,
  LOWER_TEN,
  opposite,
  Refusal,
  ringVertex,
  section,
  UPPER_TEN,
  volume,
} from '@radiant/core';
import { random } from '@radiant/standins';
import Manifold from 'manifold-3d';

const TEETH = [...UPPER_TEN, ...LOWER_TEN];
const usual: CrownSize = { lengthMm: 10, widthMm: 8, facialVolumeMm: 0 };

const at = (c: Crown, v: number) =>
  [0, 1, 2].map((k) => c.mesh.positions[3 * v + k] as number) as [number, number, number];

/** Caliper length: facial zenith to the lowest point, in the sagittal plane. */
function caliper(c: Crown): number {
  let zenith = at(c, 0);
  for (let k = 0; k <= c.ringSize / 2; k++) {
    const p = at(c, ringVertex(c, 0, k));
    if (p[2] > zenith[2]) zenith = p;
  }
  let edge = zenith;
  for (let v = 0; v < c.mesh.positions.length / 3; v++) if (at(c, v)[2] < edge[2]) edge = at(c, v);
  return Math.hypot(zenith[1] - edge[1], zenith[2] - edge[2]);
}

/** The facial surface's front at lateral place x and height z, mm. */
function front(c: Crown, x: number, z: number): number {
  let best = Infinity;
  let y = 0;
  for (let r = 0; r < c.rings; r++) {
    for (let k = 0; k <= c.ringSize / 2; k++) {
      const p = at(c, ringVertex(c, r, k));
      const d = (p[0] - x) ** 2 + (p[2] - z) ** 2;
      if (d < best) {
        best = d;
        y = -p[1];
      }
    }
  }
  return y;
}

describe.each(TEETH)('crown %i', (tooth) => {
  it('is closed, oriented outward and measures what was asked, within 0.02 mm', () => {
    const r = random(tooth);
    for (let i = 0; i < 6; i++) {
      const size: CrownSize = {
        lengthMm: 7.5 + 4 * r.next(),
        widthMm: 5.5 + 4 * r.next(),
        facialVolumeMm: r.next() - 0.5,
        wearMm: i % 2 ? r.next() * 1.5 : 0,
      };
      const c = crown(tooth, size);
      expect(inspectMesh(c.mesh)).toEqual({ ok: true, defects: new Map() });
      expect(volume(c.mesh)).toBeGreaterThan(40);
      const b = bounds(c.mesh);
      expect(Math.abs(b.max[0] - b.min[0] - size.widthMm)).toBeLessThan(0.02);
      expect(Math.abs(caliper(c) - size.lengthMm)).toBeLessThan(0.02);
      expect(b.min[2]).toBeCloseTo(0, 9);
    }
  });

  it('is the mirror of its fellow on the other side', () => {
    const fellow = crown(opposite(tooth), usual);
    const own = crown(tooth, usual);
    // Mirrored vertices; the quads' diagonals run the other way, which is worth some thousandths.
    expect(volume(own.mesh)).toBeCloseTo(volume(fellow.mesh), 1);
    const half = own.ringSize / 2;
    for (let k = 0; k < own.ringSize; k += 5) {
      const p = at(own, ringVertex(own, 20, k));
      const q = at(fellow, ringVertex(fellow, 20, half - k));
      expect(p[0]).toBeCloseTo(-q[0], 9);
      expect(p[2]).toBeCloseTo(q[2], 9);
    }
  });

  it('comes out the same each time', () => {
    expect(crown(tooth, usual).mesh.positions).toEqual(crown(tooth, usual).mesh.positions);
  });
});

it.each([...TEETH, 16, 17, 36, 37])('a face of %i alone is that of the whole crown, to the last digit', (tooth) => {
  for (const wearMm of [0, 0.8, 2])
    for (const more of [{}, { depthMm: 7.5 }, { edgeCurveMm: 0.4, neckVolumeMm: 0.2, mesialCornerMm: 0.3 }]) {
      const size = { ...usual, widthMm: 7.4, wearMm, ...more };
      const whole = crown(tooth, size);
      const places: number[] = [];
      for (let r = 4; r < whole.rings - 8; r += 2)
        for (let k = 6; k <= whole.ringSize / 2 - 6; k += 3) places.push(...at(whole, ringVertex(whole, r, k)));
      expect([...crownFace(tooth, size, 3)]).toEqual(places);
    }
});

it('a face is refused as its crown is', () => {
  expect(() => crownFace(11, { ...usual, lengthMm: 40 }, 3)).toThrow(Refusal);
  expect(() => crownFace(11, { ...usual, depthMm: -1 }, 3)).toThrow(Refusal);
});

describe('what makes it a tooth', () => {
  const c = crown(11, { lengthMm: 10.6, widthMm: 8.6, facialVolumeMm: 0 });

  it('a central’s face lies in three planes: cervical, middle and incisal lean differently', () => {
    const lean = (z0: number, z1: number) => (Math.atan2(front(c, 0, z1) - front(c, 0, z0), z1 - z0) * 180) / Math.PI;
    const incisal = lean(0.6, 2.4);
    const middle = lean(4, 6);
    const cervical = lean(8.2, 9.6);
    expect(incisal - middle).toBeGreaterThan(3);
    expect(middle - cervical).toBeGreaterThan(8);
  });

  it('its face is flat in the middle and turns at the line angles', () => {
    const fall = (share: number) => front(c, 0, 3) - front(c, share * 4.3, 3);
    expect(fall(0.5)).toBeLessThan(0.35);
    expect(fall(0.95)).toBeGreaterThan(4 * fall(0.5));
  });

  it('its distal corner is rounder than its mesial one', () => {
    // On the patient's right mesial lies at +x.
    const height = (x: number) =>
      Math.min(
        ...Array.from({ length: c.ringSize }, (_, k) => at(c, ringVertex(c, c.rings - 1, k))).map((p) =>
          Math.abs(p[0] - x) < 0.15 ? p[2] : Infinity,
        ),
      );
    expect(height(-3.6)).toBeGreaterThan(height(3.6) + 0.3);
  });

  it('its neck is scalloped: the papillae reach further down than the zenith, and the zenith stands distal', () => {
    const neck = Array.from({ length: c.ringSize / 2 + 1 }, (_, k) => at(c, ringVertex(c, 0, k)));
    const zenith = neck.reduce((p, q) => (q[2] > p[2] ? q : p));
    expect(zenith[2] - Math.min(...neck.map((p) => p[2]))).toBeGreaterThan(2);
    expect(zenith[0]).toBeLessThan(-0.3);
  });

  it('it has a cingulum behind and a fossa in front of it', () => {
    const lines = section(c.mesh, { origin: [0, 0, 0], x: [0, 1, 0], y: [0, 0, 1], z: [1, 0, 0] });
    const back = (z: number) => {
      let y = -Infinity;
      for (const l of lines)
        for (let i = 0; i < l.points.length; i += 2)
          if (Math.abs((l.points[i + 1] as number) - z) < 0.4) y = Math.max(y, l.points[i] as number);
      return y;
    };
    expect(back(8)).toBeGreaterThan(back(3) + 1.5);
  });

  it('a canine ends in a tip, a premolar in two cusps with a groove between', () => {
    const canine = facialOutline(crown(13, usual));
    const atEdge = Array.from(
      { length: canine.length / 2 },
      (_, i) => [canine[2 * i] as number, canine[2 * i + 1] as number] as const,
    ).filter((p) => p[1] < 0.2);
    expect(Math.max(...atEdge.map((p) => p[0])) - Math.min(...atEdge.map((p) => p[0]))).toBeLessThan(3.6);
    const premolar = crown(14, { lengthMm: 8.6, widthMm: 7, facialVolumeMm: 0 });
    const [line] = section(premolar.mesh, { origin: [0, 0, 0], x: [0, 1, 0], y: [0, 0, 1], z: [1, 0, 0] });
    const p = line?.points ?? new Float64Array();
    const low = (from: number, to: number) => {
      let z = Infinity;
      for (let i = 0; i < p.length; i += 2)
        if ((p[i] as number) > from && (p[i] as number) < to) z = Math.min(z, p[i + 1] as number);
      return z;
    };
    expect(low(-0.4, 0.4)).toBeGreaterThan(low(-3, -1.5) + 1);
    expect(low(-0.4, 0.4)).toBeGreaterThan(low(1.5, 3) + 0.6);
  });

  it('facial volume moves the middle of the face forward by as much, and the neck by less than two thirds', () => {
    const full = crown(11, { lengthMm: 10.6, widthMm: 8.6, facialVolumeMm: 0.6 });
    expect(front(full, 0, 4) - front(c, 0, 4)).toBeGreaterThan(0.5);
    expect(front(full, 0, 10) - front(c, 0, 10)).toBeLessThan(0.4);
  });

  it('wear leaves a flat, thicker edge', () => {
    const width = (m: Crown) => {
      const ys = Array.from({ length: m.ringSize }, (_, k) => at(m, ringVertex(m, m.rings - 1, k))).filter(
        (p) => Math.abs(p[0]) < 1,
      );
      return Math.max(...ys.map((p) => p[1])) - Math.min(...ys.map((p) => p[1]));
    };
    expect(width(crown(11, { ...usual, wearMm: 1.5 }))).toBeGreaterThan(width(crown(11, usual)) + 0.4);
  });
});

it('manifold-3d takes crowns for solids and finds the same volume', async () => {
  const wasm = await Manifold();
  wasm.setup();
  for (const tooth of [11, 13, 24]) {
    const m = crown(tooth, usual).mesh;
    const solid = new wasm.Manifold(
      new wasm.Mesh({ numProp: 3, vertProperties: Float32Array.from(m.positions), triVerts: m.triangles }),
    );
    expect(solid.isEmpty()).toBe(false);
    expect(solid.volume()).toBeCloseTo(volume(m), 1);
  }
});

it.each([
  [11, { ...usual, lengthMm: 40 }],
  [11, { ...usual, widthMm: Number.NaN }],
  [18, usual],
  [38, usual],
])('refuses %i with %p', (tooth, size) => {
  expect(() => crown(tooth, size)).toThrow(Refusal);
});
