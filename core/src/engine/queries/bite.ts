import { SIDE_STEP_MM, type SideLead } from '../../occlusion/guidance.js';
import type { ToothClearance } from '../../occlusion/movement.js';
import { sideOf } from '../../teeth/notation.js';
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

/** What leads when the lower jaw slides to either side, on the teeth as they are; nothing without a lower jaw. */
export function sideLeads(engine: CaseEngine): SideLead[] | undefined {
  const bite = engine.bite();
  if (!bite) return undefined;
  const { teeth } = engine.arch('upper');
  return (['right', 'left'] as const).map((to) => {
    const { touching, othersMm } = bite.at(
      { which: 'existing', direction: to, alongMm: SIDE_STEP_MM, guidance: 'teeth' },
      undefined,
    );
    const canine = to === 'right' ? 13 : 23;
    return {
      to,
      leading: touching.filter((t) => sideOf(t) === to),
      balancing: touching.filter((t) => sideOf(t) !== to),
      othersMm,
      canine,
      canineWearMm: teeth.get(canine)?.wearMm,
    };
  });
}
