import type { Mesh } from '../geometry/mesh.js';

/** A surface seen on a screen needs no finer grain than this, mm: about four points of a picture. House value. */
const GRAIN_MM = 0.3;

/**
 * A coarse copy of a surface to be looked at while the work on the whole goes on: all vertices of a cell of space are
 * one, at their middle. Where two sheets come nearer than a cell they may touch; loose pieces are left out.
 */
export function glimpse(m: Mesh): Mesh {
  return largestPiece(gathered(m));
}

/** The piece with most triangles, with its own vertices only. */
function largestPiece({ positions: p, triangles: t }: Mesh): Mesh {
  const root = new Uint32Array(p.length / 3).map((_, v) => v);
  const find = (v: number): number => {
    let own = v;
    while (root[own] !== own) {
      root[own] = root[root[own]];
      own = root[own];
    }
    return own;
  };
  for (let k = 0; k < t.length; k += 3) {
    const a = find(t[k]);
    root[find(t[k + 1])] = a;
    root[find(t[k + 2])] = a;
  }
  const sizes = new Uint32Array(root.length);
  let most = 0;
  for (let k = 0; k < t.length; k += 3) {
    const own = find(t[k]);
    sizes[own] = sizes[own] + 1;
    if (sizes[own] > sizes[most]) most = own;
  }
  const to = new Int32Array(root.length).fill(-1);
  const positions = new Float64Array(p.length);
  const triangles = new Uint32Array(3 * (sizes[most] ?? 0));
  let [n, count] = [0, 0];
  for (let k = 0; k < t.length; k++) {
    const v = t[k];
    if (find(v) !== most) continue;
    if (to[v] < 0) {
      to[v] = count++;
      for (let c = 0; c < 3; c++) positions[3 * to[v] + c] = p[3 * v + c];
    }
    triangles[n++] = to[v];
  }
  return { positions: positions.slice(0, 3 * count), triangles };
}

/** All vertices of a cell as one, at their middle; triangles that lie within two cells are gone. */
function gathered(m: Mesh): Mesh {
  const { positions: p, triangles: t } = m;
  const cells = new CellNumbers(p.length / 30);
  const of = new Uint32Array(p.length / 3);
  const sums = new Float64Array(p.length);
  const counts = new Uint32Array(of.length);
  for (let v = 0; v < of.length; v++) {
    const cell = cells.at(
      Math.floor(p[3 * v] / GRAIN_MM),
      Math.floor(p[3 * v + 1] / GRAIN_MM),
      Math.floor(p[3 * v + 2] / GRAIN_MM),
    );
    of[v] = cell;
    counts[cell] = counts[cell] + 1;
    for (let k = 0; k < 3; k++) sums[3 * cell + k] = sums[3 * cell + k] + p[3 * v + k];
  }
  const positions = sums.slice(0, 3 * cells.count);
  for (let i = 0; i < positions.length; i++) positions[i] = positions[i] / counts[(i / 3) | 0];
  const triangles = new Uint32Array(t.length);
  let n = 0;
  for (let k = 0; k < t.length; k += 3) {
    const [a, b, c] = [of[t[k]], of[t[k + 1]], of[t[k + 2]]];
    if (a === b || b === c || c === a) continue;
    triangles[n] = a;
    triangles[n + 1] = b;
    triangles[n + 2] = c;
    n += 3;
  }
  return { positions, triangles: triangles.slice(0, n) };
}

/** Numbers cells as they are met. Open addressing; the table grows with what is in it. */
class CellNumbers {
  count = 0;
  private size: number;
  private slots: Int32Array;
  private places: Int32Array;

  constructor(expected: number) {
    this.size = 2 ** Math.ceil(Math.log2(2 * expected + 16));
    this.slots = new Int32Array(this.size).fill(-1);
    this.places = new Int32Array(3 * this.size);
  }

  at(x: number, y: number, z: number): number {
    const { places } = this;
    let i = this.hash(x, y, z);
    for (let own = this.slots[i]; own >= 0; own = this.slots[i]) {
      if (places[3 * own] === x && places[3 * own + 1] === y && places[3 * own + 2] === z) return own;
      i = (i + 1) & (this.size - 1);
    }
    const own = this.count++;
    this.slots[i] = own;
    places[3 * own] = x;
    places[3 * own + 1] = y;
    places[3 * own + 2] = z;
    if (2 * this.count > this.size) this.grow();
    return own;
  }

  private hash(x: number, y: number, z: number): number {
    const h = Math.imul(x, 0x9e3779b1) ^ Math.imul(y, 0x85ebca6b) ^ Math.imul(z, 0xc2b2ae35);
    return (h ^ (h >>> 15)) & (this.size - 1);
  }

  private grow(): void {
    this.size *= 4;
    const places = new Int32Array(3 * this.size);
    places.set(this.places);
    this.places = places;
    this.slots = new Int32Array(this.size).fill(-1);
    for (let own = 0; own < this.count; own++) {
      let i = this.hash(places[3 * own], places[3 * own + 1], places[3 * own + 2]);
      while (this.slots[i] >= 0) i = (i + 1) & (this.size - 1);
      this.slots[i] = own;
    }
  }
}
