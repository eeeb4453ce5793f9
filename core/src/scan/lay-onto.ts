import { type Frame, frameFrom, toParent } from '../geometry/frame.js';
import { type Mesh, triangleNormal } from '../geometry/mesh.js';
import { solve } from '../geometry/solve.js';
import { buildTree, type Tree } from '../geometry/tree/build.js';
import { closestPoints } from '../geometry/tree/closest.js';
import { add, cross, dot, hypot, length, normalize, rotateAbout, scale, sub, type Vec3 } from '../geometry/vec.js';

/** A surface onto which others are laid; its first triangles are of teeth. */
export interface Ground {
  readonly mesh: Mesh;
  readonly tree: Tree;
  readonly toothTriangles: number;
}

/** @param toothTriangles how many of the first triangles are of teeth, where that is known */
export const groundOf = (mesh: Mesh, toothTriangles = 0): Ground => ({ mesh, tree: buildTree(mesh), toothTriangles });

/** How well one surface lies on another. */
export interface LaidOn {
  /** The moved surface's own coordinates in those of the ground. */
  readonly frame: Frame;
  /** Root mean square and 95th percentile of what counts as unaltered, mm. */
  readonly rmsMm: number;
  readonly p95Mm: number;
  /** Share of the surface that lies on the ground as if unaltered. */
  readonly share: number;
  /** The same of what lies on teeth and of what lies on gum and palate, where the ground tells them apart. */
  readonly teethShare?: number;
  readonly gumShare?: number;
  /** Why the fit is doubtful; nothing where it is not. */
  readonly doubt?: string;
}

/** Points of the moved surface that take part. */
const SAMPLES = 10_000;
/**
 * From far to near: rounds, from which distance on a point counts as altered, mm, and which of the points take part.
 */
const STAGES: readonly { readonly rounds: number; readonly reachMm: number; readonly every: number }[] = [
  { rounds: 12, reachMm: 8, every: 6 },
  { rounds: 12, reachMm: 3, every: 6 },
  { rounds: 12, reachMm: 1, every: 4 },
  { rounds: 12, reachMm: 0.3, every: 2 },
  { rounds: 10, reachMm: 0.12, every: 1 },
  { rounds: 10, reachMm: 0.07, every: 1 },
];
/** A step that moves the jaw by less has settled, mm. */
const SETTLED_MM = 1e-4;
/** What is off by more than this is altered, mm: a few times a scanner's noise on both sides. House limit. */
const UNALTERED_MM = 0.12;
/** Fits of which less is unaltered, or whose unaltered part is off by more, are told to be doubtful. House limits. */
const LEAST_SHARE = 0.4;
const MOST_P95_MM = 0.1;
/** Where so much of the teeth is the same the gum may have changed as it likes. House limit. */
const ENOUGH_TEETH = 0.6;

/** Where less of the teeth is the same, the fit may have followed the gum. House limit. */
const MOST_TEETH = 0.8;
/** Gum heals and swells, teeth stay: what lies on gum weighs so much beside them then, and counts so. House value. */
const GUM_WEIGHT = 0.1;
/** Where teeth are looked for once it lies on the gum. */
const NEAR_STAGES = STAGES.filter((s) => s.reachMm <= 3);

/**
 * Lays a surface on another by the region that is the same on both: point-to-plane steps (Chen & Medioni 1992, Image
 * Vision Comput 10:145, from memory) with Tukey's weights that leave out what is too far off, the limit drawn closer
 * stage by stage.
 * @param start of the moved surface's coordinates in the ground's
 */
export function layOnto(moved: Mesh, ground: Ground, start: Frame): LaidOn {
  const count = moved.positions.length / 3;
  const every = Math.max(1, Math.floor(count / SAMPLES));
  const local = new Float64Array(3 * Math.ceil(count / every));
  for (let v = 0, i = 0; v < count; v += every, i++) local.set(moved.positions.subarray(3 * v, 3 * v + 3), 3 * i);
  const found = { frame: settled(local, ground, start, STAGES, 1) };
  const first = { ...found, ...judged(local, found.frame, ground) };
  if ((first.teethShare ?? 1) >= MOST_TEETH) return first;
  // Where all the gum has moved it is the larger part, and the teeth seem altered. Whichever keeps more teeth is right.
  const frame = settled(local, ground, first.frame, NEAR_STAGES, GUM_WEIGHT);
  const second = { frame, ...judged(local, frame, ground) };
  const score = (l: LaidOn) => (l.teethShare ?? 0) + GUM_WEIGHT * (l.gumShare ?? 0);
  return score(second) > score(first) ? second : first;
}

function settled(local: Float64Array, ground: Ground, start: Frame, stages: typeof STAGES, gumWeight: number): Frame {
  let frame = start;
  for (const { rounds, reachMm, every: nth } of stages) {
    const some = nth === 1 ? local : local.filter((_, i) => Math.floor(i / 3) % nth === 0);
    for (let k = 0; k < rounds; k++) {
      const step = weightedStep(some, frame, ground, reachMm, gumWeight);
      if (!step) break;
      frame = step.frame;
      if (step.movedMm < SETTLED_MM) break;
    }
  }
  return frame;
}

function placed(local: Float64Array, f: Frame): Float64Array {
  const out = new Float64Array(local.length);
  for (let i = 0; i < local.length; i += 3) out.set(toParent(f, [local[i], local[i + 1], local[i + 2]]), i);
  return out;
}

function weightedStep(
  local: Float64Array,
  frame: Frame,
  ground: Ground,
  reachMm: number,
  gumWeight: number,
): { frame: Frame; movedMm: number } | undefined {
  const world = placed(local, frame);
  const near = closestPoints(ground.tree, world);
  const ata = Array.from({ length: 6 }, () => new Array<number>(6).fill(0));
  const atb = new Array<number>(6).fill(0);
  // About the middle of the points, so that turning and shifting do not mix.
  const middle: [number, number, number] = [0, 0, 0];
  for (let i = 0; i < world.length; i++) middle[i % 3] = middle[i % 3] + (3 * world[i]) / world.length;
  let used = 0;
  for (let i = 0; i < world.length / 3; i++) {
    const far = near.distances[i];
    if (far > reachMm) continue;
    const normal = normalize(triangleNormal(ground.mesh, 3 * near.faces[i]));
    const p: Vec3 = [world[3 * i], world[3 * i + 1], world[3 * i + 2]];
    const d: Vec3 = [p[0] - near.points[3 * i], p[1] - near.points[3 * i + 1], p[2] - near.points[3 * i + 2]];
    const off = normal[0] * d[0] + normal[1] * d[1] + normal[2] * d[2];
    const w = (1 - (far / reachMm) ** 2) ** 2 * (near.faces[i] < ground.toothTriangles ? 1 : gumWeight);
    const row = [...cross(sub(p, middle), normal), ...normal];
    for (let r = 0; r < 6; r++) {
      atb[r] = atb[r] - w * row[r] * off;
      for (let c = 0; c < 6; c++) (ata[r] as number[])[c] = (ata[r] as number[])[c] + w * row[r] * row[c];
    }
    used++;
  }
  if (used < 30) return undefined;
  for (let r = 0; r < 6; r++) (ata[r] as number[])[r] = (ata[r] as number[])[r] + 1e-6;
  const x = solve(ata, atb) as [number, number, number, number, number, number];
  const turn: Vec3 = [x[0], x[1], x[2]];
  const angle = length(turn);
  const deg = (angle * 180) / Math.PI;
  const about = (v: Vec3): Vec3 => (angle === 0 ? v : rotateAbout(v, scale(turn, 1 / angle), deg));
  const origin = add(add(about(sub(frame.origin, middle)), middle), [x[3], x[4], x[5]]);
  return {
    frame: frameFrom(origin, about(frame.z), about(frame.x)),
    // A turn moves what lies 25 mm off, the half width of a jaw.
    movedMm: hypot(x[3], x[4], x[5]) + angle * 25,
  };
}

function judged(local: Float64Array, frame: Frame, ground: Ground): Omit<LaidOn, 'frame'> {
  const { distances, faces } = closestPoints(ground.tree, placed(local, frame));
  const far = [...distances].sort((p, q) => p - q);
  const parts = [0, 1].map((teeth) => {
    let [all, same] = [0, 0];
    distances.forEach((d, i) => {
      if (faces[i] < ground.toothTriangles !== (teeth === 1)) return;
      all++;
      if (d <= UNALTERED_MM) same++;
    });
    return all > 0 ? same / all : undefined;
  });
  const [gumShare, teethShare] = parts;
  const same = far.filter((d) => d <= UNALTERED_MM);
  const share = same.length / far.length;
  const rmsMm = Math.sqrt(same.reduce((s, d) => s + d * d, 0) / Math.max(1, same.length));
  const p95Mm = same[Math.floor(0.95 * same.length)] ?? Infinity;
  const doubt =
    share < LEAST_SHARE && (teethShare ?? 0) < ENOUGH_TEETH
      ? `only ${Math.round(100 * share)} % of it lies on the first scan; too much is altered, or it lies wrong`
      : p95Mm > MOST_P95_MM
        ? `the part that is the same is still off by ${p95Mm.toFixed(2)} mm`
        : undefined;
  const apart = gumShare !== undefined && teethShare !== undefined && { gumShare, teethShare };
  return { rmsMm, p95Mm, share, ...apart, ...(doubt && { doubt }) };
}

/**
 * A start from three places on the one and the same three on the other.
 * @returns the moved surface's coordinates in the ground's, exact in the first place and the directions to the others
 */
export function startFromPlaces(moved: readonly [Vec3, Vec3, Vec3], ground: readonly [Vec3, Vec3, Vec3]): Frame {
  const own = basis(moved);
  const other = basis(ground);
  // The moved coordinates' axes and origin, told in the basis of the places and then in the ground's.
  const carry = (v: Vec3): Vec3 => {
    const c: Vec3 = [dot(own.x, v), dot(own.y, v), dot(own.z, v)];
    return add(add(scale(other.x, c[0]), scale(other.y, c[1])), scale(other.z, c[2]));
  };
  const x = carry([1, 0, 0]);
  const z = carry([0, 0, 1]);
  return frameFrom(sub(ground[0], carry(moved[0])), z, x);
}

function basis([a, b, c]: readonly [Vec3, Vec3, Vec3]): { x: Vec3; y: Vec3; z: Vec3 } {
  const x = normalize(sub(b, a));
  const z = normalize(cross(x, sub(c, a)));
  return { x, y: cross(z, x), z };
}
