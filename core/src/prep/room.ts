import { type TargetZone, ZONE_ORDER } from '../reduction/target-zones.js';
import { inZone, type PrepMap, underShare } from './prep-tooth.js';

/** What a zone of a prepared tooth has room for, mm. */
export interface ZoneRoom {
  readonly zone: TargetZone;
  readonly areaMm2: number;
  /** From the prepared surface to the planned contour. */
  readonly least: number;
  /** What 5 % of the zone stay under. */
  readonly thin: number;
  readonly median: number;
  /** What the target has there, at the median. */
  readonly wanted: number;
  /** What is still to cut, but for 5 % of the zone; at the median; below 0 where more was cut than asked. */
  readonly shortDeep: number;
  readonly shortMedian: number;
  /** How much more was cut than asked, but for 5 % of the zone; 0 or less where nowhere. */
  readonly overDeep: number;
  /** The vertex of the scan where most is still to cut, and where most was cut too much. */
  readonly shortAt: number;
  readonly overAt: number;
}

/** A zone with less area says nothing, mm². House value. */
const LEAST_MM2 = 0.4;
/** What the worst twentieth of a zone shows may be a scan's own slip. */
const TAIL = 0.05;

/** Room in every zone that was prepared and seen. */
export function zoneRooms(map: PrepMap): ZoneRoom[] {
  return ZONE_ORDER.flatMap((zone): ZoneRoom[] => {
    const own = inZone(map, zone);
    const areaMm2 = own.reduce((sum, v) => sum + (map.areaMm2[v] as number), 0);
    if (areaMm2 < LEAST_MM2) return [];
    const room = (share: number) => underShare(map, own, map.roomMm, share);
    const short = (share: number) => underShare(map, own, map.shortMm, share);
    const median = room(0.5);
    const [shortDeep, shortMedian, overDeep] = [short(1 - TAIL), short(0.5), -short(TAIL)];
    const nearest = (mm: number) =>
      own.reduce((a, b) =>
        Math.abs((map.shortMm[b] as number) - mm) < Math.abs((map.shortMm[a] as number) - mm) ? b : a,
      );
    return [
      {
        zone,
        areaMm2,
        least: room(0),
        thin: room(TAIL),
        median,
        wanted: median + shortMedian,
        shortDeep,
        shortMedian,
        overDeep,
        shortAt: nearest(shortDeep),
        overAt: nearest(-overDeep),
      },
    ];
  });
}
