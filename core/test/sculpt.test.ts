import {
  BRUSH_LIMITS,
  type Crown,
  crown,
  inspectMesh,
  LEAST_WALL_MM,
  mirroredStroke,
  opposite,
  Refusal,
  requireStroke,
  ringVertex,
  Sculptor,
  type Stroke,
  sculpted,
  volume,
} from '@radiant/core';
import { random } from '@radiant/standins';
import Manifold from 'manifold-3d';

const base = crown(11, { lengthMm: 10.6, widthMm: 8.6, facialVolumeMm: 0 });
const middle = ringVertex(base, 20, base.ringSize / 4);
const at = (c: Crown, v: number) =>
  [0, 1, 2].map((k) => c.mesh.positions[3 * v + k] as number) as [number, number, number];
const moved = (a: Crown, b: Crown, v: number) => Math.hypot(...at(a, v).map((x, k) => x - (at(b, v)[k] as number)));
const stroke = (s: Partial<Stroke>): Stroke => ({ tool: 'add', radiusMm: 1.5, amount: 0.2, at: [middle], ...s });

describe('a stroke of the brush', () => {
  it('raises the middle by its amount and nothing beyond its radius', () => {
    const c = sculpted(base, [stroke({})]);
    expect(moved(c, base, middle)).toBeCloseTo(0.2, 6);
    for (let v = 0; v < base.mesh.positions.length / 3; v++) {
      const d = Math.hypot(...at(base, v).map((x, k) => x - (at(base, middle)[k] as number)));
      if (d >= 1.5) expect(moved(c, base, v)).toBe(0);
      else expect(moved(c, base, v)).toBeLessThanOrEqual(0.2 + 1e-9);
    }
  });

  it('adds the volume of its bell: a third of height times area on a flat face', () => {
    // ∫(1 − (r/R)²)² over the disc is πR²/3.
    const c = sculpted(base, [stroke({ amount: 0.1, radiusMm: 1.2 })]);
    const bell = 0.1 * Math.PI * 1.2 ** 2 * (1 / 3);
    expect(volume(c.mesh) - volume(base.mesh)).toBeGreaterThan(bell * 0.93);
    expect(volume(c.mesh) - volume(base.mesh)).toBeLessThan(bell * 1.1);
  });

  it('takes away what the opposite stroke adds, and a slow hand does not dig deeper', () => {
    const back = sculpted(base, [stroke({}), stroke({ tool: 'remove' })]);
    expect(
      Math.max(...Array.from(back.mesh.positions, (x, i) => Math.abs(x - (base.mesh.positions[i] as number)))),
    ).toBeLessThan(1e-12);
    const slow = sculpted(base, [stroke({ at: [middle, middle, middle, middle] })]);
    expect(slow.mesh.positions).toEqual(sculpted(base, [stroke({})]).mesh.positions);
  });

  it('leaves the other side of a thin edge alone', () => {
    const edge = ringVertex(base, base.rings - 4, base.ringSize / 4);
    const behind = ringVertex(base, base.rings - 4, (3 * base.ringSize) / 4);
    const c = sculpted(base, [stroke({ at: [edge] })]);
    expect(moved(c, base, edge)).toBeGreaterThan(0.15);
    expect(moved(c, base, behind)).toBe(0);
  });

  it('smooths a bump that it made itself', () => {
    const bump = stroke({ radiusMm: 0.6, amount: 0.3 });
    const rough = sculpted(base, [bump]);
    const smooth = sculpted(base, [bump, stroke({ tool: 'smooth', radiusMm: 2, amount: 1 })]);
    expect(moved(smooth, base, middle)).toBeLessThan(moved(rough, base, middle) - 0.03);
  });

  it('stays on its place of the crown when length and width change', () => {
    const longer = crown(11, { lengthMm: 12, widthMm: 9, facialVolumeMm: 0.3 });
    const c = sculpted(longer, [stroke({})]);
    expect(moved(c, longer, middle)).toBeCloseTo(0.2, 6);
  });

  it('is the mirror image on the other side', () => {
    const fellow = crown(opposite(11), { lengthMm: 10.6, widthMm: 8.6, facialVolumeMm: 0 });
    const v = ringVertex(base, 24, 9);
    const s = stroke({ at: [v, ringVertex(base, 25, 10)] });
    const [a, b] = [sculpted(base, [s]), sculpted(fellow, [mirroredStroke(fellow, s)])];
    const w = ringVertex(base, 24, base.ringSize / 2 - 9);
    expect(at(b, w)[0]).toBeCloseTo(-at(a, v)[0], 3);
    expect(at(b, w)[1]).toBeCloseTo(at(a, v)[1], 3);
    // There and back is the same stroke, on the cap as well.
    const caps = stroke({ at: Array.from({ length: base.mesh.positions.length / 3 }, (_, i) => i) });
    expect(mirroredStroke(base, mirroredStroke(base, caps))).toEqual(caps);
    const cap = base.rings * base.ringSize + 3;
    const [m] = mirroredStroke(base, stroke({ at: [cap] })).at;
    expect(at(fellow, m as number)[0]).toBeCloseTo(-at(base, cap)[0], 9);
  });
});

it('random strokes that are taken leave a closed solid by manifold-3d’s judgement, seeds 1–12', async () => {
  const wasm = await Manifold();
  wasm.setup();
  for (let seed = 1; seed <= 12; seed++) {
    const r = random(seed);
    const taken: Stroke[] = [];
    for (let i = 0; i < 6; i++) {
      const ring = 6 + Math.floor(r.next() * 30);
      const k = Math.floor(r.next() * base.ringSize);
      const s = stroke({
        tool: (['add', 'remove', 'smooth'] as const)[Math.floor(r.next() * 3)] as Stroke['tool'],
        radiusMm: 0.8 + r.next() * 2,
        amount: 0.05 + r.next() * 0.25,
        at: Array.from({ length: 8 }, (_, j) => ringVertex(base, Math.min(base.rings - 1, ring + j), k + j)),
      });
      try {
        requireStroke(base, taken, s);
        taken.push(s);
      } catch (error) {
        expect(error).toBeInstanceOf(Refusal);
      }
    }
    const m = sculpted(base, taken).mesh;
    expect(inspectMesh(m).ok).toBe(true);
    const solid = new wasm.Manifold(
      new wasm.Mesh({ numProp: 3, vertProperties: Float32Array.from(m.positions), triVerts: m.triangles }),
    );
    expect(solid.isEmpty()).toBe(false);
    expect(solid.volume()).toBeCloseTo(volume(m), 1);
  }
});

it('a sculptor that is asked again and again gives the same as sculpting from the start', () => {
  const sculptor = new Sculptor();
  const strokes: Stroke[] = [
    stroke({}),
    stroke({ tool: 'smooth', amount: 0.6 }),
    stroke({ tool: 'remove', at: [middle, middle + 3] }),
  ];
  for (let n = 0; n <= strokes.length; n++)
    expect(sculptor.sculpt(base, strokes.slice(0, n)).mesh.positions).toEqual(
      sculpted(base, strokes.slice(0, n)).mesh.positions,
    );
  const longer = crown(11, { lengthMm: 11.5, widthMm: 8.6, facialVolumeMm: 0 });
  expect(sculptor.sculpt(longer, strokes).mesh.positions).toEqual(sculpted(longer, strokes).mesh.positions);
});

describe('a stroke that can’t be', () => {
  const edge = ringVertex(base, base.rings - 3, base.ringSize / 4);
  const refused = (before: readonly Stroke[], s: Stroke) => {
    try {
      requireStroke(base, before, s);
    } catch (error) {
      return (error as Refusal).message;
    }
    return undefined;
  };

  it('would leave too thin a wall: after some strokes on one place the next is refused, and says how much would be left', () => {
    const thin = ringVertex(base, base.rings - 12, base.ringSize / 4);
    const behind = ringVertex(base, base.rings - 12, (3 * base.ringSize) / 4);
    const taken: Stroke[] = [];
    let sentence: string | undefined;
    while (!sentence && taken.length < 20) {
      const next = stroke({ tool: 'remove', amount: 0.25, radiusMm: 4, at: [thin] });
      sentence = refused(taken, next);
      if (!sentence) taken.push(next);
    }
    expect(sentence).toMatch(new RegExp(`at least ${LEAST_WALL_MM} mm must stay|through the other side`));
    const c = sculpted(base, taken);
    expect(at(c, behind)[1] - at(c, thin)[1]).toBeGreaterThanOrEqual(LEAST_WALL_MM);
    // Strong at once is refused as well.
    expect(refused([], stroke({ tool: 'remove', amount: 1, at: [edge] }))).toBeDefined();
  });

  it('would fold the surface: a narrow brush raising a millimetre beside a hollow', () => {
    const corner = ringVertex(base, 10, base.ringSize / 2 + 12);
    const strokes = [1, 2, 3].map(() => stroke({ tool: 'remove', radiusMm: 0.5, amount: 0.9, at: [corner] }));
    const narrow = stroke({ tool: 'remove', radiusMm: 0.45, amount: 0.9, at: [corner] });
    expect(refused(strokes, narrow)).toBeDefined();
  });

  it('lies beside the crown, or is one too many', () => {
    expect(refused([], stroke({ at: [99999] }))).toMatch(/does not lie on the crown/);
    expect(refused([], stroke({ at: [] }))).toMatch(/does not lie on the crown/);
    expect(
      refused(
        Array.from({ length: BRUSH_LIMITS.strokes }, () => stroke({})),
        stroke({}),
      ),
    ).toMatch(/200 strokes/);
  });
});
