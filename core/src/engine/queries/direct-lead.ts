import type { LeadBack } from '../../occlusion/lead-back.js';
import type { Fdi } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';

/** What a side needs, and how much each of its canines has lost at the tip, as the form that fits best says, mm. */
export interface CanineLead extends LeadBack {
  readonly upperWearMm?: number;
  readonly lowerWearMm?: number;
}

/** What the canines of each side need to lead again, as they are and as planned; nothing without a lower jaw. */
export function directLead(
  engine: CaseEngine,
  partMm: number,
): { readonly now: readonly CanineLead[]; readonly planned: readonly CanineLead[] } | undefined {
  const bite = engine.bite();
  if (!bite) return undefined;
  const wear = (tooth: Fdi) => engine.archOf(tooth).teeth.get(tooth)?.wearMm;
  const worn = (all: readonly LeadBack[]) =>
    all.map((l): CanineLead => {
      const [upperWearMm, lowerWearMm] = [wear(l.upper), wear(l.lower)];
      return {
        ...l,
        ...(upperWearMm !== undefined && { upperWearMm }),
        ...(lowerWearMm !== undefined && { lowerWearMm }),
      };
    });
  return { now: worn(bite.leadBack(partMm, undefined)), planned: worn(bite.leadBack(partMm, engine.crowns())) };
}
