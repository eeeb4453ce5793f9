import { type Adjacency, acrossOf, adjacencyOf, CROWDED, OPEN, openLoops } from '../geometry/adjacency.js';
import { type Mesh, triangleArea, triangleNormal, weld } from '../geometry/mesh.js';
import { DEGENERATE_AREA_MM2 } from '../geometry/validate.js';
import { length, sub, type Vec3 } from '../geometry/vec.js';

export type RepairKind =
  | 'welded'
  | 'degenerate'
  | 'doubled'
  | 'crowded'
  | 'turned'
  | 'inside-out'
  | 'stray'
  | 'filled'
  | 'base';

/** One thing that was done to a surface. */
export interface Repair {
  readonly kind: RepairKind;
  readonly count: number;
  /** In words, with the number. */
  readonly sentence: string;
}

export interface Repaired {
  readonly mesh: Mesh;
  readonly repairs: readonly Repair[];
}

/** Corners nearer than this are the same corner, mm: a hundredth of what a scanner resolves. House limit. */
export const WELD_MM = 0.0005;
/** Holes up to this far around are filled, mm: about what a fold or a drop hides. House limit. */
export const FILL_AROUND_MM = 14;
/** A loose piece of less than this share of the largest is set aside. House limit. */
const STRAY_SHARE = 0.05;

const plural = (n: number, one: string, many: string): string => `${n.toLocaleString('en-GB')} ${n === 1 ? one : many}`;

/**
 * Makes a scanned surface one that can be worked on: corners that fall together joined, triangles without area and
 * doubled ones left out, faces that look the other way turned, loose pieces set aside, small holes filled. Every thing
 * done is told; the mesh that came in is not touched.
 */
export function repaired(m: Mesh): Repaired {
  const repairs: Repair[] = [];
  const tell = (kind: RepairKind, count: number, sentence: string) => {
    if (count > 0) repairs.push({ kind, count, sentence });
  };
  const before = m.positions.length / 3;
  let mesh = weld({ positions: rounded(m.positions), triangles: m.triangles });
  tell(
    'welded',
    before - mesh.positions.length / 3,
    `${plural(before - mesh.positions.length / 3, 'doubled point', 'doubled points')} joined`,
  );

  const whole = withArea(mesh);
  const flat = (m.triangles.length - whole.triangles.length) / 3;
  const sound = eachOnce(whole, acrossOf(whole));
  tell('degenerate', flat, `${plural(flat, 'triangle', 'triangles')} without area left out`);
  tell('doubled', sound.doubled, `${plural(sound.doubled, 'triangle', 'triangles')} that lay twice left out`);

  const held = holdingTogether(sound.mesh, sound.across);
  tell(
    'crowded',
    held.crowded,
    `${plural(held.crowded, 'triangle', 'triangles')} on edges that more than two share left out`,
  );
  const beside = adjacencyOf(held.mesh, held.across);
  // Parting corners and turning faces leave what lies across each edge as it was, but for the order of a turned face's
  // edges.
  const turned = alike(partedAtCorners(held.mesh, beside), beside.across);
  tell('turned', turned.count, `${plural(turned.count, 'face', 'faces')} that looked the other way turned`);
  tell('stray', held.strays, `${plural(held.strays, 'loose piece', 'loose pieces')} set aside`);
  mesh = turned.mesh;
  let { across } = turned;

  let loops = openLoops(mesh, { across });
  if (insideOut(mesh, loops)) {
    mesh = { positions: mesh.positions, triangles: flipped(mesh.triangles) };
    across = across.map((_, k) => across[k % 3 === 0 ? k + 2 : k % 3 === 2 ? k - 2 : k]);
    loops = openLoops(mesh, { across });
    tell(
      'inside-out',
      1,
      'the surface was inside out and is turned; if it was mirrored, left and right are changed over: compare with the mouth',
    );
  }

  const filled = smallHolesFilled(mesh, loops);
  tell('filled', filled.count, `${plural(filled.count, 'small hole', 'small holes')} filled`);
  return { mesh: filled.mesh, repairs };
}

function rounded(positions: Float64Array): Float64Array {
  const out = new Float64Array(positions.length);
  for (let i = 0; i < out.length; i++) out[i] = Math.round(positions[i] / WELD_MM) * WELD_MM;
  return out;
}

function withArea(m: Mesh): Mesh {
  const { triangles: t } = m;
  let n = 0;
  for (let k = 0; k < t.length; k += 3) if (triangleArea(m, k) > DEGENERATE_AREA_MM2) n += 3;
  if (n === t.length) return m;
  const triangles = new Uint32Array(n);
  n = 0;
  for (let k = 0; k < t.length; k += 3) {
    if (!(triangleArea(m, k) > DEGENERATE_AREA_MM2)) continue;
    triangles[n] = t[k];
    triangles[n + 1] = t[k + 1];
    triangles[n + 2] = t[k + 2];
    n += 3;
  }
  return { positions: m.positions, triangles };
}

/** Whether a triangle, by its first edge, may lie twice: one that does shares all its edges with the other. */
function mayLieTwice(across: Int32Array, k: number): boolean {
  const a = across[k];
  const b = across[k + 1];
  const c = across[k + 2];
  return a === CROWDED || b === CROWDED || c === CROWDED || (a >= 0 && a === b && b === c);
}

/** Each triangle once, whichever way its copy looks. @param across of its edges */
function eachOnce(m: Mesh, across: Int32Array): { mesh: Mesh; across: Int32Array; doubled: number } {
  let may = 0;
  for (let t = 0; t < across.length; t += 3) if (mayLieTwice(across, t)) may++;
  if (may === 0) return { mesh: m, across, doubled: 0 };
  const out = new Uint32Array(m.triangles.length);
  let [n, doubled] = [0, 0];
  // Open addressing over the sorted corners: a map with a list for each corner took ten times as long.
  const size = 2 ** Math.ceil(Math.log2(2 * may + 2));
  const slots = new Int32Array(size).fill(-1);
  const sorted = new Uint32Array(m.triangles.length);
  for (let t = 0; t < m.triangles.length; t += 3) {
    if (!mayLieTwice(across, t)) {
      out[n] = m.triangles[t];
      out[n + 1] = m.triangles[t + 1];
      out[n + 2] = m.triangles[t + 2];
      n += 3;
      continue;
    }
    const [a, b, c] = [m.triangles[t], m.triangles[t + 1], m.triangles[t + 2]];
    const least = Math.min(a, b, c);
    const most = Math.max(a, b, c);
    const middle = a + b + c - least - most;
    let h = Math.imul(least, 0x9e3779b1) ^ Math.imul(middle, 0x85ebca6b) ^ Math.imul(most, 0xc2b2ae35);
    h ^= h >>> 15;
    let at = h & (size - 1);
    let same = false;
    for (let other = slots[at]; other >= 0 && !same; other = slots[at]) {
      same = sorted[other] === least && sorted[other + 1] === middle && sorted[other + 2] === most;
      at = (at + 1) & (size - 1);
    }
    if (same) {
      doubled++;
      continue;
    }
    slots[at] = n;
    sorted[n] = least;
    sorted[n + 1] = middle;
    sorted[n + 2] = most;
    out[n] = a;
    out[n + 1] = b;
    out[n + 2] = c;
    n += 3;
  }
  if (doubled === 0) return { mesh: m, across, doubled };
  const mesh = { positions: m.positions, triangles: out.slice(0, n) };
  return { mesh, across: acrossOf(mesh), doubled };
}

/**
 * Without the triangles on edges that more than two share, and without the pieces that are small beside the largest
 * then.
 * @param across of its edges
 */
function holdingTogether(
  m: Mesh,
  across: Int32Array,
): { mesh: Mesh; across: Int32Array; crowded: number; strays: number } {
  const { positions: p, triangles: t } = m;
  const count = t.length / 3;
  /** The piece of each triangle; crowded ones have none. */
  const piece = new Int32Array(count).fill(-1);
  const NONE = -2;
  let crowded = 0;
  for (let k = 0; k < count; k++) {
    if (across[3 * k] !== CROWDED && across[3 * k + 1] !== CROWDED && across[3 * k + 2] !== CROWDED) continue;
    piece[k] = NONE;
    crowded++;
  }
  const sizes: number[] = [];
  const todo = new Int32Array(count);
  for (let start = 0; start < count; start++) {
    if (piece[start] !== -1) continue;
    const id = sizes.length;
    piece[start] = id;
    todo[0] = start;
    let [n, size] = [1, 1];
    // What was met last goes on first: it lies near in memory too.
    while (n > 0) {
      const own = 3 * todo[--n];
      for (let c = own; c < own + 3; c++) {
        const other = across[c];
        if (other < 0 || piece[other] !== -1) continue;
        piece[other] = id;
        todo[n++] = other;
        size++;
      }
    }
    sizes.push(size);
  }
  const most = sizes.reduce((a, b) => Math.max(a, b), 0);
  const strays = sizes.filter((n) => n < STRAY_SHARE * most).length;
  if (strays === 0 && crowded === 0) return { mesh: m, across, crowded, strays };
  const map = new Int32Array(p.length / 3).fill(-1);
  const positions = new Float64Array(p.length);
  const triangles = new Uint32Array(t.length);
  // Where each triangle goes. Of those on a crowded edge none stays: what lies across the others is what lay there.
  const place = new Int32Array(count).fill(OPEN);
  let [kept, v] = [0, 0];
  for (let k = 0; k < count; k++) {
    const own = piece[k];
    if (own < 0 || sizes[own] < STRAY_SHARE * most) continue;
    for (let c = 0; c < 3; c++) {
      const old = t[3 * k + c];
      if (map[old] < 0) {
        map[old] = v;
        for (let x = 0; x < 3; x++) positions[3 * v + x] = p[3 * old + x];
        v++;
      }
      triangles[3 * kept + c] = map[old];
    }
    place[k] = kept++;
  }
  const beside = new Int32Array(3 * kept);
  for (let k = 0; k < count; k++)
    if (place[k] >= 0)
      for (let c = 0; c < 3; c++) {
        const other = across[3 * k + c];
        beside[3 * place[k] + c] = other < 0 ? other : place[other];
      }
  const mesh = { positions: positions.slice(0, 3 * v), triangles: triangles.slice(0, 3 * kept) };
  return { mesh, across: beside, crowded, strays };
}

function joined(a: Float64Array, more: readonly number[]): Float64Array {
  const out = new Float64Array(a.length + more.length);
  out.set(a);
  out.set(more, a.length);
  return out;
}

/**
 * How many of the triangles around a corner hang together across the edges that meet there, from the first on: first
 * the one way round, then the other.
 */
function firstFan(m: Mesh, across: Int32Array, v: number, start: number): number {
  const { triangles } = m;
  let fan = 1;
  for (const side of [0, 2]) {
    let [t, came] = [start, -1];
    for (;;) {
      const c = triangles[3 * t] === v ? 0 : triangles[3 * t + 1] === v ? 1 : 2;
      const leaving = across[3 * t + c];
      const arriving = across[3 * t + ((c + 2) % 3)];
      const next = came < 0 ? (side === 0 ? leaving : arriving) : leaving === came ? arriving : leaving;
      if (next < 0) break;
      if (next === start) return fan;
      [came, t] = [t, next];
      fan++;
    }
  }
  return fan;
}

/** Every fan of triangles around a corner gets a corner of its own. */
export function partedAtCorners(m: Mesh, { across, first, around }: Adjacency = adjacencyOf(m)): Mesh {
  const triangles = m.triangles.slice();
  const more: number[] = [];
  const vertices = m.positions.length / 3;
  const fan = new Int32Array(m.triangles.length / 3).fill(-1);
  for (let v = 0; v < vertices; v++) {
    const i0 = first[v];
    const i1 = first[v + 1];
    if (i1 - i0 < 2 || firstFan(m, across, v, around[i0]) === i1 - i0) continue;
    let fans = 0;
    for (let i = i0; i < i1; i++) fan[around[i]] = -1;
    for (let i = i0; i < i1; i++) {
      if (fan[around[i]] !== -1) continue;
      const own = [around[i]];
      const corner = fans === 0 ? v : vertices + more.length / 3;
      if (fans > 0) more.push(m.positions[3 * v], m.positions[3 * v + 1], m.positions[3 * v + 2]);
      fan[around[i]] = fans;
      for (let q = 0; q < own.length; q++) {
        const t = own[q];
        for (let c = 0; c < 3; c++) if (m.triangles[3 * t + c] === v) triangles[3 * t + c] = corner;
        for (let c = 0; c < 3; c++) {
          const [a, b] = [m.triangles[3 * t + c], m.triangles[3 * t + ((c + 1) % 3)]];
          const other = across[3 * t + c];
          if ((a !== v && b !== v) || other < 0 || fan[other] !== -1) continue;
          fan[other] = fans;
          own.push(other);
        }
      }
      fans++;
    }
  }
  return more.length === 0 ? m : { positions: joined(m.positions, more), triangles };
}

/** Whether no two neighbours look opposite ways: those that look alike run along their edge in opposite directions. */
function looksAlike(m: Mesh, across: Int32Array): boolean {
  const t = m.triangles;
  for (let k = 0; k < across.length; k++) {
    const other = 3 * across[k];
    if (other < 0) continue;
    const a = t[k];
    const b = t[k % 3 === 2 ? k - 2 : k + 1];
    if (
      (t[other] === a && t[other + 1] === b) ||
      (t[other + 1] === a && t[other + 2] === b) ||
      (t[other + 2] === a && t[other] === b)
    )
      return false;
  }
  return true;
}

/**
 * Faces look the way in which most of the surface looks. Groups of faces that look alike are turned as a whole, the
 * largest of each piece stays as it is.
 */
function alike(m: Mesh, across: Int32Array): { mesh: Mesh; across: Int32Array; count: number } {
  const n = m.triangles.length / 3;
  if (looksAlike(m, across)) return { mesh: m, across, count: 0 };
  const runs = (t: number, a: number, b: number): boolean =>
    [0, 1, 2].some((c) => m.triangles[3 * t + c] === a && m.triangles[3 * t + ((c + 1) % 3)] === b);
  const group = new Int32Array(n).fill(-1);
  const areas: number[] = [];
  const members: number[][] = [];
  /** Where groups meet that look opposite ways. */
  const against: (readonly [number, number])[] = [];
  for (let start = 0; start < n; start++) {
    if (group[start] !== -1) continue;
    const id = areas.length;
    group[start] = id;
    const own = [start];
    let area = 0;
    for (let i = 0; i < own.length; i++) {
      const t = own[i];
      area += triangleArea(m, 3 * t);
      for (let c = 0; c < 3; c++) {
        const other = across[3 * t + c];
        if (other < 0) continue;
        // Neighbours that look alike run along their edge in opposite directions.
        if (runs(other, m.triangles[3 * t + c], m.triangles[3 * t + ((c + 1) % 3)])) against.push([t, other]);
        else if (group[other] === -1) {
          group[other] = id;
          own.push(other);
        }
      }
    }
    areas.push(area);
    members.push(own);
  }
  const touching = areas.map(() => new Set<number>());
  for (const [a, b] of against) {
    const [p, q] = [group[a], group[b]];
    if (p !== q) touching[p]?.add(q);
    if (p !== q) touching[q]?.add(p);
  }
  const out = m.triangles.slice();
  const way = new Int8Array(areas.length);
  let count = 0;
  for (const start of areas.map((_, i) => i).sort((p, q) => areas[q] - areas[p])) {
    if (way[start] !== 0) continue;
    way[start] = 1;
    const own = [start];
    for (let i = 0; i < own.length; i++) {
      for (const other of touching[own[i]] ?? []) {
        if (way[other] !== 0) continue;
        way[other] = -way[own[i]];
        own.push(other);
      }
    }
    for (const g of own) {
      if (way[g] !== -1) continue;
      for (const t of members[g] ?? []) {
        [out[3 * t + 1], out[3 * t + 2]] = [out[3 * t + 2], out[3 * t + 1]];
        count++;
      }
    }
  }
  const mesh = { positions: m.positions, triangles: out };
  return { mesh, across: acrossOf(mesh), count };
}

function flipped(triangles: Uint32Array): Uint32Array {
  const out = triangles.slice();
  for (let t = 0; t < out.length; t += 3) [out[t + 1], out[t + 2]] = [out[t + 2], out[t + 1]];
  return out;
}

/**
 * The sum of all faces' normals by area, of an open jaw: what is missing is the side of the roots, so it points where
 * the teeth bite.
 */
export function vectorArea(m: Mesh): Vec3 {
  let [x, y, z] = [0, 0, 0];
  for (let t = 0; t < m.triangles.length; t += 3) {
    const twice = triangleNormal(m, t);
    x += twice[0] / 2;
    y += twice[1] / 2;
    z += twice[2] / 2;
  }
  return [x, y, z];
}

/**
 * Whether an open surface looks towards its border: the border of a jaw lies at the roots, its faces look away from
 * them. @param loops of the open border, longest first
 */
export function insideOut(m: Mesh, [loop]: readonly (readonly number[])[]): boolean {
  const n = vectorArea(m);
  const size = length(n);
  if (size < 1 || !loop || loop.length < 20) return false;
  const { positions: p } = m;
  const height = (v: number) => (n[0] * p[3 * v] + n[1] * p[3 * v + 1] + n[2] * p[3 * v + 2]) / size;
  const border = loop.reduce((s, v) => s + height(v), 0) / loop.length;
  let all = 0;
  for (let v = 0; v < p.length / 3; v++) all += height(v);
  return border > all / (p.length / 3);
}

/** Fills the holes whose border is short; a jaw's own is long. */
function smallHolesFilled(m: Mesh, loops: readonly (readonly number[])[]): { mesh: Mesh; count: number } {
  const at = (v: number): Vec3 => [m.positions[3 * v], m.positions[3 * v + 1], m.positions[3 * v + 2]];
  const small = loops.filter(
    (l) =>
      l.length >= 3 && l.reduce((s, v, i) => s + length(sub(at(v), at(l[(i + 1) % l.length]))), 0) <= FILL_AROUND_MM,
  );
  if (small.length === 0) return { mesh: m, count: 0 };
  return { mesh: withCaps(m, small), count: small.length };
}

/** Each loop closed by a fan around its middle. */
export function withCaps(m: Mesh, loops: readonly (readonly number[])[]): Mesh {
  const more: number[] = [];
  const fans: number[] = [];
  const vertices = m.positions.length / 3;
  for (const loop of loops) {
    if (loop.length === 3) {
      fans.push(loop[0], loop[2], loop[1]);
      continue;
    }
    const middle: [number, number, number] = [0, 0, 0];
    for (const v of loop) for (const k of [0, 1, 2] as const) middle[k] += m.positions[3 * v + k] / loop.length;
    const centre = vertices + more.length / 3;
    more.push(...middle);
    loop.forEach((v, i) => {
      fans.push(loop[(i + 1) % loop.length], v, centre);
    });
  }
  const positions = joined(m.positions, more);
  const triangles = new Uint32Array(m.triangles.length + fans.length);
  triangles.set(m.triangles);
  triangles.set(fans, m.triangles.length);
  return { positions, triangles };
}
