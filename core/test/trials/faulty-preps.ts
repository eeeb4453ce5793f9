import {
  ask,
  CaseEngine,
  type DesignId,
  directionToParent,
  type Fdi,
  type Frame,
  type Mesh,
  type PrepCheck,
  type PrepFinding,
  readScan,
  restorationOf,
  type SegmentedScan,
  toLocal,
  type Vec3,
} from '@radiant/core';
import {
  cutByHand,
  INTRAORAL_SCANNER,
  makePatient,
  nicked,
  type PrepFault,
  random,
  scan,
  scatteredRecipe,
} from '@radiant/standins';
import * as THREE from 'three';
import { MeshBVH } from 'three-mesh-bvh';

/** What may be asked for: a fault of the simulated dentist's, a nicked neighbour, or none. */
export type Fault = PrepFault | 'nick';

/** One preparation that is tried. */
export interface PrepTrial {
  readonly seed: number;
  readonly tooth: Fdi;
  readonly design: DesignId;
  readonly faults: Readonly<Partial<Record<Fault, number>>>;
}

const by =
  (...checks: readonly PrepCheck[]) =>
  (f: PrepFinding) =>
    checks.includes(f.check);
const finish = (place: RegExp) => (f: PrepFinding) => f.check === 'finish' && place.test(f.place);

/** Which findings speak of a fault. */
export const SPEAKS: Readonly<Record<Fault, (f: PrepFinding) => boolean>> = {
  'edge short': by('edge'),
  'flat face': by('face', 'room'),
  undercut: by('draw', 'room'),
  'knife edge': by('finish', 'room'),
  'sharp corner': by('corners'),
  'high margin': finish(/finish line$/),
  tapered: by('walls'),
  'tight palatal': by('room', 'bite'),
  lip: finish(/lip$/),
  ragged: finish(/^course/),
  nick: by('neighbours'),
};

/** A wall that leans in too much does not hang over, and an end that runs out to nothing has no groove. */
const EXCLUDE: readonly (readonly [Fault, Fault])[] = [
  ['tapered', 'undercut'],
  ['knife edge', 'lip'],
];
/** A corner that is to be sharp, and a lip, are cut in finer steps: the usual ones round them by themselves, mm. */
const FINE_MM = 0.1;

const VENEER: Readonly<Partial<Record<Fault, number>>> = {
  'edge short': 0.3,
  'flat face': 0.35,
  'knife edge': 1,
  'sharp corner': 1,
  'high margin': 0.9,
  lip: 0.35,
  ragged: 0.35,
  nick: 0.3,
};
const CROWN: Readonly<Partial<Record<Fault, number>>> = {
  'edge short': 0.5,
  'flat face': 0.45,
  undercut: 0.6,
  'knife edge': 1,
  'high margin': 0.9,
  tapered: 16,
  'tight palatal': 0.5,
  lip: 0.35,
  ragged: 0.35,
  nick: 0.3,
};
const FRONT: readonly Fdi[] = [13, 12, 11, 21, 22, 23];

/** So many preparations: every third without a fault, every fifth of the others with two. */
export function prepTrials(count: number): PrepTrial[] {
  return Array.from({ length: count }, (_, n): PrepTrial => {
    const r = random(7000 + n);
    const crown = n % 2 === 1;
    const all = Object.entries(crown ? CROWN : VENEER) as [Fault, number][];
    const one = all[Math.floor(r.next() * all.length)] as [Fault, number];
    const two = all[Math.floor(r.next() * all.length)] as [Fault, number];
    const both = n % 5 === 0 && !EXCLUDE.some((x) => x.includes(one[0]) && x.includes(two[0]));
    const faults = n % 3 === 0 ? {} : Object.fromEntries(both ? [one, two] : [one]);
    return {
      seed: 300 + Math.floor(n / 6),
      tooth: FRONT[Math.floor(r.next() * FRONT.length)] as Fdi,
      // The simulated dentist cuts a chamfer and no shoulder.
      design: crown ? 'zirconia-crown' : 'graduated',
      faults,
    };
  });
}

/** What came of it. */
export interface PrepResult {
  readonly trial: PrepTrial;
  readonly found: readonly Fault[];
  readonly missed: readonly Fault[];
  /** Asked for, and not there all the same, as the simulated dentist's own rounding has taken it back. */
  readonly notThere: readonly Fault[];
  /** Of a preparation without a fault: what was said all the same, of so many things that were looked at. */
  readonly false: readonly PrepFinding[];
  readonly looked: number;
}

let last: { seed: number; before: SegmentedScan; engine: CaseEngine } | undefined;

/** The patient of a seed with a plan that keeps the teeth's own shape. */
function patientOf(seed: number): { before: SegmentedScan; engine: CaseEngine } {
  if (last?.seed !== seed) {
    const before = readScan(scan(makePatient({ ...scatteredRecipe(seed), seed }), INTRAORAL_SCANNER));
    const engine = new CaseEngine();
    engine.take(before);
    last = { seed, before, engine };
  }
  return last;
}

export function prepTrial(trial: PrepTrial): PrepResult {
  const { before, engine } = patientOf(trial.seed);
  const { tooth } = trial;
  const choice = { design: trial.design, from: 'mock-up' } as const;
  const own = ask(engine, 'existingPlan')[tooth];
  engine.setPlan({ [tooth]: own });
  const target = ask(engine, 'target', tooth, choice).surface;
  const { nick, ...faults } = trial.faults;
  const meshes = new Map<Fdi, Mesh>(before.teeth);
  const order = {
    design: restorationOf(tooth, choice).design,
    planned: engine.crown(tooth),
    finishLine: target.finishLine,
  };
  meshes.set(
    tooth,
    cutByHand(before.teeth.get(tooth) as Mesh, {
      ...order,
      faults,
      ...(('sharp corner' in faults || 'lip' in faults) && { stepMm: FINE_MM }),
    }),
  );
  const beside = tooth % 10 === 1 ? tooth + 1 : tooth - 1;
  if (nick) meshes.set(beside, nicked(before.teeth.get(beside) as Mesh, sideOf(before, beside, tooth), nick));
  engine.takeLater({ jaw: 'upper', teeth: meshes, rest: before.rest });
  const findings = ask(engine, 'prepVerdict', 'upper', choice).teeth[0]?.findings ?? [];
  const spoken = findings.filter((f) => f.state !== 'right');
  const isShort = tipOf(target.mesh, target.frame) - tipOf(meshes.get(tooth) as Mesh, target.frame) > SHORT_MM;
  const all = Object.keys(trial.faults) as Fault[];
  const notThere = all.filter((f) => f === 'edge short' && !isShort);
  const asked = all.filter((f) => !notThere.includes(f));
  const found = asked.filter((f) => spoken.some(SPEAKS[f]));
  const way = directionToParent(target.frame, target.way);
  const hangs = () => hiddenMm2(meshes.get(tooth) as Mesh, way, target.frame.origin, target.frame.z) > 1;
  return {
    trial,
    found,
    missed: asked.filter((f) => !found.includes(f)),
    notThere,
    // What can't be told is no alarm, and what truly hangs, by rays, is no false alarm: the simulated dentist does not look for a way out.
    false:
      all.length > 0
        ? []
        : spoken.filter((f) => f.state !== 'unknown' && !isLow(f) && (f.check !== 'draw' || !hangs())),
    looked: all.length > 0 ? 0 : findings.length,
  };
}

/** An edge that stands so far out of its target is short of being cut: its limit and the scan's error, mm. */
const SHORT_MM = 0.1 + 0.07;

/** How far a tooth reaches towards its edge along its axis, by its outermost vertex, mm from the frame's origin. */
function tipOf({ positions }: Mesh, frame: Frame): number {
  let least = Infinity;
  for (let v = 0; v < positions.length / 3; v++)
    least = Math.min(least, toLocal(frame, [positions[3 * v], positions[3 * v + 1], positions[3 * v + 2]] as Vec3)[2]);
  return least;
}

/** A wall of a short tooth is as low as it is, whoever has cut it. */
const isLow = (f: PrepFinding): boolean => f.check === 'walls' && f.unit === 'mm';

/** Where a tooth looks to its neighbour, a third up from the edge. */
function sideOf(before: SegmentedScan, tooth: Fdi, to: Fdi): readonly [number, number, number] {
  const middle = (t: Fdi) => {
    const p = (before.teeth.get(t) as Mesh).positions;
    let [x, y] = [0, 0];
    for (let i = 0; i < p.length; i += 3) [x, y] = [x + (p[i] as number), y + (p[i + 1] as number)];
    return [(3 * x) / p.length, (3 * y) / p.length] as const;
  };
  const [a, b] = [middle(tooth), middle(to)];
  const l = Math.hypot(b[0] - a[0], b[1] - a[1]);
  // Towards the neighbour and to the front, where a bur slips.
  const way = [(b[0] - a[0]) / l, (b[1] - a[1]) / l - 0.8] as const;
  const p = (before.teeth.get(tooth) as Mesh).positions;
  let [best, most] = [[0, 0, 0] as readonly [number, number, number], -Infinity];
  for (let i = 0; i < p.length; i += 3) {
    const at = [p[i] as number, p[i + 1] as number, p[i + 2] as number] as const;
    const d = at[0] * way[0] + at[1] * way[1] - 1.5 * Math.abs(at[2] - 3);
    if (d > most) [best, most] = [at, d];
  }
  return best;
}

/** Area near the edge half of a tooth from which a ray along a way meets the tooth again, mm²: three-mesh-bvh. */
function hiddenMm2(
  m: Mesh,
  way: readonly [number, number, number],
  origin: readonly [number, number, number],
  root: readonly [number, number, number],
): number {
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.BufferAttribute(Float32Array.from(m.positions), 3));
  geometry.setIndex(new THREE.BufferAttribute(m.triangles.slice(), 1));
  const bvh = new MeshBVH(geometry);
  const ray = new THREE.Ray();
  const [a, b, c] = [new THREE.Vector3(), new THREE.Vector3(), new THREE.Vector3()];
  let hidden = 0;
  for (let t = 0; t < m.triangles.length; t += 3) {
    const at = (v: THREE.Vector3, k: number) =>
      v.fromArray(m.positions as unknown as number[], 3 * (m.triangles[t + k] as number));
    at(a, 0);
    at(b, 1);
    at(c, 2);
    const up = (a.x - origin[0]) * root[0] + (a.y - origin[1]) * root[1] + (a.z - origin[2]) * root[2];
    if (up > 8) continue;
    const area = new THREE.Triangle(a, b, c).getArea();
    ray.origin
      .copy(a)
      .add(b)
      .add(c)
      .multiplyScalar(1 / 3);
    ray.direction.set(way[0], way[1], way[2]);
    ray.origin.addScaledVector(ray.direction, 0.03);
    const hit = bvh.raycastFirst(ray, THREE.DoubleSide);
    if (hit && hit.distance > 0.05) hidden += area;
  }
  return hidden;
}
