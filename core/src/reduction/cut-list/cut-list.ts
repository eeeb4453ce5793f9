import { type Design, onlyAdded } from '../../restoration/design.js';
import type { Fdi } from '../../teeth/notation.js';
import { type Bur, burId } from '../burs/bur.js';
import type { Groove } from '../burs/choose.js';
import type { Engagement } from '../burs/engagement.js';
import type { ToothReduction } from '../plan.js';
import { strategyOf } from '../strategies/index.js';
import type { CutFrom } from '../strategies/words.js';
import type { TargetTold } from '../target-zones.js';
import { rolesOf } from './roles.js';
import { addedOrder, type CutStep, type ToothCut } from './steps.js';

/** What is done to one tooth, from the first cut to the polish. */
export interface ToothCutList {
  readonly tooth: Fdi;
  readonly design: Design;
  readonly steps: readonly CutStep[];
}

/** A tooth with what goes from it. */
export interface CutTooth {
  readonly design: Design;
  readonly reduction: ToothReduction;
  readonly told: TargetTold;
}

/** The engagement that a groove is cut by: its own, or the nearest below it. */
export const engagementOf = (g: Groove): Engagement | undefined => (g.kind === 'cut' ? g.engagement : g.nearest);

/** The cut lists of a case's teeth by one strategy and tray. */
export function cutLists(teeth: readonly CutTooth[], from: CutFrom, burs: readonly Bur[]): ToothCutList[] {
  const inHand = [
    ...new Map(
      teeth
        .flatMap((t) => t.reduction.zones.flatMap((z) => engagementOf(z.groove)?.bur ?? []))
        .map((b) => [burId(b), b] as const),
    ).values(),
  ];
  return teeth.map(({ design, reduction, told }) => {
    const zones = reduction.zones.map(({ zone, removal, groove }) => ({
      zone,
      removeMm: removal?.remove.value ?? 0,
      alignMm: removal?.alignFirst ?? 0,
      groove,
    }));
    const neck = zones.find((z) => z.zone === 'cervical')?.removeMm ?? 0;
    const roles = rolesOf(burs, inHand, design, neck);
    const cut: ToothCut = { tooth: reduction.tooth, design, zones, told, roles };
    // What is only added has no grooves by any strategy.
    const steps = onlyAdded(design) ? addedOrder(cut) : strategyOf(from).order(cut);
    return { tooth: reduction.tooth, design, steps };
  });
}

/** The burs of cut lists in the order in which they are first taken. */
export const bursOf = (lists: readonly ToothCutList[]): Bur[] => [
  ...new Map(lists.flatMap((l) => l.steps.flatMap((s) => s.bur ?? [])).map((b) => [burId(b), b] as const)).values(),
];
