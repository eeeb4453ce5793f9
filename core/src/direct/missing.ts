import { type ColumnGrid, gridOver, spans } from '../geometry/columns.js';
import { bounds, type Mesh } from '../geometry/mesh.js';

/** A stretch of a column from front to back, mm. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

/** What a column lacks: in front of the tooth, behind it, or all of it where no tooth is. */
export interface MissingColumn {
  /** i + na·j of the grid. */
  readonly column: number;
  readonly planned: Stretch;
  readonly tooth?: Stretch;
  readonly front?: Stretch;
  readonly behind?: Stretch;
  readonly whole?: Stretch;
}

/** So near to the planned neck a root is no part of what stands out, mm. House value. */
const NECK_MM = 1.5;

/** What stands out deepest, but for columns that only graze a side. House value. */
const DEEPEST = 0.95;

/** So near to its neck a plan is closed to its middle and says nothing of the root, mm. House value. */
const RIM_MM = 0.6;

/** What lies between a tooth and its plan, by columns from front to back in the crown's own frame. */
export interface Missing {
  /** Across is x, up is z; columns run along y, from the face to the palate. */
  readonly grid: ColumnGrid;
  readonly columns: readonly MissingColumn[];
  /** Where the plan is, and where the tooth is, column by column. */
  readonly wants: ReadonlyMap<number, Stretch>;
  readonly stands: ReadonlyMap<number, Stretch>;
  readonly missingMm3: number;
  /** What of the tooth stands out of the plan, mm³, and by how much at most, from front to back, mm. */
  readonly proudMm3: number;
  readonly proudMm: number;
  /** How far the tooth reaches: across, and up to its edge, mm; nothing where there is none. */
  readonly reach?: { readonly least: number; readonly most: number; readonly edge: number };
}

/** Where a column of what is missing stands: across, and up to the root, mm. */
export const columnPlace = ({ grid }: Pick<Missing, 'grid'>, column: number): readonly [x: number, z: number] => [
  grid.a0 + (column % grid.na) * grid.step,
  grid.b0 + Math.floor(column / grid.na) * grid.step,
];

/** The column of a grid in which a place lies, across and up. */
export const columnOf = ({ grid }: { readonly grid: ColumnGrid }, across: number, up: number): number =>
  Math.round((up - grid.b0) / grid.step) * grid.na + Math.round((across - grid.a0) / grid.step);

/** Between columns, mm: a tenth of what is told of layers. */
export const COLUMN_MM = 0.1;
/** Thinner than this a stretch is two surfaces that mean the same, mm: a scanner's own noise. House value. */
export const SLIVER_MM = 0.03;

/**
 * What a tooth lacks to its plan.
 * @param planned closed, in the crown's own frame: y from the face to the palate, z to the root
 * @param tooth closed, in the same frame
 */
export function missingOf(planned: Mesh, tooth: Mesh, stepMm = COLUMN_MM): Missing {
  const box = bounds(planned);
  const grid = gridOver([box.min[0], box.min[2]], [box.max[0], box.max[2]], stepMm);
  const [want, have] = [spans(planned, [0, 2, 1], grid), spans(tooth, [0, 2, 1], grid)];
  const cell = stepMm * stepMm;
  let [missing, proud] = [0, 0];
  const deep: number[] = [];
  const hull = (of: ReadonlyMap<number, readonly number[]>) =>
    new Map([...of].map(([c, own]) => [c, { from: own[0] as number, to: own[own.length - 1] as number }]));
  const [wants, stands] = [hull(want), hull(have)];
  const heightOf = (column: number) => grid.b0 + Math.floor(column / grid.na) * stepMm;
  // Above its neck, which rises and falls around the tooth, the plan ends and the root goes on: nothing stands out there.
  const neckAt = new Map<number, number>();
  for (const c of wants.keys()) neckAt.set(c % grid.na, Math.max(neckAt.get(c % grid.na) ?? -Infinity, heightOf(c)));
  const isCrown = (column: number) => heightOf(column) < (neckAt.get(column % grid.na) ?? -Infinity) - RIM_MM;
  const lowest = [...neckAt.values()].reduce((a, b) => Math.min(a, b), Infinity);
  const isBeside = (column: number) => heightOf(column) < (neckAt.get(column % grid.na) ?? lowest) - NECK_MM;
  const columns: MissingColumn[] = [];
  for (const [column, plan] of wants) {
    const is = stands.get(column);
    if (is) {
      const [front, behind] = [Math.max(0, plan.from - is.from), Math.max(0, is.to - plan.to)];
      if (isCrown(column)) proud += cell * (front + behind);
      if (Math.max(front, behind) > SLIVER_MM && isCrown(column)) deep.push(Math.max(front, behind));
    }
    // A tooth that lies wholly in front of its plan, or behind it, fills nothing of it.
    const meets = is && is.from < plan.to && is.to > plan.from;
    const front = meets && is.from - plan.from > SLIVER_MM ? { from: plan.from, to: is.from } : undefined;
    const behind = meets && plan.to - is.to > SLIVER_MM ? { from: is.to, to: plan.to } : undefined;
    const whole = meets ? undefined : plan;
    if (!front && !behind && !whole) continue;
    for (const s of [front, behind, whole]) if (s) missing += cell * (s.to - s.from);
    columns.push({
      column,
      planned: plan,
      ...(meets && { tooth: is }),
      ...(front && { front }),
      ...(behind && { behind }),
      ...(whole && { whole }),
    });
  }
  let [least, most, edge] = [Infinity, -Infinity, Infinity];
  for (const column of stands.keys()) {
    const [x, z] = [grid.a0 + (column % grid.na) * stepMm, grid.b0 + Math.floor(column / grid.na) * stepMm];
    [least, most, edge] = [Math.min(least, x), Math.max(most, x), Math.min(edge, z)];
  }
  for (const [column, there] of stands)
    if (!wants.has(column) && isBeside(column)) proud += cell * (there.to - there.from);
  return {
    grid,
    columns,
    wants,
    stands,
    missingMm3: missing,
    proudMm3: proud,
    proudMm: deep.sort((a, b) => a - b)[Math.floor(DEEPEST * deep.length)] ?? 0,
    ...(have.size > 0 && { reach: { least, most, edge } }),
  };
}
