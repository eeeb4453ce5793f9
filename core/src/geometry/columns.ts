import type { Mesh } from './mesh.js';

/** A grid of parallel columns over a plane: their middles lie at a0 + i·step, b0 + j·step, mm. */
export interface ColumnGrid {
  readonly a0: number;
  readonly b0: number;
  readonly step: number;
  readonly na: number;
  readonly nb: number;
}

/** Which coordinate runs across, which up, and which along the columns: 0 x, 1 y, 2 z. */
export type Axes = readonly [across: 0 | 1 | 2, up: 0 | 1 | 2, along: 0 | 1 | 2];

/** A grid that covers a rectangle with a margin of one step. */
export function gridOver(min: readonly [number, number], max: readonly [number, number], step: number): ColumnGrid {
  // A little off any round number, and not alike both ways, so that no column runs exactly along the edges of a regular
  // mesh.
  const a0 = Math.floor(min[0] / step - 1) * step + step * 0.0137;
  const b0 = Math.floor(min[1] / step - 1) * step + step * 0.0291;
  return { a0, b0, step, na: Math.ceil((max[0] - a0) / step) + 1, nb: Math.ceil((max[1] - b0) / step) + 1 };
}

/**
 * Calls for each place where a column meets a triangle of the mesh.
 * @param meet the column's number j·na + i, and the coordinate along it, mm
 */
export function eachMeeting(
  mesh: Mesh,
  axes: Axes,
  grid: ColumnGrid,
  meet: (column: number, along: number) => void,
): void {
  const { positions: p, triangles } = mesh;
  const [ia, ib, id] = axes;
  const { a0, b0, step, na, nb } = grid;
  for (let t = 0; t < triangles.length; t += 3) {
    const u = 3 * triangles[t];
    const v = 3 * triangles[t + 1];
    const w = 3 * triangles[t + 2];
    const [ua, ub, va, vb, wa, wb] = [p[u + ia], p[u + ib], p[v + ia], p[v + ib], p[w + ia], p[w + ib]] as [
      number,
      number,
      number,
      number,
      number,
      number,
    ];
    const twice = (va - ua) * (wb - ub) - (wa - ua) * (vb - ub);
    if (twice === 0) continue;
    const i0 = Math.max(0, Math.ceil((Math.min(ua, va, wa) - a0) / step));
    const i1 = Math.min(na - 1, Math.floor((Math.max(ua, va, wa) - a0) / step));
    const j0 = Math.max(0, Math.ceil((Math.min(ub, vb, wb) - b0) / step));
    const j1 = Math.min(nb - 1, Math.floor((Math.max(ub, vb, wb) - b0) / step));
    for (let j = j0; j <= j1; j++) {
      const b = b0 + j * step;
      for (let i = i0; i <= i1; i++) {
        const a = a0 + i * step;
        const k1 = ((a - ua) * (wb - ub) - (wa - ua) * (b - ub)) / twice;
        const k2 = ((va - ua) * (b - ub) - (a - ua) * (vb - ub)) / twice;
        if (k1 < 0 || k2 < 0 || k1 + k2 > 1) continue;
        meet(j * na + i, p[u + id] * (1 - k1 - k2) + p[v + id] * k1 + p[w + id] * k2);
      }
    }
  }
}

/**
 * For each column that meets a closed mesh, where it goes in and out: pairs in rising order. Columns that only graze it
 * are left out.
 */
export function spans(mesh: Mesh, axes: Axes, grid: ColumnGrid): Map<number, number[]> {
  const out = new Map<number, number[]>();
  eachMeeting(mesh, axes, grid, (column, along) => {
    const own = out.get(column);
    if (own) own.push(along);
    else out.set(column, [along]);
  });
  for (const [column, own] of out) {
    if (own.length % 2 === 1) out.delete(column);
    else own.sort((x, y) => x - y);
  }
  return out;
}

/** Length that lies in the first list of spans and not in the second. */
export function lengthOutside(inside: readonly number[], other: readonly number[]): number {
  let sum = 0;
  for (let i = 0; i < inside.length; i += 2) {
    const from = inside[i];
    const to = inside[i + 1];
    sum += to - from;
    for (let k = 0; k < other.length; k += 2) sum -= Math.max(0, Math.min(to, other[k + 1]) - Math.max(from, other[k]));
  }
  return sum;
}
