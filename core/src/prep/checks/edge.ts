import { preparedEdge } from '../edge.js';
import { PREP_LIMITS } from '../limits.js';
import { zoneRooms } from '../room.js';
import { type Check, mm, scanPlace } from './checked.js';

const THIRDS = ['mesial', 'middle', 'distal'] as const;

/** The cut edge: as short as it was to be in each of its thirds, and as level. */
export const edgeCheck: Check = (c) => {
  if (c.design.edge.kind !== 'thickness') return [];
  const own = preparedEdge(c, c.map, c.distal);
  if (!own) return [];
  const worst = THIRDS.reduce((a, _, k) => (own.shortMm[k]! > own.shortMm[a]! ? k : a), 0);
  const { uneven, short } = PREP_LIMITS;
  const more = own.unevenMm - own.wishedUnevenMm;
  const base = { check: 'edge' as const, tooth: c.tooth, unit: 'mm' as const, pm: c.pmMm };
  const room = zoneRooms(c.map).find((z) => z.zone === 'edge');
  const stands = room ? `, ${mm(room.median)} mm of ${mm(room.wanted)}` : '';
  const tilt = own.shortMm[worst]! - Math.min(...own.shortMm);
  return [
    own.shortMm[worst]! > short.value + c.pmMm
      ? {
          ...base,
          state: 'cut',
          place: `${THIRDS[worst]} third of the edge`,
          zone: 'edge',
          value: own.shortMm[worst]!,
          limit: short.value,
          source: short.source,
          says: `{${c.tooth}} edge${stands}: ${mm(own.shortMm[worst]!)} mm too long ${tilt > uneven.value ? `at its ${THIRDS[worst]} third, it slants` : 'over its length'}`,
          todo: `shorten it by ${mm(own.shortMm[worst]!)} mm`,
          cutMm: own.shortMm[worst]!,
          ...(room && { at: scanPlace(c, room.shortAt) }),
        }
      : {
          ...base,
          state: 'right',
          place: 'edge',
          value: own.shortMm[worst]!,
          limit: short.value,
          source: short.source,
          says: `{${c.tooth}} edge${stands}: as long as it was to be`,
        },
    more > uneven.value + c.pmMm
      ? {
          ...base,
          state: 'look',
          place: 'level of the edge',
          value: own.unevenMm,
          limit: own.wishedUnevenMm + uneven.value,
          source: uneven.source,
          says: `{${c.tooth}} edge: uneven by ${mm(own.unevenMm)} mm`,
          todo: 'level it with the side of a cylinder or a disc',
        }
      : {
          ...base,
          state: 'right',
          place: 'level of the edge',
          value: own.unevenMm,
          limit: own.wishedUnevenMm + uneven.value,
          source: uneven.source,
          says: `{${c.tooth}} edge: level within ${mm(own.unevenMm)} mm`,
        },
  ];
};
