/** A scan with edges of an eighth of a millimetre is looked at thinned: what is picked is what the coarser one gives. */
import { type Fdi, laidByShape, type Mesh, pickTeeth, repaired, triangleArea } from '@radiant/core';
import { makePatient, scatteredRecipe, WHOLE_SCANNER, wholeJaw } from '@radiant/standins';
import { keptJaw } from './trials/kept-jaw.js';

/** Each triangle in four, by the middles of its edges: the triangles of a triangle stand behind one another. */
function inFour({ positions, triangles }: Mesh): Mesh {
  const places = [...positions];
  const known = new Map<number, number>();
  const middle = (a: number, b: number): number => {
    const key = Math.min(a, b) * 2 ** 26 + Math.max(a, b);
    const own = known.get(key) ?? places.length / 3;
    if (!known.has(key)) {
      known.set(key, own);
      for (let k = 0; k < 3; k++) places.push((positions[3 * a + k]! + positions[3 * b + k]!) / 2);
    }
    return own;
  };
  const out = new Uint32Array(4 * triangles.length);
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [triangles[t]!, triangles[t + 1]!, triangles[t + 2]!];
    const [ab, bc, ca] = [middle(a, b), middle(b, c), middle(c, a)];
    out.set([a, ab, ca, ab, b, bc, ca, bc, c, ab, bc, ca], 4 * t);
  }
  return { positions: Float64Array.from(places), triangles: out };
}

const whole = keptJaw(['size', 'upper'], () =>
  wholeJaw(makePatient(scatteredRecipe(611)), 'upper', { ...WHOLE_SCANNER, seed: 611 }),
);
const { mesh } = repaired(whole.mesh);
const fine = inFour(mesh);
const found = laidByShape(mesh, 'upper');
const { look } = laidByShape(fine, 'upper');
const coarse = pickTeeth(found.look, found.look.teeth);
const picked = pickTeeth(look, look.teeth);

it('it is thinned, and the whole of it is labelled', () => {
  expect(found.look.whole.thinned).toBeUndefined();
  expect(look.mesh.positions.length).toBeLessThan(0.45 * fine.positions.length);
  expect(picked.vertices).toHaveLength(fine.positions.length / 3);
  expect(picked.triangles).toHaveLength(fine.triangles.length / 3);
});

it('the same teeth are found, on the same surface and of the same size', () => {
  expect([...picked.crowns.keys()].sort()).toEqual([...coarse.crowns.keys()].sort());
  const [both, either] = [new Map<Fdi, number>(), new Map<Fdi, number>()];
  picked.triangles.forEach((tooth, t) => {
    const other = coarse.triangles[Math.floor(t / 4)]!;
    const mm2 = triangleArea(fine, 3 * t);
    for (const own of new Set([tooth, other])) either.set(own, (either.get(own) ?? 0) + mm2);
    if (tooth === other) both.set(tooth, (both.get(tooth) ?? 0) + mm2);
  });
  for (const [tooth, own] of coarse.crowns) {
    expect((both.get(tooth) ?? 0) / (either.get(tooth) ?? 1)).toBeGreaterThan(0.95);
    expect(Math.abs((picked.crowns.get(tooth)?.widthMm ?? 0) - own.widthMm)).toBeLessThan(0.25);
    expect(Math.abs((picked.crowns.get(tooth)?.lengthMm ?? 0) - own.lengthMm)).toBeLessThan(0.25);
  }
});

it('what a hand has painted stays what it was made, place by place', () => {
  const gum = picked.vertices.findIndex((tooth, v) => tooth === 0 && v % 7 === 3);
  const tooth = picked.vertices.findIndex((label, v) => label === 11 && v % 7 === 3);
  const by = new Map<number, Fdi>([
    [gum, 12],
    [tooth, 0],
  ]);
  const again = pickTeeth(look, look.teeth, by);
  expect([again.vertices[gum], again.vertices[tooth]]).toEqual([12, 0]);
});
