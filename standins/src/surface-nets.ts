import { bounds, type ColumnGrid, type Mesh, spans } from '@radiant/core';

/** Signed distances on a regular grid, mm: negative inside. */
export interface Volume {
  readonly grid: ColumnGrid;
  readonly c0: number;
  readonly nc: number;
  readonly d: Float32Array;
}

/** A place of the grid: i + na·(j + nb·k). */
export const placeOf = (v: Pick<Volume, 'grid'>, i: number, j: number, k: number): number =>
  i + v.grid.na * (j + v.grid.nb * k);

/** Steps around a surface in which distances are true; beyond they only say inside or outside. */
const BAND_STEPS = 1.8;

/**
 * The grid's distance lowered to that of a closed mesh wherever the mesh is nearer.
 * @param cut what is taken off it: how far places (x, y, z) lie in what is gone (+) or in what stays (−), mm
 */
export function addSolid(
  v: Volume,
  mesh: Mesh,
  onNearer: (place: number) => void,
  cut?: (places: Float64Array) => Float64Array,
): void {
  const { grid, c0, nc, d } = v;
  const h = grid.step;
  const band = BAND_STEPS * h;
  const box = bounds(mesh);
  const [oi, oj, ok] = [
    Math.floor((box.min[0] - band - grid.a0) / h),
    Math.floor((box.min[1] - band - grid.b0) / h),
    Math.floor((box.min[2] - band - c0) / h),
  ];
  const [ni, nj, nk] = [
    Math.ceil((box.max[0] + band - grid.a0) / h) - oi + 1,
    Math.ceil((box.max[1] + band - grid.b0) / h) - oj + 1,
    Math.ceil((box.max[2] + band - c0) / h) - ok + 1,
  ];
  const own = (i: number, j: number, k: number) => i - oi + ni * (j - oj + nj * (k - ok));
  const near = new Float32Array(ni * nj * nk).fill(Infinity);
  const { positions: p, triangles: t } = mesh;
  for (let f = 0; f < t.length; f += 3) {
    const a = 3 * t[f];
    const b = 3 * t[f + 1];
    const c = 3 * t[f + 2];
    const ax = p[a];
    const ay = p[a + 1];
    const az = p[a + 2];
    const bx = p[b];
    const by = p[b + 1];
    const bz = p[b + 2];
    const cx = p[c];
    const cy = p[c + 1];
    const cz = p[c + 2];
    const i0 = Math.ceil((Math.min(ax, bx, cx) - band - grid.a0) / h);
    const i1 = Math.floor((Math.max(ax, bx, cx) + band - grid.a0) / h);
    const j0 = Math.ceil((Math.min(ay, by, cy) - band - grid.b0) / h);
    const j1 = Math.floor((Math.max(ay, by, cy) + band - grid.b0) / h);
    const k0 = Math.ceil((Math.min(az, bz, cz) - band - c0) / h);
    const k1 = Math.floor((Math.max(az, bz, cz) + band - c0) / h);
    const ux = bx - ax;
    const uy = by - ay;
    const uz = bz - az;
    const vx = cx - ax;
    const vy = cy - ay;
    const vz = cz - az;
    for (let k = k0; k <= k1; k++)
      for (let j = j0; j <= j1; j++)
        for (let i = i0; i <= i1; i++) {
          const q = squared(ux, uy, uz, vx, vy, vz, grid.a0 + i * h - ax, grid.b0 + j * h - ay, c0 + k * h - az);
          const at = own(i, j, k);
          if (q < near[at]) near[at] = q;
        }
  }
  const inside = new Uint8Array(near.length);
  for (const [column, at] of spans(mesh, [0, 1, 2], grid)) {
    const j = Math.floor(column / grid.na);
    const i = column - j * grid.na;
    for (let s = 0; s < at.length; s += 2) {
      const to = Math.floor((at[s + 1] - c0) / h);
      for (let k = Math.ceil((at[s] - c0) / h); k <= to; k++) inside[own(i, j, k)] = 1;
    }
  }
  const places: number[] = [];
  const values: number[] = [];
  const middles: number[] = [];
  for (let k = Math.max(0, ok); k < Math.min(nc, ok + nk); k++)
    for (let j = Math.max(0, oj); j < Math.min(grid.nb, oj + nj); j++)
      for (let i = Math.max(0, oi); i < Math.min(grid.na, oi + ni); i++) {
        const n = own(i, j, k);
        const q = near[n];
        if (q === Infinity && !inside[n]) continue;
        places.push(placeOf(v, i, j, k));
        values.push((inside[n] ? -1 : 1) * Math.min(band, Math.sqrt(q)));
        if (cut) middles.push(grid.a0 + i * h, grid.b0 + j * h, c0 + k * h);
      }
  const gone = cut?.(Float64Array.from(middles));
  places.forEach((at, n) => {
    const value = gone ? Math.min(band, Math.max(values[n], gone[n])) : values[n];
    if (value >= d[at]) return;
    d[at] = value;
    onNearer(at);
  });
}

/** Squared distance of w from the triangle 0, u, v (Ericson 2005, Real-Time Collision Detection, from memory). */
function squared(
  ux: number,
  uy: number,
  uz: number,
  vx: number,
  vy: number,
  vz: number,
  wx: number,
  wy: number,
  wz: number,
): number {
  const uu = ux * ux + uy * uy + uz * uz;
  const uv = ux * vx + uy * vy + uz * vz;
  const vv = vx * vx + vy * vy + vz * vz;
  const d1 = ux * wx + uy * wy + uz * wz;
  const d2 = vx * wx + vy * wy + vz * wz;
  const det = uu * vv - uv * uv || 1e-30;
  let s = (vv * d1 - uv * d2) / det;
  let t = (uu * d2 - uv * d1) / det;
  const off = (a: number, b: number) =>
    (wx - a * ux - b * vx) ** 2 + (wy - a * uy - b * vy) ** 2 + (wz - a * uz - b * vz) ** 2;
  if (s >= 0 && t >= 0 && s + t <= 1) return off(s, t);
  // The nearest of the three edges.
  s = clamped(d1 / (uu || 1e-30));
  t = clamped(d2 / (vv || 1e-30));
  const third = clamped((d2 - d1 - uv + uu) / (uu - 2 * uv + vv || 1e-30));
  return Math.min(off(s, 0), off(0, t), off(1 - third, third));
}

const clamped = (n: number): number => Math.max(0, Math.min(1, n));

/**
 * The surface on which the distance is nil, as a mesh with one vertex in each cell that it goes through (surface nets,
 * Gibson 1998, from memory), open where it leaves the grid.
 */
export function surfaceOf(v: Volume): Mesh {
  const { grid, c0, nc, d } = v;
  const { na, nb, step: h } = grid;
  const index = new Int32Array(na * nb * nc).fill(-1);
  const positions: number[] = [];
  const corner = [0, 1, na, na + 1, na * nb, na * nb + 1, na * nb + na, na * nb + na + 1];
  const edges: readonly (readonly [number, number])[] = [
    [0, 1],
    [2, 3],
    [4, 5],
    [6, 7],
    [0, 2],
    [1, 3],
    [4, 6],
    [5, 7],
    [0, 4],
    [1, 5],
    [2, 6],
    [3, 7],
  ];
  for (let k = 0; k < nc - 1; k++)
    for (let j = 0; j < nb - 1; j++)
      for (let i = 0; i < na - 1; i++) {
        const at = placeOf(v, i, j, k);
        let mask = 0;
        for (let c = 0; c < 8; c++) if (d[at + corner[c]] < 0) mask |= 1 << c;
        if (mask === 0 || mask === 255) continue;
        let [x, y, z, n] = [0, 0, 0, 0];
        for (const [p, q] of edges) {
          if (((mask >> p) & 1) === ((mask >> q) & 1)) continue;
          const dp = d[at + corner[p]];
          const t = dp / (dp - d[at + corner[q]]);
          x += (p & 1) + t * ((q & 1) - (p & 1));
          y += ((p >> 1) & 1) + t * (((q >> 1) & 1) - ((p >> 1) & 1));
          z += (p >> 2) + t * ((q >> 2) - (p >> 2));
          n++;
        }
        index[at] = positions.length / 3;
        positions.push(grid.a0 + (i + x / n) * h, grid.b0 + (j + y / n) * h, c0 + (k + z / n) * h);
      }
  const triangles: number[] = [];
  const quad = (a: number, b: number, c: number, e: number, out: boolean) => {
    if (a < 0 || b < 0 || c < 0 || e < 0) return;
    if (!out) triangles.push(a, b, c, a, c, e);
    else triangles.push(a, c, b, a, e, c);
  };
  for (let k = 1; k < nc - 1; k++)
    for (let j = 1; j < nb - 1; j++)
      for (let i = 1; i < na - 1; i++) {
        const at = placeOf(v, i, j, k);
        const here = d[at] < 0;
        const [dx, dy, dz] = [1, na, na * nb];
        const cell = (by: number) => index[at - by];
        if (here !== d[at + dx] < 0) quad(cell(0), cell(dy), cell(dy + dz), cell(dz), !here);
        if (here !== d[at + dy] < 0) quad(cell(0), cell(dz), cell(dx + dz), cell(dx), !here);
        if (here !== d[at + dz] < 0) quad(cell(0), cell(dx), cell(dx + dy), cell(dy), !here);
      }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}
