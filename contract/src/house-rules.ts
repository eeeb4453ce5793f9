import 'reflect-metadata';
import {
  type HouseRules,
  OPTION_IDS,
  type OptionId,
  RULE_IDS,
  RULE_LIMITS,
  type RuleId,
  type RuleLimitRange,
} from '@radiant/core';
import { IsIn, IsNumber, IsOptional, Max, Min, ValidateBy } from 'class-validator';
import { FINITE, words } from './sections/words.js';

const limitOf = (id: unknown): RuleLimitRange | undefined =>
  (RULE_LIMITS as Partial<Record<string, RuleLimitRange>>)[String(id)];

/** Where a rule turns in a house, in the rule's own unit. */
export class RuleLimit {
  @IsIn(RULE_IDS as unknown as string[], words('This rule is not known.'))
  rule!: RuleId;

  @ValidateBy({
    name: 'isLimit',
    validator: {
      validate: (v: unknown, args) => {
        const own = limitOf((args?.object as RuleLimit | undefined)?.rule);
        return own !== undefined && typeof v === 'number' && v >= own.min && v <= own.max;
      },
      defaultMessage: (args) => {
        const own = limitOf((args?.object as RuleLimit | undefined)?.rule);
        return own ? `It turns between ${own.min} and ${own.max} ${own.unit}.` : 'This rule turns on no number.';
      },
    },
  })
  value!: number;
}

/** Most of a fee; no currency is assumed. */
export const FEE_MOST = 1_000_000;
const FEE = words(`A fee lies between 0 and ${FEE_MOST}.`);

/** What a house asks for an option, for each tooth. */
export class Fee {
  @IsIn(OPTION_IDS as unknown as string[], words('This option is not known.'))
  option!: OptionId;

  @IsNumber(FINITE, FEE)
  @Min(0, FEE)
  @Max(FEE_MOST, FEE)
  fee!: number;

  /** What the laboratory asks for it, for each tooth, on top. */
  @IsOptional()
  @IsNumber(FINITE, FEE)
  @Min(0, FEE)
  @Max(FEE_MOST, FEE)
  laboratory?: number | null;
}

/** What a tooth costs with an option, house and laboratory; nothing is asked for a tooth that is left as it is. */
export function priceOf(fees: readonly Fee[], option: OptionId): number | undefined {
  if (option === 'none') return 0;
  const own = fees.find((f) => f.option === option);
  return own && own.fee + (own.laboratory ?? 0);
}

/** The rules as they speak in a case: what the house has set, and what the case has switched off. */
export const rulesIn = (
  house: { readonly rulesOff: readonly RuleId[]; readonly ruleLimits: readonly RuleLimit[] } | undefined,
  off: readonly RuleId[] = [],
): HouseRules => ({
  off: [...(house?.rulesOff ?? []), ...off],
  limits: Object.fromEntries((house?.ruleLimits ?? []).map((l) => [l.rule, l.value])),
});
