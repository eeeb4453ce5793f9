import type { SectionLine, ToothSection } from '@radiant/core';
import { type Doc, INK, PLUM, REMOVED } from './plan-paper.js';

/**
 * A section to scale: tooth, planned contour, target.
 * @param at where the planned edge's place on the axis lies on the paper; `k` points a millimetre; `up` 1 where roots go
 * up on the paper, −1 where they go down
 */
export function drawSection(
  doc: Doc,
  section: ToothSection,
  at: readonly [number, number],
  k: number,
  up: 1 | -1,
): void {
  const line = (l: SectionLine) => {
    for (let j = 0; j < l.points.length; j += 2) {
      const [x, y] = [at[0] + (l.points[j] as number) * k, at[1] - up * (l.points[j + 1] as number) * k];
      if (j === 0) doc.moveTo(x, y);
      else doc.lineTo(x, y);
    }
    if (l.closed) doc.closePath();
  };
  for (const l of section.existing) line(l);
  doc.lineWidth(0.7).fillAndStroke('#efe9dd', INK);
  for (const l of section.planned) line(l);
  doc.lineWidth(0.9).strokeColor(PLUM).stroke();
  for (const l of section.target) line(l);
  doc.dash(2.4, { space: 1.6 }).lineWidth(0.9).strokeColor(REMOVED).stroke().undash();
}
