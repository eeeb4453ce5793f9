import { hypot } from '../geometry/vec.js';
import type { Missing } from './missing.js';

/**
 * A plan is a little wider than its tooth all around: only what holds a disc of this radius is broken off, mm. House
 * value.
 */
const BULK_MM = 0.35;

/** The columns in which all of the plan is missing, without rims. */
export function bulk(m: Missing): ReadonlySet<number> {
  const { na, step } = m.grid;
  const whole = new Set(m.columns.filter((c) => c.whole).map((c) => c.column));
  const disc = (mm: number): number[] => {
    const far = Math.round(mm / step);
    const at: number[] = [];
    for (let j = -far; j <= far; j++)
      for (let i = -far; i <= far; i++) if (hypot(i, j) <= far + 1e-9) at.push(j * na + i);
    return at;
  };
  const [held, around] = [disc(BULK_MM), disc(2 * BULK_MM)];
  const out = new Set<number>();
  // What lies about a place that holds the disc belongs to it: corners too, in which no disc lies.
  for (const c of whole)
    if (held.every((d) => whole.has(c + d))) for (const d of around) if (whole.has(c + d)) out.add(c + d);
  return out;
}
