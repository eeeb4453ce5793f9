import { directionToParent, toLocal } from '../../geometry/frame.js';
import { wayTold, wayWords } from '../../reduction/way-out.js';
import { bestWay, undercutMm2 } from '../draw.js';
import { PREP_LIMITS } from '../limits.js';
import { type Check, scanPlace } from './checked.js';

/** What hangs over on the way out that was planned, and the way on which least does. */
export const drawCheck: Check = (c) => {
  const way = directionToParent(c.target.frame, c.target.way);
  const hangs = undercutMm2(c.facing, way);
  const { undercut } = PREP_LIMITS;
  const base = { check: 'draw' as const, tooth: c.tooth, place: 'way out', unit: 'mm²' as const, pm: 0.2 };
  if (hangs <= undercut.value + base.pm)
    return [
      {
        ...base,
        state: 'right',
        value: hangs,
        limit: undercut.value,
        source: undercut.source,
        says: `{${c.tooth}} comes off ${wayWords(wayTold(c.target.way, c.distal))}`,
      },
    ];
  const best = bestWay(c.facing, way);
  const local = toLocal({ ...c.target.frame, origin: [0, 0, 0] }, best.way);
  const other = best.undercutMm2 <= undercut.value;
  const worst = c.facing.vertex.reduce<{ v: number; d: number }>(
    (a, v, i) => {
      const d = [0, 1, 2].reduce((s, k) => s + (c.facing.normals[3 * i + k] as number) * (way[k as 0] as number), 0);
      return d < a.d ? { v, d } : a;
    },
    { v: 0, d: 1 },
  );
  const words = wayWords(wayTold(local, c.distal));
  return [
    {
      ...base,
      state: other ? 'look' : 'cut',
      value: hangs,
      limit: undercut.value,
      source: undercut.source,
      says: `{${c.tooth}}: ${hangs.toFixed(1)} mm² hang over on the planned way out`,
      todo: other
        ? `it comes off ${words}: write that way on the prescription, or cut what hangs`
        : `cut what hangs; on the best way (${words}) ${best.undercutMm2.toFixed(1)} mm² still hang`,
      at: scanPlace(c, worst.v),
    },
  ];
};
