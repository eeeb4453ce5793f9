import { PREP_LIMITS } from '../limits.js';
import { zoneRooms } from '../room.js';
import { type Check, mm } from './checked.js';

/** Whether the face follows the plan's curve: flat, its middle falls short while gum and edge thirds are right. */
export const faceCheck: Check = (c) => {
  const rooms = new Map(zoneRooms(c.map).map((z) => [z.zone, z] as const));
  const third = (t: 'cervical' | 'middle' | 'incisal') => rooms.get(`${t} middle`)?.shortMedian;
  const [gum, middle, edge] = [third('cervical'), third('middle'), third('incisal')];
  if (gum === undefined || middle === undefined || edge === undefined) return [];
  const value = middle - Math.max(gum, edge);
  const { flat } = PREP_LIMITS;
  // Both ends carry the scan's own slip in common with the middle: only what is left of it counts.
  const pm = c.pmMm / 2;
  const base = { check: 'face' as const, tooth: c.tooth, place: 'middle of the face', value, pm, unit: 'mm' as const };
  return [
    value > flat.value + pm
      ? {
          ...base,
          state: 'cut',
          zone: 'middle middle',
          limit: flat.value,
          source: flat.source,
          says: `{${c.tooth}} face: flat where the contour curves; its middle falls ${mm(value)} mm short of its ends`,
          todo: 'cut the middle plane: lay the bur by the planned curve, not by the two ends',
          cutMm: Math.max(middle, 0),
        }
      : {
          ...base,
          state: 'right',
          limit: flat.value,
          source: flat.source,
          says: `{${c.tooth}} face: follows the curve`,
        },
  ];
};
