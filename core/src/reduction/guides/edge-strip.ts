import type { Mesh } from '../../geometry/mesh.js';
import { INDEX } from './facial-index.js';
import type { IndexGround } from './ground.js';
import { type Slab, STEP_MM, slabOver } from './sheet.js';

/** How far a strip reaches to the front and the back of the edges, and how far it goes up there, mm. House values. */
export interface Reach {
  readonly frontMm: number;
  readonly backMm: number;
  readonly upInFrontMm: number;
  readonly upBehindMm: number;
}

/** The edge strip: beside the edges it goes up a little and no further; it is no wall. */
export const STRIP: Reach = { frontMm: 1.5, backMm: 3, upInFrontMm: 1.5, upBehindMm: 1.5 };

/**
 * A strip under the edges, closed, in the arch's own frame: its top follows the planned edges and those that stay, put on
 * straight from below. What lies between it and a preparation is what the edge was cut by.
 */
export const edgeStrip = (ground: IndexGround): Mesh => stripUnder(ground, STRIP, INDEX);

/** A strip under the edges as far as it is wished to reach. */
export function stripUnder(ground: IndexGround, reach: Reach, slab: Slab): Mesh {
  const { xs } = ground;
  const wide = reach.frontMm + reach.backMm;
  const count = Math.round(wide / STEP_MM);
  const rows = count + 1;
  const x = (v: number) => xs[Math.floor(v / rows)] as number;
  // From back to front, so that the sheet below is wound outward.
  const y = (v: number) => ground.edgeY(x(v)) + reach.backMm - (wide * (v % rows)) / count;
  const along = Float64Array.from({ length: xs.length * rows }, (_, v) => {
    const z = ground.below(x(v), y(v));
    const up = y(v) < ground.edgeY(x(v)) ? reach.upInFrontMm : reach.upBehindMm;
    return z === undefined ? Number.NaN : Math.min(z, ground.edge(x(v)) + up);
  });
  return slabOver({ columns: xs.length, rows, along, at: (v, z) => [x(v), y(v), z] }, slab);
}
