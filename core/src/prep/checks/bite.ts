import type { TargetZone } from '../../reduction/target-zones.js';
import type { PrepFinding } from '../finding.js';
import { PREP_LIMITS } from '../limits.js';
import { inZone, underShare } from '../prep-tooth.js';
import { type Check, type Checked, mm, scanPlace } from './checked.js';

/** Where the teeth across are asked about. */
export const BITE_ZONES: readonly TargetZone[] = ['edge', 'palatal', 'mesial side', 'distal side'];
/** What lies further from the teeth across is no question of the bite, mm. House value. */
const NEAR_MM = 3;
/** What the worst twentieth of a zone shows may be a scan's own slip. */
const TAIL = 0.05;

/**
 * Room in the closed bite and on the way forward and aside: as much as the plan has material there. A restoration is as
 * thick as the plan makes it only where the teeth across leave it that much.
 */
export const biteCheck: Check = (c) => {
  const { bite } = c;
  if (!bite) return [];
  return [
    ...coreFinding(c),
    ...BITE_ZONES.flatMap((zone): PrepFinding[] => {
      const own = inZone(c.map, zone).filter((v) => (bite.moved[v] as number) < NEAR_MM);
      if (own.length < 12) return [];
      const wanted = (v: number) => (c.map.nearMm[v] as number) + (c.map.shortMm[v] as number);
      const lacks = Float64Array.from(c.map.nearMm, (_, v) => wanted(v) - (bite.moved[v] as number));
      const deep = underShare(c.map, own, lacks, 1 - TAIL);
      const at = own.reduce((a, b) => (Math.abs(lacks[b]! - deep) < Math.abs(lacks[a]! - deep) ? b : a));
      const [closed, moved] = [bite.closed[at] as number, bite.moved[at] as number];
      const where = closed - moved < 0.05 ? 'with the teeth closed' : 'on the way forward or aside';
      const { value: limit, source } = PREP_LIMITS.short;
      const base = {
        check: 'bite' as const,
        tooth: c.tooth,
        place: `${zone}, in the bite`,
        value: moved,
        pm: c.pmMm,
        unit: 'mm' as const,
      };
      return [
        deep > limit + c.pmMm
          ? {
              ...base,
              state: 'cut',
              zone,
              limit: wanted(at) - limit,
              source,
              says: `{${c.tooth}} ${zone}: ${mm(Math.max(0, moved))} mm to the teeth across ${where}, ${mm(wanted(at))} wanted`,
              todo: `cut ${mm(deep)} mm more there, or choose what may be thinner`,
              cutMm: deep,
              at: scanPlace(c, at),
            }
          : {
              ...base,
              state: 'right',
              limit: wanted(at) - limit,
              source,
              says: `{${c.tooth}} ${zone}: ${mm(moved)} mm to the teeth across ${where}`,
            },
      ];
    }),
  ];
};

/** A post or a core that comes near to the teeth across: under a thin place of the crown it is what is hit. */
function coreFinding(c: Checked): PrepFinding[] {
  const { bite, mouth } = c;
  if (!bite || !mouth.cores?.includes(c.tooth)) return [];
  const own = BITE_ZONES.flatMap((zone) => inZone(c.map, zone));
  if (own.length === 0) return [];
  const at = own.reduce((a, b) => ((bite.moved[b] as number) < (bite.moved[a] as number) ? b : a));
  const value = bite.moved[at] as number;
  if (!Number.isFinite(value)) return [];
  const { value: limit, source } = PREP_LIMITS.coreRoom;
  const base = {
    check: 'bite' as const,
    tooth: c.tooth,
    place: 'core, in the bite',
    value,
    pm: c.pmMm,
    unit: 'mm' as const,
  };
  return [
    value < limit - c.pmMm
      ? {
          ...base,
          state: 'look',
          limit,
          source,
          says: `{${c.tooth}}: post and core come within ${mm(Math.max(0, value))} mm of the teeth across`,
          todo: 'check it in the bite before anything is cured over it, and shorten the core',
          at: scanPlace(c, at),
        }
      : {
          ...base,
          state: 'right',
          limit,
          source,
          says: `{${c.tooth}}: post and core stay ${mm(value)} mm from the teeth across`,
        },
  ];
}
