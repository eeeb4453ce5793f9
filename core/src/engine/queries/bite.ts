import type { ToothClearance } from '../../occlusion/movement.js';
import type { BiteView, BiteWish } from '../bite.js';
import type { CaseEngine } from '../case-engine.js';

/** The closed bite with the planned crowns and as it is; nothing without a lower jaw. */
export function closedBite(engine: CaseEngine): { planned: ToothClearance[]; existing: ToothClearance[] } | undefined {
  const bite = engine.bite();
  return bite && { planned: bite.closed(engine.crowns()), existing: bite.closed(undefined) };
}

/** The bite at one place of a movement; nothing without a lower jaw. */
export const biteAt = (engine: CaseEngine, wish: BiteWish): BiteView | undefined =>
  engine.bite()?.at(wish, engine.crowns());
