import { Refusal } from '../../errors.js';
import type { Mesh } from '../../geometry/mesh.js';
import { distance, type Vec3 } from '../../geometry/vec.js';

/** The grid of every guide, mm. House value. */
export const STEP_MM = 0.35;
/** The outer edges of a guide are broken by so much, mm: it lies against lips and tongue. Common practice, no source. */
export const CHAMFER_MM = 1.2;

/** A surface that is seen from one way, on a grid: column by column, each from its first row. */
export interface Seen {
  readonly columns: number;
  readonly rows: number;
  /** How far along the way it is met at each place, mm; not a number where nothing is met. */
  readonly along: Float64Array;
  /** A place of the grid so far along the way. */
  readonly at: (place: number, along: number) => Vec3;
}

/** How a body is made over what is seen, mm: how far off it, how thick, and how narrow it may be between two teeth. */
export interface Slab {
  readonly reliefMm: number;
  readonly thicknessMm: number;
  readonly finMm?: number;
}

/**
 * A closed body before what is seen: the inner sheet follows it, the outer one is smooth and its rims are broken. Its
 * inner sheet is the first half of its places. @throws Refusal `tooth-missing` where nothing is seen at all
 */
export function slabOver(seen: Seen, { reliefMm, thicknessMm, finMm = FIN_MM }: Slab): Mesh {
  const { columns, rows, at } = seen;
  const met = filled(seen.along, columns, rows).map((v) => v - reliefMm);
  const inner = rolled(met, columns, rows, finMm);
  const smooth = smoothed(inner, columns, rows);
  const outer = outside(seen, inner, thicknessMm).map((v, i) => Math.min(v, (smooth[i] as number) - thicknessMm));
  const positions = new Float64Array(6 * inner.length);
  for (let v = 0; v < inner.length; v++) {
    positions.set(at(v, inner[v] as number), 3 * v);
    positions.set(at(v, (outer[v] as number) + brokenAt(seen, v)), 3 * (inner.length + v));
  }
  return { positions, triangles: closedGrid(columns, rows) };
}

/** A sheet everywhere so far outside another, across it and not only along the way: a steep side would be thin. */
function outside({ columns, rows, at }: Seen, inner: Float64Array, mm: number): Float64Array {
  // Across the way only: there the places lie as on a map.
  const [a, b] = [new Float64Array(columns * rows), new Float64Array(columns * rows)];
  const way = along(at);
  for (let v = 0; v < columns * rows; v++) {
    const p = at(v, 0);
    a[v] = p[way === 0 ? 1 : 0];
    b[v] = p[way === 2 ? 1 : 2];
  }
  const reach = Math.ceil(mm / STEP_MM);
  return Float64Array.from(inner, (_, v) => {
    const [i, j] = [Math.floor(v / rows), v % rows];
    let least = Infinity;
    for (let c = Math.max(0, i - reach); c <= Math.min(columns - 1, i + reach); c++)
      for (let r = Math.max(0, j - reach); r <= Math.min(rows - 1, j + reach); r++) {
        const w = c * rows + r;
        const [da, db] = [(a[v] as number) - (a[w] as number), (b[v] as number) - (b[w] as number)];
        const left = mm * mm - da * da - db * db;
        if (left > 0) least = Math.min(least, (inner[w] as number) - Math.sqrt(left));
      }
    return least;
  });
}

/** Which of a place's three numbers says how far along the way it is. */
function along(at: Seen['at']): 0 | 1 | 2 {
  const [p, q] = [at(0, 0), at(0, 1)];
  return ([0, 1, 2] as const).find((c) => p[c] !== q[c]) ?? 1;
}

/** What is taken off at a place of the outer sheet, so that its rims are no edges, mm. */
function brokenAt({ columns, rows, at }: Seen, v: number): number {
  const [i, j] = [Math.floor(v / rows), v % rows];
  const own = at(v, 0);
  const from = (a: number, b: number) => distance(own, at(a * rows + b, 0));
  const rim = (one: number, other: number) => Math.min(CHAMFER_MM, (one + other) / 4) - Math.min(one, other);
  return Math.max(0, rim(from(0, j), from(columns - 1, j)), rim(from(i, 0), from(i, rows - 1)));
}

/** Places at which nothing was met take the middle of those around that have something. */
function filled(seen: Float64Array, columns: number, rows: number): Float64Array {
  const out = Float64Array.from(seen);
  for (let round = 0; out.some(Number.isNaN); round++) {
    if (round > columns + rows) throw new Refusal('tooth-missing', 'Nothing stands where the index would be.', 0);
    const before = Float64Array.from(out);
    for (let v = 0; v < out.length; v++) {
      if (!Number.isNaN(before[v] as number)) continue;
      const [i, j] = [Math.floor(v / rows), v % rows];
      const near = [
        i > 0 ? before[v - rows] : Number.NaN,
        i + 1 < columns ? before[v + rows] : Number.NaN,
        j > 0 ? before[v - 1] : Number.NaN,
        j + 1 < rows ? before[v + 1] : Number.NaN,
      ].filter((y): y is number => y !== undefined && !Number.isNaN(y));
      if (near.length > 0) out[v] = near.reduce((a, b) => a + b, 0) / near.length;
    }
  }
  return out;
}

/** No part of a guide is narrower than twice this where it goes in between two teeth, mm: it would break. House value. */
const FIN_MM = 1.4;

/**
 * A sheet as far as a ball of a radius reaches that is rolled over it from outside: what goes into narrow embrasures is left
 * out, everything else stays.
 */
function rolled(sheet: Float64Array, columns: number, rows: number, finMm: number): Float64Array {
  const reach = Math.ceil(finMm / STEP_MM);
  const round = Array.from({ length: 2 * reach + 1 }, (_, i) =>
    Math.sqrt(Math.max(0, finMm ** 2 - ((i - reach) * STEP_MM) ** 2)),
  );
  const along = (y: Float64Array, step: number, at: (v: number) => number, count: number) => {
    const pass = (of: Float64Array, pick: (a: number, b: number) => number, sign: 1 | -1) =>
      Float64Array.from(of, (_, v) => {
        let best = sign * -Infinity;
        for (let d = -reach; d <= reach; d++) {
          const to = at(v) + d;
          if (to < 0 || to >= count || Math.abs(d * STEP_MM) > finMm) continue;
          best = pick(best, (of[v + d * step] as number) + sign * (round[d + reach] as number));
        }
        return best;
      });
    // Where the ball's middle may be, and from there how far it reaches.
    const middle = pass(y, Math.min, -1);
    return pass(middle, Math.max, 1);
  };
  const across = along(sheet, rows, (v) => Math.floor(v / rows), columns);
  return along(across, 1, (v) => v % rows, rows);
}

/** So often each place takes the mean of those about it. */
const SMOOTH_ROUNDS = 24;

function smoothed(y: Float64Array, columns: number, rows: number): Float64Array {
  let out = Float64Array.from(y);
  for (let round = 0; round < SMOOTH_ROUNDS; round++) {
    const before = out;
    out = Float64Array.from(before, (own, v) => {
      const [i, j] = [Math.floor(v / rows), v % rows];
      const near = [
        v - (i > 0 ? rows : 0),
        v + (i + 1 < columns ? rows : 0),
        v - (j > 0 ? 1 : 0),
        v + (j + 1 < rows ? 1 : 0),
      ];
      return (own + near.reduce((sum, n) => sum + (before[n] as number), 0)) / 5;
    });
  }
  return out;
}

/** Two sheets of the same grid and the rim between them, wound outward: the first sheet is the back. */
function closedGrid(columns: number, rows: number): Uint32Array {
  const count = columns * rows;
  const out: number[] = [];
  const v = (i: number, j: number) => i * rows + j;
  for (let i = 0; i + 1 < columns; i++)
    for (let j = 0; j + 1 < rows; j++) {
      const [a, b, c, d] = [v(i, j), v(i + 1, j), v(i + 1, j + 1), v(i, j + 1)];
      out.push(a, d, c, a, c, b);
      out.push(count + a, count + c, count + d, count + a, count + b, count + c);
    }
  const rim = [
    ...Array.from({ length: columns - 1 }, (_, i) => [v(i, 0), v(i + 1, 0)]),
    ...Array.from({ length: rows - 1 }, (_, j) => [v(columns - 1, j), v(columns - 1, j + 1)]),
    ...Array.from({ length: columns - 1 }, (_, i) => [v(columns - 1 - i, rows - 1), v(columns - 2 - i, rows - 1)]),
    ...Array.from({ length: rows - 1 }, (_, j) => [v(0, rows - 1 - j), v(0, rows - 2 - j)]),
  ] as [number, number][];
  for (const [p, q] of rim) out.push(p, q, count + q, p, count + q, count + p);
  return Uint32Array.from(out);
}
