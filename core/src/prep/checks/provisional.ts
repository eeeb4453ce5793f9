import type { TargetZone } from '../../reduction/target-zones.js';
import { ZONE_ORDER } from '../../reduction/target-zones.js';
import type { PrepFinding } from '../finding.js';
import { overFinish } from '../finish-height.js';
import { PREP_LIMITS } from '../limits.js';
import { inZone, underShare } from '../prep-tooth.js';
import { type Check, type Checked, mm, scanPlace } from './checked.js';

/** A scanned provisional ends at the gum: nothing is read of it nearer to the finish line, mm. House value. */
const FROM_FINISH_MM = 1;
/** What the worst twentieth of a zone shows may be a scan's own slip. */
const TAIL = 0.05;
/** So much of a zone without any material over it is a hole, mm². House value. */
const HOLE_MM2 = 0.3;

/**
 * The provisional as proof: how thick it is over every zone, against what the plan has there. A thin place comes from a
 * cut that is too shallow, or from a provisional that lies under the plan; each is told as what it is.
 */
export const provisionalCheck: Check = (c) => {
  const { provisional } = c;
  if (!provisional) return [];
  const over = overFinish(c.target);
  return ZONE_ORDER.flatMap((zone): PrepFinding[] => {
    // Where a veneer runs out at a side nobody asks for a thickness.
    if (!c.design.around && zone.endsWith('side')) return [];
    const own = inZone(c.map, zone).filter((v) => over(scanPlace(c, v)) > FROM_FINISH_MM);
    return own.length < 12 ? [] : [zoneOfIt(c, zone, own)];
  });
};

function zoneOfIt(c: Checked, zone: TargetZone, own: readonly number[]): PrepFinding {
  const { overMm, thickMm, pmMm: pm } = c.provisional as NonNullable<Checked['provisional']>;
  const wanted = (v: number) => (c.map.roomMm[v] as number) + (c.map.shortMm[v] as number);
  const lacks = thickMm.map((mm, v) => wanted(v) - mm);
  const deep = underShare(c.map, own, lacks, 1 - TAIL);
  const at = own.reduce((a, b) => (Math.abs(lacks[b]! - deep) < Math.abs(lacks[a]! - deep) ? b : a));
  const { value: limit, source } = PREP_LIMITS.short;
  const holeMm2 = own.reduce((sum, v) => sum + (thickMm[v]! <= 0 ? c.map.areaMm2[v]! : 0), 0);
  const [thick, needed] = [Math.max(0, thickMm[at]!), wanted(at)];
  const base = {
    check: 'provisional' as const,
    tooth: c.tooth,
    zone,
    place: `${zone}, provisional`,
    value: thick,
    pm,
    unit: 'mm' as const,
    limit: needed - limit,
    source,
  };
  if (deep <= limit + pm)
    return {
      ...base,
      state: 'right',
      says: `{${c.tooth}} ${zone}: the provisional is ${mm(thick)} mm thick where it is thinnest`,
    };
  const stands =
    holeMm2 > HOLE_MM2
      ? `a hole in the provisional where ${mm(needed)} mm are needed`
      : `the provisional is ${mm(thick)} mm thick where ${mm(needed)} are needed`;
  const [short, under] = [c.map.shortMm[at]!, -overMm[at]!];
  return short > under
    ? {
        ...base,
        state: 'cut',
        says: `{${c.tooth}} ${zone}: ${stands}; not enough is cut there`,
        todo: `cut ${mm(short)} mm more there`,
        cutMm: short,
        at: scanPlace(c, at),
      }
    : {
        ...base,
        state: 'look',
        says: `{${c.tooth}} ${zone}: ${stands}; it lies ${mm(under)} mm under the planned contour there`,
        todo: 'ask whether it was ground in the bite: then the plan follows it, else build it up',
        at: scanPlace(c, at),
      };
}
