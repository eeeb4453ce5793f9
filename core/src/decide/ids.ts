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
