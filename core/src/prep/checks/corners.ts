import { ZONE_ORDER } from '../../reduction/target-zones.js';
import { tightCorners } from '../corners.js';
import { PREP_LIMITS } from '../limits.js';

import { NO_ZONE } from '../prep-tooth.js';
import { type Check, type Checked, mm, scanPlace } from './checked.js';

/** So far from where the cut ends a corner is none of the finish line's own, mm. House value. */
const OFF_END_MM = 0.45;

/** The prepared places that lie well within the cut. */
function innerOf(c: Checked): number[] {
  const { positions } = c.scan.mesh;
  const within = new Set(c.facing.vertex);
  const ends = Array.from(c.map.zone.keys()).filter((v) => c.map.zone[v] !== NO_ZONE && !within.has(v));
  const cells = new Map<string, number[]>();
  const key = (v: number, d: readonly number[]) =>
    [0, 1, 2].map((k) => Math.floor(positions[3 * v + k]! / OFF_END_MM) + d[k]!).join(' ');
  for (const v of ends) {
    const at = key(v, [0, 0, 0]);
    const own = cells.get(at);
    if (own) own.push(v);
    else cells.set(at, [v]);
  }
  return [...within].filter((v) =>
    AROUND.every((d) =>
      (cells.get(key(v, d)) ?? []).every(
        (w) => Math.hypot(...[0, 1, 2].map((k) => positions[3 * v + k]! - positions[3 * w + k]!)) > OFF_END_MM,
      ),
    ),
  );
}

const AROUND = [-1, 0, 1].flatMap((a) => [-1, 0, 1].flatMap((b) => [-1, 0, 1].map((d) => [a, b, d] as const)));

/** Corners that a mill's tool can't go round. */
export const cornersCheck: Check = (c) => {
  const { corner } = PREP_LIMITS;
  const inner = new Set(innerOf(c));
  const found = tightCorners(c.scan.mesh, (v) => inner.has(v), corner.value).filter(
    // Where a veneer runs out its own end is a hollow.
    (f) => f.bulges || c.design.around,
  );
  const base = {
    check: 'corners' as const,
    tooth: c.tooth,
    unit: 'mm' as const,
    limit: corner.value,
    source: corner.source,
  };
  if (found.length === 0)
    return [
      {
        ...base,
        state: 'right',
        place: 'all corners',
        value: corner.value,
        pm: 0.05,
        says: `{${c.tooth}}: no corner sharper than ${corner.value} mm`,
      },
    ];
  return found.slice(0, 4).map((f) => {
    const what = f.bulges ? 'corner' : 'hollow';
    const place = ZONE_ORDER[c.map.zone[f.at] as number] ?? 'tooth';
    return {
      ...base,
      state: f.radiusMm < corner.value ? 'cut' : 'unknown',
      place: `${f.bulges ? 'corner' : 'hollow'}, ${place}`,
      value: f.radiusMm,
      pm: 0.05,
      says:
        f.radiusMm < corner.value
          ? `{${c.tooth}} ${place}: a sharp ${what}, ${mm(f.radiusMm)} mm of radius over ${f.lengthMm.toFixed(1)} mm`
          : `{${c.tooth}} ${place}: a ${what} of ${f.lengthMm.toFixed(1)} mm that may be sharp; the scan is too coarse to tell`,
      todo: f.bulges ? 'round it with a fine-grit bur or a disc' : 'open it with a rounded tip',
      at: scanPlace(c, f.at),
    };
  });
};
