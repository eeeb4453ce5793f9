import { type Mesh, vertexNormals } from '../geometry/mesh.js';
import { add, cross, distance, dot, length, normalize, scale, sub, type Vec3 } from '../geometry/vec.js';
import { type Bur, leanDeg } from './burs/bur.js';
import { distanceToBur } from './burs/profile.js';
import { NOTHING_MM } from './removal.js';
import type { TargetSurface } from './target.js';
import { GRID } from './target-grid.js';

/** A bur as it stands: the place of its end on the axis, mm, and the way from there to the shank. */
export interface Pose {
  readonly end: Vec3;
  readonly axis: Vec3;
}

/** What burs do that are led over a target preparation. mm. */
export interface Swept {
  readonly poses: readonly { readonly bur: Bur; readonly poses: readonly Pose[] }[];
  /**
   * What they leave standing over the target at each vertex that is cut: from there to the nearest that a bur reached,
   * FAR_MM where none came near.
   */
  readonly leftMm: Float64Array;
}

/** A bur may go beyond the target by so much; less lies within any hand and scan. House value. */
export const BEYOND_MM = 0.01;
/** Further off than this a bur did not come near, mm. */
export const FAR_MM = 0.5;
/** So often a bur that goes too deep is lifted until it does not. */
const LIFTS = 6;
/** How much further than by its lean a bur is tilted off the tooth, tried one after the other: 0°, 8°, 20°. */
const TILTS = [0, 8, 20].map((deg) => (deg * Math.PI) / 180);
/** The line that a bur is laid along is told over so many rows. */
const ROWS_ALONG = 9;

/**
 * Leads burs over a target. Each touches every place with the ball of its tip, its side along the tooth from there
 * towards the edge, tilted by its own lean, and is lifted off wherever it would go beyond the target somewhere else.
 * What none of them can reach is left: hollows that are narrower than they are.
 * @param every n-th row and column is touched; all vertices are judged
 */
export function sweepOver(t: TargetSurface, burs: readonly Bur[], every = 1): Swept {
  const cut = Uint8Array.from(t.removedMm, (mm) => Number(mm > NOTHING_MM));
  const leftMm = Float64Array.from(cut, (own) => (own ? FAR_MM : 0));
  const ways = waysAlong(t);
  const normals = vertexNormals(t.mesh);
  const poses = burs.map((bur) => {
    const led: Pose[] = [];
    // An egg is led on its belly, everything else on the ball of its tip.
    const touch =
      bur.shape === 'egg'
        ? { out: bur.largestMm / 2, back: bur.lengthMm / 2 }
        : { out: bur.tipMm / 2, back: bur.tipMm / 2 };
    const lean = (leanDeg(bur) * Math.PI) / 180;
    for (let row = GRID.neckRows; row < GRID.rows + GRID.capRows - 1; row += every)
      for (let k = 0; k < GRID.angles; k += every) {
        const v = row * GRID.angles + k;
        const way = ways[v];
        if (!cut[v] || !way) continue;
        const n = normals.subarray(3 * v, 3 * v + 3) as unknown as Vec3;
        // Over a bulge the shank is held further off.
        for (const tilt of TILTS) {
          const a = lean + tilt;
          const axis = normalize(add(scale(way.along, Math.cos(a)), scale(way.out, Math.sin(a))));
          const first = sub(add(vertexOf(t.mesh, v), scale(n, touch.out)), scale(axis, touch.back));
          const pose = lifted(bur, { end: first, axis }, n, t.mesh.positions);
          if (!pose) continue;
          led.push(pose);
          reached(bur, pose, t.mesh.positions, leftMm);
          if (distance(pose.end, first) < BEYOND_MM) break;
        }
      }
    return { bur, poses: led };
  });
  return { poses, leftMm };
}

/** A bur lifted off until it goes nowhere beyond the target; nothing where that takes too much. */
function lifted(bur: Bur, { end, axis }: Pose, n: Vec3, at: Float64Array): Pose | undefined {
  let now = end;
  for (let lift = 0; lift < LIFTS; lift++) {
    const deep = deepestIn(bur, { end: now, axis }, at);
    if (deep <= BEYOND_MM) return { end: now, axis };
    now = add(now, scale(n, deep));
  }
  return undefined;
}

/** How far a place lies outside a bur that stands so, mm; below 0 inside. */
export function distanceTo(bur: Bur, { end, axis }: Pose, p: Vec3): number {
  const q = sub(p, end);
  const t = dot(q, axis);
  return distanceToBur(bur, t, Math.sqrt(Math.max(0, dot(q, q) - t * t)));
}

/** How deep the deepest place lies in a bur, mm; 0 where none does. */
function deepestIn(bur: Bur, pose: Pose, at: Float64Array): number {
  let deep = 0;
  about(bur, pose, at, 0, (t, out) => {
    deep = Math.max(deep, -distanceToBur(bur, t, out));
  });
  return deep;
}

function reached(bur: Bur, pose: Pose, at: Float64Array, leftMm: Float64Array): void {
  about(bur, pose, at, FAR_MM, (t, out, v) => {
    if ((leftMm[v] as number) === 0) return;
    const d = Math.abs(distanceToBur(bur, t, out));
    if (d < (leftMm[v] as number)) leftMm[v] = d;
  });
}

/** Hears every vertex that lies within so much of a bur, along its axis and from it. */
function about(
  { lengthMm, largestMm }: Bur,
  { end: [ex, ey, ez], axis: [ax, ay, az] }: Pose,
  at: Float64Array,
  mm: number,
  hear: (t: number, out: number, v: number) => void,
): void {
  const most = (largestMm / 2 + mm) ** 2;
  // The last vertex only closes the neck.
  for (let i = 0, v = 0; i < at.length - 3; i += 3, v++) {
    const x = (at[i] as number) - ex;
    const y = (at[i + 1] as number) - ey;
    const z = (at[i + 2] as number) - ez;
    const t = x * ax + y * ay + z * az;
    if (t < -mm || t > lengthMm + mm) continue;
    const out2 = x * x + y * y + z * z - t * t;
    if (out2 < most) hear(t, Math.sqrt(Math.max(0, out2)), v);
  }
}

const vertexOf = ({ positions }: Mesh, v: number): Vec3 => positions.subarray(3 * v, 3 * v + 3) as unknown as Vec3;

/** At each vertex the way along the target towards the edge, told over a few rows, and the one out of the tooth there. */
function waysAlong(t: TargetSurface): ({ along: Vec3; out: Vec3 } | undefined)[] {
  const last = GRID.rows + GRID.capRows - 2;
  const ways: ({ along: Vec3; out: Vec3 } | undefined)[] = [];
  for (let v = 0; v < GRID.angles * (last + 1); v++) {
    const [row, k] = [Math.floor(v / GRID.angles), v % GRID.angles];
    const wall = row < GRID.rows;
    const [from, to] = wall
      ? [Math.max(GRID.neckRows + ROWS_ALONG, row) - ROWS_ALONG, Math.min(GRID.rows - 1, row + ROWS_ALONG)]
      : [row - 1, Math.min(last, row + 1)];
    // Along the tooth as it is: the target's own lines step down at the finish line.
    const of = (r: number, c: number) =>
      vertexOf(wall ? t.before : t.mesh, r * GRID.angles + ((c + GRID.angles) % GRID.angles));
    const [a, b] = [of(from, k), of(to, k)];
    const along = sub(b, a);
    const out = cross(sub(of(row, k + 1), of(row, k - 1)), along);
    if (length(along) > 1e-9 && length(out) > 1e-12) ways[v] = { along: normalize(along), out: normalize(out) };
  }
  return ways;
}
