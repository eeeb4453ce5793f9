import { bounds, type Jaw, type Mesh, RawJaw, Refusal, sphere, triangleArea, writeStlBinary } from '@radiant/core';
import { makePatient, WHOLE_SCANNER, wholeJaw } from '@radiant/standins';
import type { Glimpse } from '../src/engine/raw-jaw.js';
import { glimpse } from '../src/scan/glimpse.js';
import { JAWS, recipeOf } from './trials/jaws.js';
import { keptJaw } from './trials/kept-jaw.js';

const areaOf = (m: Mesh) => {
  let sum = 0;
  for (let k = 0; k < m.triangles.length; k += 3) sum += triangleArea(m, k);
  return sum;
};

describe('a coarse copy', () => {
  const fine = sphere(20, 400);
  const coarse = glimpse(fine);

  it('has far fewer triangles, and lies on the surface', () => {
    expect(coarse.triangles.length).toBeLessThan(fine.triangles.length / 3);
    const far = Array.from({ length: coarse.positions.length / 3 }, (_, v) =>
      Math.hypot(...coarse.positions.subarray(3 * v, 3 * v + 3)),
    ).sort((p, q) => p - q);
    expect(far.at(-1)).toBeLessThan(20.001);
    // The middle of what lies within a cell of 0.3 mm is under the sphere by no more than its diagonal's rise.
    expect(far[0]).toBeGreaterThan(20 - 0.52 ** 2 / 40 - 0.01);
  });

  it('has the area of the sphere: 4 π r²', () => {
    expect(areaOf(coarse) / (4 * Math.PI * 400)).toBeGreaterThan(0.98);
    expect(areaOf(coarse) / (4 * Math.PI * 400)).toBeLessThan(1.005);
  });

  it('is the same surface wherever it lies', () => {
    const moved = glimpse({ positions: fine.positions.map((p) => p - 30), triangles: fine.triangles });
    expect(areaOf(moved) / areaOf(coarse)).toBeCloseTo(1, 2);
  });
});

describe('a scan that is opened', () => {
  const ELSEWHERE = { origin: [31, -48, 12], x: [0, 0.8, 0.6], y: [1, 0, 0], z: [0, 0.6, -0.8] } as const;
  const scan = (jaw: Jaw) =>
    keptJaw(['glimpse', jaw], () =>
      wholeJaw(makePatient(recipeOf(905)), jaw, { ...WHOLE_SCANNER, stepMm: 0.5, placed: ELSEWHERE, seed: 905 }),
    ).mesh;
  const opened = (m: Mesh, mend = true) => {
    const order: string[] = [];
    let seen: Glimpse | undefined;
    const raw = new RawJaw(
      writeStlBinary(m),
      (what) => order.push(what),
      mend,
      (own) => {
        seen = own;
        order.push('seen');
      },
    );
    return { raw, seen, order };
  };

  it.each(JAWS)('is seen before it is mended, as the %s jaw that it is, about as it comes to lie', (jaw) => {
    const { raw, seen, order } = opened(scan(jaw));
    expect(order).toEqual(['seen', 'Mending']);
    expect(seen?.jaw).toBe(jaw);
    const laid = bounds(raw.lay(jaw, 1).mesh);
    const early = bounds(seen!.mesh);
    for (const k of [0, 1, 2]) {
      expect(Math.abs(early.min[k]! - laid.min[k]!)).toBeLessThan(3);
      expect(Math.abs(early.max[k]! - laid.max[k]!)).toBeLessThan(3);
    }
  });

  it('is seen from no wrong side where it is inside out, and lies as it should once it is mended', () => {
    const { positions, triangles } = scan('upper');
    const out = { positions, triangles: triangles.map((_, i) => triangles[i - (i % 3) + [0, 2, 1][i % 3]!]!) };
    const { raw, seen } = opened(out);
    expect(seen).toBeUndefined();
    expect(raw.opened.repairs.map((r) => r.kind)).toContain('inside-out');
    const [own, right] = [raw, opened(scan('upper')).raw].map((r) => bounds(r.lay('upper', 1).mesh));
    for (const k of [0, 1, 2]) expect(own!.min[k]).toBeCloseTo(right!.min[k]!, 1);
  });

  it('is not shown in another unit, nor where it is no jaw', () => {
    const { positions, triangles } = scan('upper');
    const inches = opened({ positions: positions.map((p) => p / 25.4), triangles });
    expect(inches.seen).toBeUndefined();
    expect(inches.raw.opened.unitMm).toBe(25.4);
    expect(opened(sphere(25)).seen).toBeUndefined();
  });

  it('with its teeth told apart already is refused before anything is shown', () => {
    const m = scan('upper');
    const own = new Uint16Array(m.triangles.length / 3).map((_, t) => (t % 2 === 0 ? 11 : 0));
    let shown = false;
    const open = () =>
      new RawJaw(
        writeStlBinary(m, own),
        () => undefined,
        true,
        () => {
          shown = true;
        },
      );
    expect(open).toThrow(Refusal);
    expect(shown).toBe(false);
  });
});
