import { columnPlace, type Missing } from './missing.js';
import type { DrawnBreak } from './words.js';

/** The corner at which a break is drawn: to which side x goes there, how far out it lies that way, and its edge, mm. */
export function cornerOf(
  m: Missing,
  drawn: DrawnBreak,
  mesialX: 1 | -1,
): { side: number; outer: number; edge: number } {
  const all = [...m.wants.keys()].map((c) => columnPlace(m, c));
  const side = drawn.corner === 'mesial' ? mesialX : -mesialX;
  const outer = all.reduce((a, [x]) => Math.max(a, side * x), -Infinity);
  const edge = all.reduce((a, [, z]) => Math.min(a, z), Infinity);
  return { side, outer, edge };
}

/**
 * A corner taken off a tooth as somebody has drawn it: from the edge up and from the side in, straight between.
 * @param mesialX 1 where the crown's x goes to the mesial side
 */
export function brokenOff(m: Missing, drawn: DrawnBreak, mesialX: 1 | -1): Missing {
  const { side, outer, edge } = cornerOf(m, drawn, mesialX);
  const isOff = (column: number) => {
    const [x, z] = columnPlace(m, column);
    return (outer - side * x) / drawn.widthMm + (z - edge) / drawn.heightMm < 1;
  };
  const cell = m.grid.step ** 2;
  const before = new Map(m.columns.map((c) => [c.column, c]));
  const stands = new Map([...m.stands].filter(([column]) => !isOff(column)));
  let missingMm3 = m.missingMm3;
  for (const [column, planned] of m.wants) {
    if (!isOff(column)) continue;
    const own = before.get(column);
    for (const s of [own?.front, own?.behind, own?.whole]) if (s) missingMm3 -= cell * (s.to - s.from);
    missingMm3 += cell * (planned.to - planned.from);
    before.set(column, { column, planned, whole: planned });
  }
  return { ...m, stands, missingMm3, columns: [...before.values()] };
}
