import { VISIBLE } from '../colour/lab.js';

/** The options and the rules by their ids alone: what a form is checked against. */
export const OPTION_IDS = [
  'none',
  'bleach',
  'direct',
  'no-prep',
  'facial',
  'veneer',
  'wrap',
  'extended',
  'glass-crown',
  'zirconia-crown',
  'metal-crown',
] as const;
export type OptionId = (typeof OPTION_IDS)[number];

export const RULE_IDS = [
  'additive-first',
  'broken-down',
  'enamel-to-bond',
  'dry-to-bond',
  'thin-palatal-room',
  'bite-lacks',
  'dark-stump',
  'no-prep-colour',
  'the-wish',
  'bleach-first',
  'translucency',
  'adjustable-stain',
  'same-centrals',
  'beside-a-crown',
  'grinding',
  'acid',
  'child',
  'gap-schools',
  'came-off',
  'short-walls',
  'least-thickness',
  'way-out',
  'permitted-use',
  'margin-under',
] as const;
export type RuleId = (typeof RULE_IDS)[number];

/** The number on which a rule turns, and within what a house may set its own. */
export interface RuleLimitRange {
  readonly value: number;
  readonly unit: string;
  readonly min: number;
  readonly max: number;
}

/** Of walls, mm: Goodacre, Campagni, Aquilino 2001, J Prosthet Dent 85:363, from memory. */
export const HOLDING_WALL_MM = 3;

/** Where the rules turn that do so on a number. House values where the rule names no source. */
export const RULE_LIMITS = {
  'additive-first': { value: 0.4, unit: 'of the crown', min: 0.1, max: 0.9 },
  'enamel-to-bond': { value: 0.5, unit: 'of the bonding area', min: 0.1, max: 1 },
  'thin-palatal-room': { value: 1, unit: 'mm', min: 0.2, max: 2 },
  'bite-lacks': { value: 0.5, unit: 'mm', min: 0.05, max: 1 },
  'dark-stump': { value: VISIBLE.notTaken, unit: 'ΔE00', min: 0.5, max: 6 },
  'no-prep-colour': { value: 4, unit: 'ΔE00', min: 1, max: 12 },
  child: { value: 18, unit: 'years', min: 12, max: 25 },
  'short-walls': { value: HOLDING_WALL_MM, unit: 'mm', min: 2, max: 5 },
  'way-out': { value: 0.3, unit: 'mm', min: 0.1, max: 1 },
  'margin-under': { value: 0.7, unit: 'mm', min: 0, max: 2 },
} as const satisfies Partial<Readonly<Record<RuleId, RuleLimitRange>>>;
