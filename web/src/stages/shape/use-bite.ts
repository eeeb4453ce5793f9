import type { BiteView, BiteWish, ContourPlan } from '@radiant/core';
import { useMemo } from 'react';
import { type Asked, useAsked } from '../../engine/use-asked.js';
import { type ContourState, clientOf } from '../../engine/use-contour.js';
import type { LowerState } from '../../engine/use-lower.js';

/** The bite for a wish. */
export function useBite(
  contour: ContourState,
  plan: ContourPlan,
  lower: LowerState,
  wish: BiteWish | undefined,
): Asked<BiteView | undefined> {
  const input = useMemo(() => wish && ([wish] as const), [wish]);
  return useAsked(lower.state === 'ready' ? clientOf(contour) : undefined, plan, 'biteAt', input);
}
