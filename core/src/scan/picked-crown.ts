import { BELOW_NECK } from '../contour/fit.js';
import type { Neighbourhood } from '../geometry/adjacency.js';
import type { Mesh } from '../geometry/mesh.js';
import { hypot } from '../geometry/vec.js';
import type { Fdi } from '../teeth/notation.js';
import { bridges } from './closed-tooth.js';
import type { LookedAt } from './own-scan.js';
import { onRow, placeOnRow, type RowCurve } from './row.js';
import { ofTriangles } from './segment.js';

/**
 * How large a crown looks as it was picked: greatest width along the row, calliper length from the highest facial place
 * of its neck to its edge.
 */
export interface PickedSize {
  readonly widthMm: number;
  readonly lengthMm: number;
}

/** A picked crown seen from its own place in the row; for each of its vertices, mm. */
export interface PickedCrown extends PickedSize {
  readonly tooth: Fdi;
  readonly vertices: Uint32Array;
  /** Along the row to where x grows, 0 to the width. */
  readonly across: Float64Array;
  /** Along the crown from its edge, to its length at the neck. */
  readonly height: Float64Array;
  /** Outward, square to both, from the middle between its outermost and innermost place. */
  readonly outward: Float64Array;
}

type Looked = Pick<LookedAt, 'mesh' | 'smooth' | 'row' | 'neighbourhood' | 'concavity'>;

/**
 * A place faces outward where its normal does by so much: the neck is measured there. The edge is not where a worn one
 * looks inward already. House values.
 */
const FACING = { neck: 0.35, edge: 0.05 } as const;
/** The row's direction at a tooth is taken over so much to both sides, mm. */
const CHORD_MM = 2.5;
/** Further out than this share of its depth a tooth with two cusps has its facial one. House value. */
const FACIAL_CUSP = 0.58;
/** Rounds in which the direction that the length is measured in is taken from the length's own ends. */
const ROUNDS = 3;

/**
 * Picked crowns, each from its own place. The length is measured along the crown itself, from edge to neck, and so
 * hardly depends on how the jaw was laid.
 * @param labels the tooth of each vertex, 0 for gum
 * @param triangles the tooth of each triangle
 */
export function pickedCrowns(
  look: Looked,
  labels: Uint8Array,
  triangles: Uint8Array = ofTriangles(look.mesh, labels, look.neighbourhood, look.concavity),
): Map<Fdi, PickedCrown> {
  const counts = new Uint32Array(256);
  for (let v = 0; v < labels.length; v++) counts[labels[v]] = counts[labels[v]] + 1;
  const own = new Map<Fdi, Uint32Array>();
  const next = new Uint32Array(256);
  for (let v = 0; v < labels.length; v++) {
    const tooth = labels[v];
    if (tooth === 0) continue;
    const list = own.get(tooth) ?? new Uint32Array(counts[tooth]);
    own.set(tooth, list);
    list[next[tooth]] = v;
    next[tooth] = next[tooth] + 1;
  }
  // What a scanner bridges between two teeth is of neither's surface: a place that is on no other triangle of a tooth is
  // not seen.
  const seen = new Uint8Array(labels.length);
  bridges(look.mesh, triangles).forEach((bridge, t) => {
    if (!bridge && triangles[t] !== 0) for (let c = 0; c < 3; c++) seen[look.mesh.triangles[3 * t + c]] = 1;
  });
  const middles = new Map([...own].map(([tooth, vertices]) => [tooth, middleOf(look.mesh, vertices)]));
  const alongs = [...middles.values()].map(([x, y]) => onRow(look.row, x, y).along);
  const ends = [Math.min(...alongs), Math.max(...alongs)] as const;
  return new Map(
    [...own].map(([tooth, vertices]) => {
      const at = middles.get(tooth) as readonly [number, number];
      return [tooth, crownOf(look, { tooth, vertices, at, ends }, seen, labels)];
    }),
  );
}

/** A crown before it is measured: its vertices, their middle in the plane, and how far the row goes, mm along it. */
interface Unmeasured {
  readonly tooth: Fdi;
  readonly vertices: Uint32Array;
  readonly at: readonly [number, number];
  readonly ends: readonly [number, number];
}

function middleOf({ positions: p }: Mesh, vertices: Uint32Array): readonly [number, number] {
  let [x, y] = [0, 0];
  for (const v of vertices) {
    x += p[3 * v] / vertices.length;
    y += p[3 * v + 1] / vertices.length;
  }
  return [x, y];
}

/** The row's direction at a place along it. Beyond its last tooth it is that of the inner side. */
function directionAt(row: RowCurve, along: number, [first, last]: Unmeasured['ends']): readonly [number, number] {
  const [from, to] = [Math.max(first, along - CHORD_MM), Math.min(last, along + CHORD_MM)];
  const far = to > from ? 0 : CHORD_MM;
  const [a, b] = [placeOnRow(row, from - far), placeOnRow(row, to + far)];
  return [b[0] - a[0], b[1] - a[1]];
}

function crownOf(
  { mesh, smooth, row, neighbourhood }: Looked,
  { tooth, vertices, at: [x, y], ends: rowEnds }: Unmeasured,
  seen: Uint8Array,
  labels: Uint8Array,
): PickedCrown {
  const p = mesh.positions;
  const n = smooth.normals;
  const count = vertices.length;
  const [ux, uy] = facingAlong(p, n, vertices, directionAt(row, onRow(row, x, y).along, rowEnds));
  const across = new Float64Array(count);
  const out = new Float64Array(count);
  const up = new Float64Array(count);
  // Where it faces outward, and where the border to the gum lies beside a place: the place itself where none does.
  const looks = new Float64Array(count);
  const border = { out: new Float64Array(count), up: new Float64Array(count) };
  const ends = { all: new Reach(), seen: new Reach() };
  // Outward of the row, as x grows along it and y goes back.
  const outOf = (v: number) => (p[3 * v] - x) * uy - (p[3 * v + 1] - y) * ux;
  let [inner, outer] = [Infinity, -Infinity];
  for (let i = 0; i < count; i++) {
    const v = vertices[i];
    across[i] = (p[3 * v] - x) * ux + (p[3 * v + 1] - y) * uy;
    out[i] = outOf(v);
    up[i] = p[3 * v + 2];
    looks[i] = n[3 * v] * uy - n[3 * v + 1] * ux;
    inner = Math.min(inner, out[i]);
    outer = Math.max(outer, out[i]);
    // It lies half way to the highest gum beside.
    const gum = highestGum(p, neighbourhood, labels, v);
    border.out[i] = gum < 0 ? out[i] : (out[i] + outOf(gum)) / 2;
    border.up[i] = gum < 0 ? up[i] : (up[i] + p[3 * gum + 2]) / 2;
  }
  // The facial of two cusps; an edge may lean back as it likes.
  const front = tooth % 10 > 3 ? inner + FACIAL_CUSP * (outer - inner) : -Infinity;
  let [wayOut, wayUp, lengthMm, edgeAt] = [0, 1, 0, 0];
  for (let r = 0; r < ROUNDS; r++) {
    let [edge, neck] = [0, 0];
    let [low, high] = [Infinity, -Infinity];
    for (let i = 0; i < count; i++) {
      const h = out[i] * wayOut + up[i] * wayUp;
      if (looks[i] > FACING.edge && out[i] >= front && h < low) [low, edge] = [h, i];
      const top = border.out[i] * wayOut + border.up[i] * wayUp;
      if (looks[i] > FACING.neck && top > high) [high, neck] = [top, i];
    }
    if (high <= low) break;
    const [dOut, dUp] = [border.out[neck] - out[edge], border.up[neck] - up[edge]];
    lengthMm = hypot(dOut, dUp);
    [wayOut, wayUp] = [dOut / (lengthMm || 1), dUp / (lengthMm || 1)];
    edgeAt = out[edge] * wayOut + up[edge] * wayUp;
  }
  const height = out.map((o, i) => o * wayOut + up[i] * wayUp - edgeAt);
  const lean = leanOf(across, height, lengthMm);
  const outward = new Float64Array(count);
  [inner, outer] = [Infinity, -Infinity];
  for (let i = 0; i < count; i++) {
    across[i] = across[i] - lean * height[i];
    const o = out[i] * wayUp - up[i] * wayOut;
    outward[i] = o;
    if (height[i] < BELOW_NECK * lengthMm) {
      ends.all.put(across[i]);
      if (seen[vertices[i]]) ends.seen.put(across[i]);
    }
    inner = Math.min(inner, o);
    outer = Math.max(outer, o);
  }
  // Where two teeth meet lies somewhere in what the scanner has bridged between them: half of it counts to each.
  const [least, most] = [(ends.all.least + ends.seen.least) / 2, (ends.all.most + ends.seen.most) / 2];
  const from = Number.isFinite(least) ? least : ends.all.least;
  for (let i = 0; i < count; i++) {
    across[i] = across[i] - from;
    outward[i] = outward[i] - (inner + outer) / 2;
  }
  return { tooth, vertices, across, height, outward, widthMm: Math.max(0, most - from), lengthMm };
}

/** The highest vertex of the gum beside one that stands higher than it; −1 where none does. */
function highestGum(p: Float64Array, n: Neighbourhood, labels: Uint8Array, v: number): number {
  let [best, high] = [-1, p[3 * v + 2]];
  for (let k = n.from[v]; k < n.from[v + 1]; k++) {
    const w = n.beside[k];
    if (labels[w] === 0 && p[3 * w + 2] > high) [best, high] = [w, p[3 * w + 2]];
  }
  return best;
}

/** So many places have to reach as far: on a coarse scan one alone may be its neighbour's. House value. */
const AGREEING = 2;

/** How far numbers reach, so that some agree. */
class Reach {
  private readonly low: number[] = [];
  private readonly high: number[] = [];

  put(v: number): void {
    keep(this.low, v);
    keep(this.high, -v);
  }

  get least(): number {
    return this.low.at(-1) ?? Infinity;
  }

  get most(): number {
    return -(this.high.at(-1) ?? Infinity);
  }
}

/** Keeps the least numbers, rising. */
function keep(least: number[], v: number): void {
  if (least.length === AGREEING && v >= (least[AGREEING - 1] as number)) return;
  let i = least.length;
  while (i > 0 && (least[i - 1] as number) > v) i--;
  least.splice(i, 0, v);
  least.length = Math.min(least.length, AGREEING);
}

/** How far a crown is taken to be turned in its row, cosine; beyond it the row's own direction stands. House value. */
const MOST_TURNED = Math.cos((50 * Math.PI) / 180);

/** The direction in the plane in which a crown is wide: across to where its face looks. @param chord the row's there */
function facingAlong(
  p: Float64Array,
  n: Float64Array,
  vertices: Uint32Array,
  chord: readonly [number, number],
): readonly [number, number] {
  const long = Math.hypot(...chord) || 1;
  const [ux, uy] = [chord[0] / long, chord[1] / long];
  let [low, high] = [Infinity, -Infinity];
  for (const v of vertices) {
    low = Math.min(low, p[3 * v + 2]);
    high = Math.max(high, p[3 * v + 2]);
  }
  // Outward: as x grows along the row and y goes back.
  let [fx, fy] = [uy, -ux];
  for (let r = 0; r < FACE_ROUNDS; r++) {
    let [sx, sy] = [0, 0];
    for (const v of vertices) {
      const h = (p[3 * v + 2] - low) / (high - low || 1);
      if (h < FACE_BAND.from || h > FACE_BAND.to || n[3 * v] * fx + n[3 * v + 1] * fy < FACE_FACING) continue;
      sx += n[3 * v];
      sy += n[3 * v + 1];
    }
    const size = hypot(sx, sy);
    if (size === 0) return [ux, uy];
    [fx, fy] = [sx / size, sy / size];
  }
  const [wx, wy] = [-fy, fx];
  return wx * ux + wy * uy < MOST_TURNED ? [ux, uy] : [wx, wy];
}

/** Of a crown's length, where its face is looked at. */
const FACE_BAND = { from: 0.2, to: 0.75 } as const;
/**
 * Of the face, what looks within so much of its direction, cosine, in so many rounds: at the end of a row the side of a
 * tooth lies bare, and the mean of all that looks outward would turn towards it. House values.
 */
const FACE_FACING = 0.7;
const FACE_ROUNDS = 4;
/** Where its middle is followed from edge to neck, in so many steps. */
const LEAN_BAND = { from: 0.15, to: 0.85, steps: 10 } as const;

/** How far a crown's middle moves along the row for each mm from its edge to its neck. */
function leanOf(across: Float64Array, height: Float64Array, lengthMm: number): number {
  const ends = Array.from({ length: LEAN_BAND.steps }, () => [Infinity, -Infinity] as [number, number]);
  for (let i = 0; i < across.length; i++) {
    const h = height[i] / (lengthMm || 1);
    const k = Math.floor((LEAN_BAND.steps * (h - LEAN_BAND.from)) / (LEAN_BAND.to - LEAN_BAND.from));
    const own = ends[k];
    if (!own) continue;
    own[0] = Math.min(own[0], across[i]);
    own[1] = Math.max(own[1], across[i]);
  }
  const at = ends.flatMap(([a, b], k) =>
    b > a
      ? [
          [
            lengthMm * (LEAN_BAND.from + ((k + 0.5) * (LEAN_BAND.to - LEAN_BAND.from)) / LEAN_BAND.steps),
            (a + b) / 2,
          ] as const,
        ]
      : [],
  );
  const [mh, ms] = [0, 1].map((c) => at.reduce((n, q) => n + q[c as 0 | 1], 0) / (at.length || 1)) as [number, number];
  const [hs, hh] = at.reduce(([p, q], [h, s]) => [p + (h - mh) * (s - ms), q + (h - mh) ** 2], [0, 0]);
  return hh > 0 ? hs / hh : 0;
}
