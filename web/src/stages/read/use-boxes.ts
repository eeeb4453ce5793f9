import { type BoxOutline, LANDMARK_KINDS, sideOf } from '@radiant/core';
import { useState } from 'react';
import type { PictureBox } from '../../bench/PhotoBench.js';
import { useCase } from '../../data/case-context.js';
import type { Edges } from '../../engine/use-edges.js';
import type { useGuided } from './use-guided.js';

/** The box's own sides, where nothing is seen in the picture. */
const outlineOfBox = ({ left, right, top, bottom }: PictureBox): BoxOutline => ({
  zenith: [(left + right) / 2, top],
  edge: [(left + right) / 2, bottom],
  left: [left, top + 0.65 * (bottom - top)],
  right: [right, top + 0.65 * (bottom - top)],
});

/**
 * Boxes dragged over teeth instead of points set one by one: a box puts a tooth's four points where its borders are
 * seen, as one step; each can be dragged on.
 * @param can whether outlines are being marked now
 */
export function useBoxes(can: boolean, { marks, next, placeAll }: ReturnType<typeof useGuided>) {
  const { selectTooth } = useCase();
  const [wanted, want] = useState(false);
  const tooth = next?.tooth;
  const take = async (box: PictureBox, { outline }: Edges): Promise<void> => {
    if (tooth === undefined || !placeAll) return;
    const seen = (await outline(box)) ?? outlineOfBox(box);
    const [mesial, distal] = sideOf(tooth) === 'right' ? [seen.right, seen.left] : [seen.left, seen.right];
    const places = { zenith: seen.zenith, edge: seen.edge, mesial, distal };
    placeAll(LANDMARK_KINDS.map((kind) => ({ id: `${kind}-${tooth}`, px: places[kind] })));
    const rest = marks.find((m) => m.tooth !== tooth && !m.at);
    if (rest?.tooth) selectTooth(rest.tooth);
  };
  return { wanted, toggle: () => want((w) => !w), on: can && wanted && tooth !== undefined && !!placeAll, take };
}
