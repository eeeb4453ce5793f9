import { area, type Mesh, triangleArea, vertex } from '../geometry/mesh.js';
import { cross, dot, hypot, normalize, sub, type Vec3 } from '../geometry/vec.js';
import { bulk } from './bulk.js';
import { cornerOf } from './drawn.js';
import { columnOf, type Missing, SLIVER_MM } from './missing.js';
import type { DrawnBreak } from './words.js';

/** The surface at which a tooth is broken, in the crown's own frame. */
export interface BreakFace {
  readonly mesh: Mesh;
  readonly mm2: number;
}

/** A break begins so far under the planned surface at least, mm. House value. */
const UNDER_MM = 0.1;
/** So near to what is missing altogether a break begins, in columns. House value. */
const BESIDE = 2;
/** What looks away from a break's mean direction by more belongs to the face or the side, degrees. House value. */
const TURNS_DEG = 50;
/** Between places along a break that is drawn, mm. */
const ALONG_MM = 0.1;

/**
 * The break as a scan shows it: the triangles that lie within the plan where it is missing altogether, and all that
 * look about the same way beside them.
 * @param tooth closed, in the crown's own frame
 */
export function scannedBreak(tooth: Mesh, m: Missing): BreakFace {
  const { grid, wants } = m;
  const { triangles } = tooth;
  const missing = bulk(m);
  const n = triangles.length / 3;
  const corners = (t: number) =>
    [0, 1, 2].map((k) => vertex(tooth, triangles[3 * t + k] as number)) as [Vec3, Vec3, Vec3];
  const lookOf = (t: number): Vec3 => {
    const [a, b, c] = corners(t);
    return normalize(cross(sub(b, a), sub(c, a)));
  };
  const columnAt = (t: number) => {
    const all = corners(t);
    const middle = (k: 0 | 2) => all.reduce((s, p) => s + p[k], 0) / 3;
    return [Math.round((middle(0) - grid.a0) / grid.step), Math.round((middle(2) - grid.b0) / grid.step)] as const;
  };
  const isWithin = (t: number, mm: number) => {
    const [i, j] = columnAt(t);
    const plan = wants.get(j * grid.na + i);
    const y = corners(t).reduce((s, p) => s + p[1], 0) / 3;
    return plan !== undefined && y > plan.from + mm && y < plan.to - mm;
  };
  const isBeside = (t: number) => {
    const [i, j] = columnAt(t);
    for (let dj = -BESIDE; dj <= BESIDE; dj++)
      for (let di = -BESIDE; di <= BESIDE; di++) if (missing.has((j + dj) * grid.na + i + di)) return true;
    return false;
  };
  const seeds =
    missing.size === 0
      ? []
      : Array.from({ length: n }, (_, t) => t).filter((t) => isBeside(t) && isWithin(t, UNDER_MM));
  const mean = (of: readonly number[]): Vec3 => {
    const sum: [number, number, number] = [0, 0, 0];
    for (const t of of) {
      const [look, mm2] = [lookOf(t), triangleArea(tooth, 3 * t)];
      for (const k of [0, 1, 2] as const) sum[k] += look[k] * mm2;
    }
    return normalize(sum);
  };
  if (seeds.length === 0) return NONE;
  const least = Math.cos((TURNS_DEG * Math.PI) / 180);
  const first = mean(seeds);
  const own = seeds.filter((t) => dot(lookOf(t), first) > least);
  if (own.length === 0) return NONE;
  const way = mean(own);
  const at = new Map<number, number[]>();
  triangles.forEach((v, k) => {
    const there = at.get(v);
    if (there) there.push(Math.floor(k / 3));
    else at.set(v, [Math.floor(k / 3)]);
  });
  const face = new Set(own);
  for (const t of face)
    for (let k = 0; k < 3; k++)
      for (const next of at.get(triangles[3 * t + k] as number) ?? [])
        if (!face.has(next) && isWithin(next, SLIVER_MM) && dot(lookOf(next), way) > least) face.add(next);
  return faceOf({
    positions: tooth.positions,
    triangles: Uint32Array.from([...face].flatMap((t) => [...triangles.subarray(3 * t, 3 * t + 3)])),
  });
}

/** The break as it is drawn: straight from the side to the edge, through all of the tooth. @param m before it is cut */
export function drawnFace(m: Missing, drawn: DrawnBreak, mesialX: 1 | -1): BreakFace {
  const { stands } = m;
  const { side, outer, edge } = cornerOf(m, drawn, mesialX);
  const [from, to] = [
    [side * outer, edge + drawn.heightMm],
    [side * (outer - drawn.widthMm), edge],
  ] as const;
  const count = Math.ceil(hypot(drawn.widthMm, drawn.heightMm) / ALONG_MM);
  const positions: number[] = [];
  const triangles: number[] = [];
  let before = -1;
  for (let k = 0; k <= count; k++) {
    const [x, z] = ([0, 1] as const).map((i) => from[i] + ((to[i] - from[i]) * k) / count) as [number, number];
    const tooth = stands.get(columnOf(m, x, z));
    const here = tooth ? positions.length / 3 : -1;
    if (tooth) positions.push(x, tooth.from, z, x, tooth.to, z);
    if (tooth && before >= 0) triangles.push(before, here, before + 1, here, here + 1, before + 1);
    before = here;
  }
  return faceOf({ positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) });
}

const faceOf = (mesh: Mesh): BreakFace => ({ mesh, mm2: area(mesh) });
const NONE = faceOf({ positions: new Float64Array(), triangles: new Uint32Array() });
