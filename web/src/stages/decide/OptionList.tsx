import { type Fee, priceOf } from '@radiant/contract';
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
          <label className="flex items-baseline gap-2 font-semibold">
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
          <Figures ranked={r} fee={priceOf(fees, r.option.id)} currency={currency} />
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
  const { leastMm, lacksMm, wallMm, taperDeg, margin, enamelShare, dE } = figures;
  // One place for each, so that the figures of all options stand under each other.
  const told: readonly (readonly [string, string | undefined])[] = [
    [
      'tooth taken',
      option.design && `${number(figures.removedMm3, 0)} mm³ · ${number(100 * figures.removedShare, 0)} %`,
    ],
    [
      'to enamel',
      option.holds === 'bond' && enamelShare !== undefined ? `${number(100 * enamelShare, 0)} %` : undefined,
    ],
    ['ΔE00', dE === undefined ? undefined : number(dE, 1)],
    ['thin, of least', leastMm && `${number(leastMm.planned, 1)} of ${number(leastMm.material, 1)} mm`],
    ['bite lacks', lacksMm !== undefined && lacksMm > 0.05 ? `${number(lacksMm, 1)} mm` : undefined],
    [
      'walls',
      wallMm === undefined ? undefined : `${number(wallMm, 1)} mm${taperDeg ? ` · ${number(taperDeg, 0)}°` : ''}`,
    ],
    ['margin to gum', margin && marginWords(margin)],
    ['class', strength && String(strength.number)],
    ['visits', String(option.visits)],
    ['price', fee === undefined ? undefined : money(fee, currency)],
  ];
  return (
    <dl className="mt-1 grid grid-cols-[1.3fr_0.7fr_0.6fr_1.1fr_0.8fr_1fr_1.2fr_0.5fr_0.5fr_0.9fr] gap-x-2 pl-5 text-tiny whitespace-nowrap">
      {told.map(([what, value]) => (
        <div key={what} className={value === undefined ? 'invisible' : ''}>
          <dt className="text-ink-2">{what}</dt>
          <dd className="font-semibold">{value ?? '–'}</dd>
        </div>
      ))}
    </dl>
  );
}

/** Where a margin lies: under the gum at most, or over it all the way. */
const marginWords = ({ overMm, underMm }: NonNullable<Ranked['figures']['margin']>): string =>
  underMm > 0.05 ? `${number(underMm, 1)} mm under` : `${number(Math.max(0, overMm), 1)} mm over`;

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
