import {
  cutOut,
  type Frame,
  type Ground,
  groundOf,
  inverse,
  layOnto,
  type Mesh,
  mouthFrame,
  placeMesh,
  repaired,
  toParent,
  turn,
  type Vec3,
  WORLD,
} from '@radiant/core';
import { AVOCET, makePatient, random, WHOLE_SCANNER, wholeJaw } from '@radiant/standins';

import { keptJaw } from './kept-jaw.js';

/** One laying: how far places come back from where they were, mm, by how much it is turned, and what is said. */
export interface LayTrial {
  readonly mm: number;
  readonly farthestMm: number;
  readonly deg: number;
  readonly share: number;
  readonly doubt: string;
}

/** Most of the palate left out, in the mouth's coordinates. */
function withoutVault({ positions, triangles }: Mesh): Mesh {
  const at = (t: number, k: number) =>
    (positions[3 * triangles[t]! + k]! +
      positions[3 * triangles[t + 1]! + k]! +
      positions[3 * triangles[t + 2]! + k]!) /
    3;
  const kept: number[] = [];
  for (let t = 0; t < triangles.length; t += 3)
    if (at(t, 1) < 9 || Math.abs(at(t, 0)) > 18) kept.push(triangles[t]!, triangles[t + 1]!, triangles[t + 2]!);
  return cutOut(positions, kept);
}

/** A jaw before, and the same in a mock-up that alters the faces of all ten teeth. */
export function twoScans(): { readonly fixed: Mesh; readonly ground: Ground; readonly altered: Mesh } {
  const setting = { ...WHOLE_SCANNER, stepMm: 0.3 };
  // Every tooth fuller and longer, nothing moved.
  const fuller = Object.fromEntries(
    [15, 14, 13, 12, 11, 21, 22, 23, 24, 25].map((t) => [t, { ...AVOCET.traits[t], facialVolumeMm: 1.4, wearMm: 0 }]),
  );
  const over = makePatient({ ...AVOCET, traits: { ...AVOCET.traits, ...fuller } }).teeth;
  const jaw = (seed: number, ...worn: Parameters<typeof wholeJaw>[3][]) =>
    keptJaw(['lay', seed], () => wholeJaw(makePatient(AVOCET), 'upper', { ...setting, seed }, ...worn)).mesh;
  const fixed = repaired(jaw(404)).mesh;
  // The second scan holds less of the palate, so that more of what it holds is altered.
  const altered = withoutVault(repaired(jaw(405, over)).mesh);
  return { fixed, ground: groundOf(fixed), altered };
}

const PLACES: readonly Vec3[] = [
  [0, 0, 0],
  [22, 24, 2],
  [-22, 24, 2],
  [0, 14, 12],
];
const AXES = ['x', 'y', 'z'] as const;

/** The altered jaw moved anywhere and laid back from its own shape. */
export function layTrial({ fixed, ground, altered }: ReturnType<typeof twoScans>, seed: number): LayTrial {
  const r = random(seed);
  let f: Frame = { ...WORLD, origin: [r.normal(40), r.normal(40), r.normal(40)] };
  for (const axis of AXES) f = turn(f, axis, r.next() * 360);
  const moved = placeMesh(altered, f);
  const mouth = mouthFrame(fixed, 'upper').frame;
  const own = inverse(mouthFrame(moved, 'upper').frame);
  const inMouth = (a: Vec3): Vec3 => {
    const at = (i: 0 | 1 | 2) => mouth.x[i] * a[0] + mouth.y[i] * a[1] + mouth.z[i] * a[2];
    return [at(0), at(1), at(2)];
  };
  const start: Frame = { origin: toParent(mouth, own.origin), x: inMouth(own.x), y: inMouth(own.y), z: inMouth(own.z) };
  const found = layOnto(moved, ground, start);
  const offAt = (p: Vec3) => Math.hypot(...toParent(found.frame, toParent(f, p)).map((v, i) => v - p[i]!));
  const back = inverse(f);
  const trace = AXES.reduce((s, a) => s + found.frame[a].reduce((q, v, i) => q + v * back[a][i]!, 0), 0);
  return {
    mm: offAt([0, 12, 5]),
    farthestMm: Math.max(...PLACES.map(offAt)),
    deg: (Math.acos(Math.min(1, (trace - 1) / 2)) * 180) / Math.PI,
    share: found.share,
    doubt: found.doubt ?? '',
  };
}

/** The altered jaw begun from far off, where nothing can come of it. */
export const layFromFar = ({ ground, altered }: ReturnType<typeof twoScans>) =>
  layOnto(placeMesh(altered, { origin: [25, 3, -6], x: [0, 1, 0], y: [-1, 0, 0], z: [0, 0, 1] }), ground, WORLD);
