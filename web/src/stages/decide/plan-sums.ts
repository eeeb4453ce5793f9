import { type Fee, priceOf, type ToothChoice } from '@radiant/contract';
import { type Fdi, isoOf, type OptionFigures, type OptionsTold, optionOf, type VisitPlan } from '@radiant/core';

/** The visits that a plan asks for: how many, how long the chair is taken, and when the last treatment can be. */
export function timeOf(plan: VisitPlan | undefined): { visits: number; hours: number; end: string } | undefined {
  const own = plan?.visits.filter((v) => v.needed);
  if (!plan || !own || own.length === 0) return undefined;
  return { visits: own.length, hours: own.reduce((sum, v) => sum + v.minutes, 0) / 60, end: isoOf(plan.end) };
}

/** What a whole plan comes to. */
export interface PlanSums {
  readonly removedMm3: number;
  /** Of the crowns of its teeth. */
  readonly removedShare: number;
  /** The worst predicted difference to what is wanted, ΔE00, and on which tooth. */
  readonly worst?: { readonly tooth: Fdi; readonly dE: number };
  /** Nothing where the house has no fee for one of its options. */
  readonly price?: number;
  readonly decided: number;
  /** Teeth whose figures are still being worked out. */
  readonly waiting: number;
}

export const figuresOf = (told: OptionsTold | undefined, choice: ToothChoice | undefined): OptionFigures | undefined =>
  choice && told?.figures.find(([id]) => id === choice.option)?.[1];

/** @param told the options of each tooth, as far as they are known */
export function sumsOf(
  teeth: readonly Fdi[],
  choices: readonly ToothChoice[],
  told: ReadonlyMap<Fdi, OptionsTold>,
  fees: readonly Fee[],
): PlanSums {
  let [removedMm3, crownMm3, decided, waiting] = [0, 0, 0, 0];
  let price: number | undefined = 0;
  let worst: PlanSums['worst'];
  for (const tooth of teeth) {
    const choice = choices.find((c) => c.tooth === tooth);
    if (!choice) continue;
    decided++;
    const option = optionOf(choice.option);
    const fee = priceOf(fees, choice.option);
    price = fee === undefined || price === undefined ? undefined : price + fee;
    const x = figuresOf(told.get(tooth), choice);
    if (!x) {
      if (option.design) waiting++;
      continue;
    }
    removedMm3 += x.removedMm3;
    if (x.removedShare > 0) crownMm3 += x.removedMm3 / x.removedShare;
    if (x.dE !== undefined && (!worst || x.dE > worst.dE)) worst = { tooth, dE: x.dE };
  }
  return {
    removedMm3,
    removedShare: crownMm3 > 0 ? removedMm3 / crownMm3 : 0,
    ...(worst && { worst }),
    ...(price !== undefined && decided > 0 && fees.length > 0 && { price }),
    decided,
    waiting,
  };
}
