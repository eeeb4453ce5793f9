import { type Frame, inverse } from './frame.js';
import type { Vec3 } from './vec.js';

/**
 * A triangle mesh. `positions`: x, y, z of each vertex in mm. `triangles`: three vertex indices each, counter-clockwise
 * seen from outside.
 */
export interface Mesh {
  readonly positions: Float64Array;
  readonly triangles: Uint32Array;
}

export interface Bounds {
  readonly min: Vec3;
  readonly max: Vec3;
}

export const vertexCount = (m: Mesh): number => m.positions.length / 3;
export const triangleCount = (m: Mesh): number => m.triangles.length / 3;

export function vertex(m: { readonly positions: ArrayLike<number> }, i: number): Vec3 {
  return [m.positions[3 * i], m.positions[3 * i + 1], m.positions[3 * i + 2]];
}

/** The smallest box that holds all vertices; an empty mesh gives an inverted box. */
export function bounds(m: Mesh): Bounds {
  const min = [Infinity, Infinity, Infinity] as [number, number, number];
  const max = [-Infinity, -Infinity, -Infinity] as [number, number, number];
  for (let i = 0; i < m.positions.length; i++) {
    const v = m.positions[i];
    const k = (i % 3) as 0 | 1 | 2;
    if (v < min[k]) min[k] = v;
    if (v > max[k]) max[k] = v;
  }
  return { min, max };
}

/** The mesh given in a frame, in the frame's parent's coordinates. Vertex order and triangles stay. */
export function placeMesh(m: Mesh, f: Frame): Mesh {
  return { positions: turned(m.positions, f.origin, f.x, f.y, f.z), triangles: m.triangles };
}

/** A mesh's vertices in a frame: the inverse of `placeMesh`. */
export function meshInFrame(m: Mesh, f: Frame): Mesh {
  const { x, y, z } = inverse(f);
  return { positions: turned(m.positions, [0, 0, 0], x, y, z, f.origin), triangles: m.triangles };
}

/** Directions, x, y, z of each, of a frame's parent as the frame has them. */
export const directionsInFrame = (directions: Float64Array, f: Frame): Float64Array => {
  const { x, y, z } = inverse(f);
  return turned(directions, [0, 0, 0], x, y, z);
};

/** `to` + (p − `from`) told along three axes, for each p. Without a vector of its own for each: there are millions. */
function turned(p: Float64Array, to: Vec3, x: Vec3, y: Vec3, z: Vec3, from: Vec3 = [0, 0, 0]): Float64Array {
  const out = new Float64Array(p.length);
  const [fx, fy, fz] = from;
  const [tx, ty, tz] = to;
  const [xx, xy, xz] = x;
  const [yx, yy, yz] = y;
  const [zx, zy, zz] = z;
  for (let i = 0; i < p.length; i += 3) {
    const a = p[i] - fx;
    const b = p[i + 1] - fy;
    const c = p[i + 2] - fz;
    out[i] = tx + (a * xx + b * yx + c * zx);
    out[i + 1] = ty + (a * xy + b * yy + c * zy);
    out[i + 2] = tz + (a * xz + b * yz + c * zz);
  }
  return out;
}

/** Several meshes as one; nothing is welded. */
export function mergeMeshes(meshes: readonly Mesh[]): Mesh {
  const positions = new Float64Array(meshes.reduce((n, m) => n + m.positions.length, 0));
  const triangles = new Uint32Array(meshes.reduce((n, m) => n + m.triangles.length, 0));
  let p = 0;
  let t = 0;
  for (const m of meshes) {
    positions.set(m.positions, p);
    for (let i = 0; i < m.triangles.length; i++) triangles[t + i] = m.triangles[i] + p / 3;
    p += m.positions.length;
    t += m.triangles.length;
  }
  return { positions, triangles };
}

/**
 * Vertices at exactly the same place made one. STL repeats each corner; this gives the connected surface back.
 * Open addressing over the coordinates' hash: a map with text keys took eight times as long.
 */
export function weld(m: Mesh): Mesh {
  const n = vertexCount(m);
  const p = m.positions;
  // An STL has each corner six times: a table that grows with what is kept stays small, and near.
  let size = 2 ** Math.ceil(Math.log2(n / 2 + 2));
  let slots = new Int32Array(size).fill(-1);
  const kept = new Float64Array(p.length);
  const hashes = new Int32Array(n);
  const map = new Uint32Array(n);
  const place = new Float64Array(3);
  const bits = new Uint32Array(place.buffer);
  let count = 0;
  for (let i = 0; i < n; i++) {
    // Adding 0 turns −0 into 0, so that both hash and compare alike.
    const x = p[3 * i] + 0;
    const y = p[3 * i + 1] + 0;
    const z = p[3 * i + 2] + 0;
    place[0] = x;
    place[1] = y;
    place[2] = z;
    let h = 0;
    for (let k = 0; k < 6; k++) {
      h = Math.imul(h ^ bits[k], 0x9e3779b1);
      h ^= h >>> 15;
    }
    let at = h & (size - 1);
    for (;;) {
      const other = slots[at];
      if (other < 0) {
        slots[at] = count;
        kept[3 * count] = x;
        kept[3 * count + 1] = y;
        kept[3 * count + 2] = z;
        hashes[count] = h;
        map[i] = count++;
        break;
      }
      if (kept[3 * other] === x && kept[3 * other + 1] === y && kept[3 * other + 2] === z) {
        map[i] = other;
        break;
      }
      at = (at + 1) & (size - 1);
    }
    if (2 * count < size) continue;
    size *= 4;
    slots = new Int32Array(size).fill(-1);
    for (let own = 0; own < count; own++) {
      let free = hashes[own] & (size - 1);
      while (slots[free] >= 0) free = (free + 1) & (size - 1);
      slots[free] = own;
    }
  }
  const triangles = new Uint32Array(m.triangles.length);
  let t = 0;
  for (let k = 0; k < m.triangles.length; k += 3) {
    const a = map[m.triangles[k]];
    const b = map[m.triangles[k + 1]];
    const c = map[m.triangles[k + 2]];
    if (a === b || b === c || c === a) continue;
    triangles[t++] = a;
    triangles[t++] = b;
    triangles[t++] = c;
  }
  return { positions: kept.slice(0, 3 * count), triangles: triangles.slice(0, t) };
}

/** Unit vertex normals, each triangle weighted by its angle at the vertex (Bærentzen & Aanæs 2005, from memory). */
export function vertexNormals(m: Mesh): Float64Array {
  const p = m.positions;
  const n = new Float64Array(p.length);
  const t = m.triangles;
  for (let k = 0; k < t.length; k += 3) {
    const a = 3 * t[k];
    const b = 3 * t[k + 1];
    const c = 3 * t[k + 2];
    const ux = p[b] - p[a];
    const uy = p[b + 1] - p[a + 1];
    const uz = p[b + 2] - p[a + 2];
    const vx = p[c] - p[a];
    const vy = p[c + 1] - p[a + 1];
    const vz = p[c + 2] - p[a + 2];
    const cx = uy * vz - uz * vy;
    const cy = uz * vx - ux * vz;
    const cz = ux * vy - uy * vx;
    const area2 = Math.sqrt(cx * cx + cy * cy + cz * cz);
    if (area2 === 0) continue;
    const uv = ux * vx + uy * vy + uz * vz;
    const atA = Math.atan2(area2, uv) / area2;
    const atB = Math.atan2(area2, ux * ux + uy * uy + uz * uz - uv) / area2;
    // The three angles are half a turn.
    const atC = Math.PI / area2 - atA - atB;
    n[a] = n[a] + cx * atA;
    n[a + 1] = n[a + 1] + cy * atA;
    n[a + 2] = n[a + 2] + cz * atA;
    n[b] = n[b] + cx * atB;
    n[b + 1] = n[b + 1] + cy * atB;
    n[b + 2] = n[b + 2] + cz * atB;
    n[c] = n[c] + cx * atC;
    n[c + 1] = n[c + 1] + cy * atC;
    n[c + 2] = n[c + 2] + cz * atC;
  }
  for (let i = 0; i < n.length; i += 3) {
    const l = Math.sqrt(n[i] * n[i] + n[i + 1] * n[i + 1] + n[i + 2] * n[i + 2]) || 1;
    n[i] = n[i] / l;
    n[i + 1] = n[i + 1] / l;
    n[i + 2] = n[i + 2] / l;
  }
  return n;
}

/** Enclosed volume in mm³ by the divergence theorem; positive when triangles face outward. Needs a closed mesh. */
export function volume(m: Mesh): number {
  const p = m.positions;
  let six = 0;
  for (let t = 0; t < m.triangles.length; t += 3) {
    const a = 3 * m.triangles[t];
    const b = 3 * m.triangles[t + 1];
    const c = 3 * m.triangles[t + 2];
    const bx = p[b];
    const by = p[b + 1];
    const bz = p[b + 2];
    const cx = p[c];
    const cy = p[c + 1];
    const cz = p[c + 2];
    six += p[a] * (by * cz - bz * cy) + p[a + 1] * (bz * cx - bx * cz) + p[a + 2] * (bx * cy - by * cx);
  }
  return six / 6;
}

/** Surface area in mm². */
export function area(m: Mesh): number {
  let sum = 0;
  for (let t = 0; t < m.triangles.length; t += 3) sum += triangleArea(m, t);
  return sum;
}

/** How far two vertices are apart, mm. By a root: hypot takes five times as long, and this is asked millions of times. */
export function vertexDistance(p: Float64Array, v: number, w: number): number {
  const x = p[3 * w] - p[3 * v];
  const y = p[3 * w + 1] - p[3 * v + 1];
  const z = p[3 * w + 2] - p[3 * v + 2];
  return Math.sqrt(x * x + y * y + z * z);
}

/** Area in mm² of the triangle whose indices begin at `at` in `triangles`. */
export function triangleArea(m: Mesh, at: number): number {
  const p = m.positions;
  const a = 3 * m.triangles[at];
  const b = 3 * m.triangles[at + 1];
  const c = 3 * m.triangles[at + 2];
  const ux = p[b] - p[a];
  const uy = p[b + 1] - p[a + 1];
  const uz = p[b + 2] - p[a + 2];
  const vx = p[c] - p[a];
  const vy = p[c + 1] - p[a + 1];
  const vz = p[c + 2] - p[a + 2];
  const x = uy * vz - uz * vy;
  const y = uz * vx - ux * vz;
  const z = ux * vy - uy * vx;
  return Math.sqrt(x * x + y * y + z * z) / 2;
}

/** Square to the triangle whose indices begin at `at` in `triangles`, outward, twice as long as its area in mm². */
export function triangleNormal(m: Mesh, at: number): Vec3 {
  const p = m.positions;
  const a = 3 * m.triangles[at];
  const b = 3 * m.triangles[at + 1];
  const c = 3 * m.triangles[at + 2];
  const ux = p[b] - p[a];
  const uy = p[b + 1] - p[a + 1];
  const uz = p[b + 2] - p[a + 2];
  const vx = p[c] - p[a];
  const vy = p[c + 1] - p[a + 1];
  const vz = p[c + 2] - p[a + 2];
  return [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
}

/** The part of a surface that stands for each vertex: a third of the triangles around it, mm². */
export function vertexAreas(m: Mesh): Float64Array {
  const out = new Float64Array(vertexCount(m));
  for (let t = 0; t < m.triangles.length; t += 3) {
    const third = triangleArea(m, t) / 3;
    for (let c = 0; c < 3; c++) out[m.triangles[t + c]] += third;
  }
  return out;
}

/**
 * The connected pieces of a mesh, the one with most triangles first. Vertices count as connected where a triangle joins
 * them.
 */
export function pieces(m: Mesh): Mesh[] {
  const root = new Int32Array(m.positions.length / 3).map((_, i) => i);
  const find = (v: number): number => {
    let r = v;
    while (root[r] !== r) r = root[r];
    root[v] = r;
    return r;
  };
  for (let t = 0; t < m.triangles.length; t += 3) {
    const a = find(m.triangles[t]);
    for (const c of [1, 2]) root[find(m.triangles[t + c])] = a;
  }
  const own = new Map<number, number[]>();
  for (let t = 0; t < m.triangles.length; t += 3) {
    const r = find(m.triangles[t]);
    const list = own.get(r) ?? [];
    list.push(m.triangles[t], m.triangles[t + 1], m.triangles[t + 2]);
    own.set(r, list);
  }
  return [...own.values()]
    .sort((p, q) => q.length - p.length)
    .map((corners) => {
      const place = new Map<number, number>();
      const positions: number[] = [];
      const triangles = corners.map((v) => {
        let at = place.get(v);
        if (at === undefined) {
          at = positions.length / 3;
          place.set(v, at);
          positions.push(m.positions[3 * v], m.positions[3 * v + 1], m.positions[3 * v + 2]);
        }
        return at;
      });
      return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
    });
}

/** Some triangles of a surface, as corners in threes, with just the places that they use. */
export function cutOut(positions: Float64Array, corners: readonly number[]): Mesh {
  const to = new Map<number, number>();
  const triangles = Uint32Array.from(corners, (v) => {
    const own = to.get(v) ?? to.size;
    to.set(v, own);
    return own;
  });
  const p = new Float64Array(3 * to.size);
  for (const [v, i] of to) p.set(positions.subarray(3 * v, 3 * v + 3), 3 * i);
  return { positions: p, triangles };
}
