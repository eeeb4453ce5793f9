import {
  adjacencyOf,
  type Doubt,
  type Fdi,
  type Jaw,
  type Mesh,
  RawJaw,
  Refusal,
  SHORT_MM,
  triangleArea,
  writePly,
  writeStlBinary,
} from '@radiant/core';
import { type FieldJaw, type FieldJawRecipe, fieldJaw, random } from '@radiant/standins';
import { truthOn } from './jaws.js';
import { neckLine } from './pick.js';

/** One jaw of the second making, and how it is handed over. */
export interface FieldTrial {
  readonly kind: string;
  readonly recipe: FieldJawRecipe;
  /** Of the file's unit, mm. */
  readonly unitMm?: number;
  /** Vertices are drawn together in cells of so many mm on one half, as a thinned scan has them. */
  readonly thinnedMm?: number;
  readonly format?: 'stl' | 'ply';
}

const PLACES = [
  { origin: [31, -48, 12], x: [0, 0.8, 0.6], y: [1, 0, 0], z: [0, 0.6, -0.8] },
  { origin: [-12, 20, 64], x: [0.6, 0, 0.8], y: [0, 1, 0], z: [-0.8, 0, 0.6] },
  { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] },
  { origin: [4, 7, -15], x: [-1, 0, 0], y: [0, -1, 0], z: [0, 0, 1] },
] as const;

/** How far apart a scanner's own places lie at teeth, mm, in turn: jaws of 75,000 to over 450,000 triangles. */
const STEPS_MM = [0.35, 0.28, 0.22] as const;

/** All kinds, each in both jaws. @param base another number is another set of jaws */
export function fieldTrials(base = 0): FieldTrial[] {
  const kinds: ((r: {
    upper: boolean;
    next: () => number;
    q: (p: number, left?: boolean) => number;
  }) => Omit<FieldTrial, 'kind' | 'recipe'> & { kind: string } & Partial<FieldJawRecipe>)[] = [
    () => ({ kind: 'plain' }),
    () => ({ kind: 'plain' }),
    () => ({ kind: 'plain' }),
    () => ({ kind: 'crowded', crowded: 1 }),
    () => ({ kind: 'very crowded', crowded: 1.7 }),
    () => ({ kind: 'gaps', gapsMm: 0.6 }),
    () => ({ kind: 'wide gaps', gapsMm: 1.6 }),
    ({ q }) => ({ kind: 'a lateral missing', missing: [q(2)] }),
    ({ q }) => ({ kind: 'laterals missing, closed', missing: [q(2), q(2, true)], closed: true }),
    ({ q }) => ({ kind: 'a premolar missing, closed', missing: [q(4)], closed: true }),
    ({ q }) => ({ kind: 'a central missing', missing: [q(1)] }),
    () => ({ kind: 'worn', wearMm: 1.3 }),
    () => ({ kind: 'short', short: 0.25 }),
    () => ({ kind: 'recession', recessionMm: 2.2 }),
    ({ q }) => ({ kind: 'stumps', stumps: [q(1), q(1, true), q(2), q(2, true)] }),
    ({ q }) => ({ kind: 'stumps of six', stumps: [1, 2, 3].flatMap((p) => [q(p), q(p, true)]) }),
    ({ q }) => ({ kind: 'veneers', veneers: [1, 2, 3].flatMap((p) => [q(p), q(p, true)]) }),
    () => ({ kind: 'anterior only', upTo: 4 }),
    () => ({ kind: 'to the second premolar', upTo: 5 }),
    () => ({ kind: 'deep curve', speeMm: 2.4 }),
    () => ({ kind: 'tongue', tongue: true }),
    () => ({ kind: 'cheek', cheek: true }),
    () => ({ kind: 'base', base: true }),
    () => ({ kind: 'coarse', stepMm: 0.6 }),
    () => ({ kind: 'fine', stepMm: 0.2 }),
    () => ({ kind: 'noisy', noiseMm: 0.06 }),
    () => ({ kind: 'thinned on one half', thinnedMm: 0.8 }),
    () => ({ kind: 'in centimetres', unitMm: 10 }),
    () => ({ kind: 'in inches', unitMm: 25.4 }),
    () => ({ kind: 'in metres', unitMm: 1000 }),
  ];
  return kinds.flatMap((make, n) =>
    (['upper', 'lower'] as const).map((jaw, j): FieldTrial => {
      const seed = base * 1000 + 10 * n + j + 1;
      const r = random(seed);
      const own = make({
        upper: jaw === 'upper',
        next: r.next,
        q: (p, left) => (jaw === 'upper' ? (left ? 20 : 10) : left ? 30 : 40) + p,
      });
      const { kind, unitMm, thinnedMm, ...recipe } = own;
      return {
        kind,
        recipe: {
          stepMm: STEPS_MM[n % STEPS_MM.length] as number,
          ...recipe,
          seed,
          jaw,
          placed: PLACES[seed % PLACES.length] as FieldJawRecipe['placed'] & object,
        },
        ...(unitMm && { unitMm }),
        ...(thinnedMm && { thinnedMm }),
        format: n % 2 === 0 ? 'stl' : 'ply',
      };
    }),
  );
}

/** What came of one jaw as a person without knowledge of it would have it: opened, laid as proposed, looked at. */
export interface FieldResult {
  readonly kind: string;
  readonly jaw: Jaw;
  readonly seed: number;
  /** Why it can't be used, and then nothing else. */
  readonly refused?: string;
  readonly guessedJaw: boolean;
  readonly expected: readonly Fdi[];
  readonly found: readonly Fdi[];
  /** Of each expected tooth that was numbered so: overlap with the truth, both over either. */
  readonly iou: ReadonlyMap<Fdi, number>;
  /** Of the places of the found neck lines to the true one, mm. */
  readonly necks: readonly number[];
  readonly widthOff: readonly number[];
  readonly lengthOff: readonly number[];
  /** Teeth that something is said of; `row` where it is said of the whole row. */
  readonly said: ReadonlySet<Fdi | 'row'>;
  /** Of these what is so: crowns truly that much shorter than those of the other side, canines without a cusp. */
  readonly soIndeed: ReadonlySet<Fdi>;
  readonly ms: number;
}

/** A tooth whose overlap is less than this is wrong. */
export const WRONG = 0.85;

export function fieldTrial(t: FieldTrial, made: FieldJaw = fieldJaw(t.recipe)): FieldResult {
  const thinned = t.thinnedMm ? drawnTogether(made, t.thinnedMm) : made.mesh;
  const u = 1 / (t.unitMm ?? 1);
  const mesh: Mesh = { positions: thinned.positions.map((v) => v * u), triangles: thinned.triangles };
  const bytes = t.format === 'ply' ? writePly(mesh) : writeStlBinary(mesh);
  const expected = made.teeth.map((x) => x.tooth).filter((x) => x % 10 <= 5);
  const base = { kind: t.kind, jaw: t.recipe.jaw, seed: t.recipe.seed, expected };
  const none = {
    guessedJaw: false,
    found: [],
    iou: new Map(),
    necks: [],
    widthOff: [],
    lengthOff: [],
    said: new Set<Fdi | 'row'>(),
    soIndeed: new Set<Fdi>(),
  };
  const start = performance.now();
  try {
    const raw = new RawJaw(new Uint8Array(bytes), () => undefined);
    raw.missing = new Set((t.recipe.missing ?? []).filter((x) => x % 10 <= 5));
    const guessedJaw = raw.opened.jaw === t.recipe.jaw;
    const laid = raw.lay(t.recipe.jaw, raw.opened.unitMm);
    const { picked } = raw.picking;
    const ms = performance.now() - start;
    const { mended } = raw as unknown as { mended: Mesh };
    // Molars are not picked out: they are gum here, in the truth too.
    const truth = truthOn(mended, made).map((x) => (x % 10 > 5 ? 0 : x));
    const { across } = adjacencyOf(laid.mesh);
    const [both, either] = [new Map<number, number>(), new Map<number, number>()];
    // By area: where a surface folds triangles are small and many, and those of a thinned half are few and large.
    picked.triangles.forEach((x, i) => {
      const mm2 = triangleArea(laid.mesh, 3 * i);
      const one = (m: Map<number, number>, k: number) => m.set(k, (m.get(k) ?? 0) + mm2);
      if (x === truth[i]) one(both, x);
      else one(either, truth[i] as number);
      one(either, x);
    });
    const found = [...picked.crowns.keys()];
    const line = neckLine(laid.mesh, across, truth);
    const necks = neckLine(laid.mesh, across, picked.triangles).map((p) =>
      Math.sqrt(line.reduce((n, q) => Math.min(n, (p[0] - q[0]) ** 2 + (p[1] - q[1]) ** 2 + (p[2] - q[2]) ** 2), 1e9)),
    );
    const sizes = made.teeth.flatMap((x) => {
      const own = picked.crowns.get(x.tooth);
      return own ? [[own.widthMm - x.widthMm, own.lengthMm - x.lengthMm] as const] : [];
    });
    return {
      ...base,
      guessedJaw,
      found,
      iou: new Map(expected.map((x) => [x, (both.get(x) ?? 0) / (either.get(x) ?? 1)] as const)),
      necks,
      widthOff: sizes.map((s) => s[0]),
      lengthOff: sizes.map((s) => s[1]),
      said: new Set<Fdi | 'row'>([...picked.doubts.map((d) => d.tooth), ...(picked.doubt ? (['row'] as const) : [])]),
      soIndeed: new Set(
        picked.doubts
          .filter((d) => picked.doubts.every((o) => o.tooth !== d.tooth || isShort(made, o) || isFlat(t.recipe, o)))
          .map((d) => d.tooth),
      ),
      ms,
    };
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    return { ...base, ...none, refused: error.message, ms: performance.now() - start };
  }
}

/** Whether a crown that is said to be shorter than its fellow is so: by the form that it was made with. */
function isShort(made: FieldJaw, { tooth, about }: Doubt): boolean {
  const long = (t: Fdi) => made.teeth.find((x) => x.tooth === t)?.lengthMm ?? Number.NaN;
  const fellow = tooth + (Math.floor(tooth / 10) % 2 === 1 ? 10 : -10);
  return about === 'length' && long(fellow) - long(tooth) > SHORT_MM;
}

/** Whether a canine that is said to have no cusp has lost it: worn or cut away all along the edge. */
const isFlat = ({ wearMm = 0, stumps = [] }: FieldJawRecipe, { tooth, about }: Doubt): boolean =>
  about === 'cusp' && (wearMm > 1 || stumps.includes(tooth));

/** The half with greater x thinned: its vertices drawn together in cells. */
function drawnTogether({ mesh }: FieldJaw, mm: number): Mesh {
  const p = mesh.positions.slice();
  const middle = p.reduce((n, v, i) => (i % 3 === 0 ? n + v : n), 0) / (p.length / 3);
  const first = new Map<string, number>();
  const to = Uint32Array.from({ length: p.length / 3 }, (_, v) => {
    if ((p[3 * v] as number) < middle) return v;
    const key = [0, 1, 2].map((c) => Math.round((p[3 * v + c] as number) / mm)).join(' ');
    const own = first.get(key) ?? v;
    first.set(key, own);
    return own;
  });
  const kept: number[] = [];
  for (let t = 0; t < mesh.triangles.length; t += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => to[mesh.triangles[t + k] as number] as number) as [number, number, number];
    if (a !== b && b !== c && a !== c) kept.push(a, b, c);
  }
  return { positions: p, triangles: Uint32Array.from(kept) };
}

/** What the accuracy of own scans is told by. */
export interface FieldSums {
  readonly jaws: number;
  readonly allRight: number;
  readonly teeth: number;
  readonly numbersRight: number;
  readonly iouMedian: number;
  readonly iouWrong: number;
  readonly neckMedian: number;
  readonly neckP95: number;
  readonly widthP95: number;
  readonly lengthP95: number;
  readonly wrong: number;
  readonly silent: number;
  readonly guessedWrong: number;
  readonly refused: number;
  readonly needless: number;
}

const at = (sorted: readonly number[], share: number) => sorted[Math.floor(share * (sorted.length - 1))] ?? Number.NaN;
const rising = (all: readonly number[]) => [...all].sort((a, b) => a - b);

export function fieldSums(all: readonly FieldResult[]): FieldSums {
  let [allRight, teeth, numbersRight, wrong, silent, needless] = [0, 0, 0, 0, 0, 0];
  for (const r of all) {
    teeth += r.expected.length;
    const own = r.expected.filter((t) => (r.iou.get(t) ?? 0) >= 0.5);
    numbersRight += own.length;
    if (own.length === r.expected.length && r.found.every((t) => r.expected.includes(t))) allRight++;
    for (const t of r.expected) {
      const isWrong = (r.iou.get(t) ?? 0) < WRONG;
      const isSaid = r.refused !== undefined || r.said.has('row') || r.said.has(t);
      if (isWrong) wrong++;
      if (isWrong && !isSaid) silent++;
      if (!isWrong && r.said.has(t) && !r.soIndeed.has(t)) needless++;
    }
  }
  const iou = rising(all.flatMap((r) => r.expected.map((t) => r.iou.get(t) ?? 0)));
  const necks = rising(all.flatMap((r) => r.necks));
  const off = (of: (r: FieldResult) => readonly number[]) => rising(all.flatMap(of).map(Math.abs));
  return {
    jaws: all.length,
    allRight,
    teeth,
    numbersRight,
    iouMedian: at(iou, 0.5),
    iouWrong: iou.filter((v) => v < WRONG).length / Math.max(1, iou.length),
    neckMedian: at(necks, 0.5),
    neckP95: at(necks, 0.95),
    widthP95: at(
      off((r) => r.widthOff),
      0.95,
    ),
    lengthP95: at(
      off((r) => r.lengthOff),
      0.95,
    ),
    wrong,
    silent,
    guessedWrong: all.filter((r) => !r.refused && !r.guessedJaw).length,
    refused: all.filter((r) => r.refused).length,
    needless,
  };
}
