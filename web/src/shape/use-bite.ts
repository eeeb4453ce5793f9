import type { ContourPlan } from '@radiant/core';
import { useEffect, useState } from 'react';
import type { BiteView, BiteWish } from '../workers/bite.js';
import type { ContourState } from '../workers/use-contour.js';
import type { LowerState } from '../workers/use-lower.js';

/** The bite for a wish; the last one stays until the next is there. */
export function useBite(contour: ContourState, plan: ContourPlan, lower: LowerState, wish: BiteWish | undefined): BiteView | undefined {
  const [view, setView] = useState<BiteView>();
  const service = contour.state === 'ready' && lower.state === 'ready' ? contour.service : undefined;
  useEffect(() => {
    if (!service || !wish) return setView(undefined);
    let gone = false;
    void service.bite(plan, wish).then((v) => !gone && setView(v));
    return () => {
      gone = true;
    };
  }, [service, plan, wish]);
  return view;
}
