import { facingWhere } from '../facing.js';
import type { PrepFinding } from '../finding.js';
import { overFinish } from '../finish-height.js';
import { PREP_LIMITS } from '../limits.js';
import { tippingLimitDeg } from '../tipping.js';
import { stanceOf, type Walls, wallsOf } from '../walls.js';
import type { Check, Checked } from './checked.js';

/** A normal that is meant over half a millimetre of a scan is sure of this, degrees. House value. */
const PM_DEG = 1;
const HELP = 'grooves or a box, a build-up, or bonding; where little is left a post and core';

/** What a crown holds by: taper of each pair of walls, their height, and whether it can be tipped off. */
export const wallsCheck: Check = (c) => {
  if (c.design.kind !== 'crown' || !c.design.around) return [];
  const [stance, over] = [stanceOf(c.target.frame, c.distal), overFinish(c.target)];
  const own = wallsOf(c.scan.mesh, c.facing, stance, over);
  const wished = wallsOf(
    c.target.mesh,
    facingWhere(c.target.mesh, (v) => c.target.covered[v] !== 0),
    stance,
    over,
  );
  return [
    ...(['sides', 'faces'] as const).flatMap((pair) => pairFinding(c, own, wished, pair)),
    ...heightFinding(c, own),
  ];
};

const PAIR = { sides: 'mesial and distal wall', faces: 'facial and palatal wall' } as const;

function pairFinding(c: Checked, own: Walls, wished: Walls, pair: 'sides' | 'faces'): PrepFinding[] {
  const value = own.pairs[pair];
  if (value === undefined) return [];
  const { pairLeast, pairMost, pairOver } = PREP_LIMITS;
  const planned = wished.pairs[pair] ?? 0;
  const two = pair === 'sides' ? (['mesial', 'distal'] as const) : (['facial', 'palatal'] as const);
  const [p, q] = two.map((side) => own.walls.find((w) => w.side === side));
  const each = p && q ? ` (${p.side} ${p.taperDeg.toFixed(0)}°, ${q.side} ${q.taperDeg.toFixed(0)}°)` : '';
  const base = {
    check: 'walls' as const,
    tooth: c.tooth,
    place: PAIR[pair],
    value,
    pm: 2 * PM_DEG,
    unit: '°' as const,
  };
  const stands = `{${c.tooth}} ${PAIR[pair]}: ${value.toFixed(0)}° together${each}`;
  if (value < pairLeast.value - base.pm) {
    const steep = p && q && p.taperDeg < q.taperDeg ? p : q;
    return [
      {
        ...base,
        state: 'cut',
        limit: pairLeast.value,
        source: pairLeast.source,
        says: `${stands}, too steep to seat`,
        todo: `lean the ${steep?.side} wall ${Math.max(1, Math.ceil(pairLeast.value - value))}° more`,
      },
    ];
  }
  if (value > Math.max(pairMost.value, planned + pairOver.value) + base.pm) {
    return [
      {
        ...base,
        state: 'look',
        limit: pairMost.value,
        source: pairMost.source,
        says: `${stands}, over ${pairMost.value}° and over the target’s ${planned.toFixed(0)}°: it holds less`,
        todo: `${HELP}`,
      },
    ];
  }
  return [
    {
      ...base,
      state: 'right',
      limit: pairMost.value,
      source: pairMost.source,
      says: value > pairMost.value ? `${stands}, where the planned contour asks for ${planned.toFixed(0)}°` : stands,
    },
  ];
}

function heightFinding(c: Checked, own: Walls): PrepFinding[] {
  const walls = own.walls.filter((w) => w.side !== 'facial');
  if (walls.length === 0) return [];
  const low = walls.reduce((a, b) => (b.heightMm < a.heightMm ? b : a));
  const { wallHeight, heightShare } = PREP_LIMITS;
  const baseMm = low.side === 'palatal' ? own.baseMm.faces : own.baseMm.sides;
  const share = low.heightMm / baseMm;
  const limit = tippingLimitDeg(low.heightMm, baseMm);
  const tips = limit !== undefined && low.taperDeg > limit;
  const base = {
    check: 'walls' as const,
    tooth: c.tooth,
    place: `${low.side} wall`,
    value: low.heightMm,
    pm: c.pmMm,
    unit: 'mm' as const,
    limit: wallHeight.value,
    source: wallHeight.source,
  };
  const stands = `{${c.tooth}} lowest wall ${low.side}: ${low.heightMm.toFixed(1)} mm, ${share.toFixed(2)} of the base`;
  const short = low.heightMm < wallHeight.value - c.pmMm || share < heightShare.value;
  if (!short && !tips) return [{ ...base, state: 'right', says: stands }];
  return [
    {
      ...base,
      state: 'look',
      says: tips
        ? `${stands}; it leans ${low.taperDeg.toFixed(0)}° and would resist tipping only up to ${limit.toFixed(0)}°`
        : `${stands}: ${wallHeight.value} mm and ${heightShare.value} are wanted`,
      todo: `${HELP}. ${brings(low.heightMm, baseMm)}`,
    },
  ];
}

/**
 * What helps against tipping, in numbers: a groove's far wall takes half of the base, a build-up adds to the height.
 */
function brings(heightMm: number, baseMm: number): string {
  const upTo = (h: number, b: number) => {
    const limit = tippingLimitDeg(h, b);
    return limit === undefined ? 'at any lean' : `up to ${limit.toFixed(0)}°`;
  };
  return `Against tipping a wall resists ${upTo(heightMm, baseMm)} now, ${upTo(heightMm, baseMm / 2)} with a groove half way in, ${upTo(heightMm + 1, baseMm)} with 1 mm of build-up`;
}
