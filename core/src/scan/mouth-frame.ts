import { Refusal } from '../errors.js';
import type { Frame } from '../geometry/frame.js';
import { bounds, type Mesh, triangleArea, vertex } from '../geometry/mesh.js';
import { leastSquares } from '../geometry/solve.js';
import { cross, dot, hypot, length, normalize, scale, sub, type Vec3 } from '../geometry/vec.js';
import type { Jaw } from '../teeth/notation.js';
import { vectorArea } from './repair.js';

/** How a scan lies in the mouth: a proposal from its shape. */
export interface MouthProposal {
  /**
   * The mouth's frame in the scan's coordinates: x to the patient's left, y backward, z up, origin at the edge between
   * the centrals.
   */
  readonly frame: Frame;
  /** How alike the two sides of the arch are about the midline found, 0–1. */
  readonly symmetry: number;
  /** Share of the room within the arch that the scan covers: a palate does, a tongue's room does not. */
  readonly covered: number;
}

/** What is higher than this under the bite's plane counts as tooth, mm. */
const TOOTH_BAND_MM = 4;
/** A jaw's front and premolars are at least so wide and at most so, mm; beyond it is no jaw, or not in millimetres. */
export const JAW_MM = { least: 25, most: 110 };

/**
 * Finds a jaw's place from its shape: an open surface faces where it bites, its teeth's edges lie in a plane, its two
 * sides are alike, and only the front has teeth in the midline.
 * @throws Refusal `no-jaw` when the size or the shape is not that of a row of teeth
 */
export function mouthFrame(m: Mesh, jaw: Jaw): MouthProposal {
  const area = vectorArea(m);
  if (length(area) < 50)
    throw new Refusal('no-jaw', 'The surface closes in itself: it faces no way, as a scan of a jaw does.');
  const size = bounds(m);
  const widest = Math.max(...([0, 1, 2] as const).map((k) => size.max[k] - size.min[k]));
  if (widest < JAW_MM.least || widest > JAW_MM.most * 1.6)
    throw new Refusal(
      'no-jaw',
      `The scan is ${widest.toFixed(1)} wide; a jaw in millimetres is ${JAW_MM.least} to ${JAW_MM.most}.`,
      widest,
    );
  const bite = summitDirection(m, normalize(area));
  const [a, b] = planeAxes(bite);
  const top = topOf(m, bite);
  const points: [number, number][] = [];
  const low: [number, number][] = [];
  const samples = sampledByArea(m, 60_000);
  for (let i = 0; i < samples.length; i += 3) {
    const p: Vec3 = [samples[i], samples[i + 1], samples[i + 2]];
    const h = dot(bite, p);
    if (h > top - TOOTH_BAND_MM) points.push([dot(a, p), dot(b, p)]);
    else low.push([dot(a, p), dot(b, p)]);
  }
  const axis = symmetryAxis(points.filter((_, i) => i % Math.ceil(points.length / 6000) === 0));
  const turn = (axis.turnDeg * Math.PI) / 180;
  // u across the midline, v along it.
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const uv = points.map(([x, y]): [number, number] => [x * c + y * s - axis.u0, -x * s + y * c]);
  const near = uv.filter(([u]) => Math.abs(u) < 5);
  if (near.length < 20) throw new Refusal('no-jaw', 'No row of teeth with a front can be found in the scan.');
  const mean = (list: readonly [number, number][]) => list.reduce((n, p) => n + p[1], 0) / list.length;
  const back = mean(uv) > mean(near) ? 1 : -1;
  const [along, across] = [
    scale(sub(scale(b, c), scale(a, s)), back),
    [a[0] * c + b[0] * s, a[1] * c + b[1] * s, a[2] * c + b[2] * s] as Vec3,
  ];
  const z = scale(bite, jaw === 'upper' ? -1 : 1);
  const x = cross(along, z);
  // The front: where the teeth of the midline begin; the edge: the height that the middle teeth reach.
  const depths = near.map(([, v]) => v * back).sort((p, q) => p - q);
  const front = depths[Math.floor(0.25 * depths.length)];
  const heights: number[] = [];
  for (let i = 0; i < samples.length; i += 3) {
    const p: Vec3 = [samples[i], samples[i + 1], samples[i + 2]];
    const u = dot(across, p) - axis.u0;
    if (Math.abs(u) < 8 && Math.abs(dot(along, p) - front) < 6) heights.push(dot(bite, p));
  }
  heights.sort((p, q) => q - p);
  const edge = heights[Math.floor(0.01 * heights.length)] ?? top;
  const origin: Vec3 = [0, 1, 2].map((k) => across[k] * axis.u0 + along[k] * front + bite[k] * edge) as [
    number,
    number,
    number,
  ];
  return {
    frame: { origin, x, y: along, z },
    symmetry: axis.score,
    covered: coverage(
      uv,
      low.map(([px, py]): [number, number] => [px * c + py * s - axis.u0, -px * s + py * c]),
    ),
  };
}

/**
 * The mouth's frame from three places that were clicked: the edge between the centrals, and the same tooth's tip on the
 * patient's right and left.
 * @throws Refusal `points-coincide`
 */
export function frameFromClicks(middle: Vec3, right: Vec3, left: Vec3, jaw: Jaw, bite: Vec3): Frame {
  const between: Vec3 = [(right[0] + left[0]) / 2, (right[1] + left[1]) / 2, (right[2] + left[2]) / 2];
  const [toLeft, toBack] = [sub(left, right), sub(between, middle)];
  const normal = cross(toLeft, toBack);
  if (length(toLeft) < 5 || length(toBack) < 1 || length(normal) < 5)
    throw new Refusal(
      'points-coincide',
      'The three places lie too near to each other or in one line; the middle and two teeth of the sides are needed.',
    );
  const up = normalize(normal);
  // x × y = z points up in the mouth; against the bite in the upper jaw, with it in the lower.
  const sign = (jaw === 'upper' ? -1 : 1) * Math.sign(dot(up, bite)) || 1;
  if (sign < 0)
    throw new Refusal(
      'points-coincide',
      'Right and left are changed over: the second place is on the patient’s right.',
    );
  const x = normalize(toLeft);
  const y = normalize(sub(toBack, scale(x, dot(x, toBack))));
  return { origin: middle, x, y, z: cross(x, y) };
}

/** The plane of the row is found by its edges unless it lies this far off what was clicked, degrees. House value. */
const FAR_OFF_DEG = 30;

/**
 * The same frame made level with the edges and cusps of the whole row: the three clicked places lie near together and
 * a canine stands out or is worn, so that their own plane tips the jaw by seven degrees for each millimetre. Where the
 * edges say something quite different the clicked places stand.
 */
export function levelled(m: Mesh, jaw: Jaw, frame: Frame): Frame {
  const sign = jaw === 'upper' ? -1 : 1;
  const bite = summitDirection(m, scale(frame.z, sign));
  const z = scale(bite, sign);
  if (dot(z, frame.z) < Math.cos((FAR_OFF_DEG * Math.PI) / 180)) return frame;
  const x = normalize(sub(frame.x, scale(z, dot(z, frame.x))));
  return { origin: frame.origin, x, y: cross(z, x), z };
}

const sampled = new WeakMap<Mesh, Map<number, Float64Array>>();
const evenness = new WeakMap<Mesh, { readonly whole: number; readonly apart: number }>();

/** Where the middle of the vertices lies so near to that of the surface, they lie evenly on it, mm. House value. */
const EVEN_MM = 1.5;

/** A surface's area, and how far the middle of its vertices lies from its own. */
function unevenness(m: Mesh): { readonly whole: number; readonly apart: number } {
  const known = evenness.get(m);
  if (known) return known;
  const { positions: p, triangles: t } = m;
  let whole = 0;
  let [x, y, z] = [0, 0, 0];
  for (let k = 0; k < t.length; k += 3) {
    const third = triangleArea(m, k) / 3;
    const a = 3 * t[k];
    const b = 3 * t[k + 1];
    const c = 3 * t[k + 2];
    whole += 3 * third;
    x += third * (p[a] + p[b] + p[c]);
    y += third * (p[a + 1] + p[b + 1] + p[c + 1]);
    z += third * (p[a + 2] + p[b + 2] + p[c + 2]);
  }
  let [u, v, w] = [0, 0, 0];
  for (let i = 0; i < p.length; i += 3) {
    u += p[i];
    v += p[i + 1];
    w += p[i + 2];
  }
  const n = p.length / 3;
  const own = { whole, apart: hypot(x / whole - u / n, y / whole - v / n, z / whole - w / n) };
  evenness.set(m, own);
  return own;
}

/**
 * About so many places of a surface, as many on each part of it as that is large: however finely a scanner's program
 * has left the one side and thinned the other.
 */
function sampledByArea(m: Mesh, count: number): Float64Array {
  const known = sampled.get(m)?.get(count);
  if (known) return known;
  const { positions: p, triangles: t } = m;
  const { whole, apart } = unevenness(m);
  if (apart < EVEN_MM) {
    const step = 3 * Math.max(1, Math.floor(p.length / 3 / count));
    const places = new Float64Array(3 * Math.ceil(p.length / step));
    for (let i = 0, v = 0; i < places.length; i += 3, v += step) {
      places[i] = p[v];
      places[i + 1] = p[v + 1];
      places[i + 2] = p[v + 2];
    }
    sampled.set(m, (sampled.get(m) ?? new Map<number, Float64Array>()).set(count, places));
    return places;
  }
  const each = whole / count;
  const out: number[] = [];
  let owed = each / 2;
  for (let k = 0; k < t.length; k += 3) {
    owed += triangleArea(m, k);
    // A large triangle has its places at its corners and in its middle.
    for (let n = 0; owed >= each; n++, owed -= each) {
      const [a, b, c] = [3 * t[k], 3 * t[k + 1], 3 * t[k + 2]];
      const [u, v, w] = WEIGHTS[n % WEIGHTS.length];
      for (let i = 0; i < 3; i++) out.push(u * p[a + i] + v * p[b + i] + w * p[c + i]);
    }
  }
  const own = Float64Array.from(out);
  sampled.set(m, (sampled.get(m) ?? new Map<number, Float64Array>()).set(count, own));
  return own;
}

// Corners first: edges and cusps are at corners, and a middle lies under them.
const WEIGHTS = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
  [1 / 3, 1 / 3, 1 / 3],
] as const;

function topOf(m: Mesh, bite: Vec3): number {
  const samples = sampledByArea(m, 20_000);
  const own = { positions: samples };
  const heights = Float64Array.from({ length: samples.length / 3 }, (_, i) => dot(bite, vertex(own, i))).sort();
  return heights[heights.length - 1 - Math.floor(0.002 * heights.length)];
}

function planeAxes(n: Vec3): [Vec3, Vec3] {
  const hint: Vec3 = Math.abs(n[0]) < 0.7 ? [1, 0, 0] : [0, 1, 0];
  const a = normalize(sub(hint, scale(n, dot(hint, n))));
  return [a, cross(n, a)];
}

const SECTORS = 16;
/** Edges and cusps stand within this of their plane, mm. */
const UNDER_MM = 1.2;

/** Sectors are found anew with each better direction; after so many rounds it stays. */
const SUMMIT_ROUNDS = 4;

/** The direction across the plane of edges and cusps, from one that is about right. */
function summitDirection(m: Mesh, about: Vec3): Vec3 {
  let bite = about;
  for (let round = 0; round < SUMMIT_ROUNDS; round++) bite = summitPlane(m, bite);
  return bite;
}

/** The direction across the plane through the highest place of each sector about the middle. */
function summitPlane(m: Mesh, bite: Vec3): Vec3 {
  const [a, b] = planeAxes(bite);
  const samples = sampledByArea(m, 40_000);
  const n = samples.length / 3;
  // As the plane's axes and the bite have them: along, across, high.
  const [xs, ys, hs] = [new Float64Array(n), new Float64Array(n), new Float64Array(n)];
  let [ca, cb] = [0, 0];
  const [ax, ay, az] = a;
  const [bx, by, bz] = b;
  const [hx, hy, hz] = bite;
  for (let i = 0; i < n; i++) {
    const [x, y, z] = [samples[3 * i], samples[3 * i + 1], samples[3 * i + 2]];
    xs[i] = ax * x + ay * y + az * z;
    ys[i] = bx * x + by * y + bz * z;
    hs[i] = hx * x + hy * y + hz * z;
    ca += xs[i] / n;
    cb += ys[i] / n;
  }
  const best = new Int32Array(SECTORS).fill(-1);
  for (let i = 0; i < n; i++) {
    const turn = Math.atan2(ys[i] - cb, xs[i] - ca) + Math.PI;
    const k = Math.min(SECTORS - 1, Math.floor((turn / (2 * Math.PI)) * SECTORS));
    if (best[k] < 0 || hs[i] > hs[best[k]]) best[k] = i;
  }
  const found = [...best].filter((i) => i >= 0).map((i): Vec3 => [xs[i] - ca, ys[i] - cb, hs[i]]);
  const top = Math.max(...found.map((p) => p[2]));
  // The open side behind has no teeth: its sectors lie deep. What lies under the plane of the others is palate or gum.
  let teeth = found.filter((p) => p[2] > top - 7);
  if (teeth.length < 4) return bite;
  let [p, q] = [0, 0];
  for (let k = 0; k < 4; k++) {
    const [fp, fq, fr] = leastSquares(
      teeth.map(([x, y]) => [x, y, 1]),
      teeth.map(([, , h]) => h),
    ) as [number, number, number];
    [p, q] = [fp, fq];
    const kept = teeth.filter(([x, y, h]) => h > fp * x + fq * y + fr - UNDER_MM);
    if (kept.length < 5 || kept.length === teeth.length) break;
    teeth = kept;
  }
  return normalize([0, 1, 2].map((k) => bite[k] - p * a[k] - q * b[k]) as [number, number, number]);
}

/** The axis about which points in the plane are most alike with their mirror image. */
function symmetryAxis(points: readonly [number, number][]): { turnDeg: number; u0: number; score: number } {
  const CELL = 1.2;
  const [xs, ys] = [0, 1].map((k) => Float64Array.from(points, (p) => p[k as 0 | 1])) as [Float64Array, Float64Array];
  // The try that has each cell, by its place across and along.
  const HALF = 256;
  const tried = new Uint32Array(4 * HALF * HALF);
  const keys = new Int32Array(points.length);
  let tries = 0;
  let best = { turnDeg: 0, u0: 0, score: -1 };
  // Across the axis, mm, and the cell along it, of each point.
  const us = new Float64Array(points.length);
  const vs = new Int32Array(points.length);
  let middle = 0;
  const turn = (deg: number) => {
    const t = (deg * Math.PI) / 180;
    const [c, s] = [Math.cos(t), Math.sin(t)];
    let sum = 0;
    for (let i = 0; i < us.length; i++) {
      us[i] = xs[i] * c + ys[i] * s;
      vs[i] = Math.round((-xs[i] * s + ys[i] * c) / CELL) & (2 * HALF - 1);
      sum += us[i];
    }
    middle = sum / us.length;
  };
  const score = (turnDeg: number, by: number) => {
    const u0 = middle + by;
    tries++;
    let count = 0;
    for (let i = 0; i < us.length; i++) {
      const u = Math.round((us[i] - u0) / CELL);
      const key = (u + HALF) * 2 * HALF + vs[i];
      if (tried[key] === tries) continue;
      tried[key] = tries;
      keys[count++] = key;
    }
    let both = 0;
    for (let i = 0; i < count; i++) {
      const u = Math.floor(keys[i] / (2 * HALF)) - HALF;
      if (tried[keys[i] - 4 * u * HALF] === tries) both++;
    }
    return { turnDeg, u0, score: both / count };
  };
  for (let deg = 0; deg < 180; deg += 4) {
    turn(deg);
    for (const by of [-1.2, 0, 1.2]) {
      const own = score(deg, by);
      if (own.score > best.score) best = own;
    }
  }
  const coarse = best.turnDeg;
  for (let deg = coarse - 4; deg <= coarse + 4; deg += 1) {
    turn(deg);
    for (let by = -2.4; by <= 2.4; by += 0.4) {
      const own = score(deg, by);
      if (own.score > best.score) best = own;
    }
  }
  return best;
}

/** Share of the cells between the two sides of the row that lower parts of the scan cover. */
function coverage(teeth: readonly [number, number][], low: readonly [number, number][]): number {
  const CELL = 2;
  const rows = new Map<number, { min: number; max: number }>();
  for (const [u, v] of teeth) {
    const k = Math.round(v / CELL);
    const own = rows.get(k);
    if (!own) rows.set(k, { min: u, max: u });
    else {
      own.min = Math.min(own.min, u);
      own.max = Math.max(own.max, u);
    }
  }
  const WIDE = 4096;
  const cell = (u: number, v: number) => WIDE * u + v;
  const cells = new Set<number>();
  for (const [u, v] of low) cells.add(cell(Math.round(u / CELL), Math.round(v / CELL)));
  let [inside, covered] = [0, 0];
  for (const [k, { min, max }] of rows)
    for (let u = Math.ceil((min + 9) / CELL); u <= (max - 9) / CELL; u++) {
      inside++;
      if (cells.has(cell(u, k))) covered++;
    }
  return inside === 0 ? 0 : covered / inside;
}
