import { Refusal } from '../errors.js';
import { type Frame, shift } from '../geometry/frame.js';
import { bounds, type Mesh } from '../geometry/mesh.js';
import { alignFrame } from '../geometry/register.js';
import { leastSquares } from '../geometry/solve.js';
import { type SignedField, signedField } from '../geometry/tree/signed.js';
import { hypot } from '../geometry/vec.js';
import type { Fdi, Jaw } from '../teeth/notation.js';
import { type ArchCurve, archSide, frontOf, meshToArch, rowOf, standingFrame } from './arch.js';
import { crownFace, formOf, usualDepth } from './crown.js';
import type { SegmentedScan } from './scan.js';

/** An arch curve with its place in the mouth: y = y0 + a·u² + b·u⁴ with u = x − x0, mm. */
export interface FittedArch extends ArchCurve {
  readonly x0: number;
  readonly y0: number;
}

/** One tooth of the scan, measured: its frame and its size in that frame. */
export interface ExistingTooth {
  readonly tooth: Fdi;
  readonly field: SignedField;
  /** Origin at the edge, z along the axis towards the root, x to the patient's left along the tooth's own width. */
  readonly frame: Frame;
  readonly widthMm: number;
  readonly lengthMm: number;
  /** Facio-oral depth of the library form that fits best, mm: measured itself, it would grow as the frame leans. */
  readonly depthMm: number;
  /** Wear with which the library form fits best, mm, in steps. */
  readonly wearMm: number;
  /** Highest point of the facial neck in the frame's z, mm. */
  readonly zenithMm: number;
  /** Turn against the arch, degrees, positive mesial edge forward. */
  readonly rotationDeg: number;
  /** Root mean square distance of the library form's facial surface from the scanned one, mm. */
  readonly fitMm: number;
}

/** Everything that the later stages need of a scan, in the arch's own frame. */
export interface ExistingArch {
  readonly jaw: Jaw;
  readonly arch: FittedArch;
  readonly teeth: ReadonlyMap<Fdi, ExistingTooth>;
}

/** Room between two teeth as they stand, by their middles and widths, mm; below 0 where they overlap. */
export function roomBetween(a: ExistingTooth, b: ExistingTooth): number {
  const [p, q] = [a.frame.origin, b.frame.origin];
  return hypot(p[0] - q[0], p[1] - q[1]) - (a.widthMm + b.widthMm) / 2;
}

/** A tooth of the scan. @throws Refusal `tooth-missing` */
export function toothOf(arch: ExistingArch, tooth: Fdi): ExistingTooth {
  const own = arch.teeth.get(tooth);
  if (!own) throw new Refusal('tooth-missing', `The scan has no tooth {${tooth}}.`, tooth);
  return own;
}

/** Front teeth by which an arch can be drawn. */
const LEAST_FRONT = 4;

/**
 * Finds frame and size of the front teeth and premolars that the scan has, and the arch on which they stand. Both
 * centrals are needed; other teeth may be missing. Deterministic; about 0.8 s.
 * @throws Refusal `scan-without-teeth` without the two centrals, or with fewer than four of the front teeth
 */
export function existingArch(scan: SegmentedScan): ExistingArch {
  const { jaw } = scan;
  const front = frontOf(jaw);
  const [right, left] = [front[2], front[3]] as [Fdi, Fdi];
  const present = rowOf(jaw).filter((t) => scan.teeth.has(t));
  if (![right, left].every((t) => present.includes(t)) || present.filter((t) => front.includes(t)).length < LEAST_FRONT)
    throw new Refusal(
      'scan-without-teeth',
      `The scan has too few ${jaw} front teeth: both centrals and two more are needed.`,
      present,
    );
  const meshes = new Map(present.map((t) => [t, meshToArch(jaw, scan.teeth.get(t) as Mesh)] as const));
  const meshOf = (tooth: Fdi) => meshes.get(tooth) as Mesh;
  const edges = new Map(present.map((tooth) => [tooth, edgePoint(meshOf(tooth), !front.includes(tooth))] as const));
  const x0 = (bounds(meshOf(right)).max[0] + bounds(meshOf(left)).min[0]) / 2;
  const arch =
    jaw === 'upper'
      ? fitArch(new Map([...edges].filter(([t]) => front.includes(t))), x0)
      : fitArch(axesOf(edges, fitArch(edges, x0)), x0);
  const teeth = new Map(
    present.map(
      (tooth) => [tooth, fitTooth(tooth, meshOf(tooth), edges.get(tooth) as [number, number, number], arch)] as const,
    ),
  );
  return { jaw, arch, teeth };
}

/**
 * Where the axes of the teeth stand: those of premolars behind their facial cusps. An upper front says by itself how
 * the arch goes on; a lower one is too short and flat for it, so its premolars have a say.
 */
function axesOf(
  edges: ReadonlyMap<Fdi, readonly [number, number, number]>,
  arch: FittedArch,
): Map<Fdi, readonly [number, number, number]> {
  return new Map(
    [...edges].map(([t, [x, y, z]]) => {
      if (isFront(t)) return [t, [x, y, z]];
      const turn = (archTurn(arch, x) * Math.PI) / 180;
      return [t, [x - cuspForward(t) * Math.sin(turn), y + cuspForward(t) * Math.cos(turn), z]];
    }),
  );
}

/** Middle of what lies within 0.3 mm of the lowest point; of a tooth with two cusps the facial one. */
function edgePoint(mesh: Mesh, twoCusps: boolean): [number, number, number] {
  const b = bounds(mesh);
  const middle = Math.abs(b.min[0] + b.max[0]) / 2;
  let low = Infinity;
  for (let i = 2; i < mesh.positions.length; i += 3) {
    if (twoCusps && Math.abs(mesh.positions[i - 2]) < middle) continue;
    low = Math.min(low, mesh.positions[i]);
  }
  let x = 0;
  let y = 0;
  let n = 0;
  for (let i = 0; i < mesh.positions.length; i += 3) {
    if (mesh.positions[i + 2] > low + 0.3 || (twoCusps && Math.abs(mesh.positions[i]) < middle)) continue;
    x += mesh.positions[i];
    y += mesh.positions[i + 1];
    n++;
  }
  return [x / n, y / n, low];
}

/** Least-squares arch through edge points, symmetric about the line between the two centrals at x0. */
export function fitArch(edges: ReadonlyMap<Fdi, readonly [number, number, number]>, x0: number): FittedArch {
  const rows: number[][] = [];
  const ys: number[] = [];
  for (const [x, y] of edges.values()) {
    const u = x - x0;
    rows.push([1, u * u, u ** 4]);
    ys.push(y);
  }
  const [y0, a, b] = leastSquares(rows, ys) as [number, number, number];
  return { x0, y0, a, b };
}

/** Turn of the arch's tangent at x, degrees. */
export function archTurn(arch: FittedArch, x: number): number {
  const u = x - arch.x0;
  return (Math.atan(2 * arch.a * u + 4 * arch.b * u ** 3) * 180) / Math.PI;
}

/** Wear that the fit tries, mm. */
const WEAR_STEPS = [0, 0.4, 0.8, 1.2, 1.6, 2];

/** Depths that the fit tries, against the one that is usual for the width. */
const DEPTHS = [0.82, 1, 1.18] as const;

/** Where a parabola through values at −1, 0 and 1 is least; the better end where it has no least. */
function leastOf(less: number, middle: number, more: number): number {
  const bend = less + more - 2 * middle;
  return bend > 0 ? (less - more) / (2 * bend) : Math.sign(less - more);
}

function fitTooth(tooth: Fdi, mesh: Mesh, edge: readonly [number, number, number], arch: FittedArch): ExistingTooth {
  const field = signedField(mesh);
  const turnDeg = archTurn(arch, edge[0]);
  const upright = standingFrame(tooth, { x: edge[0], y: edge[1], turnDeg }, edge[2]);
  // The axis of a tooth with two cusps lies behind its facial one.
  const start = isFront(tooth) ? upright : shift(upright, [0, cuspForward(tooth), 0]);
  const fitWith = (from: Frame, wearMm: number, iterations: number, every: number, deep = 1) => {
    const m = sizeIn(mesh, from, !isFront(tooth));
    const widthMm = clamp(m.widthMm, 3, 14);
    const face = crownFace(
      tooth,
      {
        lengthMm: clamp(m.lengthMm, 5, 16),
        widthMm,
        depthMm: deep * usualDepth(tooth, widthMm),
        facialVolumeMm: 0,
        wearMm,
      },
      every,
    );
    return {
      wearMm,
      ...alignFrame(face, shift(from, [m.midX, 0, m.lowZ]), field, {
        iterations,
        reachMm: 1.2,
        // Fewer points pull less; what holds against them is to weigh the same.
        hold: (8 * CLOSE) / every,
      }),
    };
  };
  const rough = fitWith(start, 0, 8, WIDE).frame;
  // Size and place depend on each other, and a worn tooth is a longer one cut short: try each wear from the rough fit.
  const { wearMm } = WEAR_STEPS.map((w) => fitWith(fitWith(rough, w, 4, WIDE).frame, w, 5, WIDE)).reduce((p, q) =>
    q.rmsMm < p.rmsMm ? q : p,
  );
  // How deep it is shows in how far its face is bowed: the least of a parabola through three depths.
  const near = fitWith(rough, wearMm, 4, WIDE).frame;
  const [less, usual, more] = DEPTHS.map((d) => fitWith(near, wearMm, 5, WIDE, d).rmsMm ** 2) as [
    number,
    number,
    number,
  ];
  const deep = clamp(1 + leastOf(less, usual, more) * (DEPTHS[2] - 1), DEPTHS[0], DEPTHS[2]);
  const best = fitWith(fitWith(rough, wearMm, 5, CLOSE, deep).frame, wearMm, 5, CLOSE, deep);
  const m = sizeIn(mesh, best.frame, !isFront(tooth));
  const along = (Math.atan2(best.frame.x[1], best.frame.x[0]) * 180) / Math.PI;
  const side = archSide(tooth) === 'left' ? 1 : -1;
  return {
    tooth,
    field,
    frame: shift(best.frame, [0, 0, m.lowZ]),
    widthMm: m.widthMm,
    lengthMm: m.lengthMm,
    depthMm: deep * usualDepth(tooth, m.widthMm),
    wearMm: best.wearMm,
    zenithMm: m.zenithZ - m.lowZ,
    rotationDeg: side * (along - archTurn(arch, best.frame.origin[0])),
    fitMm: best.rmsMm,
  };
}

const isFront = (tooth: Fdi): boolean => tooth % 10 <= 3;

const cuspForward = (tooth: Fdi): number => formOf(tooth).facial[0]?.[1] ?? 0;

const clamp = (v: number, lo: number, hi: number) => Math.min(hi, Math.max(lo, v));

/** Further forward than this share of its fullest place a point is of the face. House values. */
const FACE_SHARE = { front: 0.7, twoCusps: 0.5 } as const;

/** A tooth is widest below this share of its length over the edge; what is wider above it is gum. House value. */
export const BELOW_NECK = 0.7;

interface SizeIn {
  readonly widthMm: number;
  readonly lengthMm: number;
  readonly midX: number;
  readonly lowZ: number;
  readonly zenithZ: number;
}

/**
 * Greatest width, caliper length from the highest facial point to the lowest, in a frame. Of two cusps the facial one
 * is measured: the palatal one may hang as low or lower, and a caliper laid on it reads across the tooth.
 */
function sizeIn(mesh: Mesh, frame: Frame, twoCusps: boolean): SizeIn {
  const { positions: p } = mesh;
  const { origin: o, x, y, z } = frame;
  let front = 0;
  let top = -Infinity;
  let [lowY, lowZ, highY, highZ] = [0, Infinity, 0, -Infinity];
  for (let i = 0; i < p.length; i += 3) {
    const a = p[i] - o[0];
    const b = p[i + 1] - o[1];
    const c = p[i + 2] - o[2];
    const back = a * y[0] + b * y[1] + c * y[2];
    const up = a * z[0] + b * z[1] + c * z[2];
    if (back < front) front = back;
    if (up > top) top = up;
    if (up < lowZ && !(twoCusps && back > 0)) [lowY, lowZ] = [back, up];
  }
  let x0 = Infinity;
  let x1 = -Infinity;
  // What closes the neck may stand as high as the facial zenith where the frame leans: only the face counts. At the
  // neck no tooth is widest; what is picked too wide there is gum.
  const face = front * (twoCusps ? FACE_SHARE.twoCusps : FACE_SHARE.front);
  const neck = lowZ + BELOW_NECK * (top - lowZ);
  for (let i = 0; i < p.length; i += 3) {
    const a = p[i] - o[0];
    const b = p[i + 1] - o[1];
    const c = p[i + 2] - o[2];
    const across = a * x[0] + b * x[1] + c * x[2];
    const back = a * y[0] + b * y[1] + c * y[2];
    const up = a * z[0] + b * z[1] + c * z[2];
    if (up > highZ && back < face) [highY, highZ] = [back, up];
    if (up > neck) continue;
    if (across < x0) x0 = across;
    if (across > x1) x1 = across;
  }
  return {
    widthMm: x1 - x0,
    lengthMm: hypot(highZ - lowZ, highY - lowY),
    midX: (x0 + x1) / 2,
    lowZ,
    zenithZ: highZ,
  };
}

/** Every how manyth place around a ring is taken: to choose among wears, and to settle. */
const WIDE = 6;
const CLOSE = 3;
