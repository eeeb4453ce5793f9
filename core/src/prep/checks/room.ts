import { signedDistances } from '../../geometry/tree/signed.js';
import { enamelNormAt } from '../../reduction/removal.js';
import type { PrepFinding } from '../finding.js';
import { PREP_LIMITS } from '../limits.js';
import { inZone } from '../prep-tooth.js';
import { type ZoneRoom, zoneRooms } from '../room.js';
import { type Check, type Checked, mm, scanPlace } from './checked.js';

/** Room for the material in every zone: too little, or more cut than asked. */
export const roomCheck: Check = (c) =>
  zoneRooms(c.map).flatMap((z): PrepFinding[] => {
    // A cut edge is told by its thirds.
    if (z.zone === 'edge' && c.design.edge.kind === 'thickness') return [];
    const base = {
      check: 'room' as const,
      tooth: c.tooth,
      place: z.zone,
      zone: z.zone,
      value: z.median,
      pm: c.pmMm,
      unit: 'mm' as const,
    };
    const stands = `{${c.tooth}} ${z.zone}: ${mm(z.median)} mm of ${mm(z.wanted)}`;
    // Where a veneer runs out at a side nobody asks for a depth at every place: there its middle counts.
    const runsOut = !c.design.around && z.zone.endsWith('side');
    if ((runsOut ? z.shortMedian : z.shortDeep) > PREP_LIMITS.short.value + c.pmMm) {
      const all = z.shortMedian > PREP_LIMITS.short.value;
      const cutMm = all ? Math.max(z.shortMedian, 0) : z.shortDeep;
      return [
        {
          ...base,
          state: 'cut',
          limit: PREP_LIMITS.short.value,
          source: PREP_LIMITS.short.source,
          says: `${stands}, ${mm(z.shortDeep)} short where it is shortest`,
          todo: all
            ? `cut ${mm(cutMm)} mm more over the whole zone`
            : `cut ${mm(cutMm)} mm more at the place that is marked`,
          cutMm,
          at: scanPlace(c, z.shortAt),
        },
      ];
    }
    const over = c.design.around ? PREP_LIMITS.overCrown : PREP_LIMITS.over;
    if (!runsOut && z.overDeep > over.value + c.pmMm) {
      return [
        {
          ...base,
          state: 'over',
          limit: over.value,
          source: over.source,
          says: `${stands}, ${mm(z.overDeep)} more gone than asked${enamelWords(c, z)}`,
          todo: 'leave it; the material may be thicker there, or fill it with composite',
          at: scanPlace(c, z.overAt),
        },
      ];
    }
    return [
      { ...base, state: 'right', limit: PREP_LIMITS.short.value, source: PREP_LIMITS.short.source, says: stands },
    ];
  });

/** What the whole cut has left of the enamel of a face, where that is known. */
function enamelWords(c: Checked, { zone }: ZoneRoom): string {
  if (c.design.around || !/^(cervical|middle|incisal) /.test(zone)) return '';
  const own = inZone(c.map, zone);
  const points = Float64Array.from(own.flatMap((v) => [...scanPlace(c, v)]));
  const gone = signedDistances(c.before, points);
  const through = own.filter(
    (v, i) =>
      -(gone[i] as number) >= enamelNormAt(c.target.toothShare[c.map.near[v] as number] as number, c.mouth).from,
  ).length;
  const share = through / own.length;
  return share < 0.05
    ? '; enamel is left by the norm'
    : `; enamel may be through on ${(100 * share).toFixed(0)} % of it`;
}
