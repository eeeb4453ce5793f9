import { type CaseDetail, contourPlan, mouthOf } from '@radiant/contract';
import { ask, type CaseEngine, type Fdi, type OptionId, optionOf, Refusal } from '@radiant/core';

/** What an option takes of a tooth of a case, mm³; nothing where no scan, or no plan, says how much. */
export function removedIn(
  { sections: { reduce, meet, shape } }: CaseDetail,
  engine: CaseEngine,
): (tooth: Fdi, option: OptionId) => number | undefined {
  engine.setPlan(contourPlan(shape.data.teeth));
  const planned = new Set(shape.data.teeth.map((t) => t.tooth));
  return (tooth, id) => {
    const { design } = optionOf(id);
    if (!design) return 0;
    if (!planned.has(tooth)) return undefined;
    try {
      const own = { ...reduce.data, design, own: [] };
      return ask(engine, 'target', tooth, own, mouthOf(meet.data)).told.removedMm3;
    } catch (error) {
      if (error instanceof Refusal) return undefined;
      throw error;
    }
  };
}
