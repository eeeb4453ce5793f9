import { type PlannedTooth, plannedField } from '../contour/plan.js';
import { directionToParent, type Frame, toLocal, toParent } from '../geometry/frame.js';
import { rayCaster } from '../geometry/tree/ray.js';
import { hypot, type Vec3 } from '../geometry/vec.js';

/** The planned biting surface is told so finely, mm. */
const STEP_MM = 0.2;
/** What looks to the teeth across less than this is a side and no biting surface: the cosine of 53°. House value. */
const BITING = 0.6;
const BELOW_MM = 6;

/** The biting surface of a planned premolar as heights over its planned edge, mm, in a frame with its axis. */
export interface Cusps {
  /** How high the planned surface lies over a place across the axis. */
  readonly plan: (x: number, y: number) => number | undefined;
  /** Under this height nothing may be left there; nothing where the biting surface asks for nothing. */
  readonly left: (x: number, y: number) => number | undefined;
}

/**
 * The cusps of a planned premolar and what has to be free under them: as far as a ball of the needed thickness reaches
 * that rolls over them.
 * @param frame with the planned crown's axis as z; `mm` the thickness
 * @param facialOnly only the outer side of the facial cusp up to its tip: all that is covered from the front
 */
export function cuspsOf(planned: PlannedTooth, frame: Frame, mm: number, facialOnly: boolean): Cusps {
  const cast = rayCaster(plannedField(planned).tree);
  const { positions } = planned.mesh;
  const [low, high, tip] = [[Infinity, Infinity], [-Infinity, -Infinity], { y: 0, z: Infinity }];
  for (let i = 0; i < positions.length; i += 3) {
    const [x, y, z] = toLocal(frame, positions.subarray(i, i + 3) as unknown as Vec3);
    low[0] = Math.min(low[0] as number, x);
    low[1] = Math.min(low[1] as number, y);
    high[0] = Math.max(high[0] as number, x);
    high[1] = Math.max(high[1] as number, y);
    if (z < tip.z) Object.assign(tip, { y, z });
  }
  const [x0, y0] = [(low[0] as number) - mm, (low[1] as number) - mm];
  const columns = Math.ceil(((high[0] as number) + mm - x0) / STEP_MM) + 1;
  const rows = Math.ceil(((high[1] as number) + mm - y0) / STEP_MM) + 1;
  const along = directionToParent(frame, [0, 0, 1]);
  const plan = new Float64Array(columns * rows).fill(Number.NaN);
  const left = new Float64Array(columns * rows).fill(Number.NaN);
  const reach = Math.floor(mm / STEP_MM);
  const { faceNormals } = plannedField(planned);
  for (let j = 0; j < rows; j++)
    for (let i = 0; i < columns; i++) {
      const [x, y] = [x0 + i * STEP_MM, y0 + j * STEP_MM];
      const hit = cast.first(toParent(frame, [x, y, -BELOW_MM]), along, 3 * BELOW_MM);
      if (!hit) continue;
      const z = hit.distance - BELOW_MM;
      plan[j * columns + i] = z;
      const n = faceNormals.subarray(3 * hit.face, 3 * hit.face + 3);
      const facing = -((n[0] as number) * along[0] + (n[1] as number) * along[1] + (n[2] as number) * along[2]);
      if (facing < BITING || (facialOnly && y > tip.y)) continue;
      for (let b = Math.max(0, j - reach); b <= Math.min(rows - 1, j + reach); b++)
        for (let a = Math.max(0, i - reach); a <= Math.min(columns - 1, i + reach); a++) {
          const off = STEP_MM * hypot(a - i, b - j);
          if (off > mm) continue;
          const to = z + Math.sqrt(mm * mm - off * off);
          const at = b * columns + a;
          if (!(to < (left[at] as number))) left[at] = Number.isNaN(left[at]) ? to : Math.max(to, left[at] as number);
        }
    }
  const over =
    (heights: Float64Array) =>
    (x: number, y: number): number | undefined => {
      const [u, v] = [(x - x0) / STEP_MM, (y - y0) / STEP_MM];
      const [i, j] = [Math.floor(u), Math.floor(v)];
      if (i < 0 || j < 0 || i + 1 >= columns || j + 1 >= rows) return undefined;
      const [fu, fv] = [u - i, v - j];
      const h = (a: number, b: number) => heights[(j + b) * columns + i + a] as number;
      const z = (1 - fv) * ((1 - fu) * h(0, 0) + fu * h(1, 0)) + fv * ((1 - fu) * h(0, 1) + fu * h(1, 1));
      return Number.isNaN(z) ? undefined : z;
    };
  return { plan: over(plan), left: over(left) };
}
