import { cross, dot, hypot, normalize, sub, type Vec3 } from '../geometry/vec.js';

/** A wall of places once around an axis, row over row. */
export interface Wall {
  /** Places of a row; the last one is beside the first. */
  readonly angles: number;
  readonly rows: number;
  /** x, y and z of each place and of the tip to which the last row is closed, mm; changed where a place is left standing. */
  readonly at: Float64Array;
  /** The directions from the axis, unit vectors. */
  readonly directions: readonly Vec3[];
}

/** What hides a place lies at least so far before it, mm: nearer it is the wall's own grain. House value. */
const HIDES_MM = 0.04;
/** A place is led so far past what hides it, mm. House value. */
const PAST_MM = 0.003;
/** What moved is asked about again, so many times at most: each takes the places behind a bit further. */
const ROUNDS = 60;
/** So far off the wall it is asked again, mm, and so many times: a scan tells no less. House values. */
const PIT_MM = 0.02;
const PIT_ROUNDS = 12;
const NOWHERE: Vec3 = [0, 0, 0];
/** Halvings of how far a place stands out. */
const HALVINGS = 10;

/**
 * Leaves standing what could not come out: each place that is cut and is hidden on the way out by another part of the
 * wall is moved outward until it is free or not cut at all. Exact between the places as well, since what hides is
 * asked of the triangles and not of a picture of them. Each place moves outward only, so that it ends.
 * @param whole how far from the axis each place stands where nothing is cut, mm; such a place is left alone
 * @param way a unit vector
 * @returns how much less is cut at each place, mm along its direction
 */
export function blockOut(wall: Wall, whole: (place: number) => number, way: Vec3): ReadonlyMap<number, number> {
  const { at, angles, rows, directions } = wall;
  const first = new Map<number, number>();
  const radius = (i: number) => hypot(at[3 * i] as number, at[3 * i + 1] as number);
  const seen = new SeenAlong(wall, way);
  const cut: number[] = [];
  for (let i = 0; i < angles * rows; i++) if (radius(i) < whole(i) - 1e-9) cut.push(i);
  const free = (i: number, off: Vec3) => {
    const [ux, uy] = directions[i % angles] as Vec3;
    const [from, full] = [radius(i), whole(i)];
    if (full - from < 1e-9 || !seen.hides(i, from * ux, from * uy, off)) return;
    let [low, high] = [from, full];
    if (!seen.hides(i, full * ux, full * uy, off))
      for (let n = 0; n < HALVINGS && high - low > PAST_MM / 2; n++) {
        const middle = (low + high) / 2;
        if (seen.hides(i, middle * ux, middle * uy, off)) low = middle;
        else high = middle;
      }
    const to = Math.min(full, high + PAST_MM);
    if (!first.has(i)) first.set(i, from);
    seen.move(i, to * ux, to * uy);
  };
  let ask = cut;
  for (let round = 0; round < ROUNDS && ask.length > 0; round++) {
    seen.settle();
    for (const i of ask) free(i, NOWHERE);
    ask = seen.changedAmong(cut);
  }
  // Between places a pit may still lie under a rim that no place shows: each is asked a little off the wall as well.
  ask = cut;
  for (let round = 0; round < PIT_ROUNDS && ask.length > 0; round++) {
    seen.settle();
    for (const i of ask) {
      const n = normalAt(wall, i);
      free(i, [PIT_MM * (n[0] + way[0]), PIT_MM * (n[1] + way[1]), PIT_MM * (n[2] + way[2])]);
    }
    ask = seen.changedAmong(cut);
  }
  return new Map([...first].map(([i, from]) => [i, radius(i) - from]));
}

/** Where a place of a wall looks: the mean of its triangles, each by its angle there. */
function normalAt({ at, angles, rows }: Wall, i: number): Vec3 {
  const [row, k] = [Math.floor(i / angles), i % angles];
  const place = (r: number, a: number) => 3 * (Math.max(0, Math.min(rows - 1, r)) * angles + ((a + angles) % angles));
  const fan = [
    place(row, k + 1),
    place(row + 1, k + 1),
    place(row + 1, k),
    place(row, k - 1),
    place(row - 1, k - 1),
    place(row - 1, k),
  ];
  const own: Vec3 = [at[3 * i] as number, at[3 * i + 1] as number, at[3 * i + 2] as number];
  const arms = fan.map((p): Vec3 => sub([at[p] as number, at[p + 1] as number, at[p + 2] as number], own));
  let [x, y, z] = [0, 0, 0];
  for (let n = 0; n < 6; n++) {
    const [u, v] = [arms[n] as Vec3, arms[(n + 1) % 6] as Vec3];
    const [cx, cy, cz] = cross(u, v);
    const area2 = Math.sqrt(cx * cx + cy * cy + cz * cz);
    if (area2 === 0) continue;
    const w = Math.atan2(area2, dot(u, v)) / area2;
    x += cx * w;
    y += cy * w;
    z += cz * w;
  }
  return normalize([x, y, z]);
}

/** Side of a cell, mm: a few triangles of a target fall into each. */
const CELL_MM = 0.15;

/** A wall as it is seen from outside along the way out: which triangles lie over a place. */
class SeenAlong {
  /** Of each place and the tip: where it is seen, two numbers, and how far out along the way it lies. */
  private readonly flat: Float64Array;
  private readonly corners: Uint32Array;
  /** Triangles by cell: those of cell c stand in `entries` from `cells[c]` to `cells[c + 1]`. */
  private readonly cells: Int32Array;
  private readonly entries: Int32Array;
  /** Of each cell how far out its triangles reach at most. */
  private readonly most: Float64Array;
  /** Triangles that came into a cell since, and the cells in which something moved. */
  private readonly came = new Map<number, number[]>();
  private readonly changed = new Set<number>();
  private readonly e1: Vec3;
  private readonly e2: Vec3;
  private readonly across: number;
  private readonly down: number;
  private x0 = Infinity;
  private y0 = Infinity;

  constructor(
    private readonly wall: Wall,
    private readonly way: Vec3,
  ) {
    const { at, angles, rows } = wall;
    this.e1 = normalize(cross(way, Math.abs(way[0]) < 0.9 ? [1, 0, 0] : [0, 1, 0]));
    this.e2 = cross(way, this.e1);
    const count = angles * rows;
    this.flat = new Float64Array(3 * count + 3);
    let [x1, y1] = [-Infinity, -Infinity];
    for (let i = 0; i <= count; i++) {
      this.tell(i, at[3 * i] as number, at[3 * i + 1] as number, at[3 * i + 2] as number);
      const [x, y] = [this.flat[3 * i] as number, this.flat[3 * i + 1] as number];
      if (x < this.x0) this.x0 = x;
      if (y < this.y0) this.y0 = y;
      if (x > x1) x1 = x;
      if (y > y1) y1 = y;
    }
    this.across = Math.floor((x1 - this.x0) / CELL_MM) + 1;
    this.down = Math.floor((y1 - this.y0) / CELL_MM) + 1;
    this.corners = known(angles, rows);
    const triangles = this.corners.length / 3;
    const spans = new Int32Array(4 * triangles);
    const sizes = new Int32Array(this.across * this.down + 1);
    for (let n = 0; n < triangles; n++) {
      if (!this.faces(3 * n)) {
        spans[4 * n + 1] = -1;
        continue;
      }
      this.span(3 * n, spans, 4 * n);
      for (let j = spans[4 * n + 2] as number; j <= (spans[4 * n + 3] as number); j++)
        for (let i = spans[4 * n] as number; i <= (spans[4 * n + 1] as number); i++) {
          const c = j * this.across + i + 1;
          sizes[c] = (sizes[c] as number) + 1;
        }
    }
    for (let c = 0; c < this.across * this.down; c++) sizes[c + 1] = (sizes[c + 1] as number) + (sizes[c] as number);
    this.cells = sizes;
    this.entries = new Int32Array(sizes[this.across * this.down] as number);
    this.most = new Float64Array(this.across * this.down).fill(-Infinity);
    const filled = sizes.slice();
    for (let n = 0; n < triangles; n++) {
      if ((spans[4 * n + 1] as number) < 0) continue;
      const out = this.reach(n);
      for (let j = spans[4 * n + 2] as number; j <= (spans[4 * n + 3] as number); j++)
        for (let i = spans[4 * n] as number; i <= (spans[4 * n + 1] as number); i++) {
          const c = j * this.across + i;
          const at = filled[c] as number;
          this.entries[at] = n;
          filled[c] = at + 1;
          if (out > (this.most[c] as number)) this.most[c] = out;
        }
    }
  }

  /** Whether a part of the wall lies before a place that is moved to x and y, asked so far off it. */
  hides(place: number, atX: number, atY: number, off: Vec3): boolean {
    const { e1, e2, way } = this;
    const x = atX + off[0];
    const y = atY + off[1];
    const height = this.wall.at[3 * place + 2] as number;
    const z = height + off[2];
    this.tell(place, atX, atY, height);
    const px = e1[0] * x + e1[1] * y + e1[2] * z;
    const py = e2[0] * x + e2[1] * y + e2[2] * z;
    const t = way[0] * x + way[1] * y + way[2] * z;
    const i = Math.floor((px - this.x0) / CELL_MM);
    const j = Math.floor((py - this.y0) / CELL_MM);
    if (i < 0 || j < 0 || i >= this.across || j >= this.down) return false;
    const cell = j * this.across + i;
    const far = t + HIDES_MM;
    if ((this.most[cell] as number) <= far) return false;
    for (let e = this.cells[cell] as number; e < (this.cells[cell + 1] as number); e++)
      if (this.over(this.entries[e] as number, px, py, far)) return true;
    return this.came.get(cell)?.some((n) => this.over(n, px, py, far)) ?? false;
  }

  /** Whether a triangle lies over a point and further out than `far`. Asked for most: no lists are made here. */
  private over(triangle: number, px: number, py: number, far: number): boolean {
    const { flat, corners } = this;
    const a = corners[3 * triangle] as number;
    const b = corners[3 * triangle + 1] as number;
    const c = corners[3 * triangle + 2] as number;
    const at = flat[3 * a + 2] as number;
    const bt = flat[3 * b + 2] as number;
    const ct = flat[3 * c + 2] as number;
    if (at < far && bt < far && ct < far) return false;
    const ax = (flat[3 * a] as number) - px;
    const bx = (flat[3 * b] as number) - px;
    const cx = (flat[3 * c] as number) - px;
    const ay = (flat[3 * a + 1] as number) - py;
    const by = (flat[3 * b + 1] as number) - py;
    const cy = (flat[3 * c + 1] as number) - py;
    const wa = bx * cy - by * cx;
    const wb = cx * ay - cy * ax;
    const wc = ax * by - ay * bx;
    if ((wa < 0 || wb < 0 || wc < 0) && (wa > 0 || wb > 0 || wc > 0)) return false;
    const sum = wa + wb + wc;
    return sum !== 0 && (wa * at + wb * bt + wc * ct) / sum > far;
  }

  /** Moves a place of the wall; what it belongs to is looked for where it now lies. */
  move(place: number, x: number, y: number): void {
    const { wall, across, changed } = this;
    const { at, angles, rows } = wall;
    at[3 * place] = x;
    at[3 * place + 1] = y;
    this.tell(place, x, y, at[3 * place + 2] as number);
    const [row, k] = [Math.floor(place / angles), place % angles];
    const span = new Int32Array(4);
    for (const r of [row - 1, row])
      for (const a of [(k + angles - 1) % angles, k])
        for (const half of [0, 1]) {
          if (r < 0 || r + 1 >= rows) continue;
          const n = 2 * (r * angles + a) + half;
          this.span(3 * n, span, 0);
          const [i0, i1, j0, j1] = span as unknown as [number, number, number, number];
          const faces = this.faces(3 * n);
          const out = this.reach(n);
          for (let j = Math.max(0, j0); j <= Math.min(this.down - 1, j1); j++)
            for (let i = Math.max(0, i0); i <= Math.min(across - 1, i1); i++) {
              const cell = j * across + i;
              changed.add(cell);
              if (!faces) continue;
              if (out > (this.most[cell] as number)) this.most[cell] = out;
              const list = this.came.get(cell);
              if (!list) this.came.set(cell, [n]);
              else if (!list.includes(n)) list.push(n);
            }
        }
  }

  /** Forgets what moved so far. */
  settle(): void {
    this.changed.clear();
  }

  /** Those of some places that are seen where something moved since. */
  changedAmong(places: readonly number[]): number[] {
    if (this.changed.size === 0) return [];
    const { flat, x0, y0, across, changed } = this;
    return places.filter((p) => {
      const i = Math.floor(((flat[3 * p] as number) - x0) / CELL_MM);
      const j = Math.floor(((flat[3 * p + 1] as number) - y0) / CELL_MM);
      return changed.has(j * across + i);
    });
  }

  /** How far out a triangle reaches. */
  private reach(triangle: number): number {
    const { flat, corners } = this;
    const a = flat[3 * (corners[3 * triangle] as number) + 2] as number;
    const b = flat[3 * (corners[3 * triangle + 1] as number) + 2] as number;
    const c = flat[3 * (corners[3 * triangle + 2] as number) + 2] as number;
    return Math.max(a, b, c);
  }

  private tell(place: number, x: number, y: number, z: number): void {
    const { e1, e2, way, flat } = this;
    flat[3 * place] = e1[0] * x + e1[1] * y + e1[2] * z;
    flat[3 * place + 1] = e2[0] * x + e2[1] * y + e2[2] * z;
    flat[3 * place + 2] = way[0] * x + way[1] * y + way[2] * z;
  }

  /** What hides ends on a side that looks out along the way: the others need not be asked. */
  private faces(n: number): boolean {
    const { flat, corners } = this;
    const a = 3 * (corners[n] as number);
    const b = 3 * (corners[n + 1] as number);
    const c = 3 * (corners[n + 2] as number);
    const ax = flat[a] as number;
    const ay = flat[a + 1] as number;
    return (
      ((flat[b] as number) - ax) * ((flat[c + 1] as number) - ay) >
      ((flat[b + 1] as number) - ay) * ((flat[c] as number) - ax)
    );
  }

  /** The cells that a triangle may touch: from and to across, from and to down. */
  private span(n: number, out: Int32Array, at: number): void {
    const { flat, corners, x0, y0 } = this;
    const a = 3 * (corners[n] as number);
    const b = 3 * (corners[n + 1] as number);
    const c = 3 * (corners[n + 2] as number);
    const ax = flat[a] as number;
    const bx = flat[b] as number;
    const cx = flat[c] as number;
    const ay = flat[a + 1] as number;
    const by = flat[b + 1] as number;
    const cy = flat[c + 1] as number;
    out[at] = Math.floor((Math.min(ax, bx, cx) - x0) / CELL_MM);
    out[at + 1] = Math.floor((Math.max(ax, bx, cx) - x0) / CELL_MM);
    out[at + 2] = Math.floor((Math.min(ay, by, cy) - y0) / CELL_MM);
    out[at + 3] = Math.floor((Math.max(ay, by, cy) - y0) / CELL_MM);
  }
}

/** The triangles of every wall of a size are the same ones. */
const knownTriangles = new Map<string, Uint32Array>();
function known(angles: number, rows: number): Uint32Array {
  const key = `${angles} ${rows}`;
  const own = knownTriangles.get(key) ?? trianglesOf(angles, rows);
  knownTriangles.set(key, own);
  return own;
}

/** Two triangles between four places, and one from each two of the last row to the tip; they look outward. */
function trianglesOf(angles: number, rows: number): Uint32Array {
  const out = new Uint32Array(3 * (2 * angles * (rows - 1) + angles));
  let n = 0;
  for (let row = 0; row + 1 < rows; row++)
    for (let k = 0; k < angles; k++) {
      const next = (k + 1) % angles;
      const [a, b, c, d] = [row * angles + k, row * angles + next, (row + 1) * angles + k, (row + 1) * angles + next];
      out.set([a, d, c, a, b, d], n);
      n += 6;
    }
  const last = (rows - 1) * angles;
  for (let k = 0; k < angles; k++) {
    out.set([last + k, last + ((k + 1) % angles), rows * angles], n);
    n += 3;
  }
  return out;
}
