import type { ColumnGrid } from '../geometry/columns.js';
import type { Mesh } from '../geometry/mesh.js';
import { hypot } from '../geometry/vec.js';
import type { Missing, MissingColumn, Stretch } from './missing.js';
import { type DirectSettings, LAYER_ORDER, type LayerName } from './words.js';

/** One layer as a body: in each column one stretch from front to back. */
export interface LayerBody {
  readonly name: LayerName;
  readonly stretches: ReadonlyMap<number, Stretch>;
  readonly mm3: number;
  /** Its thickest and its middle place along the columns, mm. */
  readonly thickestMm: number;
  readonly usualMm: number;
}

/** A surface that lies askew to the columns is thinner than the column says: by this much at most. House value. */
const MOST_SLANT = 2.5;
/** The lobes run so far from the edge, as a share of the crown's height. House value. */
const LOBES_SHARE = 0.4;
/** How narrow the furrow between two lobes is, as a share of the width. House value. */
const FURROW_SHARE = 0.07;

/** Less of a layer than this nobody lays, mm³. House value. */
const LEAST_LAYER_MM3 = 0.1;
/** Each layer with the one over it. */
const UNDER: readonly (readonly [LayerName, LayerName])[] = [
  ['dentin', 'enamel'],
  ['wall', 'enamel'],
  ['dentin-behind', 'shell'],
];

/** What is missing, taken apart into its layers: together they are it, to the last column. */
export function compositeLayers(m: Missing, s: DirectSettings): LayerBody[] {
  const { na, step } = m.grid;
  const slant = slants(m);
  const all = m.columns.map((c) => c.column);
  const xs = all.map((c) => m.grid.a0 + (c % na) * step);
  const zs = all.map((c) => m.grid.b0 + Math.floor(c / na) * step);
  const [left, right] = [least(xs), most(xs)];
  const [edge, neck] = [least(zs), most(zs)];
  const furrow = (column: number) => {
    const x = (m.grid.a0 + (column % na) * step - (left + right) / 2) / Math.max(step, right - left);
    const z = (m.grid.b0 + Math.floor(column / na) * step - edge) / Math.max(step, neck - edge);
    const near = Math.max(...[-1 / 6, 1 / 6].map((at) => Math.exp(-(((x - at) / FURROW_SHARE) ** 2))));
    return s.lobeMm * near * Math.max(0, 1 - z / LOBES_SHARE);
  };
  const isSide = sides(m, s.sideMm);
  const out: Record<LayerName, Map<number, Stretch>> = {
    shell: new Map(),
    wall: new Map(),
    'dentin-behind': new Map(),
    dentin: new Map(),
    enamel: new Map(),
  };
  const put = (name: LayerName, column: number, from: number, to: number) => {
    if (to - from > 1e-9) out[name].set(column, { from, to });
  };
  for (const c of m.columns) {
    const { front, behind } = slant(c);
    const enamel = (s.enamelMm + furrow(c.column)) * front;
    const shell = s.shellMm * behind;
    if (c.front) {
      const cut = Math.min(c.front.to, c.front.from + enamel);
      put('enamel', c.column, c.front.from, cut);
      put('dentin', c.column, cut, c.front.to);
    }
    if (c.behind) {
      const cut = Math.max(c.behind.from, c.behind.to - shell);
      put('dentin-behind', c.column, c.behind.from, cut);
      put('shell', c.column, cut, c.behind.to);
    }
    if (c.whole && isSide(c.column)) put('wall', c.column, c.whole.from, c.whole.to);
    else if (c.whole) {
      const back = Math.max(c.whole.from, c.whole.to - shell);
      const cut = Math.min(back, c.whole.from + enamel);
      put('enamel', c.column, c.whole.from, cut);
      put('dentin', c.column, cut, back);
      put('shell', c.column, back, c.whole.to);
    }
  }
  const cell = step * step;
  // What would be less than anybody can lay goes with the layer over it.
  const sum = (name: LayerName) => cell * [...out[name].values()].reduce((a, t) => a + t.to - t.from, 0);
  for (const [inner, outer] of UNDER)
    if (sum(inner) < LEAST_LAYER_MM3) {
      for (const [column, t] of out[inner]) {
        const over = out[outer].get(column);
        out[outer].set(column, over ? { from: Math.min(t.from, over.from), to: Math.max(t.to, over.to) } : t);
      }
      out[inner].clear();
    }
  return LAYER_ORDER.flatMap((name): LayerBody[] => {
    const stretches = out[name];
    if (stretches.size === 0) return [];
    const thick = [...stretches.values()].map((t) => t.to - t.from).sort((a, b) => a - b);
    return [
      {
        name,
        stretches,
        mm3: cell * thick.reduce((sum, t) => sum + t, 0),
        thickestMm: thick[thick.length - 1] as number,
        usualMm: thick[thick.length >> 1] as number,
      },
    ];
  });
}

/** Whether a column lies within a side wall of the plan: so far in from where its row begins or ends. */
function sides({ grid, wants }: Missing, mm: number): (column: number) => boolean {
  const { na, step } = grid;
  const rows = new Map<number, readonly [number, number]>();
  for (const c of wants.keys()) {
    const [row, i] = [Math.floor(c / na), c % na];
    const own = rows.get(row);
    rows.set(row, own ? [Math.min(own[0], i), Math.max(own[1], i)] : [i, i]);
  }
  return (column) => {
    const [from, to] = rows.get(Math.floor(column / na)) as readonly [number, number];
    return (Math.min((column % na) - from, to - (column % na)) + 0.5) * step < mm;
  };
}

const least = (v: readonly number[]) => v.reduce((a, b) => Math.min(a, b), Infinity);
const most = (v: readonly number[]) => v.reduce((a, b) => Math.max(a, b), -Infinity);

/** How much longer a column is through a layer than the layer is thick, at the planned face and behind. */
export function slants(
  m: Missing,
): (c: Pick<MissingColumn, 'column'>) => { readonly front: number; readonly behind: number } {
  const { na, step } = m.grid;
  type Side = (s: Stretch) => number;
  const sideAt = (column: number, side: Side) => {
    const own = m.wants.get(column);
    return own && side(own);
  };
  const slope = (column: number, by: number, side: Side) => {
    const [a, b] = [sideAt(column - by, side), sideAt(column + by, side)];
    const own = sideAt(column, side) as number;
    if (a !== undefined && b !== undefined) return (b - a) / (2 * step);
    if (b !== undefined) return (b - own) / step;
    return a !== undefined ? (own - a) / step : 0;
  };
  const of = (column: number, side: Side) =>
    Math.min(MOST_SLANT, hypot(1, slope(column, 1, side), slope(column, na, side)));
  return ({ column }) => ({ front: of(column, (s) => s.from), behind: of(column, (s) => s.to) });
}

/** One increment: a part of a layer that the lamp cures at once. */
export interface Increment {
  readonly layer: LayerName | 'core';
  /** From 1, of so many of its layer. */
  readonly nth: number;
  readonly of: number;
  readonly mm3: number;
  /** Thickest along the lamp's way, mm. */
  readonly thickestMm: number;
}

/**
 * The layers in increments, in the order in which they are placed: the shell in its index first, what lies deepest
 * next, enamel last. A layer that is thicker somewhere than the lamp cures is laid in even sheets from the palate
 * forward, so that no place of any is thicker.
 */
export const incrementsOf = (layers: readonly LayerBody[], cureMm: number): Increment[] =>
  layers.flatMap((l) => {
    const of = Math.max(1, Math.ceil(l.thickestMm / cureMm - 1e-9));
    return Array.from({ length: of }, (_, k) => ({
      layer: l.name,
      nth: k + 1,
      of,
      mm3: l.mm3 / of,
      thickestMm: l.thickestMm / of,
    }));
  });

/** A layer as a closed body: its front and its back over the columns, and walls around. In the crown's own frame. */
export const bodyOf = ({ stretches }: Pick<LayerBody, 'stretches'>, { grid }: Pick<Missing, 'grid'>): Mesh =>
  columnBody(stretches, grid, (a, b, along) => [a, along, b]);

/**
 * Stretches of columns as a closed body.
 * @param at a place of the grid so far along its column; the three turn as across, along, up
 */
export function columnBody(
  stretches: ReadonlyMap<number, Stretch>,
  grid: ColumnGrid,
  at: (a: number, b: number, along: number) => readonly [number, number, number],
): Mesh {
  const { na, step, a0, b0 } = grid;
  const positions: number[] = [];
  const triangles: number[] = [];
  const index = new Map<number, number>();
  const has = (c: number) => stretches.has(c);
  /**
   * The corner of a column towards so many columns across and up, −1 or 1, where it ends as high as the columns that
   * meet there do on the average. Two that meet at a corner alone keep each their own.
   */
  const vertex = (column: number, da: -1 | 1, db: -1 | 1): number => {
    const [across, up, both] = [column + da, column + db * na, column + da + db * na];
    const meets = [column, ...(has(across) ? [across] : []), ...(has(up) ? [up] : [])];
    if (has(both) && meets.length > 1) meets.push(both);
    const corner = 4 * (column + (da > 0 ? 1 : 0) + (db > 0 ? na : 0));
    // Columns are told apart only where they meet diagonally and nothing joins them.
    const key = corner + (has(both) && meets.length === 1 ? (da > 0 ? 1 : 2) : 0);
    const known = index.get(key);
    if (known !== undefined) return known;
    let [from, to] = [0, 0];
    for (const c of meets) {
      const own = stretches.get(c) as Stretch;
      from += own.from / meets.length;
      to += own.to / meets.length;
    }
    const [a, b] = [a0 + ((column % na) + da / 2) * step, b0 + (Math.floor(column / na) + db / 2) * step];
    const own = positions.length / 3;
    positions.push(...at(a, b, from), ...at(a, b, to));
    index.set(key, own);
    return own;
  };
  for (const c of stretches.keys()) {
    const [p, q, r, s] = [vertex(c, -1, -1), vertex(c, 1, -1), vertex(c, 1, 1), vertex(c, -1, 1)];
    // Front faces look to −y, back faces to +y.
    triangles.push(p, q, r, p, r, s);
    triangles.push(p + 1, r + 1, q + 1, p + 1, s + 1, r + 1);
    const wall = (a: number, b: number) => triangles.push(a, a + 1, b + 1, a, b + 1, b);
    if (!has(c - na)) wall(p, q);
    if (!has(c + 1)) wall(q, r);
    if (!has(c + na)) wall(r, s);
    if (!has(c - 1)) wall(s, p);
  }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}
