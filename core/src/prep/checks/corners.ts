import { ZONE_ORDER } from '../../reduction/target-zones.js';
import { tightCorners } from '../corners.js';
import { wellWithin } from '../facing.js';
import { PREP_LIMITS } from '../limits.js';
import { type Check, mm, scanPlace } from './checked.js';

/** A radius of a scan is sure of this, mm: what lies nearer to the limit may be either. House value. */
const PM_MM = 0.05;

/** Corners that a mill's tool can't go round. */
export const cornersCheck: Check = (c) => {
  const corner =
    c.cornerMm === undefined
      ? PREP_LIMITS.corner
      : { value: c.cornerMm, source: { mark: 'house', text: 'the house’s smallest tool' } as const };
  const inner = new Set(wellWithin(c.scan.mesh, c.map, c.facing));
  const found = tightCorners(c.scan.mesh, (v) => inner.has(v), corner.value + PM_MM).filter(
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
        pm: PM_MM,
        says: `{${c.tooth}}: no corner sharper than ${corner.value} mm`,
      },
    ];
  const told = new Map<string, number>();
  return found.map((f) => {
    const what = f.bulges ? 'corner' : 'hollow';
    const place = ZONE_ORDER[c.map.zone[f.at] as number] ?? 'tooth';
    const where = `${what}, ${place}`;
    const nth = (told.get(where) ?? 0) + 1;
    told.set(where, nth);
    return {
      ...base,
      state: f.radiusMm < corner.value ? 'cut' : 'unknown',
      // Each is accepted by itself.
      place: nth > 1 ? `${where}, ${nth}` : where,
      value: f.radiusMm,
      pm: PM_MM,
      says:
        f.radiusMm < corner.value
          ? `{${c.tooth}} ${place}: a sharp ${what}, ${mm(f.radiusMm)} mm of radius over ${f.lengthMm.toFixed(1)} mm`
          : `{${c.tooth}} ${place}: a ${what} of ${f.lengthMm.toFixed(1)} mm that may be too sharp, ${mm(f.radiusMm)} mm of radius; this scan can’t tell`,
      todo: f.bulges ? 'round it with a fine-grit bur or a disc' : 'open it with a rounded tip',
      at: scanPlace(c, f.at),
    };
  });
};
