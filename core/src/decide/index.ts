export { type CeramicDifference, NO_FIGURES, type OptionFigures, type ToothFacts } from './facts.js';
export { type Holding, holdingOf } from './holding.js';
export {
  HOLDING_WALL_MM,
  OPTION_IDS,
  type OptionId,
  RULE_IDS,
  RULE_LIMITS,
  type RuleId,
  type RuleLimitRange,
} from './ids.js';
export { type Holds, isCrown, isVeneer, OPTIONS, type Option, optionOf } from './options.js';
export { ALL_RULES, type HouseRules, type Ranked, ranked, type Said } from './rank.js';
export { type Effect, RULES, type Rule, type Verdict } from './rules.js';
export {
  STRENGTH_CLASSES,
  STRENGTH_SOURCE,
  type StrengthClass,
  strengthClassOf,
  strengthOf,
} from './strength.js';
