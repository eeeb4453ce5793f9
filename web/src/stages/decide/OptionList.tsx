import type { Fee } from '@radiant/contract';
import {
  type HouseRules,
  type OptionId,
  type Ranked,
  type RuleId,
  type Said,
  sourceWords,
  strengthOf,
} from '@radiant/core';
import { Popover } from 'radix-ui';
import { number } from '../../ui/format.js';
import { money } from './WholeCase.js';

const WEIGHTS = { for: 'good', note: 'watch', against: 'watch', 'reason asked': 'stop' } as const;
const SIGNS = { for: '+', note: '·', against: '−', 'reason asked': '!' } as const;

/** The options of a tooth, that for which most speaks first, each with its figures and the sentences that put it there. */
export function OptionList({
  ranked,
  fees,
  currency,
  limits,
  chosen,
  choose,
  switchOff,
}: {
  ranked: readonly Ranked[];
  fees: readonly Fee[];
  currency: string;
  /** Where the house's rules turn. */
  limits: HouseRules['limits'];
  chosen: OptionId | undefined;
  /** Left out where one may only look. */
  choose: ((option: OptionId) => void) | undefined;
  switchOff: ((rule: RuleId) => void) | undefined;
}) {
  return (
    <ol className="flex flex-col gap-2" aria-label="Options">
      {ranked.map((r) => (
        <li
          key={r.option.id}
          className={`rounded-lg border px-4 py-2.5 ${chosen === r.option.id ? 'border-plum bg-plum-soft' : 'border-hair bg-leaf'}`}
        >
          <div className="flex items-baseline gap-4">
            <label className="flex flex-1 items-baseline gap-2 font-semibold">
              <input
                type="radio"
                className="accent-plum"
                name="option"
                checked={chosen === r.option.id}
                disabled={!choose}
                onChange={() => choose?.(r.option.id as OptionId)}
              />
              {r.option.name}
            </label>
            <Figures ranked={r} fee={fees.find((f) => f.option === r.option.id)?.fee} currency={currency} />
          </div>
          {r.said.length > 0 && (
            <ul className="mt-1 flex flex-col gap-0.5 pl-5 text-note">
              {r.said.map((s) => (
                <Sentence key={s.rule.id} said={s} limit={limits[s.rule.id]} switchOff={switchOff} />
              ))}
            </ul>
          )}
        </li>
      ))}
    </ol>
  );
}

function Figures({
  ranked: { option, figures },
  fee,
  currency,
}: {
  ranked: Ranked;
  fee: number | undefined;
  currency: string;
}) {
  const strength = strengthOf(option);
  const told = [
    option.design && [
      'tooth taken',
      `${number(figures.removedMm3, 0)} mm³ · ${number(100 * figures.removedShare, 0)} %`,
    ],
    option.holds === 'bond' &&
      figures.enamelShare !== undefined && ['bonded to enamel', `${number(100 * figures.enamelShare, 0)} %`],
    figures.dE !== undefined && ['ΔE00', number(figures.dE, 1)],
    figures.leastMm && [
      'thinnest of least',
      `${number(figures.leastMm.planned, 1)} of ${number(figures.leastMm.material, 1)} mm`,
    ],
    figures.lacksMm !== undefined && figures.lacksMm > 0.05 && ['bite lacks', `${number(figures.lacksMm, 1)} mm`],
    figures.wallMm !== undefined && [
      'walls',
      `${number(figures.wallMm, 1)} mm${figures.taperDeg ? ` · ${number(figures.taperDeg, 0)}°` : ''}`,
    ],
    figures.margin && ['margin to gum', marginWords(figures.margin)],
    strength && ['class', String(strength.number)],
    ['visits', String(option.visits)],
    fee !== undefined && ['price', money(fee, currency)],
  ].filter((t): t is [string, string] => Array.isArray(t));
  return (
    <dl className="flex gap-4 text-tiny whitespace-nowrap">
      {told.map(([what, value]) => (
        <div key={what} className="text-right">
          <dt className="text-ink-2">{what}</dt>
          <dd className="font-semibold">{value}</dd>
        </div>
      ))}
    </dl>
  );
}

/** Where a margin lies: under the gum at most, or over it all the way. */
const marginWords = ({ overMm, underMm }: NonNullable<Ranked['figures']['margin']>): string =>
  underMm > 0.05 ? `${number(underMm, 1)} under` : `${number(Math.max(0, overMm), 1)} over`;

/** A sentence that opens its rule. */
function Sentence({
  said,
  limit,
  switchOff,
}: {
  said: Said;
  limit: number | undefined;
  switchOff: ((rule: RuleId) => void) | undefined;
}) {
  const { rule, effect, says } = said;
  return (
    <li className="flex gap-2">
      <span aria-hidden className={`w-3 shrink-0 text-center font-semibold ${TONES[WEIGHTS[effect]]}`}>
        {SIGNS[effect]}
      </span>
      <span>
        <span className="sr-only">{effect}: </span>
        {says}{' '}
        <Popover.Root>
          <Popover.Trigger className="how text-tiny">{rule.title}</Popover.Trigger>
          <Popover.Portal>
            <Popover.Content
              className="z-30 w-80 rounded-lg bg-leaf p-4 text-note shadow-lg"
              sideOffset={6}
              collisionPadding={12}
            >
              <p className="mb-1 font-semibold">{rule.title}</p>
              <p>{rule.reason}</p>
              <p className="mt-2 text-tiny text-ink-2">
                {sourceWords(rule.source)}
                {rule.limit ? `. It turns at ${limit ?? rule.limit.value} ${rule.limit.unit}.` : ''}
              </p>
              {switchOff && (
                <Popover.Close className="how mt-2" onClick={() => switchOff(rule.id)}>
                  switch this rule off in this case
                </Popover.Close>
              )}
            </Popover.Content>
          </Popover.Portal>
        </Popover.Root>
      </span>
    </li>
  );
}

const TONES = { good: 'text-added', watch: 'text-removed-ink', stop: 'text-stop' } as const;
