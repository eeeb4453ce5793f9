import { type TargetZone, ZONE_ORDER } from '../../reduction/target-zones.js';
import type { PrepFinding } from '../finding.js';
import { overFinish } from '../finish-height.js';
import { PREP_LIMITS } from '../limits.js';
import { inZone, underShare } from '../prep-tooth.js';
import { type Check, type Checked, mm, scanPlace } from './checked.js';

/** A scanned provisional ends at the gum: nothing is read of it nearer to the finish line, mm. House value. */
const FROM_FINISH_MM = 1;
/** Fewer places of a zone say nothing. House value. */
const LEAST = 12;
/** What the worst twentieth of a zone shows may be a scan's own slip. */
const TAIL = 0.05;
/** The edge's cut looks to the edge by so much: the cosine of 45°. House value. */
const FACES_EDGE = Math.SQRT1_2;
/** What is asked for less than this share of a zone's usual is its rim. House value. */
const RIM_SHARE = 0.5;
/** So much of a zone without any material over it, where as much was asked, is a hole: mm², mm. House values. */
const HOLE = { mm2: 0.3, askedMm: 0.3 } as const;

/**
 * The provisional as proof: how thick it is over every zone, against what the plan has there. A thin place comes from a
 * cut that is too shallow, or from a provisional that lies under the plan; each is told as what it is.
 */
export const provisionalCheck: Check = (c) => {
  const { provisional } = c;
  if (!provisional) return [];
  const over = overFinish(c.target);
  const toEdge = facingEdge(c);
  return ZONE_ORDER.flatMap((zone): PrepFinding[] => {
    // Where a veneer runs out at a side nobody asks for a thickness.
    if (!c.design.around && zone.endsWith('side')) return [];
    const own = inZone(c.map, zone).filter(
      (v) =>
        !Number.isNaN(provisional.thickMm[v]) &&
        over(scanPlace(c, v)) > FROM_FINISH_MM &&
        (zone !== 'edge' || toEdge.has(v)),
    );
    return own.length < LEAST ? [] : zoneOfIt(c, zone, own);
  });
};

/** What faces the edge: beside it the tooth as it was may stand in the edge's zone, where nothing lies over it. */
function facingEdge({ facing: { vertex, normals }, target }: Checked): ReadonlySet<number> {
  const { z } = target.frame;
  const out = (i: number) => -(normals[3 * i]! * z[0] + normals[3 * i + 1]! * z[1] + normals[3 * i + 2]! * z[2]);
  return new Set([...vertex].filter((_, i) => out(i) > FACES_EDGE));
}

function zoneOfIt(c: Checked, zone: TargetZone, all: readonly number[]): PrepFinding[] {
  const { overMm, thickMm, pmMm: pm } = c.provisional as NonNullable<Checked['provisional']>;
  const wanted = (v: number) => (c.map.roomMm[v] as number) + (c.map.shortMm[v] as number);
  // Where a zone runs out nearly nothing is asked for: its rim says nothing of the rest.
  const usual = underShare(
    c.map,
    all,
    c.map.roomMm.map((_, v) => wanted(v)),
    0.5,
  );
  const own = all.filter((v) => wanted(v) > RIM_SHARE * usual);
  if (own.length < LEAST) return [];
  const lacks = thickMm.map((mm, v) => wanted(v) - mm);
  const deep = underShare(c.map, own, lacks, 1 - TAIL);
  const through = own.filter((v) => thickMm[v]! <= 0 && wanted(v) > HOLE.askedMm);
  const isHole = through.reduce((sum, v) => sum + c.map.areaMm2[v]!, 0) > HOLE.mm2;
  const at = isHole
    ? through.reduce((a, b) => (wanted(b) > wanted(a) ? b : a))
    : own.reduce((a, b) => (Math.abs(lacks[b]! - deep) < Math.abs(lacks[a]! - deep) ? b : a));
  const { value: limit, source } = PREP_LIMITS.short;
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
  if (!isHole && deep <= limit + pm)
    return [
      {
        ...base,
        state: 'right',
        says: `{${c.tooth}} ${zone}: the provisional is ${mm(thick)} mm thick where it is thinnest`,
      },
    ];
  const stands = isHole
    ? `a hole in the provisional where ${mm(needed)} mm are needed`
    : `the provisional is ${mm(thick)} mm thick where ${mm(needed)} are needed`;
  const [short, under] = [c.map.shortMm[at]!, -overMm[at]!];
  return [
    short > under
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
        },
  ];
}
