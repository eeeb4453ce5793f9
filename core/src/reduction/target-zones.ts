import { archSide } from '../contour/arch.js';
import { toLocal } from '../geometry/frame.js';
import { vertexAreas } from '../geometry/mesh.js';
import type { Vec3 } from '../geometry/vec.js';
import { thirdAt } from '../restoration/thickness.js';
import type { FacialThird } from '../teeth/norms.js';
import { type OverPulp, overPulp } from './pulp.js';
import { enamelNormAt, type Mouth, NOTHING_MM } from './removal.js';
import type { TargetSurface } from './target.js';
import { TARGET_PLACES } from './target-grid.js';
import { type WayTold, wayTold } from './way-out.js';

/** A part of a preparation that is told by itself: a ninth of the face, a side, the palatal surface, or the edge. */
export type TargetZone =
  | `${FacialThird} ${'mesial' | 'middle' | 'distal'}`
  | 'mesial side'
  | 'distal side'
  | 'palatal'
  | 'edge';

/** What goes in a zone, mm, by the area that the restoration covers there; where the plan has room enough it is 0. */
export interface ZoneRemoval {
  readonly zone: TargetZone;
  readonly areaMm2: number;
  readonly least: number;
  readonly median: number;
  /** What 95 % of the zone stays under. */
  readonly deep: number;
  readonly most: number;
}

/** What a preparation comes to. */
export interface TargetTold {
  readonly zones: readonly ZoneRemoval[];
  readonly removedMm3: number;
  /** The part of it that only brings the tooth into line with the plan. */
  readonly alignMm3: number;
  /** What the same thickness would take without a plan. */
  readonly bareMm3: number;
  /** Of the crown as it is. */
  readonly removedShare: number;
  /**
   * Of the cut face, mm²: where the enamel of most teeth of this age would be through, and where it may be, by the
   * thick and the thin end of the norm at each height. Of sides and palatal surfaces there is no norm here.
   */
  readonly dentinMm2: { readonly sure: number; readonly perhaps: number };
  /** Cut face in all, mm². */
  readonly faceMm2: number;
  /** What is left over the pulp by a rough estimate, mm. */
  readonly pulp: OverPulp;
  /** The way on which the restoration comes off. */
  readonly way: WayTold;
}

/** Tells a target surface zone by zone. Zones in which nothing is covered are left out. */
export function targetTold(t: TargetSurface, mouth: Mouth = {}): TargetTold {
  const sizes = areasBefore(t);
  const own = new Map<TargetZone, { mm: number; area: number }[]>();
  const dentin = { sure: 0, perhaps: 0 };
  let faceMm2 = 0;
  for (let i = 0; i < t.removedMm.length; i++) {
    const zone = zoneOf(t, i);
    if (!zone) continue;
    const [mm, area] = [t.removedMm[i] as number, sizes[i] as number];
    const all = own.get(zone);
    if (all) all.push({ mm, area });
    else own.set(zone, [{ mm, area }]);
    if (TARGET_PLACES[t.place[i] as number] !== 'facial' || mm <= NOTHING_MM) continue;
    faceMm2 += area;
    const norm = enamelNormAt(t.toothShare[i] as number, mouth);
    if (mm >= norm.to) dentin.sure += area;
    else if (mm >= norm.from) dentin.perhaps += area;
  }
  return {
    zones: ZONE_ORDER.flatMap((zone) => {
      const all = own.get(zone);
      return all ? [told(zone, all)] : [];
    }),
    removedMm3: t.removedMm3,
    alignMm3: t.alignMm3,
    bareMm3: t.bareMm3,
    removedShare: t.removedMm3 / t.crownMm3,
    dentinMm2: dentin,
    faceMm2,
    pulp: overPulp(t, mouth.ageYears),
    way: wayTold(t.way, archSide(t.tooth) === 'left' ? 1 : -1),
  };
}

const THIRD_ORDER = ['cervical', 'middle', 'incisal'] as const;
/** All of them, in the order in which they are told. */
export const ZONE_ORDER: readonly TargetZone[] = [
  ...THIRD_ORDER.flatMap((third) =>
    (['mesial', 'middle', 'distal'] as const).map((part) => `${third} ${part}` as const),
  ),
  'mesial side',
  'distal side',
  'palatal',
  'edge',
];

/** A third of the face from the middle, as a share of half its width. */
const MIDDLE = 1 / 3;

/** The zone of a vertex; undefined where the restoration covers nothing. */
export function zoneOf(t: TargetSurface, i: number): TargetZone | undefined {
  const place = TARGET_PLACES[(t.covered[i] || t.place[i]) as number];
  if (place === 'kept') return undefined;
  if (place === 'edge' || place === 'palatal') return place;
  const [x] = toLocal(t.frame, t.before.positions.subarray(3 * i, 3 * i + 3) as unknown as Vec3);
  const distal = archSide(t.tooth) === 'left' ? x > 0 : x < 0;
  if (place === 'proximal') return distal ? 'distal side' : 'mesial side';
  const part = Math.abs(x) < MIDDLE * halfWidth(t) ? 'middle' : distal ? 'distal' : 'mesial';
  return `${thirdAt(t.share[i] as number)} ${part}`;
}

const widths = new WeakMap<TargetSurface, number>();

/** Half the width of the covered face, mm. */
export function halfWidth(t: TargetSurface): number {
  const known = widths.get(t);
  if (known !== undefined) return known;
  let half = 0.1;
  for (let i = 0; i < t.place.length; i++)
    if (TARGET_PLACES[t.covered[i] as number] === 'facial')
      half = Math.max(
        half,
        Math.abs(toLocal(t.frame, t.before.positions.subarray(3 * i, 3 * i + 3) as unknown as Vec3)[0]),
      );
  widths.set(t, half);
  return half;
}

function told(zone: TargetZone, all: { mm: number; area: number }[]): ZoneRemoval {
  all.sort((a, b) => a.mm - b.mm);
  const areaMm2 = all.reduce((sum, p) => sum + p.area, 0);
  const under = (share: number): number => {
    let left = share * areaMm2;
    for (const p of all) {
      left -= p.area;
      if (left <= 0) return p.mm;
    }
    return all.at(-1)?.mm ?? 0;
  };
  return {
    zone,
    areaMm2,
    least: all[0]?.mm ?? 0,
    median: under(0.5),
    deep: under(0.95),
    most: all.at(-1)?.mm ?? 0,
  };
}

/** A third of each triangle of the tooth as it is, mm². */
export function areasBefore(t: TargetSurface): Float64Array {
  const own = areas.get(t) ?? vertexAreas(t.before);
  areas.set(t, own);
  return own;
}

const areas = new WeakMap<TargetSurface, Float64Array>();
