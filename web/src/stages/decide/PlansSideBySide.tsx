import type { DecideSection, Fee, PlanName, ToothChoice } from '@radiant/contract';
import { type Fdi, type OptionsTold, optionOf } from '@radiant/core';
import { useToothLabel } from '../../data/case-context.js';
import { useVisits } from '../../data/use-visits.js';
import { day, number } from '../../ui/format.js';
import { figuresOf, sumsOf, timeOf } from './plan-sums.js';
import { money } from './WholeCase.js';

/** Two whole plans beside each other, in words that a patient reads too. */
export function PlansSideBySide({
  teeth,
  data,
  told,
  fees,
  currency,
  follow,
}: {
  teeth: readonly Fdi[];
  data: DecideSection;
  told: ReadonlyMap<Fdi, OptionsTold>;
  fees: readonly Fee[];
  currency: string;
  /** Left out where one may only look. */
  follow: (() => void) | undefined;
}) {
  const name = useToothLabel();
  const here = useVisits();
  const now: PlanName = data.plan ?? 'A';
  const plans: readonly { readonly plan: PlanName; readonly choices: readonly ToothChoice[] }[] = [
    { plan: now, choices: data.choices },
    { plan: now === 'A' ? 'B' : 'A', choices: data.other ?? [] },
  ].sort((a, b) => a.plan.localeCompare(b.plan)) as { plan: PlanName; choices: ToothChoice[] }[];
  const choiceOf = (choices: readonly ToothChoice[], t: Fdi) => choices.find((c) => c.tooth === t);
  return (
    <div className="h-full overflow-y-auto px-6 pt-14 pb-6">
      <div className="mx-auto grid max-w-[900px] grid-cols-2 gap-5">
        {plans.map(({ plan, choices }) => {
          const sums = sumsOf(teeth, choices, told, fees);
          const time = timeOf(here?.chosen(choices));
          return (
            <section
              key={plan}
              aria-label={`Plan ${plan}`}
              className={`rounded-xl border bg-leaf p-5 ${plan === now ? 'border-plum' : 'border-hair'}`}
            >
              <div className="mb-3 flex min-h-10 items-baseline justify-between gap-3">
                <h2 className="font-serif text-head font-semibold">Plan {plan}</h2>
                {plan === now ? (
                  <span className="text-note text-plum">followed</span>
                ) : (
                  follow && (
                    <button type="button" className="btn btn-ghost" onClick={follow}>
                      Follow plan {plan}
                    </button>
                  )
                )}
              </div>
              <dl className="mb-4 grid grid-cols-2 gap-x-4 gap-y-3">
                <Sum what="tooth taken away" value={`${number(sums.removedMm3, 0)} mm³`}>
                  {number(100 * sums.removedShare, 0)} % of these crowns
                  {sums.waiting > 0 ? ', more being worked out' : ''}
                </Sum>
                <Sum what="visits still to come" value={time ? String(time.visits) : '…'}>
                  {time && `${number(time.hours, 1)} h in the chair; finished ${day(time.end)} at the earliest`}
                </Sum>
                <Sum what="colour, furthest off" value={sums.worst ? `ΔE00 ${number(sums.worst.dE, 1)}` : 'not known'}>
                  {sums.worst ? `on ${name(sums.worst.tooth)}, predicted` : 'no colour was read'}
                </Sum>
                <Sum what="price" value={sums.price === undefined ? 'no fees set' : money(sums.price, currency)} />
              </dl>
              <ul className="text-note">
                {teeth.map((t) => {
                  const own = choiceOf(choices, t);
                  const other = choiceOf(plan === now ? (data.other ?? []) : data.choices, t);
                  const x = figuresOf(told.get(t), own);
                  const differs = own?.option !== other?.option;
                  return (
                    <li key={t} className="grid grid-cols-[34px_1fr_auto] gap-2 border-t border-hair py-1.5">
                      <b className="font-semibold">{name(t)}</b>
                      <span className={differs ? 'font-semibold' : 'text-ink-2'}>
                        {own ? optionOf(own.option).name : 'not decided'}
                        {own && <span className="block font-normal text-ink-2">{optionOf(own.option).upkeep}</span>}
                      </span>
                      <span className="text-ink-2">{x ? `${number(x.removedMm3, 0)} mm³` : ''}</span>
                    </li>
                  );
                })}
              </ul>
            </section>
          );
        })}
      </div>
      <p className="mx-auto mt-3 max-w-[900px] text-tiny text-ink-2">
        Bold is what differs. Both plans are kept; all later stages follow the one that is marked. Patient and dentist
        decide together.
      </p>
    </div>
  );
}

function Sum({ what, value, children }: { what: string; value: string; children?: React.ReactNode }) {
  return (
    <div>
      <dt className="text-tiny text-ink-2">{what}</dt>
      <dd className="text-figure font-semibold">{value}</dd>
      {children && <dd className="text-tiny text-ink-2">{children}</dd>}
    </div>
  );
}
