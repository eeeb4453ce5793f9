import { Refusal } from '../../errors.js';
import { type Mesh, mergeMeshes } from '../../geometry/mesh.js';
import { buildTree } from '../../geometry/tree/build.js';
import { rayCaster } from '../../geometry/tree/ray.js';
import { STEP_MM } from './sheet.js';

/** Where the row turns more than so much from the front the index ends: the tangent of 62°. */
const STEEPEST = 1.9;
const FAR_MM = 80;
/** The gum line is looked for from so far over the zeniths down, mm. */
const OVER_ZENITH_MM = 2;
const GUM_STEP_MM = 0.1;

/** A tooth of the row as the index needs it; heights and places in the arch's own frame, mm. */
export interface IndexTooth {
  readonly mesh: Mesh;
  readonly middleX: number;
  readonly widthMm: number;
  readonly edgeZ: number;
  /** Where its edge stands from front to back. */
  readonly edgeY: number;
  readonly zenithZ: number;
  /** It is planned; what stays is what the index seats on. */
  readonly planned: boolean;
}

/** What an index is cut from: every surface in front, as columns seen from the front. */
export interface IndexGround {
  readonly xs: readonly number[];
  /** Which teeth it seats on, right and left of the planned ones. */
  readonly seats: number;
  readonly surface: (x: number, z: number) => number | undefined;
  /** The lowest place over a point, seen from below the edges. */
  readonly below: (x: number, y: number) => number | undefined;
  readonly edge: (x: number) => number;
  readonly edgeY: (x: number) => number;
  readonly zenith: (x: number) => number;
  /** Where the teeth end at the gum, seen from the front. */
  readonly gum: (x: number) => number;
  /** How much the row turns away from the front: mm backward for each to the side. */
  readonly slope: (x: number) => number;
}

/**
 * Looks at a row from the front.
 * @param row side by side, from the arch's right to its left
 * @param gum what stays above the teeth
 * @throws Refusal `tooth-missing` where no planned tooth faces the front
 */
export function indexGround(row: readonly IndexTooth[], gum: Mesh): IndexGround {
  const teeth = mergeMeshes(row.map((t) => t.mesh));
  const cast = rayCaster(buildTree(mergeMeshes([teeth, gum])));
  const fromFront = (x: number, z: number) => cast.first([x, -FAR_MM, z], [0, 1, 0], 2 * FAR_MM);
  const surface = (x: number, z: number): number | undefined => {
    const hit = fromFront(x, z);
    return hit && hit.distance - FAR_MM;
  };
  const isTooth = (x: number, z: number): boolean => {
    const hit = fromFront(x, z);
    return hit !== undefined && hit.face < teeth.triangles.length / 3;
  };
  const below = (x: number, y: number): number | undefined => {
    const hit = cast.first([x, y, -FAR_MM], [0, 0, 1], 2 * FAR_MM);
    return hit && hit.distance - FAR_MM;
  };
  const over = (of: (t: IndexTooth) => number) => (x: number) => {
    // Straight between the middles of the teeth: no step at a contact.
    const at = row.findIndex((t) => t.middleX >= x);
    if (at < 0) return of(row.at(-1) as IndexTooth);
    if (at === 0) return of(row[0] as IndexTooth);
    const [p, q] = [row[at - 1], row[at]] as [IndexTooth, IndexTooth];
    return of(p) + ((of(q) - of(p)) * (x - p.middleX)) / (q.middleX - p.middleX || 1);
  };
  const [edge, zenith, edgeY] = [over((t) => t.edgeZ), over((t) => t.zenithZ), over((t) => t.edgeY)];
  const planned = row.filter((t) => t.planned);
  if (planned.length === 0) throw new Refusal('tooth-missing', 'No tooth is planned, so there is no index.', 0);
  const reach = (t: IndexTooth, side: 1 | -1) => t.middleX + (side * t.widthMm) / 2;
  const [least, most] = [
    Math.min(...row.map((t) => reach(t, -1))) + 0.5,
    Math.max(...row.map((t) => reach(t, 1))) - 0.5,
  ];
  const slope = (x: number) => {
    const z = (edge(x) + zenith(x)) / 2;
    const [a, b] = [surface(x - 1, z), surface(x + 1, z)];
    return a === undefined || b === undefined ? Infinity : Math.abs(b - a) / 2;
  };
  const middle = (Math.min(...planned.map((t) => t.middleX)) + Math.max(...planned.map((t) => t.middleX))) / 2;
  const until = (step: 1 | -1, end: number) => {
    let x = middle;
    let steep = 0;
    while (step * (end - x) > 0) {
      x += step * STEP_MM;
      // Embrasures are steep for a moment; the row itself for longer.
      steep = slope(x) > STEEPEST ? steep + 1 : 0;
      if (steep * STEP_MM > 2) return x - step * 2;
    }
    return end;
  };
  const [from, to] = [until(-1, least), until(1, most)];
  const count = Math.max(2, Math.round((to - from) / STEP_MM));
  return {
    xs: Array.from({ length: count + 1 }, (_, i) => from + ((to - from) * i) / count),
    seats: row.filter((t) => !t.planned && t.middleX > from && t.middleX < to).length,
    surface,
    below,
    edge,
    edgeY,
    zenith,
    slope,
    gum: (x) => {
      let z = zenith(x) + OVER_ZENITH_MM;
      while (z > edge(x) && !isTooth(x, z)) z -= GUM_STEP_MM;
      return z;
    },
  };
}
