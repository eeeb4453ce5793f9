import { type ColumnGrid, eachMeeting, gridOver } from '../geometry/columns.js';
import { bounds, type Mesh } from '../geometry/mesh.js';
import type { Fdi } from '../teeth/notation.js';

/** A tooth's surface in the mouth's coordinates. */
export interface JawTooth {
  readonly tooth: Fdi;
  readonly mesh: Mesh;
}

/** The biting side of a row of teeth as heights over the horizontal plane. */
export interface HeightField {
  readonly grid: ColumnGrid;
  /** z of the surface in each column, mm; NaN where there is no tooth. */
  readonly z: Float32Array;
  /** Tooth of each column, 0 for none. */
  readonly tooth: Int16Array;
}

/** Distance of the columns, mm: fine enough that a steep palatal surface is met within a few hundredths. */
export const HEIGHT_STEP_MM = 0.1;

/** A grid that covers both rows of teeth. */
export function biteGrid(teeth: readonly JawTooth[], step = HEIGHT_STEP_MM): ColumnGrid {
  const all = teeth.map((t) => bounds(t.mesh));
  const least = (k: 0 | 1) => Math.min(...all.map((b) => b.min[k]));
  const most = (k: 0 | 1) => Math.max(...all.map((b) => b.max[k]));
  return gridOver([least(0), least(1)], [most(0), most(1)], step);
}

/**
 * The lowest surface of the upper teeth, or the highest of the lower ones, in every column.
 * @param jaw which side of the bite the teeth stand on
 */
export function heightField(teeth: readonly JawTooth[], jaw: 'upper' | 'lower', grid: ColumnGrid): HeightField {
  const z = new Float32Array(grid.na * grid.nb).fill(Number.NaN);
  const tooth = new Int16Array(z.length);
  const sign = jaw === 'upper' ? -1 : 1;
  for (const t of teeth) {
    eachMeeting(t.mesh, [0, 1, 2], grid, (column, along) => {
      const before = z[column];
      if (sign * along <= sign * before) return;
      z[column] = along;
      tooth[column] = t.tooth;
    });
  }
  return { grid, z, tooth };
}
