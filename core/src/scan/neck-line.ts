import type { Mesh } from '../geometry/mesh.js';
import { hypot, length, scale, sub, type Vec3 } from '../geometry/vec.js';
import type { Fdi } from '../teeth/notation.js';
import type { WholeScan } from './own-scan.js';

/** A surface and which of its vertices hang together. */
type Hangs = Pick<WholeScan, 'mesh' | 'neighbourhood'>;

const GUM = 0;
/** A pull carries the line along to each side of the hand so far, mm. House value: about a third of a lateral. */
export const PULL_SIDE_MM = 2.4;
/** What lies further from where the hand took the line than the pull and this is left alone, mm. */
const AROUND_MM = 3;

/**
 * How far the line goes along, beside the hand: 1 under it, 0 from `PULL_SIDE_MM` on. @param asideMm across the pull
 */
export function pullShare(asideMm: number): number {
  const k = asideMm / PULL_SIDE_MM;
  return k >= 1 ? 0 : (1 - k * k) ** 2;
}

/** Rounds by which the line is drawn towards its own middle: the steps of the triangles go, its course stays. */
const LINE_ROUNDS = 4;

/** A line while it is put together: places on edges of the surface, and which two each piece joins. */
interface Pieces {
  readonly places: number[];
  readonly joins: number[];
  /** The place of each crossed edge. */
  readonly known: Map<number, number>;
}

/**
 * The line between each tooth and the gum, as pieces of two points each (x, y, z, x, y, z, mm), lifted off the surface
 * so that it can be seen.
 * @param n unit normal of each vertex
 * @param labels the tooth of each vertex, 0 for gum
 */
export function neckLines(mesh: Mesh, n: Float64Array, labels: Uint8Array, liftMm = 0.1): Map<Fdi, Float32Array> {
  const p = mesh.positions;
  const lines = new Map<Fdi, Pieces>();
  for (let t = 0; t < mesh.triangles.length; t += 3) {
    const corners = [mesh.triangles[t], mesh.triangles[t + 1], mesh.triangles[t + 2]] as const;
    const own = corners.map((v) => labels[v]);
    const tooth = Math.max(...own);
    // A corner that three meet in belongs to no single line.
    if (tooth === GUM || !own.includes(GUM) || own.some((l) => l !== GUM && l !== tooth)) continue;
    const line: Pieces = lines.get(tooth) ?? { places: [], joins: [], known: new Map() };
    lines.set(tooth, line);
    for (let c = 0; c < 3; c++) {
      const [a, b] = [corners[c], corners[(c + 1) % 3]];
      if (labels[a] === labels[b]) continue;
      const key = Math.min(a, b) * labels.length + Math.max(a, b);
      let at = line.known.get(key);
      if (at === undefined) {
        at = line.places.length / 3;
        line.known.set(key, at);
        for (let k = 0; k < 3; k++)
          line.places.push((p[3 * a + k] + p[3 * b + k] + liftMm * (n[3 * a + k] + n[3 * b + k])) / 2);
      }
      line.joins.push(at);
    }
  }
  return new Map([...lines].map(([tooth, line]) => [tooth, smoothLine(line)]));
}

function smoothLine({ places, joins }: Pieces): Float32Array {
  let at = Float64Array.from(places);
  for (let r = 0; r < LINE_ROUNDS; r++) {
    const sums = new Float64Array(at.length);
    const counts = new Uint8Array(at.length / 3);
    for (let i = 0; i < joins.length; i += 2)
      for (const [a, b] of [
        [joins[i], joins[i + 1]],
        [joins[i + 1], joins[i]],
      ] as const) {
        counts[a] = counts[a] + 1;
        for (let k = 0; k < 3; k++) sums[3 * a + k] = sums[3 * a + k] + at[3 * b + k];
      }
    // Its ends stay where they are.
    at = at.map((v, i) => (counts[Math.floor(i / 3)] === 2 ? v / 2 + sums[i] / 4 : v));
  }
  const out = new Float32Array(3 * joins.length);
  joins.forEach((j, i) => {
    out.set(at.subarray(3 * j, 3 * j + 3), 3 * i);
  });
  return out;
}

/**
 * Pulls the line between a tooth and the gum from one place of the surface to another; beside the hand it follows less
 * and less. What lies around is told as well, so that the line stays there where it was pulled to.
 * @param labels the tooth of each vertex, 0 for gum
 * @param from on the line, in the arch's own frame, mm
 * @returns the tooth, or 0, of every vertex about the pull that is that tooth's or gum
 */
export function pulledLine(look: Hangs, labels: Uint8Array, tooth: Fdi, from: Vec3, to: Vec3): Map<number, Fdi | 0> {
  const pull = sub(to, from);
  const far = length(pull);
  const out = new Map<number, Fdi | 0>();
  if (far === 0) return out;
  const way = scale(pull, 1 / far);
  const about = around(look, from, far + AROUND_MM);
  const p = look.mesh.positions;
  const near = nearestOf(about, p);
  for (const v of about) {
    const old = labels[v];
    if (old !== GUM && old !== tooth) continue;
    const d: Vec3 = [p[3 * v] - from[0], p[3 * v + 1] - from[1], p[3 * v + 2] - from[2]];
    const along = d[0] * way[0] + d[1] * way[1] + d[2] * way[2];
    const aside = Math.sqrt(Math.max(0, d[0] ** 2 + d[1] ** 2 + d[2] ** 2 - along ** 2));
    const by = far * pullShare(aside);
    // A place becomes what lay where it was carried from.
    const source =
      by === 0 ? v : near([p[3 * v] - by * way[0], p[3 * v + 1] - by * way[1], p[3 * v + 2] - by * way[2]]);
    const label = labels[source];
    out.set(v, label === GUM || label === tooth ? label : old);
  }
  return out;
}

/** The vertices that hang together with the one nearest to a place, within a distance of it. */
function around(look: Hangs, at: Vec3, reachMm: number): number[] {
  const p = look.mesh.positions;
  const offOf = (v: number) => hypot(p[3 * v] - at[0], p[3 * v + 1] - at[1], p[3 * v + 2] - at[2]);
  let start = 0;
  for (let v = 1; v < p.length / 3; v++) if (offOf(v) < offOf(start)) start = v;
  const seen = new Set([start]);
  const list = [start];
  for (let i = 0; i < list.length; i++) {
    const v = list[i];
    for (let k = look.neighbourhood.from[v]; k < look.neighbourhood.from[v + 1]; k++) {
      const w = look.neighbourhood.beside[k];
      if (seen.has(w) || offOf(w) > reachMm) continue;
      seen.add(w);
      list.push(w);
    }
  }
  return list;
}

const CELL_MM = 0.5;

/** Finds the nearest of some vertices, by cells in space. */
function nearestOf(vertices: readonly number[], p: Float64Array): (at: Vec3) => number {
  const cells = new Map<string, number[]>();
  const cell = (v: number) => Math.floor(v / CELL_MM);
  for (const v of vertices) {
    const key = `${cell(p[3 * v])} ${cell(p[3 * v + 1])} ${cell(p[3 * v + 2])}`;
    const own = cells.get(key);
    if (own) own.push(v);
    else cells.set(key, [v]);
  }
  return (at) => {
    let best = -1;
    let least = Infinity;
    // Rings of cells outward, one more than the first that holds something: the nearest may lie in a corner.
    let last = 12;
    for (let r = 0; r <= last; r++) {
      for (let x = -r; x <= r; x++)
        for (let y = -r; y <= r; y++)
          for (let z = -r; z <= r; z++) {
            if (Math.max(Math.abs(x), Math.abs(y), Math.abs(z)) !== r) continue;
            for (const v of cells.get(`${cell(at[0]) + x} ${cell(at[1]) + y} ${cell(at[2]) + z}`) ?? []) {
              const d = (p[3 * v] - at[0]) ** 2 + (p[3 * v + 1] - at[1]) ** 2 + (p[3 * v + 2] - at[2]) ** 2;
              if (d >= least) continue;
              least = d;
              best = v;
            }
          }
      if (best >= 0 && last === 12) last = Math.min(12, r + 1);
    }
    return best < 0 ? vertices[0] : best;
  };
}
