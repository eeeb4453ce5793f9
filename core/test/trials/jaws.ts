import { buildTree, closestPoints, type Fdi, type Jaw, type Mesh } from '@radiant/core';
import { type PatientRecipe, random, scatteredRecipe, type ToothTrait, type WholeJaw } from '@radiant/standins';

/** The kinds of mouth that are tried, in turn by seed. The seeds are none of the demo's. */
const KINDS = ['plain', 'crowded', 'spaced', 'worn', 'missing'] as const;
const LOWER: readonly Fdi[] = [45, 44, 43, 42, 41, 31, 32, 33, 34, 35];

export const JAWS: readonly Jaw[] = ['upper', 'lower'];

export const kindOfMouth = (seed: number): (typeof KINDS)[number] =>
  KINDS[seed % KINDS.length] as (typeof KINDS)[number];

export function recipeOf(seed: number): PatientRecipe {
  const r = random(seed);
  const traits: Record<number, ToothTrait | undefined> = { ...scatteredRecipe(seed).traits };
  for (const t of LOWER) traits[t] = { rotationDeg: r.normal(5) };
  const kind = kindOfMouth(seed);
  const missing: Fdi[] = [];
  const add = (t: Fdi, more: ToothTrait) => {
    traits[t] = { ...traits[t], ...more };
  };
  if (kind === 'crowded')
    for (const t of [12, 22, 32, 42, 11, 41])
      add(t, { rotationDeg: (r.next() < 0.5 ? -1 : 1) * (10 + 8 * r.next()), forwardMm: r.normal(0.6) });
  if (kind === 'spaced') for (const t of [11, 21, 12, 22, 13, 31, 42]) add(t, { gapMesialMm: 0.2 + 0.9 * r.next() });
  if (kind === 'worn')
    for (const t of [11, 21, 12, 22, 13, 23, 31, 41]) add(t, { wearMm: 1 + r.next(), lengthMm: 7.6 + r.next() });
  if (kind === 'missing') missing.push(r.next() < 0.5 ? 12 : 22, r.next() < 0.5 ? 32 : 42);
  return { seed, traits, missing };
}

/** The truth of each triangle of a mended mesh: that of the nearest triangle as it was scanned. */
export function truthOn(mesh: Mesh, whole: WholeJaw): Uint8Array {
  const n = mesh.triangles.length / 3;
  const middles = new Float64Array(3 * n);
  for (let i = 0; i < 9 * n; i++) {
    const [corner, k] = [Math.floor(i / 3), i % 3];
    middles[3 * Math.floor(corner / 3) + k]! += mesh.positions[3 * mesh.triangles[corner]! + k]! / 3;
  }
  return closestPoints(buildTree(whole.mesh), middles).faces.reduce((out, f, t) => {
    out[t] = whole.truth[f]!;
    return out;
  }, new Uint8Array(n));
}
