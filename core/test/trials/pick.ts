import { type Adjacency, type Fdi, type Jaw, laidByShape, type Mesh, pickTeeth, repaired } from '@radiant/core';
import { makePatient, WHOLE_SCANNER, wholeJaw } from '@radiant/standins';
import { kindOfMouth, recipeOf, truthOn } from './jaws.js';
import { keptJaw } from './kept-jaw.js';

/** What is said of one tooth. */
export interface Said {
  readonly tooth: Fdi;
  readonly sentence: string;
}

/** Teeth picked out of one virtual jaw, set beside the truth. */
export interface PickTrial {
  readonly seed: number;
  readonly jaw: Jaw;
  readonly kind: string;
  readonly found: number;
  readonly of: number;
  /** Of each tooth, what is of it in both over what is of it in either. */
  readonly iou: readonly number[];
  /** Of each place of the picked neck lines, how far the true one is, mm. */
  readonly necks: readonly number[];
  readonly numbersRight: boolean;
  readonly doubts: readonly Said[];
}

type Place = readonly [number, number, number];

/** Middles of the edges between a tooth and the gum. */
export function neckLine(mesh: Mesh, across: Adjacency['across'], tooth: Uint8Array): Place[] {
  const out: Place[] = [];
  for (let k = 0; k < across.length; k++) {
    const [t, other] = [Math.floor(k / 3), across[k]!];
    if (other <= t || (tooth[t] === 0) === (tooth[other] === 0)) continue;
    const [a, b] = [mesh.triangles[k]!, mesh.triangles[3 * t + ((k + 1) % 3)]!];
    const middle = (c: number) => (mesh.positions[3 * a + c]! + mesh.positions[3 * b + c]!) / 2;
    out.push([middle(0), middle(1), middle(2)]);
  }
  return out;
}

export function pickTrial(seed: number, jaw: Jaw, oddMm = 0): PickTrial {
  const patient = makePatient({ ...recipeOf(seed), oddMm });
  const whole = keptJaw(['pick', seed, jaw, oddMm], () => wholeJaw(patient, jaw, { ...WHOLE_SCANNER, seed }));
  const { mesh } = repaired(whole.mesh);
  const { look } = laidByShape(mesh, jaw, undefined, new Set(patient.recipe.missing));
  const row = (jaw === 'upper' ? patient.teeth : patient.lower).map((t) => t.tooth);
  // In the order in which x grows in the arch's own frame.
  const order = jaw === 'upper' ? row : [...row].reverse();
  const places = [...look.teeth.values()].sort((p, q) => p.from - q.from);
  const numbersRight = [...look.teeth].every(([t, p]) => order[places.indexOf(p)] === t);
  const base = { seed, jaw, kind: kindOfMouth(seed), found: places.length, of: order.length, numbersRight };
  if (places.length !== order.length) return { ...base, iou: [], necks: [], doubts: [] };
  const picked = pickTeeth(look, new Map(places.map((p, i) => [order[i]!, p])));
  const truth = truthOn(mesh, whole);
  const both = new Map<number, number>();
  const either = new Map<number, number>();
  const one = (m: Map<number, number>, k: number) => m.set(k, (m.get(k) ?? 0) + 1);
  picked.triangles.forEach((t, i) => {
    if (t === truth[i]) one(both, t);
    else one(either, truth[i]!);
    one(either, t);
  });
  const line = neckLine(look.mesh, look.adjacency.across, truth);
  const necks = neckLine(look.mesh, look.adjacency.across, picked.triangles).map((p) =>
    Math.sqrt(
      line.reduce(
        (least, q) => Math.min(least, (p[0] - q[0]) ** 2 + (p[1] - q[1]) ** 2 + (p[2] - q[2]) ** 2),
        Infinity,
      ),
    ),
  );
  return { ...base, iou: order.map((t) => (both.get(t) ?? 0) / (either.get(t) ?? 1)), necks, doubts: picked.doubts };
}
