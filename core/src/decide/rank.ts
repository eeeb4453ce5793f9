import { NO_FIGURES, type OptionFigures, type ToothFacts } from './facts.js';
import type { OptionId, RuleId } from './ids.js';
import { OPTIONS, type Option } from './options.js';
import { type Effect, RULES, type Rule, type Verdict } from './rules.js';

/** A sentence on an option, with the rule that says it. */
export interface Said extends Verdict {
  readonly rule: Rule;
}

/** An option with what speaks for it and against it. */
export interface Ranked {
  readonly option: Option;
  readonly figures: OptionFigures;
  readonly said: readonly Said[];
  /** Whether it may be chosen only with a written reason. */
  readonly asksReason: boolean;
}

/** A house's own rules: which do not speak, and where they turn. */
export interface HouseRules {
  readonly off: readonly RuleId[];
  readonly limits: Partial<Readonly<Record<RuleId, number>>>;
}

export const ALL_RULES: HouseRules = { off: [], limits: {} };

/** How much a sentence moves an option in the order; it is never shown as a number. House values. */
const MOVES: Readonly<Record<Effect, number>> = { for: 1, note: 0, against: -1, 'reason asked': -4 };
/** Sentences are told in this order. */
const ORDER: readonly Effect[] = ['reason asked', 'against', 'for', 'note'];

/**
 * The options of a tooth, that for which most speaks first; of equal ones that which takes least of the tooth, and of
 * these the one with fewer visits.
 */
export function ranked(
  facts: ToothFacts,
  figures: ReadonlyMap<OptionId, OptionFigures>,
  house: HouseRules = ALL_RULES,
): Ranked[] {
  const rules = RULES.filter((r) => !house.off.includes(r.id));
  const sum = ({ said }: Ranked) => said.reduce((n, s) => n + MOVES[s.effect], 0);
  return (OPTIONS as readonly Option[])
    .map((option): Ranked => {
      const x = figures.get(option.id as OptionId) ?? NO_FIGURES;
      const said = rules
        .flatMap((rule): Said[] => {
          const own = rule.speaks(facts, option, x, house.limits[rule.id] ?? rule.limit?.value ?? 0);
          return own ? [{ ...own, rule }] : [];
        })
        .sort((a, b) => ORDER.indexOf(a.effect) - ORDER.indexOf(b.effect));
      return { option, figures: x, said, asksReason: said.some((s) => s.effect === 'reason asked') };
    })
    .sort(
      (a, b) => sum(b) - sum(a) || a.figures.removedMm3 - b.figures.removedMm3 || a.option.visits - b.option.visits,
    );
}
